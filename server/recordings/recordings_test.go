package recordings_test

import (
	"bytes"
	"io"
	"os"
	"path/filepath"
	"testing"
	"testing/iotest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/server/recordings"
)

func open(t testing.TB) (*recordings.Store, string) {
	t.Helper()
	folder := t.TempDir()
	s, err := recordings.InFolder(folder)
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	return s, folder
}

func TestARecordingComesBackAsItWas(t *testing.T) {
	s, folder := open(t)
	ctx := t.Context()
	sound := audio.Mono{Rate: 48000, Bits: 16, Samples: make([]float64, 5000)}
	for n := range sound.Samples {
		sound.Samples[n] = float64(n%200-100) / 32768 // what 16 bits hold exactly
	}
	name, sum, err := s.Put(ctx, recordings.OfTake, "take", sound)
	require.NoError(t, err)
	back, err := s.Get(ctx, name)
	require.NoError(t, err)
	assert.Equal(t, sound, back)
	again, _, err := s.Put(ctx, recordings.OfTake, "take", sound)
	require.NoError(t, err)
	assert.Equal(t, name, again, "as a repeated upload would")

	file, err := s.FLAC(ctx, name)
	require.NoError(t, err)
	assert.Equal(t, "fLaC", string(file[:4]))
	holds, err := s.Holds(ctx, name, sum)
	require.NoError(t, err)
	assert.True(t, holds)
	entries, err := os.ReadDir(filepath.Join(folder, "takes", "ta"))
	require.NoError(t, err)
	assert.Len(t, entries, 1, "nothing half-written lies beside it")

	require.NoError(t, s.Delete(ctx, name))
	require.NoError(t, s.Delete(ctx, name), "it is gone already")
	_, err = s.Get(ctx, name)
	require.ErrorIs(t, err, recordings.ErrMissing)
	entries, err = os.ReadDir(folder)
	require.NoError(t, err)
	assert.Empty(t, entries, "nor an empty folder")
}

// What comes as a file is kept byte for byte; two under one number are two.
func TestAFileIsKeptAsItCame(t *testing.T) {
	s, _ := open(t)
	ctx := t.Context()
	names := map[string]audio.Mono{}
	for _, level := range []float64{0.25, 0.5} {
		sound := audio.Mono{Rate: 16000, Bits: 16, Samples: []float64{0, level, -level}}
		came, err := s.Receive(bytes.NewReader(wav.Encode(sound)))
		require.NoError(t, err)
		name, err := came.Keep(ctx, recordings.OfTake, "take")
		require.NoError(t, err)
		came.Drop()
		names[name] = sound
		holds, err := s.Holds(ctx, name, came.SHA256)
		require.NoError(t, err)
		assert.True(t, holds)
	}
	assert.Len(t, names, 2)
	for name, sound := range names {
		back, err := s.Get(ctx, name)
		require.NoError(t, err)
		assert.Equal(t, sound, back)
	}
}

// A sender who breaks off leaves nothing.
func TestAHalfSentFileIsNobodys(t *testing.T) {
	s, folder := open(t)
	_, err := s.Receive(iotest.TimeoutReader(iotest.OneByteReader(bytes.NewReader([]byte("RIFF")))))
	require.ErrorIs(t, err, iotest.ErrTimeout)
	entries, err := os.ReadDir(folder)
	require.NoError(t, err)
	assert.Empty(t, entries)
}

func TestADamagedRecordingIsNoMissingOne(t *testing.T) {
	s, folder := open(t)
	require.NoError(t, os.WriteFile(filepath.Join(folder, "take.flac"), []byte("not FLAC at all"), 0o600))
	_, err := s.Get(t.Context(), "take.flac")
	require.Error(t, err)
	assert.NotErrorIs(t, err, recordings.ErrMissing)
}

