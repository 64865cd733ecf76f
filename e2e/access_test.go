package e2e

import (
	"context"
	"fmt"
	"os"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/plan"
	"earlychorus/core/playtest"
	"earlychorus/e2e/browser"
	"earlychorus/server/store/storetest"
)

// axe is Deque's axe-core, from the front end's packages.
var axe = sync.OnceValues(func() (string, error) {
	source, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	return string(source), err
})

// violations runs axe on the page for WCAG 2.2, levels A and AA, and says what it found.
const violations = `(async () => {
	const found = await axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })
	return found.violations.map((v) => v.id + ': ' + v.nodes.slice(0, 3).map((n) => n.html.slice(0, 400) + ' ' +
		n.failureSummary.replaceAll('\n', ' ').slice(0, 200)).join(' | '))
})()`

// small finds what is pressed on the page and is under so many pixels either way, links in
// a sentence left out (WCAG 2.2, 2.5.8: 24; 2.5.5, for children's thumbs: 44).
const small = `[...document.querySelectorAll('button, summary, select, input, [role=tab], [role=combobox]')]
	.filter((e) => e.checkVisibility({ visibilityProperty: true, opacityProperty: true }))
	.map((e) => [e, (e.type === 'checkbox' || e.type === 'radio') && e.closest('label') || e])
	.map(([e, target]) => [e, target.getBoundingClientRect()])
	.filter(([e, r]) => r.width > 1 && r.height > 1 && (Math.round(r.width) < %[1]d || Math.round(r.height) < %[1]d))
	.map(([e]) => e.textContent + ' ' + e.outerHTML.slice(0, 120))`

// sticksOut finds what is wider than a page of 320 pixels and has no scroll box of its own.
const sticksOut = `[...document.querySelectorAll('main *, header *')].filter((e) => {
	if (e.getBoundingClientRect().right <= 321 || !e.checkVisibility()) return false
	for (let p = e.parentElement; p && p !== document.body; p = p.parentElement)
		if (['auto', 'scroll', 'hidden', 'clip'].includes(getComputedStyle(p).overflowX)) return false
	return true
}).slice(0, 6).map((e) => e.outerHTML.slice(0, 140))`

// screen is one screen of the program, and the way to it.
type screen struct {
	name string
	way  chromedp.Action[chromedp.Void]
}

// checked walks from screen to screen and holds each to WCAG 2.2 AA in both themes, and to
// a width of 320 pixels, which is 1280 at 400 percent (1.4.10).
func checked(t *testing.T, page context.Context, width, height int64, least int, screens []screen) {
	t.Helper()
	source, err := axe()
	require.NoError(t, err, "the front end's packages are not installed: run ./test")
	for _, s := range screens {
		do(t, page, s.way)
		do(t, page, still(), chromedp.Evaluate[chromedp.Void](source))
		for _, theme := range []string{"light", "dark"} {
			do(t, page, theTheme(theme))
			assert.Empty(t, says[[]string](t, page, violations), "%s, %s", s.name, theme)
		}
		do(t, page, theTheme("light"))
		assert.Empty(t, says[[]string](t, page, fmt.Sprintf(small, least)), "%s: too small to press", s.name)
		do(t, page, browser.Resize(320, height))
		wide := says[float64](t, page, `document.scrollingElement.scrollWidth`)
		if !assert.LessOrEqual(t, wide, 320., "%s goes sideways at 320 pixels", s.name) {
			t.Log(says[[]string](t, page, sticksOut))
		}
		do(t, page, browser.Resize(width, height))
		title := says[string](t, page, `document.title`)
		assert.NotEqual(t, "Early Chorus", title, "%s has no title of its own", s.name)
		assert.Equal(
			t,
			1.,
			says[float64](t, page, `document.querySelectorAll('h1').length`),
			"%s: one first heading",
			s.name,
		)
	}
}

// still waits until the page has been drawn and nothing on it moves of itself: colors that
// fade in are not yet the colors they are.
func still() chromedp.Action[chromedp.Void] {
	return chromedp.Steps(browser.Drawn(), browser.Until(`document.getAnimations()
		.every((a) => a.playState !== 'running' || a.effect.getComputedTiming().endTime === Infinity)`))
}

// onPage waits until the page has this first heading.
func onPage(heading string) chromedp.Action[chromedp.Void] {
	return browser.Shown(fmt.Sprintf("//h1[contains(., %q)]", heading))
}

// theTheme shows the page light or dark.
func theTheme(name string) chromedp.Action[chromedp.Void] {
	return chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := cdp.Call(ctx, target, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{
			Features: []*emulation.MediaFeature{{Name: "prefers-color-scheme", Value: name}},
		})
		return err
	})
}

