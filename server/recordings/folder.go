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

// folder keeps objects as files. Keys are slash-separated; os.Root lets none lead out
// of the folder.
type folder struct{ root *os.Root }

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

// draft opens a file beside everything else, so that moving it into its place stays on
// one disk and is all or nothing.
func (f *folder) draft() (draft, error) {
	name := unfinished + rand.Text()
	file, err := f.create(name)
	if err != nil {
		return nil, err
	}
	return &fileDraft{File: file, folder: f, name: name}, nil
}

// fileDraft is a file that has no place yet.
type fileDraft struct {
	*os.File
	folder *folder
	name   string
}

// keep moves the file into its place: synced before, and the folder after it, so that
// it outlives a power cut once keep returns. Whatever fails moves nothing.
func (d *fileDraft) keep(ctx context.Context, key string) error {
	f := d.folder
	if err := errors.Join(ctx.Err(), d.Sync()); err != nil {
		return err
	}
	// Somebody may remove the empty folder between making it and using it.
	for tries := 0; ; tries++ {
		err := f.root.MkdirAll(path.Dir(key), 0o700)
		if err == nil {
			err = f.root.Rename(d.name, key)
		}
		if err == nil {
			break
		}
		if !errors.Is(err, fs.ErrNotExist) || tries == 3 {
			return err
		}
	}
	d.name = ""
	// A name is in its folder's own data: without this a power cut may take it back.
	return f.sync(path.Dir(key))
}

// drop forgets the file, unless it was kept.
func (d *fileDraft) drop() {
	_ = d.Close()
	if d.name != "" {
		_ = d.folder.root.Remove(d.name) // gone, or swept later
	}
}

// create opens a new file of ours.
func (f *folder) create(key string) (*os.File, error) {
	return f.root.OpenFile(key, os.O_CREATE|os.O_EXCL|os.O_RDWR, 0o600)
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

// read opens an object. Errors: fs.ErrNotExist.
func (f *folder) read(ctx context.Context, key string) (io.ReadSeekCloser, error) {
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	return f.root.Open(key)
}

// list visits the objects of a directory, "." for all, in their order; what is being
// written is none yet.
func (f *folder) list(ctx context.Context, dir string, visit func(Object) error) error {
	return f.walk(ctx, dir, func(o Object) error {
		if strings.Contains(path.Base(o.Key), unfinished) {
			return nil
		}
		return visit(o)
	})
}

// sweep removes what was being written before an instant, and never will be.
func (f *folder) sweep(ctx context.Context, before time.Time) (swept int, err error) {
	err = f.walk(ctx, ".", func(o Object) error {
		if !strings.Contains(path.Base(o.Key), unfinished) || !o.ModTime.Before(before) {
			return nil
		}
		swept++
		return f.remove(ctx, o.Key)
	})
	return swept, err
}

// walk visits every file of a directory, in their order.
func (f *folder) walk(ctx context.Context, dir string, visit func(Object) error) error {
	err := fs.WalkDir(f.root.FS(), dir, func(key string, d fs.DirEntry, err error) error {
		if err == nil {
			err = ctx.Err()
		}
		if errors.Is(err, fs.ErrNotExist) {
			return nil // gone meanwhile
		}
		if err != nil || d.IsDir() {
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
		return visit(Object{key, info.Size(), info.ModTime()})
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
