package district

import (
	"context"
	"crypto/sha256"
	"encoding/json"

	"golang.org/x/sync/errgroup"

	"earlychorus/core/contour/packed"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/outcome"
	"earlychorus/core/progress"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

const (
	rate       = 16000 // enough for a drawing
	smallSheet = 96    // points of the board's drawing
)

// players are whose takes stand for everybody's.
var players = []string{"steady", "wavering", "flat"}

// makeSheets works every step out for every place in the band, and lets a few
// simulated players play it.
func makeSheets(ctx context.Context, say func(string, ...any)) ([][]sheet, error) {
	say("simulated players play %d takes", len(steps())*len(distinct())*len(players))
	byKey := make([]map[string]*sheet, len(steps()))
	work, ctx := errgroup.WithContext(ctx)
	// Two at a time: each holds a whole performance in memory.
	work.SetLimit(2)
	for n, step := range steps() {
		byKey[n] = map[string]*sheet{}
		for _, key := range distinct() {
			// Filled by one of the workers below; the map itself is written here alone.
			sh := &sheet{}
			byKey[n][key] = sh
			work.Go(func() error {
				score, i, err := scoreOf(step, key)
				if err != nil {
					return err
				}
				if sh.body, err = json.Marshal(score); err != nil {
					return err
				}
				sh.id, sh.ms = sumOf(sh.body), int(1000*score.Seconds())
				sh.note, sh.written = int(synth.FirstNote(score, i)), score.Reads()
				// The seed is fixed, so that a district is the same wherever it is made.
				for seed, who := range players {
					p, _ := synth.NewStandIn(who, i, synth.FirstNote(score, i), uint64(seed+1))
					sound, _ := p.Play(score, rate)
					came, err := outcome.Of(ctx, sound, outcome.Request{Score: score})
					if err != nil {
						return err
					}
					if err := sh.add(came, score); err != nil {
						return err
					}
				}
				return nil
			})
		}
	}
	if err := work.Wait(); err != nil {
		return nil, err
	}
	out := make([][]sheet, len(steps()))
	for n := range steps() {
		for _, key := range band {
			out[n] = append(out[n], *byKey[n][key])
		}
	}
	return out, nil
}

// distinct is each instrument of the band once, in the band's order.
func distinct() (keys []string) {
	seen := map[string]bool{}
	for _, key := range band {
		if !seen[key] {
			seen[key] = true
			keys = append(keys, key)
		}
	}
	return keys
}

// add keeps a take as the database does.
func (s *sheet) add(came outcome.Outcome, score scores.Score) error {
	drawing, err := came.Draw(score, smallSheet)
	if err != nil {
		return err
	}
	h := heard{
		tip:     came.Verdict.TipKey,
		contour: packed.Pack(came.Analysis.Contour),
		cut:     progress.CutOf(came.Analysis, came.Verdict.Decided()),
	}
	for _, part := range []struct {
		to   *json.RawMessage
		what any
	}{{&h.measured, came.Analysis}, {&h.verdict, came.Verdict}, {&h.ribbon, drawing}} {
		if *part.to, err = json.Marshal(part.what); err != nil {
			return err
		}
	}
	if s.conclusion, err = json.Marshal(came.Verdict.Brief()); err != nil {
		return err
	}
	s.heard = append(s.heard, h)
	return nil
}

// sheet is a step's score for a place in the band, with takes of it to show.
type sheet struct {
	id, body   []byte
	ms, note   int
	written    string
	conclusion json.RawMessage
	heard      []heard
}

// heard is what the ear found in one performed take, ready to be copied under
// thousands of numbers.
type heard struct {
	tip                       string
	measured, verdict, ribbon json.RawMessage
	contour                   []byte
	cut                       progress.Cut
}

// of is what was heard in a take of the sheet.
func (s sheet) of(m made) heard { return s.heard[(m.class+m.player)%len(s.heard)] }

// scoreOf is how one instrument reads a step, by the usual conventions.
func scoreOf(step exercise.Step, key string) (scores.Score, instrument.Instrument, error) {
	i, err := instrument.Get(key)
	if err != nil {
		return scores.Score{}, i, err
	}
	score, err := step.Score(exercise.Player{Instrument: i, Stage: stage}, exercise.StandardConventions())
	return score, i, err
}

// sumOf is a score's number: the SHA-256 of what it says.
func sumOf(body []byte) []byte {
	sum := sha256.Sum256(body)
	return sum[:]
}
