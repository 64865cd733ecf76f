package e2e

import (
	"context"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/serviceworker"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/e2e/browser"
	"earlychorus/server/store/storetest"
)

// A take that was made without a network goes up when there is one, though the player has
// closed the page by then: the browser comes back to it in the background.
func TestATakeGoesUpThoughThePageIsClosed(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "FERRY")
	mic := openMicrophone(t, 390, 844)
	mic.as("steady", b, b.Step, 0)
	base, down := serveOver(t, s)
	page := mic.page
	do(t, page, signInPlayer(base, "FERRY", "Ada T."))
	do(t, page, readyAlone)
	down.Store(true)
	do(t, page, first("clean"), browser.See("One take is on this device"))
	down.Store(false)
	do(t, page, chromedp.Navigate(base+"/icon.svg"), background(base))
	day := b.Class.Day(time.Now())
	assert.Eventually(t, func() bool {
		takes, err := s.TakesOfPlayerOn(t.Context(), b.Players[0].ID, day)
		return err == nil && len(takes) == 1
	}, longestStep, 200*time.Millisecond)
	takes, err := s.TakesOfPlayerOn(t.Context(), b.Players[0].ID, day)
	require.NoError(t, err)
	require.Len(t, takes, 1)
	assert.Equal(t, "clean", string(takes[0].DeviceResult))
}

// background tells the service worker, as the browser does by itself sooner or later, that
// the network is back.
func background(origin string) chromedp.Action[chromedp.Void] {
	return chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		updates := chromedp.Events(ctx, serviceworker.WorkerRegistrationUpdated)
		if _, err := cdp.Call(ctx, target, serviceworker.Enable, cdp.Empty{}); err != nil {
			return err
		}
		for update, err := range updates {
			if err != nil {
				return err
			}
			if len(update.Registrations) == 0 {
				continue
			}
			_, err := cdp.Call(ctx, target, serviceworker.DispatchSyncEvent, serviceworker.DispatchSyncEventParams{
				Origin:         origin,
				RegistrationID: update.Registrations[0].RegistrationID,
				Tag:            "outbox",
			})
			return err
		}
		return ctx.Err()
	})
}

// Without a network everything of a step goes on: a simulated player, a file, the air meter,
// each with its word at once; all of it is told later.
func TestEveryWayGoesOnWithoutANetwork(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "ISLE")
	_, err := s.SQL().Exec("UPDATE class SET simulated_players = 'demo' WHERE id = $1", b.Class.ID)
	require.NoError(t, err)
	b.AddStep(t, s, exercise.New("air-meter", nil))
	base, down := serveOver(t, s)
	page := openPage(t, browser.Options{Width: 390, Height: 844})
	do(t, page, signInPlayer(base, "ISLE", "Ada T."))
	do(t, page, readyAlone)
	down.Store(true)
	file, err := filepath.Abs(fakeMicrophone(t))
	require.NoError(t, err)
	do(t, page,
		browser.Press("No microphone?"),
		browser.Press("Steady player"),
		browser.Shown(`[data-verdict="clean"]`),
		chromedp.WaitReady(`audio[src^="blob:"]`), // one's own take is heard without a network, too
		browser.Press("Again"),
		browser.Press("No microphone?"),
		chromedp.SetUploadFiles(`#recording-file`, []string{file}),
		browser.Shown(`[data-verdict]`),
		browser.Press("Again"),
		browser.Click(`button[data-step="2"]`),
		browser.Press("Prompt and still"),
		browser.Shown(`[data-verdict="clean"]`),
		browser.Shown(`[data-waiting="3"]`),
		browser.Press("Which note?"),
		browser.Press("Let a simulated player play"),
		browser.Shown(`svg[aria-label="in tune"]`),
		browser.Press("Back to your practice"),
	)
	down.Store(false)
	do(t, page, chromedp.Reload(), safe()) // a page that opens sends at once
	takes, err := s.TakesOfPlayerOn(t.Context(), b.Players[0].ID, b.Class.Day(time.Now()))
	require.NoError(t, err)
	assert.Len(t, takes, 2)
	do(t, page, browser.Shown(`button[data-step="2"] [data-result="clean"]`))
}

// slowDisk makes everything that is put on the device take three seconds longer.
const slowDisk = `const encrypt = SubtleCrypto.prototype.encrypt
	SubtleCrypto.prototype.encrypt = async function (...of) {
		await new Promise((done) => setTimeout(done, 3000))
		return encrypt.apply(this, of)
	}`

// The word is told before the take is on the device's disk; until it is, nobody reads that all
// is safe, and nobody does before the page has looked.
func TestNothingIsCalledSafeBeforeItIs(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "SAFE")
	base := serve(t, s)
	page := openPage(t, browser.Options{Width: 390, Height: 844})
	do(t, page, signInPlayer(base, "SAFE", "Ada T."))
	do(t, page,
		chromedp.Evaluate[chromedp.Void](slowDisk),
		browser.Press("No microphone?"),
		browser.Press("Steady player"),
		browser.Shown(`[data-verdict="clean"]`),
	)
	assert.Equal(t, "1", says[string](t, page, `document.querySelector('[data-waiting]').dataset.waiting`))
	do(t, page, browser.See("Your take is being kept."), browser.See("All you did is safe"))
	takes, err := s.TakesOfPlayerOn(t.Context(), b.Players[0].ID, b.Class.Day(time.Now()))
	require.NoError(t, err)
	assert.Len(t, takes, 1)
}

// Back in the middle of a take asks first, and the take goes on.
func TestBackInATakeAsksFirst(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "BACK")
	b.AddStep(t, s, exercise.New(exercise.KindLongToneCounted, map[string]any{
		"notes": []int{0}, "beats": 12, "tempo_bpm": 48,
	}))
	base := serve(t, s)
	page := openPage(t, browser.Options{Width: 390, Height: 844, Microphone: fakeMicrophone(t)})
	do(t, page, signInPlayer(base, "BACK", "Ada T."))
	do(t, page,
		browser.Press("Lessons"),
		browser.Press("Back to your practice"),
		browser.Click(`button[data-step="2"]`),
		browser.See("12 beats"),
		waitForRecord,
		browser.Press("Record"),
		pastTheCheck,
		browser.Shown(`[data-recording]`),
		chromedp.Evaluate[chromedp.Void](`history.back()`),
		browser.See("Your take is not kept yet"),
		browser.Press("Stay here"),
		browser.Shown(`[data-recording]`),
		browser.Shown(`[data-verdict]`),
	)
}
