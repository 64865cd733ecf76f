package api

import (
	"context"
	"fmt"

	"earlychorus/core/exercise"
	"earlychorus/core/measure"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// exampleInput asks what conventions would make of one instrument and stage, before
// they are saved.
type exampleInput struct {
	ClassPath
	Body struct {
		Conventions exercise.Conventions `json:"conventions"`
		Instrument  string               `json:"instrument"`
		Stage       scores.Stage         `json:"stage" minimum:"1" maximum:"4"`
	}
}

// exampleOutput is the effects in words. Music is worked out here and never in the
// page.
type exampleOutput struct {
	Body struct {
		Effects []Effect `json:"effects" nullable:"false"`
	}
}

// Effect is what one convention makes of an example.
type Effect struct {
	About string `json:"about"`
	Text  string `json:"text"`
}

// showExample works a small example out under conventions that are being set.
func (a *API) showExample(ctx context.Context, in *exampleInput) (*exampleOutput, error) {
	if _, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class); err != nil {
		return nil, err
	}
	c := in.Body.Conventions
	if err := c.Check(); err != nil {
		return nil, err
	}
	who, err := NotationAsked{Instrument: in.Body.Instrument, Stage: in.Body.Stage}.player()
	if err != nil {
		return nil, err
	}
	out := &exampleOutput{}
	out.Body.Effects = []Effect{}
	add := func(about, text string) {
		if text != "" {
			out.Body.Effects = append(out.Body.Effects, Effect{about, text})
		}
	}
	add("The class's long tone", c.LongToneStep().Sentence())
	// Examples that do not suit the instrument are left out without a word.
	if s, err := exercise.New(exercise.KindTuningNote, nil).Score(who, c); err == nil {
		t := s.Targets()[0]
		add("Tuning", fmt.Sprintf("%s, sounding %s, %.1f Hz", t.WrittenName, t.Concert, t.Target.Frequency(c.A4)))
	}
	if s, err := exercise.New("chromatic-loop", map[string]any{"half": "whole", "loops": 1}).Score(who, c); err == nil {
		add("Fingers in a chromatic run", fingersOf(s))
	}
	if s, err := exercise.New("buzz-at-once", nil).Score(who, c); err == nil {
		add("Buzzing", firstWords(s))
	}
	add(fmt.Sprintf("Clean at stage %d", in.Body.Stage), limitsInWords(c, in.Body.Stage))
	spot := verdict.Situation{Instrument: who.Instrument, Direction: measure.High}
	if tips := (verdict.Book{}).Answers(measure.CauseSteadiness, spot); len(tips) > 0 {
		add("A tip", say.For(who.Instrument, c, nil).Advice(tips[0]).Text)
	}
	shown := "the ribbon from the start"
	if c.EarsFirst() {
		shown = "no pitch until the take is over"
	}
	add("On screen while playing", shown)
	return out, nil
}

// limitsInWords says what is clean at a stage.
func limitsInWords(c exercise.Conventions, stage scores.Stage) string {
	hard := "counted as tried"
	if c.HardNotes == exercise.GradedAlike {
		hard = "graded like the rest"
	}
	l := c.LimitsOf(stage)
	return fmt.Sprintf("within ±%.0f cents, wavering at most ±%.0f, changes in %.0f ms, hard notes %s",
		l.Centre, l.Waver, 1000*l.ChangeTime, hard)
}

// fingersOf lists the fingerings of the first notes of a score.
func fingersOf(s scores.Score) (out string) {
	for n, t := range s.Targets() {
		// Six fingerings show the school; a whole octave would fill the page.
		if n == 6 {
			break
		}
		if t.Fingering != nil {
			if out != "" {
				out += ", "
			}
			out += t.WrittenName + " " + t.Fingering.Text
		}
	}
	return out
}

// firstWords is what a score says first: a notice, or what to do.
func firstWords(s scores.Score) string {
	if len(s.Notices) > 0 {
		return s.Notices[0]
	}
	return s.Segments[0].Text
}
