package contour_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/contour"
	"earlychorus/core/music"
)

func TestPackKeepsTheContour(t *testing.T) {
	c := track(t, contour.OpenEar, sine(233.08, 3, 48000))
	packed := c.Pack()
	assert.Less(t, len(packed), 600, "three steady seconds")
	back, err := contour.Unpack(packed)
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
		_, err := contour.Unpack(b)
		assert.ErrorIs(t, err, contour.ErrPacked)
	}
}
