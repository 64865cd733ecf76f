package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
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

// signInAt signs the band's first player in at a server and returns the session's cookie.
func signInAt(t *testing.T, base string, b storetest.Band) *http.Cookie {
	t.Helper()
	return cookieOf(t, base+"/api/sign-in/player", map[string]string{
		"code": b.Class.Code, "player_id": b.Players[0].ID, "pin": storetest.PIN,
	})
}

// directorAt signs the band's director in.
func directorAt(t *testing.T, base string, b storetest.Band) *http.Cookie {
	t.Helper()
	return cookieOf(t, base+"/api/sign-in/director", map[string]string{
		"email": b.Director.Email, "password": storetest.Password,
	})
}

func cookieOf(t *testing.T, address string, who map[string]string) *http.Cookie {
	t.Helper()
	body, err := json.Marshal(who)
	require.NoError(t, err)
	res, err := http.Post(address, "application/json", bytes.NewReader(body))
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	for _, c := range res.Cookies() {
		if c.Name == "__Host-earlychorus" {
			return c
		}
	}
	t.Fatalf("signing in at %s: %s", address, res.Status)
	return nil
}

// upload hands in a take; acknowledged tells whether the server said it is safe.
func (p *process) upload(b storetest.Band, cookie *http.Cookie, id string, file io.Reader) (acknowledged bool) {
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
	dsn := storetest.DSN(t)
	s, err := store.Open(dsn)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	b := storetest.NewBand(t, s, "REED")
	file := clarinetTake(t)

	p := begin(t, nil, "serve", "--no-demo", "--data", t.TempDir(), "--database", dsn, "--port", "18090")
	p.kill()
	var safe []string
	for _, wait := range []time.Duration{0, 30, 120, 250, 400} { // ms into accepting and analysing
		p.start()
		cookie := signInAt(t, p.base, b)
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
		}, longestStep, 50*time.Millisecond, "take %s was acknowledged and never listened to", id)
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
