package recordings

import (
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net/url"
	"os"
	"strings"
	"time"

	"github.com/minio/minio-go/v7"
	"github.com/minio/minio-go/v7/pkg/credentials"
)

// bucket keeps objects in a bucket that speaks S3. An object is there whole or not at
// all, which is the protocol's own promise.
type bucket struct {
	client *minio.Client
	name   string
	prefix string // of every key; "" or ending with a slash
}

// At opens the recordings a URL names: file:///folder, or s3://bucket/prefix with
// ?endpoint=https://host:port and ?region= where they are not the usual ones; the keys to
// it stand in AWS_ACCESS_KEY_ID and AWS_SECRET_ACCESS_KEY, or are the machine's own.
func At(address string) (*Store, error) {
	u, err := url.Parse(address)
	if err != nil {
		return nil, fmt.Errorf("recordings: the address is not a URL: %w", err)
	}
	switch {
	case u.Scheme == "file" && u.Host == "" && u.Path != "":
		return InFolder(u.Path)
	case u.Scheme == "s3" && u.Host != "":
		b, err := openBucket(u)
		if err != nil {
			return nil, fmt.Errorf("recordings: %w", err)
		}
		return &Store{b}, nil
	}
	return nil, fmt.Errorf("recordings: %q: say file:///folder or s3://bucket", address)
}

const usualEndpoint = "https://s3.amazonaws.com"

func openBucket(u *url.URL) (*bucket, error) {
	at := u.Query().Get("endpoint")
	if at == "" {
		at = usualEndpoint
	}
	endpoint, err := url.Parse(at)
	if err != nil || endpoint.Host == "" {
		return nil, fmt.Errorf("endpoint %q: say https://host", at)
	}
	client, err := minio.New(endpoint.Host, &minio.Options{
		Creds: credentials.NewChainCredentials([]credentials.Provider{
			&credentials.EnvAWS{}, &credentials.IAM{},
		}),
		Secure: endpoint.Scheme != "http",
		Region: u.Query().Get("region"),
	})
	if err != nil {
		return nil, err
	}
	b := &bucket{client: client, name: u.Host}
	if p := strings.Trim(u.Path, "/"); p != "" {
		b.prefix = p + "/"
	}
	return b, nil
}

// draft gathers what comes in a file of this machine: a bucket wants to be told the
// size before the first byte.
func (b *bucket) draft() (draft, error) {
	file, err := os.CreateTemp("", "earlychorus-")
	if err != nil {
		return nil, err
	}
	// Without a name it goes with the process, however that ends.
	if err := os.Remove(file.Name()); err != nil {
		return nil, errors.Join(err, file.Close())
	}
	return &bucketDraft{file, b}, nil
}

// bucketDraft is a nameless file that may go up.
type bucketDraft struct {
	*os.File
	bucket *bucket
}

// keep sends the file up; the bucket has it once it has answered.
func (d *bucketDraft) keep(ctx context.Context, key string) error {
	size, err := d.Seek(0, io.SeekEnd)
	if err != nil {
		return err
	}
	_, err = d.bucket.client.PutObject(
		ctx, d.bucket.name, d.bucket.prefix+key, io.NewSectionReader(d, 0, size), size, minio.PutObjectOptions{},
	)
	return err
}

// drop forgets the file.
func (d *bucketDraft) drop() { _ = d.Close() }

// read opens an object. Errors: fs.ErrNotExist.
func (b *bucket) read(ctx context.Context, key string) (io.ReadSeekCloser, error) {
	o, err := b.client.GetObject(ctx, b.name, b.prefix+key, minio.GetObjectOptions{})
	if err == nil {
		_, err = o.Stat() // nothing was asked of the bucket until now
	}
	if minio.ToErrorResponse(err).Code == minio.NoSuchKey {
		return nil, fmt.Errorf("%s: %w", key, fs.ErrNotExist)
	}
	return o, err
}

// list visits the objects of a directory, "." for all, in their order.
func (b *bucket) list(ctx context.Context, dir string, visit func(Object) error) error {
	ctx, cancel := context.WithCancel(ctx)
	defer cancel() // ends the listing when a visit fails
	prefix := b.prefix
	if dir != "." {
		prefix += dir + "/"
	}
	for o := range b.client.ListObjects(ctx, b.name, minio.ListObjectsOptions{Prefix: prefix, Recursive: true}) {
		if o.Err != nil {
			return fmt.Errorf("list %s: %w", dir, o.Err)
		}
		if err := visit(Object{strings.TrimPrefix(o.Key, b.prefix), o.Size, o.LastModified}); err != nil {
			return err
		}
	}
	return ctx.Err()
}

// sweep has nothing to do: a bucket shows no half of anything.
func (b *bucket) sweep(context.Context, time.Time) (int, error) { return 0, nil }

// remove lets an object go; one that is gone already is no error.
func (b *bucket) remove(ctx context.Context, key string) error {
	return b.client.RemoveObject(ctx, b.name, b.prefix+key, minio.RemoveObjectOptions{})
}

func (b *bucket) close() error { return nil }
