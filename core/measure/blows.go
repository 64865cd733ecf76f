package measure

import (
	"fmt"

	"earlychorus/core/meter"
)

func blows(c Case, of func(meter.Blow) Reading) (out []Reading) {
	for n, b := range c.Blows {
		m := of(b)
		if !b.Heard {
			m.Text, m.Excess = "no air in the meter", hopeless
		}
		m.Text = fmt.Sprintf("blow %d: %s", n+1, m.Text)
		out = append(out, m)
	}
	return out
}
