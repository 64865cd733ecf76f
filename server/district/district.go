// Package district fills a database with a year of an invented district, to
// measure how the server answers when it is full. Nobody in it is real, and
// nothing in it was played: measures are drawn by chance around a growth.
package district

import (
	"context"
	"crypto/sha256"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"golang.org/x/crypto/bcrypt"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/progress"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
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

// steps are a day's, one note each: what is measured is a row a take.
var steps = []exercise.Step{
	exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{0}}),
	exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{5}}),
	exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{7}}),
	exercise.New(exercise.KindLongToneLongest, map[string]any{"cap_s": 12}),
	exercise.New(exercise.KindTuningNote, nil),
}

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
func (s Size) Takes() int { return s.Classes * s.Players * s.Weeks * daysAWeek * len(steps) }

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
	return id(aStep, (class*s.Weeks+week)*len(steps)+n)
}

// PlayerID names the n-th player of a class.
func (s Size) PlayerID(class, n int) string { return id(aPlayer, class*s.Players+n).String() }

// people makes one school, one director and every class with its code. The password
// is hashed once: bcrypt is slow on purpose.
func (s *seeding) people(ctx context.Context) error {
	s.say("%d classes of %d players", s.Classes, s.Players)
	hash, err := bcrypt.GenerateFromPassword([]byte(Password), bcrypt.DefaultCost)
	if err != nil {
		return err
	}
	// These two are looked up by name and email, so their numbers may be anything.
	school, director := uuid.New(), uuid.New()
	if _, err := s.db.Exec(ctx, "INSERT INTO school VALUES ($1, 'Quillmarsh District', 'UTC')", school); err != nil {
		return err
	}
	const insert = "INSERT INTO director VALUES ($1, 'District director', $2, $3)"
	if _, err := s.db.Exec(ctx, insert, director, Email, hash); err != nil {
		return err
	}
	err = s.copy(
		ctx,
		"class",
		[]string{"id", "school_id", "name", "code", "conventions", "tips", "first_lesson"},
		s.Classes,
		func(n int) []any {
			return []any{
				id(aClass, n),
				school,
				fmt.Sprintf("Winds %03d", n+1),
				fmt.Sprintf("WINDS-%03d", n+1),
				json.RawMessage("{}"),
				json.RawMessage("{}"),
				s.monday,
			}
		},
	)
	if err != nil {
		return err
	}
	err = s.copy(
		ctx,
		"class_director",
		[]string{"class_id", "director_id"},
		s.Classes,
		func(n int) []any { return []any{id(aClass, n), director} },
	)
	if err != nil {
		return err
	}
	return s.players(ctx)
}

// players makes the bands. Nobody has a PIN: a load test looks through the
// director's eyes.
func (s *seeding) players(ctx context.Context) error {
	return s.copy(
		ctx,
		"player",
		[]string{"id", "class_id", "first_name", "last_name", "instrument", "stage", "pin_hash"},
		s.Classes*s.Players,
		func(n int) []any {
			return []any{
				id(aPlayer, n),
				id(aClass, n/s.Players),
				fmt.Sprintf("Player %02d", n%s.Players+1),
				fmt.Sprintf("of %03d", n/s.Players+1),
				band[n%s.Players%len(band)],
				stage,
				"",
			}
		},
	)
}

// plans makes each class's weeks of the same steps, and the versions that takes are
// played from.
func (s *seeding) plans(ctx context.Context) error {
	all := s.Classes * s.Weeks * len(steps)
	s.say("%d steps", all)
	at := func(n int) (class, week, step int) {
		return n / (s.Weeks * len(steps)), n / len(steps) % s.Weeks, n % len(steps)
	}
	err := s.copy(
		ctx,
		"step",
		[]string{
			"id",
			"class_id",
			"position",
			"kind",
			"first_day",
			"last_day",
			"days",
			"place",
			"times",
			"for_instruments",
			"why",
		},
		all,
		func(n int) []any {
			class, week, step := at(n)
			first := s.monday.AddDate(0, 0, 7*week)
			return []any{
				id(aStep, n),
				id(aClass, class),
				step,
				steps[step].Kind.Key,
				first,
				first.AddDate(0, 0, 6),
				// Monday to Friday, a bit a day.
				31,
				"both",
				1,
				json.RawMessage("[]"),
				"",
			}
		},
	)
	if err != nil {
		return err
	}
	return s.copy(
		ctx,
		"step_version",
		[]string{"step_id", "version", "parameters", "created_at"},
		all,
		func(n int) []any {
			return []any{id(aStep, n), 1, steps[n%len(steps)].Parameters(), s.monday}
		},
	)
}

// copy streams rows into a table.
func (s *seeding) copy(ctx context.Context, table string, columns []string, count int, row func(int) []any) error {
	n := 0
	_, err := s.db.CopyFrom(ctx, pgx.Identifier{table}, columns, pgx.CopyFromFunc(func() ([]any, error) {
		// Nothing more: the driver asks until it is told so.
		if n == count {
			return nil, nil
		}
		n++
		return row(n - 1), nil
	}))
	return err
}

