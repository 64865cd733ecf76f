package api_test

import (
	"bytes"
	"crypto/sha256"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// mounted makes a file into a disk of its own and returns where it is mounted. image is
// the file: what is in it is what a power cut would leave.
func mounted(t *testing.T) (folder, image string) {
	t.Helper()
	if os.Geteuid() != 0 {
		t.Skip("making a disk out of a file is root's")
	}
	image, folder = filepath.Join(t.TempDir(), "disk"), t.TempDir()
	require.NoError(t, os.WriteFile(image, nil, 0o600))
	require.NoError(t, os.Truncate(image, 64<<20))
	if out, err := exec.Command("mkfs.ext4", "-q", image).CombinedOutput(); err != nil {
		t.Skipf("no disk can be made here: %v: %s", err, out)
	}
	mount(t, image, folder)
	return folder, image
}

func mount(t *testing.T, image, folder string) {
	t.Helper()
	if out, err := exec.Command("mount", "-o", "loop", image, folder).CombinedOutput(); err != nil {
		t.Skipf("mounting is not allowed here: %v: %s", err, out)
	}
	t.Cleanup(func() { _ = exec.Command("umount", "--lazy", folder).Run() })
}

// cut returns the disk as a power cut in this instant would leave it.
func cut(t *testing.T, image string) (folder string) {
	t.Helper()
	// Copied below the file system: what it holds in memory is not in it.
	after := filepath.Join(t.TempDir(), "after")
	from, err := os.Open(image)
	require.NoError(t, err)
	defer from.Close() //nolint:errcheck // read only
	to, err := os.Create(after)
	require.NoError(t, err)
	_, err = io.Copy(to, from)
	require.NoError(t, err)
	require.NoError(t, to.Close())
	folder = t.TempDir()
	mount(t, after, folder)
	return folder
}

// What was acknowledged outlives a power cut in the next instant: takes, parts, and
// voice notes.
func TestAcknowledgedIsOnTheDisk(t *testing.T) {
	folder, image := mounted(t)
	h := newServerIn(t, filepath.Join(folder, "recordings"))
	b := storetest.NewBand(t, h.store, "POWER")
	director, player := h.director(t, b), h.player(t, b, 0)
	for n := range 4 {
		file := played(t, synth.Player{Seed: uint64(n + 1)})
		id := newID()
		status, answer := player.upload(b, id, "file", 1, file)
		require.Equal(t, 201, status, answer)
		part := newID()
		player.want(200, "PUT", "/takes/"+part+"/parts/0", file[:5000], nil)
		voice := newID()
		director.want(204, "PUT", "/takes/"+id+"/voice/"+voice, file, nil)

		left := cut(t, image)
		taken, err := h.store.Take(t.Context(), id)
		require.NoError(t, err)
		found, err := os.ReadFile(filepath.Join(left, "recordings", taken.Sound))
		require.NoError(t, err, "the take's sound is gone")
		assert.Equal(t, sha256.Sum256(file), sha256.Sum256(found))
		found, err = os.ReadFile(filepath.Join(left, "recordings", "parts", b.Players[0].ID, part, "000000000000"))
		require.NoError(t, err, "the part is gone")
		assert.Equal(t, file[:5000], found)
		said, err := h.store.CommentsOf(t.Context(), id)
		require.NoError(t, err)
		info, err := os.Stat(filepath.Join(left, "recordings", said[0].Sound))
		require.NoError(t, err, "the voice note is gone")
		assert.Positive(t, info.Size())
	}
}

// A full disk refuses, and takes nothing that was there.
func TestAFullDiskRefusesAndKeeps(t *testing.T) {
	folder, _ := mounted(t)
	h := newServerIn(t, filepath.Join(folder, "recordings"))
	b := storetest.NewBand(t, h.store, "FULL")
	player := h.player(t, b, 0)
	file := played(t, synth.Player{})
	kept := newID()
	status, answer := player.upload(b, kept, "file", 1, file)
	require.Equal(t, 201, status, answer)
	player.heard(kept)

	filler := filepath.Join(folder, "filler")
	require.NoError(t, exec.Command("sh", "-c", "dd if=/dev/zero of="+filler+" bs=64k 2>/dev/null; sync").Run())
	before := h.files()
	again := newID()
	status, _ = player.upload(b, again, "file", 1, file)
	assert.Equal(t, 507, status)
	assert.Equal(t, before, h.files(), "nothing half-written is in its place")
	_, sound := player.ask("GET", "/takes/"+kept+"/audio.wav", nil)
	assert.Equal(t, file, sound, "what was here stays")

	require.NoError(t, os.Remove(filler))
	status, answer = player.upload(b, again, "file", 1, file)
	assert.Equal(t, 201, status, answer)
}

// Two uploads at once under one number: one is acknowledged, and its sound is kept.
func TestOneNumberIsOneSound(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "TWICE")
	ada, bo := h.player(t, b, 0), h.player(t, b, 1)
	files := [][]byte{played(t, synth.Player{Seed: 1}), played(t, synth.Player{Seed: 2})}
	for round := range 12 {
		players := []visitor{ada, ada}
		if round%2 == 1 {
			players[1] = bo
		}
		id := newID()
		var both sync.WaitGroup
		status := make([]int, 2)
		for n, v := range players {
			both.Go(func() { status[n], _ = v.upload(b, id, "file", 1, files[n]) })
		}
		both.Wait()
		require.ElementsMatch(t, []int{201, 409}, status)
		won := 0
		if status[1] == 201 {
			won = 1
		}
		_, sound := players[won].ask("GET", "/takes/"+id+"/audio.wav", nil)
		require.True(t, bytes.Equal(files[won], sound), "round %d: it is the other's", round)
	}
	assert.Len(t, h.files(), 12, "the refused ones are nobody's")
}

