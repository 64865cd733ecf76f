package synth

import (
	"slices"

	"earlychorus/core/audio"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// StandIn is a simulated player offered in place of the microphone.
type StandIn struct {
	Key   string `json:"key"`
	Label string `json:"label"`
}

// StandIns lists the simulated players anyone may choose: the usual ones, and one for
// every mistake that beginners make.
func StandIns() []StandIn {
	out := usualStandIns()
	for _, m := range Mistakes() {
		if !slices.ContainsFunc(out, func(s StandIn) bool { return s.Key == m.Key }) {
			out = append(out, StandIn{m.Key, m.Label})
		}
	}
	return out
}

func usualStandIns() []StandIn {
	return []StandIn{
		{"steady", "Steady player"},
		{"wavering", "Wavering player"},
		{"flat", "Flat player"},
		{"gap", "Player whose sound stops once"},
		{"crack", "Player who cracks to the next partial"},
	}
}

// NewStandIn returns the simulated player with the given key; ok is false for
// an unknown one. Different seeds differ as one player's takes do.
func NewStandIn(key string, i instrument.Instrument, target music.MIDI, seed uint64) (p Player, ok bool) {
	p = Player{
		Instrument: i,
		Seed:       seed,
		Offset:     3,
		WaverDepth: 2,
		Late:       0.06,
		Breath:     -42,
		Room:       -72,
	}
	switch key {
	case "steady":
	case "wavering":
		p.WaverDepth = 32
	case "flat":
		p.Offset = -34
	case "gap":
		p.Gaps = []Gap{{At: 1.6, Length: 0.4}}
	case "crack":
		p.Cracks = []Crack{{At: 1.5, Length: 0.25, Semitones: NextPartial(i, target)}}
	default:
		return Player{}, false
	}
	return p, true
}

// Perform returns how the stand-in with the given key plays a score; ok is false for
// an unknown one. A mistake is made once, in the middle of where it can be made; in a
// step where it cannot, the player is steady.
func Perform(key string, s scores.Score, i instrument.Instrument, seed uint64) (p Playing, ok bool) {
	if player, usual := NewStandIn(key, i, FirstNote(s, i), seed); usual {
		return Playing{s, player}, true
	}
	m, known := MistakeOf(key)
	steady, _ := NewStandIn("steady", i, FirstNote(s, i), seed)
	if !known {
		return Playing{}, false
	}
	at := m.At(s, i)
	if len(at) == 0 {
		return Playing{s, steady}, true
	}
	return m.Apply(steady, s, at[len(at)/2]), true
}

// NextPartial returns how many semitones above target the tube's next partial
// lies with the same fingering: where a cracking player lands.
func NextPartial(i instrument.Instrument, target music.MIDI) int {
	for _, p := range i.Partials(target) {
		if p.Note > target+1 {
			return int(p.Note - target)
		}
	}
	return 12
}

// referenceLevel is moderate, for headphones on young ears.
const referenceLevel music.Decibels = -24

// Reference returns the score as it should sound.
func Reference(score scores.Score, i instrument.Instrument, rate int) audio.Mono {
	sound, _ := Player{Instrument: i, Level: referenceLevel}.Play(score, rate)
	return sound
}

// FirstNote returns the first note a score asks for; home where it asks for none.
func FirstNote(score scores.Score, i instrument.Instrument) music.MIDI {
	if targets := score.Targets(); len(targets) > 0 {
		return targets[0].Target
	}
	return i.Home()
}
