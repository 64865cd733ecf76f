package workers

import (
	"encoding/json"
	"errors"
	"testing"
	"time"

	"github.com/riverqueue/river/rivertype"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/jobs"
	"earlychorus/server/store/storetest"
)

// A take is given up, in words, only when the last attempt has failed; whatever
// went wrong, nobody waits for ever.
func TestATakeIsGivenUpInWords(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "GIVEUP")
	id := b.Play(t, s, storetest.Played{Step: b.Step, At: time.Now()})
	args, err := json.Marshal(jobs.AnalyzeTake{TakeID: id})
	require.NoError(t, err)
	r := reporter{&AnalyzeTake{Store: s, Now: time.Now}}
	failure := func() string {
		taken, err := s.Take(t.Context(), id)
		require.NoError(t, err)
		return taken.Failure
	}
	r.HandleError(
		t.Context(),
		&rivertype.JobRow{Attempt: 4, MaxAttempts: mostAttempts, EncodedArgs: args},
		errors.New("the disk is slow"),
	)
	assert.Empty(t, failure(), "it is tried again")
	r.HandlePanic(
		t.Context(),
		&rivertype.JobRow{Attempt: 5, MaxAttempts: mostAttempts, EncodedArgs: []byte("{")},
		"broken",
		"",
	)
	assert.Empty(t, failure(), "a job that cannot be read is nobody's")
	r.HandlePanic(
		t.Context(),
		&rivertype.JobRow{Attempt: 5, MaxAttempts: mostAttempts, EncodedArgs: args},
		"out of memory",
		"trace",
	)
	assert.Contains(t, failure(), "Your recording is safe")
}
