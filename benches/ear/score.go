package main

import (
	"math"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/music"
)

// tally counts how one listener did.
type tally struct {
	asked, heard  int // frames where a note sounds; of those, called pitched
	gross, octave int // heard more than 50 cents off; of those, near a multiple
	within        int // asked frames heard within 25 cents
	rest, false_  int // frames of rest; of those, called pitched
	cents         []float64
	cracks, found int
	crackCents    []float64 // signed, inside found cracks
}

// add compares what was heard (Hz a frame, 0 for none) with the truth.
func (t *tally) add(s sample, heard []music.Hertz) {
	for n, truth := range s.truth {
		if n >= len(heard) || s.near[n] {
			continue
		}
		if truth == 0 {
			t.rest++
			if heard[n] > 0 {
				t.false_++
			}
			continue
		}
		t.asked++
		if heard[n] <= 0 {
			continue
		}
		t.heard++
		off := float64(music.Between(truth, heard[n]))
		if math.Abs(off) > 50 {
			t.gross++
			ratio := math.Exp2(math.Abs(off) / 1200)
			if math.Abs(1200*math.Log2(ratio/math.Round(ratio))) < 50 {
				t.octave++
			}
			continue
		}
		if math.Abs(off) <= 25 {
			t.within++
		}
		t.cents = append(t.cents, math.Abs(off))
	}
	for _, c := range s.cracks {
		t.crack(c, heard)
	}
}

// crackRun is how many frames in a row must lie on a crack's partial.
const crackRun = 3

func (t *tally) crack(c crack, heard []music.Hertz) {
	t.cracks++
	run, longest := 0, 0
	var cents []float64
	for n := contour.Index(c.from); n <= contour.Index(c.to) && n < len(heard); n++ {
		off := float64(music.Between(c.pitch, max(heard[n], 1e-3)))
		if math.Abs(off) > 50 {
			run = 0
			continue
		}
		run++
		longest = max(longest, run)
		if at := contour.Time(n); at > c.from+0.015 && at < c.to-0.015 {
			cents = append(cents, off)
		}
	}
	if longest >= crackRun {
		t.found++
		t.crackCents = append(t.crackCents, cents...)
	}
}

func (t *tally) merge(o tally) {
	t.asked, t.heard, t.gross, t.octave, t.within = t.asked+
		o.asked, t.heard+o.heard, t.gross+o.gross, t.octave+o.octave, t.within+o.within
	t.rest, t.false_, t.cracks, t.found = t.rest+o.rest, t.false_+o.false_, t.cracks+o.cracks, t.found+o.found
	t.cents = append(t.cents, o.cents...)
	t.crackCents = append(t.crackCents, o.crackCents...)
}

func quantile(x []float64, q float64) float64 {
	if len(x) == 0 {
		return math.NaN()
	}
	x = slices.Sorted(slices.Values(x))
	return x[int(q*float64(len(x)-1))]
}

func share(part, whole int) float64 {
	if whole == 0 {
		return math.NaN()
	}
	return 100 * float64(part) / float64(whole)
}
