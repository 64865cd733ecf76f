package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// oneBreath is the longest stretch of sound between two breaths that is asked
// of young players (common practice, no published source).
const oneBreath music.Seconds = 16

// longestBreath returns the step's longest breath on any instrument it is for.
func (s Step) longestBreath() (longest music.Seconds) {
	for _, i := range instrument.All() {
		p := Player{Instrument: i, Stage: 4}
		if !s.AsksOf(p) {
			continue
		}
		w := newWriter(s, p, StandardConventions())
		w.unseen = true
		s.lay(w)
		longest = max(longest, w.s.LongestBreath())
	}
	return longest
}

// mostBreath is the longest breath that the step's kind may ask for.
func (s Step) mostBreath() music.Seconds {
	if s.Kind.Breath > 0 {
		return s.Kind.Breath
	}
	return oneBreath
}

// checkBreath refuses a step that asks for more than one breath holds.
func (s Step) checkBreath() error {
	if s.longest > s.mostBreath()+0.001 {
		return ParameterError{
			s.breathField(),
			fmt.Sprintf(
				"one breath would last %.0f s; keep it within %.0f s: ask for less at a time, or go faster",
				s.longest,
				s.mostBreath(),
			),
		}
	}
	return nil
}

// breathField is the parameter that most likely asks for too much.
func (s Step) breathField() string {
	for _, key := range []string{"beats", "out", "melody", "seconds", "tempo_bpm"} {
		if _, ok := s.Values[key]; ok {
			return key
		}
	}
	return "parameters"
}
