// Package demo fills an empty database with an invented class, three days of
// takes by simulated players and a few weeks before them, listened to for real.
package demo

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"
	"golang.org/x/crypto/bcrypt"
	"golang.org/x/sync/errgroup"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/plan"
	"earlychorus/core/roster"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/intake"
	"earlychorus/server/store"
)

// Seeder fills the database.
type Seeder struct {
	Store    *store.Store
	Intake   intake.Intake
	Now      func() time.Time
	Progress func(done, of int, what string)
	Only     []int // whom to let play, as the class was written; nothing is everybody

	of int // takes there will be
}

// lets reports whether the n-th person plays.
func (s Seeder) lets(n int) bool { return s.Only == nil || slices.Contains(s.Only, n) }

// rate is that of a modest microphone; a third less to store than 48 kHz.
const rate = 32000

// id names the demo's rows, the same every time.
func id(format string, args ...any) string {
	return uuid.NewSHA1(uuid.NameSpaceURL, []byte("early-chorus-demo/"+fmt.Sprintf(format, args...))).String()
}

// Begin makes the class if the database has no school yet. here is false where
// other schools are, which are left alone.
func (s Seeder) Begin(ctx context.Context) (here bool, err error) {
	state, err := s.Store.DemoState(ctx, id("school"))
	// A real school's database is left alone, whatever was asked for.
	if err != nil || state.Foreign {
		return false, err
	}
	// The people are made in one transaction: they are all there, or nobody is.
	if !state.Begun {
		if err := s.people(ctx); err != nil {
			return false, fmt.Errorf("demo: %w", err)
		}
	}
	return true, nil
}

// Fill hands in the takes that are missing, so that a filling cut short goes on.
// It returns once every take has been listened to.
func (s Seeder) Fill(ctx context.Context) error {
	if err := s.takes(ctx); err != nil {
		return fmt.Errorf("demo: %w", err)
	}
	return s.reviews(ctx)
}

// firstDay is the first of the demo's school days: the last is today, the
// others the weekdays before it.
func firstDay(today time.Time) (out [days]time.Time) {
	day := today
	for n := days - 1; n >= 0; n-- {
		out[n] = day
		// School days only, back from today; today itself counts even on a Sunday, or the demo's
		// board would be empty.
		for day = day.AddDate(0, 0, -1); day.Weekday() == time.Saturday || day.Weekday() == time.Sunday; {
			day = day.AddDate(0, 0, -1)
		}
	}
	return out
}

// people makes the school, its director, the class and its players. Numbers are made
// from names, so that the demo may be set up twice and be there once.
func (s Seeder) people(ctx context.Context) error {
	class := store.Class{
		ID:           id("class"),
		SchoolID:     id("school"),
		Name:         className,
		Code:         ClassCode,
		ClassMinutes: 8,
		School:       store.School{ID: id("school"), Name: schoolName, TimeZone: schoolZone},
	}
	hash, err := bcrypt.GenerateFromPassword([]byte(DirectorPassword), bcrypt.DefaultCost)
	if err != nil {
		return err
	}
	director := store.Director{
		ID:           id("director"),
		Name:         DirectorName,
		Email:        DirectorEmail,
		PasswordHash: string(hash),
	}
	players := make([]store.Player, len(people))
	group, _ := errgroup.WithContext(ctx)
	for n, p := range people {
		group.Go(func() error { // hashing is slow on purpose
			hash, err := bcrypt.GenerateFromPassword([]byte(PIN(n)), bcrypt.DefaultCost)
			players[n] = store.Player{
				ID:      playerID(n),
				ClassID: class.ID,
				PINHash: string(hash),
				Person: roster.Person{
					FirstName:  p.first,
					LastName:   p.last,
					Instrument: p.instrument,
					Stage:      scores.Stage(p.stage),
				},
			}
			return err
		})
	}
	if err := group.Wait(); err != nil {
		return err
	}
	today := class.Day(s.Now())
	// Set back, so that stages by the weeks are what a second term's are.
	lesson := today.AddDate(0, 0, -sinceLesson)
	class.FirstLesson = &lesson
	if err := s.Store.CreateClass(ctx, class, director, players); err != nil {
		return err
	}
	second := store.Director{
		ID:           id("director/2"),
		Name:         SecondName,
		Email:        SecondEmail,
		PasswordHash: string(hash),
	}
	if err := s.Store.AddDirector(ctx, second); err != nil {
		return err
	}
	if err := s.Store.ShareClass(ctx, class.ID, second.ID); err != nil {
		return err
	}
	return s.plans(ctx, today)
}

