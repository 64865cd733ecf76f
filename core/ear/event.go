package ear

import (
	"math"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// EventKind names what can happen in a note.
type EventKind string

const (
	Gap       EventKind = "gap"       // the sound stops inside a note
	Break     EventKind = "break"     // it leaves for another partial or note and comes back, or not
	Undertone EventKind = "undertone" // a lower pitch sounds before the note
	WrongNote EventKind = "wrong-note"
	Chirp     EventKind = "chirp"  // a short high squeak
	Tongue    EventKind = "tongue" // the tongue touches a note that should go on
	LateStart EventKind = "late-start"
	Scoop     EventKind = "scoop" // a note starts off its pitch and slides to it
	Sag       EventKind = "sag"   // it bends down at its end
	Waver     EventKind = "waver" // it moves to and fro, irregularly
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
	Cents    music.Cents   `json:"cents,omitempty" doc:"how far a scoop, a sag or a waver goes"`
	Returned bool          `json:"returned,omitempty"`
}

const (
	// GapTime is the shortest silence inside a note that is a gap.
	GapTime music.Seconds = 0.06
	// breakTime is the shortest visit to another pitch that is a break.
	breakTime music.Seconds = 0.04
	// undertoneTime is the same for a lower pitch before the note: while it
	// speaks, a shorter one is any tube's.
	undertoneTime music.Seconds = 0.06
	// nearPartial is how far a pitch may lie from a partial and still be it.
	nearPartial music.Cents = 80

	lateTime     music.Seconds = 0.15
	leastScoop   music.Cents   = 30
	leastSag     music.Cents   = 20
	leastWaver   music.Cents   = 15
	shortestSagN music.Seconds = 0.8 // notes shorter than this have no end of their own
)

// eventsOf names what happened in the group, in order of time.
func (l *listening) eventsOf(g group, index int) []Event {
	n := l.Notes[index]
	var out []Event
	if g.wrong && len(g.on) > 0 {
		out = append(out, l.visit(g, WrongNote, index, g.on[0], n.Sounding))
	}
	last := -1 // of what is the player's
	for k, p := range g.all {
		if !g.isOn(p) && l.isNobodys(g, p, n.Level) && p.level < n.Level-farBelow {
			continue // in a silence of the player's, perhaps
		}
		if last >= 0 {
			out = append(out, l.stop(g, g.all[last], p, index)...)
		}
		last = k
		if g.isOn(p) || p.length() < breakTime {
			continue
		}
		kind := Break
		if n.Played && p.Onset < n.Onset && p.pitch < g.pitch {
			number, _ := l.partialOf(g, p)
			if p.length() < undertoneTime || l.Question.Instrument != nil && number == 0 {
				continue // on the way from the note before
			}
			kind = Undertone
		}
		if kind == Break && (l.isSlip(g, p) || l.isNobodys(g, p, n.Level) || l.isOnBeat(n, p) || l.isHeardOver(g, k)) {
			continue
		}
		e := l.visit(g, kind, index, p, p.length())
		e.Returned = p.Release < n.Release
		out = append(out, e)
	}
	if n.Played && !n.WrongNote && n.Slide == nil {
		out = append(out, l.bends(g, n, index)...)
	}
	return out
}

// isSlip reports whether a short visit to another pitch is the tracker's rather than
// the player's: down to a whole part of the pitch and back, or while a click sounds.
func (l *listening) isSlip(g group, p plateau) bool {
	if p.length() >= longestSlip {
		return false
	}
	for _, b := range l.contour.Bursts {
		if l.onTheClick(b) && b.From < p.Release && b.To > p.Onset-clickEcho {
			return true
		}
	}
	part := float64((g.pitch - p.pitch).Above(1))
	return part > 1.5 && isPartOf(music.Hertz(part), 1)
}

// isNobodys reports whether a short visit leads where no crack does: to no partial of
// the fingering. Somebody talks, or the room rings; what is far softer than the note may last.
func (l *listening) isNobodys(g group, p plateau, level music.Decibels) bool {
	if l.Question.Instrument == nil || p.length() >= longestChance && p.level > level-edgeBelow {
		return false
	}
	number, _ := l.partialOf(g, p)
	return number == 0 && (p.pitch > g.pitch+farthestCrack ||
		!isPartOf(p.pitch.Above(standardPitch), g.pitch.Above(standardPitch)))
}

// isOnBeat reports whether a short visit well inside a note falls on the beat, as a
// metronome's click and its echo do.
func (l *listening) isOnBeat(n Note, p plateau) bool {
	inside := p.Onset > n.Onset+insideNote && p.Release < n.Release-insideNote
	if l.Score == nil || !inside || p.length() >= longestClickEcho || !l.clicking() {
		return false
	}
	beats := float64(l.Score.TempoBPM.Beats(p.Onset - l.Start))
	after := l.Score.TempoBPM.Seconds(music.Beats(beats - math.Round(beats)))
	return after > -nearClick && after < clickEcho
}

// isHeardOver reports whether a short visit is only what is heard over the note, which goes
// on in it: a click with one of its harmonics.
func (l *listening) isHeardOver(g group, k int) bool {
	p := g.all[k]
	return k > 0 && p.length() < longestClickEcho && p.starts == BySlur && g.isOn(g.all[k-1]) &&
		!p.isUnder(g.all[k-1]) && l.goesOnIn(g.all[k-1], p, silent)
}

// hasMetronome reports whether a metronome clicks in the recording: enough clicks lie
// beats apart.
func (l *listening) hasMetronome() bool {
	count := 0
	for _, b := range l.contour.Bursts {
		if l.isClick(b) && l.onTheClick(b) {
			count++
		}
	}
	return count >= fewestClicks
}

const (
	fewestClicks     = 4
	longestChance    = music.Seconds(0.32)
	farthestCrack    = music.Cents(3600) // three octaves
	longestClickEcho = music.Seconds(0.12)
	insideNote       = music.Seconds(0.25)
)

const (
	longestSlip = music.Seconds(0.1)
	clickNear   = music.Seconds(0.03)
	clickEcho   = music.Seconds(0.08)
)

// stop is the silence or the touch of the tongue between two plateaus of a note.
func (l *listening) stop(g group, before, after plateau, index int) []Event {
	silence := after.Onset - before.Release
	switch {
	case silence >= GapTime && !l.isHole(before, after):
		return nil
	case silence >= GapTime:
		return []Event{{
			Kind:     Gap,
			At:       before.Release,
			Duration: silence,
			Note:     index,
		}}
	case after.starts == ByTongue && g.target != nil:
		return []Event{{
			Kind:     Tongue,
			At:       before.Release,
			Duration: silence,
			Note:     index,
		}}
	}
	return nil
}

// bends are the events that measures tell: lateness, scoop, sag and waver. A
// wavering note begins and ends anywhere in its waver.
func (l *listening) bends(g group, n Note, index int) []Event {
	var out []Event
	if late := g.all[0].Onset - g.begin; g.target != nil && !l.Alignment.FirstNote && late > lateTime {
		out = append(out, Event{
			Kind:     LateStart,
			At:       g.begin,
			Duration: late,
			Note:     index,
		})
	}
	if max(n.Scoop, -n.Scoop) > leastScoop+n.Waver && g.on[0].starts != BySlur {
		out = append(out, Event{
			Kind:     Scoop,
			At:       n.Onset,
			Duration: n.Settle,
			Note:     index,
			Cents:    n.Scoop,
		})
	}
	if n.EndBend < -leastSag-n.Waver && n.Release-n.Onset > shortestSagN {
		out = append(out, Event{
			Kind:     Sag,
			At:       n.Release - endTime,
			Duration: endTime,
			Note:     index,
			Cents:    n.EndBend,
		})
	}
	if n.Waver > leastWaver && !n.Vibrato {
		out = append(out, Event{
			Kind:     Waver,
			At:       n.Onset,
			Duration: n.Release - n.Onset,
			Note:     index,
			Cents:    n.Waver,
		})
	}
	return out
}

// partialOf returns which partial of the group's fingering a plateau is, and its
// note; 0 where it is none.
func (l *listening) partialOf(g group, p plateau) (int, music.MIDI) {
	if l.Question.Instrument == nil {
		return 0, 0
	}
	return partialNear(*l.Question.Instrument, g.tube(), g.asked(), p.pitch.Above(standardPitch), l.a4(), 0)
}

// visit describes a plateau away from the target: which note, and which
// partial of the target's fingering if it is one.
func (l *listening) visit(g group, kind EventKind, index int, p plateau, length music.Seconds) Event {
	heard := p.pitch.Above(standardPitch)
	to, _ := music.Nearest(heard, l.a4())
	own := g.asked()
	e := Event{
		Kind:     kind,
		At:       p.Onset,
		Duration: length,
		Note:     index,
		To:       to,
		Interval: int(to - own),
	}
	if i := l.Question.Instrument; i != nil && (g.target == nil || g.target.Phase != scores.Sing) {
		e.Partial, e.To = partialNear(*i, g.tube(), own, heard, l.a4(), to)
		e.Interval = int(e.To - own)
	}
	return e
}

// asked is the note that was asked for, or that sounded where there is no score.
func (g group) asked() music.MIDI {
	if g.target != nil {
		return g.target.Target
	}
	return g.midi
}

// tube is the note whose fingering is held.
func (g group) tube() music.MIDI {
	if g.target != nil {
		return g.target.Tube()
	}
	return g.midi
}

// partialNear returns the partial of a fingering that lies nearest to the pitch
// heard, other than the note asked for, and its note; 0 and the fallback when none
// is near.
func partialNear(
	i instrument.Instrument,
	tube, own music.MIDI,
	heard, a4 music.Hertz,
	fallback music.MIDI,
) (int, music.MIDI) {
	best, number, note := nearPartial, 0, fallback
	for _, p := range i.Partials(tube) {
		off := music.Between(p.Off.Above(p.Note.Frequency(a4)), heard)
		if p.Note != own && max(off, -off) < best {
			best, number, note = max(off, -off), p.Number, p.Note
		}
	}
	return number, note
}

// addSqueaks names the short high bursts inside notes. Where the pitch itself
// went elsewhere meanwhile, that is already a break.
func (l *listening) addSqueaks(groups []group) {
	for index, n := range l.Notes {
		if !n.Played || n.Phase == scores.Sing {
			continue
		}
		// A start is no harmonic of its note either, until it has settled.
		settled := n.Onset + settle + groups[index].on[0].hidden
		squeaks := l.squeaksIn(settled, n.Release-scoopTime, n.Level)
		found := append(slices.Clone(l.contour.Bursts), slices.DeleteFunc(squeaks, l.isClicked)...)
		for _, b := range found {
			length := b.To - b.From
			inside := b.From > n.Onset+scoopTime && b.To < n.Release-scoopTime
			if inside && length > contour.LongestClick && !l.onTheClick(b) &&
				!l.hasEvent(index, b.From-aroundStops, b.To+aroundStops) {
				l.Events = append(l.Events, Event{
					Kind:     Chirp,
					At:       b.From,
					Duration: length,
					Note:     index,
					Returned: true,
				})
			}
		}
	}
}

// squeaksIn returns the squeaks in a note between two moments. Just after its start they have
// to stand out more: what was before still rings there.
func (l *listening) squeaksIn(from, to music.Seconds, level music.Decibels) []contour.Burst {
	all := l.take.heard.Squeaks(l.contour, from, to, level+squeakBelow)
	early := func(b contour.Burst) bool { return b.From < from+squeakSettles }
	if !slices.ContainsFunc(all, early) {
		return all
	}
	loud := l.take.heard.Squeaks(l.contour, from, to, level+squeakAbove)
	return slices.DeleteFunc(all, func(b contour.Burst) bool { return early(b) && !slices.Contains(loud, b) })
}

// isClicked reports whether a click sounds in a burst, or one is due: others lie on the
// same part of the beat.
func (l *listening) isClicked(b contour.Burst) bool {
	if l.Score == nil {
		return false
	}
	beat, alike := l.Score.TempoBPM.Seconds(1), 0
	for _, o := range l.contour.Bursts {
		if l.isClick(o) && o.From < b.To && o.To > b.From-clickRings {
			return true
		}
		off := b.From - o.From
		off -= beat * music.Seconds(math.Round(float64(off/beat)))
		if max(off, -off) < clickRings {
			alike++
		}
	}
	return alike >= fewestClicks
}

// clickRings is for how long a click disturbs.
const clickRings = music.Seconds(0.06)

// squeakBelow is how loud a squeak is against its note, at least; squeakAbove is it in the
// first squeakSettles of the note.
const (
	squeakBelow   = music.Decibels(-3)
	squeakAbove   = music.Decibels(3)
	squeakSettles = music.Seconds(0.15)
)

// onTheClick reports whether a burst is one of a metronome's: others lie a beat, or
// two, from it.
func (l *listening) onTheClick(b contour.Burst) bool {
	if l.Score == nil {
		return false
	}
	beat := l.Score.TempoBPM.Seconds(1)
	return slices.ContainsFunc(l.contour.Bursts, func(other contour.Burst) bool {
		apart := max(other.From-b.From, b.From-other.From)
		for beats := music.Seconds(1); beats <= 2; beats++ {
			if off := apart - beats*beat; max(off, -off) < nearClick {
				return true
			}
		}
		return false
	})
}

// isClick reports whether a burst is a click: one of a metronome may ring in the room.
func (l *listening) isClick(b contour.Burst) bool {
	length := b.To - b.From
	return length <= contour.LongestClick || length <= rungClick && l.onTheClick(b)
}

const rungClick = music.Seconds(0.15)

const nearClick = music.Seconds(0.015)

func (l *listening) hasEvent(note int, from, to music.Seconds) bool {
	return slices.ContainsFunc(l.Events, func(e Event) bool {
		kind := e.Kind == Break || e.Kind == Gap || e.Kind == Undertone || e.Kind == Chirp
		return e.Note == note && kind && e.At < to && e.At+e.Duration > from
	})
}

func sortEvents(events []Event) {
	slices.SortStableFunc(events, func(a, b Event) int {
		switch {
		case a.At < b.At:
			return -1
		case a.At > b.At:
			return 1
		}
		return 0
	})
}
