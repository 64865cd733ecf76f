package exercise

import (
	"slices"

	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// Caution is shown where it belongs. Each defers to the school's rules, a
// doctor or a licensed technician. The advice is common practice, no published
// source.
type Caution struct {
	Key  string
	Text string
	// On says at which steps of which instruments it is shown.
	On func(s Step, i instrument.Instrument) bool
}

func inGroup(groups ...scores.Chapter) func(Step, instrument.Instrument) bool {
	return func(s Step, _ instrument.Instrument) bool { return slices.Contains(groups, s.Kind.Group) }
}

// handled reports whether a step takes the instrument in hand, out of or into its case.
func handled(s Step) bool {
	return s.Kind.Key == "set-up" || s.Kind.Key == KindCare || s.Kind.Key == "assembly"
}

// buzzes reports whether a step asks brass players to buzz.
func buzzes(s Step) bool { return s.Kind.Group == scores.Buzzing || s.Kind.Key == "excerpt" }

// Cautions lists them all.
func Cautions() []Caution {
	return []Caution{
		{
			"dizzy",
			"Dizzy or tingly? Stop, sit down and breathe normally. Asthma, or just been ill? Do as your doctor says.",
			inGroup(scores.Breathing, scores.LongTones, scores.Buzzing),
		},
		{
			"lips",
			"Lips hurt or feel numb? Stop, and rest as long as you played.",
			func(s Step, i instrument.Instrument) bool {
				return i.Family == instrument.Brass &&
					(buzzes(s) || s.Kind.Group == scores.LongTones || s.Kind.Group == scores.Registers) ||
					i.Family != instrument.Brass && s.Kind.Group == scores.LongTones
			},
		},
		{
			"jaw",
			"Jaw or mouth sore? Stop for today, and tell your director.",
			func(s Step, i instrument.Instrument) bool {
				return s.Kind.Group == scores.Registers && i.Family != instrument.Brass
			},
		},
		{
			"break",
			"Five minutes a day are enough. Stop when you are tired. It takes weeks.",
			func(s Step, i instrument.Instrument) bool {
				return i.Family == instrument.Clarinets && (s.Kind.Key == "register-pair" || s.Kind.Key == "ladder")
			},
		},
		{
			"balloon",
			"A balloon is for one person only. Not with a latex allergy. Small children can choke on parts of it.",
			func(s Step, _ instrument.Instrument) bool {
				return s.Kind.Key == "air-off" && s.Values.choice("with") == "balloon"
			},
		},
		{
			"toy",
			"A breath toy is for one person only.",
			func(s Step, _ instrument.Instrument) bool {
				return s.Kind.Key == "air-off" && s.Values.choice("with") == "pinwheel"
			},
		},
		{
			"meter",
			"Use your own clean mouthpiece on the meter. It is not a medical device.",
			func(s Step, _ instrument.Instrument) bool { return s.Kind.Key == "air-meter" },
		},
		{
			"loud",
			"Very loud notes tire the ears. Keep away from others' ears. Once or twice a day is enough.",
			func(s Step, _ instrument.Instrument) bool { return s.Kind.Key == "swell" },
		},
		{
			"care",
			"Warm water, not hot. Never force a brush round a bend. Is a part stuck? Take it to your director, " +
				"who takes it to a technician.",
			func(s Step, _ instrument.Instrument) bool { return s.Kind.Key == "care" },
		},
		{
			"handling-slide",
			"Slide lock on whenever it is not in your hands to play. Hold it by its braces.",
			func(s Step, i instrument.Instrument) bool { return handled(s) && i.Key == "trombone" },
		},
		{
			"handling-brace",
			"Hold it by its body and its braces. Never hold a slide or a valve.",
			func(s Step, i instrument.Instrument) bool {
				return handled(s) && i.Family == instrument.Brass && i.Key != "trombone"
			},
		},
		{
			"handling-crook",
			"Two hands for the bell and the crook: both bend easily.",
			func(s Step, i instrument.Instrument) bool {
				return handled(s) &&
					(i.Family == instrument.Saxophones || i.Key == "bassoon" || i.Key == "english-horn" ||
						i.Key == "bass-clarinet" || i.Key == "alto-clarinet")
			},
		},
		{
			"handling-keys",
			"Hold it where there are no keys, and never force a joint.",
			func(s Step, i instrument.Instrument) bool {
				return handled(s) && i.Family != instrument.Brass && i.Family != instrument.Recorders
			},
		},
		{
			"hygiene",
			"Your own mouthpiece and your own reeds: they are not shared.",
			func(s Step, i instrument.Instrument) bool {
				return s.Kind.Key == "assembly" && i.Family != instrument.Flutes && i.Family != instrument.Recorders
			},
		},
	}
}

func cautionsFor(s Step, i instrument.Instrument) []string {
	out := []string{}
	for _, c := range Cautions() {
		if c.On(s, i) {
			out = append(out, c.Text)
		}
	}
	return out
}
