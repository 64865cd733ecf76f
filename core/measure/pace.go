package measure

import (
	"math"
	"slices"

	"earlychorus/core/dsp"
	"earlychorus/core/ear"
	"earlychorus/core/scores"
)

// run is how much longer than written each note of a phrase lasts, 1 being exact,
// and when it began.
type run struct {
	at, ratio []float64
	asked     float64 // seconds from one note to the next, as written, the last of them
	side      string  // which little finger began it, where that matters
	// attacked is whether its first note begins out of silence, and its second by changing: that
	// is not the same moment of a note.
	attacked bool
	blur     float64 // seconds by which it is known when a note begins
}

// runs are the phrases of a take long enough to have a pace. Only notes that follow
// one another have one.
func runs(c Case) (out []run) {
	targets := c.Score.Targets()
	var now run
	end := func() {
		if now.attacked && len(now.ratio) > fewestForDrift {
			now.at, now.ratio = now.at[1:], now.ratio[1:]
		}
		if len(now.ratio) >= fewestForPace {
			out = append(out, now)
		}
		now = run{}
	}
	for n := 1; n < len(targets); n++ {
		before, after := c.Analysis.Notes[n-1], c.Analysis.Notes[n]
		if !scores.Follows(targets, n) || targets[n].Phase == scores.Sing {
			end()
			continue
		}
		if !before.Played || !after.Played {
			continue
		}
		asked := float64(c.Score.TempoBPM.Seconds(targets[n].StartBeat - targets[n-1].StartBeat))
		if len(now.ratio) == 0 {
			now.attacked = before.Start == ear.AfterSilence && after.Start == ear.BySlur
		}
		if now.blur = beginsWithin; c.Analysis.Recording.Ring > hidesTongue {
			now.blur = beginsInRing
		}
		now.side = targets[n].Side
		now.asked = asked
		now.at = append(now.at, float64(before.Onset))
		now.ratio = append(now.ratio, float64(after.Onset-before.Onset)/asked)
	}
	end()
	return out
}

// pace is every note's length against what is written, over the whole take.
func pace(c Case) (at, ratio []float64) {
	for _, r := range runs(c) {
		at, ratio = append(at, r.at...), append(ratio, r.ratio...)
	}
	return at, ratio
}

const fewestForPace = 3

// paceChanges is the greatest change of pace over a phrase, per cent; above 0 it
// speeds up.
func paceChanges(c Case) (percent float64, ok bool) {
	for _, r := range runs(c) {
		if len(r.at) < fewestForDrift {
			continue
		}
		ok = true
		now := r.change()
		if math.Abs(now) > math.Abs(percent) {
			percent = now
		}
	}
	return percent, ok
}

// change is how much the pace of a phrase changes, per cent, whichever note is left
// out: one note that comes late is no change of pace.
func (r run) change() float64 {
	least := math.Inf(1)
	for out := range r.at {
		at, ratio := without(r.at, out), without(r.ratio, out)
		now := -100 * dsp.TheilSen(at, ratio) * (r.at[len(r.at)-1] - r.at[0])
		if math.Abs(now) < math.Abs(least) {
			least = now
		}
	}
	if math.Abs(least) < scatters*max(r.scatter(), r.blurred()) {
		return 0
	}
	return least
}

// scatter is the error of a change of pace, per cent, as the lengths lie about it.
func (r run) scatter() float64 {
	slope := dsp.TheilSen(r.at, r.ratio)
	var off []float64
	for n := range r.at {
		off = append(off, r.ratio[n]-slope*(r.at[n]-r.at[0]))
	}
	middle, squares := dsp.Median(off), 0.
	for _, x := range off {
		squares += (x - middle) * (x - middle)
	}
	// The error of a line's slope, over its whole length.
	return 100 * math.Sqrt(squares/float64(len(off)-2)) * math.Sqrt(12/float64(len(off)))
}

// blurred is the error of a change of pace, per cent, that comes of when each note is heard to
// begin: where one gives way to the next is one length's end and the other's beginning. Of n
// lengths, the slope weighs the outermost beginnings by 6/n(n+1), those between by 12/n(n²−1).
func (r run) blurred() float64 {
	n := float64(len(r.ratio))
	outer, inner := 6/(n*(n+1)), 12/(n*(n*n-1))
	return 100 * (n - 1) * math.Sqrt(2*outer*outer+(n-1)*inner*inner) * r.blur / r.asked
}

func without(x []float64, n int) []float64 { return slices.Delete(slices.Clone(x), n, n+1) }

// fewestForDrift is how many lengths tell a change from one late note.
const fewestForDrift = 5

// meanChange is how much faster than written the notes follow one another, per cent:
// the longest and the shortest are left out, so that one late note does not tell.
func meanChange(c Case) (percent float64, ok bool) {
	_, ratio := pace(c)
	if len(ratio) == 0 {
		return 0, false
	}
	return 100 * (1/math.Max(0.1, trimmedMean(ratio)) - 1), true
}

// bothWays is how much too short and too long lengths are that do not keep one pace.
const bothWays = 0.05

// trimmedMean is the mean without the outermost tenth at each end, one of them at least;
// of fewer than five the middle one, or the mean where some are short and some are long: a
// start heard a little soon makes one length short and the next long.
func trimmedMean(x []float64) float64 {
	if len(x) < 5 {
		if slices.Min(x) > 1-bothWays || slices.Max(x) < 1+bothWays {
			return dsp.Median(x)
		}
		var sum float64
		for _, v := range x {
			sum += v
		}
		return sum / float64(len(x))
	}
	sorted := slices.Sorted(slices.Values(x))
	cut := max(1, len(sorted)/10)
	var sum float64
	for _, v := range sorted[cut : len(sorted)-cut] {
		sum += v
	}
	return sum / float64(len(sorted)-2*cut)
}

// beginsWithin is by how much it is known when one note gives way to the next, in seconds;
// beginsInRing is it where the room rings (own lessons).
const (
	beginsWithin = 0.02
	beginsInRing = 0.035
)

// scatters is how many of its errors a change of pace must be to be one.
const scatters = 1.5
