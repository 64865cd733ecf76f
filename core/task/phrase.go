package task

import "earlychorus/core/scores"

// phrase is the stretch of a score that comes again and again: segments from up to to, so
// many times.
type phrase struct{ from, to, times int }

// phraseOf finds the shortest stretch of which the whole score, behind its count-in, is
// made. The last time through may lack its rest.
func phraseOf(s scores.Score) phrase {
	from, to := 0, len(s.Segments)
	for from < to && s.Segments[from].Phase == scores.Ready {
		from++
	}
	for to > from && s.Segments[to-1].Phase == scores.Rest {
		to--
	}
	all := s.Segments[from:to]
	for length := 1; length <= len(all)/2+1; length++ {
		if times := timesOf(all, length); times > 1 {
			return phrase{from, from + length, times}
		}
	}
	return phrase{from, to, 1}
}

// timesOf counts how often the first segments make up all of them; 0 where they do not.
func timesOf(all []scores.Segment, length int) int {
	for n := length; n < len(all); n++ {
		if !alike(all[n], all[n-length]) {
			return 0
		}
	}
	whole, over := len(all)/length, len(all)%length
	if over == 0 {
		return whole
	}
	for _, missing := range all[over:length] {
		if !isQuiet(missing) {
			return 0
		}
	}
	return whole + 1
}

// alike reports whether two segments ask for the same.
func alike(a, b scores.Segment) bool {
	return a.Phase == b.Phase && a.Beats == b.Beats && a.Target == b.Target && a.GlideTo == b.GlideTo &&
		a.Articulation == b.Articulation && a.Mark == b.Mark && a.Dynamic == b.Dynamic &&
		a.DynamicTo == b.DynamicTo && a.Bursts == b.Bursts && a.Pulses == b.Pulses && a.Ending == b.Ending &&
		a.Side == b.Side && a.Fingered == b.Fingered && (!isQuiet(a) || a.Phase != scores.Rest || a.Text == b.Text)
}
