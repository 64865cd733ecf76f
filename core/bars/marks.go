package bars

import (
	"slices"
	"strings"

	"earlychorus/core/fmt"
	"earlychorus/core/scores"
)

// marks says at each symbol what is drawn beside it: loudness where it changes, hairpins,
// marks, and how the note is played.
func (w *barWriter) marks() {
	var loudness scores.Dynamic
	var manner string
	for b := range w.bars {
		for k := range w.bars[b].Symbols {
			s := &w.bars[b].Symbols[k]
			seg := w.score.Segments[s.Segment]
			if s.Rest {
				continue
			}
			if !s.TieTo {
				s.HairpinEnd = seg.DynamicTo != ""
			}
			if s.TieFrom {
				continue
			}
			s.Mark = seg.Mark
			if seg.Dynamic != loudness {
				s.Dynamic, loudness = seg.Dynamic, seg.Dynamic
			}
			if seg.DynamicTo != "" {
				s.Hairpin, loudness = hairpinOf(seg), ""
			}
			// Said once, where it changes: a line of eight notes is not told eight times.
			if now := mannerOf(seg); now != manner {
				s.Manner, manner = now, now
			}
		}
	}
}

func hairpinOf(seg scores.Segment) Hairpin {
	if seg.DynamicTo.Step() < seg.Dynamic.Step() {
		return Fade
	}
	return Grow
}

// mannerOf is how a note is played where a step asks for it; "" where it is played as any.
func mannerOf(seg scores.Segment) string {
	var out []string
	if seg.Articulation == scores.BreathStart {
		out = append(out, "no tongue")
	}
	if seg.Ending != "" {
		out = append(out, map[scores.Ending]string{scores.Taper: "taper", scores.Stopped: "stop"}[seg.Ending])
	}
	switch {
	case seg.Pulses == 1:
		out = append(out, "1 push a beat")
	case seg.Pulses > 1:
		out = append(out, fmt.Sprintf("%d pushes a beat", seg.Pulses))
	}
	if seg.Fingered > 0 && seg.Fingered != seg.Target {
		out = append(out, "overtone")
	}
	return strings.Join(slices.Compact(out), ", ")
}
