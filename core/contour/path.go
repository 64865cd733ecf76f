package contour

import "math"

// Costs of the path, in nats. A jump's cost is bounded, so that a crack of a
// few frames to another partial is cheaper to follow than to bridge.
const (
	costPerSemitone = 0.4
	costOfJump      = 2.5 // the most a change of pitch costs
	costOfVoicing   = 2.2 // starting or stopping
	leastMass       = 0.002
	// sureness is how fast clarity above the threshold becomes certainty.
	sureness = 14
)

// state is one candidate, or silence, in one frame of the search.
type state struct {
	cost float64
	from int32 // state of the frame before
}

// bestPath chooses one candidate a frame (-1: no pitch) so that the whole
// take is likeliest, by Viterbi's algorithm. The choice is an index into the
// frame's candidates.
func bestPath(heard []frame, threshold float64) []int {
	frames := len(heard)
	table := make([]state, 0, (candidatesAFrame+1)*frames)
	starts := make([]int, frames+1) // the last state of each frame is silence
	for n := range frames {
		starts[n] = len(table)
		table = step(table, starts, heard, n, threshold)
	}
	starts[frames] = len(table)
	path := make([]int, frames)
	at := 0
	for n := frames - 1; n >= 0; n-- {
		row := table[starts[n]:starts[n+1]]
		if n == frames-1 {
			for k := range row {
				if row[k].cost < row[at].cost {
					at = k
				}
			}
		}
		path[n] = at
		if at == len(row)-1 {
			path[n] = -1
		}
		at = int(row[at].from)
	}
	return path
}

// step appends frame n's states.
func step(table []state, starts []int, heard []frame, n int, threshold float64) []state {
	candidates := heard[n].candidates
	var before []candidate
	var last []state
	if n > 0 {
		before, last = heard[n-1].candidates, table[starts[n-1]:starts[n]]
	}
	pitched := certainty(heard[n], threshold)
	for k := range len(candidates) + 1 {
		s := state{cost: stateCost(heard[n], k, pitched)}
		if n > 0 {
			best := math.Inf(1)
			for j := range last {
				if cost := last[j].cost + change(before, j, candidates, k); cost < best {
					best, s.from = cost, int32(j)
				}
			}
			s.cost += best
		}
		table = append(table, s)
	}
	return table
}

// certainty is how sure it is that a frame has a pitch at all.
func certainty(f frame, threshold float64) float64 {
	if len(f.candidates) == 0 {
		return 0
	}
	return 1 / (1 + math.Exp(-sureness*(f.best-threshold)))
}

// stateCost is the cost of a frame's k-th candidate, or of its silence.
func stateCost(f frame, k int, pitched float64) float64 {
	if k < len(f.candidates) {
		return -math.Log(f.candidates[k].mass*pitched + leastMass)
	}
	return -math.Log(1 - pitched + leastMass)
}

// change is the cost of going from state j of one frame to state k of the next.
func change(before []candidate, j int, after []candidate, k int) float64 {
	wasPitched, isPitched := j < len(before), k < len(after)
	switch {
	case !wasPitched && !isPitched:
		return 0
	case wasPitched != isPitched:
		return costOfVoicing
	}
	ratio := float64(after[k].pitch / before[j].pitch)
	if ratio > 0.94 && ratio < 1.06 { // near 1, log₂ x is nearly straight
		return costPerSemitone * math.Abs(ratio-1) * 12 / math.Ln2
	}
	return min(costOfJump, costPerSemitone*12*math.Abs(math.Log2(ratio)))
}
