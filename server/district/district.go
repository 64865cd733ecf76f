// Package district fills a database with a year of an invented district, to
// measure how the server answers when it is full. Nobody in it is real, and
// nothing in it was played: measures are drawn by chance around a growth.
package district

import (
	"context"
	"encoding/binary"
	"fmt"
	"sync"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"earlychorus/core/exercise"
)

// Size is how large a district is.
type Size struct {
	Classes, Players int // players of each class
	Weeks            int // of five school days, the last one this week
	KeptWeeks        int // the newest, whose takes have drawings and contours
}

// Year is the district that the goals are set for: with five steps a day, about
// ten million takes.
var Year = Size{
	Classes:   200,
	Players:   60,
	Weeks:     36,
	KeptWeeks: 1,
}

// Email and Password sign the district's only director in, to every class.
const (
	Email    = "district@quillmarsh.example"
	Password = "many bells at once"
)

const (
	daysAWeek = 5
	stage     = 2
)

// steps are a day's, one note each: what is measured is a row a take. They are read when
// first asked for, since every command of the program is started with this package in it.
var steps = sync.OnceValue(func() []exercise.Step {
	return []exercise.Step{
		exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{0}}),
		exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{5}}),
		exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{7}}),
		exercise.New(exercise.KindLongToneLongest, map[string]any{"cap_s": 12}),
		exercise.New(exercise.KindTuningNote, nil),
	}
})

// band is who sits in a class, over and over until it is full.
var band = []string{
	"flute",
	"flute",
	"clarinet",
	"clarinet",
	"clarinet",
	"oboe",
	"alto-sax",
	"tenor-sax",
	"trumpet",
	"trumpet",
	"horn",
	"trombone",
	"trombone",
	"euphonium",
	"tuba",
}

// Takes is how many takes the district has.
func (s Size) Takes() int { return s.Classes * s.Players * s.Weeks * daysAWeek * len(steps()) }

// seeding is a district being written.
type seeding struct {
	Size
	db     *pgx.Conn
	monday time.Time // of the first week
	sheets [][]sheet // by step and place in the band
	say    func(string, ...any)
}

// Seed writes a district into a migrated, empty database. say tells how far it is.
func Seed(ctx context.Context, dsn string, size Size, now time.Time, say func(string, ...any)) error {
	db, err := pgx.Connect(ctx, dsn)
	if err != nil {
		return fmt.Errorf("district: %w", err)
	}
	defer db.Close(context.WithoutCancel(ctx)) //nolint:errcheck // ending anyway
	var there bool
	if err := db.QueryRow(ctx, "SELECT EXISTS (SELECT FROM school)").Scan(&there); err != nil || there {
		return fmt.Errorf("district: the database must be empty: %w", errOr(err))
	}
	day := now.UTC().Truncate(24 * time.Hour)
	// The last week is this one, so that today's board has takes.
	this := day.AddDate(0, 0, -((int(day.Weekday()) + 6) % 7))
	s := &seeding{
		Size:   size,
		db:     db,
		monday: this.AddDate(0, 0, -7*(size.Weeks-1)),
		say:    say,
	}
	if s.sheets, err = makeSheets(ctx, say); err != nil {
		return err
	}
	for _, do := range []func(context.Context) error{
		// Indexes come after the takes: kept up row by row they would take hours.
		s.people, s.plans, s.withoutIndexes(s.takes), s.kept, s.ladders, s.analyze,
	} {
		if err := do(ctx); err != nil {
			return fmt.Errorf("district: %w", err)
		}
	}
	return nil
}

// errOr is the error, or that a school is there already: a district is made once, in
// an empty database.
func errOr(err error) error {
	if err != nil {
		return err
	}
	return fmt.Errorf("a school is there")
}

// Numbers of rows, made in order so that indexes grow at their end.
const (
	aClass byte = iota + 1
	aPlayer
	aStep
	aTake
)

// id is a number made from a kind and a count, so that ten million takes need no
// table to find whose they are.
func id(kind byte, n int) uuid.UUID {
	var u uuid.UUID
	u[0] = kind
	binary.BigEndian.PutUint64(u[8:], uint64(n))
	u[6] = 0x80             // version 8: made by a rule of our own
	u[8] = u[8]&0x3f | 0x80 // variant
	return u
}

// ClassID names the n-th class.
func ClassID(n int) string { return id(aClass, n).String() }

// player is the number of the n-th player of a class.
func (s *seeding) player(class, n int) uuid.UUID { return id(aPlayer, class*s.Players+n) }

// step is the number of the n-th step of a class's week.
func (s *seeding) step(class, week, n int) uuid.UUID {
	return id(aStep, (class*s.Weeks+week)*len(steps())+n)
}

// PlayerID names the n-th player of a class.
func (s Size) PlayerID(class, n int) string { return id(aPlayer, class*s.Players+n).String() }
