package workers_test

import (
	"context"
	"errors"
	"testing"
	"time"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/rivertype"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/contour/packed"
	"earlychorus/core/exercise"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/intake"
	"earlychorus/server/jobs"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
	"earlychorus/server/workers"
)

// bench is a worker with everything it needs, that works when it is told to.
type bench struct {
	t      *testing.T
	store  *store.Store
	sounds *recordings.Store
	intake intake.Intake
	worker *workers.AnalyzeTake
	band   storetest.Band
}

func newBench(t *testing.T, code string) bench {
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
	return bench{
		t,
		s,
		sounds,
		intake.Intake{Store: s, Recordings: sounds, Queue: queue},
		&workers.AnalyzeTake{Store: s, Recordings: sounds, Now: time.Now},
		b,
	}
}

// play hands a take of a step in, as a player plays it.
func (b bench) play(step store.Step, p synth.Player) (takeID string) {
	b.t.Helper()
	now, err := b.store.Standing(b.t.Context(), b.band.Players[0])
	require.NoError(b.t, err)
	score, i, err := intake.Score(step, now, b.band.Class.Day(time.Now()))
	require.NoError(b.t, err)
	p.Instrument = i
	sound, _ := p.Play(score, 48000)
	h := intake.Upload{
		ID:          store.NewID(),
		Player:      b.band.Players[0],
		StepID:      step.ID,
		StepVersion: 1,
		Source:      store.Simulated,
		At:          time.Now(),
	}
	_, err = b.intake.Sound(b.t.Context(), h, sound)
	require.NoError(b.t, err)
	return h.ID
}

func (b bench) work(takeID string) error {
	return b.worker.Work(
		b.t.Context(),
		&river.Job[jobs.AnalyzeTake]{
			JobRow: &rivertype.JobRow{Attempt: 1, MaxAttempts: 5},
			Args:   jobs.AnalyzeTake{TakeID: takeID},
		},
	)
}

// lose deletes a take's sound behind the program's back.
func (b bench) lose(takeID string) {
	b.t.Helper()
	taken, err := b.store.Take(b.t.Context(), takeID)
	require.NoError(b.t, err)
	require.NoError(b.t, b.sounds.Delete(b.t.Context(), taken.Sound))
}

// One listening leaves everything that pages show of a take, and a second one the
// same.
func TestAListeningLeavesAllThatIsShown(t *testing.T) {
	b := newBench(t, "WORK")
	id := b.play(b.band.Step, synth.Player{Gaps: []synth.Gap{{At: 0.8, Length: 0.3}}})
	for range 2 {
		require.NoError(t, b.work(id))
		a, err := b.store.AnalysisOf(t.Context(), id)
		require.NoError(t, err)
		assert.Equal(t, workers.Version, a.Version)
		assert.Equal(t, verdict.NotYet, a.Result)
		assert.Contains(t, a.Ribbon.Text, "gap")
		heard, err := packed.Unpack(a.Contour)
		require.NoError(t, err)
		assert.NotEmpty(t, heard.Frames)
		taken, err := b.store.Take(t.Context(), id)
		require.NoError(t, err)
		assert.Equal(t, verdict.NotYet, taken.Result)
		assert.Equal(t, measure.CauseGap, taken.Cause)
		assert.NotEmpty(t, taken.Conclusion)
		assert.Equal(t, "where it happened", taken.CutAt)
		gap := a.Measured.Events[0]
		assert.Less(t, taken.CutFromS, float64(gap.At))
		assert.Greater(t, taken.CutToS, float64(gap.At+gap.Duration))
		today := b.band.Class.Day(time.Now())
		notes, err := b.store.PlayerNotes(t.Context(), b.band.Players[0].ID, today, today)
		require.NoError(t, err)
		require.Len(t, notes, 1, "once, however often it is listened to")
		assert.False(t, notes[0].Good)
		assert.True(t, notes[0].Trusted)
		assert.Equal(t, 58, notes[0].Sounding)
	}
}

// A take of a rung is one try, however often it is listened to.
func TestARungIsTriedOnceATake(t *testing.T) {
	b := newBench(t, "RUNG")
	step := b.band.AddStep(
		t,
		b.store,
		exercise.New(exercise.KindLadder, map[string]any{"ladder": "clarinet-break", "tempo_bpm": 120}),
	)
	id := b.play(step, synth.Player{})
	require.NoError(t, b.work(id))
	require.NoError(t, b.work(id))
	states, err := b.store.LaddersOf(t.Context(), b.band.Players[0])
	require.NoError(t, err)
	assert.Equal(t, 1, states["clarinet-break"].Tries)
	assert.Equal(t, 1, states["clarinet-break"].Clean)
}

// Sung and buzzed notes are judged, and are none of the instrument's.
func TestOnlyPlayedNotesAreTheInstruments(t *testing.T) {
	b := newBench(t, "SING")
	step := b.band.AddStep(t, b.store, exercise.New("sing-first", map[string]any{"notes": []int{0, 2}}))
	id := b.play(step, synth.Player{})
	require.NoError(t, b.work(id))
	a, err := b.store.AnalysisOf(t.Context(), id)
	require.NoError(t, err)
	var all, played int
	for _, n := range a.Measured.Notes {
		all++
		if n.Phase == scores.Play {
			played++
		}
	}
	assert.Greater(t, all, played)
	today := b.band.Class.Day(time.Now())
	notes, err := b.store.PlayerNotes(t.Context(), b.band.Players[0].ID, today, today)
	require.NoError(t, err)
	assert.Len(t, notes, played)
}

// A take whose recording is lost fails once and for good, in words; one that is
// deleted meanwhile is nobody's business.
func TestWhatCannotBeListenedToEnds(t *testing.T) {
	b := newBench(t, "LOST")
	id := b.play(b.band.Step, synth.Player{})
	b.lose(id)
	var cancelled *river.JobCancelError
	assert.ErrorAs(t, b.work(id), &cancelled)
	taken, err := b.store.Take(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, "The recording is missing. Please record again.", taken.Failure)
	assert.ErrorAs(t, b.work(store.NewID()), &cancelled)
}

// A worker that is stopped leaves the take as it was, for the next run.
func TestAStoppedListeningLeavesTheTake(t *testing.T) {
	b := newBench(t, "STOP")
	id := b.play(b.band.Step, synth.Player{})
	ctx, stop := context.WithCancel(t.Context())
	stop()
	err := b.worker.Work(
		ctx,
		&river.Job[jobs.AnalyzeTake]{
			JobRow: &rivertype.JobRow{Attempt: 1, MaxAttempts: 5},
			Args:   jobs.AnalyzeTake{TakeID: id},
		},
	)
	require.Error(t, err)
	var cancelled *river.JobCancelError
	require.False(t, errors.As(err, &cancelled), "or the queue would never try again")
	taken, err := b.store.Take(t.Context(), id)
	require.NoError(t, err)
	assert.Empty(t, taken.Failure)
	assert.Empty(t, taken.Result)
	require.NoError(t, b.work(id))
}
