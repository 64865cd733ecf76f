package demo

import (
	"context"
	"time"

	"earlychorus/core/audio/flac"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/plan"
	"earlychorus/core/playtest"
	"earlychorus/core/synth"
	"earlychorus/server/classcode"
	"earlychorus/server/store"
)

// schoolLife is what a school's weeks have besides takes: what players tell and ask, a
// substitute for a day, and the director's own playing of the long tone.
func (s Seeder) schoolLife(ctx context.Context, class store.Class) error {
	if err := s.told(ctx); err != nil {
		return err
	}
	if err := s.substitute(ctx, class); err != nil {
		return err
	}
	return s.models(ctx)
}

// told are what players told: two that wait for the director, and one that was answered.
func (s Seeder) told(ctx context.Context) error {
	now := s.Now().UTC()
	for n, f := range []struct {
		person int
		kind   store.FlagKind
		words  string
		ago    time.Duration
		answer string
	}{
		{6, store.Question, "Is the thumb key down for the high G?", 40 * time.Minute, ""},
		{10, store.Tired, "", 20 * time.Minute, ""},
		{0, store.Question, "Can I warm up at my grandmother’s?", 26 * time.Hour, "Yes. Long tones first, as here."},
	} {
		flag := store.Flag{
			ID:       id("flag/%d", n),
			PlayerID: playerID(f.person),
			Kind:     f.kind,
			Words:    f.words,
			RaisedAt: now.Add(-f.ago),
		}
		if err := s.Store.RaiseFlag(ctx, flag); err != nil {
			return err
		}
		if f.answer == "" {
			continue
		}
		at := flag.RaisedAt.Add(2 * time.Hour)
		if err := s.Store.AnswerFlag(ctx, flag.ID, id("class"), id("director"), f.answer, at); err != nil {
			return err
		}
	}
	return nil
}

// SubstitutesCode lets the demo's substitute in, for tomorrow.
const SubstitutesCode = "demo-substitute-heron-tide-lantern"

func (s Seeder) substitute(ctx context.Context, class store.Class) error {
	director, tomorrow := id("director"), class.Day(s.Now()).AddDate(0, 0, 1)
	return s.Store.AddPass(ctx, store.Pass{
		ID:      id("pass/substitute"),
		Role:    store.RoleSubstitute,
		ClassID: class.ID,
		Name:    "Agnes Merrow, substitute",
		MadeBy:  &director,
		MadeAt:  s.Now().UTC(),
		LastDay: tomorrow,
		EndsAt:  class.Ends(tomorrow).UTC(),
	}, classcode.Key(SubstitutesCode))
}

// models are the director's own playing of the long tone, by a simulated player, for the
// sections that look to the others.
func (s Seeder) models(ctx context.Context) error {
	long := exercise.New(exercise.KindLongToneCounted, nil)
	for n, key := range []string{"flute", "clarinet", "trumpet"} {
		i, err := instrument.Get(key)
		if err != nil {
			return err
		}
		score, err := long.Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
		if err != nil {
			return err
		}
		player := synth.Player{
			Instrument: i,
			Seed:       uint64(n),
			Room:       -70,
			Level:      -20,
		}
		played, _ := player.Play(score, rate)
		sound := played.Model()
		packed, err := flac.Encode(sound)
		if err != nil {
			return err
		}
		if _, err := s.Store.KeepModel(ctx, store.Model{
			ID:         id("model/%s", key),
			DirectorID: id("director"),
			Asks:       store.AsksKey(long),
			Instrument: key,
			Sound:      packed,
			Seconds:    sound.Seconds(),
			MadeAt:     s.Now().UTC(),
		}); err != nil {
			return err
		}
	}
	return nil
}

// dueTest is the week's test: the five-note walk, due in three days, the best of three.
func dueTest(today time.Time) plan.Item {
	return plan.Item{
		Key:    "test",
		Step:   exercise.New("five-note-walk", map[string]any{"way": "up"}),
		Times:  1,
		Days:   plan.On(weekday(today)),
		At:     plan.AtHome,
		Wanted: 3,
		Called: "Five notes for the concert",
		Why:    "The best of three takes counts.",
		Test: &playtest.Test{
			Due:    today.AddDate(0, 0, 3).Format(time.DateOnly),
			Takes:  3,
			Counts: playtest.Best,
		},
	}
}
