package store

import (
	"context"
	"time"
)

// PracticeWeek is what a player practiced in a week.
type PracticeWeek struct {
	PlayerID string
	Monday   time.Time
	Days     int
	Takes    int
	Minutes  float64
	Clean    int
}

// PracticeByWeek counts, for each player of a class and week between two days, on how many days
// something was recorded or ticked, and what; weeks without practice have no row.
func (s *Store) PracticeByWeek(
	ctx context.Context,
	classID string,
	from, to time.Time,
) (out []PracticeWeek, err error) {
	err = s.db.WithContext(ctx).Raw(`
		WITH done AS (
			SELECT t.player_id, t.day, 1 AS take, t.duration_ms,
				coalesce((SELECT result FROM review WHERE take_id = t.id ORDER BY reviewed_at DESC LIMIT 1), t.result)
					= 'clean' AS clean
			FROM counted_take t JOIN player p ON p.id = t.player_id
			WHERE p.class_id = @class AND t.day BETWEEN @from AND @to
			UNION ALL
			SELECT k.player_id, k.day, 0, 0, false FROM tick k JOIN player p ON p.id = k.player_id
			WHERE p.class_id = @class AND k.day BETWEEN @from AND @to
		)
		SELECT player_id, date_trunc('week', day)::date AS monday, count(DISTINCT day) AS days, sum(take) AS takes,
			sum(duration_ms) / 60000.0 AS minutes, count(*) FILTER (WHERE clean) AS clean
		FROM done GROUP BY player_id, monday ORDER BY monday, player_id LIMIT @most`,
		map[string]any{"class": classID, "from": from, "to": to, "most": MostPlayers * mostWeeks}).Scan(&out).Error
	return out, err
}

// mostWeeks of a gradebook are a school year and its holidays.
const mostWeeks = 60
