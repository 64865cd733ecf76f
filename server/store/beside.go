package store

import (
	"context"
	"time"

	"earlychorus/core/verdict"
)

// Beside is a take to lay beside another.
type Beside struct {
	Kind      string // previous, best or mate
	TakeID    string
	FirstName string
	LastName  string
	Day       time.Time
	Result    verdict.Result
}

// TakesBeside returns the player's take before the given one of the same step, the
// player's best of it, and the latest of mates on the same instrument. The director's
// word ranks before the measured one, and takes that wait are not laid beside anything.
func (s *Store) TakesBeside(ctx context.Context, t Take, mates int) (out []Beside, err error) {
	const order = "array_position(ARRAY['clean','nearly','not-yet','cant-tell'], coalesce(r.result, t.result))"
	err = s.db.WithContext(ctx).Raw(`
		WITH known AS (
			SELECT t.id, t.player_id, t.day, t.received_at, coalesce(r.result, t.result) AS result, `+order+` AS rank
			FROM counted_take t LEFT JOIN LATERAL (SELECT result
				FROM review WHERE take_id = t.id ORDER BY reviewed_at DESC LIMIT 1) r ON true
			WHERE t.step_id = @step AND t.result <> '' AND t.id <> @take
		)
		(SELECT 'previous' AS kind, k.id AS take_id, p.first_name, p.last_name, k.day, k.result FROM known k
			JOIN player p ON p.id = k.player_id
			WHERE k.player_id = @player AND k.received_at < @at ORDER BY k.received_at DESC LIMIT 1)
		UNION ALL
		(SELECT 'best', k.id, p.first_name, p.last_name, k.day, k.result FROM known k
			JOIN player p ON p.id = k.player_id
			WHERE k.player_id = @player ORDER BY k.rank, k.received_at DESC LIMIT 1)
		UNION ALL
		(SELECT 'next', k.id, p.first_name, p.last_name, k.day, k.result FROM known k
			JOIN player p ON p.id = k.player_id
			WHERE k.player_id = @player AND k.received_at > @at ORDER BY k.received_at LIMIT 1)
		UNION ALL
		(SELECT 'player-before', k.id, p.first_name, p.last_name, k.day, k.result FROM known k
			JOIN player p ON p.id = k.player_id
			WHERE k.day = @day
				AND (p.instrument, p.first_name, p.last_name, p.id) < (@instrument, @first, @last, @player)
			ORDER BY p.instrument DESC, p.first_name DESC, p.last_name DESC, p.id DESC, k.received_at DESC LIMIT 1)
		UNION ALL
		(SELECT 'player-after', k.id, p.first_name, p.last_name, k.day, k.result FROM known k
			JOIN player p ON p.id = k.player_id
			WHERE k.day = @day
				AND (p.instrument, p.first_name, p.last_name, p.id) > (@instrument, @first, @last, @player)
			ORDER BY p.instrument, p.first_name, p.last_name, p.id, k.received_at DESC LIMIT 1)
		UNION ALL
		(SELECT 'mate', m.id, m.first_name, m.last_name, m.day, m.result FROM (
			SELECT DISTINCT ON (k.player_id) k.*, p.first_name, p.last_name FROM known k
				JOIN player p ON p.id = k.player_id AND p.instrument = @instrument
				JOIN player_consent v ON v.player_id = p.id AND v.show -- it is heard by others
			WHERE k.player_id <> @player ORDER BY k.player_id, k.received_at DESC
		) m ORDER BY m.rank LIMIT @mates)`, map[string]any{
		"step":       t.StepID,
		"take":       t.ID,
		"player":     t.PlayerID,
		"at":         t.ReceivedAt,
		"instrument": t.Player.Instrument,
		"first":      t.Player.FirstName,
		"last":       t.Player.LastName,
		"day":        t.Day,
		"mates":      mates,
	}).Scan(&out).Error
	return out, err
}
