package workers_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/synth"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// Connections are cut again and again, as by a failover: every take is listened to.
func TestCutConnectionsCancelNothing(t *testing.T) {
	b := newBench(t, "CUT")
	var ids []string
	for seed := range 8 {
		ids = append(ids, b.play(b.band.Step, synth.Player{Seed: uint64(seed + 1)}))
	}
	b.start()
	for end := time.Now().Add(3 * time.Second); time.Now().Before(end); time.Sleep(60 * time.Millisecond) {
		_, _ = b.store.SQL().Exec( // it may cut itself
			"SELECT pg_terminate_backend(pid) FROM pg_stat_activity " +
				"WHERE datname = current_database() AND pid <> pg_backend_pid()",
		)
	}
	for _, id := range ids {
		b.becomes(id, func(t store.Take) bool { return t.Result != "" && t.Failure == "" }, "it is heard all the same")
	}
}

// A take whose job was lost is found by the sweep and listened to.
func TestATakeWithoutAJobIsQueuedAgain(t *testing.T) {
	b := newBench(t, "SWEEP")
	id := b.play(b.band.Step, synth.Player{})
	b.sql("UPDATE take SET received_at = now() - interval '2 hours'")
	b.sql("UPDATE river_job SET state = 'cancelled', finalized_at = now()")
	b.start()
	b.becomes(id, func(t store.Take) bool { return t.Result != "" }, "the sweep has found it")
}

// The jobs of a worker that died are taken up while others work.
func TestTheJobsOfTheDeadAreTakenUp(t *testing.T) {
	b := newBench(t, "DEAD")
	id := b.play(b.band.Step, synth.Player{})
	b.sql("UPDATE river_job SET state = 'running', attempted_at = now(), attempt = 1, attempted_by = '{somebody-dead}'")
	b.start()
	b.becomes(id, func(t store.Take) bool { return t.Result != "" }, "somebody else listens to it")
}

// A recording that nobody waits for any more becomes smaller, and stays what it was.
func TestRecordingsArePackedLater(t *testing.T) {
	b := newBench(t, "PACK")
	id := b.play(b.band.Step, synth.Player{})
	before, err := b.store.Take(t.Context(), id)
	require.NoError(t, err)
	assert.False(t, recordings.IsPacked(before.Sound), "it is kept as it came")
	was, err := b.sounds.Get(t.Context(), before.Sound)
	require.NoError(t, err)
	b.sql("UPDATE take SET received_at = now() - interval '1 hour'")
	b.start()
	b.becomes(id, func(t store.Take) bool { return recordings.IsPacked(t.Sound) }, "it is packed")
	b.becomes(id, func(t store.Take) bool { return t.Result != "" }, "and heard")
	after, err := b.store.Take(t.Context(), id)
	require.NoError(t, err)
	is, err := b.sounds.Get(t.Context(), after.Sound)
	require.NoError(t, err)
	assert.Equal(t, was.Samples, is.Samples)
	holds, err := b.sounds.Holds(t.Context(), after.Sound, after.SoundSHA256)
	require.NoError(t, err)
	assert.True(t, holds)
	assert.Eventually(t, func() bool {
		_, err := b.sounds.Open(t.Context(), before.Sound)
		return err != nil
	}, patience, 20*time.Millisecond, "one of the two is enough")
}

// While somebody waits for a word nothing is packed.
func TestPackingGivesWay(t *testing.T) {
	b := newBench(t, "WAIT")
	id := b.play(b.band.Step, synth.Player{})
	b.sql("UPDATE take SET received_at = now() - interval '1 hour'")
	b.sql("UPDATE river_job SET queue = 'elsewhere'") // where nobody takes it up
	b.start()
	time.Sleep(time.Second)
	waiting, err := b.store.Take(t.Context(), id)
	require.NoError(t, err)
	assert.False(t, recordings.IsPacked(waiting.Sound), "its player waits")
	b.sql("UPDATE river_job SET queue = 'default' WHERE queue = 'elsewhere'")
	b.becomes(
		id,
		func(t store.Take) bool { return t.Result != "" && recordings.IsPacked(t.Sound) },
		"heard, then packed",
	)
}
