package store

import (
	"context"
	"encoding/json"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"earlychorus/core/progress"
)

// SaveAnalysis remembers what was measured, the notes it counts for, and on the
// take itself the word and where to cut it, all or nothing. Saving the same version again replaces it,
// so a job may run twice. Whoever watches the class is told.
func (s *Store) SaveAnalysis(ctx context.Context, a Analysis, notes []TakeNote, cut progress.Cut) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		err := tx.Clauses(
			clause.OnConflict{Columns: []clause.Column{{Name: "take_id"}, {Name: "version"}}, UpdateAll: true},
		).Create(&a).Error
		if err != nil {
			return err
		}
		if err := tx.Where("take_id = ?", a.TakeID).Delete(&TakeNote{}).Error; err != nil {
			return err
		}
		if len(notes) > 0 {
			if err := tx.Create(&notes).Error; err != nil {
				return err
			}
		}
		brief, err := json.Marshal(a.Verdict.Brief())
		if err != nil {
			return err
		}
		err = tx.Model(&Take{}).Where("id = ?", a.TakeID).Updates(map[string]any{
			"result":     a.Result,
			"cause":      a.Verdict.Cause(),
			"conclusion": brief,
			"cut_from_s": cut.From,
			"cut_to_s":   cut.To,
			"cut_at":     cut.At,
			"floor_db":   float64(a.Measured.Recording.NoiseFloor),
			"ring_s":     float64(a.Measured.Recording.Ring),
		}).Error
		if err != nil {
			return err
		}
		return tellWatchers(tx, a.TakeID)
	})
}

// AnalysisOf returns the newest analysis of a take, or ErrNotFound while there is none.
func (s *Store) AnalysisOf(ctx context.Context, takeID string) (a Analysis, err error) {
	err = s.db.WithContext(ctx).Where("take_id = ?", takeID).Order("version DESC").Take(&a).Error
	return a, found(err)
}

// RecentTips returns the tips of a player's takes of a step before the given
// one, latest first.
func (s *Store) RecentTips(ctx context.Context, t Take, most int) (keys []string, err error) {
	err = s.db.WithContext(ctx).Table("take").
		Joins("JOIN LATERAL (SELECT tip_key FROM analysis WHERE take_id = take.id ORDER BY version DESC LIMIT 1) a "+
			"ON true").
		Where("player_id = ? AND step_id = ? AND received_at < ?", t.PlayerID, t.StepID, t.ReceivedAt).
		Order("received_at DESC").Limit(most).Pluck("a.tip_key", &keys).Error
	return keys, err
}

// LatestTips returns the tips of a player's latest takes of a step, latest first.
func (s *Store) LatestTips(ctx context.Context, playerID, stepID string, most int) (keys []string, err error) {
	keys = []string{}
	err = s.db.WithContext(ctx).Table("take").
		Joins("JOIN LATERAL (SELECT tip_key FROM analysis WHERE take_id = take.id ORDER BY version DESC LIMIT 1) a "+
			"ON true").
		Where("player_id = ? AND step_id = ?", playerID, stepID).
		Order("received_at DESC").Limit(most).Pluck("a.tip_key", &keys).Error
	return keys, err
}

// SmallAnalyses returns the newest analyses of takes by take, without their
// contours and measures.
func (s *Store) SmallAnalyses(ctx context.Context, takeIDs []string) (map[string]Analysis, error) {
	var rows []Analysis
	err := s.db.WithContext(ctx).Select("DISTINCT ON (take_id) take_id, version, result, ribbon").
		Where("take_id IN ?", takeIDs).Order("take_id, version DESC").Find(&rows).Error
	out := map[string]Analysis{}
	for _, a := range rows {
		out[a.TakeID] = a
	}
	return out, err
}
