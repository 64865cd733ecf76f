// Package recordings keeps audio outside the database: a folder by default, a
// bucket by URL.
package recordings

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"os"

	"gocloud.dev/blob"
	"gocloud.dev/blob/fileblob"
	"gocloud.dev/gcerrors"

	"earlychorus/core/audio"
	"earlychorus/core/audio/flac"
)

// Shelf is where recordings are kept, each under its take's number as FLAC.
type Shelf struct{ bucket *blob.Bucket }

// InFolder opens a shelf in a folder, making it when missing. A recording
// appears whole or not at all: it is written beside and moved into place.
func InFolder(folder string) (*Shelf, error) {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return nil, fmt.Errorf("recordings: %w", err)
	}
	bucket, err := fileblob.OpenBucket(folder, &fileblob.Options{NoTempDir: true, Metadata: fileblob.MetadataDontWrite})
	if err != nil {
		return nil, fmt.Errorf("recordings: %w", err)
	}
	return &Shelf{bucket}, nil
}

// Close gives the bucket back.
func (s *Shelf) Close() error { return s.bucket.Close() }

func key(takeID string) string { return takeID + ".flac" }

// Put keeps a take's sound.
func (s *Shelf) Put(ctx context.Context, takeID string, sound audio.Mono) error {
	file, err := flac.Encode(sound)
	if err != nil {
		return fmt.Errorf("recordings: %w", err)
	}
	if err := s.bucket.WriteAll(ctx, key(takeID), file, &blob.WriterOptions{ContentType: "audio/flac"}); err != nil {
		return fmt.Errorf("recordings: keep %s: %w", takeID, err)
	}
	return nil
}

// Delete lets a take's sound go; one that is gone already is no error.
func (s *Shelf) Delete(ctx context.Context, takeID string) error {
	err := s.bucket.Delete(ctx, key(takeID))
	if err != nil && gcerrors.Code(err) != gcerrors.NotFound {
		return fmt.Errorf("recordings: let go of %s: %w", takeID, err)
	}
	return nil
}

// Get returns a take's sound; missing tells that it was never kept.
func (s *Shelf) Get(ctx context.Context, takeID string) (sound audio.Mono, missing bool, err error) {
	file, missing, err := s.File(ctx, takeID)
	if err != nil {
		return audio.Mono{}, missing, err
	}
	sound, err = flac.Decode(bytes.NewReader(file), 0)
	return sound, false, err
}

// File returns a take's FLAC file.
func (s *Shelf) File(ctx context.Context, takeID string) (file []byte, missing bool, err error) {
	r, err := s.bucket.NewReader(ctx, key(takeID), nil)
	if err != nil {
		return nil, gcerrors.Code(err) == gcerrors.NotFound, fmt.Errorf("recordings: take %s: %w", takeID, err)
	}
	defer r.Close() //nolint:errcheck // read only
	file, err = io.ReadAll(r)
	if err != nil {
		return nil, false, fmt.Errorf("recordings: take %s: %w", takeID, err)
	}
	return file, false, nil
}
