package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"

	"earlychorus/core/exercise"
	"earlychorus/e2e/browser"
	"earlychorus/server/store/storetest"
)

func signInPlayer(base, code, name string) chromedp.Action[chromedp.Void] {
	return browser.SignInPlayer(base, code, name, storetest.PIN)
}

// A rung is passed three times in a row, stepped back from; what is ticked is
// ticked; what hurts reaches the director.
func TestAPlayersDay(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "ROOM")
	b.AddStep(t, s, exercise.New("ladder", map[string]any{"ladder": "clarinet-break", "tempo_bpm": 160}))
	b.AddStep(t, s, exercise.New("set-up", map[string]any{"mirror": false}))
	base := serve(t, s)
	page := openPage(t, browser.Options{Width: 390, Height: 844})
	do(t, page, signInPlayer(base, "ROOM", "Ada T."))
	do(
		t,
		page,
		browser.Click(`button[data-step="2"]`),
		browser.See("Over the clarinet"),
		browser.See("3 clean in a row pass this rung"),
		browser.Press("No microphone?"),
	)
	for _, says := range []string{"2 clean in a row pass", "1 clean in a row passes", "rung 2 of 15"} {
		do(
			t,
			page,
			browser.Press("Steady player"),
			browser.Shown(`[data-verdict="clean"]`),
			browser.Press("Again"),
			browser.See(says),
			browser.Press("No microphone?"),
		)
	}
	do(t, page, browser.See("low C to low G, and stay"), browser.Press("Step back"), browser.See("rung 1 of 15"))

	do(
		t,
		page,
		browser.Press("It hurts"),
		browser.Press("I feel dizzy or tingly"),
		browser.See("sit down and breathe normally"),
		browser.Press("Close"),
		browser.Click(`button[data-step="3"]`),
		browser.See("Set-up check"),
	)
	do(
		t,
		page,
		chromedp.Evaluate[chromedp.Void](
			`document.querySelectorAll('input[type=checkbox]').forEach((b, n) => setTimeout(() => b.click(), 300 * n))`,
		),
		browser.Shown(
			`button[data-step="3"] [data-result="clean"]`,
		),
		browser.Press("Done"),
		browser.See("Done for today"),
	)

	director := openPage(t, browser.Options{Width: 1280, Height: 800})
	do(t, director, signInDirector(b, base))
	do(
		t,
		director,
		browser.See("felt dizzy"),
		browser.Press("Seen"),
		browser.Gone(`section[aria-label="From the players"]`),
	)
}
