package e2e

import (
	"context"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/serviceworker"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/e2e/browser"
	"earlychorus/server/store/storetest"
)

// A take that was made without a network goes up when there is one, though the player has
// closed the page by then: the browser comes back to it in the background.
func TestATakeGoesUpThoughThePageIsClosed(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "FERRY")
	mic := newMicrophoneFile(t)
	mic.as("steady", b, b.Step, 0)
	base, down := serveOver(t, s)
	page := openPageFor(t, browser.Options{Width: 390, Height: 844, Microphone: mic.file}, 2*time.Minute)
	do(t, page, signInPlayer(base, "FERRY", "Ada T."))
	do(
		t,
		page,
		chromedp.Evaluate[chromedp.Void](`navigator.serviceWorker.ready.then(() => {})`, chromedp.EvalAwaitPromise),
		chromedp.Sleep(2*time.Second), // the week ahead
	)
	down.Store(true)
	do(t, page, first("clean"), browser.See("One take is on this device"))
	down.Store(false)
	do(t, page, chromedp.Navigate(base+"/icon.svg"), background(base))
	day := b.Class.Day(time.Now())
	assert.Eventually(t, func() bool {
		takes, err := s.TakesOfPlayerOn(t.Context(), b.Players[0].ID, day)
		return err == nil && len(takes) == 1
	}, 30*time.Second, 200*time.Millisecond)
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
