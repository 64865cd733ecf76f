package measure

import (
	"earlychorus/core/meter"
)

func blows(c Case, of func(meter.Blow) Reading) (out []Reading) {
	for n, b := range c.Blows {
		m := of(b)
		if !b.Heard {
			m.Absent, m.Excess = true, hopeless
		}
		m.Count = n + 1 // which blow
		out = append(out, m)
	}
	return out
}
