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

	"earlychorus/core/plan"
	"earlychorus/core/roster"
	"earlychorus/core/scores"
	"earlychorus/server/intake"
	"earlychorus/server/standin"
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

// ClassID is the number of the demo's class.
func ClassID() string { return id("class") }

// SchoolID is the number of the demo's school.
func SchoolID() string { return id("school") }

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
		SimulatedPlayers: store.SimulatingDemo,
		ID:               id("class"),
		SchoolID:         id("school"),
		Name:             className,
		Code:             ClassCode,
		ClassMinutes:     8,
		School:           store.School{ID: id("school"), Name: schoolName, TimeZone: schoolZone},
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
					ExternalID: number(n),
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
	class.Known = notesKnown(today)
	if err := s.Store.CreateClass(ctx, class, director, players); err != nil {
		return err
	}
	if err := s.colleague(ctx, class.ID, string(hash)); err != nil {
		return err
	}
	if err := s.care(ctx, players, today); err != nil {
		return err
	}
	if err := s.plans(ctx, today); err != nil {
		return err
	}
	return s.schoolLife(ctx, class)
}

// colleague is a second director, who shares the class.
func (s Seeder) colleague(ctx context.Context, classID, hash string) error {
	second := store.Director{
		ID:           id("director/2"),
		Name:         SecondName,
		Email:        SecondEmail,
		PasswordHash: hash,
	}
	if err := s.Store.AddDirector(ctx, second); err != nil {
		return err
	}
	return s.Store.ShareClass(ctx, classID, second.ID)
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

// playerID is the same on every machine: tests and screenshots name players by it.
func playerID(n int) string { return id("player/%d", n) }

// PIN is the n-th player's.
func PIN(n int) string { return fmt.Sprintf("%06d", 100_000+(n*27_143+40_763)%900_000) }

// number is the n-th player's on the school's list.
func number(n int) string { return fmt.Sprintf("QM-%03d", n+1) }

// Accounts are what some of the school's people have at its provider, for which a stand-in
// plays; the last has one and is of no class.
func Accounts() []standin.Person {
	out := []standin.Person{{Name: DirectorName, Email: DirectorEmail}, {Name: SecondName, Email: SecondEmail}}
	for _, n := range []int{0, 5, 20} {
		out = append(out, standin.Person{
			Name:     people[n].first + " " + people[n].last,
			Email:    fmt.Sprintf("pupil%d@quillmarsh.example", n+1),
			RosterID: number(n),
		})
	}
	return append(out, standin.Person{Name: "Somebody else", Email: "else@quillmarsh.example", RosterID: "QM-999"})
}

// SignOn lets them in: through a provider at an address. A school's own arrangement stays.
func (s Seeder) SignOn(ctx context.Context, issuer string) error {
	before, err := s.Store.SignOnOf(ctx, id("school"))
	if err == nil && before.ClientID != standInClient || err != nil && !errors.Is(err, store.ErrNotFound) {
		return err
	}
	return s.Store.SaveSignOn(ctx, store.SignOn{
		SchoolID:     id("school"),
		Issuer:       issuer,
		ClientID:     standInClient,
		ClientSecret: "nothing to keep",
		Domains:      []string{"quillmarsh.example"},
		RosterClaim:  "student_id",
	})
}

const standInClient = "early-chorus-demo"

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

// id is the take's own number, so that a demo that was broken off goes on where it
// was.
func (d done) id() string { return takeID(d.take, d.step.ID) }

// takeID is the same whenever the same take is played.
func takeID(t take, stepID string) string {
	return id("take/%s/%d/%d/%d", stepID, t.person, t.day, t.nth)
}
