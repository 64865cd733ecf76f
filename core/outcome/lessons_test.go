package outcome_test

import (
	"context"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/benches/lessons/lesson"
	"earlychorus/core/say"
)

// lessonsHeard is one lesson in so many of all: more than 200 of them.
const lessonsHeard = 50

// Whole takes, right and with one known mistake, of every kind and instrument, in
// dry and in ringing rooms, from two sets of recorded instruments and our own
// players: what a teacher would conclude of them is common practice, no published
// source. All of them, and how many are concluded right, are in benches/lessons.
func TestLessonsAreConcludedAsATeacherWould(t *testing.T) {
	all, err := lesson.All(0)
	require.NoError(t, err)
	var mutex sync.Mutex
	heard, wrong, rights, accused := 0, 0, 0, 0
	t.Run("lessons", func(t *testing.T) {
		for n := 0; n < len(all); n += lessonsHeard {
			l := all[n]
			t.Run(l.Name(), func(t *testing.T) {
				t.Parallel()
				c, err := l.Hear(context.Background())
				require.NoError(t, err)
				word, account, tip := l.Expect.Right(l, c)
				mutex.Lock()
				defer mutex.Unlock()
				heard++
				if l.Mistake == "" {
					rights++
				}
				if !word || !account || !tip {
					wrong++
					words := say.Teller{Instrument: l.Instrument}.Sentence(c.Verdict)
					t.Logf("%s %v: %s", c.Verdict.Result, c.Verdict.Causes, words)
				}
				if !word && l.Mistake == "" {
					accused++
				}
			})
		}
	})
	t.Logf("%d lessons, %d concluded otherwise; %d of %d right takes accused", heard, wrong, accused, rights)
	assert.GreaterOrEqual(t, heard, 200)
	assert.LessOrEqual(t, float64(wrong), mostWrong*float64(heard))
	assert.LessOrEqual(t, float64(accused), mostAccused*float64(rights))
}

// What the lessons of this selection reach today. They only ever get stricter.
const (
	mostWrong   = 0.03
	mostAccused = 0.03
)
