package e2e

import (
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/e2e/browser"
	"earlychorus/server/store/storetest"
)

// From an empty database to a child's first recording, through the screens alone: the code
// that the program prints, a school, a class, a player, a week, a PIN, a take.
func TestFromAnEmptyDatabaseToAFirstTake(t *testing.T) {
	t.Parallel()
	server := begin(t, nil, "serve", "--no-demo", "--port", "18160", "--data", t.TempDir(),
		"--database", storetest.DSN(t))
	_, code, found := strings.Cut(server.says("set yours up with this code"), "this code: ")
	require.True(t, found)

	page := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(
		t,
		page,
		chromedp.Navigate(server.base),
		browser.See("Set up your school"),
		browser.Type("Code", strings.ToLower(strings.ReplaceAll(code, "-", " "))),
		browser.Type("Name of the school", "Tern Rock School"),
		browser.Type("Your name", "Isolde Marsh"),
		browser.Type("Your email", "isolde@tern.example"),
		browser.Type("Password", "passwordpassword"),
		browser.Press("Begin"),
		browser.See("easily guessed"),
		browser.Replace("Password", "kelp anvil sofa mint"),
		browser.Press("Begin"),
		browser.See("Begin your first class"),
		browser.Type("Name of the class", "First Winds"),
		browser.Press("Begin it"),
		browser.See("First steps"),
		browser.Press("Add a player"),
		browser.Type("First name", "Wren"),
		browser.Type("Last name", "Ashdown"),
		choose(`//select[@id=//label[.="Instrument"]/@for]`, "clarinet"),
		browser.Press("Save"),
		browser.See("Wren Ashdown"),
		browser.Press("The first week"),
		browser.See("Nothing on this day yet"),
		browser.Press("Copy from"),
		browser.Click(`//*[@role="menuitem"][contains(., "First weeks: air")]`),
		browser.See("added Set-up check, Breath pattern"),      // and saved
		browser.Click(`button[data-add="Long tone, counted"]`), // for today, be it a Sunday
		browser.Shown(`//li[@data-step="Long tone, counted"]`),
		browser.Press("Take F away"),
		browser.Replace("Beats each", "3"),
		saved(),
		browser.Press("Class"),
		browser.Press("Try it as a player"),
		browser.See("nothing of it is kept"),
		chromedp.Evaluate[chromedp.Void](toTheLastLongTone),
		browser.See("Long tones teach your air"),
		browser.Click(`//summary[contains(., "Sounds and microphone")]`),
		browser.Choose("Who plays", "Steady player"),
		browser.Press("Record"),
		browser.Shown(`[data-verdict="clean"]`),
		browser.See("It is not kept"),
		browser.Press("Back to the class"),
		browser.Press("Sign-in of Wren Ashdown"),
		browser.Press("New PIN"),
		browser.See("The new PIN is"),
	)
	pin := says[string](t, page, "document.querySelector('[role=status] strong').textContent")
	classCode := says[string](t, page, "document.body.innerText.match(/class code ([A-Z-]+)/)[1]")

	player := openPage(t, browser.Options{Width: 390, Height: 844, Microphone: fakeMicrophone(t)})
	do(
		t,
		player,
		browser.SignInPlayer(server.base, classCode, "Wren A.", pin),
		browser.See("Looking after your instrument"),
		chromedp.Evaluate[chromedp.Void](toTheLastLongTone),
		browser.See("Long tones teach your air"),
		browser.Press("Record"),
		pastTheCheck,
		browser.Shown(`[data-verdict]`),
		safe(),
	)
	do(t, page, browser.Press("Close"), browser.Press("Today"), browser.See("Wren Ashdown"))
}

// toTheLastLongTone opens the step that was added: on some days of the first week there is a
// long tone before it.
const toTheLastLongTone = `[...document.querySelectorAll('[data-step]')]
	.findLast((b) => b.textContent.includes('Long tone')).click()`

