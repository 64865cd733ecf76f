package recordings

import (
	"context"
	"fmt"
	"io"
	"path"
	"strconv"
	"time"
)

// A take that goes up over a weak network arrives in parts, each kept under the
// place of its first byte until all are there.

const allParts = "parts"

func partsOf(playerID, takeID string) string { return path.Join(allParts, playerID, takeID) }

// PutPart keeps a part. Keeping the same one again is harmless.
func (s *Store) PutPart(ctx context.Context, playerID, takeID string, offset int64, part []byte) error {
	return s.put(ctx, fmt.Sprintf("%s/%012d", partsOf(playerID, takeID), offset), part)
}

// Received returns how many bytes of a take are here without a hole.
func (s *Store) Received(ctx context.Context, playerID, takeID string) (received int64, err error) {
	err = s.eachPart(ctx, playerID, takeID, func(o Object, offset int64) error {
		if offset <= received {
			received = max(received, offset+o.Size)
		}
		return nil
	})
	return received, err
}

// eachPart visits a take's parts in order, each with the place of its first byte.
func (s *Store) eachPart(ctx context.Context, playerID, takeID string, visit func(Object, int64) error) error {
	return s.objects.list(ctx, partsOf(playerID, takeID), func(o Object) error {
		offset, err := strconv.ParseInt(path.Base(o.Key), 10, 64)
		if err != nil {
			return nil // none of ours
		}
		return visit(o, offset)
	})
}

// Parts returns a reader over a take's bytes, part after part.
func (s *Store) Parts(ctx context.Context, playerID, takeID string) io.Reader {
	out, in := io.Pipe()
	go func() {
		var at int64
		in.CloseWithError(s.eachPart(ctx, playerID, takeID, func(o Object, offset int64) error {
			if offset > at || offset+o.Size <= at {
				return nil // a hole ends it; what is there already adds nothing
			}
			r, err := s.objects.read(ctx, o.Key)
			if err != nil {
				return err
			}
			defer r.Close() //nolint:errcheck // read only
			if _, err := r.Seek(at-offset, io.SeekStart); err != nil {
				return err
			}
			n, err := io.Copy(in, r)
			at += n
			return err
		}))
	}()
	return out
}

// DropParts forgets a take's parts.
func (s *Store) DropParts(ctx context.Context, playerID, takeID string) error {
	return s.drop(ctx, partsOf(playerID, takeID), func(Object) bool { return true })
}

// DropPartsOf forgets all parts of a player's takes.
func (s *Store) DropPartsOf(ctx context.Context, playerID string) error {
	return s.drop(ctx, path.Join(allParts, playerID), func(Object) bool { return true })
}

// DropPartsBefore forgets every part older than an instant: of takes that were
// never finished. Their devices still have them.
func (s *Store) DropPartsBefore(ctx context.Context, before time.Time) error {
	return s.drop(ctx, allParts, func(o Object) bool { return o.ModTime.Before(before) })
}

// Waiting is the parts of a player's takes that are not whole yet.
type Waiting struct {
	Takes int
	Bytes int64
}

// WaitingOf counts a player's parts, those of one take left out.
func (s *Store) WaitingOf(ctx context.Context, playerID, but string) (w Waiting, err error) {
	seen := ""
	err = s.objects.list(ctx, path.Join(allParts, playerID), func(o Object) error {
		take := path.Base(path.Dir(o.Key))
		if take == but {
			return nil
		}
		if take != seen {
			w.Takes++
		}
		seen = take
		w.Bytes += o.Size
		return nil
	})
	return w, err
}

func (s *Store) drop(ctx context.Context, dir string, which func(Object) bool) error {
	var gone []string
	err := s.objects.list(ctx, dir, func(o Object) error {
		if which(o) {
			gone = append(gone, o.Key)
		}
		return nil
	})
	if err != nil {
		return fmt.Errorf("recordings: %w", err)
	}
	for _, key := range gone {
		if err := s.objects.remove(ctx, key); err != nil {
			return fmt.Errorf("recordings: %w", err)
		}
	}
	return nil
}
