package measure

import "earlychorus/core/ear"

// slides measures sliding notes, which have no single right note.
func slides(c Case, of func(ear.Slide) Reading) (out []Reading) {
	for n, note := range c.Analysis.Notes {
		if note.Played && note.Slide != nil {
			m := of(*note.Slide)
			m.Note = n
			out = append(out, m)
		}
	}
	return out
}
