package synth

import (
	"slices"

	"earlychorus/core/audio"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Playing is how a score is really played: what sounds instead of what is
// written, and who plays it. A right take is the score itself.
type Playing struct {
	Score  scores.Score
	Player Player
}

// Mistake is one way in which beginners go wrong (common practice, no published
// source). The stand-in, the demo's class, the tests and the lessons of the
// benches make the same ones.
type Mistake struct {
	Key   string
	Label string // of a player who makes it
	// At lists the targets at which it can be made, by index. A mistake of the
	// whole step is made at its first target, or at 0 where there is none.
	At func(s scores.Score, i instrument.Instrument) []int
	// Make changes the playing of a score as the mistake does at one target.
	Make func(p *Playing, target int)
}

// Mistakes lists every mistake a simulated player can make.
func Mistakes() []Mistake {
	return slices.Concat(mistakesOfNote, mistakesOfArticulation, mistakesOfTime, mistakesOfSound, mistakesOfWay)
}

// MistakeOf returns the mistake with a key; ok is false for an unknown one.
func MistakeOf(key string) (m Mistake, ok bool) {
	all := Mistakes()
	n := slices.IndexFunc(all, func(m Mistake) bool { return m.Key == key })
	if n < 0 {
		return Mistake{}, false
	}
	return all[n], true
}

// Apply returns the player's playing of a score with the mistake made at a target.
func (m Mistake) Apply(p Player, s scores.Score, target int) Playing {
	segments := append([]scores.Segment(nil), s.Segments...)
	s.Segments = segments
	out := Playing{Score: s, Player: p}
	m.Make(&out, target)
	return out
}

// Play returns the sound of the playing, and what was played for each note of it.
func (p Playing) Play(rate int) (audio.Mono, []Truth) {
	return p.Player.Play(p.Score, rate)
}

// target returns the n-th target's segment, to be changed.
func (p *Playing) target(n int) *scores.Segment { return &p.Score.Segments[p.segment(n)] }

// segment returns the index of the n-th target among the segments.
func (p *Playing) segment(n int) int {
	for k, seg := range p.Score.Segments {
		if !seg.Phase.Sounds() {
			continue
		}
		if n == 0 {
			return k
		}
		n--
	}
	return len(p.Score.Segments) - 1
}

// phraseEnd returns the index, among the targets, behind the last one that
// follows target n without a rest.
func phraseEnd(targets []scores.Segment, n int) int {
	for n+1 < len(targets) && scores.Follows(targets, n+1) {
		n++
	}
	return n + 1
}

// where lists the targets that a condition holds for.
func where(holds func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool) func(
	scores.Score, instrument.Instrument,
) []int {
	return func(s scores.Score, i instrument.Instrument) (out []int) {
		targets := s.Targets()
		for n := range targets {
			if holds(s, i, targets, n) {
				out = append(out, n)
			}
		}
		return out
	}
}

// played is a target that is held on the instrument.
func played(_ scores.Score, _ instrument.Instrument, targets []scores.Segment, n int) bool {
	return targets[n].Phase == scores.Play && targets[n].GlideTo == 0 && targets[n].Pulses == 0
}

// long is a played target of two seconds and more.
func long(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
	return played(s, i, targets, n) && s.TempoBPM.Seconds(targets[n].Beats) >= longTone && targets[n].DynamicTo == ""
}

const longTone music.Seconds = 1.9
