package e2e

import (
	"context"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/e2e/browser"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// mostPresses is what one of a director's frequent tasks may cost, from Today.
const mostPresses = 3

// presses counts what is pressed on the way to something.
type presses struct {
	t    *testing.T
	page context.Context
	n    int
}

func (p *presses) click(selector string) { p.n++; do(p.t, p.page, browser.Click(selector)) }
func (p *presses) press(words string)    { p.n++; do(p.t, p.page, browser.Press(words)) }

// opens reads where a link leads that the browser opens beside the page, and asks for it.
func (p *presses) opens(words string) {
	p.n++
	p.t.Helper()
	href := says[string](p.t, p.page, `[...document.querySelectorAll('a')].find((a) => a.textContent.includes('`+
		words+`')).href`)
	kind, _ := fetched(p.t, p.page, href)
	assert.Equal(p.t, "application/pdf", kind)
}

// The ten tasks that a director does most, each from Today, in three presses at most; what
// is written is not counted (docs/tasks.md has what they cost before).
func TestTenFrequentTasks(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "TASKS")
	other := storetest.NewBand(t, s, "OTHERS")
	require.NoError(t, s.ShareClass(t.Context(), other.Class.ID, b.Director.ID))
	base := serve(t, s)
	handsIn(t, base, "TASKS", "Player who cracks")
	require.NoError(t, s.RaiseFlag(t.Context(), store.Flag{
		ID:       store.NewID(),
		PlayerID: b.Players[1].ID,
		Kind:     store.Question,
		Words:    "Which slide is it?",
		RaisedAt: time.Now().UTC(),
	}))
	page := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(t, page, signInDirector(b, base))
	for _, task := range []struct {
		name string
		does func(p *presses)
	}{
		{"hear the first excerpt", func(p *presses) {
			p.press("Listen")
			do(t, page, browser.See("Accept"))
		}},
		{"comment on a take", func(p *presses) {
			p.click(`a[data-player="Ada Testerly"]`)
			do(t, page, browser.Type("To Ada", "Good air."))
			p.press("Send")
			do(t, page, browser.See("Good air."))
		}},
		{"who has not played", func(p *presses) {
			p.n += 2 // the list is opened, and its line chosen
			do(t, page, choose(`//label[contains(., "With")]//select`, "missing"))
			do(t, page, browser.See("Bo Testerly"), browser.Gone(`a[data-player="Ada Testerly"]`))
		}},
		{"play with the class", func(p *presses) {
			p.press("Play with the class")
			do(t, page, browser.See("Tap the tempo"))
		}},
		{"print the next school day", func(p *presses) {
			do(t, page, browser.See("minutes"))
			p.opens("Print ")
		}},
		{"excuse a sick child", func(p *presses) {
			p.click(`button[aria-label="For Bo Testerly"]`)
			p.press("Excuse today")
			do(t, page, browser.See("Bo Testerly is excused"))
		}},
		{"a new PIN", func(p *presses) {
			p.click(`button[aria-label="For Bo Testerly"]`)
			p.press("New PIN")
			do(t, page, browser.See("The new PIN is"))
		}},
		{"another class", func(p *presses) {
			p.press("TASKS Winds")
			p.click(`//*[@role="menuitem"][contains(., "OTHERS Winds")]`)
			do(t, page, browser.See("OTHERS Winds"))
		}},
		{"a report for home", func(p *presses) {
			p.press("Ada Testerly")
			do(t, page, browser.See("A page for home"))
			p.opens("A page for home")
		}},
		{"answer a question", func(p *presses) {
			do(t, page, browser.See("Which slide is it?"))
			p.press("Answer")
			do(t, page, browser.Type("Your answer", "The third."))
			p.press("Send")
			do(t, page, browser.Gone(`section[aria-label="From the players"]`))
		}},
	} {
		do(t, page, chromedp.Navigate(base+"/class/"+b.Class.ID), browser.Shown(`a[data-player="Ada Testerly"]`))
		p := &presses{t: t, page: page}
		task.does(p)
		assert.LessOrEqual(t, p.n, mostPresses, task.name)
		t.Logf("%s: %d", task.name, p.n)
	}
}
