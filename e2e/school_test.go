package e2e

import (
	"context"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/e2e/browser"
	"earlychorus/server/standin"
	"earlychorus/server/store/storetest"
)

// link is the address in a pass that was just made.
func link(t *testing.T, page context.Context) string {
	t.Helper()
	return says[string](t, page, "document.querySelector('[role=status] code').textContent")
}

// A school's people sign on through its own provider, which is another site: a director, and a
// child; somebody whom no list knows is told so.
func TestSigningOnInABrowser(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	base := serve(t, s)
	b := storetest.NewBand(t, s, "SIGNINGON")
	_, err := s.SQL().Exec("UPDATE player SET external_id = 'P1' WHERE id = $1", b.Players[0].ID)
	require.NoError(t, err)
	provider, err := standin.NewProvider("",
		standin.Person{Name: "The director", Email: b.Director.Email},
		standin.Person{Name: "The child", Email: "ada@signingon.example", RosterID: "P1"},
		standin.Person{Name: "The stranger", Email: "who@signingon.example", RosterID: "P9"})
	require.NoError(t, err)
	accounts := httptest.NewServer(provider)
	t.Cleanup(accounts.Close)
	elsewhere := strings.Replace(accounts.URL, "127.0.0.1", "localhost", 1) // another site for a browser

	page := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(t, page,
		browser.SignInDirector(base, b.Director.Email, storetest.Password),
		browser.Press("Administer SIGNINGON School"),
		browser.Press("Set it up"),
		browser.Type("Its address (issuer)", elsewhere),
		browser.Type("Client id", "band"),
		browser.Type("Client secret", "a secret"),
		browser.Replace("The claim with", "student_id"),
		browser.Press("Ask it, and save"),
		browser.See("People sign in through "+elsewhere),
		browser.Press("Sign out"),
		browser.See(", band."),
	)
	as := func(who string, more ...chromedp.Action[chromedp.Void]) {
		do(t, page, append([]chromedp.Action[chromedp.Void]{
			chromedp.Navigate(base + "/sign-in"),
			browser.Press("Sign in with your school account"),
			browser.Press(who),
		}, more...)...)
	}
	as(
		"The director",
		browser.Shown(`nav[aria-label="Day"]`),
		browser.Press("Sign out"),
		browser.See(", band."),
	)
	as("The child", browser.Shown(`section[aria-label="Your step"]`), browser.See("Ada T."),
		browser.Press("Sign out"), browser.See(", band."))
	as("The stranger", browser.See("no class here has you on its list"))
	as("Nobody", browser.See("did not let you in"))

	// The child plays in a second class of the school, too, and says which.
	second := storetest.NewBand(t, s, "ALSO")
	_, err = s.SQL().Exec("UPDATE class SET school_id = $1 WHERE id = $2", b.Class.SchoolID, second.Class.ID)
	require.NoError(t, err)
	_, err = s.SQL().Exec("UPDATE player SET external_id = 'P1' WHERE id = $1", second.Players[0].ID)
	require.NoError(t, err)
	as("The child", browser.See("Which class now?"), browser.Press("ALSO Winds"),
		browser.Shown(`section[aria-label="Your step"]`), browser.See("ALSO Winds"))
}

// A forgotten password: a letter, its link, a new password, and in.
func TestAForgottenPasswordInABrowser(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	base := serve(t, s)
	b := storetest.NewBand(t, s, "FORGETFUL")
	page := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(t, page,
		chromedp.Navigate(base+"/sign-in"),
		browser.Press("I direct"),
		browser.Press("I forgot my password"),
		browser.Type("The email you sign in with", b.Director.Email),
		browser.Press("Send me a letter"),
		browser.See("a letter is on its way"),
		chromedp.Navigate(base+"/stand-in/mail"),
		browser.See("A new password for Early Chorus"),
		browser.Click(`//a[contains(., "/new-password#")]`),
		browser.See("Choose a new password"),
	)
	assert.NotContains(t, says[string](t, page, "location.href"), "#", "the secret is taken out of the address")
	do(t, page,
		browser.Type("New password", "kelp anvil sofa mint"),
		browser.Press("Change it"),
		browser.See("every device is signed out"),
		browser.SignInDirector(base, b.Director.Email, "kelp anvil sofa mint"),
	)
}

