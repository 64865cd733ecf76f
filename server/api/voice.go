package api

import (
	"errors"
	"fmt"
	"net/http"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/audio/wav"
	"earlychorus/server/problem"
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
func (a *API) leaveVoiceNote(w http.ResponseWriter, r *http.Request) error {
	act := chi.URLParam(r, "act")
	t, err := a.Store.TakeFor(r.Context(), a.who(r.Context()), chi.URLParam(r, "take"))
	if err == nil && !store.IsID(act) {
		err = problem.Input("act", "number a voice note with a UUID")
	}
	if err != nil {
		return err
	}
	sound, err := wav.Decode(r.Body, longestVoice)
	switch {
	case errors.Is(err, wav.ErrTooLong):
		err = problem.Of(
			problem.TooLarge,
			fmt.Sprintf("A voice note lasts %d seconds at most. Say it shorter.", longestVoice),
			nil,
		)
	case err == nil && len(sound.Samples) == 0:
		err = problem.Of(problem.Unusable, "The voice note is empty. Record it again.", nil)
	case err != nil:
		err = problem.Of(problem.UnknownFormat, "This voice note cannot be read: "+err.Error(), nil)
	}
	if err != nil {
		return err
	}
	// Sound first: a comment that cannot be played would be worse than none.
	if err := a.Recordings.Put(r.Context(), voiceKey(act), sound); err != nil {
		return err
	}
	err = a.Store.AddComment(r.Context(), store.Comment{
		ID:         act,
		TakeID:     t.ID,
		DirectorID: a.who(r.Context()).Subject,
		Body:       fmt.Sprintf("A voice note of %.0f s", sound.Seconds()),
		WrittenAt:  a.Now().UTC(),
		Kind:       "voice",
	})
	if err != nil {
		return err
	}
	w.WriteHeader(http.StatusNoContent)
	return nil
}

// playVoiceNote answers a voice note to its director and its player.
func (a *API) playVoiceNote(w http.ResponseWriter, r *http.Request) error {
	act := chi.URLParam(r, "act")
	t, err := a.Store.TakeFor(r.Context(), a.who(r.Context()), chi.URLParam(r, "take"))
	if err != nil {
		return err
	}
	// The note has to be one of this take: knowing its number is no right to hear it.
	said, err := a.Store.CommentsOf(r.Context(), t.ID)
	if err != nil {
		return err
	}
	for _, c := range said {
		if c.ID != act || c.Kind != "voice" {
			continue
		}
		sound, _, err := a.Recordings.Get(r.Context(), voiceKey(act))
		if err != nil {
			return err
		}
		serveWAV(w, r, sound, c.WrittenAt)
		return nil
	}
	return store.ErrNotFound
}
