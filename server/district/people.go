package district

import (
	"context"
	"encoding/json"
	"fmt"

	"github.com/google/uuid"
	"golang.org/x/crypto/bcrypt"
)

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
	all := s.Classes * s.Weeks * len(steps())
	s.say("%d steps", all)
	at := func(n int) (class, week, step int) {
		return n / (s.Weeks * len(steps())), n / len(steps()) % s.Weeks, n % len(steps())
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
				steps()[step].Kind.Key,
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
			return []any{id(aStep, n), 1, steps()[n%len(steps())].Parameters(), s.monday}
		},
	)
}
