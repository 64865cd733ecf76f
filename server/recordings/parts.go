package recordings

import (
	"context"
	"errors"
	"fmt"
	"io"
	"strings"
	"time"

	"gocloud.dev/blob"
)

// A take that goes up over a weak network arrives in parts, each kept under the
// place of its first byte until all are there.

func partsOf(playerID, takeID string) string { return "parts/" + playerID + "/" + takeID + "/" }

// PutPart keeps a part. Keeping the same one again is harmless.
func (s *Shelf) PutPart(ctx context.Context, playerID, takeID string, offset int64, part []byte) error {
	if err := s.bucket.WriteAll(ctx, fmt.Sprintf("%s%012d", partsOf(playerID, takeID), offset), part, nil); err != nil {
		return fmt.Errorf("recordings: keep a part of %s: %w", takeID, err)
	}
	return nil
}

// Received returns how many bytes of a take are here without a hole.
func (s *Shelf) Received(ctx context.Context, playerID, takeID string) (received int64, err error) {
	err = s.eachPart(ctx, playerID, takeID, func(o *blob.ListObject, offset int64) error {
		if offset <= received {
			received = max(received, offset+o.Size)
		}
		return nil
	})
	return received, err
}

// eachPart visits a take's parts in order.
func (s *Shelf) eachPart(
	ctx context.Context,
	playerID, takeID string,
	visit func(*blob.ListObject, int64) error,
) error {
	prefix := partsOf(playerID, takeID)
	list := s.bucket.List(&blob.ListOptions{Prefix: prefix})
	for {
		o, err := list.Next(ctx)
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return fmt.Errorf("recordings: parts of %s: %w", takeID, err)
		}
		var offset int64
		if _, err := fmt.Sscanf(strings.TrimPrefix(o.Key, prefix), "%d", &offset); err != nil {
			continue // none of ours
		}
		if err := visit(o, offset); err != nil {
			return err
		}
	}
}

// Parts returns a reader over a take's bytes, part after part.
func (s *Shelf) Parts(ctx context.Context, playerID, takeID string) io.Reader {
	out, in := io.Pipe()
	go func() {
		var at int64
		in.CloseWithError(s.eachPart(ctx, playerID, takeID, func(o *blob.ListObject, offset int64) error {
			if offset > at || offset+o.Size <= at {
				return nil // a hole ends it; what is there already adds nothing
			}
			r, err := s.bucket.NewRangeReader(ctx, o.Key, at-offset, -1, nil)
			if err != nil {
				return err
			}
			defer r.Close() //nolint:errcheck // read only
			n, err := io.Copy(in, r)
			at += n
			return err
		}))
	}()
	return out
}

// DropParts forgets a take's parts.
func (s *Shelf) DropParts(ctx context.Context, playerID, takeID string) error {
	return s.drop(ctx, partsOf(playerID, takeID), func(*blob.ListObject) bool { return true })
}

// DropPartsBefore forgets every part older than an instant: of takes that were
// never finished. Their devices still have them.
func (s *Shelf) DropPartsBefore(ctx context.Context, before time.Time) error {
	return s.drop(ctx, "parts/", func(o *blob.ListObject) bool { return o.ModTime.Before(before) })
}

func (s *Shelf) drop(ctx context.Context, prefix string, which func(*blob.ListObject) bool) error {
	list := s.bucket.List(&blob.ListOptions{Prefix: prefix})
	var gone []string
	for {
		o, err := list.Next(ctx)
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return fmt.Errorf("recordings: %w", err)
		}
		if which(o) {
			gone = append(gone, o.Key)
		}
	}
	for _, key := range gone {
		if err := s.bucket.Delete(ctx, key); err != nil {
			return fmt.Errorf("recordings: %w", err)
		}
	}
	return nil
}
