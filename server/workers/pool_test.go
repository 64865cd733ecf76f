package workers_test

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/jobs"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
	"earlychorus/server/workers"
)

// patience is for a machine with much else to do; nothing here takes a tenth of it.
const patience = time.Minute

// allJobs is all that a pool does.
func allJobs(t *testing.T, s *store.Store, sounds *recordings.Store) workers.Jobs {
	t.Helper()
	queue, err := jobs.NewQueue(s.SQL())
	require.NoError(t, err)
	analyze := &workers.AnalyzeTake{Store: s, Recordings: sounds, Now: time.Now}
	return workers.Jobs{
		Analyze: analyze,
		LetGo:   &workers.LetGo{Store: s, Recordings: sounds, Now: time.Now},
		Again:   &workers.JudgeAgain{Analyze: analyze, Store: s, Now: time.Now},
		Pack:    &workers.Pack{Store: s, Recordings: sounds, Now: time.Now},
		Sweep:   &workers.Sweep{Store: s, Queue: queue, Now: time.Now},
		Letters: &workers.SendLetter{Store: s, Now: time.Now},
		Weekly:  &workers.WriteSummaries{Store: s, Queue: queue, Now: time.Now},
		Backup:  &workers.Backup{Store: s, Recordings: sounds, Now: time.Now},
	}
}

// start runs the bench's jobs with the queue's own pool, until the test ends.
func (b bench) start() {
	b.t.Helper()
	pool, err := workers.NewPool(b.store.SQL(), b.band.Class.Code, allJobs(b.t, b.store, b.sounds))
	require.NoError(b.t, err)
	require.NoError(b.t, pool.Start(context.Background()))
	b.t.Cleanup(func() { _ = pool.Stop(context.Background()) })
}

// sql changes the database behind the program's back.
func (b bench) sql(statement string) {
	b.t.Helper()
	_, err := b.store.SQL().Exec(statement)
	require.NoError(b.t, err)
}

// failures is how often the listening has failed so far.
func (b bench) failures() (count int) {
	b.t.Helper()
	require.NoError(b.t, b.store.SQL().QueryRow(
		"SELECT coalesce(cardinality(errors), 0) FROM river_job WHERE kind = 'analyze_take'",
	).Scan(&count))
	return count
}

// becomes waits for a take to be as it should.
func (b bench) becomes(id string, as func(store.Take) bool, says string) {
	b.t.Helper()
	require.Eventually(b.t, func() bool {
		taken, err := b.store.Take(b.t.Context(), id)
		return err == nil && as(taken)
	}, patience, 50*time.Millisecond, says)
}

// The database is away for a moment, as while it is restarted: the take is listened
// to when it is back.
func TestTroubleWithTheDatabaseOnlyDelaysAListening(t *testing.T) {
	b := newBench(t, "TROUBLE")
	id := b.play(b.band.Step, synth.Player{})
	b.sql("ALTER TABLE take RENAME TO take_away")
	b.start()
	require.Eventually(t, func() bool { return b.failures() > 0 }, patience, 20*time.Millisecond, "it fails first")
	b.sql("ALTER TABLE take_away RENAME TO take")
	b.becomes(id, func(t store.Take) bool { return t.Result != "" }, "it is heard when the database is well again")
}

// A listening that can never be kept is given up, in words, with its last attempt
// and not weeks later; until then it is tried again.
func TestATakeIsGivenUpInWordsAfterTheLastAttempt(t *testing.T) {
	b := newBench(t, "GIVEUP")
	id := b.play(b.band.Step, synth.Player{})
	b.sql("ALTER TABLE analysis RENAME TO analysis_away")
	b.start()
	require.Eventually(t, func() bool { return b.failures() == 1 }, patience, 20*time.Millisecond)
	taken, err := b.store.Take(t.Context(), id)
	require.NoError(t, err)
	assert.Empty(t, taken.Failure, "it is tried again")
	// The pauses between attempts grow to minutes: the last one is brought forward.
	require.Eventually(t, func() bool {
		done, err := b.store.SQL().Exec(
			"UPDATE river_job SET attempt = max_attempts - 1, state = 'available', scheduled_at = now() " +
				"WHERE kind = 'analyze_take' AND state = 'retryable'",
		)
		require.NoError(t, err)
		changed, err := done.RowsAffected()
		return err == nil && changed == 1
	}, patience, 20*time.Millisecond)
	require.Eventually(t, func() bool { return b.failures() >= 2 }, patience, 20*time.Millisecond)
	b.becomes(id, func(t store.Take) bool { return t.Failure != "" }, "the player is told")
	taken, err = b.store.Take(t.Context(), id)
	require.NoError(t, err)
	assert.Contains(t, taken.Failure, "Your recording is safe")
}

