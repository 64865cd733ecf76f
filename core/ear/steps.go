package ear

import (
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// A half step in a room that rings may come out narrower than two pitches are told
// apart by; where the score has both notes, or one of them, it is one all the same.
const (
	stepNear  = music.Cents(35) // of a note of the score, is that note
	stepHolds = 8               // frames, on a note of the score
	halfHolds = 20              // frames, on a half step beside one
	stepTakes = 20              // frames at most, from one to the other
)

// cutAtSteps cuts a plateau where it steps from one of the pitches asked for to another, or
// to a half step beside one.
func (l *listening) cutAtSteps(p plateau, asked []music.Cents) (out []plateau) {
	notes := withHalfSteps(asked)
	at := func(n int) (note int) {
		f := l.contour.Frames[n]
		if !f.Voiced() {
			return -1
		}
		cents := music.Between(standardPitch, f.Pitch)
		return slices.IndexFunc(notes, func(c music.Cents) bool { return max(cents-c, c-cents) <= stepNear })
	}
	on, left, held := -1, 0, 0 // the note that sounds, the last frame on it, frames on another
	for n := p.from; n < p.to; n++ {
		switch now := at(n); {
		case now < 0:
			held = 0
		case now == on:
			left, held = n, 0
		case on < 0:
			on, left = now, n
		default:
			if held++; held < halfHolds && (held < stepHolds || !slices.Contains(asked, notes[now])) {
				continue
			}
			first, when := n-held+1, contour.Time((left+n-held+1)/2)
			if first-left <= stepTakes && when-p.Onset > longEnough {
				before, after := p.cut(when, when, BySlur)
				before.pitch, after.pitch = l.pitchOf(before), l.pitchOf(after)
				out, p = append(out, before), after
			}
			on, left, held = now, n, 0
		}
	}
	return append(out, p)
}

// withoutMixed gives a step to no note asked for back to the note before, where that goes on in it:
// it and somebody else's near it, so loud, are heard at a pitch between them.
func (l *listening) withoutMixed(steps []plateau, asked []music.Cents, others music.Decibels) (out []plateau) {
	mixed := false
	for n, p := range steps {
		isAsked := slices.ContainsFunc(asked, func(c music.Cents) bool { return max(p.pitch-c, c-p.pitch) <= stepNear })
		if n > 0 {
			last := &out[len(out)-1]
			mixed = mixed && near(last.pitch, p.pitch) || !isAsked && l.goesOnIn(*last, p, others)
			if mixed {
				last.Release, last.to = p.Release, p.to
				continue
			}
		}
		out = append(out, p)
	}
	return out
}

// pitchesAsked are the pitches of the score's notes, each once.
func (l *listening) pitchesAsked() (out []music.Cents) {
	for _, t := range l.Score.Targets() {
		cents := music.Between(standardPitch, t.Target.Frequency(l.Score.A4Hz))
		if t.Phase == scores.Play && t.GlideTo == 0 && !slices.Contains(out, cents) {
			out = append(out, cents)
		}
	}
	return out
}

// withHalfSteps adds to pitches those a half step beside them.
func withHalfSteps(pitches []music.Cents) (out []music.Cents) {
	for _, p := range pitches {
		out = append(out, p, p-100, p+100)
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// pitchOf is the middle of a plateau's pitch.
func (l *listening) pitchOf(p plateau) music.Cents {
	return l.median(p, p.Onset, p.Release, group{})
}
