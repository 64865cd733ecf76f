package api

import (
	"encoding/json"
	"errors"
	"log/slog"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"earlychorus/core/exercise"
	"earlychorus/server/intake"
	"earlychorus/server/store"
)

// problem turns an error into its answer. It alone knows which error is which
// status; what is nobody's fault is logged here and told plainly.
func problem(err error) huma.StatusError {
	var parameter exercise.ParameterError
	var kind exercise.UnknownKindError
	var conflict store.ConflictError
	var refused intake.RefusedError
	var tooLarge *http.MaxBytesError
	var known huma.StatusError
	switch {
	case errors.As(err, &known):
		return known
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("There is nothing here, or it is not yours to see.")
	case errors.As(err, &parameter):
		return huma.Error422UnprocessableEntity(
			parameter.Remedy,
			&huma.ErrorDetail{Location: "body." + parameter.Field, Message: parameter.Remedy},
		)
	case errors.As(err, &kind):
		return huma.Error422UnprocessableEntity(
			"Choose a kind of the catalogue.",
			&huma.ErrorDetail{
				Location: "body.kind",
				Message:  "choose one of " + strings.Join(exercise.KindKeys(), ", "),
			},
		)
	case errors.Is(err, exercise.ErrNotFor):
		return huma.Error422UnprocessableEntity("This step is not for this instrument.")
	case errors.As(err, &conflict):
		return huma.Error409Conflict(conflict.Reason)
	case errors.As(err, &tooLarge):
		return huma.NewError(
			http.StatusRequestEntityTooLarge,
			"The recording is larger than 128 MB. Record just the step.",
		)
	case errors.As(err, &refused) && refused.TooBig:
		return huma.NewError(http.StatusRequestEntityTooLarge, refused.Reason)
	case errors.As(err, &refused) && refused.Unknown:
		return huma.Error415UnsupportedMediaType(refused.Reason)
	case errors.As(err, &refused):
		return huma.Error422UnprocessableEntity(refused.Reason)
	}
	slog.Error("request failed", "error", err)
	return huma.Error500InternalServerError(
		"Something went wrong on our side. Nothing of yours was lost; please try again.",
	)
}

// problemOrNil is problem for what may have gone well.
func problemOrNil(err error) error {
	if err == nil {
		return nil
	}
	return problem(err)
}

// fail answers a plain handler's error in the same shape as problem's.
func fail(w http.ResponseWriter, err error) {
	p := problem(err)
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(p.GetStatus())
	_ = json.NewEncoder(w).Encode(p) // the asker may be gone
}

func isUUID(s string) bool {
	_, err := uuid.Parse(s)
	return err == nil
}
