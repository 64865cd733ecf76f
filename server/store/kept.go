package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"
)

// Unpacked is a take whose recording is kept as it came.
type Unpacked struct {
	ID         string
	Sound      string
	ReceivedAt time.Time
}

// Unpacked returns takes from before an instant whose recordings are not packed yet,
// the oldest first, those after one of them.
func (s *Store) Unpacked(ctx context.Context, before time.Time, after Unpacked, most int) (out []Unpacked, err error) {
	if after.ID == "" {
		after.ID = "00000000-0000-0000-0000-000000000000"
	}
	err = s.db.WithContext(ctx).Raw(`
		SELECT id, sound, received_at FROM take
		WHERE sound LIKE '%.wav' AND sound_gone_at IS NULL AND received_at < ?
			AND (received_at, id) > (?, ?::uuid)
		ORDER BY received_at, id LIMIT ?`, before, after.ReceivedAt, after.ID, most).Scan(&out).Error
	return out, err
}

// TakesWait reports whether takes are being listened to, or wait for it.
func (s *Store) TakesWait(ctx context.Context) (waiting bool, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT EXISTS (
		SELECT FROM river_job WHERE kind = 'analyze_take' AND state IN ('available', 'running')
	)`).Scan(&waiting).Error
	return waiting, err
}

// Unheard returns takes from before an instant that have neither a word, nor a failure,
// nor a job that is still to run, the oldest first.
func (s *Store) Unheard(ctx context.Context, before time.Time, most int) (ids []string, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT id FROM take
		WHERE result = '' AND failure = '' AND received_at < ? AND id::text NOT IN (
			SELECT args->>'take_id' FROM river_job
			WHERE kind = 'analyze_take' AND state IN ('available', 'pending', 'retryable', 'running', 'scheduled')
		)
		ORDER BY received_at LIMIT ?`, before, most).Scan(&ids).Error
	return ids, err
}

// Failed returns takes that could not be listened to although their sounds may be here,
// those after one of them, in the order of their numbers.
func (s *Store) Failed(ctx context.Context, after string, most int) (out []Take, err error) {
	db := s.db.WithContext(ctx).Where("result = '' AND failure <> '' AND sound_gone_at IS NULL")
	if after != "" {
		db = db.Where("id > ?", after)
	}
	err = db.Order("id").Limit(most).Find(&out).Error
	return out, err
}

// Queue runs queue in a transaction of its own.
func (s *Store) Queue(ctx context.Context, queue func(*gorm.DB) error) error {
	return s.db.WithContext(ctx).Transaction(queue)
}

// SoundKept is a sound as a row names it.
type SoundKept struct {
	ID     string
	Sound  string
	SHA256 []byte `gorm:"column:sound_sha256"`
}

// SoundsKept returns the sounds of takes that were not let go of, those after one of
// them, in the order of their takes' numbers.
func (s *Store) SoundsKept(ctx context.Context, after string, most int) (out []SoundKept, err error) {
	return s.soundsKept(ctx, "SELECT id, sound, sound_sha256 FROM take WHERE sound_gone_at IS NULL", after, most)
}

// VoicesKept is SoundsKept of voice notes, whose contents are not known.
func (s *Store) VoicesKept(ctx context.Context, after string, most int) (out []SoundKept, err error) {
	return s.soundsKept(
		ctx, "SELECT id, sound FROM comment WHERE kind = 'voice' AND sound_gone_at IS NULL", after, most,
	)
}

func (s *Store) soundsKept(ctx context.Context, from, after string, most int) (out []SoundKept, err error) {
	if after == "" {
		after = "00000000-0000-0000-0000-000000000000"
	}
	err = s.db.WithContext(ctx).Raw(from+" AND id > ?::uuid ORDER BY id LIMIT ?", after, most).Scan(&out).Error
	return out, err
}

// NamedSounds returns which of these sounds a row names; ids are their rows' numbers.
func (s *Store) NamedSounds(ctx context.Context, ids []string) (map[string]bool, error) {
	var names []string
	err := s.db.WithContext(ctx).Raw(`
		SELECT sound FROM take WHERE id IN ? AND sound_gone_at IS NULL
		UNION ALL SELECT sound FROM comment WHERE id IN ? AND sound_gone_at IS NULL`, ids, ids).Scan(&names).Error
	out := map[string]bool{}
	for _, name := range names {
		out[name] = true
	}
	return out, err
}

// ErrOtherRecordings reports that a process sees recordings that are not the cluster's.
var ErrOtherRecordings = errors.New("these are not the recordings of this database")

// Recordings is where a cluster's recordings say whose they are.
type Recordings interface {
	Identity(ctx context.Context) (string, error)
	SetIdentity(ctx context.Context, name string) error
}

// OwnRecordings makes sure that the recordings a process sees are those of its database.
// The first that ever comes names them. Errors: ErrOtherRecordings.
func (s *Store) OwnRecordings(ctx context.Context, kept Recordings) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		// Two that come first at once must agree.
		if err := tx.Exec("LOCK TABLE cluster IN EXCLUSIVE MODE").Error; err != nil {
			return err
		}
		var ours []string
		if err := tx.Raw("SELECT recordings FROM cluster").Scan(&ours).Error; err != nil {
			return err
		}
		seen, err := kept.Identity(ctx)
		if err != nil {
			return err
		}
		if len(ours) > 0 {
			if seen != ours[0] {
				return ErrOtherRecordings
			}
			return nil
		}
		if seen == "" {
			seen = NewID()
			if err := kept.SetIdentity(ctx, seen); err != nil {
				return err
			}
		}
		return tx.Exec("INSERT INTO cluster (recordings) VALUES (?)", seen).Error
	})
}

// NamesVoice reports whether a comment names a voice note's sound.
func (s *Store) NamesVoice(ctx context.Context, sound string) (bool, error) {
	var rows int64
	err := s.db.WithContext(ctx).Model(&Comment{}).Where("sound = ?", sound).Count(&rows).Error
	return rows > 0, err
}

// SoundNames returns the names of the sounds of takes and voice notes, by their numbers.
func (s *Store) SoundNames(ctx context.Context, ids []string) (map[string]string, error) {
	var rows []Kept
	err := s.db.WithContext(ctx).Raw(`
		SELECT id, sound FROM take WHERE id IN ? AND sound_gone_at IS NULL
		UNION ALL SELECT id, sound FROM comment WHERE id IN ? AND sound_gone_at IS NULL`, ids, ids).Scan(&rows).Error
	out := map[string]string{}
	for _, r := range rows {
		out[r.ID] = r.Sound
	}
	return out, err
}