// made is one take, drawn by chance around what its player can do by then.
type made struct {
	class, player, step, week int
	day, at                   time.Time
	result                    verdict.Result
	cause                     measure.Cause
	centre, waver, held       float64
}

// take draws the n-th take: by day, then class, player and step, as they would come
// in.
func (s *seeding) take(n int) made {
	// Takes are numbered by day, class, player and step, slowest first: as a real table grows.
	perClass := s.Players * len(steps)
	perDay := s.Classes * perClass
	m := made{class: n % perDay / perClass, player: n % perClass / len(steps), step: n % len(steps)}
	day := n / perDay
	m.week = day / daysAWeek
	m.day = s.monday.AddDate(0, 0, 7*m.week+day%daysAWeek)
	m.at = m.day.Add(16*time.Hour + time.Duration(n%perDay)*time.Millisecond*20)
	chance := rand.New(rand.NewPCG(uint64(n), 17))
	// Players differ, and grow over the year: flat data would hide what an index on results
	// costs.
	skill := float64((m.class*31+m.player*17)%10)/10 + 0.6*float64(day)/float64(s.Weeks*daysAWeek)
	// Cents, cents and seconds; the spread is what the demo's performed takes show.
	m.centre = (30 - 18*skill) * chance.NormFloat64()
	m.waver = 4 + (14-9*skill)*chance.Float64()
	m.held = 3 + 6*skill + chance.NormFloat64()
	switch {
	case m.centre > 25 || m.centre < -25:
		m.result, m.cause = verdict.NotYet, measure.CauseCentre
	case m.waver > 12:
		m.result, m.cause = verdict.Nearly, measure.CauseSteadiness
	// One recording in fifty is spoiled by something in the room.
	case chance.IntN(50) == 0:
		m.result, m.cause = verdict.CantTell, measure.CauseRecording
	default:
		m.result = verdict.Clean
	}
	return m
}

// takes copies the takes with their readings straight into the tables. Through the
// job queue it would take a month.
func (s *seeding) takes(ctx context.Context) error {
	all := s.Takes()
	tell := func(what string, n int) {
		if n%1_000_000 == 0 {
			s.say("%s: %d of %d", what, n, all)
		}
	}
	var hash [32]byte
	columns := []string{
		"id",
		"player_id",
		"step_id",
		"step_version",
		"day",
		"source",
		"received_at",
		"played_at",
		"duration_ms",
		"rate_hz",
		"start_ms",
		"sha256",
		"score_id",
		"result",
		"cause",
		"short",
		"cut_from_s",
		"cut_to_s",
		"cut_at",
	}
	err := s.copy(ctx, "take", columns, all, func(n int) []any {
		tell("takes", n)
		m := s.take(n)
		sheet := s.sheets[m.step][m.player%len(band)]
		cut := sheet.of(m).cut
		return []any{
			id(aTake, n),
			s.player(m.class, m.player),
			s.step(m.class, m.week, m.step),
			1,
			m.day,
			// Nothing of it was played by anybody, and the table says so.
			"simulated",
			m.at,
			m.at,
			sheet.ms,
			48000,
			0,
			hash[:],
			sheet.id,
			m.result,
			m.cause,
			sheet.short,
			cut.From,
			cut.To,
			cut.At,
		}
	})
	if err != nil {
		return err
	}
	return s.copy(
		ctx,
		"take_note",
		[]string{
			"take_id",
			"number",
			"player_id",
			"day",
			"sounding",
			"good",
			"trusted",
			"centre",
			"steadiness",
			"held",
		},
		all,
		func(n int) []any {
			tell("notes", n)
			m := s.take(n)
			return []any{
				id(aTake, n),
				0,
				s.player(m.class, m.player),
				m.day,
				s.sheets[m.step][m.player%len(band)].note,
				m.result == verdict.Clean,
				true,
				m.centre,
				m.waver,
				m.held,
			}
		},
	)
}

// kept writes the newest weeks' analyses: real ones of simulated takes, a few for
// each instrument and step, over and over.
func (s *seeding) kept(ctx context.Context) error {
	perWeek := s.Classes * s.Players * daysAWeek * len(steps)
	// Drawings and contours are most of the bytes; only the newest weeks have them, as after
	// letting go.
	count := min(s.KeptWeeks, s.Weeks) * perWeek
	first := s.Takes() - count
	s.say("%d analyses", count)
	return s.copy(
		ctx,
		"analysis",
		[]string{"take_id", "version", "created_at", "result", "tip_key", "measured", "verdict", "ribbon", "contour"},
		count,
		func(n int) []any {
			m := s.take(first + n)
			sheet := s.sheets[m.step][m.player%len(band)]
			a := sheet.of(m)
			return []any{id(aTake, first+n), 1, m.at, m.result, a.tip, a.measured, a.verdict, a.ribbon, a.contour}
		},
	)
}

