package measure

import (
	"cmp"

	"earlychorus/core/ear"
)

// swellOf returns a swell's notes, and why its contrast cannot be relied on; ok is false when
// one did not sound, which is then told by other measures.
func swellOf(c Case) (notes []ear.Note, doubt contrastDoubt, ok bool) {
	if len(c.Analysis.Notes) != stretches {
		return nil, contrastDoubt{}, false
	}
	for n, note := range c.Analysis.Notes {
		if !note.Played {
			return nil, contrastDoubt{}, false
		}
		doubt.add(note, n == stretches/2)
	}
	return c.Analysis.Notes, doubt, true
}

// contrastDoubt is why the loudness of soft and of loud notes cannot be relied on; "" where it can.
type contrastDoubt struct{ soft, loud ear.Doubt }

func (d *contrastDoubt) add(n ear.Note, loud bool) {
	if loud {
		d.loud = cmp.Or(d.loud, n.Distrust.Level)
		return
	}
	d.soft = cmp.Or(d.soft, n.Distrust.Level)
}

// of is why a contrast that was heard cannot be relied on. Another player beside the soft notes
// makes them no softer: what is heard for all that is there.
func (d contrastDoubt) of(m Reading) ear.Doubt {
	if d.loud == "" && d.soft == ear.WithAnother && m.Excess <= 1 {
		return ""
	}
	return cmp.Or(d.loud, d.soft)
}

// stretches are a swell's five: very soft, growing, very loud, fading, very soft.
const stretches = 5
