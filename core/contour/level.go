package contour

import (
	"math"

	"earlychorus/core/music"
)

// Silence is the level given to digital silence.
const Silence music.Decibels = -120

// silentPower is Silence's own; below it is nothing.
const silentPower = 1e-12

// levelTrack is the RMS over two hops around each frame. It grows with its envelope, whose
// steps make up the hops.
type levelTrack struct{ levels []music.Decibels }

const stepsAHop = 10

// advance measures the frames that are whole by now.
func (t *levelTrack) advance(e Envelope) {
	for n := len(t.levels); (n+1)*stepsAHop < len(e.sums); n++ {
		from, to := max(0, n-1)*stepsAHop, (n+1)*stepsAHop
		t.levels = append(t.levels, decibels((e.sums[to]-e.sums[from])/float64(max(1, e.at(to)-e.at(from)))))
	}
}

// energy adds up four sums side by side: one would wait for its own last addition.
func energy(x []float64) float64 {
	var a, b, c, d float64
	for ; len(x) >= 4; x = x[4:] {
		a += x[0] * x[0]
		b += x[1] * x[1]
		c += x[2] * x[2]
		d += x[3] * x[3]
	}
	for _, v := range x {
		a += v * v
	}
	return a + b + c + d
}

func decibels(power float64) music.Decibels {
	if power <= silentPower {
		return Silence
	}
	return music.Decibels(10 * math.Log10(power))
}
