// Package recordings keeps audio outside the database, in a folder: whole takes as
// FLAC, and the parts of those that are still coming.
package recordings

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"

	"earlychorus/core/audio"
	"earlychorus/core/audio/flac"
)

// Store is where recordings are kept, each under its take's number.
type Store struct{ objects *folder }

// InFolder opens a recording store in a folder, making it when missing.
func InFolder(name string) (*Store, error) {
	objects, err := openFolder(name)
	if err != nil {
		return nil, fmt.Errorf("recordings: %w", err)
	}
	return &Store{objects}, nil
}

// Close gives the folder back.
func (s *Store) Close() error { return s.objects.close() }

func key(takeID string) string { return takeID + ".flac" }

// Put keeps a take's sound: when it returns, a power cut does not lose it.
func (s *Store) Put(ctx context.Context, takeID string, sound audio.Mono) error {
	file, err := flac.Encode(sound)
	if err != nil {
		return fmt.Errorf("recordings: %w", err)
	}
	if err := s.objects.write(ctx, key(takeID), file); err != nil {
		return fmt.Errorf("recordings: keep %s: %w", takeID, err)
	}
	return nil
}

// Delete lets a take's sound go; one that is gone already is no error.
func (s *Store) Delete(ctx context.Context, takeID string) error {
	if err := s.objects.remove(ctx, key(takeID)); err != nil {
		return fmt.Errorf("recordings: let go of %s: %w", takeID, err)
	}
	return nil
}

// Get returns a take's sound; missing tells that it was never kept.
func (s *Store) Get(ctx context.Context, takeID string) (sound audio.Mono, missing bool, err error) {
	file, missing, err := s.File(ctx, takeID)
	if err != nil {
		return audio.Mono{}, missing, err
	}
	sound, err = flac.Decode(bytes.NewReader(file), 0)
	return sound, false, err
}

// File returns a take's FLAC file; missing tells that it was never kept.
func (s *Store) File(ctx context.Context, takeID string) (file []byte, missing bool, err error) {
	r, err := s.objects.read(ctx, key(takeID), 0)
	if err != nil {
		return nil, errors.Is(err, fs.ErrNotExist), fmt.Errorf("recordings: take %s: %w", takeID, err)
	}
	defer r.Close() //nolint:errcheck // read only
	file, err = io.ReadAll(r)
	if err != nil {
		return nil, false, fmt.Errorf("recordings: take %s: %w", takeID, err)
	}
	return file, false, nil
}
