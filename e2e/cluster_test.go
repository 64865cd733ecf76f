package e2e

import (
	"bytes"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/johannesboyne/gofakes3"
	"github.com/johannesboyne/gofakes3/backend/s3mem"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// keysToBucket are what a stand-in asks for: anything.
var keysToBucket = []string{"AWS_ACCESS_KEY_ID=stand-in", "AWS_SECRET_ACCESS_KEY=stand-in", "AWS_REGION=us-east-1"}

// bucket is a stand-in for a store that speaks S3, and its address.
func bucket(t *testing.T) (recordings string) {
	t.Helper()
	backend := s3mem.New()
	require.NoError(t, backend.CreateBucket("sounds"))
	server := httptest.NewServer(gofakes3.New(backend).Server())
	t.Cleanup(server.Close)
	return "s3://sounds/ours?endpoint=" + url.QueryEscape(server.URL)
}

// sender is a device that goes on until a take is acknowledged, at whichever server
// answers, as a balancer would have it.
type sender struct {
	t       *testing.T
	cookie  *http.Cookie
	servers []*process
}

// send returns once the take is acknowledged.
func (s sender) send(b storetest.Band, id string, file []byte) {
	query := fmt.Sprintf("step=%s&version=1&source=microphone", b.Step.ID)
	for end := time.Now().Add(longestStep); ; {
		if time.Now().After(end) {
			s.t.Errorf("take %s is not acknowledged", id)
			return
		}
		base := s.servers[rand.IntN(len(s.servers))].base
		if rand.IntN(2) == 0 {
			if s.put(base+"/api/takes/"+id+"?"+query, "PUT", file) {
				return
			}
			continue
		}
		half := len(file) / 2
		sent := s.put(base+"/api/takes/"+id+"/parts/0", "PUT", file[:half])
		other := s.servers[rand.IntN(len(s.servers))].base // parts are not one machine's
		sent = sent && s.put(fmt.Sprintf("%s/api/takes/%s/parts/%d", other, id, half), "PUT", file[half:])
		if sent && s.put(fmt.Sprintf("%s/api/takes/%s/seal?%s&size=%d", base, id, query, len(file)), "POST", nil) {
			return
		}
	}
}

// put reports whether a request was answered well.
func (s sender) put(address, method string, body []byte) bool {
	req, err := http.NewRequest(method, address, bytes.NewReader(body))
	if err != nil {
		return false
	}
	req.AddCookie(s.cookie)
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		time.Sleep(50 * time.Millisecond)
		return false
	}
	_, _ = io.Copy(io.Discard, res.Body)
	_ = res.Body.Close()
	return res.StatusCode == http.StatusOK || res.StatusCode == http.StatusCreated
}

// Two servers and two workers on one database and one bucket, killed at random and
// started again: every acknowledged take is judged, once, and none differs by a byte.
func TestSeveralMachinesLoseNothing(t *testing.T) {
	dsn, sounds := storetest.DSN(t), bucket(t)
	s, err := store.Open(dsn)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	b := storetest.NewBand(t, s, "CLUSTER")
	on := []string{"--database", dsn, "--recordings", sounds}
	serve := append([]string{"serve", "--no-demo", "--no-worker", "--port", "18110"}, on...)
	servers := []*process{begin(t, keysToBucket, serve...), begin(t, keysToBucket, serve...)}
	workers := []*process{
		begin(t, keysToBucket, append([]string{"worker"}, on...)...),
		begin(t, keysToBucket, append([]string{"worker"}, on...)...),
	}
	file := clarinetTake(t)
	cookie := signInAt(t, servers[0].base, b)

	var all sync.WaitGroup
	ids := make(chan string, 100)
	for range 4 {
		all.Go(func() {
			for range 10 {
				id := uuid.NewString()
				sender{t, cookie, servers}.send(b, id, file)
				ids <- id
			}
		})
	}
	sent := make(chan struct{})
	go func() {
		all.Wait()
		close(sent)
		close(ids)
	}()
	for killed := 0; ; killed++ {
		select {
		case <-sent:
			assert.Positive(t, killed)
		case <-time.After(time.Duration(200+rand.IntN(400)) * time.Millisecond):
			for _, p := range []*process{servers[killed%2], workers[rand.IntN(2)]} {
				p.kill()
				p.start()
			}
			continue
		}
		break
	}
	for id := range ids {
		require.Eventually(t, func() bool {
			taken, err := s.Take(t.Context(), id)
			return err == nil && taken.Result != "" && taken.Failure == ""
		}, longestStep, 50*time.Millisecond, "take %s was acknowledged and never listened to", id)
	}
	var takes, analyses, different int
	require.NoError(t, s.SQL().QueryRow("SELECT count(*) FROM take").Scan(&takes))
	require.NoError(t, s.SQL().QueryRow("SELECT count(*) FROM analysis").Scan(&analyses))
	assert.Equal(t, 40, takes)
	assert.Equal(t, 40, analyses, "each is judged once")
	require.NoError(t, s.SQL().QueryRow("SELECT count(*) FROM take WHERE sound_sha256 <> sha256").Scan(&different))
	assert.Zero(t, different)
	said, err := command(t, keysToBucket, append([]string{"verify"}, on...)...)
	require.NoError(t, err, said)
	assert.Contains(t, said, "40 sounds looked at: 0 missing or damaged. 0 takes nobody is listening to.")
}

