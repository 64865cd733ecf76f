package music

// Beats counts beats from the first click of a score's count-in, or a length
// in beats.
type Beats float64

// Tempo is beats a minute.
type Tempo float64

// SlowestTempo and FastestTempo bound what a step may ask for.
const (
	SlowestTempo Tempo = 40
	FastestTempo Tempo = 160
)

// Seconds returns how long b lasts at t.
func (t Tempo) Seconds(b Beats) Seconds { return Seconds(float64(b) * 60 / float64(t)) }

// Beats returns how many beats fit into s at t.
func (t Tempo) Beats(s Seconds) Beats { return Beats(float64(s) * float64(t) / 60) }
