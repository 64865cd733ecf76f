// Package recordings keeps audio outside the database, in a folder or a bucket: whole
// takes as they came or packed as FLAC, voice notes, and the parts of takes that are
// still coming. What is kept is named by what it is, its number and its contents, and
// the database's rows say which name is theirs.
package recordings

import (
	"bytes"
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"path"
	"strings"
	"time"

	"earlychorus/core/audio"
	"earlychorus/core/audio/flac"
	"earlychorus/core/audio/wav"
)

// Store is where recordings are kept.
type Store struct{ objects objects }

// objects is a place for named bytes: a folder, or a bucket.
type objects interface {
	draft() (draft, error)
	read(ctx context.Context, key string) (io.ReadSeekCloser, error)
	list(ctx context.Context, dir string, visit func(Object) error) error
	sweep(ctx context.Context, before time.Time) (swept int, err error)
	remove(ctx context.Context, key string) error
	close() error
}

// draft is bytes on their way in: nobody's until they are kept, and then whole.
type draft interface {
	io.ReadWriteSeeker
	keep(ctx context.Context, key string) error
	drop()
}

// Object is one thing that is kept.
type Object struct {
	Key     string
	Size    int64
	ModTime time.Time
}

// ErrMissing reports that nothing is kept under a name.
var ErrMissing = fs.ErrNotExist

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

// Kind is what a sound is of.
type Kind string

const (
	OfTake  Kind = "takes"
	OfVoice Kind = "voices"
)

// Endings of names say how a sound is kept.
const (
	wavEnding  = ".wav"
	flacEnding = ".flac"
)

// Name is how a sound is called: by its kind, its number and what it contains, so that
// two sounds under one number are two, and neither overwrites the other.
func Name(kind Kind, id string, hash []byte, ending string) string {
	return fmt.Sprintf("%s/%s/%s-%x%s", kind, id[:min(2, len(id))], id, hash[:8], ending)
}

// IsPacked reports whether a name is a FLAC file's.
func IsPacked(name string) bool { return strings.HasSuffix(name, flacEnding) }

// Incoming is a sound that is all here, and not kept yet: Keep it, then Drop it.
type Incoming struct {
	draft

	SHA256 []byte // of every byte
	Size   int64
}

// Receive takes a file in, without keeping it. It is never in memory as a whole.
func (s *Store) Receive(from io.Reader) (*Incoming, error) {
	d, err := s.objects.draft()
	if err != nil {
		return nil, fmt.Errorf("recordings: %w", err)
	}
	hash := sha256.New()
	size, err := io.Copy(io.MultiWriter(d, hash), from)
	if err != nil {
		d.drop()
		return nil, err // the sender's own, which says why
	}
	return &Incoming{d, hash.Sum(nil), size}, nil
}

// Keep keeps the file as a sound of a kind, under its number, and returns its name:
// when it returns, a power cut does not lose it.
func (in *Incoming) Keep(ctx context.Context, kind Kind, id string) (name string, err error) {
	name = Name(kind, id, in.SHA256, wavEnding)
	if err := in.keep(ctx, name); err != nil {
		return "", fmt.Errorf("recordings: keep %s: %w", name, err)
	}
	return name, nil
}

// Drop forgets the file, unless it was kept.
func (in *Incoming) Drop() { in.drop() }

// Rewind goes to the file's first byte.
func (in *Incoming) Rewind() error {
	_, err := in.Seek(0, io.SeekStart)
	return err
}

// put keeps bytes that are here already.
func (s *Store) put(ctx context.Context, key string, body []byte) error {
	d, err := s.objects.draft()
	if err != nil {
		return fmt.Errorf("recordings: %w", err)
	}
	defer d.drop()
	if _, err = d.Write(body); err == nil {
		err = d.keep(ctx, key)
	}
	if err != nil {
		return fmt.Errorf("recordings: keep %s: %w", key, err)
	}
	return nil
}

// Put keeps a sound as FLAC and returns its name and its contents' SHA-256.
func (s *Store) Put(
	ctx context.Context, kind Kind, id string, sound audio.Mono,
) (name string, sum []byte, err error) {
	file, err := flac.Encode(sound)
	if err != nil {
		return "", nil, fmt.Errorf("recordings: %w", err)
	}
	hash := sha256.Sum256(file)
	name = Name(kind, id, hash[:], flacEnding)
	return name, hash[:], s.put(ctx, name, file)
}

