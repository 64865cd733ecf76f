package store

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/json"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"earlychorus/core/scores"
	"earlychorus/server/problem"
)

// AcceptTake remembers a take and runs queue in the same transaction, so that
// neither the take nor its job is ever there without the other. A take
// already accepted is left as it is: accepted is false when its bytes are the
// same, and a problem of kind Conflict tells when they differ or it is another player's.
func (s *Store) AcceptTake(ctx context.Context, t Take, queue func(*gorm.DB) error) (accepted bool, err error) {
	err = s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		// The score as it was shown is kept with the take: the step may be changed tomorrow, and
		// the take must still be read by what was asked.
		sheet, err := sheetOf(t.Score)
		if err != nil {
			return err
		}
		if err := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&sheet).Error; err != nil {
			return err
		}
		t.ScoreID = sheet.ID
		created := tx.Clauses(clause.OnConflict{DoNothing: true}).Omit("Player", "Sheet").Create(&t)
		if created.Error != nil {
			return created.Error
		}
		// Take, notice and job are one transaction: none is ever there without the others.
		if accepted = created.RowsAffected == 1; accepted {
			if err := tellWatchers(tx, t.ID); err != nil {
				return err
			}
			return queue(tx)
		}
		// Two requests at once: the slower finds the take there and has nothing to do, if it is
		// the same take.
		_, _, err = sameTake(tx, t)
		return err
	})
	return accepted, err
}

// sheetOf is a score as it is kept.
func sheetOf(s scores.Score) (ScoreSheet, error) {
	body, err := json.Marshal(s)
	if err != nil {
		return ScoreSheet{}, err
	}
	// Named by what it says: a class of thirty clarinets keeps one score and not thirty.
	id := sha256.Sum256(body)
	return ScoreSheet{
		ID:      id[:],
		Body:    s,
		Written: s.Reads(),
		Ladder:  s.Ladder,
	}, nil
}

// KnownTake returns the take if it was accepted before; a problem of kind Conflict tells
// that another one was, under the same number.
func (s *Store) KnownTake(ctx context.Context, t Take) (before Take, known bool, err error) {
	return sameTake(s.db.WithContext(ctx), t)
}

// SetSound says under which name a take's sound is kept from now on, and which contents
// it has. was is the name until now: another one is left as it is, and changed is false.
func (s *Store) SetSound(ctx context.Context, takeID, was, name string, sum []byte) (changed bool, err error) {
	done := s.db.WithContext(ctx).Model(&Take{}).
		Where("id = ? AND sound = ? AND sound_gone_at IS NULL", takeID, was).
		Updates(map[string]any{"sound": name, "sound_sha256": sum})
	return done.RowsAffected == 1, done.Error
}

// Hear forgets that a take could not be listened to and runs queue, in one transaction.
func (s *Store) Hear(ctx context.Context, takeID string, queue func(*gorm.DB) error) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Model(&Take{}).Where("id = ?", takeID).Update("failure", "").Error; err != nil {
			return err
		}
		return queue(tx)
	})
}

// TakesOn counts the takes a player has handed in on a day.
func (s *Store) TakesOn(ctx context.Context, playerID string, day time.Time) (takes int64, err error) {
	err = s.db.WithContext(ctx).Model(&Take{}).Where("player_id = ? AND day = ?", playerID, day).Count(&takes).Error
	return takes, err
}

// sameTake tells a take that was sent again, which is fine, from another one under
// the same number, which is refused and overwrites nothing.
func sameTake(db *gorm.DB, t Take) (before Take, known bool, err error) {
	var rows []Take
	if err := db.Where("id = ?", t.ID).Find(&rows).Error; err != nil || len(rows) == 0 {
		return before, false, err
	}
	if rows[0].PlayerID != t.PlayerID || !bytes.Equal(rows[0].SHA256, t.SHA256) {
		return before, false, problem.Of(
			problem.Conflict,
			"Another recording was already handed in under this number. Record again.",
			nil,
		)
	}
	return rows[0], true, nil
}

// TakesThere returns which of these takes were accepted.
func (s *Store) TakesThere(ctx context.Context, ids []string) (map[string]bool, error) {
	var there []string
	err := s.db.WithContext(ctx).Model(&Take{}).Where("id IN ?", ids).Pluck("id", &there).Error
	out := map[string]bool{}
	for _, id := range there {
		out[id] = true
	}
	return out, err
}

// Take returns any take with its player; for workers, who ask on nobody's behalf.
func (s *Store) Take(ctx context.Context, takeID string) (t Take, err error) {
	// With whom and what it is of: nobody looks at a take without both.
	err = s.db.WithContext(ctx).Preload("Player.Class").Preload("Sheet").Where("id = ?", takeID).Take(&t).Error
	return t, found(err)
}

// TakesOfPlayerOn returns a player's takes of a day, newest first; mostTakes at most.
func (s *Store) TakesOfPlayerOn(ctx context.Context, playerID string, day time.Time) (out []Take, err error) {
	err = s.db.WithContext(ctx).Table("counted_take").Where("player_id = ? AND day = ?", playerID, day).
		Order("received_at DESC").Limit(mostTakes).Find(&out).Error
	return out, err
}

// mostTakes is takes of one page; the page asks for more.
const mostTakes = 50

// FailTake remembers why a take could not be analysed.
func (s *Store) FailTake(ctx context.Context, takeID, why string) error {
	return s.db.WithContext(ctx).Model(&Take{}).Where("id = ?", takeID).Update("failure", why).Error
}
