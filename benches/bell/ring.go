package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"sync"
	"time"

	"earlychorus/core/audio/wav"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/server/intake"
	"earlychorus/server/store"
)

// signedIn is everybody of a school with an open session.
type signedIn struct {
	school

	base     string
	director *http.Cookie
	sessions []*http.Cookie // of the players
}

func signIn(base string, of school) (signedIn, error) {
	out := signedIn{school: of, base: base}
	var err error
	out.director, err = cookie(base+"/api/sign-in/director", map[string]string{
		"email": of.director.Email, "password": password,
	})
	if err != nil {
		return out, err
	}
	for _, p := range of.players {
		c, err := cookie(base+"/api/sign-in/player", map[string]string{
			"code": of.class.Code, "player_id": p.ID, "pin": pin,
		})
		if err != nil {
			return out, err
		}
		out.sessions = append(out.sessions, c)
	}
	return out, nil
}

func cookie(address string, who map[string]string) (*http.Cookie, error) {
	body, err := json.Marshal(who)
	if err != nil {
		return nil, err
	}
	res, err := http.Post(address, "application/json", bytes.NewReader(body))
	if err != nil {
		return nil, err
	}
	defer res.Body.Close() //nolint:errcheck // no matter
	for _, c := range res.Cookies() {
		if c.Name == "__Host-earlychorus" {
			return c, nil
		}
	}
	return nil, fmt.Errorf("signing in: %s", res.Status)
}

// score is a step for one of the players.
func (b signedIn) score(ctx context.Context, s *store.Store, step store.Step, n int) (scores.Score, error) {
	p := b.players[n]
	p.Class = b.class
	now, err := s.Standing(ctx, p)
	if err != nil {
		return scores.Score{}, err
	}
	score, _, err := intake.Score(step, now, b.class.Day(time.Now()))
	return score, err
}

// file plays a step as a player does, in a room.
func (b signedIn) file(ctx context.Context, s *store.Store, step store.Step, n int) ([]byte, error) {
	score, err := b.score(ctx, s, step, n)
	if err != nil {
		return nil, err
	}
	i, err := instrument.Get(score.Instrument)
	if err != nil {
		return nil, err
	}
	sound, _ := synth.Player{Instrument: i, Seed: uint64(n + 1), Room: -60}.Play(score, 48000)
	return wav.Encode(sound), nil
}

// hand hands a take in and returns how long the answer took.
func (b signedIn) hand(step store.Step, n int, id string, file []byte) (time.Duration, int, error) {
	req, err := http.NewRequest(
		"PUT",
		fmt.Sprintf("%s/api/takes/%s?step=%s&version=1&source=microphone", b.base, id, step.ID),
		bytes.NewReader(file),
	)
	if err != nil {
		return 0, 0, err
	}
	req.AddCookie(b.sessions[n])
	began := time.Now()
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return 0, 0, err
	}
	_, _ = io.Copy(io.Discard, res.Body)
	return time.Since(began), res.StatusCode, res.Body.Close()
}

// ringing is what the bell came to.
type ringing struct {
	takes, refused int
	seconds        float64
	acknowledged   []time.Duration
	judged         []time.Duration // from the answer
	board          []time.Duration
	cpu            cpu
	memory         int64
}

// ring lets everybody of some bands hand a take in within a time, while the first band's
// director looks on.
func ring(ctx context.Context, s *store.Store, at *server, bands []signedIn, within time.Duration) (ringing, error) {
	var out ringing
	files := make([][][]byte, len(bands))
	for n, b := range bands {
		out.takes += len(b.players)
		for k := range b.players {
			file, err := b.file(ctx, s, b.short, k)
			if err != nil {
				return out, err
			}
			files[n] = append(files[n], file)
		}
	}
	out.seconds = float64(len(files[0][0])) / 2 / 48000
	before := at.cpuNow()
	looking, looked := context.WithCancel(ctx)
	var board sync.WaitGroup
	board.Go(func() { out.board = bands[0].look(looking) })
	var mu sync.Mutex
	var all sync.WaitGroup
	heard := newHearing(ctx, s)
	for n, b := range bands {
		for k := range b.players {
			pause := time.Duration(rand.Float64() * float64(within))
			all.Go(func() {
				time.Sleep(pause)
				id := store.NewID()
				took, status, err := b.hand(b.short, k, id, files[n][k])
				mu.Lock()
				defer mu.Unlock()
				if err != nil || status != http.StatusCreated {
					out.refused++
					return
				}
				out.acknowledged = append(out.acknowledged, took)
				heard.wait(id, time.Now())
			})
		}
	}
	all.Wait()
	out.judged = heard.all()
	looked()
	board.Wait()
	out.cpu = at.cpuNow().since(before)
	out.memory = at.memory()
	return out, nil
}

