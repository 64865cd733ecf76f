package verdict

import (
	"fmt"
	"math"

	"earlychorus/core/ear"
	"earlychorus/core/meter"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Measures of air alone are of the whole step: the worst of its rounds speaks.

func worst(all []Measure) []Measure {
	var out Measure
	for n, m := range all {
		if n == 0 || m.Excess > out.Excess {
			out = m
		}
	}
	if len(all) == 0 {
		return nil
	}
	return whole(out)
}

func airs(c Case, of func(a ear.Air) Measure) (out []Measure) {
	for n, a := range c.Analysis.Airs {
		m := of(a)
		if len(c.Analysis.Airs) > 1 {
			m.Text = fmt.Sprintf("round %d: %s", n+1, m.Text)
		}
		out = append(out, m)
	}
	return out
}

func airBursts(c Case, _ scores.Rule) []Measure {
	return worst(airs(c, func(a ear.Air) Measure {
		wanted := max(1, a.Wanted)
		m := Measure{
			Label:  "Bursts",
			Value:  float64(a.Bursts),
			Text:   fmt.Sprintf("%d bursts", a.Bursts),
			Wanted: fmt.Sprintf("%d bursts", wanted),
		}
		if a.Wanted == 0 {
			m.Label, m.Text, m.Wanted = "Stream", "one stream", "one stream without a stop"
			if a.Bursts > 1 {
				m.Text = fmt.Sprintf("stopped %d times", a.Bursts-1)
			}
		}
		off := a.Bursts - wanted
		m.Excess, m.direction = countOf(max(off, -off)), sign(float64(off))
		if !a.Heard {
			m.Text, m.Excess, m.direction = "no air heard", hopeless, -1
		}
		return m
	}))
}

func airEven(c Case, r scores.Rule) []Measure {
	return worst(airs(c, func(a ear.Air) Measure {
		return Measure{
			Label:     "Even bursts",
			Value:     a.Unequal,
			Limit:     r.Limit,
			Text:      fmt.Sprintf("strength spread by %.0f %%", 100*a.Unequal),
			Wanted:    fmt.Sprintf("at most %.0f %%", 100*r.Limit),
			Excess:    max(perfect, a.Unequal/r.Limit),
			direction: 1,
		}
	}))
}

func airLength(c Case, r scores.Rule) []Measure {
	return worst(airs(c, func(a ear.Air) Measure {
		got, want := c.Score.TempoBPM.Beats(a.Length), c.Score.TempoBPM.Beats(a.Asked)
		if a.Wanted > 0 {
			want -= shortOfBeat // a burst need not fill its beat
		}
		off := math.Max(0, math.Abs(float64(got-want))-burstSlack(a))
		return Measure{
			Label:     "Out",
			Value:     float64(got),
			Limit:     r.Limit,
			Text:      fmt.Sprintf("%.1f beats", got),
			Wanted:    fmt.Sprintf("%.0f beats, give or take half a beat", c.Score.TempoBPM.Beats(a.Asked)),
			Excess:    max(perfect, off/r.Limit),
			direction: sign(float64(got - want)),
		}
	}))
}

const shortOfBeat music.Beats = 0.4

func burstSlack(a ear.Air) float64 {
	if a.Wanted > 0 {
		return float64(shortOfBeat)
	}
	return 0
}

func meterDelay(c Case, r scores.Rule) []Measure {
	return worst(blows(c, func(b meter.Blow) Measure {
		return Measure{
			Label:     "Ball up",
			Value:     float64(b.Delay),
			Limit:     r.Limit,
			Text:      "up in " + milliseconds(b.Delay),
			Wanted:    "within " + milliseconds(music.Seconds(r.Limit)),
			Excess:    max(perfect, float64(b.Delay)/r.Limit),
			direction: 1,
		}
	}))
}

func meterSteady(c Case, r scores.Rule) []Measure {
	return worst(blows(c, func(b meter.Blow) Measure {
		return Measure{
			Label:     "Ball still",
			Value:     b.Unsteady,
			Limit:     r.Limit,
			Text:      fmt.Sprintf("dances by %.0f %%", 100*b.Unsteady),
			Wanted:    fmt.Sprintf("at most %.0f %%", 100*r.Limit),
			Excess:    max(perfect, b.Unsteady/r.Limit),
			direction: 1,
		}
	}))
}

func blows(c Case, of func(meter.Blow) Measure) (out []Measure) {
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

// ticked counts the items of a step that are not done.
func ticked(c Case, _ scores.Rule) []Measure {
	missing, first := 0, ""
	for n, item := range c.Score.Items {
		if n >= len(c.Ticked) || !c.Ticked[n] {
			if missing == 0 {
				first = item
			}
			missing++
		}
	}
	m := Measure{
		Label:  "Done",
		Value:  float64(missing),
		Text:   fmt.Sprintf("%d of %d done", len(c.Score.Items)-missing, len(c.Score.Items)),
		Wanted: "all of them",
		Excess: countOf(missing),
	}
	if missing > 0 {
		m.Text += ", not yet: " + first
	}
	return whole(m)
}
