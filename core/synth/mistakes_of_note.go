package synth

import (
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// mistakesOfNote are those in which another note sounds than the one asked for.
var mistakesOfNote = []Mistake{
	{
		Key:   "stays",
		Label: "Player whose low note goes on",
		At:    where(slursUp),
		Make: func(p *Playing, n int) {
			p.target(n).Target, p.target(n).Articulation = p.target(n-1).Target, scores.Slurred
		},
	},
	{
		Key:   "comes-low",
		Label: "Player whose high notes come out low",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return played(s, i, targets, n) && tongued(targets[n]) && lower(i, targets[n]) != 0
		}),
		Make: func(p *Playing, n int) { p.target(n).Target += lower(p.Player.Instrument, *p.target(n)) },
	},
	{
		Key:   "flies-up",
		Label: "Player whose low notes fly up",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return played(s, i, targets, n) && upper(i, targets[n].Target) != 0
		}),
		Make: func(p *Playing, n int) { p.target(n).Target += upper(p.Player.Instrument, p.target(n).Target) },
	},
	{
		Key:   "starts-high",
		Label: "Player whose low notes start high and fall",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return long(s, i, targets, n) && targets[n].Dynamic == "" && tongued(targets[n]) &&
				upper(i, targets[n].Target) != 0
		}),
		Make: func(p *Playing, n int) { p.startOn(n, int(upper(p.Player.Instrument, p.target(n).Target))) },
	},
	{
		Key:   "starts-low",
		Label: "Player whose high notes begin with a lower one",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return long(s, i, targets, n) && tongued(targets[n]) && lower(i, targets[n]) != 0
		}),
		Make: func(p *Playing, n int) { p.startOn(n, int(lower(p.Player.Instrument, *p.target(n)))) },
	},
	{
		Key:   "half-step-low",
		Label: "Player with a finger too many",
		At:    where(misfingered(-1)),
		Make:  func(p *Playing, n int) { p.target(n).Target-- },
	},
	{
		Key:   "half-step-high",
		Label: "Player with a finger too few",
		At:    where(misfingered(1)),
		Make:  func(p *Playing, n int) { p.target(n).Target++ },
	},
	{
		Key:   "whole-step-low",
		Label: "Player on the note below",
		At:    where(misfingered(-2)),
		Make:  func(p *Playing, n int) { p.target(n).Target -= 2 },
	},
	{
		Key:   "wrong-sheet",
		Label: "Player who reads another instrument's sheet",
		At: func(s scores.Score, _ instrument.Instrument) []int {
			notes := map[music.MIDI]struct{}{}
			for _, t := range s.Targets() {
				if t.Phase != scores.Play || t.GlideTo != 0 {
					return nil
				}
				notes[t.Target] = struct{}{}
			}
			if len(notes) < 3 {
				return nil
			}
			return []int{0}
		},
		Make: func(p *Playing, _ int) {
			for n := range p.Score.Segments {
				if p.Score.Segments[n].Phase.Sounds() {
					p.Score.Segments[n].Target += sheetShift
				}
			}
		},
	},
}

func tongued(t scores.Segment) bool { return t.Articulation != scores.Slurred }

// sheetShift is what a written note sounds lower on an instrument in B♭.
const sheetShift music.MIDI = -2

// startOn begins note n on another partial for a moment.
func (p *Playing) startOn(n, semitones int) {
	p.Player.FaultOn = n + 1
	p.Player.Cracks = []Crack{{At: 0, Length: fallsAfter, Semitones: semitones}}
}

// fallsAfter is how long a wrong start lasts before the note comes.
const fallsAfter music.Seconds = 0.45

// slursUp is a target slurred from a lower one on the same tube or fingering:
// nothing but the air, the lips or one key makes the difference.
func slursUp(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
	if !played(s, i, targets, n) || targets[n].Articulation != scores.Slurred || n == 0 {
		return false
	}
	return targets[n].Target != targets[n-1].Target
}

// upper is how far up a low note flies with its own fingering: to the register
// above, or the next partial of a brass tube; 0 where it does not.
func upper(i instrument.Instrument, note music.MIDI) music.MIDI {
	if i.Overblow == 0 {
		return music.MIDI(NextPartial(i, note))
	}
	if over, ok := i.RegisterPair(note); ok {
		return over - note
	}
	return 0
}

// lower is how far down a note falls with its own fingering, negative; 0 where it
// has nothing to fall to.
func lower(i instrument.Instrument, t scores.Segment) (down music.MIDI) {
	note := t.Target
	if t.Fingered > 0 { // an overtone falls to the next one down of the fingering that is held
		for _, p := range i.Partials(t.Fingered) {
			if p.Note < note-1 && (down == 0 || p.Note-note > down) {
				down = p.Note - note
			}
		}
		return down
	}
	for _, p := range i.Partials(note) {
		if p.Number > 1 || i.Overblow != 0 {
			if p.Note < note-1 {
				down = p.Note - note
			}
		}
	}
	if i.Overblow != 0 && down != music.MIDI(-i.Overblow) {
		return 0
	}
	return down
}

// misfingered is a target whose note beside it is another fingering, not another
// partial of its own.
func misfingered(semitones music.MIDI) func(
	scores.Score, instrument.Instrument, []scores.Segment, int,
) bool {
	return func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
		t := targets[n].Target
		if !played(s, i, targets, n) || !i.Beginner.Contains(t+semitones) {
			return false
		}
		beside := func(k int) bool { return k >= 0 && k < len(targets) && targets[k].Target == t+semitones }
		for _, p := range i.Partials(t) {
			if p.Note == t+semitones {
				return false
			}
		}
		return !beside(n-1) && !beside(n+1)
	}
}