// ladders writes a try a week for each player.
func (s *seeding) ladders(ctx context.Context) error {
	// A try a week: enough that a player's log is as long as a real one.
	count := s.Classes * s.Players * s.Weeks
	s.say("%d ladder entries", count)
	err := s.copy(
		ctx,
		"ladder_entry",
		[]string{"player_id", "ladder", "what", "day", "rung", "result", "at"},
		count,
		func(n int) []any {
			player, week := n/s.Weeks, n%s.Weeks
			day := s.monday.AddDate(0, 0, 7*week)
			return []any{
				id(aPlayer, player),
				s.ladderOf(player),
				"tried",
				day,
				// A rung a term.
				1 + week/12,
				[]verdict.Result{verdict.Clean, verdict.Clean, verdict.NotYet}[(n*7+week)%3],
				day,
			}
		},
	)
	if err != nil {
		return err
	}
	return s.copy(
		ctx,
		"ladder_standing",
		[]string{"player_id", "ladder", "entries"},
		s.Classes*s.Players,
		func(n int) []any {
			return []any{id(aPlayer, n), s.ladderOf(n), s.Weeks}
		},
	)
}

// ladderOf is the ladder an instrument climbs, or none.
func (s *seeding) ladderOf(player int) string {
	switch band[player%s.Players%len(band)] {
	case "clarinet":
		return "clarinet-break"
	case "alto-sax", "tenor-sax":
		return "sax-low"
	}
	return "brass-partials"
}

// analyze has the database count what it holds: plans made on empty tables are the
// wrong ones.
func (s *seeding) analyze(ctx context.Context) error {
	s.say("statistics")
	_, err := s.db.Exec(ctx, "VACUUM ANALYZE")
	return err
}

// withoutIndexes drops the large tables' indexes while they are filled, and builds
// them again: minutes instead of hours.
func (s *seeding) withoutIndexes(fill func(context.Context) error) func(context.Context) error {
	return func(ctx context.Context) error {
		rows, err := s.db.Query(
			ctx,
			"SELECT indexname, indexdef FROM pg_indexes WHERE tablename IN ('take', 'take_note') AND indexname NOT "+
				"LIKE '%pkey'",
		)
		if err != nil {
			return err
		}
		type index struct{ Name, Def string }
		found, err := pgx.CollectRows(rows, pgx.RowToStructByPos[index])
		if err != nil {
			return err
		}
		// The keys are right by how they are made; checking each would take longer than
		// writing all.
		if _, err := s.db.Exec(
			ctx,
			"SET session_replication_role = replica; SET maintenance_work_mem = '1GB'; SET synchronous_commit = off",
		); err != nil {
			return err
		}
		for _, i := range found {
			if _, err := s.db.Exec(ctx, "DROP INDEX "+i.Name); err != nil {
				return err
			}
		}
		if err := s.keepSheets(ctx); err != nil {
			return err
		}
		if err := fill(ctx); err != nil {
			return err
		}
		for _, i := range found {
			s.say("index %s", i.Name)
			if _, err := s.db.Exec(ctx, i.Def); err != nil {
				return err
			}
		}
		return nil
	}
}

// keepSheets keeps each score once. Takes name it by the hash of what it says, as
// real ones do.
func (s *seeding) keepSheets(ctx context.Context) error {
	for _, byPlace := range s.sheets {
		for _, sh := range byPlace {
			if _, err := s.db.Exec(
				ctx,
				"INSERT INTO score (id, body, written) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING",
				sh.id,
				json.RawMessage(sh.body),
				sh.written,
			); err != nil {
				return err
			}
		}
	}
	return nil
}

// sheet is a step's score for a place in the band, with takes of it to show.
type sheet struct {
	id, body []byte
	ms, note int
	written  string
	short    string
	heard    []heard
}

// heard is what the ear found in one performed take, ready to be copied under
// thousands of numbers.
type heard struct {
	tip                       string
	measured, verdict, ribbon json.RawMessage
	contour                   []byte
	cut                       progress.Cut
}

// of is what was heard in a take of the sheet.
func (s sheet) of(m made) heard { return s.heard[(m.class+m.player)%len(s.heard)] }

// scoreOf is how one instrument reads a step, by the usual conventions.
func scoreOf(step exercise.Step, key string) (scores.Score, instrument.Instrument, error) {
	i, err := instrument.Get(key)
	if err != nil {
		return scores.Score{}, i, err
	}
	score, err := step.Score(exercise.Player{Instrument: i, Stage: stage}, exercise.StandardConventions())
	return score, i, err
}

// sumOf is a score's number: the SHA-256 of what it says.
func sumOf(body []byte) []byte {
	sum := sha256.Sum256(body)
	return sum[:]
}
