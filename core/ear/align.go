package ear

import (
	"math"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Costs of laying plateaus against targets, in beats of lateness: what a wrong
// pitch, a skipped target or a sound that belongs to none is worth.
const (
	slackBeats     = 0.25 // outside its beats a note may lie without being blamed
	costPerHalf    = 0.5  // a semitone off
	mostOfPitch    = 2.
	costOfSkipping = 0.9
	costOfStray    = 2.4
	costOfTongue   = 0.6 // one target tongued twice
)

// alignment finds, for each plateau, the target it belongs to (-1: none), so
// that order is kept and the whole costs least: a dynamic programme over
// plateaus, whose state is the last target used.
func alignment(plateaus []plateau, s scores.Score, start music.Seconds) []int {
	targets := s.Targets()
	if len(targets) == 0 || len(plateaus) == 0 {
		return make([]int, len(plateaus))
	}
	count := len(targets)
	cost := make([]float64, count+1) // state k: target k-1 used last; 0: none yet
	for k := 1; k <= count; k++ {
		cost[k] = math.Inf(1)
	}
	from := make([][]int, len(plateaus)) // from[p][k]: state before plateau p
	used := make([][]bool, len(plateaus))
	for n, p := range plateaus {
		next := make([]float64, count+1)
		from[n], used[n] = make([]int, count+1), make([]bool, count+1)
		weight := math.Min(1, float64(p.length()/longEnough))
		for k := range next {
			next[k], from[n][k] = cost[k]+weight*costOfStray, k // a stray
			if k == 0 {
				continue
			}
			own := weight*pitchCost(p, targets[k-1], s) + timeCost(p, targets[k-1], s, start)
			for before := 0; before <= k; before++ {
				c := cost[before] + own + costOfSkipping*float64(max(0, k-before-1))
				if before == k && p.starts == ByTongue {
					c += costOfTongue
				}
				if c < next[k] {
					next[k], from[n][k], used[n][k] = c, before, true
				}
			}
		}
		cost = next
	}
	best := 0
	for k := range cost {
		if cost[k]+costOfSkipping*float64(count-k) < cost[best]+costOfSkipping*float64(count-best) {
			best = k
		}
	}
	owners := make([]int, len(plateaus))
	for n := len(plateaus) - 1; n >= 0; n-- {
		owners[n] = -1
		if used[n][best] {
			owners[n] = best - 1
		}
		best = from[n][best]
	}
	return owners
}

func pitchCost(p plateau, t scores.Segment, s scores.Score) float64 {
	off := float64(p.pitch - music.Between(standardPitch, t.Target.Frequency(s.A4Hz)))
	if t.GlideTo != 0 {
		to := float64(p.pitch - music.Between(standardPitch, t.GlideTo.Frequency(s.A4Hz)))
		if off*to < 0 {
			return 0 // on the way
		}
		off = math.Min(math.Abs(off), math.Abs(to))
	}
	if t.Phase == scores.Sing {
		off = folded(off)
	}
	return math.Min(mostOfPitch, costPerHalf*math.Max(0, math.Abs(off)-float64(samePitch))/100)
}

// folded brings a distance into half an octave either way.
func folded(cents float64) float64 { return cents - 1200*math.Round(cents/1200) }

func timeCost(p plateau, t scores.Segment, s scores.Score, start music.Seconds) float64 {
	begin := start + s.TempoBPM.Seconds(t.StartBeat)
	end := begin + s.TempoBPM.Seconds(t.Beats)
	middle := (p.Onset + p.Release) / 2
	outside := max(0, begin-middle, middle-end)
	return math.Max(0, float64(s.TempoBPM.Beats(outside))-slackBeats)
}
