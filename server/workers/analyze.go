// Package workers runs the jobs: each fetches, computes with the core, saves.
package workers

import (
	"context"
	"errors"
	"fmt"
	"runtime"
	"sync"
	"time"

	"github.com/riverqueue/river"
	"golang.org/x/sync/semaphore"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/contour/packed"
	"earlychorus/core/ear"
	"earlychorus/core/ladder"
	"earlychorus/core/outcome"
	"earlychorus/core/progress"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
	"earlychorus/server/jobs"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// AnalyzeTake listens to takes.
type AnalyzeTake struct {
	river.WorkerDefaults[jobs.AnalyzeTake]

	Store      *store.Store
	Recordings *recordings.Store
	Now        func() time.Time

	once sync.Once
	room *semaphore.Weighted // seconds of sound that are listened to at once
}

// SecondsAtOnce is how much sound is listened to at once on each core: a second takes
// two thirds of a megabyte while it is. A longer take is listened to alone.
const SecondsAtOnce = 80

// enter waits until there is room for a take, and returns how to leave.
func (w *AnalyzeTake) enter(ctx context.Context, t store.Take) (leave func(), err error) {
	all := int64(SecondsAtOnce * runtime.NumCPU())
	w.once.Do(func() { w.room = semaphore.NewWeighted(all) })
	seconds := min(int64(t.DurationMS/1000)+1, all)
	if err := w.room.Acquire(ctx, seconds); err != nil {
		return nil, err
	}
	return func() { w.room.Release(seconds) }, nil
}

// Version of an analysis changes when the ear, the rules of measuring or those
// of judging do, so that takes can be heard again and the older word kept.
const Version = contour.Version*10_000 + ear.Version*100 + verdict.Version

// SmallRibbon is how many points the board's drawing has: one a pixel.
const SmallRibbon = 96

// Work analyses one take. Running twice is harmless.
func (w *AnalyzeTake) Work(ctx context.Context, job *river.Job[jobs.AnalyzeTake]) error {
	return w.hear(ctx, job.Args.TakeID, w.Store.FailTake)
}

// missing is what a player reads of a take whose recording is gone.
const missing = "The recording is missing. Please record again."

// keepOld leaves what was said of a take as it is.
func keepOld(context.Context, string, string) error { return nil }

// hear analyses one take; fail marks one that cannot be, with why.
func (w *AnalyzeTake) hear(
	ctx context.Context, id string, fail func(ctx context.Context, takeID, why string) error,
) error {
	t, err := w.Store.Take(ctx, id)
	if errors.Is(err, store.ErrNotFound) {
		return river.JobCancel(fmt.Errorf("analyze take %s: %w", id, err)) // deleted meanwhile
	}
	if err != nil {
		return err // the database's trouble passes, and the take is still there
	}
	leave, err := w.enter(ctx, t)
	if err != nil {
		return err
	}
	defer leave()
	sound, err := w.sound(ctx, t)
	if errors.Is(err, recordings.ErrMissing) {
		if failed := fail(ctx, t.ID, missing); failed != nil {
			return failed
		}
		return river.JobCancel(err)
	}
	if err != nil {
		return err
	}
	// The latest tips: one that was given and did not help gives way to the next.
	tips, err := w.Store.RecentTips(ctx, t, verdict.AskAfter)
	if err != nil {
		return err
	}
	came, err := outcome.Of(ctx, sound, outcome.Request{
		Score:      t.Score,
		Start:      t.Start(),
		FreeStart:  t.FreeStart(),
		RecentTips: tips,
		Tips:       t.Player.Class.Tips,
	})
	var failed outcome.FailedError
	if errors.As(err, &failed) {
		// The same sound fails the same way each time: the take says so at once, and the ear
		// goes on with the next.
		if marked := fail(ctx, t.ID, couldNot); marked != nil {
			return marked
		}
		return river.JobCancel(fmt.Errorf("analyze take %s: %w", t.ID, err))
	}
	if err != nil {
		return fmt.Errorf("analyze take %s: %w", t.ID, err)
	}
	if err := w.save(ctx, t, came); err != nil {
		return err
	}
	return w.letGoUnkept(ctx, t)
}

// letGoUnkept deletes a recording that was listened to, and that the player's home did not agree
// to have kept. A run that dies before it leaves it to the daily letting go.
func (w *AnalyzeTake) letGoUnkept(ctx context.Context, t store.Take) error {
	may, err := w.Store.MayOf(ctx, t.PlayerID)
	if err != nil || may.Keep || t.SoundGoneAt != nil {
		return err
	}
	if err := w.Recordings.Delete(ctx, t.Sound); err != nil {
		return err
	}
	return w.Store.SoundGone(ctx, t.ID, w.Now().UTC())
}

// save keeps what was heard.
func (w *AnalyzeTake) save(ctx context.Context, t store.Take, came outcome.Outcome) error {
	drawing, err := came.Draw(t.Score, SmallRibbon)
	if err != nil {
		return err
	}
	word := came.Verdict
	notes := notesOf(t, came)
	if t.Trial {
		notes = nil // tried out: it is shown, and counts nowhere
	} else if err := w.climb(ctx, t, word); err != nil {
		// The ladder before the analysis: a crash in between is tried again, and the log knows
		// this take.
		return err
	}
	return w.Store.SaveAnalysis(ctx, store.Analysis{
		TakeID:    t.ID,
		Version:   Version,
		CreatedAt: w.Now().UTC(),
		Result:    word.Result,
		TipKey:    word.TipKey,
		Measured:  came.Analysis,
		Verdict:   word,
		Ribbon:    drawing,
		Contour:   packed.Pack(came.Analysis.Contour),
	}, notes, progress.CutOf(came.Analysis, word.Decided()))
}

// sound reads a take's sound, which may be packed meanwhile, under another name.
func (w *AnalyzeTake) sound(ctx context.Context, t store.Take) (audio.Mono, error) {
	sound, err := w.Recordings.Get(ctx, t.Sound)
	if !errors.Is(err, recordings.ErrMissing) {
		return sound, err
	}
	if again, asked := w.Store.Take(ctx, t.ID); asked == nil && again.Sound != t.Sound {
		return w.Recordings.Get(ctx, again.Sound)
	}
	return sound, err
}

// climb writes a take of a rung into the player's ladder log.
func (w *AnalyzeTake) climb(ctx context.Context, t store.Take, word verdict.Verdict) error {
	if t.Score.Ladder == "" {
		return nil
	}
	return w.Store.AddLadderEntry(ctx, store.LadderEntry{
		PlayerID: t.PlayerID,
		Ladder:   t.Score.Ladder,
		What:     ladder.Tried,
		Day:      t.Day,
		Rung:     t.Score.Rung,
		Result:   word.Result,
		Hard:     word.FailedHard(),
		Seconds:  float64(t.DurationMS) / 1000,
		TakeID:   &t.ID,
		At:       t.PlayedAt,
	})
}

// notesOf is a take's notes as maps and growth count them. Sung and buzzed ones
// are not the instrument's.
func notesOf(t store.Take, came outcome.Outcome) []store.TakeNote {
	var out []store.TakeNote
	for n, note := range came.Analysis.Notes {
		if note.Phase != scores.Play || n >= len(t.Score.Targets()) {
			continue
		}
		row := store.TakeNote{
			TakeID:   t.ID,
			Number:   n,
			PlayerID: t.PlayerID,
			Day:      t.Day,
			Sounding: int(note.Target),
			// By the verdict, not by the measures alone: a hard note that was tried counts as it was
			// judged.
			Good:       came.Verdict.Good(n),
			Trusted:    note.Trusted && !note.WrongNote && note.Played,
			Centre:     float64(note.Centre),
			Steadiness: float64(note.Steadiness),
			Held:       float64(note.Sounding),
		}
		if row.Trusted && note.Distrust.Tone == "" {
			level, clear := float64(note.Level), float64(note.Tone.Clearness)
			bright, full := note.Tone.Brightness, float64(note.Tone.Fullness)
			row.LevelDB, row.Clearness, row.Brightness, row.Fullness = &level, &clear, &bright, &full
		}
		out = append(out, row)
	}
	return out
}
