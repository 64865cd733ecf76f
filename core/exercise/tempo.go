package exercise

import (
	"math"

	"earlychorus/core/fmt"
	"earlychorus/core/music"
)

const tempoKey = "tempo_bpm"

// Tempi is between which tempi a player may take a step.
type Tempi struct {
	From music.Tempo `json:"from_bpm"`
	To   music.Tempo `json:"to_bpm"`
	Own  music.Tempo `json:"own_bpm" doc:"the step's"`
}

// Tempi returns between which tempi a player may take the step, when the
// director lets them go so many per cent slower or faster; free is false where
// there is no choice. Slower than one breath allows is not offered.
func (s Step) Tempi(give int) (t Tempi, free bool) {
	own, ok := s.Values[tempoKey].(float64)
	if !ok || give <= 0 {
		return Tempi{}, false
	}
	if s.longest == 0 {
		s.longest = s.longestBreath()
	}
	share := float64(give) / 100
	t = Tempi{
		From: music.Tempo(math.Ceil(own * (1 - share))),
		To:   music.Tempo(math.Floor(own * (1 + share))),
		Own:  music.Tempo(own),
	}
	// A breath lasts as much longer as the tempo is slower.
	t.From = max(t.From, music.SlowestTempo, music.Tempo(math.Ceil(own*float64(s.longest/s.mostBreath()))))
	t.To = min(t.To, music.FastestTempo)
	if s.Kind.Check != nil && !s.allows(t.From) {
		t.From = t.Own // the kind has its own reason against slower
	}
	t.From, t.To = min(t.From, t.Own), max(t.To, t.Own)
	return t, t.From < t.To
}

func (s Step) allows(bpm music.Tempo) bool {
	_, err := s.With(map[string]any{tempoKey: float64(bpm)})
	return err == nil
}

// AtTempo returns the step at a tempo the director allows; 0 leaves it as it is.
// Errors: ParameterError.
func (s Step) AtTempo(bpm music.Tempo, give int) (Step, error) {
	if bpm == 0 || bpm == s.ownTempo() {
		return s, nil
	}
	t, free := s.Tempi(give)
	if !free || bpm < t.From || bpm > t.To {
		return s, ParameterError{
			"tempo",
			fmt.Sprintf("choose a tempo your director allows: %s", t.say(free, s.ownTempo())),
		}
	}
	return s.With(map[string]any{tempoKey: float64(bpm)})
}

func (s Step) ownTempo() music.Tempo {
	own, _ := s.Values[tempoKey].(float64)
	return music.Tempo(own)
}

func (t Tempi) say(free bool, own music.Tempo) string {
	if !free {
		return fmt.Sprintf("only %.0f", own)
	}
	return fmt.Sprintf("%.0f to %.0f", t.From, t.To)
}
