// Package e2e drives the real interface in a real browser.
package e2e

import (
	"context"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio/wav"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/e2e/browser"
	"earlychorus/server/api"
	"earlychorus/server/app"
	"earlychorus/server/mail"
	"earlychorus/server/recordings"
	"earlychorus/server/standin"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
	"earlychorus/web"
)

// serve runs the whole server with the built interface.
func serve(t *testing.T, s *store.Store) string {
	t.Helper()
	base, _ := serveOver(t, s)
	return base
}

// serveOver is serve over a network that can go: while down, every connection is
// cut.
func serveOver(t *testing.T, s *store.Store) (base string, down *atomic.Bool) {
	t.Helper()
	return serveBy(t, s, (*httptest.Server).Start)
}

// serveSecurely is serve over https, with a certificate of the test's own.
func serveSecurely(t *testing.T, s *store.Store) string {
	t.Helper()
	base, _ := serveBy(t, s, (*httptest.Server).StartTLS)
	return base
}

func serveBy(t *testing.T, s *store.Store, start func(*httptest.Server)) (base string, down *atomic.Bool) {
	t.Helper()
	down = &atomic.Bool{}
	kept, err := recordings.InFolder(t.TempDir())
	require.NoError(t, err)
	parts := app.Parts{Store: s, Recordings: kept, Now: time.Now}
	parts.Post, parts.Mailbox = mail.Mailbox{Store: s, Now: time.Now}, true
	parts.Provider, err = standin.NewProvider(api.StandInProvider)
	require.NoError(t, err)
	answers, err := app.Serve(parts)
	require.NoError(t, err)
	work, err := app.Work(parts, "e2e")
	require.NoError(t, err)
	page, built := web.Built()
	require.True(t, built, "the interface is not built: run ./test")
	handler, stop := answers.Handler(page)
	server := httptest.NewUnstartedServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if down.Load() {
			panic(http.ErrAbortHandler)
		}
		handler.ServeHTTP(w, r)
	}))
	start(server)
	t.Cleanup(func() {
		server.Close()
		stop()
		answers.Stop()
		require.NoError(t, work.Stop(context.Background()))
	})
	return server.URL, down
}

// openPage starts a browser that ends with the test.
func openPage(t *testing.T, o browser.Options) context.Context {
	t.Helper()
	ctx, cancel := context.WithCancel(context.Background())
	t.Cleanup(cancel)
	page, closeIt, err := browser.Start(ctx, o)
	require.NoError(t, err)
	t.Cleanup(closeIt)
	return page
}

// longestStep is the patience with one step, in any browser: the longest is a whole recording,
// and on a machine that others use, too, a page can stand still for minutes.
const longestStep = 4 * time.Minute

// slow is a step whose recording is still on when a busy machine has looked at it.
var slow = exercise.New(exercise.KindLongToneCounted, map[string]any{
	"notes": []int{0, 2, 4, 5, 7}, "beats": 12, "tempo_bpm": 48,
})

func do(t *testing.T, page context.Context, steps ...chromedp.Action[chromedp.Void]) {
	t.Helper()
	for n, step := range steps {
		patience, cancel := context.WithTimeout(page, longestStep)
		err := chromedp.Do(patience, step)
		cancel()
		if err != nil {
			seen, _ := chromedp.Run(page, chromedp.Evaluate[string]("document.body.innerText"))
			t.Fatalf("step %d: %v; the page says:\n%s", n+1, err, seen)
		}
	}
	refused, err := chromedp.Run(page, browser.Refused())
	require.NoError(t, err)
	assert.Empty(t, refused, "by the page's own policy")
}

// fakeMicrophone writes what the browser's fake microphone plays: silence
// while it counts in, then a B♭3 on the clarinet, 18 cents flat, that stops
// for 0.3 s.
func fakeMicrophone(t *testing.T) string {
	t.Helper()
	clarinet, err := instrument.Get("clarinet")
	require.NoError(t, err)
	// The first click comes about 0.7 s after the microphone opens, the note
	// four clicks at 120 later.
	score := scores.Score{TempoBPM: 60, A4Hz: 440, Segments: []scores.Segment{
		{Phase: scores.Ready, Beats: 2.8},
		{
			Phase:     scores.Play,
			StartBeat: 2.8,
			Beats:     4,
			Target:    58,
		},
		{Phase: scores.Rest, StartBeat: 6.8, Beats: 8},
	}}
	p := synth.Player{
		Instrument: clarinet,
		Offset:     -18,
		Room:       -70,
		Gaps:       []synth.Gap{{At: 1.5, Length: 0.3}},
	}
	sound, _ := p.Play(score, 48000)
	name := filepath.Join(t.TempDir(), "player.wav")
	require.NoError(t, os.WriteFile(name, wav.Encode(sound), 0o644))
	return name
}

