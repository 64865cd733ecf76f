package store

import (
	"context"
	"time"

	"gorm.io/gorm/clause"

	"earlychorus/core/exercise"
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
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{DoNothing: true}).Create(&e).Error
}

// LaddersOf returns where a player stands on every ladder that was ever tried.
func (s *Store) LaddersOf(ctx context.Context, p Player) (map[string]ladder.State, error) {
	var log []LadderEntry
	if err := s.db.WithContext(ctx).Where("player_id = ?", p.ID).Order("at, id").Find(&log).Error; err != nil {
		return nil, err
	}
	who, err := p.As(p.Class.Day(time.Time{}))
	if err != nil {
		return nil, err
	}
	entries := map[string][]ladder.Entry{}
	for _, e := range log {
		entries[e.Ladder] = append(entries[e.Ladder], e.entry())
	}
	out := map[string]ladder.State{}
	for key, list := range entries {
		l, _ := exercise.LadderOf(key)
		out[key] = ladder.Standard().Replay(len(l.Rungs(who.Instrument)), list)
	}
	return out, nil
}

// BestHold returns a player's longest note, in seconds, of the longest long tones
// that came out; 0 when there is none.
func (s *Store) BestHold(ctx context.Context, playerID string) (best float64, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT coalesce(max(n.held), 0)
		FROM take_note n JOIN take t ON t.id = n.take_id AND t.result IN ('clean', 'nearly') JOIN step s ON s.id = t.step_id AND s.kind = ?
		WHERE n.player_id = ?`, exercise.KindLongToneLongest, playerID).Scan(&best).Error
	return best, err
}

// Standing adds to a player where the ladders stand and what the best is, which
// scores are worked out from.
func (s *Store) Standing(ctx context.Context, p Player) (Player, map[string]ladder.State, error) {
	states, err := s.LaddersOf(ctx, p)
	if err != nil {
		return p, nil, err
	}
	p.Rungs = map[string]int{}
	for key, state := range states {
		p.Rungs[key] = state.Rung
	}
	p.Best, err = s.BestHold(ctx, p.ID)
	return p, states, err
}

// LaddersOfClass returns where a class's players stand, by player and ladder.
func (s *Store) LaddersOfClass(ctx context.Context, class Class) (map[string]map[string]ladder.State, error) {
	var log []struct {
		LadderEntry
		Instrument string
		Variant    string
	}
	err := s.db.WithContext(ctx).Raw(`SELECT e.*, p.instrument, p.variant FROM ladder_entry e JOIN player p ON p.id = e.player_id
		WHERE p.class_id = ? AND p.left_at IS NULL ORDER BY e.at, e.id`, class.ID).Scan(&log).Error
	if err != nil {
		return nil, err
	}
	out := map[string]map[string]ladder.State{}
	for _, e := range log {
		if out[e.PlayerID] == nil {
			out[e.PlayerID] = map[string]ladder.State{}
		}
		state, tried := out[e.PlayerID][e.Ladder]
		if !tried {
			who, err := Player{Instrument: e.Instrument, Variant: e.Variant, Stage: 1}.As(time.Time{})
			if err != nil {
				return nil, err
			}
			l, _ := exercise.LadderOf(e.Ladder)
			state = ladder.Start(len(l.Rungs(who.Instrument)))
		}
		out[e.PlayerID][e.Ladder], _ = ladder.Standard().Next(state, e.entry())
	}
	return out, nil
}

// entry is the line in the ladder's own terms.
func (e LadderEntry) entry() ladder.Entry {
	return ladder.Entry{
		What: e.What, Day: e.Day.Format(time.DateOnly), Rung: e.Rung, Result: e.Result, Hard: e.Hard, Seconds: music.Seconds(e.Seconds),
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
