package api

import (
	"context"
	"encoding/json"
	"io"
	"net/http"
	"strconv"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/exercise"
	"earlychorus/server/store"
)

// Received is how much of a take has arrived.
type Received struct {
	Bytes int64 `json:"received" doc:"without a hole, from the first"`
	Safe  bool  `json:"safe" doc:"the whole take was accepted"`
}

const (
	largestPart = 1 << 20
	mostParts   = largestUpload
)

type receivedOutput struct{ Body Received }

// showReceived tells a device where to go on.
func (a *API) showReceived(ctx context.Context, in *TakePath) (*receivedOutput, error) {
	player := a.who(ctx).PlayerID
	out := &receivedOutput{}
	if _, err := a.Store.TakeOfPlayer(ctx, in.Take, player); err == nil {
		out.Body.Safe = true
		return out, nil
	}
	var err error
	out.Body.Bytes, err = a.Recordings.Received(ctx, player, in.Take)
	if err != nil {
		return nil, problem(err)
	}
	return out, nil
}

// uploadPart keeps a part of a take: PUT /takes/{uuid}/parts/{offset}.
func (a *API) uploadPart(w http.ResponseWriter, r *http.Request) {
	take, player := chi.URLParam(r, "take"), a.who(r.Context()).PlayerID
	offset, err := strconv.ParseInt(chi.URLParam(r, "offset"), 10, 64)
	if err != nil || offset < 0 || offset > mostParts || !isUUID(take) {
		fail(
			w,
			exercise.ParameterError{
				Field:  "offset",
				Remedy: "name the take by its UUID, and where the part begins in bytes",
			},
		)
		return
	}
	part, err := io.ReadAll(r.Body)
	if err != nil {
		fail(w, err)
		return
	}
	if err := a.Recordings.PutPart(r.Context(), player, take, offset, part); err != nil {
		fail(w, err)
		return
	}
	received, err := a.Recordings.Received(r.Context(), player, take)
	if err != nil {
		fail(w, err)
		return
	}
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(Received{Bytes: received}) // the part is kept even if the asker is gone
}

// sealTake accepts a take whose parts are all here: POST /takes/{uuid}/seal, with
// the query of uploadTake. 201 the first time, 200 again.
func (a *API) sealTake(w http.ResponseWriter, r *http.Request) {
	hand, err := a.handFrom(r)
	if err != nil {
		fail(w, err)
		return
	}
	if known, err := a.Store.TakeOfPlayer(r.Context(), hand.ID, hand.Player.ID); err == nil {
		answerTake(w, known.ID, false) // sealed before, and the parts are gone
		return
	}
	size, err := strconv.ParseInt(r.URL.Query().Get("size"), 10, 64)
	if err != nil || size <= 0 || size > largestUpload {
		fail(w, exercise.ParameterError{Field: "size", Remedy: "say how many bytes the whole take has"})
		return
	}
	received, err := a.Recordings.Received(r.Context(), hand.Player.ID, hand.ID)
	if err != nil {
		fail(w, err)
		return
	}
	if received != size {
		fail(w, store.ConflictError{Reason: "Part of the recording has not arrived yet. It is sent again by itself."})
		return
	}
	accepted, err := a.Intake.File(r.Context(), hand, a.Recordings.Parts(r.Context(), hand.Player.ID, hand.ID))
	if err != nil {
		fail(w, err)
		return
	}
	if err := a.Recordings.DropParts(r.Context(), hand.Player.ID, hand.ID); err != nil {
		fail(w, err)
		return
	}
	answerTake(w, hand.ID, accepted)
}

func answerTake(w http.ResponseWriter, id string, accepted bool) {
	w.Header().Set("Content-Type", "application/json")
	if accepted {
		w.WriteHeader(http.StatusCreated)
	}
	_ = json.NewEncoder(w).Encode(map[string]string{"id": id}) // the take is safe even if the asker is gone
}