// look asks for the board as an open page does: after every change, not more often than
// twice a second.
func (b signedIn) look(ctx context.Context) (took []time.Duration) {
	for ctx.Err() == nil {
		req, err := http.NewRequestWithContext(ctx, "GET", b.base+"/api/classes/"+b.class.ID+"/today", nil)
		if err != nil {
			return took
		}
		req.AddCookie(b.director)
		began := time.Now()
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			return took
		}
		_, _ = io.Copy(io.Discard, res.Body)
		_ = res.Body.Close()
		took = append(took, time.Since(began))
		time.Sleep(500 * time.Millisecond)
	}
	return took
}

// hearing waits for words on takes.
type hearing struct {
	ctx   context.Context
	store *store.Store

	mu      sync.Mutex
	waiting map[string]time.Time
	took    []time.Duration
}

func newHearing(ctx context.Context, s *store.Store) *hearing {
	return &hearing{ctx: ctx, store: s, waiting: map[string]time.Time{}}
}

func (h *hearing) wait(id string, since time.Time) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if len(h.waiting) == 0 && len(h.took) == 0 {
		go h.watch()
	}
	h.waiting[id] = since
}

const lookEvery = 50 * time.Millisecond

// watch notes which takes have their word.
func (h *hearing) watch() {
	for h.ctx.Err() == nil {
		time.Sleep(lookEvery)
		rows, err := h.store.SQL().QueryContext(h.ctx, "SELECT id FROM take WHERE result <> '' OR failure <> ''")
		if err != nil {
			return
		}
		now := time.Now()
		h.mu.Lock()
		for rows.Next() {
			var id string
			if rows.Scan(&id) != nil {
				continue
			}
			if since, ok := h.waiting[id]; ok {
				h.took = append(h.took, now.Sub(since))
				delete(h.waiting, id)
			}
		}
		h.mu.Unlock()
		_ = rows.Close()
	}
}

// all returns once every take has its word.
func (h *hearing) all() []time.Duration {
	for {
		h.mu.Lock()
		left, took := len(h.waiting), h.took
		h.mu.Unlock()
		if left == 0 || h.ctx.Err() != nil {
			return took
		}
		time.Sleep(lookEvery)
	}
}

// longest is what four of the longest takes came to.
type longest struct {
	seconds float64
	memory  int64
}

// longTakes hands in four takes at once that are as long as their step allows.
func (b signedIn) longTakes(ctx context.Context, s *store.Store, at *server) (longest, error) {
	var out longest
	heard := newHearing(ctx, s)
	files := make([][]byte, 4)
	for n := range files {
		var err error
		if files[n], err = b.file(ctx, s, b.long, n); err != nil {
			return out, err
		}
	}
	out.seconds = float64(len(files[0])) / 2 / 48000
	var all sync.WaitGroup
	failed := make(chan error, len(files))
	for n, file := range files {
		all.Go(func() {
			id := store.NewID()
			_, status, err := b.hand(b.long, n, id, file)
			if err == nil && status != http.StatusCreated {
				err = fmt.Errorf("a long take: %d", status)
			}
			if err != nil {
				failed <- err
				return
			}
			heard.wait(id, time.Now())
		})
	}
	all.Wait()
	heard.all()
	out.memory = at.memory()
	select {
	case err := <-failed:
		return out, err
	default:
		return out, nil
	}
}
