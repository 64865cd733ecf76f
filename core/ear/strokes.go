package ear

import (
	"math"

	"earlychorus/core/dsp"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Stroke is what was heard of one stroke on a pad or a drum.
type Stroke struct {
	At    music.Seconds `json:"at_s" doc:"when it was asked for"`
	Heard bool          `json:"heard"`
	Off   music.Seconds `json:"off_s" doc:"how far after its beat it came; minus is before"`
}

const (
	strokeStep    = music.Seconds(0.005)
	strokeWindow  = music.Seconds(0.01)
	strokeRise    = music.Decibels(9)   // over what was there just before
	strokeBefore  = music.Seconds(0.03) // how long that is
	strokeOver    = music.Decibels(12)  // over the room
	strokeSoftest = music.Decibels(20)  // below the loudest stroke
	strokeApart   = music.Seconds(0.09) // a head that rings on is not struck again
	strokeReach   = 0.45                // of the way to the next stroke
	strokeFarther = music.Seconds(0.6)  // at most
)

// hearStrokes finds what was struck, and gives every stroke of the score the one nearest
// to its beat.
func (l *listening) hearStrokes() {
	asked := l.Score.Strokes()
	if len(asked) == 0 {
		return
	}
	onsets := l.strokeOnsets()
	used := make([]bool, len(onsets))
	for n, seg := range asked {
		s := Stroke{At: l.Start + l.Score.TempoBPM.Seconds(seg.StartBeat)}
		reach := min(strokeFarther, music.Seconds(strokeReach)*l.Score.TempoBPM.Seconds(seg.Beats))
		if n > 0 && scores.Follows(asked, n) {
			reach = min(reach, music.Seconds(strokeReach)*l.Score.TempoBPM.Seconds(asked[n-1].Beats))
		}
		best := -1
		for k, onset := range onsets {
			off := math.Abs(float64(onset - s.At))
			if !used[k] && off <= float64(reach) && (best < 0 || off < math.Abs(float64(onsets[best]-s.At))) {
				best = k
			}
		}
		if best >= 0 {
			used[best] = true
			s.Heard, s.Off = true, onsets[best]-s.At
		}
		l.Strokes = append(l.Strokes, s)
	}
	for k, onset := range onsets {
		if !used[k] && onset > l.Strokes[0].At-strokeFarther {
			l.Extra++
		}
	}
}

// strokeOnsets is where something is struck: the level jumps over what was there just
// before, and over the room.
func (l *listening) strokeOnsets() (out []music.Seconds) {
	var levels []float64
	for at := music.Seconds(0); at < l.Analysis.Seconds; at += strokeStep {
		levels = append(levels, float64(l.fine.Level(at, strokeWindow)))
	}
	if len(levels) == 0 {
		return nil
	}
	loudest := dsp.Quantile(levels, 1)
	gate := math.Max(dsp.Quantile(levels, 0.3)+float64(strokeOver), loudest-float64(strokeSoftest))
	back := int(strokeBefore / strokeStep)
	for n := back; n < len(levels); n++ {
		if levels[n] < gate || levels[n]-dsp.Median(levels[n-back:n]) < float64(strokeRise) {
			continue
		}
		at := music.Seconds(n) * strokeStep
		if len(out) > 0 && at-out[len(out)-1] < strokeApart {
			continue
		}
		out = append(out, at)
	}
	return out
}
