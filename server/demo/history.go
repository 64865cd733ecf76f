package demo

import (
	"context"
	"errors"
	"math/rand/v2"
	"time"

	"golang.org/x/sync/errgroup"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/core/synth"
	"earlychorus/server/intake"
	"earlychorus/server/store"
)

// weeksBack is how many weeks before the demo's first day have takes too, so that
// growth has something to show.
const weeksBack = 4

// playingDays of an earlier week, from Monday.
var playingDays = []plan.Day{1, 3}

// earlierWeek is what the class had to play in those weeks: little, and the same.
func earlierWeek() plan.Plan {
	days := plan.On(playingDays...)
	item := func(key, kind string, params map[string]any, days plan.Days, why string) plan.Item {
		return plan.Item{
			Key:    key,
			Step:   exercise.New(kind, params),
			Times:  1,
			Days:   days,
			At:     plan.AtHome,
			Wanted: 2,
			Why:    why,
		}
	}
	ladder := item(
		"break",
		exercise.KindLadder,
		map[string]any{"ladder": "clarinet-break"},
		days,
		"Over the break, one rung at a time.",
	)
	ladder.For = []string{"clarinet"}
	return plan.Plan{Name: "First weeks", Items: []plan.Item{
		item(
			"long",
			exercise.KindLongToneCounted,
			map[string]any{"notes": []int{0}},
			plan.On(1),
			"One note, as steady on the last beat as on the first.",
		),
		item(
			"longest",
			exercise.KindLongToneLongest,
			map[string]any{"cap_s": 20},
			plan.On(3),
			"One beat more than last time.",
		),
		ladder,
	}}
}

// past is a take of an earlier week.
type past struct {
	person, nth int
	step        store.Step
	at          time.Time
	back        float64 // weeks before the demo's first day
}

// id is the same whenever the same past take is made, so that the past is there
// once.
func (p past) id() string {
	return id("past/%s/%d/%s/%d", p.step.ID, p.person, p.at.Format(time.DateOnly), p.nth)
}

// tries is how many takes of a rung a clarinet makes of an evening.
const tries = 3

// earlier lists the earlier weeks' takes, oldest first.
func (s Seeder) earlier(ctx context.Context, players []store.Standing) (out []past, err error) {
	class := players[0].Player.Class
	first := store.Monday(firstDay(begun(class))[0])
	for back := weeksBack; back > 0; back-- {
		monday := first.AddDate(0, 0, -7*back)
		for _, weekday := range playingDays {
			day := monday.AddDate(0, 0, int(weekday))
			steps, err := s.Store.StepsOn(ctx, class.ID, day, plan.AtHome)
			if err != nil {
				return nil, err
			}
			for nth := range tries {
				for n, p := range people {
					for k, step := range steps {
						// Rungs are tried several times of an evening; everything else once.
						if !s.lets(n) || p.habit == rare && back%2 == 0 || nth > 0 && step.Kind != exercise.KindLadder {
							continue
						}
						if _, _, err := intake.Score(step, players[n], day); errors.Is(err, exercise.ErrNotFor) {
							continue
						}
						at := day.Add(hourOf(n, k, nth) + time.Duration(nth)*10*time.Minute)
						out = append(out, past{n, nth, step, at, float64(back) - 0.3*float64(weekday)})
					}
				}
			}
		}
	}
	return out, nil
}

// player is how a person played then: the habit, and less of everything.
func (p past) player(i instrument.Instrument, target music.MIDI) synth.Player {
	day := 0
	if people[p.person].habit == wrong {
		day = 1 // the note was found by then
	}
	out := take{p.person, day, 0}.player(i, target, p.step.Kind)
	chance := rand.New(rand.NewPCG(uint64(p.person), uint64(p.at.Unix())+uint64(p.nth)))
	about := func(x, spread float64) float64 { return x + spread*chance.NormFloat64() }
	out.Seed = chance.Uint64()
	out.WaverDepth += music.Cents(about(2.2*p.back, 1.5))
	if people[p.person].habit == growing {
		out.WaverDepth += music.Cents(3 * p.back)
	}
	// Whoever is flat now was flatter then.
	out.Offset += music.Cents(about(float64(out.Offset)*0.1*p.back, 4))
	switch p.step.Kind {
	case exercise.KindLongToneLongest:
		out.Held = min(1, max(0.25, about(0.8-0.08*p.back, 0.04)))
		if people[p.person].habit == short {
			out.Held *= 0.7
		}
	case exercise.KindLadder:
		// A break comes at the end of an evening, and seldomer from week to week.
		// A rung is about one thing; the habits of long tones would only hide it.
		out.Held, out.Sag, out.Gaps, out.WaverDepth = 0, 0, nil, max(music.Cents(about(8, 2)), out.WaverDepth/2)
		out.Offset, out.NoteOffsets, out.Cracks = music.Cents(about(2, 4)), nil, nil
		if habit := people[p.person].habit; habit != steady && chance.Float64() < 0.1*p.back+breaks[habit] {
			out.FaultOn, out.Cracks = 0, []synth.Crack{
				{At: music.Seconds(about(1.4, 0.2)), Length: 0.5, Semitones: synth.NextPartial(i, target)},
			}
		}
	}
	return out
}

// breaks is how much oftener than others some break on a rung.
var breaks = map[habit]float64{cracking: 0.25, gaps: 0.1}

// ladders plays the earlier weeks' rungs, try after try: which rung the next one is
// of is known only once the last was listened to.
func (s Seeder) ladders(ctx context.Context, all []past) error {
	for from := 0; from < len(all); {
		to := from
		// One try of everybody's at once: they do not wait for each other.
		for to < len(all) && all[to].nth == all[from].nth && all[to].at.YearDay() == all[from].at.YearDay() {
			to++
		}
		if err := s.playAll(ctx, all[from:to]); err != nil {
			return err
		}
		if err := s.wait(ctx, to); err != nil {
			return err
		}
		from = to
	}
	return nil
}

// playAll hands earlier takes in that are not there yet.
func (s Seeder) playAll(ctx context.Context, takes []past) error {
	ids := make([]string, len(takes))
	for n, p := range takes {
		ids[n] = p.id()
	}
	there, err := s.Store.TakesThere(ctx, ids)
	if err != nil {
		return err
	}
	group, inner := errgroup.WithContext(ctx)
	group.SetLimit(makers)
	for _, p := range takes {
		// A demo that was broken off goes on where it was.
		if there[p.id()] {
			continue
		}
		group.Go(func() error {
			player, err := s.Store.Player(inner, playerID(p.person))
			if err != nil {
				return err
			}
			now, err := s.Store.Standing(inner, player)
			if err != nil {
				return err
			}
			score, i, err := intake.Score(p.step, now, player.Class.Day(p.at))
			if err != nil {
				return err
			}
			upload := intake.Upload{
				ID:          p.id(),
				Player:      player,
				StepID:      p.step.ID,
				StepVersion: p.step.Version,
				Source:      store.Simulated,
				At:          p.at,
			}
			played := synth.Playing{Score: score, Player: p.player(i, synth.FirstNote(score, i))}
			return s.submit(inner, upload, played)
		})
	}
	return group.Wait()
}
