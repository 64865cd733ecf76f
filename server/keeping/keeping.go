// Package keeping holds the server to its word: what was acknowledged has its sound and
// is listened to, and what is nobody's is let go of.
package keeping

import (
	"bytes"
	"context"
	"errors"
	"path"
	"strings"
	"time"

	"gorm.io/gorm"

	"earlychorus/server/jobs"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// atOnce is rows of one question.
const atOnce = 500

// young is how old a take has to be before anybody wonders why it has no job.
const young = time.Minute

// QueueUnheard queues takes that have neither a word, nor a failure, nor a job.
func QueueUnheard(ctx context.Context, s *store.Store, queue *jobs.Queue, now time.Time) (queued int, err error) {
	for {
		ids, err := s.Unheard(ctx, now.Add(-young), atOnce)
		if err != nil || len(ids) == 0 {
			return queued, err
		}
		err = s.Queue(ctx, func(tx *gorm.DB) error {
			for _, id := range ids {
				if err := queue.Add(ctx, tx, jobs.AnalyzeTake{TakeID: id}); err != nil {
					return err
				}
			}
			return nil
		})
		if err != nil {
			return queued, err
		}
		queued += len(ids)
	}
}

// QueueFailed queues takes that could not be listened to and whose sounds are here: what
// ailed the machine may be mended.
func QueueFailed(
	ctx context.Context, s *store.Store, kept *recordings.Store, queue *jobs.Queue,
) (queued int, err error) {
	for after := ""; ; {
		takes, err := s.Failed(ctx, after, atOnce)
		if err != nil || len(takes) == 0 {
			return queued, err
		}
		for _, t := range takes {
			after = t.ID
			here, err := kept.Holds(ctx, t.Sound, t.SoundSHA256)
			if err != nil {
				return queued, err
			}
			if !here {
				continue
			}
			err = s.Hear(ctx, t.ID, func(tx *gorm.DB) error {
				return queue.Add(ctx, tx, jobs.AnalyzeTake{TakeID: t.ID})
			})
			if err != nil {
				return queued, err
			}
			queued++
		}
	}
}

// SweepOrphans lets sounds go from before an instant that no row names.
func SweepOrphans(
	ctx context.Context, s *store.Store, kept *recordings.Store, before time.Time,
) (swept int, err error) {
	return swept, orphans(ctx, s, kept, func(o recordings.Object) error {
		if !o.ModTime.Before(before) {
			return nil
		}
		swept++
		return kept.Delete(ctx, o.Key)
	})
}

// orphans visits what is kept and no row names. What is not a sound of ours is left.
func orphans(
	ctx context.Context, s *store.Store, kept *recordings.Store, visit func(recordings.Object) error,
) error {
	waiting := map[string][]recordings.Object{} // by the row's number
	look := func() error {
		ids := make([]string, 0, len(waiting))
		for id := range waiting {
			ids = append(ids, id)
		}
		named, err := s.NamedSounds(ctx, ids)
		if err != nil {
			return err
		}
		for _, id := range ids {
			for _, o := range waiting[id] {
				if named[o.Key] {
					continue
				}
				if err := visit(o); err != nil {
					return err
				}
			}
		}
		clear(waiting)
		return nil
	}
	err := kept.Each(ctx, func(o recordings.Object) error {
		if id := numberIn(o.Key); id != "" {
			waiting[id] = append(waiting[id], o)
		}
		if len(waiting) < atOnce {
			return nil
		}
		return look()
	})
	if err != nil {
		return err
	}
	return look()
}

// numberIn is the row's number in a sound's name; "" in what is none of ours.
func numberIn(name string) string {
	base := strings.TrimPrefix(path.Base(name), "voice-") // as voice notes were named once
	if len(base) < uuidLength || !store.IsID(base[:uuidLength]) {
		return ""
	}
	return base[:uuidLength]
}

const uuidLength = 36

// Fault is a sound that is not what its row says.
type Fault struct {
	ID      string
	Of      recordings.Kind
	Missing bool // otherwise damaged
}

// Report is what a look at everything that is kept came to.
type Report struct {
	Sounds  int // looked at, voice notes included
	Faults  []Fault
	Unheard int
	Orphans int
}

// Verify looks at every sound that a row names, and at what no row does. progress is
// told how many were looked at.
func Verify(
	ctx context.Context, s *store.Store, kept *recordings.Store, now time.Time, progress func(done int),
) (r Report, err error) {
	for kind, rows := range map[recordings.Kind]func(context.Context, string, int) ([]store.SoundKept, error){
		recordings.OfTake:  s.SoundsKept,
		recordings.OfVoice: s.VoicesKept,
	} {
		err := EachKept(ctx, rows, func(k store.SoundKept) error {
			r.Sounds++
			progress(r.Sounds)
			sum, err := kept.Sum(ctx, k.Sound)
			missing := errors.Is(err, recordings.ErrMissing)
			if err != nil && !missing {
				return err
			}
			if missing || len(k.SHA256) > 0 && !bytes.Equal(sum, k.SHA256) {
				r.Faults = append(r.Faults, Fault{ID: k.ID, Of: kind, Missing: missing})
			}
			return nil
		})
		if err != nil {
			return r, err
		}
	}
	unheard, err := s.Unheard(ctx, now.Add(-young), atOnce)
	if err != nil {
		return r, err
	}
	r.Unheard = len(unheard)
	return r, orphans(ctx, s, kept, func(recordings.Object) error {
		r.Orphans++
		return nil
	})
}

// EachKept visits rows that name sounds, all of them.
func EachKept(
	ctx context.Context,
	rows func(context.Context, string, int) ([]store.SoundKept, error),
	visit func(store.SoundKept) error,
) error {
	for after := ""; ; {
		page, err := rows(ctx, after, atOnce)
		if err != nil || len(page) == 0 {
			return err
		}
		for _, k := range page {
			if err := visit(k); err != nil {
				return err
			}
			after = k.ID
		}
	}
}
