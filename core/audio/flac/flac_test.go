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
		out, err := flac.Decode(bytes.NewReader(file))
		require.NoError(t, err)
		assert.Equal(t, in, out)
	}
}

func TestDecodeRefusesOtherFiles(t *testing.T) {
	_, err := flac.Decode(bytes.NewReader([]byte("RIFF....WAVE")))
	assert.ErrorContains(t, err, "flac")
}
