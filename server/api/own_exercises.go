package api

import (
	"context"
	"encoding/json"
	"errors"
	"strings"

	"github.com/google/uuid"

	"earlychorus/core/exercise"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// OwnExercise is a step that a director keeps under a name.
type OwnExercise struct {
	ID         string         `json:"id"`
	Name       string         `json:"name"`
	Kind       string         `json:"kind" doc:"a key of the catalogue"`
	Parameters map[string]any `json:"parameters"`
	Sentence   string         `json:"sentence" doc:"what it asks for"`
}

// ownExercisesOutput is the director's own exercises, by name.
type ownExercisesOutput struct {
	Body struct {
		Exercises []OwnExercise `json:"exercises" nullable:"false"`
	}
}

// listOwnExercises lists the asker's own. They belong to a director and not to a class, so
// that all of their classes have them.
func (a *API) listOwnExercises(ctx context.Context, _ *struct{}) (*ownExercisesOutput, error) {
	rows, err := a.Store.OwnExercises(ctx, a.who(ctx).Subject)
	if err != nil {
		return nil, err
	}
	out := &ownExercisesOutput{}
	out.Body.Exercises = []OwnExercise{}
	for _, r := range rows {
		step, err := r.Exercise()
		if err != nil {
			return nil, err
		}
		out.Body.Exercises = append(out.Body.Exercises,
			OwnExercise{r.ID, r.Name, r.Kind, step.Values, step.Sentence()})
	}
	return out, nil
}

// ownExerciseInput is a step under its director's name.
type ownExerciseInput struct {
	Body struct {
		Name       string         `json:"name" minLength:"1" maxLength:"60"`
		Kind       string         `json:"kind"`
		Parameters map[string]any `json:"parameters"`
	}
}

// saveOwnExercise checks the step as a plan's is checked, and replaces an exercise of the
// same name.
func (a *API) saveOwnExercise(ctx context.Context, in *ownExerciseInput) (*ownExercisesOutput, error) {
	raw, err := json.Marshal(in.Body.Parameters)
	if err != nil {
		return nil, err
	}
	step, err := exercise.Parse(in.Body.Kind, raw)
	var bad exercise.ParameterError
	switch {
	case errors.As(err, &bad):
		return nil, problem.Input("parameters."+bad.Field, bad.Remedy)
	case err != nil:
		return nil, problem.Input("kind", "choose a kind of the catalogue")
	}
	name := strings.TrimSpace(in.Body.Name)
	if name == "" {
		return nil, problem.Input("name", "give it a name")
	}
	err = a.Store.SaveOwnExercise(ctx, store.OwnExercise{
		ID:         uuid.NewString(),
		DirectorID: a.who(ctx).Subject,
		Name:       name,
		Kind:       step.Kind.Key,
		Parameters: step.Parameters(),
		MadeAt:     a.Now().UTC(),
	})
	if err != nil {
		return nil, err
	}
	return a.listOwnExercises(ctx, nil)
}

// ownExercisePath is an exercise of the asker's own; a colleague's is not found.
type ownExercisePath struct {
	Exercise string `path:"exercise" format:"uuid"`
}

// deleteOwnExercise leaves the steps that were made of it as they are.
func (a *API) deleteOwnExercise(ctx context.Context, in *ownExercisePath) (*ownExercisesOutput, error) {
	if err := a.Store.DeleteOwnExercise(ctx, in.Exercise, a.who(ctx).Subject); err != nil {
		return nil, err
	}
	return a.listOwnExercises(ctx, nil)
}
