package flac_test

import (
	"bytes"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/audio/flac"
)

func TestRoundTripLosesNothing(t *testing.T) {
	for _, bits := range []int{16, 24} {
		in := audio.Mono{Rate: 48000, Bits: bits, Samples: make([]float64, 10_000)}
		for n := range in.Samples {
			x := 0.5 * math.Sin(2*math.Pi*233.08*float64(n)/48000)
			in.Samples[n] = float64(audio.Quantise(x, bits)) / math.Exp2(float64(bits-1))
		}
		file, err := flac.Encode(in)
		require.NoError(t, err)
		assert.Less(t, len(file), len(in.Samples)*bits/8, "smaller than PCM")
		out, err := flac.Decode(bytes.NewReader(file), 0)
		require.NoError(t, err)
		assert.Equal(t, in, out)
	}
}

func TestDecodeRefusesOtherFiles(t *testing.T) {
	_, err := flac.Decode(bytes.NewReader([]byte("RIFF....WAVE")), 0)
	assert.ErrorContains(t, err, "flac")
}

// Hours of silence in a few kilobytes do not fill memory.
func TestDecodeIsBounded(t *testing.T) {
	file, err := flac.Encode(audio.Mono{Rate: 16000, Bits: 16, Samples: make([]float64, 20*16000)})
	require.NoError(t, err)
	_, err = flac.Decode(bytes.NewReader(file), 10)
	assert.ErrorIs(t, err, flac.ErrTooLong)
}

func FuzzDecode(f *testing.F) {
	file, err := flac.Encode(audio.Mono{Rate: 44100, Bits: 16, Samples: []float64{0, 0.5, -1, 0.25}})
	if err != nil {
		f.Fatal(err)
	}
	f.Add(file)
	f.Add([]byte("fLaC\x00\x00\x00\x22"))
	f.Fuzz(func(t *testing.T, in []byte) {
		first, err := flac.Decode(bytes.NewReader(in), 60)
		if err != nil || len(first.Samples) == 0 {
			return
		}
		if first.Seconds() > 61+65536/float64(first.Rate) {
			t.Fatalf("%v s out of %d bytes", first.Seconds(), len(in))
		}
	})
}
