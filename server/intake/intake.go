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
	"maps"
	"time"

	"gorm.io/gorm"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/core/practice"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
	"earlychorus/server/jobs"
	"earlychorus/server/problem"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// Intake accepts takes.
type Intake struct {
	Store      *store.Store
	Recordings *recordings.Store
	Queue      *jobs.Queue
}

// Upload is a take on its way in.
type Upload struct {
	ID          string // made by the client
	Player      store.Player
	StepID      string
	StepVersion int
	Source      store.Source
	StartMS     int // where the score's first click lies
	At          time.Time

	// How things stood when it was recorded, where that is not now.
	PlayedAt     time.Time      // the zero time: At
	Rung         int            // of the step's ladder; 0: where the player stands
	Best         music.Seconds  // the player's own; 0: as it is now
	Tempo        music.Tempo    // of the player's choice; 0: the step's
	DeviceResult verdict.Result // what the device told the player at once; "" nothing
	Through      string         // the microphone, by an opaque name; "" not known
}

// playedAt is when the take was recorded.
func (u Upload) playedAt() time.Time {
	if u.PlayedAt.IsZero() || u.PlayedAt.After(u.At) {
		return u.At
	}
	return u.PlayedAt
}

// through is what the sound came through. Simulated players all have one microphone; that
// of a file is not known.
func (u Upload) through() string {
	switch u.Source {
	case store.Simulated:
		return string(store.Simulated)
	case store.File:
		return ""
	}
	return u.Through
}

// asItStood returns how things stood for the player when it was recorded, from how
// they stand now.
func (u Upload) asItStood(now store.Standing, step store.Step) store.Standing {
	if u.Best > 0 {
		now.Best = float64(u.Best)
	}
	x, err := step.Exercise()
	if err != nil || u.Rung == 0 {
		return now
	}
	if key := x.LadderKey(); key != "" {
		now.Ladders = maps.Clone(now.Ladders)
		state := now.Ladders[key]
		state.Rung = u.Rung
		now.Ladders[key] = state
	}
	return now
}

// LongestSeconds bounds a recording; the longest step lasts a few minutes.
const LongestSeconds = 600

// Setting returns a player as of a day in a device's terms.
func Setting(s store.Standing, day time.Time) practice.Setting {
	return practice.Setting{
		Instrument:  s.Player.Instrument,
		Variant:     s.Player.Variant,
		Stage:       s.Player.StageOn(day),
		Best:        s.Best,
		Rungs:       s.Rungs(),
		Conventions: s.Player.Class.Conventions(),
	}
}

// Work works a step out for a player as of a day, at a tempo of the player's
// choice; 0 is the step's own. Errors: exercise.ErrNotFor; ParameterError.
func Work(step store.Step, s store.Standing, day time.Time, tempo music.Tempo) (practice.Worked, error) {
	set := Setting(s, day)
	who, err := set.Player()
	if err != nil {
		return practice.Worked{}, err
	}
	item, err := step.Item()
	if err != nil {
		return practice.Worked{}, err
	}
	if !item.IsFor(who.Instrument) {
		return practice.Worked{}, exercise.ErrNotFor
	}
	return practice.Work(set, item.Step, tempo)
}

// Notes works out what a player reads of an item, for lists of many: neither
// tempi nor loads. Errors: exercise.ErrNotFor.
func Notes(item plan.Item, s store.Standing, day time.Time) (scores.Score, error) {
	set := Setting(s, day)
	who, err := set.Player()
	if err != nil {
		return scores.Score{}, err
	}
	if !item.IsFor(who.Instrument) {
		return scores.Score{}, exercise.ErrNotFor
	}
	return item.Step.Score(who, set.Conventions)
}

// Score is Work for those who want the score and whom it is for alone.
func Score(step store.Step, s store.Standing, day time.Time) (scores.Score, instrument.Instrument, error) {
	i, err := s.Player.Plays()
	if err != nil {
		return scores.Score{}, i, err
	}
	w, err := Work(step, s, day, 0)
	return w.Score, i, err
}

// File accepts a WAV file. Handing in the same bytes under the same number
// again is answered the same; accepted tells which it was. Nothing changes
// when an error is returned: problem.Error for what cannot be used and for a number
// already used, store.ErrNotFound for a step that is not the player's class's.
func (in Intake) File(ctx context.Context, u Upload, file io.Reader) (accepted bool, err error) {
	// Of the file's own bytes, so that a device can be told that the very same take is here.
	hash := sha256.New()
	sound, err := wav.Decode(io.TeeReader(file, hash), LongestSeconds)
	if err != nil {
		return false, refusal(err)
	}
	if _, err := io.Copy(hash, file); err != nil { // what follows the sound belongs to the file
		return false, refusal(err)
	}
	return in.accept(ctx, u, sound, hash.Sum(nil))
}