// Restore keeps a file under the name it had, as a backup has it.
func (s *Store) Restore(ctx context.Context, name string, from io.Reader) (sum []byte, err error) {
	in, err := s.Receive(from)
	if err != nil {
		return nil, fmt.Errorf("recordings: receive %s: %w", name, err)
	}
	defer in.Drop()
	if err := in.keep(ctx, name); err != nil {
		return nil, fmt.Errorf("recordings: keep %s: %w", name, err)
	}
	return in.SHA256, nil
}

// Write keeps bytes under a name.
func (s *Store) Write(ctx context.Context, name string, body []byte) error {
	return s.put(ctx, name, body)
}

// EachIn visits everything that is kept in a directory, in the order of names.
func (s *Store) EachIn(ctx context.Context, dir string, visit func(Object) error) error {
	return s.objects.list(ctx, dir, visit)
}

// Delete lets a sound go; one that is gone already is no error.
func (s *Store) Delete(ctx context.Context, name string) error {
	if err := s.objects.remove(ctx, name); err != nil {
		return fmt.Errorf("recordings: let go of %s: %w", name, err)
	}
	return nil
}

// Open opens a sound's file. Errors: ErrMissing.
func (s *Store) Open(ctx context.Context, name string) (io.ReadSeekCloser, error) {
	if name == "" {
		return nil, fmt.Errorf("recordings: no sound is named: %w", ErrMissing)
	}
	r, err := s.objects.read(ctx, name)
	if err != nil {
		return nil, fmt.Errorf("recordings: %w", err)
	}
	return r, nil
}

// Get returns a sound. Errors: ErrMissing.
func (s *Store) Get(ctx context.Context, name string) (audio.Mono, error) {
	r, err := s.Open(ctx, name)
	if err != nil {
		return audio.Mono{}, err
	}
	defer r.Close() //nolint:errcheck // read only
	if IsPacked(name) {
		return flac.Decode(r, 0)
	}
	return wav.Decode(r, 0)
}

// FLAC returns a sound as a FLAC file, packing one that is not yet. Errors: ErrMissing.
func (s *Store) FLAC(ctx context.Context, name string) ([]byte, error) {
	if !IsPacked(name) {
		sound, err := s.Get(ctx, name)
		if err != nil {
			return nil, err
		}
		return flac.Encode(sound)
	}
	r, err := s.Open(ctx, name)
	if err != nil {
		return nil, err
	}
	defer r.Close() //nolint:errcheck // read only
	return io.ReadAll(r)
}

// Sum returns the SHA-256 of what is kept under a name. Errors: ErrMissing.
func (s *Store) Sum(ctx context.Context, name string) ([]byte, error) {
	r, err := s.Open(ctx, name)
	if err != nil {
		return nil, err
	}
	defer r.Close() //nolint:errcheck // read only
	hash := sha256.New()
	if _, err := io.Copy(hash, r); err != nil {
		return nil, fmt.Errorf("recordings: read %s: %w", name, err)
	}
	return hash.Sum(nil), nil
}

// Holds reports whether a sound is kept under a name with these contents; any, where
// sum is empty.
func (s *Store) Holds(ctx context.Context, name string, sum []byte) (bool, error) {
	is, err := s.Sum(ctx, name)
	if errors.Is(err, ErrMissing) {
		return false, nil
	}
	return err == nil && (len(sum) == 0 || bytes.Equal(is, sum)), err
}

// Each visits everything that is kept of takes and voice notes, in the order of names.
func (s *Store) Each(ctx context.Context, visit func(Object) error) error {
	return s.objects.list(ctx, ".", func(o Object) error {
		if o.Key == identity || strings.HasPrefix(o.Key, allParts+"/") {
			return nil
		}
		return visit(o)
	})
}

// Sweep removes what was being written before an instant, and never will be.
func (s *Store) Sweep(ctx context.Context, before time.Time) (swept int, err error) {
	return s.objects.sweep(ctx, before)
}

// identity is the object that says whose recordings these are.
const identity = "cluster"

// Identity returns whose recordings these are; "" for those of nobody yet.
func (s *Store) Identity(ctx context.Context) (string, error) {
	r, err := s.Open(ctx, identity)
	if errors.Is(err, ErrMissing) {
		return "", nil
	}
	if err != nil {
		return "", err
	}
	defer r.Close() //nolint:errcheck // read only
	name, err := io.ReadAll(io.LimitReader(r, 200))
	return strings.TrimSpace(string(name)), err
}

// SetIdentity says whose recordings these are.
func (s *Store) SetIdentity(ctx context.Context, name string) error {
	return s.put(ctx, identity, []byte(name+"\n"))
}

// Ending returns how a sound is kept: ".wav" or ".flac".
func Ending(name string) string { return path.Ext(name) }
