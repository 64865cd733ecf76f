package contour

import "math"

// Costs of the path, in nats. A jump's cost is bounded, so that a crack of a
// few frames to another partial is cheaper to follow than to bridge.
const (
	costPerSemitone = 0.4
	costOfJump      = 2.5 // the most a change of pitch costs
	costOfVoicing   = 1.8 // starting or stopping
	leastMass       = 0.002
)

// bestPath chooses one candidate a frame (nil: no pitch) so that the whole
// take is likeliest, by Viterbi's algorithm.
func bestPath(lattice [][]candidate) []*candidate {
	type state struct {
		cost float64
		from int // state of the frame before
	}
	table := make([][]state, len(lattice)) // the last state of each row is unvoiced
	for n, candidates := range lattice {
		row := make([]state, len(candidates)+1)
		unvoiced := 1.
		for k, c := range candidates {
			row[k].cost = -math.Log(c.mass + leastMass)
			unvoiced -= c.mass
		}
		row[len(candidates)].cost = -math.Log(max(unvoiced, leastMass))
		if n > 0 {
			before, last := lattice[n-1], table[n-1]
			for k := range row {
				best, from := math.Inf(1), 0
				for j := range last {
					if cost := last[j].cost + change(before, j, candidates, k); cost < best {
						best, from = cost, j
					}
				}
				row[k].cost += best
				row[k].from = from
			}
		}
		table[n] = row
	}
	path := make([]*candidate, len(lattice))
	at := 0
	for n := len(lattice) - 1; n >= 0; n-- {
		if n == len(lattice)-1 {
			for k := range table[n] {
				if table[n][k].cost < table[n][at].cost {
					at = k
				}
			}
		}
		if at < len(lattice[n]) {
			path[n] = &lattice[n][at]
		}
		at = table[n][at].from
	}
	return path
}

// change is the cost of going from state j of one frame to state k of the next.
func change(before []candidate, j int, after []candidate, k int) float64 {
	wasVoiced, isVoiced := j < len(before), k < len(after)
	switch {
	case !wasVoiced && !isVoiced:
		return 0
	case wasVoiced != isVoiced:
		return costOfVoicing
	}
	semitones := 12 * math.Abs(math.Log2(float64(after[k].pitch/before[j].pitch)))
	return min(costOfJump, costPerSemitone*semitones)
}