// A process that sees other recordings than its cluster refuses to start, so that it
// cannot take jobs that it would fail.
func TestOtherRecordingsAreRefused(t *testing.T) {
	dsn := storetest.DSN(t)
	on := []string{"--database", dsn, "--port", "18120", "--no-demo"}
	begin(t, nil, append([]string{"serve", "--data", t.TempDir()}, on...)...)
	said, err := command(t, nil, append([]string{"serve", "--data", t.TempDir()}, on...)...)
	require.Error(t, err)
	assert.Contains(t, said, "these are not the recordings of this database")
	said, err = command(t, keysToBucket, "worker", "--database", dsn, "--recordings", bucket(t))
	require.Error(t, err)
	assert.Contains(t, said, "give every process the same --recordings")
}

// What is backed up while the server works comes back, every take as it was, in a new
// database and other recordings.
func TestABackupComesBack(t *testing.T) {
	dsn, sounds, place := storetest.DSN(t), bucket(t), t.TempDir()
	s, err := store.Open(dsn)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	b := storetest.NewBand(t, s, "BACKUP")
	on := []string{"--database", dsn, "--recordings", sounds}
	server := begin(t, keysToBucket, append([]string{"serve", "--no-demo", "--port", "18130"}, on...)...)
	cookie := signInAt(t, server.base, b)
	file := clarinetTake(t)
	var ids []string
	for range 3 {
		ids = append(ids, uuid.NewString())
		sender{t, cookie, []*process{server}}.send(b, ids[len(ids)-1], file)
	}
	stray := filepath.Join(place, "thesis.txt")
	require.NoError(t, os.WriteFile(stray, []byte("not ours"), 0o600))
	backUp := append([]string{"backup", place, "--keep", "1"}, on...)
	said, err := command(t, keysToBucket, backUp...)
	require.NoError(t, err, said)
	assert.Contains(t, said, "the database and 3 sounds, 3 of them new here")
	ids = append(ids, uuid.NewString())
	sender{t, cookie, []*process{server}}.send(b, ids[3], file)
	time.Sleep(time.Second) // backups are named by their second
	said, err = command(t, keysToBucket, backUp...)
	require.NoError(t, err, said)
	assert.Contains(t, said, "4 sounds, 1 of them new here")
	assert.Contains(t, said, "1 older backups let go of")

	assert.FileExists(t, stray, "what is not ours is left alone")

	// Into a private database of its own, as on a new machine.
	home := t.TempDir()
	said, err = command(t, nil, "restore", place, "--data", home)
	require.NoError(t, err, said)
	assert.Contains(t, said, "with 4 sounds")
	said, err = command(t, nil, "restore", place, "--data", home)
	require.Error(t, err)
	assert.Contains(t, said, "not empty")
	said, err = command(t, nil, "verify", "--data", home)
	require.NoError(t, err, said)
	assert.Contains(t, said, "4 sounds looked at: 0 missing or damaged")

	again := begin(t, nil, "serve", "--no-demo", "--port", "18140", "--data", home)
	assert.Equal(
		t,
		http.StatusUnauthorized,
		statusAt(t, again.base+"/api/practice", cookie),
		"everybody signs in again",
	)
	cookie = signInAt(t, again.base, b)
	for _, id := range ids {
		req, err := http.NewRequest("GET", again.base+"/api/takes/"+id+"/audio.wav", nil)
		require.NoError(t, err)
		req.AddCookie(cookie)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		back, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		assert.True(t, bytes.Equal(file, back), "take %s", id)
	}
	// The command works beside a server that runs on its private database, too.
	said, err = command(t, nil, "backup", place, "--data", home)
	require.NoError(t, err, said)
	said, err = command(t, nil, "repair", "--data", home)
	require.NoError(t, err, said)
}
