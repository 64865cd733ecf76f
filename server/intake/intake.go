// Package intake is the door for takes: it checks what comes in, keeps the
// sound, and remembers the take together with the job of listening to it.
package intake

import (
	"errors"
	"fmt"
	"maps"
	"time"

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
	Repeat       int            // how often the step was played before on its day
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
	now.Repeat = u.Repeat
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

// longestKept is how long a device may keep a take before it hands it in: its player is
// signed out by then, and the take with them.
const longestKept = 14 * 24 * time.Hour

// Credible returns when a take was recorded, by how long ago its device says that was.
// What cannot be is of now: nothing is lost, and no missed day is filled.
func Credible(class store.Class, now time.Time, ago time.Duration) time.Time {
	at := now.Add(-ago)
	if ago < 0 || ago > longestKept || class.FirstLesson != nil && class.Day(at).Before(*class.FirstLesson) {
		return now
	}
	return at
}

// Setting returns a player as of a day in a device's terms.
func Setting(s store.Standing, day time.Time) practice.Setting {
	known, fresh := s.Player.NotesOn(day)
	return practice.Setting{
		Instrument:  s.Player.Instrument,
		Variant:     s.Player.Variant,
		Stage:       s.Player.StageOn(day),
		Best:        s.Best,
		Rungs:       s.Rungs(),
		Known:       known,
		New:         fresh,
		Repeat:      s.Repeat,
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
	if !item.AsksOf(who) {
		return practice.Worked{}, exercise.ErrNotFor
	}
	// In a test nothing is held against hard notes, however the class has them else.
	if step.Test != nil {
		set.Conventions.HardNotes = exercise.CountedAsTried
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
	if !item.AsksOf(who) {
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

// A recording may be half as long again as its step and this much more, for whoever is slow
// to begin and to stop; a file is cut by hand.
const leeway = 45 // seconds

// LongestSeconds bounds every recording; the longest step lasts a few minutes.
const LongestSeconds = 600

// Longest is how long a recording of a step may be, in seconds.
func Longest(score scores.Score) float64 {
	return min(1.5*float64(score.Seconds())+leeway, LongestSeconds)
}

const shortest = 0.5 // seconds

// usable refuses what no ear could judge, with the remedy: a child can record again
// now, and not next week.
func usable(sound wav.Size) error {
	switch {
	case sound.Rate < audio.LowestRate || sound.Rate > audio.HighestRate:
		return problem.Of(
			problem.Unusable,
			fmt.Sprintf("The recording was made at %d Hz. Record at 16000 to 96000 Hz.", sound.Rate),
			nil,
		)
	case sound.Frames == 0:
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

// refusal puts a reader's error into words for a player; longest is what it allowed, in
// seconds.
func refusal(err error, longest float64) error {
	var format wav.FormatError
	var unsupported wav.UnsupportedError
	switch {
	case errors.Is(err, wav.ErrTooLong):
		return problem.Of(
			problem.TooLarge,
			fmt.Sprintf("The recording is longer than %.0f seconds. Record just the step.", longest),
			err,
		)
	case errors.As(err, &format) && format.Offset < 12:
		return problem.Of(
			problem.UnknownFormat,
			"This is not a WAV file. Save the recording as WAV and hand it in again.",
			err,
		)
	case errors.As(err, &format):
		return problem.Of(
			problem.Unusable,
			"The file is damaged or was cut short. Hand it in again.",
			err,
		)
	case errors.As(err, &unsupported):
		return problem.Of(
			problem.UnknownFormat,
			"This kind of WAV cannot be read. Save it as PCM, and hand it in again.",
			err,
		)
	}
	return err
}
