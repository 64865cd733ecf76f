package e2e

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio/wav"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/synth"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// program is the real binary, serving from a folder and a database.
type program struct {
	t                 *testing.T
	binary, data, dsn string
	cmd               *exec.Cmd
	base              string
}

func (p *program) start() {
	p.t.Helper()
	p.cmd = exec.Command(p.binary, "serve", "--no-demo", "--data", p.data, "--database", p.dsn, "--port", "18090")
	out, err := p.cmd.StdoutPipe()
	require.NoError(p.t, err)
	require.NoError(p.t, p.cmd.Start())
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		if _, address, ok := strings.Cut(lines.Text(), "is at "); ok {
			p.base = address
			go func() { _, _ = io.Copy(io.Discard, out) }()
			return
		}
	}
	p.t.Fatal("the server did not say where it is")
}

// kill ends it as a power cut would.
func (p *program) kill() {
	p.t.Helper()
	require.NoError(p.t, p.cmd.Process.Signal(syscall.SIGKILL))
	_ = p.cmd.Wait() // "signal: killed"
}

// player signs in and returns the session's cookie.
func (p *program) player(b storetest.Band) *http.Cookie {
	p.t.Helper()
	body, err := json.Marshal(
		map[string]string{"code": b.Class.Code, "player_id": b.Players[0].ID, "pin": storetest.PIN},
	)
	require.NoError(p.t, err)
	res, err := http.Post(p.base+"/api/sign-in/player", "application/json", bytes.NewReader(body))
	require.NoError(p.t, err)
	require.NoError(p.t, res.Body.Close())
	require.Len(p.t, res.Cookies(), 1)
	return res.Cookies()[0]
}

// upload hands in a take; acknowledged tells whether the server said it is safe.
func (p *program) upload(b storetest.Band, cookie *http.Cookie, id string, file io.Reader) (acknowledged bool) {
	p.t.Helper()
	url := fmt.Sprintf("%s/api/takes/%s?step=%s&version=1&source=microphone", p.base, id, b.Step.ID)
	req, err := http.NewRequest("PUT", url, file)
	require.NoError(p.t, err)
	req.AddCookie(cookie)
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return false
	}
	require.NoError(p.t, res.Body.Close())
	return res.StatusCode == http.StatusCreated || res.StatusCode == http.StatusOK
}

// However the server is killed, what it acknowledged is there at the next
// start, with its sound, and is listened to.
func TestKilledAtAnyMomentNothingAcknowledgedIsLost(t *testing.T) {
	binary := filepath.Join(t.TempDir(), "earlychorus")
	out, err := exec.Command("go", "build", "-o", binary, "../cmd/earlychorus").CombinedOutput()
	require.NoError(t, err, string(out))
	dsn := storetest.DSN(t)
	s, err := store.Open(dsn)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	b := storetest.NewBand(t, s, "REED")
	file := clarinetTake(t)

	p := &program{
		t:      t,
		binary: binary,
		data:   t.TempDir(),
		dsn:    dsn,
	}
	t.Cleanup(func() { _ = p.cmd.Process.Kill() })
	var safe []string
	for _, wait := range []time.Duration{0, 30, 120, 250, 400} { // ms into accepting and analysing
		p.start()
		cookie := p.player(b)
		// One take is acknowledged, others are on their way when the blow falls.
		id := uuid.NewString()
		require.True(t, p.upload(b, cookie, id, bytes.NewReader(file)))
		safe = append(safe, id)
		late := make(chan string, 1)
		go func() {
			other := uuid.NewString()
			if !p.upload(b, cookie, other, bytes.NewReader(file)) {
				other = ""
			}
			late <- other
		}()
		time.Sleep(wait * time.Millisecond)
		p.kill()
		if other := <-late; other != "" {
			safe = append(safe, other)
		}
	}
	p.start()
	for _, id := range safe {
		assert.Eventually(t, func() bool {
			_, err := s.AnalysisOf(context.Background(), id)
			return err == nil
		}, 15*time.Second, 50*time.Millisecond, "take %s was acknowledged and never listened to", id)
	}
	p.kill()
}

func clarinetTake(t *testing.T) []byte {
	t.Helper()
	i, err := instrument.Get("clarinet")
	require.NoError(t, err)
	score, err := storetest.ShortStep.Score(exercise.Player{Instrument: i, Stage: 2}, store.Class{}.Conventions())
	require.NoError(t, err)
	sound, _ := synth.Player{Instrument: i, Room: -70}.Play(score, 48000)
	return wav.Encode(sound)
}
