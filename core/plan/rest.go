package plan

import (
	"earlychorus/core/exercise"
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// While lips rest from buzzing there is time to breathe, and while the others
// buzz there is something for those who do not.
const (
	shortestFill music.Beats = 8 // a rest as long as one breath in and out
	breathIn     music.Beats = 4
)

// FillRests puts breathing into the long rests of a buzzing step, to the same
// beats. Other scores are returned as they are.
func FillRests(s scores.Score) scores.Score {
	k, err := exercise.Get(s.Kind)
	if err != nil || k.Group != scores.Buzzing {
		return s
	}
	var out []scores.Segment
	for n, seg := range s.Segments {
		last := n == len(s.Segments)-1
		// The beats of the next breath belong to the rest.
		if seg.Phase != scores.Rest || last || seg.Beats+breathOf(s.Segments, n) < shortestFill {
			out = append(out, seg)
			continue
		}
		out = append(out, breaths(seg)...)
	}
	s.Segments = out
	return s.Marked()
}

func breathOf(segments []scores.Segment, n int) music.Beats {
	if n+1 < len(segments) && segments[n+1].Phase == scores.Breathe {
		return segments[n+1].Beats
	}
	return 0
}

// breaths fills a rest with slow breaths; what is left over stays a rest.
func breaths(rest scores.Segment) (out []scores.Segment) {
	at, end := rest.StartBeat, rest.StartBeat+rest.Beats
	add := func(phase scores.Phase, beats music.Beats, text string) {
		if beats = min(beats, end-at); beats > 0 {
			out = append(out, scores.Segment{
				Phase:     phase,
				StartBeat: at,
				Beats:     beats,
				Text:      text,
			})
			at += beats
		}
	}
	for end-at >= 2*breathIn {
		add(scores.Breathe, breathIn, "In slowly, lips loose")
		add(scores.Rest, breathIn, "Out without sound")
	}
	add(scores.Rest, end-at, rest.Text)
	return out
}

// Meanwhile is what a player does to the same beats while others do a step that
// is not for this instrument: home, held while they rest, and quiet breath while
// they sound. of is their score. Errors: those of exercise.Step.Score.
func Meanwhile(of scores.Score, p exercise.Player, c exercise.Conventions) (scores.Score, error) {
	home, err := exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{0}}).Score(p, c)
	if err != nil {
		return scores.Score{}, err
	}
	note := home.Targets()[0]
	s := home
	s.Title = "Play your " + note.Called + " while the brass rest"
	s.TempoBPM, s.Segments, s.Rules = of.TempoBPM, nil, nil
	for _, seg := range of.Segments {
		mine := scores.Segment{
			Phase:     scores.Rest,
			StartBeat: seg.StartBeat,
			Beats:     seg.Beats,
			Text:      "Breathe quietly and listen",
		}
		switch {
		case seg.Phase == scores.Ready:
			mine.Phase, mine.Text = scores.Ready, "Instrument up"
		case seg.Phase == scores.Rest && seg.StartBeat+seg.Beats < of.Beats():
			mine = note
			mine.StartBeat, mine.Beats, mine.Text = seg.StartBeat, seg.Beats, "Play "+note.Called+
				" while they rest"
		}
		s.Segments = append(s.Segments, mine)
	}
	return s, nil
}

// CountAlong is what percussion does to the same beats while the others play: it counts,
// and breathes where they breathe. of is their score.
func CountAlong(of scores.Score, i instrument.Instrument) scores.Score {
	s := of
	s.Title, s.Instrument = "While the others play: count, breathe and listen", i.Key
	s.Segments, s.Rules, s.Notices = nil, []scores.Rule{}, []string{}
	s.Items, s.Pictures = []string{}, []scores.Picture{}
	s.Crossing, s.Growing, s.Alternates, s.EarsFirst = false, false, false, false
	for _, seg := range of.Segments {
		mine := scores.Segment{
			Phase:     seg.Phase,
			StartBeat: seg.StartBeat,
			Beats:     seg.Beats,
			Text:      seg.Text,
		}
		if seg.Phase.Sounds() || seg.Phase == scores.Finger || seg.Phase == scores.Free {
			mine.Phase, mine.Text = scores.Rest, fmt.Sprintf("Count %v and listen", float64(seg.Beats))
		}
		s.Segments = append(s.Segments, mine)
	}
	s.Load = scores.LoadOf(s, i)
	return s.Marked()
}
