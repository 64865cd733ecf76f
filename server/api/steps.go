package api

import (
	"context"
	"encoding/json"
	"errors"
	"slices"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/known"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/server/store"
)

// StepDetail is a step being written.
type StepDetail struct {
	Kind       exercise.Kind  `json:"kind" doc:"what an editor needs to know of its parameters"`
	Sentence   string         `json:"sentence"`
	Seconds    music.Seconds  `json:"seconds" doc:"how long one take lasts"`
	Parameters map[string]any `json:"parameters" doc:"by key, as the kind lists them"`
	Choices    []NoteChoice   `json:"choices" doc:"the notes a step may ask for" nullable:"false"`
	Written    []WrittenStep  `json:"written" doc:"what each instrument of the class reads" nullable:"false"`
	LeftOut    []string       `json:"left_out" doc:"instruments of the class that it is not for" nullable:"false"`
}

// NoteChoice is a concert note a step may ask for.
type NoteChoice struct {
	Degree    exercise.Degree `json:"degree"`
	Concert   string          `json:"concert"`
	Below     bool            `json:"below" doc:"it lies below the home note"`
	FirstFive bool            `json:"first_five"`
}

// WrittenStep is a step as one instrument reads it.
type WrittenStep struct {
	Instrument string       `json:"instrument"`
	Score      scores.Score `json:"score"`
}

// stepOutput is a step with every kind of player the class has.
type stepOutput struct{ Body StepDetail }

// previewInput is a step before it is one: a kind and parameters, as they stand in a
// form.
type previewInput struct {
	Class string `path:"class" format:"uuid"`
	Body  struct {
		Kind       string         `json:"kind" doc:"a key of the catalogue"`
		Parameters map[string]any `json:"parameters"`
	}
}

// previewStep works parameters out for every instrument without keeping them.
func (a *API) previewStep(ctx context.Context, in *previewInput) (*stepOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	raw, err := json.Marshal(in.Body.Parameters)
	if err != nil {
		return nil, err
	}
	return a.detail(ctx, class, store.Step{Kind: in.Body.Kind, Parameters: raw})
}

// detail works a step out for every instrument in the class.
func (a *API) detail(ctx context.Context, class store.Class, step store.Step) (*stepOutput, error) {
	asked, err := step.Exercise()
	if err != nil {
		return nil, err
	}
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	out := StepDetail{
		Kind:       *asked.Kind,
		Sentence:   asked.Sentence(),
		Parameters: asked.Values,
		Choices:    noteChoices(),
		Written:    []WrittenStep{},
		LeftOut:    []string{},
	}
	for _, i := range instrument.Band() {
		n := slices.IndexFunc(players, func(p store.Player) bool { return p.Instrument == i.Key })
		if n < 0 {
			continue
		}
		p := players[n]
		p.Class = class
		built, err := p.Plays()
		if err != nil {
			return nil, err
		}
		// What the instrument is asked for, from the step's own rung: nobody's own.
		today := class.Day(a.Now())
		who := exercise.Player{Instrument: built, Stage: p.StageOn(today)}
		who.Known, who.New = class.NotesOn(built, known.Own{}, today)
		score, err := asked.Score(who, class.Conventions())
		if errors.Is(err, exercise.ErrNotFor) {
			out.LeftOut = append(out.LeftOut, i.Name)
			continue
		}
		if err != nil {
			return nil, err
		}
		out.Seconds = score.Seconds()
		out.Written = append(out.Written, WrittenStep{i.Name, score})
	}
	return &stepOutput{out}, nil
}

// noteChoices are the notes a step may ask for, by concert name, the first five
// marked: that is how directors ask.
func noteChoices() []NoteChoice {
	out := []NoteChoice{}
	for d := exercise.LowestDegree; d <= exercise.HighestDegree; d++ {
		out = append(out, NoteChoice{d, d.ConcertName(), d < 0, slices.Contains(exercise.FirstFive, d)})
	}
	return out
}

// catalogueOutput is every kind with its parameters; the page's forms are made of
// it.
type catalogueOutput struct {
	Body struct {
		Kinds   []*exercise.Kind `json:"kinds" nullable:"false"`
		Choices []NoteChoice     `json:"choices" nullable:"false" doc:"the notes a step may ask for"`
	}
}

// showCatalogue lists the kinds of exercise and their parameters.
func (a *API) showCatalogue(context.Context, *struct{}) (*catalogueOutput, error) {
	out := &catalogueOutput{}
	out.Body.Kinds, out.Body.Choices = exercise.Catalogue(), noteChoices()
	return out, nil
}