// However a number is spelt, it is one.
func TestEverySpellingOfANumberIsOne(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "SPELL")
	player := h.player(t, b, 0)
	file := played(t, synth.Player{})
	id := newID()
	spellings := []string{
		strings.ToUpper(id), strings.ReplaceAll(id, "-", ""), "%7B" + id + "%7D", "urn:uuid:" + id, id,
	}
	for n, spelt := range spellings {
		status, answer := player.upload(b, spelt, "file", 1, file)
		assert.Equal(t, []int{201, 200}[min(n, 1)], status, "%s: %s", spelt, answer)
	}
	assert.NotEqual(t, "failed", player.heard(id).State)
	player.want(200, "GET", "/takes/"+strings.ToUpper(id), nil, nil)
	assert.Len(t, h.files(), 1)
}

// A take whose sound is lost or damaged is healed by its device, which sends it again
// because it is told that it is not safe.
func TestATakeSentAgainIsHealed(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "HEAL")
	player := h.player(t, b, 0)
	file := played(t, synth.Player{})
	for name, damage := range map[string]func(string) error{
		"gone":      os.Remove,
		"empty":     func(path string) error { return os.WriteFile(path, nil, 0o600) },
		"other":     func(path string) error { return os.WriteFile(path, file[:len(file)-2], 0o600) },
		"by a seal": os.Remove,
	} {
		id := newID()
		status, answer := player.upload(b, id, "file", 1, file)
		require.Equal(t, 201, status, answer)
		player.heard(id)
		taken, err := h.store.Take(t.Context(), id)
		require.NoError(t, err)
		require.NoError(t, damage(filepath.Join(h.folder, taken.Sound)))
		var received api.Received
		player.want(200, "GET", "/takes/"+id+"/received", nil, &received)
		assert.False(t, received.Safe, name)
		if name == "by a seal" {
			player.want(200, "PUT", "/takes/"+id+"/parts/0", file, nil)
			player.want(200, "POST", fmt.Sprintf(
				"/takes/%s/seal?step=%s&version=1&source=file&start_ms=0&size=%d", id, b.Step.ID, len(file),
			), nil, nil)
		} else {
			status, answer = player.upload(b, id, "file", 1, file)
			require.Equal(t, 200, status, answer)
		}
		_, sound := player.ask("GET", "/takes/"+id+"/audio.wav", nil)
		assert.True(t, bytes.Equal(file, sound), name)
		player.want(200, "GET", "/takes/"+id+"/received", nil, &received)
		assert.True(t, received.Safe, name)
	}
}

