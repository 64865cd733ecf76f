package api

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"net/http"
	"strconv"
	"time"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/core/contour/packed"
	"earlychorus/core/exercise"
	"earlychorus/server/intake"
	"earlychorus/server/store"
)

// uploadTake accepts a WAV file: PUT /takes/{uuid}?step=&version=&source=&start_ms=.
// 201 the first time, 200 for the same bytes again.
func (a *API) uploadTake(w http.ResponseWriter, r *http.Request) {
	hand, err := a.handFrom(r)
	if err != nil {
		fail(w, err)
		return
	}
	accepted, err := a.Intake.File(r.Context(), hand, r.Body)
	if err != nil {
		fail(w, err)
		return
	}
	w.Header().Set("Content-Type", "application/json")
	if accepted {
		w.WriteHeader(http.StatusCreated)
	}
	_ = json.NewEncoder(w).Encode(map[string]string{"id": hand.ID}) // the take is safe even if the asker is gone
}

const latestStart = 60_000 // ms

func (a *API) handFrom(r *http.Request) (intake.Hand, error) {
	player, err := a.Store.Player(r.Context(), a.who(r.Context()).PlayerID)
	if err != nil {
		return intake.Hand{}, err
	}
	q := r.URL.Query()
	h := intake.Hand{ID: chi.URLParam(r, "take"), Player: player, StepID: q.Get("step"), Source: store.Source(q.Get("source")), At: a.Now()}
	if !isUUID(h.ID) || !isUUID(h.StepID) {
		return h, exercise.ParameterError{Field: "take", Remedy: "number takes and steps with UUIDs"}
	}
	if h.Source != store.Microphone && h.Source != store.File {
		return h, exercise.ParameterError{Field: "source", Remedy: "say microphone or file"}
	}
	if h.StepVersion, err = strconv.Atoi(q.Get("version")); err != nil {
		return h, exercise.ParameterError{Field: "version", Remedy: "say which version of the step was played"}
	}
	if q.Has("start_ms") {
		if h.StartMS, err = strconv.Atoi(q.Get("start_ms")); err != nil || h.StartMS < -latestStart || h.StartMS > latestStart {
			return h, exercise.ParameterError{Field: "start_ms", Remedy: "say in whole milliseconds where the first click lies"}
		}
	}
	return h, nil
}

// playTake answers a take's sound as WAV, in parts when asked, so that a
// player can seek.
func (a *API) playTake(w http.ResponseWriter, r *http.Request) {
	t, err := a.takeFor(r.Context(), chi.URLParam(r, "take"))
	if err != nil {
		fail(w, err)
		return
	}
	sound, _, err := a.Recordings.Get(r.Context(), t.ID)
	if err != nil {
		fail(w, err)
		return
	}
	serveWAV(w, r, sound, t.ReceivedAt)
}

func serveWAV(w http.ResponseWriter, r *http.Request, sound audio.Mono, changed time.Time) {
	w.Header().Set("Content-Type", "audio/wav")
	w.Header().Set("Cache-Control", "private, max-age=3600")
	http.ServeContent(w, r, "take.wav", changed, bytes.NewReader(wav.Encode(sound)))
}

func (a *API) downloadTake(w http.ResponseWriter, r *http.Request) {
	t, err := a.takeFor(r.Context(), chi.URLParam(r, "take"))
	if err != nil {
		fail(w, err)
		return
	}
	file, _, err := a.Recordings.File(r.Context(), t.ID)
	if err != nil {
		fail(w, err)
		return
	}
	attach(w, "audio/flac", t.ID+".flac")
	_, _ = w.Write(file) // the asker may be gone
}

func attach(w http.ResponseWriter, mime, name string) {
	w.Header().Set("Content-Type", mime)
	w.Header().Set("Content-Disposition", fmt.Sprintf("attachment; filename=%q", name))
}

func (a *API) downloadContour(w http.ResponseWriter, r *http.Request) {
	t, err := a.takeFor(r.Context(), chi.URLParam(r, "take"))
	if err != nil {
		fail(w, err)
		return
	}
	analysis, err := a.Store.AnalysisOf(r.Context(), t.ID)
	if err != nil {
		fail(w, err)
		return
	}
	c, err := packed.Unpack(analysis.Contour)
	if err != nil {
		fail(w, err)
		return
	}
	attach(w, "text/csv", t.ID+".csv")
	out := csv.NewWriter(w)
	_ = out.WriteAll(c.Rows())
}
