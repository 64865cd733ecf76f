package e2e

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"

	"earlychorus/core/exercise"
	"earlychorus/e2e/browser"
	"earlychorus/server/store/storetest"
)

// mostTabs is how often Tab may be pressed on the way to what is wanted.
const mostTabs = 80

// focused says what the focus is on, as one would name it.
const focused = `(() => {
	const e = document.activeElement
	if (!e || e === document.body) return 'the page'
	const label = e.getAttribute('aria-label') ?? e.labels?.[0]?.textContent ?? ''
	const holds = e.matches('[role=tabpanel], [role=dialog]') // what they hold is not what is pressed
	const text = e.matches('button, a, summary, [role], h1') && !holds ? e.textContent : ''
	return (label + ' ' + text).replace(/\s+/g, ' ').trim().slice(0, 200)
})()`

// tabTo presses Tab until the focus is on what these words, or those behind a "|", name.
func tabTo(t *testing.T, page context.Context, words string) {
	t.Helper()
	var seen []string
	for range mostTabs {
		on := says[string](t, page, focused)
		if slices.ContainsFunc(strings.Split(words, "|"), func(w string) bool { return strings.Contains(on, w) }) {
			return
		}
		seen = append(seen, on)
		do(t, page, chromedp.KeyEvent(kb.Tab))
	}
	t.Fatalf("Tab never came to %q, but to: %s", words, strings.Join(seen, " / "))
}

// press goes to what these words name, by Tab, and presses it by a key.
func press(t *testing.T, page context.Context, words, key string) {
	t.Helper()
	tabTo(t, page, words)
	do(t, page, chromedp.KeyEvent(key))
}

const enter, space = kb.Enter, " "

// focusIs waits until the focus is on what these words name: a page's heading, a dialog's
// first field, the button one came from.
func focusIs(t *testing.T, page context.Context, words string) {
	t.Helper()
	var on string
	came := func() bool {
		on = says[string](t, page, focused)
		return strings.Contains(on, words)
	}
	assert.Eventually(t, came, longestStep, 50*time.Millisecond, words)
	assert.Contains(t, on, words)
}

