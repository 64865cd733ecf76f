package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/e2e/browser"
	"earlychorus/server/store/storetest"
)

// A child who forgot the PIN gets one on the director's screen, and is in with it; a
// colleague is asked to direct the class too, accepts, and sees it.
func TestPeopleComeAndGo(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	base := serve(t, s)
	b, other := storetest.NewBand(t, s, "COMING"), storetest.NewBand(t, s, "GOING")
	director := openPage(t, browser.Options{Width: 1280, Height: 800})
	do(t, director,
		browser.SignInDirector(base, b.Director.Email, storetest.Password),
		browser.Press("Class"),
		browser.Press("Sign-in of Ada Testerly"),
		browser.Press("New PIN"),
		browser.See("The new PIN is"),
	)
	shown := chromedp.Evaluate[string]("document.querySelector('[role=status] strong').textContent")
	pin, err := chromedp.Run(director, shown)
	require.NoError(t, err)
	assert.Regexp(t, `^\d{6}$`, pin)
	player := openPage(t, browser.Options{Width: 390, Height: 844})
	do(t, player, browser.SignInPlayer(base, "coming", "Ada T.", pin), browser.See("Long tone"))

	do(t, director,
		browser.Press("Close"),
		browser.Press("Who comes in"),
		browser.Type("Ask a colleague, by email", other.Director.Email),
		browser.Press("Ask"),
		browser.See(other.Director.Email+", asked"),
	)
	colleague := openPage(t, browser.Options{Width: 1280, Height: 800})
	do(t, colleague,
		browser.SignInDirector(base, other.Director.Email, storetest.Password),
		browser.See("asks you to direct COMING Winds at COMING School."),
		browser.Press("Accept"),
		browser.Press("Class"),
		browser.Press("GOING Winds: another class"),
		browser.Click(`//*[@role="menuitem"][contains(., "COMING Winds")]`),
		browser.Press("Who comes in"),
		browser.See("Director of GOING"),
		browser.Press("My sign-in"),
		browser.See("this one"),
	)
}
