package intake_test

import (
	"bytes"
	"encoding/binary"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/core/exercise"
	"earlychorus/core/ladder"
	"earlychorus/server/intake"
	"earlychorus/server/jobs"
	"earlychorus/server/problem"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// door opens an intake with nobody behind it who listens.
func door(t *testing.T, code string) (intake.Intake, storetest.Band) {
	t.Helper()
	s := storetest.Open(t)
	sounds, err := recordings.InFolder(t.TempDir())
	require.NoError(t, err)
	queue, err := jobs.NewQueue(s.SQL())
	require.NoError(t, err)
	b := storetest.NewBand(t, s, code)
	for n := range b.Players {
		b.Players[n].Class = b.Class
	}
	return intake.Intake{Store: s, Recordings: sounds, Queue: queue}, b
}

func silence(rate int, seconds float64) []byte {
	return wav.Encode(audio.Mono{Rate: rate, Bits: 16, Samples: make([]float64, int(seconds*float64(rate)))})
}

func upload(b storetest.Band) intake.Upload {
	return intake.Upload{
		ID:          uuid.NewString(),
		Player:      b.Players[0],
		StepID:      b.Step.ID,
		StepVersion: 1,
		Source:      store.Microphone,
		At:          time.Now(),
	}
}

func count(t *testing.T, s *store.Store, from string) (n int) {
	t.Helper()
	require.NoError(t, s.SQL().QueryRowContext(t.Context(), "SELECT count(*) FROM "+from).Scan(&n))
	return n
}

// A take and the job of listening to it are there together, once, whatever is
// repeated.
func TestATakeComesWithItsJob(t *testing.T) {
	in, b := door(t, "DOOR")
	h, file := upload(b), silence(48000, 3)
	for n := range 3 {
		accepted, err := in.File(t.Context(), h, bytes.NewReader(file))
		require.NoError(t, err)
		assert.Equal(t, n == 0, accepted)
	}
	assert.Equal(t, 1, count(t, in.Store, "take"))
	assert.Equal(t, 1, count(t, in.Store, "river_job"))
	assert.Equal(t, 1, count(t, in.Store, "score"))
	_, err := in.File(t.Context(), h, bytes.NewReader(silence(48000, 4)))
	var conflict problem.Error
	require.ErrorAs(t, err, &conflict)
	assert.Equal(t, problem.Conflict, conflict.Kind)
	taken, err := in.Store.Take(t.Context(), h.ID)
	require.NoError(t, err)
	sound, err := in.Recordings.Get(t.Context(), taken.Sound)
	require.NoError(t, err)
	assert.InDelta(t, 3, sound.Seconds(), 1e-9, "the accepted sound stays")
}

// What cannot be used is refused with a remedy, and leaves nothing behind.
func TestWhatIsRefusedLeavesNothing(t *testing.T) {
	in, b := door(t, "REFUSE")
	ticked := b.AddStep(t, in.Store, exercise.New("care", nil))
	cut := silence(48000, 2)[:30000]
	binary.LittleEndian.PutUint32(cut[40:], 48000*2*2)
	for name, c := range map[string]struct {
		file   []byte
		step   store.Step
		reason string
	}{
		"nothing":          {nil, b.Step, "not a WAV file"},
		"a song":           {[]byte("ID3\x03 some other sound format"), b.Step, "Save the recording as WAV"},
		"too short":        {silence(48000, 0.3), b.Step, "Record the whole step"},
		"no sound":         {silence(48000, 0), b.Step, "empty"},
		"a telephone":      {silence(8000, 3), b.Step, "16000 to 96000 Hz"},
		"a studio":         {silence(192000, 1), b.Step, "16000 to 96000 Hz"},
		"a step to tick":   {silence(48000, 3), ticked, "not recorded"},
		"cut on the way":   {cut, b.Step, "cut short"},
		"a long afternoon": {silence(16000, 120), b.Step, "Record just the step"},
	} {
		h := upload(b)
		h.StepID = c.step.ID
		_, err := in.File(t.Context(), h, bytes.NewReader(c.file))
		var refused problem.Error
		if assert.ErrorAs(t, err, &refused, name) {
			assert.Contains(t, refused.Remedy, c.reason, name)
		}
	}
	require.NoError(t, in.Recordings.Each(t.Context(), func(o recordings.Object) error {
		assert.Fail(t, "a file is left", o.Key)
		return nil
	}))
	assert.Zero(t, count(t, in.Store, "take"))
	assert.Zero(t, count(t, in.Store, "river_job"))
}

// A step that is not the player's class's, or was never written so, is not there.
func TestAStepMustBeThePlayers(t *testing.T) {
	in, b := door(t, "MINE")
	other := storetest.NewBand(t, in.Store, "THEIRS")
	for name, change := range map[string]func(*intake.Upload){
		"another class's": func(h *intake.Upload) { h.StepID = other.Step.ID },
		"never written":   func(h *intake.Upload) { h.StepVersion = 7 },
		"no step":         func(h *intake.Upload) { h.StepID = uuid.NewString() },
	} {
		h := upload(b)
		change(&h)
		_, err := in.File(t.Context(), h, bytes.NewReader(silence(48000, 3)))
		assert.ErrorIs(t, err, store.ErrNotFound, name)
	}
}

// A take that comes late is of the day, and the rung, it was played on; one from
// a clock that runs ahead is of now.
func TestALateTakeIsOfItsOwnTime(t *testing.T) {
	in, b := door(t, "LATE")
	step := b.AddStep(t, in.Store, exercise.New(exercise.KindLadder, map[string]any{"ladder": "clarinet-break"}))
	now := time.Now()
	require.NoError(t, in.Store.AddLadderEntry(t.Context(), store.LadderEntry{
		PlayerID: b.Players[0].ID,
		Ladder:   "clarinet-break",
		What:     ladder.Placed,
		Day:      b.Class.Day(now),
		Rung:     4,
		At:       now,
	}))
	late := upload(b)
	late.StepID, late.PlayedAt, late.Rung = step.ID, now.Add(-50*time.Hour), 2
	_, err := in.File(t.Context(), late, bytes.NewReader(silence(48000, 3)))
	require.NoError(t, err)
	got, err := in.Store.Take(t.Context(), late.ID)
	require.NoError(t, err)
	assert.Equal(t, b.Class.Day(now.Add(-50*time.Hour)), got.Day.UTC())
	assert.Equal(t, 2, got.Score.Rung, "as the device had it")

	ahead := upload(b)
	ahead.StepID, ahead.PlayedAt = step.ID, now.Add(3*time.Hour)
	_, err = in.File(t.Context(), ahead, bytes.NewReader(silence(48000, 3.5)))
	require.NoError(t, err)
	got, err = in.Store.Take(t.Context(), ahead.ID)
	require.NoError(t, err)
	assert.Equal(t, b.Class.Day(ahead.At), got.Day.UTC())
	assert.Equal(t, 4, got.Score.Rung, "where the player stands")
}

// What a step is for is for the others not.
func TestAStepForSomeIsForThemOnly(t *testing.T) {
	in, b := door(t, "SOME")
	brass := b.AddStep(t, in.Store, exercise.New("air-then-buzz", nil), "trombone")
	_, _, err := intake.Score(brass, standing(t, in, b, 0), b.Class.Day(time.Now()))
	require.ErrorIs(t, err, exercise.ErrNotFor)
	score, i, err := intake.Score(brass, standing(t, in, b, 1), b.Class.Day(time.Now()))
	require.NoError(t, err)
	assert.Equal(t, "trombone", i.Key)
	assert.NotEmpty(t, score.Segments)
	item, err := brass.Item()
	require.NoError(t, err)
	notes, err := intake.Notes(item, standing(t, in, b, 1), b.Class.Day(time.Now()))
	require.NoError(t, err)
	assert.Equal(t, score.Segments, notes.Segments, "a list reads what the room does")
}

func standing(t *testing.T, in intake.Intake, b storetest.Band, player int) store.Standing {
	t.Helper()
	p := b.Players[player]
	p.Class = b.Class
	now, err := in.Store.Standing(t.Context(), p)
	require.NoError(t, err)
	return now
}
