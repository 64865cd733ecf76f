package api

import (
	"context"
	"encoding/json"
	"errors"
	"io"
	"net/http"
	"strconv"

	"earlychorus/server/intake"
	"earlychorus/server/problem"
	"earlychorus/server/store"

	"github.com/go-chi/chi/v5"
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

// receivedOutput says how many bytes have come, so that a device goes on from there
// after its network came back.
type receivedOutput struct{ Body Received }

// showReceived tells a device where to go on.
func (a *API) showReceived(ctx context.Context, in *TakePath) (*receivedOutput, error) {
	player := a.who(ctx).Subject
	out := &receivedOutput{}
	// A take that was accepted has no parts any more; the device may forget it, if its sound
	// is here indeed.
	known, err := a.Store.TakeFor(ctx, a.who(ctx), in.Take)
	if err == nil {
		out.Body.Safe, err = a.Intake.Safe(ctx, known)
	}
	if out.Body.Safe || err != nil && !errors.Is(err, store.ErrNotFound) {
		return out, err
	}
	out.Body.Bytes, err = a.Recordings.Received(ctx, player, in.Take)
	if err != nil {
		return nil, err
	}
	return out, nil
}

// uploadPart keeps a part of a take: PUT /takes/{uuid}/parts/{offset}.
func (a *API) uploadPart(w http.ResponseWriter, r *http.Request) error {
	take, player := chi.URLParam(r, "take"), a.who(r.Context()).Subject
	offset, err := strconv.ParseInt(chi.URLParam(r, "offset"), 10, 64)
	if err != nil || offset < 0 || offset > mostParts || !store.IsID(take) {
		return problem.Input("offset", "name the take by its UUID, and where the part begins in bytes")
	}
	if err := a.roomFor(r.Context(), player, take); err != nil {
		return err
	}
	// A part is sound that is kept, too.
	may, err := a.Store.MayOf(r.Context(), player)
	if err != nil {
		return err
	}
	if !may.Record {
		return intake.ErrNoConsent
	}
	part, err := io.ReadAll(r.Body)
	if err != nil {
		return err
	}
	if err := a.Recordings.PutPart(r.Context(), player, take, offset, part); err != nil {
		return err
	}
	received, err := a.Recordings.Received(r.Context(), player, take)
	if err != nil {
		return err
	}
	answerJSON(w, Received{Bytes: received}) // the part is kept even if the asker is gone
	return nil
}

// What a player may have under way, so that nobody fills the disk: a week offline is far
// less.
const (
	mostUnfinished = 40
	mostWaiting    = 256 << 20
)

// roomFor refuses a part where its player has too much under way already.
func (a *API) roomFor(ctx context.Context, player, take string) error {
	waiting, err := a.Recordings.WaitingOf(ctx, player, take)
	if err != nil {
		return err
	}
	if waiting.Takes >= mostUnfinished || waiting.Bytes >= mostWaiting {
		return problem.Of(
			problem.TooManyTries,
			"Too many recordings are half sent. Wait until the others have arrived; none is lost.",
			nil,
		)
	}
	return nil
}

// sealTake accepts a take whose parts are all here: POST /takes/{uuid}/seal, with
// the query of uploadTake. 201 the first time, 200 again.
func (a *API) sealTake(w http.ResponseWriter, r *http.Request) error {
	upload, err := a.uploadFrom(r)
	if err != nil {
		return err
	}
	if known, err := a.Store.TakeFor(r.Context(), a.who(r.Context()), upload.ID); err == nil {
		safe, err := a.Intake.Safe(r.Context(), known)
		if err != nil {
			return err
		}
		if safe { // sealed before; what came late is nobody's
			err := a.Recordings.DropParts(r.Context(), upload.Player.ID, upload.ID)
			if err == nil {
				answerTake(w, known.ID, false)
			}
			return err
		}
	}
	size, err := strconv.ParseInt(r.URL.Query().Get("size"), 10, 64)
	if err != nil || size <= 0 || size > largestUpload {
		return problem.Input("size", "say how many bytes the whole take has")
	}
	received, err := a.Recordings.Received(r.Context(), upload.Player.ID, upload.ID)
	if err != nil {
		return err
	}
	// The seal may overtake the last part on another connection.
	if received != size {
		return problem.Of(
			problem.Conflict,
			"Part of the recording has not arrived yet. It is sent again by itself.",
			nil,
		)
	}
	accepted, err := a.Intake.File(r.Context(), upload, a.Recordings.Parts(r.Context(), upload.Player.ID, upload.ID))
	if err != nil {
		return err
	}
	if err := a.Recordings.DropParts(r.Context(), upload.Player.ID, upload.ID); err != nil {
		return err
	}
	answerTake(w, upload.ID, accepted)
	return nil
}

// answerTake answers 201 for a take that is new and 200 for one that was here
// already: the device may forget it in either case.
func answerTake(w http.ResponseWriter, id string, accepted bool) {
	w.Header().Set("Content-Type", "application/json")
	if accepted {
		w.WriteHeader(http.StatusCreated)
	}
	_ = json.NewEncoder(w).Encode(map[string]string{"id": id}) // the take is safe even if the asker is gone
}
