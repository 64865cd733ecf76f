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

// onlyAlien reports whether nobody plays: much of what has a pitch is speech or clicks, and
// the rest is no longer than syllables are, though longer notes were asked for; or most of it
// is, and the rest too little for what was asked.
func (l *listening) onlyAlien(sounds []explain.Sound) bool {
	alien, own, longest := 0, music.Seconds(0), music.Seconds(0)
	for _, s := range sounds {
		if s.Alien {
			alien++
			continue
		}
		own += s.Release - s.Onset
		longest = max(longest, s.Release-s.Onset)
	}
	asked, longestAsked := music.Seconds(0), music.Seconds(0)
	for _, t := range l.Score.Targets() {
		length := l.Score.TempoBPM.Seconds(t.Beats)
		asked, longestAsked = asked+length, max(longestAsked, length)
	}
	if longestAsked >= longerThanSyllables && longest < longSyllable && 4*alien > len(sounds) {
		return true
	}
	return 2*alien > len(sounds) && own < ownShare*asked
}

const (
	ownShare            = 0.3 // the least part of what was asked that somebody who plays sounds
	longerThanSyllables = music.Seconds(0.7)
)

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
