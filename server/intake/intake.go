// Package intake is the door for takes: it checks what comes in, keeps the
// sound, and remembers the take together with the job of listening to it.
package intake

import (
	"bytes"
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"io"
	"time"

	"gorm.io/gorm"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/plan"
	"earlychorus/server/jobs"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// Intake accepts takes.
type Intake struct {
	Store      *store.Store
	Recordings *recordings.Shelf
	Queue      *jobs.Queue
}

// Hand is a take being handed in.
type Hand struct {
	ID          string // made by the client
	Player      store.Player
	StepID      string
	StepVersion int
	Source      store.Source
	StartMS     int // where the score's first click lies
	At          time.Time
}

// LongestSeconds bounds a recording; the longest step lasts a few minutes.
const LongestSeconds = 600

// A RefusedError reports a recording that cannot be used, and the remedy.
type RefusedError struct {
	Reason  string
	TooBig  bool
	Unknown bool // not a sound format this program reads
}

func (e RefusedError) Error() string { return e.Reason }

// Score works a step out for a player as of a day.
func Score(step store.Step, p store.Player, day time.Time) (exercise.Score, instrument.Instrument, error) {
	who, err := p.As(day)
	i := who.Instrument
	if err != nil {
		return exercise.Score{}, i, err
	}
	item, err := step.Item()
	if err != nil {
		return exercise.Score{}, i, err
	}
	if !item.IsFor(i) {
		return exercise.Score{}, i, exercise.ErrNotFor
	}
	s, err := item.Step.Score(who, p.Class.Conventions())
	return plan.FillRests(s), i, err
}

// File accepts a WAV file. Handing in the same bytes under the same number
// again is answered the same; accepted tells which it was. Nothing changes
// when an error is returned: RefusedError, store.ErrNotFound for a step that
// is not the player's class's, store.ConflictError for a number already used.
func (in Intake) File(ctx context.Context, h Hand, file io.Reader) (accepted bool, err error) {
	hash := sha256.New()
	sound, err := wav.Decode(io.TeeReader(file, hash), LongestSeconds)
	if err != nil {
		return false, refusal(err)
	}
	if _, err := io.Copy(hash, file); err != nil { // what follows the sound belongs to the file
		return false, refusal(err)
	}
	return in.accept(ctx, h, sound, hash.Sum(nil))
}

// Sound accepts sound made on this server, by a simulated player.
func (in Intake) Sound(ctx context.Context, h Hand, sound audio.Mono) (accepted bool, err error) {
	file := wav.Encode(sound)
	return in.File(ctx, h, bytes.NewReader(file))
}

func (in Intake) accept(ctx context.Context, h Hand, sound audio.Mono, hash []byte) (bool, error) {
	if err := usable(sound); err != nil {
		return false, err
	}
	step, err := in.Store.StepAsOf(ctx, h.Player.ClassID, h.StepID, h.StepVersion)
	if err != nil {
		return false, err
	}
	player, _, err := in.Store.Standing(ctx, h.Player)
	if err != nil {
		return false, err
	}
	score, _, err := Score(step, player, h.Player.Class.Day(h.At))
	if err != nil {
		return false, err
	}
	if score.Ticked || score.Metered {
		return false, RefusedError{Reason: "This step is not recorded. Tick it, or blow into the meter."}
	}
	t := store.Take{
		ID: h.ID, PlayerID: h.Player.ID, StepID: step.ID, StepVersion: step.Version, Day: h.Player.Class.Day(h.At), Source: h.Source,
		ReceivedAt: h.At.UTC(), DurationMS: int(1000 * sound.Seconds()), RateHz: sound.Rate, StartMS: h.StartMS, SHA256: hash, Score: score,
	}
	if known, err := in.Store.KnownTake(ctx, t); known || err != nil {
		return false, err // before the sound on the shelf could be overwritten
	}
	if err := in.Recordings.Put(ctx, t.ID, sound); err != nil {
		return false, err
	}
	return in.Store.AcceptTake(ctx, t, func(tx *gorm.DB) error {
		return in.Queue.Add(ctx, tx, jobs.AnalyzeTake{TakeID: t.ID})
	})
}

const shortest = 0.5 // seconds

func usable(sound audio.Mono) error {
	switch {
	case sound.Rate < audio.LowestRate || sound.Rate > audio.HighestRate:
		return RefusedError{Reason: fmt.Sprintf("The recording was made at %d Hz. Record at 16000 to 96000 Hz.", sound.Rate)}
	case len(sound.Samples) == 0:
		return RefusedError{Reason: "The recording is empty. Record again."}
	case sound.Seconds() < shortest:
		return RefusedError{Reason: fmt.Sprintf("The recording lasts only %.1f s. Record the whole step.", sound.Seconds())}
	}
	return nil
}

// refusal puts a reader's error into words for a player.
func refusal(err error) error {
	var format wav.FormatError
	var unsupported wav.UnsupportedError
	switch {
	case errors.Is(err, wav.ErrTooLong):
		return RefusedError{Reason: fmt.Sprintf("The recording is longer than %d minutes. Record just the step.", LongestSeconds/60), TooBig: true}
	case errors.As(err, &format) && format.Offset < 12:
		return RefusedError{Reason: "This is not a WAV file. Save the recording as WAV and hand it in again. (" + err.Error() + ")", Unknown: true}
	case errors.As(err, &format):
		return RefusedError{Reason: "The file is damaged or was cut short. Hand it in again. (" + err.Error() + ")"}
	case errors.As(err, &unsupported):
		return RefusedError{Reason: "This kind of WAV cannot be read. Save it as PCM. (" + err.Error() + ")", Unknown: true}
	}
	return err
}