const (
	// planWeeks is for how many weeks the demo's plan is made.
	planWeeks = 6
	// sinceLesson is how many days before the demo begins its class had its first
	// lesson: it is in the seventh week.
	sinceLesson          = 6 * 7
	friday      plan.Day = 4
)

// begun is the day on which the demo was begun.
func begun(class store.Class) time.Time { return class.FirstLesson.AddDate(0, 0, sinceLesson) }

// plans makes the demo's week, from the first of its days on. Where the demo is
// begun on a weekend, what is on for Friday is on for that day as well.
func (s Seeder) plans(ctx context.Context, today time.Time) error {
	first := store.Monday(firstDay(today)[0])
	for monday := first.AddDate(
		0,
		0,
		-7*weeksBack,
	); monday.Before(today.AddDate(0, 0, 7*planWeeks)); monday = monday.AddDate(0, 0, 7) {
		week := plan.DemoWeek()
		if monday.Before(first) {
			week = earlierWeek()
		}
		for n := range week.Items {
			i := &week.Items[n]
			i.Key = stepID(i.Key, monday)
			if day := weekday(today); day > friday && i.Days.Has(friday) {
				i.Days |= plan.On(day)
			}
		}
		_, err := s.Store.ChangePlan(ctx, store.PlanChange{
			ClassID:    id("class"),
			DirectorID: id("director"),
			Monday:     monday,
			Name:       week.Name,
			Items:      week.Items,
			At:         s.Now().UTC(),
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// weekday counts from Monday, as plans do; Go counts from Sunday.
func weekday(day time.Time) plan.Day { return plan.Day((int(day.Weekday()) + 6) % 7) }

// stepID is a step's name in the week that begins on a Monday.
func stepID(key string, monday time.Time) string {
	return id("step/%s/%s", key, monday.Format(time.DateOnly))
}

// playerID is the same on every machine: tests and screenshots name players by it.
func playerID(n int) string { return id("player/%d", n) }

// PIN is the n-th player's.
func PIN(n int) string { return fmt.Sprintf("%04d", 1000+(n*271+407)%9000) }

// SignIn is how one of the demo's players signs in.
type SignIn struct{ Name, Instrument, PIN string }

// SignIns lists every player's.
func SignIns() (out []SignIn) {
	for n, p := range people {
		short := roster.Person{FirstName: p.first, LastName: p.last}.ShortName()
		out = append(out, SignIn{short, p.instrument, PIN(n)})
	}
	return out
}

// makers is how many takes are played at once; listening has the other core.
const makers = 2

// done is a take to be made: which step, by whom, when.
type done struct {
	take
	step store.Step
	at   time.Time
}

// takes plays the clarinets' way up their ladder, then the demo's days, then what
// was played in the weeks before: what is looked at first comes early.
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
	if err := s.days(ctx, lately, len(rungs)); err != nil {
		return err
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
			at := dates[t.day].Add(15*time.Hour + time.Duration(20*order+n)*2*time.Second)
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
	return s.submit(ctx, upload, score, i, d.player(i, synth.FirstNote(score, i), d.step.Kind))
}

// submit plays a take and hands it in.
func (s Seeder) submit(
	ctx context.Context,
	upload intake.Upload,
	score scores.Score,
	i instrument.Instrument,
	p synth.Player,
) error {
	sound, _ := p.Play(score, rate)
	_, err := s.Intake.Sound(ctx, upload, sound)
	return err
}

// id is the take's own number, so that a demo that was broken off goes on where it
// was.
func (d done) id() string { return takeID(d.take, d.step.ID) }

// takeID is the same whenever the same take is played.
func takeID(t take, stepID string) string {
	return id("take/%s/%d/%d/%d", stepID, t.person, t.day, t.nth)
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
	return s.Store.SaveTick(ctx, store.Tick{
		PlayerID:    player.ID,
		StepID:      d.step.ID,
		StepVersion: d.step.Version,
		Day:         player.Class.Day(d.at),
		Done:        items,
		Result:      word.Result,
		Short:       word.Short,
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
