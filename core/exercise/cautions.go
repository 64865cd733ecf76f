package exercise

import (
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// Caution is shown where it belongs. Each defers to the school's rules, a
// doctor or a licensed technician. The advice is common practice, no published
// source.
type Caution struct {
	Key  string
	Text string
	// On says where it is shown.
	On func(k *Kind, i instrument.Instrument, s scores.Stage) bool
}

func inGroup(groups ...scores.Chapter) func(*Kind, instrument.Instrument, scores.Stage) bool {
	return func(k *Kind, _ instrument.Instrument, _ scores.Stage) bool {
		for _, g := range groups {
			if k.Group == g {
				return true
			}
		}
		return false
	}
}

// Cautions lists them all.
func Cautions() []Caution {
	return []Caution{
		{
			"dizzy",
			"Light-headed, tingling or dizzy? Stop, sit down and breathe normally. If you have asthma or have been " +
				"ill, do as your doctor says.",
			inGroup(scores.Breathing, scores.LongTones, scores.Buzzing),
		},
		{
			"lips",
			"Lips hurt or feel numb? Stop, and rest as long as you played.",
			func(k *Kind, i instrument.Instrument, s scores.Stage) bool {
				return i.Family == instrument.Brass &&
					(k.Group == scores.Buzzing || k.Group == scores.LongTones || k.Group == scores.Registers) ||
					i.Family != instrument.Brass && k.Group == scores.LongTones
			},
		},
		{
			"jaw",
			"Jaw or mouth sore? Stop for today, and tell your director.",
			func(k *Kind, i instrument.Instrument, _ scores.Stage) bool {
				return k.Group == scores.Registers && i.Family != instrument.Brass
			},
		},
		{
			"break",
			"Five minutes a day are enough for this. Stop when you are tired: it takes weeks.",
			func(k *Kind, i instrument.Instrument, _ scores.Stage) bool {
				return i.Family == instrument.Clarinets && (k.Key == "register-pair" || k.Key == "ladder")
			},
		},
		{
			"balloon",
			"A balloon or breath toy is for one person only. Not with a latex allergy; small children can choke on " +
				"parts of it.",
			func(k *Kind, _ instrument.Instrument, _ scores.Stage) bool { return k.Key == "air-off" },
		},
		{
			"meter",
			"Use your own mouthpiece on the meter, cleaned as its maker says. It is not a medical device.",
			func(k *Kind, _ instrument.Instrument, _ scores.Stage) bool { return k.Key == "air-meter" },
		},
		{
			"loud",
			"Very loud notes in a small room tire the ears: keep away from others' ears, and once or twice a day is " +
				"enough.",
			func(k *Kind, _ instrument.Instrument, _ scores.Stage) bool { return k.Key == "swell" },
		},
		{
			"care",
			"Warm, not hot, water. Never force a brush round a bend or a part that is stuck: take it to your " +
				"director, who takes it to a technician.",
			func(k *Kind, _ instrument.Instrument, _ scores.Stage) bool { return k.Key == "care" },
		},
		{
			"handling",
			"Two hands for the bell and the crook; hold by the braces; slide lock on when you put it down.",
			func(k *Kind, i instrument.Instrument, _ scores.Stage) bool {
				return k.Key == "set-up" || k.Key == "care"
			},
		},
	}
}

func cautionsFor(k *Kind, i instrument.Instrument, s scores.Stage) []string {
	out := []string{}
	for _, c := range Cautions() {
		if c.On(k, i, s) {
			out = append(out, c.Text)
		}
	}
	return out
}