// A player's whole day without a mouse: sign in, record, throw away, record again, go on,
// tick, work on a part, look a note up, read a lesson, say that it hurts.
func TestAPlayersDayByKeyboard(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "KEYS")
	b.AddStep(t, s, slow)
	b.AddStep(t, s, exercise.New("set-up", nil))
	page := openPage(t, browser.Options{Width: 390, Height: 844, Microphone: fakeMicrophone(t)})
	base := serve(t, s)
	do(t, page, chromedp.Navigate(base), browser.See("Class code"))
	tabTo(t, page, "Class code")
	do(t, page, chromedp.KeyEvent("keys"), chromedp.KeyEvent(enter), browser.See("Ada T."))
	press(t, page, "Ada T.", enter)
	do(t, page, browser.See("Your PIN"))
	focusIs(t, page, "Your PIN")
	do(t, page, chromedp.KeyEvent(storetest.PIN), chromedp.KeyEvent(enter), browser.See("Hold C for 4 beats"))

	// Space presses the focused button; Escape throws the take away.
	tabTo(t, page, "Set-up check") // the slow step before it has the first one's name
	const shift = 8
	do(
		t,
		page,
		chromedp.KeyEvent(kb.Tab, chromedp.KeyModifiers(shift)),
		chromedp.KeyEvent(enter),
		browser.See("12 beats"),
	)
	press(t, page, "Record", space)
	do(t, page, browser.See("seven seconds"))
	pastTheCheckByKeys(t, page)
	do(t, page, browser.Shown(`[data-recording]`))
	for range 8 { // the focus stays inside
		do(t, page, chromedp.KeyEvent(kb.Tab))
		inside := says[bool](t, page, `!!document.activeElement.closest('[data-recording]')`)
		assert.True(t, inside, "Tab leaves the recording")
	}
	do(t, page, chromedp.KeyEvent(kb.Escape), browser.Shown(`button[data-key="r"]:not(:disabled)`))
	press(t, page, "Long tone, counted", enter)
	do(t, page, browser.See("Hold C for 4 beats"))

	press(t, page, "Record", enter)
	do(t, page, browser.Shown(`[data-recording]`), browser.Shown(`[data-verdict]`))
	focusIs(t, page, "How it went")
	press(t, page, "Next step", enter)
	do(t, page, browser.See("12 beats"))
	press(t, page, "Set-up check", enter)
	do(t, page, browser.See("tick each one"))
	press(t, page, "Sit tall at the front of the chair", space)
	do(t, page, browser.Shown(`input[type=checkbox]:checked`))
	press(t, page, "Done", enter)
	do(t, page, browser.See("Done for today"))

	press(t, page, "Long tone, counted", enter)
	do(t, page, browser.See("Hold C for 4 beats"))
	press(t, page, "It hurts, or I feel dizzy", enter)
	do(t, page, browser.See("Only your director sees"), chromedp.KeyEvent(kb.Escape))
	focusIs(t, page, "It hurts, or I feel dizzy")
	press(t, page, "Work on a part of it", enter)
	press(t, page, "Fingers only", enter)
	do(t, page, browser.See("Just this part"))
	press(t, page, "Back to the whole step", enter)

	press(t, page, "Fingerings", enter)
	focusIs(t, page, "Fingerings, ") // the heading: the link that led here has its first word alone
	press(t, page, "Play it", space)
	do(t, page, browser.See("Nothing is recorded"), chromedp.KeyEvent(kb.Escape))
	focusIs(t, page, "Play it")
	do(t, page, chromedp.Navigate(base+"/lessons"), browser.See("Lay the case flat"))
	tabTo(t, page, "Put it together")
	do(t, page, chromedp.KeyEvent(kb.ArrowRight), browser.See("Sit tall"))
	do(t, page, chromedp.Navigate(base+"/which-note"), browser.See("Play any note"))
	press(t, page, "Hide the needle", space)
	do(t, page, browser.See("Show the needle"))
	press(t, page, "Start listening", enter)
	do(t, page, browser.See("Stop listening"))
}

// A director's ten minutes without a mouse.
func TestADirectorsListeningByKeyboard(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "EARS")
	base := serve(t, s)
	handsIn(t, base, "EARS", "Player who cracks")
	page := openPage(t, browser.Options{Width: 1280, Height: 800})
	do(t, page, signInDirector(b, base), browser.Shown(`a[data-player="Ada Testerly"]`))
	press(t, page, "Ada Testerly: not yet", enter)
	do(t, page, browser.See("Measures"))
	// One stop for the four results; the arrows go between them.
	tabTo(t, page, "clean")
	do(t, page, chromedp.KeyEvent(kb.ArrowRight))
	focusIs(t, page, "nearly")
	do(t, page, chromedp.KeyEvent(space), browser.See("nearly, the director’s word"))
	do(t, page, chromedp.Navigate(fmt.Sprintf("%s/class/%s/listen", base, b.Class.ID)), browser.See("Ada Testerly"))
	press(t, page, "Accept", space)
	do(t, page, browser.See("Accepted: Ada Testerly."), browser.See("Undo"))
	// A player and an exercise are found from any page.
	search := chromedp.KeyEvent("k", chromedp.KeyModifiers(chromedp.ModifierCtrl))
	do(t, page, search)
	focusIs(t, page, "What to look for")
	// Before the lists have arrived, as quick fingers do it.
	do(t, page, chromedp.KeyEvent("testerly bo"), chromedp.KeyEvent(enter))
	do(t, page, browser.See("A page for home"), search)
	focusIs(t, page, "What to look for")
	do(t, page, chromedp.KeyEvent("swell"), browser.See("add it to the plan"), chromedp.KeyEvent(enter))
	do(t, page, browser.Shown(`li[data-step="Swell"]`))
}
