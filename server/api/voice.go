package api

import (
	"errors"
	"fmt"
	"net/http"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/audio/wav"
	"earlychorus/core/exercise"
	"earlychorus/server/intake"
	"earlychorus/server/store"
)

// longestVoice is how long a voice note may be, in seconds.
const (
	longestVoice = 60
	largestVoice = 16 << 20
)

// voiceKey is where a voice note's sound is kept.
func voiceKey(act string) string { return "voice-" + act }

// leaveVoiceNote keeps a director's spoken comment: PUT /takes/{take}/voice/{act},
// a WAV file.
func (a *API) leaveVoiceNote(w http.ResponseWriter, r *http.Request) {
	act := chi.URLParam(r, "act")
	t, err := a.takeFor(r.Context(), chi.URLParam(r, "take"))
	if err == nil && !isUUID(act) {
		err = exercise.ParameterError{Field: "act", Remedy: "number a voice note with a UUID"}
	}
	if err != nil {
		fail(w, err)
		return
	}
	sound, err := wav.Decode(r.Body, longestVoice)
	switch {
	case errors.Is(err, wav.ErrTooLong):
		err = intake.RefusedError{
			Reason: fmt.Sprintf("A voice note lasts %d seconds at most. Say it shorter.", longestVoice),
			TooBig: true,
		}
	case err == nil && len(sound.Samples) == 0:
		err = intake.RefusedError{Reason: "The voice note is empty. Record it again."}
	case err != nil:
		err = intake.RefusedError{Reason: "This voice note cannot be read: " + err.Error(), Unknown: true}
	}
	if err != nil {
		fail(w, err)
		return
	}
	if err := a.Recordings.Put(r.Context(), voiceKey(act), sound); err != nil {
		fail(w, err)
		return
	}
	err = a.Store.AddComment(r.Context(), store.Comment{
		ID:         act,
		TakeID:     t.ID,
		DirectorID: a.who(r.Context()).DirectorID,
		Body:       fmt.Sprintf("A voice note of %.0f s", sound.Seconds()),
		WrittenAt:  a.Now().UTC(),
		Kind:       "voice",
	})
	if err != nil {
		fail(w, err)
		return
	}
	w.WriteHeader(http.StatusNoContent)
}

// playVoiceNote answers a voice note to its director and its player.
func (a *API) playVoiceNote(w http.ResponseWriter, r *http.Request) {
	act := chi.URLParam(r, "act")
	t, err := a.takeFor(r.Context(), chi.URLParam(r, "take"))
	if err != nil {
		fail(w, err)
		return
	}
	said, err := a.Store.CommentsOf(r.Context(), t.ID)
	if err != nil {
		fail(w, err)
		return
	}
	for _, c := range said {
		if c.ID != act || c.Kind != "voice" {
			continue
		}
		sound, _, err := a.Recordings.Get(r.Context(), voiceKey(act))
		if err != nil {
			fail(w, err)
			return
		}
		serveWAV(w, r, sound, c.WrittenAt)
		return
	}
	fail(w, store.ErrNotFound)
}
