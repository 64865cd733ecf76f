package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/audio/wav"
	"earlychorus/server/problem"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// longestVoice is how long a voice note may be, in seconds.
const (
	longestVoice = 60
	largestVoice = 16 << 20
)

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
	name, _, err := a.Recordings.Put(r.Context(), recordings.OfVoice, act, sound)
	if err != nil {
		return err
	}
	err = a.Store.AddComment(r.Context(), store.Comment{
		ID:         act,
		TakeID:     t.ID,
		DirectorID: a.who(r.Context()).Subject,
		Body:       fmt.Sprintf("A voice note of %.0f s", sound.Seconds()),
		WrittenAt:  a.Now().UTC(),
		Kind:       "voice",
		Sound:      name,
	})
	if err != nil {
		return a.dropUnnamed(r.Context(), name, err)
	}
	w.WriteHeader(http.StatusNoContent)
	return nil
}

// dropUnnamed lets a sound go that no row names after all, and returns why. One that is
// another's own, word for word, stays.
func (a *API) dropUnnamed(ctx context.Context, name string, why error) error {
	var refused problem.Error
	if !errors.As(why, &refused) {
		return why // the row may be there: the daily sweep knows
	}
	named, err := a.Store.NamesVoice(ctx, name)
	if err != nil || named {
		return errors.Join(why, err)
	}
	return errors.Join(why, a.Recordings.Delete(ctx, name))
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
		return a.serveSound(w, r, c.Sound, c.SoundGoneAt, c.WrittenAt)
	}
	return store.ErrNotFound
}
