package demo

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"time"

	"golang.org/x/sync/errgroup"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/intake"
	"earlychorus/server/store"
)

// makers is how many takes are played at once; listening has the other core.
const makers = 2

// done is a take to be made: which step, by whom, when.
type done struct {
	take
	step store.Step
	at   time.Time
}

// takes plays the clarinets' way up their ladder, then the demo's days, the latest first,
// then what was played in the weeks before: what is looked at first comes early.
func (s Seeder) takes(ctx context.Context) error {
	players, class, err := s.class(ctx)
	if err != nil {
		return err
	}
	before, err := s.earlier(ctx, players)
	if err != nil {
		return err
	}
	onLadders := func(p past) bool { return p.step.Kind == exercise.KindLadder }
	rungs := slices.DeleteFunc(slices.Clone(before), func(p past) bool { return !onLadders(p) })
	lately, err := s.toMake(ctx, players, class)
	if err != nil {
		return err
	}
	s.of = len(before) + len(lately)
	if err := s.ladders(ctx, rungs); err != nil {
		return err
	}
	// Today's board first: it is what the first page shows.
	of := func(day int) func(done) bool { return func(d done) bool { return d.day != day } }
	for heard, day := len(rungs), days-1; day >= 0; day-- {
		all := slices.DeleteFunc(slices.Clone(lately), of(day))
		if err := s.days(ctx, all, heard); err != nil {
			return err
		}
		heard += len(all)
	}
	group, inner := errgroup.WithContext(ctx)
	group.Go(func() error { return s.wait(inner, s.of) })
	group.Go(func() error { return s.playAll(inner, slices.DeleteFunc(before, onLadders)) })
	return group.Wait()
}

// days plays the demo's days. before counts what was listened to already.
func (s Seeder) days(ctx context.Context, all []done, before int) error {
	players, class, err := s.class(ctx)
	if err != nil {
		return err
	}
	ids := make([]string, len(all))
	for n, d := range all {
		ids[n] = d.id()
	}
	there, err := s.Store.TakesThere(ctx, ids)
	if err != nil {
		return err
	}
	group, inner := errgroup.WithContext(ctx)
	group.SetLimit(makers + 1)
	group.Go(func() error { return s.wait(inner, before+len(all)) })
	for _, d := range all {
		if there[d.id()] {
			continue
		}
		group.Go(func() error {
			score, i, err := intake.Score(d.step, players[d.person], class.Day(d.at))
			if err != nil {
				return err
			}
			return s.play(inner, d, players[d.person].Player, score, i)
		})
	}
	return group.Wait()
}

// class returns how things stand for the demo's players, in their order, and its
// class.
func (s Seeder) class(ctx context.Context) (players []store.Standing, class store.Class, err error) {
	for n := range people {
		p, err := s.Store.Player(ctx, playerID(n))
		if err != nil {
			return nil, class, err
		}
		now, err := s.Store.Standing(ctx, p)
		if err != nil {
			return nil, class, err
		}
		players = append(players, now)
	}
	return players, players[0].Player.Class, nil
}

// toMake lists the takes of the demo's days, in the order they were made. What is
// only ticked is ticked at once.
func (s Seeder) toMake(ctx context.Context, players []store.Standing, class store.Class) (out []done, err error) {
	dates := firstDay(begun(class))
	steps := map[int][]store.Step{}
	for n, day := range dates {
		if steps[n], err = s.Store.StepsOn(ctx, class.ID, day, plan.AtHome); err != nil {
			return nil, err
		}
	}
	for order, t := range takesOf() {
		for n, step := range steps[t.day] {
			if !s.lets(t.person) || !t.plays(n, step) {
				continue
			}
			at := dates[t.day].Add(hourOf(t.person, n, t.nth))
			d := done{t, step, s.notInFuture(at, class, order)}
			score, _, err := intake.Score(step, players[t.person], class.Day(d.at))
			switch {
			case errors.Is(err, exercise.ErrNotFor):
			case err != nil:
				return nil, err
			case score.Ticked:
				if err := s.tick(ctx, d, players[t.person].Player, score); err != nil {
					return nil, err
				}
			default:
				out = append(out, d)
			}
		}
	}
	return out, nil
}

// notInFuture brings a moment that is still to come within what has passed of
// today, in the same order.
func (s Seeder) notInFuture(at time.Time, class store.Class, order int) time.Time {
	now := s.Now()
	if !at.After(now) {
		return at
	}
	midnight := class.Midnight(now)
	share := float64(order%100) / 100
	return midnight.Add(time.Duration(share * float64(now.Sub(midnight))))
}

// play hands one take of the demo's days in.
func (s Seeder) play(
	ctx context.Context,
	d done,
	player store.Player,
	score scores.Score,
	i instrument.Instrument,
) error {
	upload := intake.Upload{
		ID:          d.id(),
		Player:      player,
		StepID:      d.step.ID,
		StepVersion: d.step.Version,
		Source:      store.Simulated,
		At:          d.at,
	}
	return s.submit(ctx, upload, d.playing(score, i, d.step.Kind))
}

// submit plays a take and hands it in.
func (s Seeder) submit(
	ctx context.Context,
	upload intake.Upload,
	p synth.Playing,
) error {
	sound, _ := p.Play(rate)
	_, err := s.Intake.Sound(ctx, upload, sound)
	return err
}

// tick does a step that is not recorded; the hasty forget one thing.
func (s Seeder) tick(ctx context.Context, d done, player store.Player, score scores.Score) error {
	items := make([]bool, len(score.Items))
	for n := range items {
		items[n] = n > 0 || people[d.person].habit != short
	}
	i, err := instrument.Get(player.Instrument)
	if err != nil {
		return err
	}
	word, err := verdict.Decide(verdict.Case{Case: measure.Case{Instrument: i, Score: score, Ticked: items}})
	if err != nil {
		return err
	}
	conclusion, err := json.Marshal(word.Brief())
	if err != nil {
		return err
	}
	return s.Store.SaveTick(ctx, store.Tick{
		PlayerID:    player.ID,
		StepID:      d.step.ID,
		StepVersion: d.step.Version,
		Day:         player.Class.Day(d.at),
		Done:        items,
		Result:      word.Result,
		Conclusion:  conclusion,
		TickedAt:    d.at.UTC(),
	})
}

// poll is how often the ear is asked whether it is through.
const poll = 200 * time.Millisecond

// wait tells how far the listening has come until so many takes are done.
func (s Seeder) wait(ctx context.Context, until int) error {
	for {
		done, err := s.Store.CountListened(ctx, id("class"))
		if err != nil {
			return err
		}
		s.Progress(min(done, s.of), s.of, "takes listened to")
		if done >= until {
			return nil
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(poll):
		}
	}
}