// Every screen a player meets.
func TestAPlayersScreensAreAccessible(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "SEEN")
	b.AddStep(t, s, exercise.New("set-up", nil))
	b.AddStep(t, s, exercise.New("air-meter", nil))
	b.AddStep(t, s, exercise.New("swell", nil))
	b.AddStep(t, s, exercise.New("ladder", map[string]any{"ladder": "clarinet-break"}))
	b.AddStep(t, s, exercise.New("make-a-tune", nil))
	b.AddStep(t, s, exercise.New("excerpt", nil))
	b.AddStep(t, s, slow)
	base := serve(t, s)
	const width, height = 390, 844
	page := openPage(t, browser.Options{Width: width, Height: height, Microphone: browser.Beeps})
	step := func(n int) chromedp.Action[chromedp.Void] {
		return browser.Click(fmt.Sprintf(`button[data-step="%d"]`, n))
	}
	pressed := func(words ...string) chromedp.Action[chromedp.Void] {
		var all []chromedp.Action[chromedp.Void]
		for _, w := range words {
			all = append(all, browser.Press(w))
		}
		return chromedp.Steps(all...)
	}
	do(t, page, chromedp.Navigate(base))
	checked(t, page, width, height, 44, []screen{
		{"sign in", browser.See("Class code")},
		{
			"who are you",
			chromedp.Steps(browser.Type("Class code", "seen"), browser.Press("Find my class"), browser.See("Ada T.")),
		},
		{"PIN", chromedp.Steps(browser.Press("Ada T."), browser.See("Your PIN"))},
		{"a step", chromedp.Steps(
			browser.Type("Your PIN", storetest.PIN),
			browser.Press("Start"),
			browser.See("Hold C for 4 beats"),
			browser.Press("Work on a part of it"),
			browser.Press("Sounds and microphone"),
			browser.Press("No microphone?"),
		)},
		{"a part", chromedp.Steps(browser.Click(`//fieldset//button[.="C"]`), browser.See("Just this part"))},
		{"whole again", chromedp.Steps(pressed("Back to the whole step"), browser.See("Work on a part"))},
		{"ticked cards", chromedp.Steps(step(2), browser.See("tick each one"))},
		{"air meter", chromedp.Steps(step(3), browser.See("Get the ball up"))},
		{"swell", chromedp.Steps(step(4), browser.See("grow very loud"))},
		{"ladder", chromedp.Steps(step(5), browser.See("rung 1 of"))},
		{"a tune", chromedp.Steps(step(6), browser.See("Make up a tune"))},
		{"three ways", chromedp.Steps(step(7), browser.See("Do this line on air"))},
		{"stop here", chromedp.Steps(pressed("It hurts, or I feel dizzy"), browser.See("Stop here"))},
		{"ask", chromedp.Steps(pressed("Close", "Ask your director"), browser.See("in your own words"))},
		{"outcome", chromedp.Steps(
			pressed("Close"),
			step(1),
			pressed("No microphone?", "Player who cracks"),
			browser.Shown(`[data-verdict]`),
		)},
		{
			"microphone check",
			chromedp.Steps(
				pressed("Again"),
				step(8),
				browser.See("12 beats"),
				waitForRecord,
				pressed("Record"),
				browser.See("seven seconds"),
			),
		},
		{"recording", chromedp.Steps(pastTheCheck, browser.Shown(`[data-recording]`))},
		{
			"fingerings",
			chromedp.Steps(pressed("Stop and throw away", "Fingerings"), browser.See("Without the hard ones")),
		},
		{"play it", chromedp.Steps(browser.Press("Play it"), browser.See("Nothing is recorded"))},
		{"which note", chromedp.Steps(pressed("Close", "Which note is that?"), browser.See("Play any note"))},
		{"lessons", chromedp.Steps(pressed("Back to your practice", "Lessons"), browser.See("Lay the case flat"))},
		{"my progress", chromedp.Steps(pressed("Back to your practice", "My progress"), browser.See("My progress"))},
		{"privacy", chromedp.Steps(pressed("What is kept of a child"), onPage("What is kept of a child"))},
	})
}

// waitForRecord waits for the rest to be over.
var waitForRecord = browser.Shown(`button[data-key="r"]:not(:disabled)`)

// Every screen a director meets.
func TestADirectorsScreensAreAccessible(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "READ")
	test := b.AddItem(t, s, plan.Item{
		Step: storetest.ShortStep,
		Test: &playtest.Test{
			Due:    time.Now().AddDate(0, 0, 2).Format(time.DateOnly),
			Takes:  3,
			Counts: playtest.Best,
		},
	})
	base := serve(t, s)
	handsIn(t, base, "READ", "Player who cracks")
	const width, height = 1280, 800
	page := openPage(t, browser.Options{Width: width, Height: height})
	do(t, page, signInDirector(b, base))
	class := "/class/" + b.Class.ID
	at := func(path, words string) chromedp.Action[chromedp.Void] {
		return chromedp.Steps(chromedp.Navigate(base+path), browser.See(words))
	}
	screens := []screen{
		{"today", browser.Shown(`a[data-player="Ada Testerly"] [data-result="not-yet"]`)},
		{"take", chromedp.Steps(browser.Click(`a[data-player="Ada Testerly"]`), browser.See("Measures"))},
		{"listen", at(class+"/listen", "Listen")},
		{
			"section",
			chromedp.Steps(at(class, "Ada Testerly"), browser.Click(`th[scope=rowgroup] a`), browser.See("Tone")),
		},
		{"player", at(class+"/player/"+b.Players[0].ID, "Ada")},
		{"plan", at(class+"/plan", "Long tone, counted")},
		{"try", at(class+"/try/clarinet", "nothing of it is kept")},
		{"fingerings", at(class+"/fingerings/clarinet", "Fingerings")},
		{"test", at(class+"/test/"+test.ID, "0 of 2 handed in")},
		{"notes known", chromedp.Steps(
			at(class+"/plan", "Long tone, counted"), browser.Press("Notes known"), browser.See("Save the notes"),
		)},
		{"for a player", chromedp.Steps(
			at(class, "Test: Long tone"),
			browser.Click(`button[aria-label="For Bo Testerly"]`),
			browser.Press("Notes known"),
			browser.See("The rest are as the class has them"),
		)},
		{"search", chromedp.Steps(
			at(class, "Test: Long tone"), browser.Press("Search"), browser.See("Teaching choices"),
		)},
	}
	for _, chapter := range []string{
		"players", "people", "consent", "conventions", "tips", "next-steps", "care", "excused", "years",
	} {
		screens = append(screens, screen{"class, " + chapter, chromedp.Steps(
			chromedp.Navigate(base+class+"/set-up?chapter="+chapter),
			browser.Shown(`[role=tabpanel]`),
		)})
	}
	checked(t, page, width, height, 24, screens)
}
