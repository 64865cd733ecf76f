package store

import (
	"context"
	"database/sql"
	"errors"
	"time"
)

// Session is one that somebody has open.
type Session struct {
	ID    string
	Agent string // the browser, in words
	Began time.Time
	Seen  time.Time
	Token string
}

// OpenSession says whose a session is. idle is after how long without a sign it ends; 0:
// only with its time.
func (s *Store) OpenSession(ctx context.Context, token string, who Asker, agent string, idle time.Duration) error {
	return s.db.WithContext(ctx).Exec(
		"UPDATE sessions SET role = ?, subject = ?, agent = ?, idle_s = ? WHERE token = ?",
		who.Role, who.Subject, agent, int(idle.Seconds()), token,
	).Error
}

// seenEvery is how exactly it is known when a session was last heard of.
const seenEvery = time.Minute

// SessionData returns what a session keeps; ok is false for one that has ended, or that
// nothing was heard of for too long.
func (s *Store) SessionData(ctx context.Context, token string) (data []byte, ok bool, err error) {
	var seen time.Time
	err = s.SQL().QueryRowContext(ctx, `
		SELECT data, seen FROM sessions WHERE token = $1 AND expiry > now()
			AND (idle_s = 0 OR seen > now() - idle_s * interval '1 second')`, token).Scan(&data, &seen)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, false, nil
	}
	if err != nil {
		return nil, false, err
	}
	if time.Since(seen) > seenEvery {
		_, err = s.SQL().ExecContext(ctx, "UPDATE sessions SET seen = now() WHERE token = $1", token)
	}
	return data, true, err
}

// SessionsOf returns somebody's sessions, the latest heard of first; mostSessions at
// most.
func (s *Store) SessionsOf(ctx context.Context, who Asker) (out []Session, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT id, agent, began, seen, token FROM sessions
		WHERE subject = ? AND role = ? AND expiry > now()
			AND (idle_s = 0 OR seen > now() - idle_s * interval '1 second')
		ORDER BY seen DESC LIMIT ?`, who.Subject, who.Role, mostSessions).Scan(&out).Error
	return out, err
}

const mostSessions = 50

// EndSession ends one of somebody's sessions, or ErrNotFound.
func (s *Store) EndSession(ctx context.Context, who Asker, id string) error {
	done := s.db.WithContext(ctx).
		Exec("DELETE FROM sessions WHERE id = ? AND subject = ? AND role = ?", id, who.Subject, who.Role)
	if done.Error == nil && done.RowsAffected == 0 {
		return ErrNotFound
	}
	return done.Error
}

// EndSessionsOf ends all sessions of people of a role, now.
func (s *Store) EndSessionsOf(ctx context.Context, role Role, subjects ...string) error {
	if len(subjects) == 0 {
		return nil
	}
	return s.db.WithContext(ctx).
		Exec("DELETE FROM sessions WHERE role = ? AND subject IN ?", role, subjects).Error
}

// EndSessionsOfClass ends the sessions of all players of a class.
func (s *Store) EndSessionsOfClass(ctx context.Context, classID string) error {
	return s.db.WithContext(ctx).Exec(
		"DELETE FROM sessions WHERE role = ? AND subject IN (SELECT id FROM player WHERE class_id = ?)",
		RolePlayer, classID,
	).Error
}
