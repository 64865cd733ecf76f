package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/ladder"
	"earlychorus/core/roster"
)

// standing is where a player stands on a ladder, as it is kept, and what it must
// have been worked out for.
type standing struct {
	PlayerID   string
	Ladder     string
	Entries    int64
	Rungs      int
	Version    int
	State      json.RawMessage
	Instrument string
	Variant    string
}

const keptStandings = `SELECT st.player_id, st.ladder, st.entries, st.rungs, st.version, st.state, p.instrument, p.variant
	FROM ladder_standing st JOIN player p ON p.id = st.player_id WHERE `

// LaddersOf returns where a player stands on every ladder that was ever tried.
func (s *Store) LaddersOf(ctx context.Context, p Player) (map[string]ladder.State, error) {
	of, err := s.standings(ctx, keptStandings+"p.id = ?", p.ID)
	if of[p.ID] == nil {
		return map[string]ladder.State{}, err
	}
	return of[p.ID], err
}

// LaddersOfClass returns where a class's players stand, by player and ladder.
func (s *Store) LaddersOfClass(ctx context.Context, class Class) (map[string]map[string]ladder.State, error) {
	return s.standings(ctx, keptStandings+"p.class_id = ? AND p.left_at IS NULL", class.ID)
}

func (s *Store) standings(ctx context.Context, query string, of string) (map[string]map[string]ladder.State, error) {
	var kept []standing
	if err := s.db.WithContext(ctx).Raw(query, of).Scan(&kept).Error; err != nil {
		return nil, err
	}
	out := map[string]map[string]ladder.State{}
	for _, k := range kept {
		state, err := s.stateOf(ctx, k)
		if err != nil {
			return nil, err
		}
		if out[k.PlayerID] == nil {
			out[k.PlayerID] = map[string]ladder.State{}
		}
		out[k.PlayerID][k.Ladder] = state
	}
	return out, nil
}

// stateOf returns a standing, worked out again where something changed since.
func (s *Store) stateOf(ctx context.Context, k standing) (state ladder.State, err error) {
	who, err := Player{Person: roster.Person{Instrument: k.Instrument, Variant: k.Variant, Stage: 1}}.As(time.Time{})
	if err != nil {
		return state, err
	}
	l, _ := exercise.LadderOf(k.Ladder)
	rungs := len(l.Rungs(who.Instrument))
	if k.Rungs == rungs && k.Version == ladder.Version {
		if err := json.Unmarshal(k.State, &state); err != nil {
			return state, fmt.Errorf("ladder %s of player %s: %w", k.Ladder, k.PlayerID, err)
		}
		return state, nil
	}
	log, err := s.LadderLog(ctx, k.PlayerID, k.Ladder)
	if err != nil {
		return state, err
	}
	state = ladder.Standard().Replay(rungs, log)
	body, err := json.Marshal(state)
	if err != nil {
		return state, err
	}
	// A line that was added meanwhile has counted entries up: then this is old, and
	// is not kept.
	return state, s.db.WithContext(ctx).
		Exec(`UPDATE ladder_standing SET rungs = ?, version = ?, state = ? WHERE player_id = ? AND ladder = ? AND entries = ?`, rungs, ladder.Version, string(body), k.PlayerID, k.Ladder, k.Entries).
		Error
}
