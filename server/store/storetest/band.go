package storetest

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"

	"earlychorus/core/exercise"
	"earlychorus/core/plan"
	"earlychorus/core/roster"
	"earlychorus/server/store"
)

// Band is a small class in a test's database: a clarinet, then a trombone.
type Band struct {
	Class    store.Class
	Director store.Director
	Players  []store.Player
	Step     store.Step
}

// Password and PIN are everyone's in a Band.
const (
	Password = "a long password"
	PIN      = "2468"
)

// ShortStep lasts a few seconds, so that tests do.
var ShortStep = exercise.New(
	exercise.KindLongToneCounted,
	map[string]any{"notes": []int{0}, "beats": 4, "rest_beats": 2, "tempo_bpm": 120},
)

// AddStep puts another step on this week's plan, for every day.
func (b Band) AddStep(t testing.TB, s *store.Store, x exercise.Step, forInstruments ...string) store.Step {
	t.Helper()
	return b.AddItem(t, s, plan.Item{Step: x, For: forInstruments})
}

// AddItem puts another item on this week's plan, for every day.
func (b Band) AddItem(t testing.TB, s *store.Store, added plan.Item) store.Step {
	t.Helper()
	ctx := context.Background()
	now := time.Now()
	monday := store.Monday(b.Class.Day(now))
	before, items, err := s.PlanOf(ctx, b.Class.ID, monday)
	require.NoError(t, err)
	added.Key, added.Times, added.Days, added.At, added.Wanted = uuid.NewString(), 1, everyDay, plan.Both, 2
	// Through the plan, as a director does it: a step that is put straight into its table has
	// no plan to be changed by.
	saved, err := s.ChangePlan(ctx, store.PlanChange{
		ClassID:    b.Class.ID,
		DirectorID: b.Director.ID,
		Monday:     monday,
		Name:       "This week",
		Based:      before.Revision,
		Items:      append(items, added),
		At:         now.UTC(),
	})
	require.NoError(t, err)
	require.Empty(t, saved.Conflicts)
	step, err := s.StepOfClass(ctx, b.Class.ID, added.Key)
	require.NoError(t, err)
	return step
}

// everyDay is a bit for each day of the week.
const everyDay plan.Days = 127

// NewBand puts a class of its own, named after code, into the database.
func NewBand(t testing.TB, s *store.Store, code string) Band {
	t.Helper()
	hash := func(secret string) string {
		// The least cost: tests sign in by the hundred.
		h, err := bcrypt.GenerateFromPassword([]byte(secret), bcrypt.MinCost)
		require.NoError(t, err)
		return string(h)
	}
	b := Band{
		Class: store.Class{
			ID:           uuid.NewString(),
			Name:         code + " Winds",
			Code:         code,
			ClassMinutes: 6,
			// Tests play with simulated players, and want them counted.
			SimulatedPlayers: store.SimulatingDemo,
			School:           store.School{ID: uuid.NewString(), Name: code + " School", TimeZone: "Europe/London"},
		},
		Director: store.Director{
			ID:           uuid.NewString(),
			Name:         "Director of " + code,
			Email:        "director@" + strings.ToLower(code) + ".example",
			PasswordHash: hash(Password),
		},
	}
	b.Class.SchoolID = b.Class.School.ID
	// A transposing instrument and one in bass clef: what is right for both is seldom right by
	// luck.
	for n, instrument := range []string{"clarinet", "trombone"} {
		b.Players = append(b.Players, store.Player{
			ID:      uuid.NewString(),
			ClassID: b.Class.ID,
			PINHash: hash(PIN),
			Person: roster.Person{
				FirstName:  []string{"Ada", "Bo"}[n],
				LastName:   "Testerly",
				Instrument: instrument,
				Stage:      2,
			},
		})
	}
	require.NoError(t, s.CreateClass(context.Background(), b.Class, b.Director, b.Players))
	b.Step = b.AddStep(t, s, ShortStep)
	return b
}

// Join lets more players of an instrument into the class.
func (b *Band) Join(t testing.TB, s *store.Store, instrument string, count int) {
	t.Helper()
	for n := range count {
		p := store.Player{
			ID:      uuid.NewString(),
			ClassID: b.Class.ID,
			Person: roster.Person{
				FirstName:  fmt.Sprintf("Player %d", n+1),
				LastName:   "of " + instrument,
				Instrument: instrument,
				Stage:      2,
			},
		}
		_, err := s.SQL().Exec(
			"INSERT INTO player (id, class_id, first_name, last_name, instrument, stage, pin_hash) VALUES ($1, $2, "+
				"$3, $4, $5, $6, '')",
			p.ID,
			p.ClassID,
			p.FirstName,
			p.LastName,
			p.Instrument,
			int(p.Stage),
		)
		require.NoError(t, err)
		b.Players = append(b.Players, p)
	}
}
