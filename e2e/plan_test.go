package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/plan"
	"earlychorus/e2e/browser"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

func signInDirector(b storetest.Band, base string) chromedp.Action[chromedp.Void] {
	return browser.SignInDirector(base, b.Director.Email, storetest.Password)
}

// A class from a messy list, the demo's week built from nothing, fitted to six
// minutes, printed, and played with the class for twenty seconds.
func TestTheDirectorsMorning(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "MORN")
	base := serve(t, s)
	page := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(t, page, signInDirector(b, base))

	list := filepath.Join(t.TempDir(), "list.csv")
	require.NoError(
		t,
		os.WriteFile(
			list,
			[]byte(
				"Instrument;Surname;Given name\nflutes;Ashdown;Wren\nKazoo;Roe;Caspian\n1st Horn;Grebe;Sunniva\n"+
					";Quill;Barnaby\n",
			),
			0o600,
		),
	)
	do(
		t,
		page,
		browser.Press("Class"),
		browser.Press("Classes and years"),
		browser.Type("Name", "Morning Winds"),
		browser.Press("Begin it"),
		browser.See("Nobody is in the class yet"),
		browser.Press("Import roster"),
		chromedp.SetUploadFiles(`input[aria-label="The list"]`, []string{list}),
		browser.See("4 new"),
		browser.See("2 to mend"),
		browser.See("is not known here"),
		choose(`//li[contains(., "line 3")]//select`, "tuba"),
		choose(`//li[contains(., "line 5")]//select`, "tuba"),
		browser.Press("Import 4 players"),
		browser.See("Tubas"),
		browser.See("Barnaby Quill"),
	)

	do(t, page, browser.Press("Plan"), browser.See("Nothing on this day yet"))
	week := plan.DemoWeek()
	monday := week.OfDay(0, plan.InClass)
	for _, i := range monday {
		do(
			t,
			page,
			browser.Click(
				`//nav[@aria-label="Catalogue of exercises"]//button[@data-add="`+i.Step.Kind.Name+`"]`,
			),
			browser.Shown(`//li[@data-step="`+i.Step.Kind.Name+`"]`),
		)
	}
	do(
		t,
		page,
		saved(),
		// A parameter is changed, and every instrument follows at once.
		browser.Click(
			`//li[@data-step="Long tone, counted"]//button[@aria-pressed]`,
		),
		browser.Shown(`section[aria-label="The step: Long tone, counted"]`),
		browser.Replace("Beats each", "6"),
		browser.See("6 beats each at 80"),
		browser.Shown(`section[aria-label="The step: Long tone, counted"] svg`),
		saved(),
		// Undo and redo.
		browser.Press("Undo"),
		browser.See("8 beats each at 80"),
		browser.Press("Redo"),
		browser.See("6 beats each at 80"),
		saved(),
		// Six minutes.
		browser.Press("Fit to minutes"),
		browser.Replace("Minutes", "6"),
		browser.Press("Fit into these"),
		browser.Shown(`[data-testid="fitted"]`),
		browser.See("of 8 rounds"),
		browser.Press("Take this day"),
		browser.Gone("[role=dialog]"),
		saved(),
	)
	total, err := chromedp.Run(
		page,
		chromedp.Evaluate[string](`document.querySelector('[data-testid="day-total"]').innerText`),
	)
	require.NoError(t, err)
	assert.LessOrEqual(t, total, "6:00")

	// The keyboard moves a step: pick it up, one down, put it down.
	order := `[...document.querySelectorAll('li[data-step]')].map((l) => l.dataset.step).join('|')`
	before, err := chromedp.Run(page, chromedp.Evaluate[string](order))
	require.NoError(t, err)
	do(
		t,
		page,
		chromedp.Focus(
			`//li[@data-step][1]//button[starts-with(@aria-label, "Move")]`,
		),
		chromedp.KeyEvent(" "),
		toldAloud("place 1 of"),
		chromedp.KeyEvent(kb.ArrowDown),
		toldAloud("is over place 2"),
		chromedp.KeyEvent(" "),
		browser.Until(fmt.Sprintf("%s !== %q", order, before)),
		saved(),
	)

	printed, err := chromedp.Run(page, chromedp.Evaluate[string](`(async () => {
		const monday = '`+store.Monday(time.Now()).Format(time.DateOnly)+`'
		const r = await fetch('/api/classes/' + location.pathname.split('/')[2] + '/plans/' + monday +
			'/print.pdf?at=class&day=' + ((new Date().getDay() + 6) % 7))
		return r.status + ' ' + (await r.text()).slice(0, 4)
	})()`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	assert.Equal(t, "200 %PDF", printed)

	do(t, page, browser.Press("Play it with the class"), browser.See("of "))
	do(t, page, browser.See("Breath pattern"), chromedp.KeyEvent(kb.PageDown)) // the set-up check was moved behind it
	// After the count-in the room is doing something.
	do(
		t,
		page,
		browser.Until(`!['', 'Ready'].includes(document.querySelector('[data-testid="now"]')?.innerText ?? '')`),
	)
	do(
		t,
		page,
		chromedp.KeyEvent("p"),
		browser.See("Go on"),
		chromedp.KeyEvent("t"),
		chromedp.KeyEvent("t"),
		chromedp.KeyEvent(kb.PageDown),
		browser.Press("Leave"),
		browser.See("Fit to minutes"),
	)
}

// toldAloud waits until a screen reader is told these words.
func toldAloud(words string) chromedp.Action[chromedp.Void] {
	return browser.Until(fmt.Sprintf(`[...document.querySelectorAll('[aria-live]')]
		.some((l) => l.textContent.includes(%q))`, words))
}

// saved waits until the plan, as the page draws it next, is with the server.
func saved() chromedp.Action[chromedp.Void] {
	return chromedp.Steps(browser.Drawn(), browser.Shown(`[data-saving="saved"]`))
}

// choose picks an option of a select, as a person's choice would.
func choose(path, value string) chromedp.Action[chromedp.Void] {
	return chromedp.Evaluate[chromedp.Void](`(() => {
		const el = document.evaluate(` + "`" + path + "`" + `, document, null,
			XPathResult.FIRST_ORDERED_NODE_TYPE).singleNodeValue
		Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(el, '` + value + `')
		el.dispatchEvent(new Event('change', { bubbles: true }))
	})()`)
}

// Two directors at one week: nothing is lost, and who did what is said.
func TestAClosedLaptopLosesNothing(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "LAP")
	base, down := serveOver(t, s)
	page := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(t, page, signInDirector(b, base))
	do(t, page, browser.Press("Plan"), browser.See("Everything is saved"))
	down.Store(true) // what is changed now is kept on the device
	do(t, page, browser.Click(`//button[@data-add="Swell"]`), browser.See("Not saved yet"))
	down.Store(false)
	// The laptop was closed meanwhile, and is opened again.
	do(t, page, chromedp.Reload(), browser.Shown(`//li[@data-step="Swell"]`), saved())
	_, items, err := s.PlanOf(t.Context(), b.Class.ID, store.Monday(b.Class.Day(time.Now())))
	require.NoError(t, err)
	assert.Len(t, items, 2)
}
