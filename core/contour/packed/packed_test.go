package packed_test

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/contour/packed"
	"earlychorus/core/music"
)

func TestPackKeepsTheContour(t *testing.T) {
	tone := audio.Mono{Rate: 48000, Samples: make([]float64, 3*48000)}
	for n := range tone.Samples {
		tone.Samples[n] = 0.3 * math.Sin(2*math.Pi*233.08*float64(n)/48000)
	}
	c, err := contour.OpenEar.Track(context.Background(), tone)
	require.NoError(t, err)
	small := packed.Pack(c)
	assert.Less(t, len(small), 600, "three steady seconds")
	back, err := packed.Unpack(small)
	require.NoError(t, err)
	require.Len(t, back.Frames, len(c.Frames))
	for n, f := range c.Frames {
		require.Equal(t, f.Voiced(), back.Frames[n].Voiced())
		if f.Voiced() {
			assert.InDelta(t, 0, float64(music.Between(f.Pitch, back.Frames[n].Pitch)), 0.07)
		}
		assert.InDelta(t, float64(f.Level), float64(back.Frames[n].Level), 0.26)
	}
}

func TestUnpackRefusesOtherBytes(t *testing.T) {
	for _, b := range [][]byte{nil, []byte("fLaC and more"), {1, 255, 255, 255, 255, 0}, {1, 9, 0, 0, 0, 0}} {
		_, err := packed.Unpack(b)
		assert.ErrorIs(t, err, packed.ErrFormat)
	}
}

func FuzzUnpack(f *testing.F) {
	f.Add(packed.Pack(contour.Contour{Frames: []contour.Frame{{Pitch: 440, Confidence: 1, Level: -20}, {Level: -60}}}))
	f.Add([]byte{1, 255, 255, 0, 0, 0})
	f.Fuzz(func(t *testing.T, in []byte) {
		c, err := packed.Unpack(in)
		if err != nil {
			return
		}
		again, err := packed.Unpack(packed.Pack(c))
		if err != nil || len(again.Frames) != len(c.Frames) {
			t.Fatalf("round trip: %v", err)
		}
	})
}
