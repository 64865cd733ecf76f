// Package demo fills an empty database with an invented class and three days
// of takes by simulated players, listened to for real.
package demo

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"
	"golang.org/x/crypto/bcrypt"
	"golang.org/x/sync/errgroup"

	"earlychorus/core/exercise"
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
}

// rate is that of a modest microphone; a third less to store than 48 kHz.
const rate = 32000

// id names the demo's rows, the same every time.
func id(format string, args ...any) string {
	return uuid.NewSHA1(uuid.NameSpaceURL, []byte("early-chorus-demo/"+fmt.Sprintf(format, args...))).String()
}

// Seed makes the class if the database has no school yet, and hands in the
// takes that are missing, so that a seeding cut short goes on. It returns once
// every take has been listened to. A database with other schools is left alone.
func (s Seeder) Seed(ctx context.Context) error {
	state, err := s.Store.DemoState(ctx, id("school"))
	if err != nil || state.Foreign {
		return err
	}
	if !state.Begun {
		if err := s.people(ctx); err != nil {
			return fmt.Errorf("demo: %w", err)
		}
	}
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
		for day = day.AddDate(0, 0, -1); day.Weekday() == time.Saturday || day.Weekday() == time.Sunday; {
			day = day.AddDate(0, 0, -1)
		}
	}
	return out
}

// planWeeks is how long the demo's step stays on the plan.
const planWeeks = 8

func (s Seeder) people(ctx context.Context) error {
	class := store.Class{
		ID: id("class"), SchoolID: id("school"), Name: className, Code: ClassCode, A4Hz: 440, NoteStart: exercise.Tongued,
		School: store.School{ID: id("school"), Name: schoolName, TimeZone: schoolZone},
	}
	hash, err := bcrypt.GenerateFromPassword([]byte(DirectorPassword), bcrypt.DefaultCost)
	if err != nil {
		return err
	}
	director := store.Director{ID: id("director"), Name: DirectorName, Email: DirectorEmail, PasswordHash: string(hash)}
	players := make([]store.Player, len(people))
	group, _ := errgroup.WithContext(ctx)
	for n, p := range people {
		group.Go(func() error { // hashing is slow on purpose
			hash, err := bcrypt.GenerateFromPassword([]byte(PIN(n)), bcrypt.DefaultCost)
			players[n] = store.Player{
				ID: playerID(n), ClassID: class.ID, FirstName: p.first, LastName: p.last, Instrument: p.instrument,
				Stage: exercise.Stage(p.stage), PINHash: string(hash),
			}
			return err
		})
	}
	if err := group.Wait(); err != nil {
		return err
	}
	today := class.Day(s.Now())
	step := store.Step{
		ID: id("step"), ClassID: class.ID, Position: 1, Kind: exercise.KindLongToneCounted, Parameters: exercise.New(exercise.KindLongToneCounted, nil).Parameters(),
		FirstDay: firstDay(today)[0], LastDay: today.AddDate(0, 0, 7*planWeeks),
	}
	return s.Store.CreateClass(ctx, class, director, players, []store.Step{step}, s.Now().UTC())
}

func playerID(n int) string { return id("player/%d", n) }

// PIN is the n-th player's.
func PIN(n int) string { return fmt.Sprintf("%04d", 1000+(n*271+407)%9000) }

// SignIn is how one of the demo's players signs in.
type SignIn struct{ Name, Instrument, PIN string }

// SignIns lists every player's.
func SignIns() (out []SignIn) {
	for n, p := range people {
		short := store.Player{FirstName: p.first, LastName: p.last}.ShortName()
		out = append(out, SignIn{short, p.instrument, PIN(n)})
	}
	return out
}

// makers is how many takes are played at once; listening has the other core.
const makers = 2

func (s Seeder) takes(ctx context.Context) error {
	step, err := s.Store.StepOfClass(ctx, id("class"), id("step"))
	if err != nil {
		return err
	}
	all := takesOf()
	group, inner := errgroup.WithContext(ctx)
	group.SetLimit(makers)
	for n, t := range all {
		group.Go(func() error { return s.play(inner, step, t, n) })
	}
	if err := group.Wait(); err != nil {
		return err
	}
	return s.wait(ctx, len(all))
}

// play hands one take in, unless it was before.
func (s Seeder) play(ctx context.Context, step store.Step, t take, order int) error {
	takeID := id("take/%d/%d/%d", t.person, t.day, t.nth)
	if _, err := s.Store.Take(ctx, takeID); err == nil {
		return nil
	}
	player, err := s.Store.Player(ctx, playerID(t.person))
	if err != nil {
		return err
	}
	score, i, err := intake.Score(step, player)
	if err != nil {
		return err
	}
	sound, _ := t.player(i, score.Targets()[0].Target).Play(score, rate)
	_, err = s.Intake.Sound(ctx, intake.Hand{
		ID: takeID, Player: player, StepID: step.ID, StepVersion: step.Version, Source: store.Simulated, At: s.moment(step, player.Class, t, order),
	}, sound)
	return err
}

// moment is when a take was made: on its own day, and never in the future.
func (s Seeder) moment(step store.Step, class store.Class, t take, order int) time.Time {
	lastDay := step.LastDay.AddDate(0, 0, -7*planWeeks)
	played := firstDay(lastDay)[t.day].Add(15*time.Hour + time.Duration(order)*30*time.Second)
	now := s.Now()
	if !played.After(now) {
		return played
	}
	midnight := class.Midnight(now)
	share := float64(order%100) / 100 // keeps the order within what has passed of today
	return midnight.Add(time.Duration(share * float64(now.Sub(midnight))))
}

const poll = 200 * time.Millisecond

// wait tells how far the listening has come until it is done.
func (s Seeder) wait(ctx context.Context, of int) error {
	for {
		done, err := s.Store.CountListened(ctx, id("step"))
		if err != nil {
			return err
		}
		s.Progress(min(done, of), of, "takes listened to")
		if done >= of {
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
		takeID := id("take/%d/%d/0", c.person, c.day)
		comment := store.Comment{ID: id("comment/%d", n), TakeID: takeID, DirectorID: id("director"), Body: c.body, WrittenAt: s.Now().UTC()}
		if err := s.Store.AddCommentOnce(ctx, comment); err != nil {
			return err
		}
		if c.overrule != "" {
			r := store.Review{TakeID: takeID, DirectorID: id("director"), Result: c.overrule, ReviewedAt: s.Now().UTC()}
			if err := s.Store.Overrule(ctx, r); err != nil {
				return err
			}
		}
	}
	return nil
}