// Nobody can put a voice note under another's number.
func TestAVoiceNoteIsItsDirectors(t *testing.T) {
	h := newServer(t)
	b, other := storetest.NewBand(t, h.store, "VOICE"), storetest.NewBand(t, h.store, "ELSE")
	director, stranger := h.director(t, b), h.director(t, other)
	mine, theirs := h.player(t, b, 0).playedAs(b, synth.Player{}), h.player(t, other, 0).playedAs(other, synth.Player{})
	note := newID()
	said, foreign := played(t, synth.Player{Seed: 3}), played(t, synth.Player{Seed: 4})
	director.want(204, "PUT", "/takes/"+mine.ID+"/voice/"+note, said, nil)
	_, before := director.ask("GET", "/takes/"+mine.ID+"/voice/"+note+".wav", nil)
	stranger.want(409, "PUT", "/takes/"+theirs.ID+"/voice/"+note, foreign, nil)
	stranger.want(409, "PUT", "/takes/"+theirs.ID+"/voice/"+note, said, nil)
	director.want(409, "PUT", "/takes/"+mine.ID+"/voice/"+note, foreign, nil)
	director.want(204, "PUT", "/takes/"+mine.ID+"/voice/"+note, said, nil)
	_, after := director.ask("GET", "/takes/"+mine.ID+"/voice/"+note+".wav", nil)
	assert.True(t, bytes.Equal(before, after))
	assert.Len(t, h.files(), 3, "the refused ones are nobody's")
}

// In a real class no pupil hands in a simulated player; where the director allows it to
// be tried, it is marked and counts for nothing.
func TestSimulatedPlayersAreForTheDemo(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REAL")
	player, director := h.player(t, b, 0), h.director(t, b)
	file := played(t, synth.Player{})
	simulate := map[string]any{"step": b.Step.ID, "version": 1, "stand_in": "steady"}
	allow := func(how store.Simulating) {
		_, err := h.store.SQL().Exec("UPDATE class SET simulated_players = $1 WHERE id = $2", how, b.Class.ID)
		require.NoError(t, err)
	}
	allow(store.SimulatingNo)
	player.want(422, "POST", "/takes/"+newID()+"/simulated", simulate, nil)
	status, _ := player.upload(b, newID(), "simulated", 1, file)
	assert.Equal(t, 422, status)

	allow(store.SimulatingTried)
	id := newID()
	player.want(201, "POST", "/takes/"+id+"/simulated", simulate, nil)
	take := player.heard(id)
	assert.True(t, take.Trial, "it is marked")
	_, today := director.ask("GET", "/classes/"+b.Class.ID+"/today", nil)
	assert.NotContains(t, string(today), id, "it is on no board")
	notes, err := h.store.PlayerNotes(t.Context(), b.Players[0].ID, time.Now().AddDate(0, 0, -2), time.Now())
	require.NoError(t, err)
	assert.Empty(t, notes, "nor on any map")
}

// A device says how long ago it recorded; what it cannot have kept is of today.
func TestAClaimedTimeIsBounded(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "AGO")
	player := h.player(t, b, 0)
	file := played(t, synth.Player{})
	today := b.Class.Day(time.Now())
	for days, want := range map[int]time.Time{
		0: today, 3: b.Class.Day(time.Now().AddDate(0, 0, -3)), 15: today, 30: today, 3650: today,
	} {
		id := newID()
		status, _ := player.ask("PUT", fmt.Sprintf(
			"/takes/%s?step=%s&version=1&source=file&start_ms=0&ago_ms=%d", id, b.Step.ID, days*86_400_000,
		), file)
		require.Equal(t, 201, status.StatusCode)
		taken, err := h.store.Take(t.Context(), id)
		require.NoError(t, err)
		assert.Equal(t, want, taken.Day.UTC(), "%d days ago", days)
	}
}

// Nobody fills the disk with halves.
func TestPartsAreBounded(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "PARTS")
	player := h.player(t, b, 0)
	ids := make([]string, 41)
	for n := range ids {
		ids[n] = newID()
		res, _ := player.ask("PUT", "/takes/"+ids[n]+"/parts/0", []byte("a part"))
		assert.Equal(t, []int{200, 429}[n/40], res.StatusCode, "part %d", n)
	}
	player.want(200, "PUT", "/takes/"+ids[0]+"/parts/6", []byte(" more"), nil)
}
