package recordings

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path"
	"strings"
	"time"
)

// folder keeps objects as files: four methods, which a bucket elsewhere would have
// too. Keys are slash-separated; os.Root lets none lead out of the folder.
type folder struct{ root *os.Root }

// object is one thing that is kept.
type object struct {
	Key     string
	Size    int64
	ModTime time.Time
}

// unfinished marks files that are being written. One that is there at rest was left
// by a crash, and is nobody's.
const unfinished = ".tmp-"

func openFolder(name string) (*folder, error) {
	if err := os.MkdirAll(name, 0o700); err != nil {
		return nil, err
	}
	root, err := os.OpenRoot(name)
	if err != nil {
		return nil, err
	}
	return &folder{root}, nil
}

// write keeps an object, whole or not at all: written beside, synced, moved into
// place, and the folder synced, so that it outlives a power cut once write returns.
func (f *folder) write(ctx context.Context, key string, body []byte) (err error) {
	if err := ctx.Err(); err != nil {
		return err
	}
	// Beside its place, so that the rename stays on one disk and is all or nothing.
	temporary := key + unfinished + rand.Text()
	file, err := f.create(temporary)
	if err != nil {
		return err
	}
	defer func() {
		if err != nil {
			_ = f.root.Remove(temporary) // gone, or nobody's
		}
	}()
	_, err = file.Write(body)
	if err == nil {
		err = file.Sync()
	}
	if err = errors.Join(err, file.Close()); err != nil {
		return err
	}
	if err := f.root.Rename(temporary, key); err != nil {
		return err
	}
	// A name is in its folder's own data: without this a power cut may take it back.
	return f.sync(path.Dir(key))
}

// create opens a new file, and makes the directories it lies in. They go as soon as
// they are empty, which may be just then.
func (f *folder) create(key string) (file *os.File, err error) {
	// Somebody may remove the empty folder between making it and using it.
	for range 3 {
		if err := f.root.MkdirAll(path.Dir(key), 0o700); err != nil {
			return nil, err
		}
		file, err = f.root.OpenFile(key, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
		if !errors.Is(err, fs.ErrNotExist) {
			break
		}
	}
	return file, err
}

// sync makes the names in a directory, and in those above it, outlive a power cut.
func (f *folder) sync(dir string) error {
	for {
		d, err := f.root.Open(dir)
		if err != nil {
			return err
		}
		if err := errors.Join(d.Sync(), d.Close()); err != nil {
			return err
		}
		if dir == "." {
			return nil
		}
		dir = path.Dir(dir)
	}
}

// read opens an object from a byte on. Errors: fs.ErrNotExist.
func (f *folder) read(ctx context.Context, key string, from int64) (io.ReadCloser, error) {
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	file, err := f.root.Open(key)
	if err != nil {
		return nil, err
	}
	// From where a reader left off: a sound may be asked for in parts.
	if _, err := file.Seek(from, io.SeekStart); err != nil {
		return nil, errors.Join(err, file.Close())
	}
	return file, nil
}

// list visits the objects whose keys begin with a directory, in their order;
// what is being written is none yet.
func (f *folder) list(ctx context.Context, dir string, visit func(object) error) error {
	err := fs.WalkDir(f.root.FS(), dir, func(key string, d fs.DirEntry, err error) error {
		if err == nil {
			err = ctx.Err()
		}
		if errors.Is(err, fs.ErrNotExist) {
			return nil // gone meanwhile
		}
		if err != nil || d.IsDir() || strings.Contains(d.Name(), unfinished) {
			return err
		}
		// A file may go between being listed and being looked at.
		info, err := d.Info()
		if errors.Is(err, fs.ErrNotExist) {
			return nil
		}
		if err != nil {
			return err
		}
		return visit(object{key, info.Size(), info.ModTime()})
	})
	if err != nil {
		return fmt.Errorf("list %s: %w", dir, err)
	}
	return nil
}

// remove lets an object go; one that is gone already is no error. A directory that
// is empty then goes too.
func (f *folder) remove(ctx context.Context, key string) error {
	if err := ctx.Err(); err != nil {
		return err
	}
	if err := f.root.Remove(key); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	for dir := path.Dir(key); dir != "."; dir = path.Dir(dir) {
		// Folders that have become empty go too; ten thousand of them would slow each listing
		// down.
		if f.root.Remove(dir) != nil {
			break // not empty
		}
	}
	return nil
}

func (f *folder) close() error { return f.root.Close() }
