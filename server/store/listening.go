package store

import (
	"context"
	"encoding/json"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"earlychorus/core/music"
	"earlychorus/core/progress"
	"earlychorus/core/verdict"
)

// Listening is a director's morning with a class: what was chosen, and where it
// stands.
type Listening struct {
	DirectorID string    `gorm:"primaryKey"`
	ClassID    string    `gorm:"primaryKey"`
	Day        time.Time `gorm:"type:date;primaryKey"`
	Minutes    int
	Excerpts   []progress.Excerpt `gorm:"serializer:json"`
	LeftOver   int                // takes with a reason that did not fit
	Place      int
	SpentS     float64
}

// TableName is singular, as all are.
func (Listening) TableName() string { return "listening" }

// ListeningOf returns a director's listening of a day, or ErrNotFound.
func (s *Store) ListeningOf(ctx context.Context, directorID, classID string, day time.Time) (l Listening, err error) {
	err = s.db.WithContext(ctx).
		Where("director_id = ? AND class_id = ? AND day = ?", directorID, classID, day).
		Take(&l).
		Error
	return l, found(err)
}

// SaveListening begins a listening, or a new one in its place. It does not wait for
// the disk: what was chosen is chosen again as easily.
func (s *Store) SaveListening(ctx context.Context, l Listening) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		// A choice that a power cut loses is made again; waiting for the disk would be felt at
		// every opening.
		if err := tx.Exec("SET LOCAL synchronous_commit TO off").Error; err != nil {
			return err
		}
		return tx.Clauses(clause.OnConflict{
			Columns: []clause.Column{{Name: "director_id"}, {Name: "class_id"}, {Name: "day"}}, UpdateAll: true,
		}).Create(&l).Error
	})
}

// KeepPlace remembers where a listening stands, and the take that was listened to.
func (s *Store) KeepPlace(ctx context.Context, l Listening, listenedTo string, at time.Time) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		kept := tx.Model(&Listening{}).
			Where("director_id = ? AND class_id = ? AND day = ?", l.DirectorID, l.ClassID, l.Day).
			Updates(map[string]any{"place": l.Place, "spent_s": l.SpentS})
		if kept.Error != nil {
			return kept.Error
		}
		if kept.RowsAffected == 0 {
			return ErrNotFound
		}
		// The place is kept every few seconds, and mostly nothing was heard to its end in between.
		if listenedTo == "" {
			return nil
		}
		return tx.Exec(
			`INSERT INTO listened (take_id, director_id, at, player_id) SELECT id, ?, ?, player_id
				FROM take WHERE id = ? ON CONFLICT DO NOTHING`,
			l.DirectorID,
			at,
			listenedTo,
		).Error
	})
}

// ToHear is a take that may be worth hearing, with what is known around it.
type ToHear struct {
	TakeID     string
	PlayerID   string
	StepID     string
	Result     verdict.Result
	Conclusion json.RawMessage
	Instrument string // that it was played on
	Short      string
	CutFromS   float64
	CutToS     float64
	CutAt      string
	Ladder     string // whose rung it is of
	Flag       string
	FlagWords  string
	FlagStep   string // what the flag is about, or ""
	FirstClean bool
	WasClean   bool
	LastHeard  *time.Time // when a director last listened to the player
	PlayedFrom time.Time  // the player's first take, as a date
}

// TakesToHear returns each player's latest take of every step since a day that
// no director of the class has listened to.
func (s *Store) TakesToHear(ctx context.Context, classID string, since, today time.Time) (out []ToHear, err error) {
	err = s.db.WithContext(ctx).Raw(`
		WITH who AS MATERIALIZED ( -- once a player, not once a take
			SELECT p.id, p.instrument,
				coalesce(f.kind, '') AS flag, coalesce(f.words, '') AS flag_words, coalesce(f.step_id::text,
				'') AS flag_step,
				(SELECT max(h.at) FROM listened h WHERE h.player_id = p.id) AS last_heard,
				(SELECT min(e.day) FROM counted_take e WHERE e.player_id = p.id) AS played_from
			FROM player p
			LEFT JOIN LATERAL (
				SELECT kind, words, step_id
					FROM flag WHERE flag.player_id = p.id AND flag.seen_at IS NULL AND flag.kind <> 'tired'
				ORDER BY flag.kind IN ('hurts', 'dizzy') DESC, raised_at DESC LIMIT 1
			) f ON true
			WHERE p.class_id = ? AND p.left_at IS NULL
		), latest AS (
			SELECT t.id AS take_id, t.player_id, t.step_id, t.result, t.conclusion, t.short,
				t.cut_from_s, t.cut_to_s, t.cut_at,
				t.received_at, t.day,
				score.ladder, who.instrument, who.flag, who.flag_words, who.flag_step, who.last_heard, who.played_from
			FROM who CROSS JOIN (SELECT id FROM step WHERE class_id = ? AND last_day >= ? AND first_day <= ?) s
			CROSS JOIN LATERAL (
				SELECT * FROM counted_take WHERE player_id = who.id AND step_id = s.id AND day >= ? AND result <> ''
					ORDER BY received_at DESC LIMIT 1
			) t
			JOIN score ON score.id = t.score_id
		)
		SELECT l.*,
			l.result = 'clean' AND NOT EXISTS (
				SELECT 1 FROM counted_take e WHERE e.player_id = l.player_id
					AND e.step_id = l.step_id AND e.result = 'clean'
					AND e.received_at < l.received_at
			) AND EXISTS (
				SELECT 1 FROM counted_take e WHERE e.player_id = l.player_id AND e.step_id = l.step_id
					AND e.received_at < l.received_at
			) AS first_clean,
			l.result NOT IN ('clean', 'cant-tell') AND coalesce((
				SELECT e.result = 'clean'
					FROM counted_take e WHERE e.player_id = l.player_id AND e.step_id = l.step_id AND e.day < l.day
				ORDER BY e.received_at DESC LIMIT 1), false) AS was_clean
		FROM latest l
		WHERE NOT EXISTS (SELECT 1 FROM listened h WHERE h.take_id = l.take_id)
		LIMIT ?`, classID, classID, since, today, since, mostToHear).Scan(&out).Error
	return out, err
}

