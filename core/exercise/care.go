package exercise

import (
	"earlychorus/core/instrument"
)

// Care: what the instrument needs today, this week, this month; ticked.
var care = Kind{
	Key: "care", Name: "Care", Group: Caring, Ticked: true,
	Why:   "An instrument that is looked after answers.",
	Parts: []Param{choice("when", "How often", "daily", Option{"daily", "after playing"}, Option{"weekly", "every week"}, Option{"monthly", "every month"}, Option{"termly", "every term"})},
	Says: func(v Values) string {
		return map[string]string{"daily": "after playing", "weekly": "this week's", "monthly": "this month's", "termly": "this term's"}[v.choice("when")]
	},
	Lay: func(w *writer, v Values) {
		w.s.Items = append(w.s.Items, CareItems(w.i, v.choice("when"))...)
		for _, item := range w.s.Items {
			w.add(Segment{Phase: Ready, Beats: 8, Text: item})
		}
		w.judge(TickedItems, 0)
	},
}

// CareItems lists what an instrument needs: daily, weekly, monthly or termly
// (common practice, no published source).
func CareItems(i instrument.Instrument, when string) []string {
	brass := i.Family == instrument.Brass
	slide := i.Key == "trombone"
	reed := i.Family == instrument.Clarinets || i.Family == instrument.Saxophones || i.Family == instrument.DoubleReeds
	var out []string
	add := func(on bool, text string) {
		if on {
			out = append(out, text)
		}
	}
	switch when {
	case "daily":
		add(true, "Wipe it dry, inside and out, before it goes in its case")
		add(reed, "Take the reed off and let it dry flat")
		add(brass, "Empty the water from every key")
		add(slide, "Wipe the slide and wet it again; lock it")
	case "weekly":
		add(brass, "Brush the mouthpiece in warm water")
		add(i.Family == instrument.Clarinets || i.Family == instrument.Saxophones, "Rinse the mouthpiece in lukewarm water, no brush on its tip")
		add(brass && !slide, "A few drops of oil on each valve")
		add(!brass, "Look over the pads for anything sticky or torn")
	case "monthly":
		add(slide, "Brush the inside of the slide and clean it")
		add(brass, "Brush the tubes you can reach; never force the brush round a bend")
		add(reed, "Grease the corks a little")
		add(i.Family == instrument.Flutes || i.Family == instrument.Recorders, "Wipe the joints clean")
	default:
		add(brass, "Wipe the tuning slides, grease them and move each one")
		add(true, "Ask your director whether it needs a technician")
	}
	return out
}
