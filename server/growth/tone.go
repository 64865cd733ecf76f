package growth

import (
	"context"
	"time"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/say"
	"earlychorus/core/tone"
	"earlychorus/server/schooldays"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// daysOfTone is how far back a tone is compared.
const daysOfTone = 7 * tone.Weeks

// ToneOf returns a take's tone against the player's own of the weeks before it.
func ToneOf(ctx context.Context, s *store.Store, t store.Take) (say.SaidTone, error) {
	now, err := s.ToneOf(ctx, t)
	if err != nil {
		return say.SaidTone{}, err
	}
	notes := []int{}
	for _, n := range now {
		notes = append(notes, n.Sounding)
	}
	before, err := s.ToneBefore(ctx, t, notes, t.Day.AddDate(0, 0, -daysOfTone))
	if err != nil {
		return say.SaidTone{}, err
	}
	return say.ToneOf(tone.Compare(heardOf(now), heardOf(before))), nil
}

// courseOf is how one player's tone went between two days.
func courseOf(ctx context.Context, s *store.Store, playerID string, from, to time.Time) (say.ToneCourse, error) {
	rows, err := s.ToneByDay(ctx, []string{playerID}, from, to)
	return say.ToneCourseOf(tone.CourseOf(heardOf(rows))), err
}

// SectionTone is how the tone of each player of a section went, each against their own
// earlier playing: they stand in the order of the list, and nobody above another.
type SectionTone struct {
	Weeks   int          `json:"weeks" doc:"that are looked back on"`
	Players []PlayerTone `json:"players" nullable:"false"`
}

// PlayerTone is one player's.
type PlayerTone struct {
	view.NamedPlayer
	Tone say.ToneCourse `json:"tone"`
}

// ToneOfSection returns how the tone of a section's players went in the last weeks.
// Errors: store.ErrNotFound when nobody of the class is in the section.
func ToneOfSection(
	ctx context.Context, s *store.Store, class store.Class, section string, today time.Time,
) (SectionTone, error) {
	out := SectionTone{Weeks: tone.Weeks, Players: []PlayerTone{}}
	players, err := s.Players(ctx, class.ID)
	if err != nil {
		return out, err
	}
	var mine []store.Player
	var ids []string
	for _, p := range players {
		if i, err := instrument.Get(p.Instrument); err == nil && i.Section == section {
			mine, ids = append(mine, p), append(ids, p.ID)
		}
	}
	if len(mine) == 0 {
		return out, store.ErrNotFound
	}
	rows, err := s.ToneByDay(ctx, ids, today.AddDate(0, 0, -daysOfTone), today)
	if err != nil {
		return out, err
	}
	byPlayer := map[string][]store.ToneNote{}
	for _, r := range rows {
		byPlayer[r.PlayerID] = append(byPlayer[r.PlayerID], r)
	}
	for _, p := range mine {
		out.Players = append(out.Players, PlayerTone{
			NamedPlayer: view.NamedPlayer{ID: p.ID, Name: p.FullName()},
			Tone:        say.ToneCourseOf(tone.CourseOf(heardOf(byPlayer[p.ID]))),
		})
	}
	return out, nil
}

// heardOf puts rows into the core's words.
func heardOf(rows []store.ToneNote) []tone.Heard {
	out := make([]tone.Heard, len(rows))
	for n, r := range rows {
		out[n] = tone.Heard{
			Take:    r.TakeID,
			Day:     schooldays.Number(r.Day),
			Note:    music.MIDI(r.Sounding),
			Through: r.Through,
			Room:    tone.Room{Floor: music.Decibels(r.FloorDB), Ring: music.Seconds(r.RingS)},
			Level:   music.Decibels(r.LevelDB),
			Colour: tone.Colour{
				Clearness: music.Decibels(r.Clearness), Brightness: r.Brightness, Fullness: r.Fullness,
			},
		}
	}
	return out
}