// However a network tears a take into parts, sends them twice, in any order and
// overlapping, what is received is what came without a hole, and what is read is
// the take.
func TestPartsMakeTheWhole(t *testing.T) {
	s, _ := open(t)
	ctx := t.Context()
	round := 0
	rapid.Check(t, func(t *rapid.T) {
		round++
		take := string(rune('a'+round%26)) + time.Now().Format("150405.000000000")
		whole := []byte(rapid.StringMatching(`[a-z]{1,60}`).Draw(t, "take"))
		for range rapid.IntRange(0, 8).Draw(t, "parts") {
			from := rapid.IntRange(0, len(whole)-1).Draw(t, "from")
			to := rapid.IntRange(from+1, len(whole)).Draw(t, "to")
			require.NoError(t, s.PutPart(ctx, "ada", take, int64(from), whole[from:to]))
		}
		received, err := s.Received(ctx, "ada", take)
		require.NoError(t, err)
		read, err := io.ReadAll(s.Parts(ctx, "ada", take))
		require.NoError(t, err)
		assert.Equal(t, whole[:received], append([]byte{}, read...))

		require.NoError(t, s.PutPart(ctx, "ada", take, received, whole[received:])) // the device goes on there
		read, err = io.ReadAll(s.Parts(ctx, "ada", take))
		require.NoError(t, err)
		assert.Equal(t, whole, read)
	})
}

func TestPartsAreTheirPlayersAndGoInTime(t *testing.T) {
	s, folder := open(t)
	ctx := t.Context()
	require.NoError(t, s.PutPart(ctx, "ada", "take", 0, []byte("ada's")))
	require.NoError(t, s.PutPart(ctx, "bo", "take", 0, []byte("bo's take")))
	received, err := s.Received(ctx, "ada", "take")
	require.NoError(t, err)
	assert.EqualValues(t, 5, received)
	require.NoError(t, s.DropParts(ctx, "ada", "take"))
	received, err = s.Received(ctx, "ada", "take")
	require.NoError(t, err)
	assert.Zero(t, received)
	mine, err := io.ReadAll(s.Parts(ctx, "bo", "take"))
	require.NoError(t, err)
	assert.True(t, bytes.Equal([]byte("bo's take"), mine))

	require.NoError(t, s.PutPart(ctx, "bo", "young", 0, []byte("x")))
	old := time.Now().Add(-8 * 24 * time.Hour)
	require.NoError(
		t,
		filepath.WalkDir(
			filepath.Join(folder, "parts", "bo", "take"),
			func(path string, d os.DirEntry, err error) error {
				if err == nil && !d.IsDir() {
					err = os.Chtimes(path, old, old)
				}
				return err
			},
		),
	)
	require.NoError(t, s.DropPartsBefore(ctx, time.Now().Add(-7*24*time.Hour)))
	for take, want := range map[string]int64{"take": 0, "young": 1} {
		received, err = s.Received(ctx, "bo", take)
		require.NoError(t, err)
		assert.Equal(t, want, received, take)
	}
}

// What a crash left half-written is nobody's recording and no part, and no number
// leads out of the folder.
func TestOnlyWholeThingsInsideTheFolderAreThere(t *testing.T) {
	s, folder := open(t)
	ctx := t.Context()
	require.NoError(t, s.PutPart(ctx, "ada", "take", 0, []byte("abc")))
	left := filepath.Join(folder, "parts", "ada", "take", "000000000003.tmp-LEFTBYACRASH")
	require.NoError(t, os.WriteFile(left, []byte("half"), 0o600))
	received, err := s.Received(ctx, "ada", "take")
	require.NoError(t, err)
	assert.EqualValues(t, 3, received)
	swept, err := s.Sweep(ctx, time.Now().Add(-time.Hour))
	require.NoError(t, err)
	assert.Zero(t, swept, "it may still be being written")
	swept, err = s.Sweep(ctx, time.Now().Add(time.Hour))
	require.NoError(t, err)
	assert.Equal(t, 1, swept)
	assert.NoFileExists(t, left)

	outside := filepath.Join(filepath.Dir(folder), "outside.flac")
	require.NoError(t, os.WriteFile(outside, []byte("private"), 0o600))
	_, err = s.Open(ctx, "../outside.flac")
	assert.Error(t, err)
	assert.Error(t, s.PutPart(ctx, "..", "../outside", 0, []byte("x")))
	assert.Error(t, s.Delete(ctx, "../outside.flac"))
	still, err := os.ReadFile(outside)
	require.NoError(t, err)
	assert.Equal(t, "private", string(still))
}
