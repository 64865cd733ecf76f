package music

import "slices"

// Calls says how notes that stand on one page together are called there: a note by its
// name alone, and where its name is on the page in two octaves or three, as low, middle
// and high. From four octaves on, each is called with its octave.
func (n Naming) Calls(page []Spelling) map[Spelling]string {
	octaves := map[string][]int{}
	for _, s := range page {
		name := n.Name(s)
		if !slices.Contains(octaves[name], s.Octave) {
			octaves[name] = append(octaves[name], s.Octave)
		}
	}
	out := map[Spelling]string{}
	for _, s := range page {
		name := n.Name(s)
		here := octaves[name]
		slices.Sort(here)
		out[s] = n.called(s, here)
	}
	return out
}

// called names a note among the octaves, from the lowest, in which its name is on the page.
func (n Naming) called(s Spelling, octaves []int) string {
	if len(octaves) > 3 {
		return n.WithOctave(s)
	}
	place := map[int][]string{1: {""}, 2: {"low ", "high "}, 3: {"low ", "middle ", "high "}}[len(octaves)]
	return place[slices.Index(octaves, s.Octave)] + n.Name(s)
}
