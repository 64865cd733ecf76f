package store

import (
	"context"
	"fmt"

	"github.com/jackc/pgx/v5"
	"gorm.io/gorm"
)

// watched is the channel on which changed classes are named.
const watched = "class_changed"

// tellWatchers names the class of a take to whoever watches it, when the
// transaction commits.
func tellWatchers(tx *gorm.DB, takeID string) error {
	return tx.Exec(
		"SELECT pg_notify(?, p.class_id::text) FROM take t JOIN player p ON p.id = t.player_id WHERE t.id = ?",
		watched,
		takeID,
	).Error
}

// Watch calls changed with the number of each class in which something happens,
// until ctx ends; every machine that serves hears of every change.
func Watch(ctx context.Context, dsn string, changed func(classID string)) error {
	conn, err := pgx.Connect(ctx, dsn)
	if err != nil {
		return fmt.Errorf("store: watch: %w", err)
	}
	defer conn.Close(context.WithoutCancel(ctx)) //nolint:errcheck // ending anyway
	if _, err := conn.Exec(ctx, "LISTEN "+watched); err != nil {
		return fmt.Errorf("store: watch: %w", err)
	}
	for {
		n, err := conn.WaitForNotification(ctx)
		if err != nil {
			return err
		}
		changed(n.Payload)
	}
}