// A take that the ear comes to grief over is marked at its first attempt, and the ear
// goes on with the next one.
func TestAnEarThatFailsMarksItsTakeAndGoesOn(t *testing.T) {
	b := newBench(t, "GRIEF")
	bad := b.play(b.band.Step, synth.Player{})
	// No step asks for such a note: the fault of the program is made here.
	b.sql(`UPDATE score SET body = jsonb_set(body::jsonb, '{segments,2,target_midi}', '100000')::text::jsonb`)
	b.start()
	b.becomes(bad, func(t store.Take) bool { return t.Failure != "" }, "the take says so")
	assert.LessOrEqual(t, b.failures(), 1, "it is not tried again and again")
	b.sql(`UPDATE score SET body = jsonb_set(body::jsonb, '{segments,2,target_midi}', '58')::text::jsonb`)
	good := b.play(b.band.Step, synth.Player{Seed: 2})
	b.becomes(good, func(t store.Take) bool { return t.Result != "" }, "the next is heard")
}

// What an older ear judged, in words, is judged by the present one through the queue,
// and says what would be said today.
func TestWhatWasKeptIsJudgedAgain(t *testing.T) {
	b := newBench(t, "AGAIN")
	id := b.play(b.band.Step, synth.Player{Gaps: []synth.Gap{{At: 0.8, Length: 0.3}}})
	require.NoError(t, b.work(id))
	b.sql(`UPDATE analysis SET version = 10202, verdict = jsonb_build_object('version', 2, 'result', 'clean',
		'sentence', 'Old words.', 'short', 'old', 'measures', '[]'::jsonb, 'causes', '[]'::jsonb)`)
	b.sql("UPDATE take SET result = 'clean', conclusion = NULL, short = 'old'")
	old, err := b.store.AnalysisOf(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, "Old words.", old.Verdict.OldSentence, "until then its words are kept")
	b.sql("DELETE FROM river_job") // its first listening, which is long over
	b.start()
	b.becomes(id, func(t store.Take) bool { return t.Result == verdict.NotYet }, "it is judged again")
	now, err := b.store.AnalysisOf(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, workers.Version, now.Version)
	assert.Empty(t, now.Verdict.OldSentence)
	require.Eventually(t, func() bool {
		done, err := b.store.JudgedAgain(t.Context(), workers.Version)
		return err == nil && done
	}, patience, 50*time.Millisecond, "and is not looked for again")
}

// Takes that came at one moment are all judged again, and one whose recording is lost
// keeps what was said of it and stops nobody.
func TestJudgingAgainLeavesNoneOut(t *testing.T) {
	b := newBench(t, "MANY")
	var ids []string
	for seed := range 3 {
		id := b.play(b.band.Step, synth.Player{Seed: uint64(seed + 1), Gaps: []synth.Gap{{At: 0.8, Length: 0.3}}})
		require.NoError(t, b.work(id))
		ids = append(ids, id)
	}
	b.sql("UPDATE take SET received_at = now() - interval '1 hour', result = 'clean'")
	b.sql("UPDATE analysis SET version = 10202")
	b.lose(ids[1])
	b.sql("DELETE FROM river_job") // their first listenings, which are long over
	old, err := b.store.JudgedBefore(t.Context(), workers.Version, store.OldJudgement{ReceivedAt: time.Now()}, 1)
	require.NoError(t, err)
	require.Len(t, old, 1)
	next, err := b.store.JudgedBefore(t.Context(), workers.Version, old[0], 10)
	require.NoError(t, err)
	assert.Len(t, next, 2, "the same moment, another take")
	b.start()
	for _, id := range []string{ids[0], ids[2]} {
		b.becomes(id, func(t store.Take) bool { return t.Result == verdict.NotYet }, "it is judged again")
	}
	lost, err := b.store.Take(t.Context(), ids[1])
	require.NoError(t, err)
	assert.Equal(t, verdict.Clean, lost.Result)
	assert.Empty(t, lost.Failure)
}
