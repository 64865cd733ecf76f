package contour

import (
	"math"

	"earlychorus/core/music"
)

// Silence is the level given to digital silence.
const Silence music.Decibels = -120

// silentPower is Silence's own; below it is nothing.
const silentPower = 1e-12

// levelTrack is the RMS over two hops around each frame, from the energies
// of the halves of the windows, which neighbours share. It grows with its sound.
type levelTrack struct {
	rate   float64
	levels []music.Decibels
	before float64 // energy of the half before, and its samples
	count  int
}

// advance measures the frames that are whole by now; x is the sound from its beginning.
func (t *levelTrack) advance(x []float64) {
	at := func(n int) int { return int(math.Round(float64(n) * float64(Hop) * t.rate)) }
	for n := len(t.levels); at(n+1) <= len(x); n++ {
		half := x[at(n):at(n+1)]
		after := energy(half)
		t.levels = append(t.levels, decibels((t.before+after)/float64(max(1, t.count+len(half)))))
		t.before, t.count = after, len(half)
	}
}

func energy(x []float64) (sum float64) {
	var a, b float64
	for ; len(x) >= 2; x = x[2:] {
		a += x[0] * x[0]
		b += x[1] * x[1]
	}
	if len(x) == 1 {
		a += x[0] * x[0]
	}
	return a + b
}

func decibels(power float64) music.Decibels {
	if power <= silentPower {
		return Silence
	}
	return music.Decibels(10 * math.Log10(power))
}
