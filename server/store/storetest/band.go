package storetest

import (
	"context"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"

	"earlychorus/core/exercise"
	"earlychorus/core/plan"
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
var ShortStep = exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{0}, "beats": 4, "rest_beats": 2, "tempo_bpm": 120})

// AddStep puts another step into the class, for every day around now.
func (b Band) AddStep(t testing.TB, s *store.Store, x exercise.Step, forInstruments ...string) store.Step {
	t.Helper()
	now := time.Now()
	step := store.Step{
		ID: uuid.NewString(), ClassID: b.Class.ID, Position: 2, Kind: x.Kind.Key, Parameters: x.Parameters(), Days: 127, Place: plan.Both, Times: 1,
		For: forInstruments, FirstDay: now.AddDate(0, 0, -2), LastDay: now.AddDate(0, 0, 2),
	}
	require.NoError(t, s.AddSteps(context.Background(), []store.Step{step}, now))
	return step
}

// NewBand puts a class of its own, named after code, into the database.
func NewBand(t testing.TB, s *store.Store, code string) Band {
	t.Helper()
	hash := func(secret string) string {
		h, err := bcrypt.GenerateFromPassword([]byte(secret), bcrypt.MinCost)
		require.NoError(t, err)
		return string(h)
	}
	now := time.Now()
	b := Band{
		Class: store.Class{
			ID: uuid.NewString(), Name: code + " Winds", Code: code, A4Hz: 440, NoteStart: exercise.Tongued,
			School: store.School{ID: uuid.NewString(), Name: code + " School", TimeZone: "Europe/London"},
		},
		Director: store.Director{ID: uuid.NewString(), Name: "Director of " + code, Email: "director@" + strings.ToLower(code) + ".example", PasswordHash: hash(Password)},
		Step:     store.Step{ID: uuid.NewString(), Position: 1, Kind: exercise.KindLongToneCounted, Parameters: ShortStep.Parameters(), Days: 127, Place: plan.Both, Times: 1, FirstDay: now.AddDate(0, 0, -2), LastDay: now.AddDate(0, 0, 2)},
	}
	b.Class.SchoolID, b.Step.ClassID = b.Class.School.ID, b.Class.ID
	for n, instrument := range []string{"clarinet", "trombone"} {
		b.Players = append(b.Players, store.Player{
			ID: uuid.NewString(), ClassID: b.Class.ID, FirstName: []string{"Ada", "Bo"}[n], LastName: "Testerly",
			Instrument: instrument, Stage: 2, PINHash: hash(PIN),
		})
	}
	require.NoError(t, s.CreateClass(context.Background(), b.Class, b.Director, b.Players, []store.Step{b.Step}, now))
	return b
}
