package storetest

import (
	"context"
	"crypto/sha256"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"

	"earlychorus/core/contour"
	"earlychorus/core/contour/packed"
	"earlychorus/core/ear"
	"earlychorus/core/measure"
	"earlychorus/core/progress"
	"earlychorus/core/ribbon"
	"earlychorus/core/verdict"
	"earlychorus/server/intake"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// Played is a take that is put into the database as if it had been played.
type Played struct {
	Player int // of the band
	Step   store.Step
	At     time.Time
	Result verdict.Result // "" leaves it waiting
	Cause  measure.Cause
	Notes  []store.TakeNote // what they are, not whose; nothing is one note
	Cut    progress.Cut
}

// Play puts a take into the database, and returns its number.
func (b Band) Play(t testing.TB, s *store.Store, p Played) string {
	t.Helper()
	ctx := context.Background()
	player := b.Players[p.Player]
	player.Class = b.Class
	day := b.Class.Day(p.At)
	now, err := s.Standing(ctx, player)
	require.NoError(t, err)
	// The score is the real one: maps and boards read notes from it.
	score, _, err := intake.Score(p.Step, now, day)
	require.NoError(t, err)
	id := uuid.NewString()
	hash := sha256.Sum256([]byte(id))
	accepted, err := s.AcceptTake(ctx, store.Take{
		ID:          id,
		PlayerID:    player.ID,
		StepID:      p.Step.ID,
		StepVersion: p.Step.Version,
		Day:         day,
		Source:      store.Simulated,
		ReceivedAt:  p.At.UTC(),
		PlayedAt:    p.At.UTC(),
		DurationMS:  8000,
		RateHz:      48000,
		SHA256:      hash[:],
		Sound:       recordings.Name(recordings.OfTake, id, hash[:], ".wav"),
		Score:       score,
	}, func(*gorm.DB) error { return nil })
	require.NoError(t, err)
	// A take that was there already would make the test about another one.
	require.True(t, accepted)
	if p.Result == "" {
		return id
	}
	word := verdict.Verdict{
		Version:  1,
		Result:   p.Result,
		OldShort: "in short",
		Measures: []measure.Reading{},
		Causes:   []measure.Cause{},
	}
	if p.Cause != "" {
		word.Deciding = &measure.Reading{Cause: p.Cause, Note: 0}
	}
	notes := p.notes()
	for n := range notes {
		notes[n].TakeID, notes[n].Number, notes[n].PlayerID, notes[n].Day = id, n, player.ID, day
	}
	require.NoError(t, s.SaveAnalysis(ctx, store.Analysis{
		TakeID:    id,
		Version:   1,
		CreatedAt: p.At.UTC(),
		Result:    p.Result,
		// As many notes as the score has, all silent: these tests are about what is kept, not
		// about what is heard.
		Measured: ear.Analysis{Start: 1, Notes: make([]ear.Note, len(score.Targets()))},
		Verdict:  word,
		Ribbon:   ribbon.Ribbon{Text: "drawn"},
		Contour:  packed.Pack(contour.Contour{}),
	}, notes, p.Cut))
	return id
}

// notes are the take's; one that is nothing special where none are given.
func (p Played) notes() []store.TakeNote {
	if p.Notes != nil {
		return p.Notes
	}
	return []store.TakeNote{{
		Sounding:   58,
		Good:       p.Result == verdict.Clean,
		Trusted:    true,
		Centre:     3,
		Steadiness: 5,
		Held:       4,
	}}
}
