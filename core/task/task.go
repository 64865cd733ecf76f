// Package task tells a step before it is played: what to do in one sentence, what comes
// after what, and the music of it, once, with how often it comes.
package task

import (
	"earlychorus/core/bars"
	"earlychorus/core/scores"
)

// Task is a step as its player is told it.
type Task struct {
	Sentence string     `json:"sentence" doc:"what to do, in a child's words"`
	Course   []Link     `json:"course" nullable:"false" doc:"what comes after what; what comes again is there once"`
	Times    int        `json:"times" doc:"how often the course and the music come, from 1"`
	Bars     []bars.Bar `json:"bars" nullable:"false" doc:"the music of it, once; none where nothing is written"`
}

// Of tells a score.
func Of(s scores.Score) Task { return told(s, sentence(s)) }

// OfPart tells what was taken out of a score: as what it is, whatever the whole was for.
func OfPart(s scores.Score) Task {
	switch targets := s.Targets(); len(targets) {
	case 0:
		return told(s, "Move your fingers to the click. Make no sound.")
	case 1:
		return told(s, wayOf(targets[0].Phase, "hold")+" "+targets[0].Called+" for "+forBeats(targets[0].Beats)+".")
	}
	return told(s, joined(s))
}

// told is a score with what is said of it.
func told(s scores.Score, sentence string) Task {
	p := phraseOf(s)
	return Task{
		Sentence: sentence,
		Course:   course(s.Segments[p.from:p.to]),
		Times:    p.times,
		Bars:     written(s, p),
	}
}

// written engraves a phrase, without the count-in before it and the rest behind it. The
// symbols' segments are the score's.
func written(s scores.Score, p phrase) []bars.Bar {
	from, to := p.from, p.to
	for from < to && isQuiet(s.Segments[from]) {
		from++
	}
	for to > from && isQuiet(s.Segments[to-1]) {
		to--
	}
	if !isWritten(s.Segments[from:to]) {
		return []bars.Bar{}
	}
	once := s
	once.Segments = append([]scores.Segment{}, s.Segments[from:to]...)
	begin := once.Segments[0].StartBeat
	for n := range once.Segments {
		once.Segments[n].StartBeat -= begin
		if s.Growing { // as long as one can: a bar of it says as much as eight
			once.Segments[n].Beats = min(once.Segments[n].Beats, bars.BeatsPerBar)
		}
	}
	out := bars.Of(once)
	for b := range out {
		for k := range out[b].Symbols {
			out[b].Symbols[k].Segment += from
		}
	}
	return out
}

// isWritten reports whether any of some segments is a note on the staff.
func isWritten(segments []scores.Segment) bool {
	for _, seg := range segments {
		if seg.Written != nil && (seg.Phase.Active() || seg.Phase == scores.Finger) {
			return true
		}
	}
	return false
}

func isQuiet(seg scores.Segment) bool {
	switch seg.Phase {
	case scores.Ready, scores.Rest, scores.Breathe, scores.Hold:
		return true
	}
	return false
}
