package demo

import (
	"context"

	"earlychorus/core/measure"
	"earlychorus/core/verdict"
	"earlychorus/server/store"
)

// reviews are the director's first words; written once.
func (s Seeder) reviews(ctx context.Context) error {
	_, class, err := s.class(ctx)
	if err != nil {
		return err
	}
	for n, c := range []struct {
		person, day int
		body        string
		overrule    verdict.Result
	}{
		{5, 1, "The jump is a leak, not you: press the third finger flat and try again.", ""},
		{1, 1, "Better than last time. Warm the flute well first, then aim the air a little higher.", ""},
		{4, 0, "Relax the jaw. I hear it settling already.", verdict.Nearly},
		{31, 1, "Two gaps instead of three. Bigger breath, same lips.", ""},
	} {
		if !s.lets(c.person) {
			continue
		}
		day := firstDay(begun(class))[c.day]
		takeID := takeID(take{c.person, c.day, 0}, stepID("long", store.Monday(day)))
		comment := store.Comment{
			ID:         id("comment/%d", n),
			TakeID:     takeID,
			DirectorID: id("director"),
			Body:       c.body,
			WrittenAt:  s.Now().UTC(),
			Kind:       "comment",
		}
		if err := s.Store.AddCommentOnce(ctx, comment); err != nil {
			return err
		}
		if c.overrule != "" {
			r := store.Review{
				ID:         id("review/%d", n),
				TakeID:     takeID,
				DirectorID: id("director"),
				Result:     c.overrule,
				ReviewedAt: s.Now().UTC(),
			}
			if err := s.Store.Overrule(ctx, r); err != nil {
				return err
			}
		}
	}
	return s.remarks(ctx, class)
}

// remarksOn are what the director says of a take for what came of it.
var remarksOn = map[measure.Cause]string{
	measure.CauseRegisterLow: "Play the top note alone first, and keep that mouth and that air for the pair.",
	measure.CauseHeldOver:    "The fingers forgot to move. Do it twice without blowing, then once with.",
	measure.CauseFingering:   "Look at the chart for that one note, press it five times, then play the whole line.",
	measure.CausePartial:     "You were on the neighbor. Sing it first, then play it: the air goes where the ear is.",
	measure.CauseNotTongued:  "I hear one long note. Say “too” four times on your hand first.",
	measure.CauseLeftOut:     "One note went missing. Slowly, fingers only, and it will be back.",
	measure.CauseLate:        "Breathe on the beat before, then the air is there when the beat is.",
	measure.CausePace:        "Good notes, wrong clock. Keep the click on and do it boringly slow.",
}

// remarks says a word to the first take of each cause on the last days, so that what the
// director says fits what was heard.
func (s Seeder) remarks(ctx context.Context, class store.Class) error {
	said := map[measure.Cause]bool{}
	for _, day := range firstDay(begun(class)) {
		for n := range people {
			if !s.lets(n) {
				continue
			}
			takes, err := s.Store.TakesOfPlayerOn(ctx, playerID(n), class.Day(day))
			if err != nil {
				return err
			}
			for _, t := range takes {
				words, ok := remarksOn[t.Cause]
				if !ok || said[t.Cause] || t.Result == verdict.Clean {
					continue
				}
				said[t.Cause] = true
				if err := s.Store.AddCommentOnce(ctx, store.Comment{
					ID:         id("remark/%s", t.Cause),
					TakeID:     t.ID,
					DirectorID: id("director"),
					Body:       words,
					WrittenAt:  s.Now().UTC(),
					Kind:       "comment",
				}); err != nil {
					return err
				}
			}
		}
	}
	return nil
}
