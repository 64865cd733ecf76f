// Package backup copies a whole cluster, its database and every recording it names, to a
// folder or a bucket, and back. Recordings never change under their names, so a backup
// copies only those that the place does not have yet.
package backup

import (
	"bufio"
	"context"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"

	"earlychorus/server/postgres"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// A backup is two objects named by their moment: the database, and the list of the
// sounds it names. The list is written last: a backup without one was never finished.
const (
	folder     = "database/"
	dumpEnding = ".dump"
	listEnding = ".sounds"
	moments    = "2006-01-02T150405Z"
)

// line is a sound of a list.
type line struct {
	Kind   recordings.Kind `json:"kind"`
	ID     string          `json:"id"`
	Named  string          `json:"named"`          // by the dump
	Kept   string          `json:"kept"`           // by the place; another name when it was packed meanwhile
	SHA256 string          `json:"sha256"`         // of what the place keeps
	Gone   bool            `json:"gone,omitempty"` // missing, or let go of before it could be copied
}

// Made is what a backup came to.
type Made struct {
	Name   string // its moment
	Sounds int
	Copied int // the others were there
	Gone   []string
}

// Make copies the database first and then every sound it names. progress is told how
// many sounds are done.
func Make(
	ctx context.Context, s *store.Store, from, to *recordings.Store, now time.Time, progress func(done int),
) (m Made, err error) {
	m.Name = now.UTC().Format(moments)
	var sounds []line
	err = s.AtSnapshot(ctx, func(snapshot string, at store.Names) error {
		in, out := io.Pipe()
		dumped := make(chan error, 1)
		go func() {
			err := postgres.Dump(ctx, s.DSN(), snapshot, out)
			out.CloseWithError(err)
			dumped <- err
		}()
		_, err := to.Restore(ctx, folder+m.Name+dumpEnding, in)
		in.CloseWithError(err) // whoever still writes is told
		if err := errors.Join(<-dumped, err); err != nil {
			return err
		}
		return at.Each(ctx, func(kind recordings.Kind, k store.SoundKept) error {
			sounds = append(sounds, line{
				Kind:  kind,
				ID:    k.ID,
				Named: k.Sound,
				Kept:  k.Sound,
			})
			return nil
		})
	})
	if err != nil {
		return m, fmt.Errorf("backup: the database: %w", err)
	}
	c := copying{ctx, s, from, to}
	for n := range sounds {
		copied, err := c.one(&sounds[n])
		if err != nil {
			return m, fmt.Errorf("backup: %s: %w", sounds[n].Named, err)
		}
		if copied {
			m.Copied++
		}
		if sounds[n].Gone {
			m.Gone = append(m.Gone, sounds[n].ID)
		}
		m.Sounds++
		progress(m.Sounds)
	}
	return m, to.Write(ctx, folder+m.Name+listEnding, listOf(sounds))
}

// copying is a backup under way.
type copying struct {
	ctx      context.Context
	store    *store.Store
	from, to *recordings.Store
}

// one copies a sound unless the place has it.
func (c copying) one(l *line) (copied bool, err error) {
	if sum, err := c.to.Sum(c.ctx, l.Named); err == nil {
		l.SHA256 = hex.EncodeToString(sum)
		return false, nil
	} else if !errors.Is(err, recordings.ErrMissing) {
		return false, err
	}
	file, err := c.from.Open(c.ctx, l.Named)
	if errors.Is(err, recordings.ErrMissing) {
		// Packed since the dump, under another name.
		names, asked := c.store.SoundNames(c.ctx, []string{l.ID})
		if asked != nil {
			return false, asked
		}
		l.Kept = names[l.ID]
		file, err = c.from.Open(c.ctx, l.Kept)
	}
	if errors.Is(err, recordings.ErrMissing) {
		l.Gone = true
		return false, nil
	}
	if err != nil {
		return false, err
	}
	defer file.Close() //nolint:errcheck // read only
	sum, err := c.to.Restore(c.ctx, l.Kept, file)
	l.SHA256 = hex.EncodeToString(sum)
	return err == nil, err
}

func listOf(sounds []line) []byte {
	var out strings.Builder
	lines := json.NewEncoder(&out)
	for _, l := range sounds {
		_ = lines.Encode(l) // texts and truths: it does not fail
	}
	return []byte(out.String())
}

// Backups lists the finished backups of a place, the oldest first.
func Backups(ctx context.Context, at *recordings.Store) (names []string, err error) {
	err = at.EachIn(ctx, strings.TrimSuffix(folder, "/"), func(o recordings.Object) error {
		if name, ok := strings.CutSuffix(strings.TrimPrefix(o.Key, folder), listEnding); ok {
			names = append(names, name)
		}
		return nil
	})
	slices.Sort(names)
	return names, err
}

// Rotate keeps the newest backups and lets the others go, with the sounds that only they
// name.
func Rotate(ctx context.Context, at *recordings.Store, keep int) (dropped int, err error) {
	names, err := Backups(ctx, at)
	if err != nil || len(names) <= keep {
		return 0, err
	}
	wanted := map[string]bool{}
	for _, name := range names[len(names)-keep:] {
		err := eachLine(ctx, at, name, func(l line) error {
			wanted[l.Kept] = true
			return nil
		})
		if err != nil {
			return 0, err
		}
	}
	for _, name := range names[:len(names)-keep] {
		// The list first: what is left of a backup without one is none.
		for _, ending := range []string{listEnding, dumpEnding} {
			if err := at.Delete(ctx, folder+name+ending); err != nil {
				return dropped, err
			}
		}
		dropped++
	}
	var gone []string
	err = at.Each(ctx, func(o recordings.Object) error {
		// What is no sound is not ours: somebody may keep other things in the place.
		isSound := slices.Contains([]string{".wav", ".flac"}, recordings.Ending(o.Key))
		if isSound && !wanted[o.Key] {
			gone = append(gone, o.Key)
		}
		return nil
	})
	for _, key := range gone {
		err = errors.Join(err, at.Delete(ctx, key))
	}
	return dropped, err
}

// eachLine visits the sounds of a backup.
func eachLine(ctx context.Context, at *recordings.Store, name string, visit func(line) error) error {
	list, err := at.Open(ctx, folder+name+listEnding)
	if err != nil {
		return fmt.Errorf("backup %s: %w", name, err)
	}
	defer list.Close() //nolint:errcheck // read only
	lines := bufio.NewScanner(list)
	for lines.Scan() {
		var l line
		if err := json.Unmarshal(lines.Bytes(), &l); err != nil {
			return fmt.Errorf("backup %s: its list is damaged: %w", name, err)
		}
		if err := visit(l); err != nil {
			return err
		}
	}
	return lines.Err()
}
