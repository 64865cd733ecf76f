package api

import (
	"context"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"golang.org/x/crypto/bcrypt"

	"earlychorus/server/store"
)

// OpenSession is one of the asker's own.
type OpenSession struct {
	ID      string    `json:"id"`
	Browser string    `json:"browser" doc:"in words"`
	Began   time.Time `json:"began"`
	Seen    time.Time `json:"seen" doc:"when it was last heard of, to the minute"`
	This    bool      `json:"this" doc:"the one that asks"`
}

type sessionsOutput struct {
	Body struct {
		Sessions []OpenSession `json:"sessions" nullable:"false"`
	}
}

// listSessions tells somebody where they are signed in.
func (a *API) listSessions(ctx context.Context, _ *struct{}) (*sessionsOutput, error) {
	open, err := a.Store.SessionsOf(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	out := &sessionsOutput{}
	out.Body.Sessions = []OpenSession{}
	for _, s := range open {
		out.Body.Sessions = append(out.Body.Sessions, OpenSession{
			ID:      s.ID,
			Browser: s.Agent,
			Began:   s.Began,
			Seen:    s.Seen,
			This:    s.Token == a.sessions.Token(ctx),
		})
	}
	return out, nil
}

type sessionPath struct {
	Session string `path:"session" format:"uuid"`
}

// endSession ends one of the asker's own.
func (a *API) endSession(ctx context.Context, in *sessionPath) (*sessionsOutput, error) {
	if err := a.Store.EndSession(ctx, a.who(ctx), in.Session); err != nil {
		return nil, err
	}
	return a.listSessions(ctx, nil)
}

// endOtherSessions ends all of the asker's own but this.
func (a *API) endOtherSessions(ctx context.Context, _ *struct{}) (*sessionsOutput, error) {
	open, err := a.listSessions(ctx, nil)
	if err != nil {
		return nil, err
	}
	for _, s := range open.Body.Sessions {
		if s.This {
			continue
		}
		if err := a.Store.EndSession(ctx, a.who(ctx), s.ID); err != nil {
			return nil, err
		}
	}
	return a.listSessions(ctx, nil)
}

// endPlayersSessions signs a player out everywhere.
func (a *API) endPlayersSessions(ctx context.Context, in *PlayerPath) (*struct{}, error) {
	p, err := a.playerAsked(ctx, in)
	if err != nil {
		return nil, err
	}
	return nil, a.Store.EndSessionsOf(ctx, store.RolePlayer, p.ID)
}

// playerAsked returns the player an address names, when the class is in the asker's
// reach.
func (a *API) playerAsked(ctx context.Context, in *PlayerPath) (store.Player, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return store.Player{}, err
	}
	p, err := a.Store.PlayerOfClass(ctx, class.ID, in.Player)
	p.Class = class
	return p, err
}

// pinDigits are those of a new PIN.
const pinDigits = 6

// newPIN is a PIN that nobody foresees.
func newPIN() string { return fmt.Sprintf("%0*d", pinDigits, randomBelow(1_000_000)) }

// setPINs gives players new PINs: whoever came in by the old one is out, and what was
// tried before counts no more.
func (a *API) setPINs(ctx context.Context, hashes map[string]string) error {
	if err := a.Store.SetPINs(ctx, hashes); err != nil {
		return err
	}
	players := slices.Collect(maps.Keys(hashes))
	if err := a.guard().Forgive(ctx, players...); err != nil {
		return err
	}
	return a.Store.EndSessionsOf(ctx, store.RolePlayer, players...)
}

type pinOutput struct {
	Body struct {
		PIN string `json:"pin" doc:"shown once; only its hash is kept"`
	}
}

// renewPIN gives one player a new PIN and answers it, for a child who stands there.
func (a *API) renewPIN(ctx context.Context, in *PlayerPath) (*pinOutput, error) {
	p, err := a.playerAsked(ctx, in)
	if err != nil {
		return nil, err
	}
	out := &pinOutput{}
	out.Body.PIN = newPIN()
	hash, err := bcrypt.GenerateFromPassword([]byte(out.Body.PIN), bcrypt.DefaultCost)
	if err != nil {
		return nil, err
	}
	return out, a.setPINs(ctx, map[string]string{p.ID: string(hash)})
}

// browserOf is a browser in words that somebody knows their own by. What browsers say of
// themselves is long, and names others; the first that fits is it.
func browserOf(agent string) string {
	name := "Another program"
	for _, b := range []struct{ has, is string }{
		{"Firefox/", "Firefox"},
		{"Edg/", "Edge"},
		{"CrOS", "Chrome"},
		{"Chrome/", "Chrome"},
		{"Safari/", "Safari"},
	} {
		if strings.Contains(agent, b.has) {
			name = b.is
			break
		}
	}
	for _, m := range []struct{ has, is string }{
		{"iPad", "iPad"},
		{"iPhone", "iPhone"},
		{"Android", "Android"},
		{"CrOS", "a Chromebook"},
		{"Windows", "Windows"},
		{"Mac OS", "a Mac"},
		{"Linux", "Linux"},
	} {
		if strings.Contains(agent, m.has) {
			return name + " on " + m.is
		}
	}
	return name
}
