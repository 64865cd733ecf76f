package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"os"
	"strings"
	"syscall"

	"github.com/danielgtaylor/huma/v2"
	"github.com/jackc/pgx/v5/pgconn"

	"earlychorus/core/exercise"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// statuses is which kind of problem is which status.
var statuses = map[problem.Kind]int{
	problem.Unusable:      http.StatusUnprocessableEntity,
	problem.TooLarge:      http.StatusRequestEntityTooLarge,
	problem.UnknownFormat: http.StatusUnsupportedMediaType,
	problem.Conflict:      http.StatusConflict,
	problem.Missing:       http.StatusNotFound,
	problem.Gone:          http.StatusGone,
	problem.NotSignedIn:   http.StatusUnauthorized,
	problem.TooManyTries:  http.StatusTooManyRequests,
	problem.Foreign:       http.StatusForbidden,
}

// What the database refuses though it is well-formed JSON (PostgreSQL, appendix A).
const (
	pgerrcodeUnkeepable = "22021" // a NUL in a text
	pgerrcodeNoNumber   = "22P02" // what is no UUID
)

// statusOf turns an error into its answer. It alone knows which error is which
// status; the adapters in answering.go alone call it, so that no handler can
// forget to. What is nobody's fault is told plainly, and logged with its route.
func statusOf(err error, route string) huma.StatusError {
	var ours problem.Error
	var parameter exercise.ParameterError
	var kind exercise.UnknownKindError
	var tooLarge *http.MaxBytesError
	var refused *pgconn.PgError
	switch {
	case errors.As(err, &ours):
		return ofProblem(ours)
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("There is nothing here, or it is not yours to see.")
	case errors.As(err, &parameter):
		return ofProblem(problem.Input(parameter.Field, parameter.Remedy))
	case errors.As(err, &kind):
		return huma.Error422UnprocessableEntity("Choose a kind of the catalogue.", &huma.ErrorDetail{
			Location: "body.kind",
			Message:  "choose one of " + strings.Join(exercise.KindKeys(), ", "),
		})
	case errors.Is(err, exercise.ErrNotFor):
		return huma.Error422UnprocessableEntity("This step is not for this instrument.")
	case errors.As(err, &tooLarge):
		return huma.NewError(
			http.StatusRequestEntityTooLarge,
			fmt.Sprintf("This is larger than %s. Send less at once.", sizeInWords(tooLarge.Limit)),
		)
	case errors.Is(err, context.Canceled):
		// Whoever asked is gone: nobody reads this, and nothing is wrong.
		return huma.NewError(http.StatusRequestTimeout, "Nobody waited for the answer.")
	case errors.As(err, &refused) && refused.Code == pgerrcodeUnkeepable:
		return huma.Error422UnprocessableEntity("There is a sign in it that cannot be kept. Write it again without.")
	case errors.As(err, &refused) && refused.Code == pgerrcodeNoNumber:
		return huma.Error404NotFound("There is nothing here, or it is not yours to see.")
	case errors.Is(err, os.ErrDeadlineExceeded):
		return huma.NewError(http.StatusRequestTimeout, "The sending took too long. Send it again.")
	}
	if errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EDQUOT) {
		slog.Error("the disk is full", "route", route, "error", err)
		return huma.NewError(
			http.StatusInsufficientStorage,
			"The server has no room for more. Your device keeps the recording; please tell your director.",
		)
	}
	slog.Error("request failed", "route", route, "status", http.StatusInternalServerError, "error", err)
	return huma.Error500InternalServerError(
		"Something went wrong on our side. Nothing of yours was lost; please try again.",
	)
}

// sizeInWords is a limit as people say it.
func sizeInWords(bytes int64) string {
	if bytes < 1<<20 {
		return fmt.Sprintf("%d kB", bytes>>10)
	}
	return fmt.Sprintf("%d MB", bytes>>20)
}

// ofProblem puts each remedy at its field, as the page looks for it:
// "body.rows[3].first" for the fourth row's first name.
func ofProblem(p problem.Error) huma.StatusError {
	var details []error
	if p.Field != "" {
		details = append(details, &huma.ErrorDetail{Location: "body." + p.Field, Message: p.Remedy})
	}
	for _, d := range p.Details {
		details = append(details, &huma.ErrorDetail{Location: d.Field, Message: d.Remedy})
	}
	return huma.NewError(statuses[p.Kind], p.Remedy, details...)
}

// fail answers an error of a plain handler or a guard, in the shape that typed
// handlers' errors have.
func fail(w http.ResponseWriter, r *http.Request, err error) {
	answer := statusOf(err, r.Method+" "+r.URL.Path)
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(answer.GetStatus())
	_ = json.NewEncoder(w).Encode(answer) // the asker may be gone
}
