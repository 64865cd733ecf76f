package store

import (
	"context"
	"database/sql"

	"gorm.io/gorm"

	"earlychorus/server/recordings"
)

// Names is the sounds that rows name, as of one moment.
type Names struct{ db *Store }

// Each visits them all.
func (n Names) Each(ctx context.Context, visit func(recordings.Kind, SoundKept) error) error {
	for _, of := range []struct {
		kind recordings.Kind
		rows func(context.Context, string, int) ([]SoundKept, error)
	}{{recordings.OfTake, n.db.SoundsKept}, {recordings.OfVoice, n.db.VoicesKept}} {
		for after := ""; ; {
			page, err := of.rows(ctx, after, namesAtOnce)
			if err != nil {
				return err
			}
			if len(page) == 0 {
				break
			}
			for _, k := range page {
				if err := visit(of.kind, k); err != nil {
					return err
				}
				after = k.ID
			}
		}
	}
	return nil
}

const namesAtOnce = 1000

// AtSnapshot runs a function at one moment of the database, whose snapshot other
// connections may use as long as it runs.
func (s *Store) AtSnapshot(ctx context.Context, do func(snapshot string, at Names) error) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		var snapshot string
		if err := tx.Raw("SELECT pg_export_snapshot()").Scan(&snapshot).Error; err != nil {
			return err
		}
		return do(snapshot, Names{&Store{db: tx, dsn: s.dsn}})
	}, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
}

// IsEmpty reports whether a database has no table of anybody's.
func (s *Store) IsEmpty(ctx context.Context) (bool, error) {
	var tables int64
	err := s.db.WithContext(ctx).Raw(
		"SELECT count(*) FROM information_schema.tables WHERE table_schema = 'public'",
	).Scan(&tables).Error
	return tables == 0, err
}

// TakeOver makes recordings that were just brought back the cluster's own, and ends all
// sessions: who was signed in when a backup was made need not be today.
func (s *Store) TakeOver(ctx context.Context, kept Recordings) error {
	db := s.db.WithContext(ctx)
	var ours string
	if err := db.Raw("SELECT recordings FROM cluster").Scan(&ours).Error; err != nil {
		return err
	}
	if err := kept.SetIdentity(ctx, ours); err != nil {
		return err
	}
	return db.Exec("DELETE FROM sessions").Error
}
