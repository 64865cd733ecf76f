package intake

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"

	"gorm.io/gorm"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/server/jobs"
	"earlychorus/server/problem"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// takesADay is how many takes a player may hand in on one: three hours without a pause,
// and no way to fill a disk.
const takesADay = 300

// ErrNoConsent refuses sound that a home has not agreed to have recorded.
var ErrNoConsent = problem.Of(
	problem.Conflict, "Your family has not agreed to recordings. Play on: the page listens, and nothing is kept.", nil,
)

// File accepts a WAV or a FLAC file. Handing in the same bytes under the same number
// again is answered the same; accepted tells which it was. Nothing changes
// when an error is returned: problem.Error for what cannot be used and for a number
// already used, store.ErrNotFound for a step that is not the player's class's.
func (in Intake) File(ctx context.Context, u Upload, file io.Reader) (accepted bool, err error) {
	t, err := in.asked(ctx, u)
	if err != nil {
		return false, err
	}
	if file, err = asWAV(file, Longest(t.Score)); err != nil {
		return false, err
	}
	came, err := in.Recordings.Receive(file)
	if err != nil {
		return false, err
	}
	defer came.Drop()
	if err := in.measure(&t, came); err != nil {
		return false, err
	}
	before, known, err := in.Store.KnownTake(ctx, t)
	if err != nil {
		return false, err
	}
	if known {
		return false, in.heal(ctx, before, came)
	}
	return in.accept(ctx, t, came)
}

// Sound accepts sound made on this server, by a simulated player.
func (in Intake) Sound(ctx context.Context, u Upload, sound audio.Mono) (accepted bool, err error) {
	// As a file, so that there is one way in and a simulated take is hashed like any other.
	file := wav.Encode(sound)
	return in.File(ctx, u, bytes.NewReader(file))
}

// asked is the take as far as it is known before its sound has come: who played what
// was asked, and whether that is recorded at all.
func (in Intake) asked(ctx context.Context, u Upload) (store.Take, error) {
	if u.Source == store.Simulated && u.Player.Class.SimulatedPlayers == store.SimulatingNo {
		return store.Take{}, problem.Of(
			problem.Unusable,
			"Simulated players are switched off in this class. Play the step yourself.",
			nil,
		)
	}
	may, err := in.Store.MayOf(ctx, u.Player.ID)
	if err != nil {
		return store.Take{}, err
	}
	if !may.Record {
		return store.Take{}, ErrNoConsent
	}
	step, err := in.Store.StepAsOf(ctx, u.Player.ClassID, u.StepID, u.StepVersion)
	if err != nil {
		return store.Take{}, err
	}
	now, err := in.Store.Standing(ctx, u.Player)
	if err != nil {
		return store.Take{}, err
	}
	day := u.Player.Class.Day(u.playedAt())
	// By what the player was shown when it was played, not by what the plan says now.
	worked, err := Work(step, u.asItStood(now, step), day, u.Tempo)
	if err != nil {
		return store.Take{}, err
	}
	score := worked.Score
	if score.Ticked || score.Metered {
		return store.Take{}, problem.Of(
			problem.Unusable, "This step is not recorded. Tick it, or blow into the meter.", nil,
		)
	}
	return store.Take{
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
		StartMS:      u.StartMS,
		Score:        score,
		Trial:        u.Source == store.Simulated && u.Player.Class.SimulatedPlayers == store.SimulatingTried,
	}, nil
}

// measure reads from the file what a take is known by, and refuses what no ear could
// judge.
func (in Intake) measure(t *store.Take, came *recordings.Incoming) error {
	if err := came.Rewind(); err != nil {
		return err
	}
	longest := Longest(t.Score)
	size, err := wav.Inspect(came, longest)
	if err != nil {
		return refusal(err, longest)
	}
	if err := usable(size); err != nil {
		return err
	}
	t.DurationMS = int(1000 * size.Seconds())
	t.RateHz = size.Rate
	t.SHA256, t.SoundSHA256 = came.SHA256, came.SHA256
	return nil
}

// accept keeps a take that is whole. The recording is safe before the row that names
// it: a power cut leaves a file without a take, never a take without its file.
func (in Intake) accept(ctx context.Context, t store.Take, came *recordings.Incoming) (accepted bool, err error) {
	takes, err := in.Store.TakesOn(ctx, t.PlayerID, t.Day)
	if err != nil {
		return false, err
	}
	if takes >= takesADay {
		return false, problem.Of(
			problem.TooManyTries, fmt.Sprintf("That is %d takes of one day. Go on tomorrow.", takesADay), nil,
		)
	}
	if t.Sound, err = came.Keep(ctx, recordings.OfTake, t.ID); err != nil {
		return false, err
	}
	accepted, err = in.Store.AcceptTake(ctx, t, func(tx *gorm.DB) error {
		return in.Queue.Add(ctx, tx, jobs.AnalyzeTake{TakeID: t.ID})
	})
	var refused problem.Error
	if errors.As(err, &refused) {
		// Somebody was quicker under the same number, with another sound: this one is nobody's.
		return false, errors.Join(err, in.Recordings.Delete(ctx, t.Sound))
	}
	return accepted, err
}

// heal keeps the sound of a take that was sent again, where what is kept of it is
// missing or damaged. One that was let go of stays so.
func (in Intake) heal(ctx context.Context, before store.Take, came *recordings.Incoming) error {
	if before.SoundGoneAt != nil {
		return nil
	}
	if holds, err := in.Recordings.Holds(ctx, before.Sound, before.SoundSHA256); holds || err != nil {
		return err
	}
	name, err := came.Keep(ctx, recordings.OfTake, before.ID)
	if err != nil {
		return err
	}
	if _, err := in.Store.SetSound(ctx, before.ID, before.Sound, name, came.SHA256); err != nil {
		return err
	}
	if before.Result != "" {
		return nil
	}
	return in.Store.Hear(ctx, before.ID, func(tx *gorm.DB) error {
		return in.Queue.Add(ctx, tx, jobs.AnalyzeTake{TakeID: before.ID})
	})
}

// Safe reports whether a take is here for good, with its sound: its device may forget
// it. A sound that was let go of was here long enough.
func (in Intake) Safe(ctx context.Context, t store.Take) (bool, error) {
	if t.SoundGoneAt != nil {
		return true, nil
	}
	return in.Recordings.Holds(ctx, t.Sound, t.SoundSHA256)
}
