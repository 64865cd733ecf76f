package exercise

import (
	"sync"

	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Care: what the instrument needs today, this week, this month, this term; ticked, and due
// again when its time is over.
var care = Kind{
	Key:       KindCare,
	Name:      "Care",
	Group:     scores.Caring,
	Ticked:    true,
	Unpitched: true,
	Suits:     func(i instrument.Instrument) bool { return i.Family != instrument.NoneYet },
	Why:       "Look after it, and it plays well.",
	Parts:     []Param{choice(careKey, "How often", string(Daily), careOptions()...)},
	Says:      func(v Values) string { return careNames[Every(v.choice(careKey))] },
	Lay: func(w *writer, v Values) {
		for _, item := range careItems(w.i, Every(v.choice(careKey))) {
			w.tick(item.picture, item.text, scores.Ready, 8)
		}
		w.judge(measure.TickedItems, 0)
	},
}

const careKey = "when"

// Every is how often an instrument needs something.
type Every string

const (
	Daily   Every = "daily"
	Weekly  Every = "weekly"
	Monthly Every = "monthly"
	Termly  Every = "termly"
)

// Everies lists them, the most frequent first.
func Everies() []Every { return []Every{Daily, Weekly, Monthly, Termly} }

var careNames = map[Every]string{
	Daily:   "after playing",
	Weekly:  "every week",
	Monthly: "every month",
	Termly:  "every term",
}

// Name says how often, to a player: "every week".
func (e Every) Name() string { return careNames[e] }

// days between one time and the next (common practice, no published source; a term is
// taken as fifteen weeks).
var careDays = map[Every]int{
	Daily:   1,
	Weekly:  7,
	Monthly: 30,
	Termly:  105,
}

// Days returns how many days after it was done care is due again.
func (e Every) Days() int { return careDays[e] }

func careOptions() (out []Option) {
	for _, e := range Everies() {
		out = append(out, Option{string(e), careNames[e]})
	}
	return out
}

// CareStep is the care of an instrument as a step of its own. They are made once: every
// practice page asks for them.
func CareStep(e Every) Step { return careSteps()[e] }

var careSteps = sync.OnceValue(func() map[Every]Step {
	out := map[Every]Step{}
	for _, e := range Everies() {
		out[e] = New(KindCare, map[string]any{careKey: string(e)})
	}
	return out
})

// CareEvery returns how often a care step's care is needed; ok is false for other steps.
func (s Step) CareEvery() (e Every, ok bool) {
	if s.Kind.Key != KindCare {
		return "", false
	}
	return Every(s.Values.choice(careKey)), true
}

// careItems lists what an instrument needs in the order it is done: wipe, cream or oil,
// water, and a look whether all runs (common practice, no published source).
func careItems(i instrument.Instrument, when Every) []part {
	c := carer{i: i}
	if !i.IsPitched() {
		c.percussion(when)
		return c.items
	}
	switch when {
	case Daily:
		c.daily()
	case Weekly:
		c.weekly()
	case Monthly:
		c.monthly()
	default:
		c.termly()
	}
	return c.items
}

// carer gathers what one instrument needs.
type carer struct {
	i     instrument.Instrument
	items []part
}

func (c *carer) add(on bool, picture scores.Picture, text string, args ...any) {
	if on {
		c.items = append(c.items, part{picture, fmt.Sprintf(text, args...)})
	}
}

func (c *carer) brass() bool    { return c.i.Family == instrument.Brass }
func (c *carer) slide() bool    { return c.i.Key == "trombone" }
func (c *carer) rotors() bool   { return c.i.Key == "horn" }
func (c *carer) recorder() bool { return c.i.Family == instrument.Recorders }
func (c *carer) double() bool   { return c.i.Family == instrument.DoubleReeds }
func (c *carer) single() bool {
	return c.i.Family == instrument.Clarinets || c.i.Family == instrument.Saxophones
}

// percussion: sticks, pad and shared instruments.
func (c *carer) percussion(when Every) {
	switch when {
	case Daily:
		c.add(true, scores.PictureCase, "Sticks and mallets back in their bag, covers on what has one")
	case Weekly:
		c.add(true, scores.PictureLook, "Look over your sticks for splinters: a splintered stick is not played")
	case Monthly:
		c.add(true, scores.PictureDry, "Dust the bars and heads with a dry cloth")
	default:
		c.add(true, scores.PictureAsk, "Ask your director to look at heads and screws: they are not yours to turn")
	}
}

func (c *carer) daily() {
	c.add(c.single(), scores.PictureReed, "Take the reed off and let it dry flat")
	c.add(c.double(), scores.PictureReed, "Blow the reed dry and put it in a case that lets air in")
	c.add(c.brass(), scores.PictureWater, "Let the water out of each key")
	c.add(c.slide(), scores.PictureDry, "Wipe the inner slide; lock it")
	c.add(true, scores.PictureDry, "Wipe it dry, inside and out, before it goes in its case")
}

func (c *carer) weekly() {
	c.add(c.brass(), scores.PictureBrush, "Brush the mouthpiece in warm, not hot, water")
	c.add(c.single(), scores.PictureWater, "Rinse the mouthpiece in lukewarm water, no brush on its tip")
	c.add(c.brass() && !c.slide() && !c.rotors(), scores.PictureOil,
		"One valve at a time: wipe it, a few drops of oil, back in the same way round")
	c.add(c.rotors(), scores.PictureOil, "A drop of rotor oil under each cap, and one where each lever turns")
	c.add(c.slide(), scores.PictureDry, "Wipe the old cream or oil off the inner slide")
	c.add(c.slide(), scores.PictureOil, "A little cream or oil on its ends, worked in, then a spray of water")
	c.add(c.slide(), scores.PictureLook, "Hold it up and let the slide fall slowly to your hand: does it run?")
	c.add(!c.brass() && !c.recorder(), scores.PictureLook, "Look over the pads for anything sticky or torn")
	c.add(c.recorder(), scores.PictureLook, "Look over the edge in the window: nothing in it, and nothing touches it")
}

func (c *carer) monthly() {
	c.add(c.slide(), scores.PictureBrush, "Brush the inside of the slide and clean it")
	c.add(c.brass(), scores.PictureBrush, "Brush the tubes you can reach; never force the brush round a bend")
	c.add(c.single() || c.double(), scores.PictureOil, "Grease the corks a little")
	c.add(
		c.i.Family == instrument.Flutes || c.recorder(),
		scores.PictureDry,
		"Wipe the joints clean",
	)
}

func (c *carer) termly() {
	c.add(c.brass(), scores.PictureDry, "Pull each tuning slide, wipe the old grease off")
	c.add(c.brass(), scores.PictureOil, "Grease it thinly, put it back and move it: does it run?")
	c.add(true, scores.PictureAsk, "Ask your director whether it needs a technician")
}