// Sound accepts sound made on this server, by a simulated player.
func (in Intake) Sound(ctx context.Context, u Upload, sound audio.Mono) (accepted bool, err error) {
	// As a file, so that there is one way in and a simulated take is hashed like any other.
	file := wav.Encode(sound)
	return in.File(ctx, u, bytes.NewReader(file))
}

// accept keeps a take that is whole. The recording is safe before the row that names
// it: a power cut leaves a file without a take, never a take without its file.
func (in Intake) accept(ctx context.Context, u Upload, sound audio.Mono, hash []byte) (bool, error) {
	if err := usable(sound); err != nil {
		return false, err
	}
	step, err := in.Store.StepAsOf(ctx, u.Player.ClassID, u.StepID, u.StepVersion)
	if err != nil {
		return false, err
	}
	now, err := in.Store.Standing(ctx, u.Player)
	if err != nil {
		return false, err
	}
	day := u.Player.Class.Day(u.playedAt())
	// By what the player was shown when it was played, not by what the plan says now.
	worked, err := Work(step, u.asItStood(now, step), day, u.Tempo)
	if err != nil {
		return false, err
	}
	score := worked.Score
	if score.Ticked || score.Metered {
		return false, problem.Of(problem.Unusable, "This step is not recorded. Tick it, or blow into the meter.", nil)
	}
	t := store.Take{
		ID:           u.ID,
		PlayerID:     u.Player.ID,
		StepID:       step.ID,
		StepVersion:  step.Version,
		Day:          day,
		Source:       u.Source,
		ReceivedAt:   u.At.UTC(),
		PlayedAt:     u.playedAt().UTC(),
		DeviceResult: u.DeviceResult,
		Through:      u.through(),
		DurationMS:   int(1000 * sound.Seconds()),
		RateHz:       sound.Rate,
		StartMS:      u.StartMS,
		SHA256:       hash,
		Score:        score,
	}
	// Asked before the sound is put away, which it would overwrite.
	if known, err := in.Store.KnownTake(ctx, t); known || err != nil {
		return false, err
	}
	// Sound first and row after: a sound without a row only takes up room, a row without a
	// sound is a lost take.
	if err := in.Recordings.Put(ctx, t.ID, sound); err != nil {
		return false, err
	}
	return in.Store.AcceptTake(ctx, t, func(tx *gorm.DB) error {
		return in.Queue.Add(ctx, tx, jobs.AnalyzeTake{TakeID: t.ID})
	})
}

const shortest = 0.5 // seconds

// usable refuses what no ear could judge, with the remedy: a child can record again
// now, and not next week.
func usable(sound audio.Mono) error {
	switch {
	case sound.Rate < audio.LowestRate || sound.Rate > audio.HighestRate:
		return problem.Of(
			problem.Unusable,
			fmt.Sprintf("The recording was made at %d Hz. Record at 16000 to 96000 Hz.", sound.Rate),
			nil,
		)
	case len(sound.Samples) == 0:
		return problem.Of(problem.Unusable, "The recording is empty. Record again.", nil)
	case sound.Seconds() < shortest:
		return problem.Of(
			problem.Unusable,
			fmt.Sprintf("The recording lasts only %.1f s. Record the whole step.", sound.Seconds()),
			nil,
		)
	}
	return nil
}

// refusal puts a reader's error into words for a player.
func refusal(err error) error {
	var format wav.FormatError
	var unsupported wav.UnsupportedError
	switch {
	case errors.Is(err, wav.ErrTooLong):
		return problem.Of(
			problem.TooLarge,
			fmt.Sprintf("The recording is longer than %d minutes. Record just the step.", LongestSeconds/60),
			err,
		)
	case errors.As(err, &format) && format.Offset < 12:
		return problem.Of(
			problem.UnknownFormat,
			"This is not a WAV file. Save the recording as WAV and hand it in again. ("+err.Error()+")",
			err,
		)
	case errors.As(err, &format):
		return problem.Of(
			problem.Unusable,
			"The file is damaged or was cut short. Hand it in again. ("+err.Error()+")",
			err,
		)
	case errors.As(err, &unsupported):
		return problem.Of(
			problem.UnknownFormat,
			"This kind of WAV cannot be read. Save it as PCM. ("+err.Error()+")",
			err,
		)
	}
	return err
}
