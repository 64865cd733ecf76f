package demo

import (
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// mistakes are what some of the class do wrong in patterns, rhythms and registers,
// besides the habit of their long tones: what a first-year class really does. Keys of
// synth.Mistakes, the first that a step has room for.
var mistakes = map[string][]string{
	"Maro":    {"stays", "half-step-high"},
	"Brisa":   {"comes-low", "left-out"},
	"Teo":     {"left-out", "not-tongued"},
	"Juno":    {"stays", "half-step-low"},
	"Tilda":   {"comes-low", "starts-late"},
	"Saffi":   {"not-tongued", "missing"},
	"Corin":   {"half-step-low"},
	"Odette":  {"comes-late", "too-slow"},
	"Rufus":   {"flies-up", "half-step-low"},
	"Nella":   {"stays", "too-fast"},
	"Orla":    {"comes-low", "half-step-high"},
	"Mabel":   {"flies-up", "rushes"},
	"Caspian": {"left-out", "too-slow"},
	"Hal":     {"stays", "half-step-low"},
	"Ines":    {"not-tongued", "left-out"},
	"Fergus":  {"too-fast", "rushes"},
	"Bram":    {"stays", "flies-up", "half-step-low"},
	"Sunniva": {"comes-low", "half-step-low"},
	"Otis":    {"half-step-high", "stays"},
	"Edda":    {"tongues-slurs", "rushes"},
	"Barnaby": {"comes-low", "not-tongued"},
	"Pim":     {"plays-instead", "no-air-line", "left-out"},
}

// playing is how a person plays a take of the demo's days: with the habit, and in
// other steps than the long tone with a mistake, until by the last day every second
// one has mended it.
func (t take) playing(s scores.Score, i instrument.Instrument, kind string) synth.Playing {
	player := t.player(i, synth.FirstNote(s, i), kind)
	mended := t.day == days-1 && t.person%2 == 0
	if kind == exercise.KindLongToneCounted || mended {
		return synth.Playing{Score: s, Player: player}
	}
	for _, key := range mistakes[people[t.person].first] {
		m, known := synth.MistakeOf(key)
		if at := m.At; known && len(at(s, i)) > 0 {
			// One fault at a time is enough to hear.
			player.Gaps, player.Cracks, player.Shift = nil, nil, 0
			where := at(s, i)
			return m.Apply(player, s, where[len(where)/2])
		}
	}
	return synth.Playing{Score: s, Player: player}
}
