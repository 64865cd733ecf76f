package ear

import (
	"earlychorus/core/dsp"
	"earlychorus/core/explain"
	"earlychorus/core/music"
)

// isAlien reports whether a plateau sounds like a syllable of speech, which glides,
// or like the ring of a click, which dies away at once.
func (l *listening) isAlien(p plateau) bool {
	return l.isSyllable(p) || l.isClickRing(p)
}

// onlyAlien reports whether nobody plays: most of what has a pitch is speech or
// clicks, and there is too little of the rest for what was asked.
func (l *listening) onlyAlien(sounds []explain.Sound) bool {
	alien, own, asked := 0, music.Seconds(0), music.Seconds(0)
	for _, s := range sounds {
		if s.Alien {
			alien++
		} else {
			own += s.Release - s.Onset
		}
	}
	for _, t := range l.Score.Targets() {
		asked += l.Score.TempoBPM.Seconds(t.Beats)
	}
	return 2*alien > len(sounds) && own < ownShare*asked
}

// ownShare is the least part of what was asked that somebody who plays sounds.
const ownShare = 0.3

func (l *listening) isSyllable(p plateau) bool {
	if p.length() > longSyllable {
		return false
	}
	var cents []float64
	for _, f := range l.contour.Frames[p.from:p.to] {
		if f.Voiced() {
			cents = append(cents, float64(music.Between(standardPitch, f.Pitch)))
		}
	}
	return len(cents) > 0 && music.Cents(dsp.Quantile(cents, 0.9)-dsp.Quantile(cents, 0.1)) > speechMoves
}

const (
	clickRingFor   = music.Seconds(0.3)
	clickRingFalls = music.Decibels(9) // from its start to its end
)

func (l *listening) isClickRing(p plateau) bool {
	if p.length() > clickRingFor {
		return false
	}
	for _, b := range l.contour.Bursts {
		if b.From < p.Onset+clickNear && b.To > p.Onset-2*clickNear {
			w := window(p.pitch)
			return l.fine.Level(p.Onset+clickNear, w)-l.fine.Level(p.Release-w, w) > clickRingFalls ||
				l.onTheClick(b) && p.length() < clickRingFor/2
		}
	}
	return false
}
