package exercise

import "earlychorus/core/scores"

// withFingersFirst opens a score with its first phrase fingered without sound, to
// the click.
func withFingersFirst(s scores.Score) scores.Score {
	var before, phrase, after []scores.Segment
	for n, seg := range s.Segments {
		switch {
		case seg.Phase == scores.Play && len(after) == 0:
			seg.Phase, seg.Text = scores.Finger, phaseVerbs[scores.Finger]+" "+seg.WrittenName
			phrase = append(phrase, seg)
		case len(phrase) == 0:
			before = append(before, seg)
		default:
			after = append(after, s.Segments[n])
		}
	}
	if len(phrase) == 0 {
		return s
	}
	// The breath comes after the fingers, before the sound.
	breath := len(before)
	if breath > 0 && before[breath-1].Phase == scores.Breathe {
		breath--
	}
	return inOrder(s, before[:breath], phrase, s.Segments[breath:])
}

// inOrder returns the score with other segments, one after the other.
func inOrder(s scores.Score, parts ...[]scores.Segment) scores.Score {
	s.Segments = nil
	for _, part := range parts {
		for _, seg := range part {
			seg.StartBeat = s.Beats()
			s.Segments = append(s.Segments, seg)
		}
	}
	return s
}
