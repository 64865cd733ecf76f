package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"

	"earlychorus/e2e/browser"
	"earlychorus/server/store/storetest"
)

// A director gives the week's new note, makes a step a test and plays a model of it; the
// player meets all three, and the test's page says who has not handed it in.
func TestANewNoteATestAndAModelAreAssigned(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "ASSIGN")
	base := serve(t, s)
	page := openPage(t, browser.Options{Width: 1280, Height: 900, Microphone: fakeMicrophone(t)})
	do(t, page,
		signInDirector(b, base),
		browser.Press("Plan"),
		browser.Shown(`section[aria-label="The step: Long tone, counted"]`),
		// The new note, with its own steps.
		browser.Press("Notes known"),
		browser.Press("Give each section the note"),
		browser.Press("Save the notes"),
		browser.Shown(`li[data-step="New note"]`),
		saved(),
		// The model.
		browser.Click(`//li[@data-step="Long tone, counted"]//button[@aria-pressed]`),
		browser.Press("Play it for them"),
		browser.Press("Record a model"),
		browser.Until(`/Play: ([2-9]|\d\d) of 120 s/.test(document.body.innerText)`),
		browser.Press("Stop and keep it"),
		browser.See("Models of your own: 1"),
		// The test.
		browser.Click(`//label[contains(., "A test, handed in by a day")]/input`),
		browser.See("Hard notes are held against nobody"),
		browser.Replace("Takes that count", "2"),
		saved(),
	)
	player := openPage(t, browser.Options{Width: 390, Height: 844, Microphone: browser.Beeps})
	do(t, player,
		signInPlayer(base, "ASSIGN", "Ada T."),
		browser.Click(`//button[@data-step][contains(., "Long tone")]`),
		browser.See("You have 2 takes left. The best one counts."),
		browser.Click(`//label[contains(., "very slow")]`),
		browser.Press("Hear your director play it"),
		browser.See("Stop the sound"),
	)
	speed := says[map[string]any](t, player, `(({ playbackRate, preservesPitch }) =>
		({ playbackRate, preservesPitch }))(document.querySelector('fieldset audio'))`)
	assert.Equal(t, map[string]any{"playbackRate": 0.5, "preservesPitch": true}, speed)
	do(t, player,
		browser.Click(`//button[@data-step][contains(., "New note")]`),
		browser.See("is new. Hear it, finger it, then play it."),
		browser.See("New this week."),
		browser.Click(`//button[@data-step][contains(., "Long tone")]`),
		browser.Press("No microphone?"),
		browser.Press("Steady player"),
		browser.Shown(`[data-verdict="clean"]`),
		safe(),
	)
	do(t, page,
		browser.Press("Results"),
		browser.See("1 of 2 handed in"),
		browser.Shown(`tr[data-player="Ada Testerly"] a`),
		browser.Choose("Show", "who has not handed in"),
		browser.See("not handed in"),
		browser.Gone(`tr[data-player="Ada Testerly"]`),
		chromedp.Navigate(base+"/class/"+b.Class.ID),
		browser.See("Test: Long tone, counted"),
	)
}
