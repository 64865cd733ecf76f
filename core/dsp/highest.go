package dsp

// Highest returns, for every place in x, the greatest of x from it on over so many values;
// fewer towards the end. over is at least 1; x holds no NaN. It costs the same however
// many are looked at: those that a later, greater one hides are never looked at again.
func Highest[V ~float64](x []V, over int) []V {
	out := make([]V, len(x))
	seen := make([]int, 0, len(x)) // places not hidden by what came after, the nearest last
	first := 0                     // of them, the farthest within reach is at the front
	for n := len(x) - 1; n >= 0; n-- {
		for len(seen) > first && x[seen[len(seen)-1]] <= x[n] {
			seen = seen[:len(seen)-1]
		}
		seen = append(seen, n)
		for seen[first] >= n+over {
			first++
		}
		out[n] = x[seen[first]]
	}
	return out
}
