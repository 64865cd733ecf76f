package progress

import (
	"cmp"
	"slices"

	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// MapNote is one note of an instrument across a section's players.
type MapNote struct {
	Sounding   music.MIDI `json:"sounding_midi"`
	Takes      int        `json:"takes"`
	Good       int        `json:"good"`
	Players    int        `json:"players" doc:"who tried it"`
	Centre     Spread     `json:"centre_cents"`
	Steadiness Spread     `json:"steadiness_cents"`
	Wall       bool       `json:"wall" doc:"the class's next wall: the lowest share that comes out, of the notes tried often enough"`
}

// Spread is a value across players: each counts once, by the median of the own
// takes.
type Spread struct {
	Low    float64 `json:"low" doc:"a quarter of the players lie below"`
	Middle float64 `json:"middle"`
	High   float64 `json:"high" doc:"a quarter lie above"`
	Of     int     `json:"of" doc:"players it is taken from"`
}

// wallBelow is the share that comes out under which a note is a wall (common
// practice, no published source).
const wallBelow = 0.7

// NoteMap counts notes across a section's players, from low to high.
func NoteMap(notes []Note) []MapNote {
	byNote := map[music.MIDI][]Note{}
	for _, n := range notes {
		byNote[n.Sounding] = append(byNote[n.Sounding], n)
	}
	out := []MapNote{}
	for m, list := range byNote {
		out = append(out, mapNote(m, list))
	}
	slices.SortFunc(out, func(a, b MapNote) int { return cmp.Compare(a.Sounding, b.Sounding) })
	markWall(out)
	return out
}

func mapNote(m music.MIDI, list []Note) MapNote {
	out := MapNote{Sounding: m, Takes: len(list)}
	centre, steady := map[string][]float64{}, map[string][]float64{}
	players := map[string]bool{}
	for _, n := range list {
		players[n.Player] = true
		if n.Good {
			out.Good++
		}
		if n.Trusted {
			centre[n.Player] = append(centre[n.Player], float64(n.Centre))
			steady[n.Player] = append(steady[n.Player], float64(n.Steadiness))
		}
	}
	out.Players, out.Centre, out.Steadiness = len(players), spreadOf(centre), spreadOf(steady)
	return out
}

func spreadOf(byPlayer map[string][]float64) Spread {
	var each []float64
	for _, values := range byPlayer {
		each = append(each, dsp.Median(values))
	}
	if len(each) == 0 {
		return Spread{}
	}
	return Spread{Low: dsp.Quantile(each, 0.25), Middle: dsp.Median(each), High: dsp.Quantile(each, 0.75), Of: len(each)}
}

func markWall(notes []MapNote) {
	worst, share := -1, wallBelow
	for n, m := range notes {
		if m.Takes < Fewest {
			continue
		}
		if s := float64(m.Good) / float64(m.Takes); s < share {
			worst, share = n, s
		}
	}
	if worst >= 0 {
		notes[worst].Wall = true
	}
}
