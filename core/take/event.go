package take

import (
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// EventKind names what can happen in a note.
type EventKind string

const (
	Gap       EventKind = "gap"       // the sound stops inside a note
	Break     EventKind = "break"     // it leaves for another partial or note and comes back, or not
	Undertone EventKind = "undertone" // a lower pitch sounds before the note
	WrongNote EventKind = "wrong-note"
)

// Event is a named thing that happened at a time.
type Event struct {
	Kind     EventKind     `json:"kind"`
	At       music.Seconds `json:"t_s"`
	Duration music.Seconds `json:"duration_s"`
	Note     int           `json:"note" doc:"index of the note it happened in"`
	To       music.MIDI    `json:"to_midi,omitempty" doc:"the note it went to"`
	Interval int           `json:"interval_semitones,omitempty" doc:"from the target to it"`
	Partial  int           `json:"partial,omitempty" doc:"which partial of the fingering it is; 0 when none"`
	Returned bool          `json:"returned,omitempty"`
}

// GapTime is the shortest silence inside a note that is a gap.
const GapTime music.Seconds = 0.06

// breakTime is the shortest visit to another pitch that is a break.
const breakTime music.Seconds = 0.04

// nearPartial is how far a pitch may lie from a partial and still be it.
const nearPartial music.Cents = 80

// events names what happened in the group, in order of time.
func (g group) events(index int, n Note, q Question) []Event {
	var out []Event
	if g.wrong {
		out = append(out, g.visit(WrongNote, index, g.on[0], n.Sounding, q))
	}
	for k, p := range g.all {
		if k > 0 {
			before := g.all[k-1]
			if silence := p.Onset - before.Release; silence >= GapTime {
				out = append(out, Event{Kind: Gap, At: before.Release, Duration: silence, Note: index})
			}
		}
		if g.isOn(p) || p.length() < breakTime {
			continue
		}
		kind := Break
		if n.Played && p.Onset < n.Onset && p.pitch < g.pitch {
			kind = Undertone
		}
		e := g.visit(kind, index, p, p.length(), q)
		e.Returned = p.Release < n.Release
		out = append(out, e)
	}
	return out
}

func (g group) isOn(p plateau) bool {
	for _, on := range g.on {
		if on.from == p.from {
			return true
		}
	}
	return false
}

// visit describes a plateau away from the target: which note, and which
// partial of the target's fingering if it is one.
func (g group) visit(kind EventKind, index int, p plateau, length music.Seconds, q Question) Event {
	a4 := music.StandardA4
	if q.Score != nil {
		a4 = q.Score.A4Hz
	} else if q.A4 > 0 {
		a4 = q.A4
	}
	heard := p.pitch.Above(standardPitch)
	to, _ := music.Nearest(heard, a4)
	own := g.midi
	if g.target != nil {
		own = g.target.Target
	}
	e := Event{Kind: kind, At: p.Onset, Duration: length, Note: index, To: to, Interval: int(to - own)}
	if q.Instrument != nil {
		e.Partial, e.To = partialNear(*q.Instrument, own, heard, a4, to)
		e.Interval = int(e.To - own)
	}
	return e
}

// partialNear returns the partial of own's fingering that lies nearest to the
// pitch heard, and its note; 0 and the fallback when none is near.
func partialNear(i instrument.Instrument, own music.MIDI, heard, a4 music.Hertz, fallback music.MIDI) (int, music.MIDI) {
	best, number, note := nearPartial, 0, fallback
	for _, p := range i.Partials(own) {
		off := music.Between(p.Off.Above(p.Note.Frequency(a4)), heard)
		if p.Note != own && max(off, -off) < best {
			best, number, note = max(off, -off), p.Number, p.Note
		}
	}
	return number, note
}
