// Package example shows what a class's schools make of one instrument, in a few words: a
// line for every question on which teachers differ.
package example

import (
	"fmt"
	"sync"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/plan"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// Effect is what one convention makes of an example.
type Effect struct {
	About string `json:"about"`
	Text  string `json:"text"`
}

// Of works a small example out for a player under a class's conventions. What does not
// suit the instrument is left out.
func Of(who exercise.Player, c exercise.Conventions) []Effect {
	e := effects{who: who, c: c, out: []Effect{}}
	e.add("Order of a warm-up", plan.Reason(c.Begin))
	e.add("The class's long tone", longTone(c))
	e.of("Tuning", "tune", tuning)
	e.of("A note's start and end", "start", firstNote)
	e.of("Fingers in a chromatic run", "run", fingers)
	e.of("A low start, twice", "twice", lowStarts)
	e.of("C in the staff", "c", firstFinger)
	e.of("Buzzing", "buzz", firstWords)
	e.of("A buzz that moves", "slide", firstBuzz)
	e.of("High and low", "high-low", firstBuzz)
	e.of("Before it is played", "sing", beforePlaying)
	e.of("What the air does", "slur", secondNote)
	e.of("A picture for air", "air", firstItem)
	e.add(fmt.Sprintf("Clean at stage %d", who.Stage), limits(c, who.Stage))
	e.add("A tip", tip(who.Instrument, c))
	shown := "the ribbon from the start"
	if c.EarsFirst() {
		shown = "no pitch until the take is over"
	}
	e.add("On screen while playing", shown)
	return e.out
}

type effects struct {
	who exercise.Player
	c   exercise.Conventions
	out []Effect
}

func (e *effects) add(about, text string) {
	if text != "" {
		e.out = append(e.out, Effect{about, text})
	}
}

// of adds what a step says, where it suits the instrument.
func (e *effects) of(about, step string, says func(scores.Score) string) {
	if s, err := steps()[step].Score(e.who, e.c); err == nil {
		e.add(about, says(s))
	}
}

// steps are what the example is made of, read once: each is checked against every
// instrument when it is.
var steps = sync.OnceValue(func() map[string]exercise.Step {
	return map[string]exercise.Step{
		"tune":     exercise.New(exercise.KindTuningNote, nil),
		"start":    exercise.New("starts-and-ends", nil),
		"run":      run(1),
		"twice":    run(2),
		"c":        exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{2}}),
		"buzz":     exercise.New("buzz-at-once", nil),
		"slide":    exercise.New("buzz-slide", nil),
		"high-low": exercise.New("high-low-buzz", nil),
		"sing":     exercise.New("sing-first", nil),
		"slur":     exercise.New("slur-across-partials", nil),
		"air":      exercise.New("air-off", nil),
	}
})

func run(loops int) exercise.Step {
	return exercise.New("chromatic-loop", map[string]any{"half": "whole", "loops": loops})
}

func longTone(c exercise.Conventions) string {
	step := c.LongToneStep()
	if c.LongTempo == exercise.OwnTempo && step.Kind.Key == exercise.KindLongToneCounted {
		return step.Sentence() + ", or slower or faster as the player likes"
	}
	return step.Sentence()
}

func tuning(s scores.Score) string {
	t := s.Targets()[0]
	return fmt.Sprintf("%s, sounding %s, %.1f Hz", t.WrittenName, t.Concert, t.Target.Frequency(s.A4Hz))
}

func firstNote(s scores.Score) string  { return s.Targets()[0].Text }
func secondNote(s scores.Score) string { return s.Targets()[1].Text }
func firstItem(s scores.Score) string  { return s.Items[0] }

func firstFinger(s scores.Score) string {
	if t := s.Targets()[0]; t.Fingering != nil {
		return t.WrittenName + " " + t.Fingering.Text
	}
	return ""
}

// firstBuzz is what the first buzz says; for who does not buzz, what is done instead.
func firstBuzz(s scores.Score) string {
	if len(s.Notices) > 0 && len(s.Targets()) == 0 {
		return s.Notices[0]
	}
	return firstNote(s)
}

// firstWords is what a score says first: a notice, or what to do.
func firstWords(s scores.Score) string {
	if len(s.Notices) > 0 {
		return s.Notices[0]
	}
	return s.Segments[0].Text
}

func beforePlaying(s scores.Score) string {
	if s.Targets()[0].Phase == scores.Sing {
		return "it is sung while the fingers go along"
	}
	return "it is played at once"
}

// fingers lists the fingerings of a run that have other ways, up and down: there the
// schools differ.
func fingers(s scores.Score) (out string) {
	shown := 0
	for _, t := range s.Targets() {
		// Six show the school; a whole octave would fill the page.
		if shown == 6 || t.Fingering == nil || len(t.Fingering.Alternates) == 0 || t.Hard {
			continue
		}
		if shown++; shown > 1 {
			out += ", "
		}
		out += t.WrittenName + " " + t.Fingering.Text
	}
	return out
}

// lowStarts is how two loops begin where the little fingers take turns.
func lowStarts(s scores.Score) (out string) {
	sides := []string{}
	for _, t := range s.Targets() {
		if t.Side != "" && t.Articulation != scores.Slurred {
			sides = append(sides, t.Side)
		}
	}
	if len(sides) < 2 {
		return ""
	}
	return fmt.Sprintf("the %s little finger begins, then the %s", sides[0], sides[len(sides)-1])
}

// limits says what is clean at a stage.
func limits(c exercise.Conventions, stage scores.Stage) string {
	hard := "counted as tried"
	if c.HardNotes == exercise.GradedAlike {
		hard = "graded like the rest"
	}
	l := c.LimitsOf(stage)
	return fmt.Sprintf("within ±%.0f cents, wavering at most ±%.0f, changes in %.0f ms, hard notes %s",
		l.Centre, l.Waver, 1000*l.ChangeTime, hard)
}

func tip(i instrument.Instrument, c exercise.Conventions) string {
	spot := verdict.Situation{Instrument: i, Direction: measure.High}
	tips := (verdict.Book{}).Answers(measure.CauseSteadiness, spot)
	if len(tips) == 0 {
		return ""
	}
	return say.For(i, c, nil).Advice(tips[0]).Text
}
