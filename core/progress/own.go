package progress

import (
	"cmp"
	"slices"

	"earlychorus/core/music"
)

// OwnNote is a note of a player's own, as it comes out lately.
type OwnNote struct {
	Sounding music.MIDI `json:"sounding_midi"`
	Takes    int        `json:"takes"`
	Good     int        `json:"good"`
	Comes    bool       `json:"comes" doc:"it comes out as a rule: most of the latest takes of it"`
}

const (
	latestOfNote = 5 // takes of a note that say how it comes out now
	mostOfLatest = 3 // of them that have to be good (common practice, no published source)
)

// OwnNotes says how each note of a player comes out, from low to high. played are the
// player's notes, oldest first. A note that was hard in the autumn and comes now is told as
// it is now.
func OwnNotes(played []Played) []OwnNote {
	byNote := map[music.MIDI][]bool{}
	for _, p := range played {
		byNote[p.Sounding] = append(byNote[p.Sounding], p.Good)
	}
	out := []OwnNote{}
	for m, goods := range byNote {
		n := OwnNote{Sounding: m, Takes: len(goods), Good: count(goods)}
		n.Comes = count(goods[max(0, len(goods)-latestOfNote):]) >= min(mostOfLatest, len(goods))
		out = append(out, n)
	}
	slices.SortFunc(out, func(a, b OwnNote) int { return cmp.Compare(a.Sounding, b.Sounding) })
	return out
}

// Played is one note of one take.
type Played struct {
	Sounding music.MIDI
	Good     bool
}

func count(goods []bool) (n int) {
	for _, good := range goods {
		if good {
			n++
		}
	}
	return n
}
