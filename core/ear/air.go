package ear

import (
	"math"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Air is what was heard of air alone in one segment of the score.
type Air struct {
	Wanted   int           `json:"wanted_bursts" doc:"0: one even stream"`
	Heard    bool          `json:"heard"`
	Onset    music.Seconds `json:"onset_s"`
	Release  music.Seconds `json:"release_s"`
	Length   music.Seconds `json:"length_s" doc:"from the first air to the last"`
	Asked    music.Seconds `json:"asked_s"`
	Bursts   int           `json:"bursts" doc:"how many were heard; 1 for a stream"`
	Unequal  float64       `json:"unequal" doc:"spread of the bursts' energies, standard deviation over mean"`
	LevelSD  float64       `json:"level_sd_db" doc:"unsteadiness of a stream over its middle 80 %"`
	Response music.Seconds `json:"response_s" doc:"first air after its beat"`
}

const (
	airStep      = music.Seconds(0.01)
	airWindow    = music.Seconds(0.03)
	airOverQuiet = music.Decibels(5)
	airShare     = music.Decibels(12) // below the loudest air: the end of a burst
	burstApart   = music.Seconds(0.03)
	burstLeast   = music.Seconds(0.04)
	airReach     = music.Seconds(0.4) // beyond the segment's ends
)

// hearAirs measures every segment of air alone.
func (l *listening) hearAirs() {
	for _, seg := range l.Score.Segments {
		if seg.Phase == scores.Out {
			l.Airs = append(l.Airs, l.hearAir(seg))
		}
	}
}

func (l *listening) hearAir(seg scores.Segment) Air {
	begin := l.Start + l.Score.TempoBPM.Seconds(seg.StartBeat)
	asked := l.Score.TempoBPM.Seconds(seg.Beats)
	a := Air{Wanted: seg.Bursts, Asked: asked}
	from, to := max(0, begin-airReach), min(l.Analysis.Seconds, begin+asked+airReach)
	var levels []float64
	for at := from; at < to; at += airStep {
		levels = append(levels, float64(l.fine.Level(at, airWindow)))
	}
	if len(levels) == 0 {
		return a
	}
	quiet := float64(l.quiet())
	loud := dsp.Quantile(levels, 0.9)
	gate := math.Max(quiet+float64(airOverQuiet), loud-float64(airShare))
	if loud < quiet+2*float64(airOverQuiet) {
		return a
	}
	bursts := l.withoutClicks(burstsAbove(levels, gate), from)
	if len(bursts) == 0 {
		return a
	}
	if l.pitched(bursts, from) {
		return a
	}
	a.Heard, a.Bursts = true, len(bursts)
	a.Onset = from + music.Seconds(bursts[0].from)*airStep
	a.Release = from + music.Seconds(bursts[len(bursts)-1].to)*airStep
	a.Length, a.Response = a.Release-a.Onset, a.Onset-begin
	a.Unequal = spread(bursts, levels)
	middle := levels[bursts[0].from:bursts[len(bursts)-1].to]
	a.LevelSD = deviation(middle[len(middle)/10 : len(middle)-len(middle)/10])
	return a
}

// withoutClicks leaves out a metronome's clicks.
func (l *listening) withoutClicks(bursts []run, from music.Seconds) []run {
	clicks := l.clicksThroughout()
	return slices.DeleteFunc(bursts, func(r run) bool {
		begin, end := from+music.Seconds(r.from)*airStep, from+music.Seconds(r.to)*airStep
		return slices.ContainsFunc(clicks, func(b contour.Burst) bool {
			return b.From > begin-clickRings && b.From < end && b.To+clickRings > end-airWindow
		})
	})
}

// clicksThroughout returns the clicks of a metronome that goes on where no air is asked
// for too: a player's own bursts of air may lie on the beat.
func (l *listening) clicksThroughout() (out []contour.Burst) {
	elsewhere := 0
	for _, b := range l.contour.Bursts {
		if b.To-b.From > longestClickInSilence || !l.onTheClick(b) {
			continue
		}
		out = append(out, b)
		if !slices.ContainsFunc(l.Score.Segments, func(s scores.Segment) bool {
			begin := l.Start + l.Score.TempoBPM.Seconds(s.StartBeat)
			return s.Phase == scores.Out && b.To > begin-airReach &&
				b.From < begin+l.Score.TempoBPM.Seconds(s.Beats)+airReach
		}) {
			elsewhere++
		}
	}
	if elsewhere < fewestClicks {
		return nil
	}
	return out
}

// longestClickInSilence is how long a click is heard where nothing else sounds.
const longestClickInSilence = music.Seconds(0.15)

// pitched reports whether what sounds in most of some bursts is a note rather than
// air.
func (l *listening) pitched(bursts []run, from music.Seconds) bool {
	voiced, all := 0, 0
	for _, b := range bursts {
		for n := b.from; n < b.to; n++ {
			k := contour.Index(from + music.Seconds(n)*airStep)
			if k < 0 || k >= len(l.contour.Frames) {
				continue
			}
			all++
			if l.contour.Frames[k].Voiced() {
				voiced++
			}
		}
	}
	return 2*voiced > all
}

// firstAir is where something is first louder than the room for as long as a burst.
func (l *listening) firstAir() music.Seconds {
	gate := l.quiet() + 2*airOverQuiet
	above := music.Seconds(0)
	for at := music.Seconds(0); at < l.Analysis.Seconds; at += airStep {
		if l.fine.Level(at, airWindow) < gate {
			above = 0
			continue
		}
		if above += airStep; above >= burstLeast {
			return at - above + airStep
		}
	}
	return 0
}

// airInSilence reports whether somebody blows where no note came: in half of a
// target's time it is louder than the room. Somebody else's sounds are not air.
func (l *listening) airInSilence() bool {
	quiet := l.quiet()
	for n, t := range l.Score.Targets() {
		if l.Notes[n].Played {
			continue
		}
		begin := l.Start + l.Score.TempoBPM.Seconds(t.StartBeat)
		// The score may begin before the recording does, and end after it.
		from, to := max(0, begin), min(l.Analysis.Seconds, begin+l.Score.TempoBPM.Seconds(t.Beats))
		var levels []float64
		for at := from; at < to; at += airStep {
			if k := contour.Index(at); k < len(l.contour.Frames) && !l.contour.Frames[k].Voiced() {
				levels = append(levels, float64(l.fine.Level(at, airWindow)))
			}
		}
		if len(levels) > 0 && music.Seconds(len(levels))*airStep > (to-from)/2 &&
			music.Decibels(dsp.Median(levels)) > quiet+2*airOverQuiet {
			return true
		}
	}
	return false
}

type run struct{ from, to int }

// burstsAbove returns the stretches of levels above the gate, joined over
// flickers and without the shortest.
func burstsAbove(levels []float64, gate float64) (out []run) {
	for n := 0; n < len(levels); {
		if levels[n] < gate {
			n++
			continue
		}
		r := run{n, n}
		for r.to < len(levels) && levels[r.to] >= gate {
			r.to++
		}
		n = r.to
		if k := len(out); k > 0 && music.Seconds(r.from-out[k-1].to)*airStep < burstApart {
			out[k-1].to = r.to
			continue
		}
		out = append(out, r)
	}
	kept := out[:0]
	for _, r := range out {
		if music.Seconds(r.to-r.from)*airStep >= burstLeast {
			kept = append(kept, r)
		}
	}
	return kept
}

// spread is the standard deviation of the bursts' energies over their mean.
func spread(bursts []run, levels []float64) float64 {
	energies := make([]float64, len(bursts))
	mean := 0.
	for n, b := range bursts {
		for _, v := range levels[b.from:b.to] {
			energies[n] += math.Pow(10, v/10)
		}
		mean += energies[n] / float64(len(bursts))
	}
	return deviation(energies) / math.Max(mean, 1e-30)
}
