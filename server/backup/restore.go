package backup

import (
	"context"
	"encoding/hex"
	"errors"
	"fmt"

	"earlychorus/server/postgres"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// ErrNotEmpty reports a database that a backup would overwrite.
var ErrNotEmpty = errors.New("the database is not empty: restore into a new one")

// ErrNone reports a place without a finished backup.
var ErrNone = errors.New("there is no finished backup here")

// Restored is what a backup brought back.
type Restored struct {
	Name   string
	Sounds int
}

// Restore brings a backup back into an empty database and its recordings; name is its
// moment, "" the newest. Every sound is compared with what the backup says of it.
// progress is told how many sounds are done. The schema is the backup's: migrate after.
func Restore(
	ctx context.Context, s *store.Store, to, from *recordings.Store, name string, progress func(done int),
) (r Restored, err error) {
	if empty, err := s.IsEmpty(ctx); err != nil || !empty {
		return r, errors.Join(err, ErrNotEmpty)
	}
	names, err := Backups(ctx, from)
	if err != nil {
		return r, err
	}
	if len(names) == 0 {
		return r, ErrNone
	}
	if r.Name = name; name == "" {
		r.Name = names[len(names)-1]
	}
	// Sounds first: a run that dies leaves files of nobody, and a database that is empty yet.
	renamed := map[string]line{}
	err = eachLine(ctx, from, r.Name, func(l line) error {
		if l.Gone {
			return nil
		}
		if l.Kept != l.Named {
			renamed[l.ID] = l
		}
		r.Sounds++
		progress(r.Sounds)
		return bring(ctx, to, from, l)
	})
	if err != nil {
		return r, fmt.Errorf("restore: %w", err)
	}
	dump, err := from.Open(ctx, folder+r.Name+dumpEnding)
	if err != nil {
		return r, err
	}
	defer dump.Close() //nolint:errcheck // read only
	if err := postgres.Load(ctx, s.DSN(), dump); err != nil {
		return r, err
	}
	for id, l := range renamed {
		sum, err := hex.DecodeString(l.SHA256)
		if err == nil {
			_, err = s.SetSound(ctx, id, l.Named, l.Kept, sum)
		}
		if err != nil {
			return r, fmt.Errorf("restore: take %s: %w", id, err)
		}
	}
	return r, s.TakeOver(ctx, to)
}

// bring copies a sound and compares it.
func bring(ctx context.Context, to, from *recordings.Store, l line) error {
	file, err := from.Open(ctx, l.Kept)
	if err != nil {
		return err
	}
	defer file.Close() //nolint:errcheck // read only
	sum, err := to.Restore(ctx, l.Kept, file)
	if err == nil && hex.EncodeToString(sum) != l.SHA256 {
		err = fmt.Errorf("%s: the backup is damaged: its contents are not those that were copied", l.Kept)
	}
	return err
}