func TestTheWholeLoop(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "REED")
	base := serve(t, s)

	director := openPage(t, browser.Options{Width: 1280, Height: 800})
	do(t, director,
		signInDirector(b, base), browser.See("Ada Testerly"), browser.See("not played"),
		browser.Press("Change the step"), browser.See("As read by"),
		browser.Replace("Beats each", "8"), browser.See("8 beats each at 120"), saved(),
		browser.Press("Today"), browser.See("8 beats each at 120"),
	)

	player := openPage(t, browser.Options{Width: 390, Height: 844, Microphone: fakeMicrophone(t)})
	do(
		t,
		player,
		chromedp.Navigate(base),
		browser.Type("Class code", "reed"),
		browser.Press("Find my class"),
		browser.Press("Ada T."),
		browser.Type("Your PIN", storetest.PIN),
		browser.Press("Start"),
		browser.See("Hold C for 8 beats"),
		browser.See("T 123"),
		browser.See("Dizzy or tingly"),
		chromedp.Evaluate[chromedp.Void](browser.Note),
		browser.Press("Record"),
		pastTheCheck,
		browser.Until(browser.Noted("Breathe in")),
		browser.Until(browser.Noted("Play C")),
		browser.Shown(
			`[data-verdict="not-yet"]`,
		),
		browser.See("C stopped for a third of a second."),
		browser.Press("Done"),
		browser.See("Done for today"),
	)

	do(t, director, browser.Shown(`a[data-player="Ada Testerly"] [data-result="not-yet"]`))
	label, err := chromedp.Run(
		director,
		chromedp.Evaluate[string](`document.querySelector('a[data-player="Ada Testerly"]').getAttribute('aria-label')`),
	)
	require.NoError(t, err)
	gap := regexp.MustCompile(`stopped (\d\.\d+) s`).FindStringSubmatch(label)
	require.NotNil(t, gap, label)
	assert.InDelta(t, 0.3, number(t, gap[1]), 0.04, label)

	do(
		t,
		director,
		browser.Click(`a[data-player="Ada Testerly"]`),
		browser.See("Measures"),
		browser.See("18 cents flat"),
		browser.See("decided"),
		browser.Type("To Ada", "Spread the air over all eight beats."),
		browser.Press("Send the comment"),
		browser.See("Spread the air over all eight beats."),
		browser.Click(
			`//*[@aria-labelledby="overrule"]//button[contains(., "nearly")]`,
		),
		browser.See("Measured: not yet."),
		browser.Click(`[data-testid="large-ribbon"]`),
		browser.Until(`document.querySelector('audio').currentTime > 2`), // a click in its middle seeks
	)

	do(t, player, chromedp.Reload(), browser.See("Spread the air over all eight beats."))
}

func number(t *testing.T, s string) float64 {
	t.Helper()
	v, err := strconv.ParseFloat(s, 64)
	require.NoError(t, err)
	return v
}

// Without a microphone a player is told why, and still has a way.
func TestNoMicrophone(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	storetest.NewBand(t, s, "REED")
	page := openPage(t, browser.Options{Width: 390, Height: 844})
	do(
		t,
		page,
		chromedp.Navigate(serve(t, s)),
		browser.Type("Class code", "REED"),
		browser.Press("Find my class"),
		browser.Press("Bo T."),
		browser.Type("Your PIN", storetest.PIN),
		browser.Press("Start"),
		browser.Press("Record"),
		browser.See("The microphone is blocked"),
		browser.Press("No microphone?"),
		browser.Press("Flat player"),
		browser.Shown("[data-verdict]"),
		browser.See("was flat."),
		browser.Press("Again"),
		browser.See("Today so far"),
	)
}
