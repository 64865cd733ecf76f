package store

import (
	"context"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"earlychorus/core/ladder"
	"earlychorus/core/music"
	"earlychorus/core/verdict"
)

// LadderEntry is a line of a player's ladder log.
type LadderEntry struct {
	ID       int64 `gorm:"->"`
	PlayerID string
	Ladder   string
	What     ladder.Happening
	Day      time.Time `gorm:"type:date"`
	Rung     int
	Result   verdict.Result
	Hard     bool
	Seconds  float64
	TakeID   *string
	ActID    *string   // of a step back
	At       time.Time // when it happened, which may be before it was heard of
}

// AddLadderEntry adds a line. A take that is heard again adds none.
func (s *Store) AddLadderEntry(ctx context.Context, e LadderEntry) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		added := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&e)
		if added.Error != nil || added.RowsAffected == 0 {
			return added.Error
		}
		// The standing is not worked out here: rungs = 0 marks it as old, and whoever asks next
		// works it out.
		return tx.Exec(`INSERT INTO ladder_standing (player_id, ladder, entries) VALUES (?, ?, 1)
			ON CONFLICT (player_id, ladder) DO UPDATE SET entries = ladder_standing.entries + 1, rungs = 0`,
			e.PlayerID, e.Ladder).Error
	})
}

// LadderLog returns the lines of a player's ladder in the order they happened.
func (s *Store) LadderLog(ctx context.Context, playerID, key string) ([]ladder.Entry, error) {
	var rows []LadderEntry
	// By when it happened and not by when it came: a device may hand in yesterday's takes
	// today.
	err := s.db.WithContext(ctx).Where("player_id = ? AND ladder = ?", playerID, key).Order("at, id").Find(&rows).Error
	log := make([]ladder.Entry, len(rows))
	for n, e := range rows {
		log[n] = e.entry()
	}
	return log, err
}

// entry is the line in the ladder's own terms.
func (e LadderEntry) entry() ladder.Entry {
	return ladder.Entry{
		What:    e.What,
		Day:     e.Day.Format(time.DateOnly),
		Rung:    e.Rung,
		Result:  e.Result,
		Hard:    e.Hard,
		Seconds: music.Seconds(e.Seconds),
	}
}

// StuckPlayers returns whom a class's ladders do not let up.
func (s *Store) StuckPlayers(ctx context.Context, class Class) (out []StuckPlayer, err error) {
	states, err := s.LaddersOfClass(ctx, class)
	if err != nil {
		return nil, err
	}
	players, err := s.Players(ctx, class.ID)
	for _, p := range players {
		for key, state := range states[p.ID] {
			if ladder.Standard().Stuck(state) {
				out = append(out, StuckPlayer{p.ID, p.Instrument, key, state.Rung, state.Tries})
			}
		}
	}
	return out, err
}

// StuckPlayer is a player on a rung that somebody should hear.
type StuckPlayer struct {
	PlayerID   string
	Instrument string
	Ladder     string
	Rung       int
	Tries      int
}
