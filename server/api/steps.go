package api

import (
	"context"
	"encoding/json"
	"slices"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/server/intake"
	"earlychorus/server/store"
)

// StepDetail is a step being looked at or changed.
type StepDetail struct {
	ID         string                   `json:"id"`
	Version    int                      `json:"version"`
	Sentence   string                   `json:"sentence"`
	Seconds    music.Seconds            `json:"seconds" doc:"how long one take lasts"`
	Parameters exercise.LongToneCounted `json:"parameters"`
	Choices    []NoteChoice             `json:"choices" nullable:"false" doc:"the notes a step may ask for"`
	Written    []WrittenStep            `json:"written" nullable:"false" doc:"what each instrument of the class reads"`
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
	Instrument string         `json:"instrument"`
	Score      exercise.Score `json:"score"`
}

// StepPath names a step of a class.
type StepPath struct {
	Class string `path:"class" format:"uuid"`
	Step  string `path:"step" format:"uuid"`
}

type stepOutput struct{ Body StepDetail }

func (a *API) showStep(ctx context.Context, in *StepPath) (*stepOutput, error) {
	class, step, err := a.stepOf(ctx, in)
	if err != nil {
		return nil, problem(err)
	}
	var p exercise.LongToneCounted
	if err := json.Unmarshal(step.Parameters, &p); err != nil {
		return nil, problem(err)
	}
	return a.detail(ctx, class, step, p)
}

func (a *API) stepOf(ctx context.Context, in *StepPath) (store.Class, store.Step, error) {
	class, err := a.Store.ClassOfDirector(ctx, in.Class, a.who(ctx).DirectorID)
	if err != nil {
		return class, store.Step{}, err
	}
	step, err := a.Store.StepOfClass(ctx, class.ID, in.Step)
	return class, step, err
}

type previewInput struct {
	Class string `path:"class" format:"uuid"`
	Body  exercise.LongToneCounted
}

// previewStep works parameters out for every instrument without keeping them.
func (a *API) previewStep(ctx context.Context, in *previewInput) (*stepOutput, error) {
	class, err := a.Store.ClassOfDirector(ctx, in.Class, a.who(ctx).DirectorID)
	if err != nil {
		return nil, problem(err)
	}
	return a.detail(ctx, class, store.Step{Kind: exercise.KindLongToneCounted}, in.Body)
}

type changeInput struct {
	StepPath
	Body struct {
		Based      int                      `json:"based_on_version" doc:"the version the change was made from"`
		Parameters exercise.LongToneCounted `json:"parameters"`
	}
}

func (a *API) changeStep(ctx context.Context, in *changeInput) (*stepOutput, error) {
	class, step, err := a.stepOf(ctx, &in.StepPath)
	if err != nil {
		return nil, problem(err)
	}
	p := in.Body.Parameters
	if err := p.Check(); err != nil {
		return nil, problem(err)
	}
	raw, err := json.Marshal(p)
	if err != nil {
		return nil, problem(err)
	}
	if err := a.Store.ChangeStep(ctx, step.ID, in.Body.Based, raw, a.Now().UTC()); err != nil {
		return nil, problem(err)
	}
	step.Version = in.Body.Based + 1
	return a.detail(ctx, class, step, p)
}

// detail works a step out for every instrument in the class.
func (a *API) detail(ctx context.Context, class store.Class, step store.Step, p exercise.LongToneCounted) (*stepOutput, error) {
	if err := p.Check(); err != nil {
		return nil, problem(err)
	}
	raw, err := json.Marshal(p)
	if err != nil {
		return nil, problem(err)
	}
	step.Parameters = raw
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, problem(err)
	}
	out := StepDetail{ID: step.ID, Version: step.Version, Sentence: p.Sentence(), Parameters: p, Choices: noteChoices(), Written: []WrittenStep{}}
	for _, i := range instrument.All() {
		n := slices.IndexFunc(players, func(p store.Player) bool { return p.Instrument == i.Key })
		if n < 0 {
			continue
		}
		player := players[n]
		player.Class = class
		score, _, err := intake.Score(step, player)
		if err != nil {
			return nil, problem(err)
		}
		out.Seconds = score.Seconds()
		out.Written = append(out.Written, WrittenStep{i.Name, score})
	}
	return &stepOutput{out}, nil
}

func noteChoices() []NoteChoice {
	out := []NoteChoice{}
	for d := exercise.LowestDegree; d <= exercise.HighestDegree; d++ {
		out = append(out, NoteChoice{d, d.ConcertName(), d < 0, slices.Contains(exercise.FirstFive, d)})
	}
	return out
}
