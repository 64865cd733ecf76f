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

// Tally is what one player's takes of one note come to.
type Tally struct {
	Player     string
	Sounding   music.MIDI
	Takes      int
	Good       int
	Centres    []float64 // in cents, of the takes whose pitch can be trusted
	Steadiness []float64 // in cents, of the same takes
}

// NoteMap counts notes across a section's players, from low to high.
func NoteMap(tallies []Tally) []MapNote {
	byNote := map[music.MIDI][]Tally{}
	for _, t := range tallies {
		byNote[t.Sounding] = append(byNote[t.Sounding], t)
	}
	out := []MapNote{}
	for m, list := range byNote {
		out = append(out, mapNote(m, list))
	}
	slices.SortFunc(out, func(a, b MapNote) int { return cmp.Compare(a.Sounding, b.Sounding) })
	markWall(out)
	return out
}

// mapNote joins a note's tallies, one of each player.
func mapNote(m music.MIDI, list []Tally) MapNote {
	out := MapNote{Sounding: m, Players: len(list)}
	var centres, steady []float64
	for _, t := range list {
		out.Takes += t.Takes
		out.Good += t.Good
		if len(t.Centres) > 0 {
			centres, steady = append(centres, dsp.Median(t.Centres)), append(steady, dsp.Median(t.Steadiness))
		}
	}
	out.Centre, out.Steadiness = spreadOf(centres), spreadOf(steady)
	return out
}

func spreadOf(each []float64) Spread {
	if len(each) == 0 {
		return Spread{}
	}
	return Spread{
		Low:    dsp.Quantile(each, 0.25),
		Middle: dsp.Median(each),
		High:   dsp.Quantile(each, 0.75),
		Of:     len(each),
	}
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
