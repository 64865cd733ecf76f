package district

import (
	"context"

	"earlychorus/core/verdict"
)

// ladders writes a try a week for each player.
func (s *seeding) ladders(ctx context.Context) error {
	// A try a week: enough that a player's log is as long as a real one.
	count := s.Classes * s.Players * s.Weeks
	s.say("%d ladder entries", count)
	err := s.copy(
		ctx,
		"ladder_entry",
		[]string{"player_id", "ladder", "what", "day", "rung", "result", "at"},
		count,
		func(n int) []any {
			player, week := n/s.Weeks, n%s.Weeks
			day := s.monday.AddDate(0, 0, 7*week)
			return []any{
				id(aPlayer, player),
				s.ladderOf(player),
				"tried",
				day,
				// A rung a term.
				1 + week/12,
				[]verdict.Result{verdict.Clean, verdict.Clean, verdict.NotYet}[(n*7+week)%3],
				day,
			}
		},
	)
	if err != nil {
		return err
	}
	return s.copy(
		ctx,
		"ladder_standing",
		[]string{"player_id", "ladder", "entries"},
		s.Classes*s.Players,
		func(n int) []any {
			return []any{id(aPlayer, n), s.ladderOf(n), s.Weeks}
		},
	)
}

// ladderOf is the ladder an instrument climbs, or none.
func (s *seeding) ladderOf(player int) string {
	switch band[player%s.Players%len(band)] {
	case "clarinet":
		return "clarinet-break"
	case "alto-sax", "tenor-sax":
		return "sax-low"
	}
	return "brass-partials"
}
