package explain

import (
	"math"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

const (
	// samePitch is how far off a note may be and still be that note: more than the
	// loosest tolerance, less than a semitone.
	samePitch music.Cents = 70
	// shiftedPitch is the same where the whole part is off.
	shiftedPitch music.Cents = 40
	// nearPartial is how far a pitch may lie from a partial and still be it.
	nearPartial music.Cents = 80
	// oneFinger is as far as a wrong finger, valve or position leads.
	oneFinger music.Cents = 250
)

func far(a, b music.Cents) music.Cents { return music.Cents(math.Abs(float64(a - b))) }

// account says what a sound at a pitch is, where a target was asked for in a part
// that is shifted as a whole.
func (t target) account(pitch music.Cents, shift music.MIDI, a4 music.Hertz) Account {
	off := pitch - t.pitch - music.Cents(100*shift)
	if t.Phase == scores.Sing {
		off = folded(off)
	}
	came, _ := music.Nearest(pitch.Above(music.StandardA4), a4)
	switch {
	case shift == 0 && t.reaches(off), far(off, 0) <= within(shift):
		return Account{Kind: Played, Came: t.Target + shift}
	case shift == 0:
		if number, note := t.partialAt(pitch); number > 0 {
			return Account{Kind: OtherPartial, Came: note, Partial: number}
		}
	}
	if far(off, 0) <= oneFinger {
		return Account{Kind: OtherFingering, Came: came}
	}
	return Account{Kind: OtherNote, Came: came}
}

// within is how far off a note may be and still be the one asked for. A part that is
// off as a whole lies where notes lie.
func within(shift music.MIDI) music.Cents {
	if shift != 0 {
		return shiftedPitch
	}
	return samePitch
}

// reaches reports whether a pitch lies on the way of a slide.
func (t target) reaches(off music.Cents) bool {
	if t.GlideTo == 0 {
		return false
	}
	way := music.Cents(100 * (t.GlideTo - t.Target))
	low, high := min(0, way)-slideBeyond, max(0, way)+slideBeyond
	return off >= low && off <= high
}

// slideBeyond is how far beyond its ends a slide may go.
const slideBeyond music.Cents = 300

// partialAt returns which other partial of the fingering asked for lies at a pitch,
// and its note; 0 where none does.
func (t target) partialAt(pitch music.Cents) (number int, note music.MIDI) {
	best := nearPartial
	for _, p := range t.partials {
		if off := far(pitch, p.pitch); off < best {
			best, number, note = off, p.number, p.note
		}
	}
	return number, note
}

// folded brings a distance into half an octave either way.
func folded(c music.Cents) music.Cents { return c - music.Cents(1200*math.Round(float64(c)/1200)) }
