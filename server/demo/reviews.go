package demo

import (
	"context"

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
	return nil
}
