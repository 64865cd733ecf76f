package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/e2e/browser"
	"earlychorus/server/store/storetest"
)

// A morning's review, by keys alone: the board tells what came in while it is
// open; the excerpt is heard, judged, judged otherwise, undone, praised, spoken to;
// what was said reaches the player; the note map counts what the database holds.
func TestAMorningsReviewByKeys(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "DAWN")
	base := serve(t, s)
	director := openPage(t, browser.Options{Width: 1280, Height: 800})
	do(t, director, signInDirector(b, base))
	do(t, director, browser.See("not played"))

	player := openPage(t, browser.Options{Width: 390, Height: 844})
	do(t, player, signInPlayer(base, "DAWN", "Ada T."))
	do(
		t,
		player,
		browser.Press("No microphone?"),
		browser.Press("Player who cracks"),
		browser.Shown(`[data-verdict="not-yet"]`),
	)
	do(t, director, browser.Shown(`a[data-player="Ada Testerly"] [data-result="not-yet"]`)) // without a reload

	word := func(result string) chromedp.Action[chromedp.Void] {
		return browser.Shown(fmt.Sprintf(`[data-word="%s"]`, result))
	}
	praised := func(times int) chromedp.Action[chromedp.Void] {
		return browser.Until(fmt.Sprintf(`[...document.querySelectorAll('ul[aria-label="Said"] li')]
			.filter((l) => l.innerText.includes('Well done')).length === %d`, times))
	}
	key := func(k string) chromedp.Action[chromedp.Void] { return chromedp.KeyEvent(k) }
	do(
		t,
		director,
		browser.Press("Listen"),
		browser.See("not yet: "),
		word("not-yet"),
		browser.See("left"),
		key("1"),
		word("clean"),
		browser.See("Measured: not yet."),
		browser.See("Undo your word"),
		key("u"),
		browser.Gone(`[data-word="clean"]`),
		word("not-yet"),
		key("2"),
		word("nearly"),
		key("p"),
		browser.See("Well done. I heard it."),
		key("c"),
		browser.Shown("#words"),
		chromedp.SendKeys("#words", "The jump is a leak."),
		chromedp.KeyEvent(kb.Enter, chromedp.KeyModifiers(2)),
		browser.See("The jump is a leak."),
		key("p"),
		praised(2),
		key("u"),
		praised(1),
	)
	do(t, director, key("n"), browser.See("That was all for these minutes"))
	// Another device goes on where this one stopped.
	other := openPage(t, browser.Options{Width: 1280, Height: 800})
	do(t, other, signInDirector(b, base))
	do(t, other, browser.Press("Listen"), browser.See("That was all for these minutes"))

	do(t, player, chromedp.Reload(), browser.See("The jump is a leak."), browser.See("Well done. I heard it."))

	do(
		t,
		director,
		browser.Press("Today"),
		browser.Shown(`a[data-player="Ada Testerly"] [data-result="nearly"]`),
		browser.Click(
			`//a[contains(@href, "/section/") and contains(., "Clarinets")]`,
		),
		browser.Shown(`tr[data-note="C4"]`),
	)
	counted, err := chromedp.Run(
		director,
		chromedp.Evaluate[string](`document.querySelector('tr[data-note="C4"] [data-testid="count"]').innerText`),
	)
	require.NoError(t, err)
	var takes, good int
	require.NoError(
		t,
		s.SQL().
			QueryRow("SELECT count(*), count(*) FILTER (WHERE good) FROM take_note WHERE player_id = $1 AND "+
				"sounding = 58", b.Players[0].ID).
			Scan(&takes, &good),
	)
	assert.Equal(t, fmt.Sprintf("%d of %d", good, takes), counted)
	do(t, director, browser.Press("Ada Testerly"), browser.See("Longest hold"), browser.See("The jump is a leak."))
}

// A director puts what is assigned for a cause in another order, and finds it so again.
func TestWhatIsAssignedIsTheDirectors(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "NEXT")
	page := openPage(t, browser.Options{Width: 1280, Height: 800})
	do(t, page, signInDirector(b, serve(t, s)))
	do(
		t,
		page,
		browser.Press("Class"),
		browser.Press("Next steps"),
		browser.Click(`section[aria-label="the pitch wavers"] button[aria-label="Breath pattern earlier"]`),
		browser.Press("Save the next steps"),
		browser.See("Saved."),
		chromedp.Reload(),
		browser.Shown(`section[aria-label="the pitch wavers"]`),
		browser.See("Our order"),
	)
	var kept string
	require.NoError(t, s.SQL().QueryRow("SELECT remedies FROM class WHERE id = $1", b.Class.ID).Scan(&kept))
	assert.JSONEq(t, `{"steadiness": ["breath-pattern", "long-tone-counted"]}`, kept)
	do(
		t,
		page,
		browser.Press("Today"),
		browser.Click(`//a[contains(@href, "/section/") and contains(., "Clarinets")]`),
		browser.See("Never one against another"),
	)
}
