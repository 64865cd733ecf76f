package store

import (
	"context"
	"encoding/json"
	"fmt"

	"earlychorus/core/exercise"
	"earlychorus/core/ladder"
	"earlychorus/core/roster"
)

// Standing is a player with how things stand: everything that scores are worked
// out from. Only Standing and StandingsOf make one, so that nobody is taken to stand
// on the first rung because nobody asked.
type Standing struct {
	Player  Player
	Ladders map[string]ladder.State // by key, of those that were ever tried
	Repeat  int                     // how often the step in question was played before on its day
	Best    float64                 // longest hold, in seconds, of the longest long tones that came out; 0: none yet
}

// Rungs returns on which rung of each ladder the player stands, from 1.
func (s Standing) Rungs() map[string]int {
	out := map[string]int{}
	for key, state := range s.Ladders {
		out[key] = state.Rung
	}
	return out
}

// Standing returns how things stand for a player, as of now.
func (s *Store) Standing(ctx context.Context, p Player) (Standing, error) {
	ladders, err := s.LaddersOf(ctx, p)
	if err != nil {
		return Standing{}, err
	}
	best, err := s.bestHold(ctx, p.ID)
	return Standing{Player: p, Ladders: ladders, Best: best}, err
}

// StandingsOf returns how things stand for players of a class, in their order, but for their
// best holds: no list shows them, and they are found in a year of notes.
func (s *Store) StandingsOf(ctx context.Context, class Class, players []Player) ([]Standing, error) {
	ladders, err := s.LaddersOfClass(ctx, class)
	if err != nil {
		return nil, err
	}
	out := make([]Standing, len(players))
	for n, p := range players {
		p.Class = class
		out[n] = Standing{Player: p, Ladders: ladders[p.ID]}
	}
	return out, nil
}

// bestHold returns a player's longest note in seconds, of the longest long tones that came
// out; 0 where none did.
func (s *Store) bestHold(ctx context.Context, playerID string) (best float64, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT coalesce(max(n.held), 0)
		FROM step s JOIN counted_take t ON t.step_id = s.id AND t.result IN ('clean', 'nearly')
			JOIN take_note n ON n.take_id = t.id
		WHERE s.kind = ? AND n.player_id = ?`, exercise.KindLongToneLongest, playerID).Scan(&best).Error
	return best, err
}

// keptStanding is where a player stands on a ladder, as it is kept, and what it must
// have been worked out for.
type keptStanding struct {
	PlayerID   string
	Ladder     string
	Entries    int64
	Rungs      int
	Version    int
	State      json.RawMessage
	Instrument string
	Variant    string
}

// keptStandings is a standing with the instrument it is for: how many rungs a ladder
// has depends on what is played.
const keptStandings = `SELECT st.player_id, st.ladder, st.entries, st.rungs, st.version, st.state,
	p.instrument, p.variant
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

// standings is where players stand by player and ladder, each worked out anew where
// the ladder has changed since it was kept.
func (s *Store) standings(ctx context.Context, query string, of string) (map[string]map[string]ladder.State, error) {
	var kept []keptStanding
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
func (s *Store) stateOf(ctx context.Context, k keptStanding) (state ladder.State, err error) {
	i, err := Player{Person: roster.Person{Instrument: k.Instrument, Variant: k.Variant}}.Plays()
	if err != nil {
		return state, err
	}
	l, _ := exercise.LadderOf(k.Ladder)
	rungs := len(l.Rungs(i))
	// Rungs differ when the instrument was changed, or when a new try has marked the standing
	// as old.
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
		Exec(`UPDATE ladder_standing SET rungs = ?, version = ?, state = ?
			WHERE player_id = ? AND ladder = ?
				AND entries = ?`, rungs, ladder.Version, string(body), k.PlayerID, k.Ladder, k.Entries).
		Error
}
