package ear

import (
	"slices"

	"earlychorus/core/dsp"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// A room that rings on at the strongest harmonic of a pure tone fills what the tongue parts:
// the others dip all the same, by modesDip at least.
const (
	modesDip    = music.Decibels(8)
	modesAround = music.Seconds(0.2)
	modesStep   = music.Seconds(0.004)
)

// dipsOfMost finds dips of most harmonics of a pure tone where a note is asked for once more
// and the loudness does not dip.
func (l *listening) dipsOfMost(p plateau, found []dip) (out []dip) {
	if !l.isPure() {
		return nil
	}
	targets, near := l.Score.Targets(), l.Score.TempoBPM.Seconds(ripplesNear)
	for n, t := range targets {
		due := l.Start + l.Score.TempoBPM.Seconds(t.StartBeat)
		inside := due > p.Onset+modesAround && due < p.Release-modesAround
		seen := slices.ContainsFunc(found, func(d dip) bool { return max(d.at-due, due-d.at) < near })
		if !inside || seen || !repeats(targets, n) || t.Articulation == scores.Slurred {
			continue
		}
		levels := l.levelsOfMost(p, due-modesAround, due+modesAround)
		for k := range levels {
			depth, at := repeatAt(levels, k)
			when := due - modesAround + music.Seconds(at)*modesStep
			if depth >= modesDip && max(when-due, due-when) < near {
				out = append(out, dip{when, depth})
				break
			}
		}
	}
	return out
}

// levelsOfMost is how loud most of a pure tone's harmonics are besides its strongest, step by
// step, each against its own loudness; nil where they do not stand out of the noise.
func (l *listening) levelsOfMost(p plateau, from, to music.Seconds) (out []music.Decibels) {
	usual := l.harmonicsIn(p.pitch, from, to)
	f := p.pitch.Above(standardPitch)
	most, w := strongestOf(usual), max(cancelWindow, cancelPeriods/music.Seconds(f))
	var clear []int
	for h := range usual {
		if h != most && usual[h].level > usual[h].noise+cancelClear {
			clear = append(clear, h)
		}
	}
	if len(clear) < cancelFewest {
		return nil
	}
	for at := from; at < to; at += modesStep {
		var now []float64
		for _, h := range clear {
			now = append(now, float64(l.take.heard.Single(f*music.Hertz(h+1), at, w)-usual[h].level))
		}
		out = append(out, music.Decibels(dsp.Median(now)))
	}
	return out
}