// A substitute's day, and a family's page: each sees what is theirs, changes nothing, and is out
// when the pass ends.
func TestASubstitutesDayAndAFamilysPage(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	base := serve(t, s)
	b := storetest.NewBand(t, s, "PASSES")
	director := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(t, director,
		browser.SignInDirector(base, b.Director.Email, storetest.Password),
		browser.Press("Class"),
		browser.Press("Who comes in"),
		browser.Type("Whose pass it is", "Mr. Teal"),
		browser.Press("Make the pass"),
		browser.See("The pass of Mr. Teal is"),
	)
	substitutes := link(t, director)
	do(t, director,
		choose(`//form[@aria-label="Let somebody in"]//select`, "family"),
		choose(`//select[@id=//label[.="Of"]/@for]`, b.Players[0].ID),
		browser.Type("Whose pass it is", "The Testerly home"),
		browser.Press("Make the pass"),
		browser.See("The pass of The Testerly home is"),
	)
	familys := link(t, director)

	substitute := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(t, substitute,
		chromedp.Navigate(substitutes),
		browser.Press("Come in"),
		browser.See("Ada Testerly"),
	)
	assert.False(t, says[bool](t, substitute, `!!document.querySelector('nav[aria-label="The class"]')`))
	assert.Zero(
		t,
		says[int](t, substitute, `document.querySelectorAll('a[href*="/player/"], a[href*="/take/"]').length`),
	)
	do(t, substitute,
		browser.Press("Play with the class"),
		browser.Press("Start"),
		browser.Click(`//a[.="Leave"]`),
		browser.See("Ada Testerly"),
		chromedp.Navigate(base+"/class/"+b.Class.ID+"/set-up"),
		browser.Shown(`[role=alert]`),
	)

	family := openPage(t, browser.Options{Width: 390, Height: 844})
	do(t, family,
		chromedp.Navigate(familys),
		browser.Press("Come in"),
		browser.See("Ada Testerly"),
		browser.See("Longest note in one breath"),
	)
	assert.NotContains(t, says[string](t, family, "document.body.innerText"), "Bo Testerly")

	do(t, director, browser.Press("End the pass of Mr. Teal"), browser.Gone(`//li[contains(., "Mr. Teal")]`))
	do(t, substitute, chromedp.Navigate(base), browser.See(", band."))
}

// A child that was taken off the list is out at once, wherever it was.
func TestARemovedPlayerIsTurnedAway(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	base := serve(t, s)
	b := storetest.NewBand(t, s, "REMOVED")
	player := openPage(t, browser.Options{Width: 390, Height: 844})
	do(t, player, browser.SignInPlayer(base, "removed", "Ada T.", storetest.PIN))
	director := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(t, director,
		browser.SignInDirector(base, b.Director.Email, storetest.Password),
		browser.Press("Class"),
		browser.Press("Change Ada Testerly"),
		browser.Press("Take off the list"),
		browser.Gone(`//button[@aria-label="Change Ada Testerly"]`),
	)
	do(t, player,
		chromedp.Reload(),
		browser.See(", band."),
		browser.Type("Class code", "removed"),
		browser.Press("Find my class"),
		browser.See("Bo T."),
	)
	assert.NotContains(t, says[string](t, player, "document.body.innerText"), "Ada")
}

