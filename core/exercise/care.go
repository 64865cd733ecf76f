package exercise

import (
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Care: what the instrument needs today, this week, this month; ticked.
var care = Kind{
	Key:    "care",
	Name:   "Care",
	Group:  scores.Caring,
	Ticked: true,
	Why:    "An instrument that is looked after answers.",
	Parts: []Param{
		choice(
			"when",
			"How often",
			"daily",
			Option{"daily", "after playing"},
			Option{"weekly", "every week"},
			Option{"monthly", "every month"},
			Option{"termly", "every term"},
		),
	},
	Says: func(v Values) string {
		return map[string]string{
			"daily": "after playing", "weekly": "this week's", "monthly": "this month's",
			"termly": "this term's",
		}[v.choice("when")]
	},
	Lay: func(w *writer, v Values) {
		for _, item := range careItems(w.i, v.choice("when")) {
			w.tick(item.picture, item.text, scores.Ready, 8)
		}
		w.judge(measure.TickedItems, 0)
	},
}

type careItem struct {
	picture scores.Picture
	text    string
}

// careItems lists what an instrument needs: daily, weekly, monthly or termly
// (common practice, no published source).
func careItems(i instrument.Instrument, when string) []careItem {
	brass := i.Family == instrument.Brass
	slide := i.Key == "trombone"
	single := i.Family == instrument.Clarinets || i.Family == instrument.Saxophones
	double := i.Family == instrument.DoubleReeds
	rotors := i.Key == "horn"
	recorder := i.Family == instrument.Recorders
	var out []careItem
	add := func(on bool, picture scores.Picture, text string) {
		if on {
			out = append(out, careItem{picture, text})
		}
	}
	switch when {
	case "daily":
		add(true, scores.PictureDry, "Wipe it dry, inside and out, before it goes in its case")
		add(single, scores.PictureReed, "Take the reed off and let it dry flat")
		add(double, scores.PictureReed, "Blow the reed dry and put it in a case that lets air in")
		add(brass, scores.PictureWater, "Empty the water from every key")
		add(slide, scores.PictureDry, "Wipe the inner slide; lock it")
	case "weekly":
		add(brass, scores.PictureBrush, "Brush the mouthpiece in warm water")
		add(single, scores.PictureWater, "Rinse the mouthpiece in lukewarm water, no brush on its tip")
		add(brass && !slide && !rotors, scores.PictureOil, "A few drops of oil on each valve")
		add(rotors, scores.PictureOil, "A drop of rotor oil under each cap, and one where each lever turns")
		add(slide, scores.PictureOil, "Wipe the inner slide, cream or oil on its ends, then a spray of water")
		add(slide, scores.PictureLook, "Hold it up and let the slide fall slowly to your hand: does it run?")
		add(!brass && !recorder, scores.PictureLook, "Look over the pads for anything sticky or torn")
		add(recorder, scores.PictureLook, "Look over the edge in the window: nothing in it, and nothing touches it")
	case "monthly":
		add(slide, scores.PictureBrush, "Brush the inside of the slide and clean it")
		add(brass, scores.PictureBrush, "Brush the tubes you can reach; never force the brush round a bend")
		add(single || double, scores.PictureOil, "Grease the corks a little")
		add(
			i.Family == instrument.Flutes || i.Family == instrument.Recorders,
			scores.PictureDry,
			"Wipe the joints clean",
		)
	default:
		add(brass, scores.PictureOil, "Wipe the tuning slides, grease them and move each one")
		add(true, scores.PictureAsk, "Ask your director whether it needs a technician")
	}
	return out
}