// Without a screen: a school and its people by commands, a forgotten password, and somebody
// who leaves.
func TestASchoolOnTheCommandLine(t *testing.T) {
	t.Parallel()
	on := []string{"--database", storetest.DSN(t), "--data", t.TempDir()}
	run := func(args ...string) (string, error) { return command(t, nil, append(args, on...)...) }
	said, err := run("school", "create", "Tern Rock School")
	require.Error(t, err)
	assert.Contains(t, said, "--time-zone")
	said, err = run("school", "create", "Tern Rock School", "--time-zone", "Atlantic/Azores")
	require.NoError(t, err, said)
	said, err = run("director", "add", "Isolde Marsh", "Isolde@Tern.example", "--administrator")
	require.NoError(t, err, said)
	_, word, found := strings.Cut(said, "shown this once: ")
	require.True(t, found, said)
	word, _, _ = strings.Cut(word, "\n")
	said, err = run("director", "add", "Isolde Marsh", "isolde@tern.example")
	require.Error(t, err)
	assert.Contains(t, said, "has an account already")
	said, err = run("director", "list")
	require.NoError(t, err)
	assert.Regexp(t, `Isolde Marsh +isolde@tern.example +administrator`, said)

	server := begin(t, nil, append([]string{"serve", "--no-demo", "--port", "18170"}, on...)...)
	page := openPage(t, browser.Options{Width: 1280, Height: 800})
	signIn := func(word string) {
		do(t, page,
			chromedp.Navigate(server.base+"/sign-in"),
			browser.Press("I direct"),
			browser.Type("Email", "isolde@tern.example"),
			browser.Type("Password", word),
			browser.Click("form button[type=submit]"),
			browser.See("Begin your first class"),
		)
	}
	signIn(word)

	said, err = run("director", "reset", "isolde@tern.example")
	require.NoError(t, err, said)
	_, word, _ = strings.Cut(said, "shown this once: ")
	word, _, _ = strings.Cut(word, "\n")
	signIn(word)
	// Their page of the school: a colleague is added, and what was done is read.
	do(t, page,
		browser.Press("Administer Tern Rock School"),
		browser.See("isolde@tern.example"),
		browser.Type("Name", "Tobin Reef"),
		browser.Type("Email", "tobin@tern.example"),
		browser.Press("Add a director"),
		browser.See("The password of Tobin Reef is"),
		browser.See("added somebody to the school"),
		browser.See("was given a new password on the command line"),
	)
	// Somebody always administers the school.
	said, err = run("director", "remove", "isolde@tern.example")
	require.Error(t, err)
	assert.Contains(t, said, "Somebody has to administer the school")
	said, err = run("director", "administer", "tobin@tern.example")
	require.NoError(t, err, said)
	assert.Contains(t, said, "Tobin Reef administers Tern Rock School")
	said, err = run("director", "remove", "isolde@tern.example")
	require.NoError(t, err, said)
	said, err = run("director", "administer", "tobin@tern.example", "--end")
	require.Error(t, err, said)
	said, err = run("school", "list")
	require.NoError(t, err)
	assert.Contains(t, said, "Tern Rock School (Atlantic/Azores)")
	assert.NotContains(t, said, "Isolde")
}

// The demo's passwords are published: it is not shown to others than this machine by
// mistake.
func TestTheDemoStaysOnThisMachine(t *testing.T) {
	t.Parallel()
	data := filepath.Join(t.TempDir(), "data")
	for _, beyond := range [][]string{{"--host", "0.0.0.0"}, {"--public-url", "https://band.example"}} {
		args := append([]string{"serve", "--database", storetest.DSN(t), "--data", data, "--port", "18180"}, beyond...)
		said, err := command(t, nil, args...)
		require.Error(t, err, beyond)
		assert.Contains(t, said, "--demo-anywhere")
	}
	said, err := command(t, nil, "serve", "--database", storetest.DSN(t), "--data", data, "--tls-cert", "nothing.pem")
	require.Error(t, err)
	assert.Contains(t, said, "give both, or neither")
}