// A messy sheet of a school's own, in an old encoding: told once which column is what and what
// its words mean, it is in; the next one is understood by itself.
func TestAMessyListInABrowser(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	base := serve(t, s)
	b := storetest.NewBand(t, s, "MESSY")
	folder := t.TempDir()
	list := func(name, text string) string {
		at := filepath.Join(folder, name)
		require.NoError(t, os.WriteFile(at, []byte(text), 0o600))
		return at
	}
	// Windows-1252, semicolons, two words for one instrument, one child twice.
	first := list("a.csv", "Kind;Tute;Fach\r\nZo\xEB Lee;Gro\xDFes Blech;12\r\n\xC5sa Holm;Gro\xDFes Blech;13\r\n"+
		"Zo\xEB Lee;Klari;14\r\n")
	second := list("b.csv", "Fach;Kind;Tute\r\n15;Ida Moss;Klari\r\n")
	page := openPage(t, browser.Options{Width: 1280, Height: 1000})
	do(t, page,
		browser.SignInDirector(base, b.Director.Email, storetest.Password),
		browser.Press("Class"),
		browser.Press("Import roster"),
		chromedp.SetUploadFiles(`input[aria-label="The list"]`, []string{first}),
		browser.See("Which column has the names?"),
		choose(`//select[@id=//label[starts-with(., "Kind:")]/@for]`, "name"),
		browser.See("Zoë Lee"),
		browser.See("Which column has the instruments?"),
		choose(`//select[@id=//label[starts-with(., "Tute:")]/@for]`, "instrument"),
		browser.See("3 to mend"),
		browser.See("One more has this word"),
		choose(`(//select[@id=//label[.="Instrument"]/@for])[1]`, "tuba"),
		browser.See("1 to mend"),
		choose(`(//select[@id=//label[.="Instrument"]/@for])[1]`, "clarinet"),
		browser.Replace("Last name", "Lee the younger"),
		chromedp.Blur(`//input[@id=//label[.="Last name"]/@for]`),
		browser.Press("Import 3 players"),
		browser.Gone("[role=dialog]"), // where the names stand too
		browser.See("Åsa Holm"),
		browser.See("Zoë Lee the younger"),
		browser.Press("Import roster"),
		chromedp.SetUploadFiles(`input[aria-label="The list"]`, []string{second}),
		browser.See("1 new, 0 changed, 0 as they are."),
		browser.Press("Import 1 players"),
		browser.See("Ida Moss"),
	)
	plays := map[string]string{}
	// Her name stands in the list before she is taken in.
	require.Eventually(t, func() bool {
		players, err := s.Players(t.Context(), b.Class.ID)
		require.NoError(t, err)
		for _, p := range players {
			plays[p.FullName()] = p.Instrument
		}
		return plays["Ida Moss"] != ""
	}, longestStep, 50*time.Millisecond)
	assert.Equal(t, "tuba", plays["Zoë Lee"])
	assert.Equal(t, "clarinet", plays["Ida Moss"])
}

// A home that did not agree: the child plays and is told how it went, and nothing arrives.
func TestPracticeWithoutConsent(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	base := serve(t, s)
	b := storetest.NewBand(t, s, "UNKEPT")
	director := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(t, director,
		browser.SignInDirector(base, b.Director.Email, storetest.Password),
		browser.Press("Class"),
		browser.Press("Consent"),
		browser.See("What homes agreed to"),
		choose(`//select[@aria-label="Ada Testerly, Recording"]`, "no"),
		browser.Type("Who said so", "A letter of 3 September"),
		browser.Press("Write 1 answer down"),
		browser.See("A letter of 3 September"),
	)
	player := openPage(t, browser.Options{Width: 390, Height: 844, Microphone: fakeMicrophone(t)})
	do(t, player,
		browser.SignInPlayer(base, "unkept", "Ada T.", storetest.PIN),
		browser.Press("Record"),
		pastTheCheck,
		browser.Shown(`[data-verdict]`),
		browser.See("It is not kept"),
	)
	var takes int
	require.NoError(t, s.SQL().QueryRow(
		"SELECT count(*) FROM take t JOIN player p ON p.id = t.player_id WHERE p.class_id = $1", b.Class.ID).
		Scan(&takes))
	assert.Zero(t, takes)
}