// mostToHear bounds what a listening is chosen from: forty players with fifty steps.
const mostToHear = 2000

// Judged is the word on a take, as it is kept.
type Judged struct {
	TakeID  string
	Start   float64 // of the score, in the recording
	Verdict json.RawMessage
	Ribbon  json.RawMessage
}

// JudgedOf returns the newest words on takes, and their ribbons.
func (s *Store) JudgedOf(ctx context.Context, takeIDs []string) (map[string]Judged, error) {
	var rows []Judged
	err := s.db.WithContext(ctx).Raw(
		`SELECT DISTINCT ON (take_id) take_id, (measured->>'score_start_s')::float8 AS start, verdict, ribbon
		FROM analysis WHERE take_id IN ? ORDER BY take_id, version DESC`,
		takeIDs,
	).Scan(&rows).Error
	out := map[string]Judged{}
	for _, h := range rows {
		out[h.TakeID] = h
	}
	return out, err
}

// TakesByID returns takes with their players.
func (s *Store) TakesByID(ctx context.Context, ids []string) (map[string]Take, error) {
	var rows []Take
	err := s.db.WithContext(ctx).Preload("Player").Preload("Sheet").Where("id IN ?", ids).Find(&rows).Error
	out := map[string]Take{}
	for _, t := range rows {
		out[t.ID] = t
	}
	return out, err
}

// ReviewsOf returns the directors' latest words on takes.
func (s *Store) ReviewsOf(ctx context.Context, takeIDs []string) (map[string]Review, error) {
	var rows []Review
	err := s.db.WithContext(ctx).
		Raw("SELECT DISTINCT ON (take_id) * FROM review WHERE take_id IN ? ORDER BY take_id, reviewed_at "+
			"DESC", takeIDs).
		Scan(&rows).
		Error
	out := map[string]Review{}
	for _, r := range rows {
		out[r.TakeID] = r
	}
	return out, err
}

// Phrase is one of a director's own phrases.
type Phrase struct {
	ID         string
	DirectorID string
	Words      string
	Used       int
}

// Phrases returns a director's phrases, most used first.
func (s *Store) Phrases(ctx context.Context, directorID string) (out []Phrase, err error) {
	err = s.db.WithContext(ctx).
		Where("director_id = ?", directorID).
		Order("used DESC, words").
		Limit(mostPhrases).
		Find(&out).
		Error
	return out, err
}

// mostPhrases bounds a director's own words; nine have a key.
const mostPhrases = 50

// UsePhrase counts a phrase's use, adding it when it is new.
func (s *Store) UsePhrase(ctx context.Context, directorID, words string) error {
	return s.db.WithContext(ctx).Exec(`INSERT INTO phrase (id, director_id, words, used) VALUES (?, ?, ?, 1)
		ON CONFLICT (director_id, words) DO UPDATE SET used = phrase.used + 1`, NewID(), directorID, words).Error
}

// DropPhrase forgets a director's phrase.
func (s *Store) DropPhrase(ctx context.Context, id, directorID string) error {
	gone := s.db.WithContext(ctx).Where("id = ? AND director_id = ?", id, directorID).Delete(&Phrase{})
	if gone.Error == nil && gone.RowsAffected == 0 {
		return ErrNotFound
	}
	return gone.Error
}

// SaveWeights keeps how much each reason to hear somebody counts in a class.
func (s *Store) SaveWeights(ctx context.Context, classID string, w progress.Weights) error {
	return s.db.WithContext(ctx).Model(&Class{ID: classID}).Select("Weights").Updates(Class{Weights: w}).Error
}

// Cut is the piece of it that somebody should hear.
func (t ToHear) Cut() progress.Cut {
	return progress.Cut{From: music.Seconds(t.CutFromS), To: music.Seconds(t.CutToS), At: t.CutAt}
}

// UnheardSince is since when nobody has listened to the player.
func (t ToHear) UnheardSince() time.Time {
	if t.LastHeard != nil {
		return *t.LastHeard
	}
	return t.PlayedFrom
}
