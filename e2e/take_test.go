package e2e

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/base64"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/e2e/browser"
	"earlychorus/server/store/storetest"
)

// says evaluates an expression in the page, which may be a promise.
func says[T any](t *testing.T, page context.Context, expression string) T {
	t.Helper()
	got, err := chromedp.Run(page, chromedp.Evaluate[T]("(async () => "+expression+")()", chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	return got
}

// fetched downloads an address as the page's visitor.
func fetched(t *testing.T, page context.Context, address string) (kind string, body []byte) {
	t.Helper()
	got := says[[]string](t, page, fmt.Sprintf(`{
		const r = await fetch(%q)
		const bytes = new Uint8Array(await r.arrayBuffer())
		let text = ''
		for (const b of bytes) text += String.fromCharCode(b)
		return [String(r.status), r.headers.get('Content-Type'), btoa(text)]
	}`, address))
	require.Equal(t, "200", got[0], address)
	body, err := base64.StdEncoding.DecodeString(got[2])
	require.NoError(t, err)
	return got[1], body
}

// A take is looked into: what happened is gone to, a stretch is looped, the
// spectrogram is drawn, another take lies beside it, a comment is pinned, and all
// of it goes out in open formats.
func TestATakeIsLookedInto(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "LOOK")
	base := serve(t, s)
	player := openPage(t, browser.Options{Width: 390, Height: 844})
	do(t, player, signInPlayer(base, "LOOK", "Ada T."))
	do(
		t,
		player,
		browser.Press("No microphone?"),
		browser.Press("Steady player"),
		browser.Shown(`[data-verdict="clean"]`),
		browser.Press("Again"),
		browser.Press("No microphone?"),
		browser.Press("Player who cracks"),
		browser.Shown(`[data-verdict="not-yet"]`),
	)

	director := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(t, director, signInDirector(b, base))
	do(
		t,
		director,
		browser.Shown(`a[data-player="Ada Testerly"] [data-result="not-yet"]`),
		browser.Click(`a[data-player="Ada Testerly"]`),
		browser.See("Measures"),
		browser.See("decided"),
	)
	loaded := `await new Promise((done) => { const a = document.querySelector('audio');
		if (a.readyState > 0) done(); else a.onloadedmetadata = done })`
	says[any](t, director, "{"+loaded+"}")

	says[any](t, director, `{ window.sought = new Promise((ok) => document.querySelector('audio')
		.addEventListener('seeked', (e) => ok(e.target.currentTime), { once: true })) }`)
	do(t, director, browser.Click(`//button[contains(., "Play Break at")]`))
	breakAt := says[float64](
		t,
		director,
		`Number([...document.querySelectorAll('button')].find((b) => b.textContent.startsWith('Play Break'))
			.dataset.at)`,
	)
	at := says[float64](t, director, `window.sought`)
	assert.InDelta(t, breakAt-0.7, at, 0.6, "it plays from just before the break")

	says[any](t, director, `{const a = document.querySelector('audio'); a.pause(); a.currentTime = 1}`)
	do(t, director, browser.Press("Loop from here"))
	says[any](t, director, `{document.querySelector('audio').currentTime = 1.6}`)
	do(t, director, browser.Press("to here"), browser.See("looping 0.6 s"))
	says[any](t, director, `{const a = document.querySelector('audio'); a.currentTime = 1.5; await a.play()}`)
	at = says[float64](t, director, `await new Promise((back) => {
		const a = document.querySelector('audio')
		let before = a.currentTime
		a.ontimeupdate = () => { if (a.currentTime < before) back(a.currentTime); before = a.currentTime }
	})`)
	assert.True(t, at >= 0.9 && at <= 1.6, "it came back to where the loop begins, at %v", at)
	do(t, director, browser.Press("No loop"))
	says[any](t, director, `{document.querySelector('audio').pause()}`)

	do(t, director, browser.Press("Spectrogram"), browser.Shown(`canvas[aria-label^="Spectrogram"]`))
	ink := says[float64](t, director, `{
		const c = document.querySelector('canvas[aria-label^="Spectrogram"]')
		for (let n = 0; n < 50 && c.height < 20; n++) await new Promise((r) => setTimeout(r, 100))
		const data = c.getContext('2d').getImageData(0, 0, c.width, c.height).data
		let inked = 0
		for (let n = 3; n < data.length; n += 4) if (data[n] > 60) inked++
		return inked / (data.length / 4)
	}`)
	assert.Greater(t, ink, 0.002, "harmonics are drawn")
	assert.Less(t, ink, 0.5, "and the rest is paper")

	do(
		t,
		director,
		browser.Press("the take before"),
		browser.Shown(`//figcaption[contains(., "the take before")]`),
	)

	says[any](t, director, `{document.querySelector('audio').currentTime = 1.2}`)
	do(
		t,
		director,
		chromedp.SendKeys("#comment", "Here it breaks."),
		browser.Click(`//label[contains(., "pin it to")]/input`),
		browser.Press("Send the comment"),
		browser.See("Here it breaks."),
	)
	do(t, player, chromedp.Reload(), browser.See("Here it breaks."))

	take := says[string](t, director, `location.pathname.split('/').at(-1)`)
	for file, begins := range map[string]string{
		"audio.wav": "RIFF", "audio.flac": "fLaC", "contour.csv": "time_s,f0_hz", "measures.json": "{",
	} {
		_, body := fetched(t, director, "/api/takes/"+take+"/"+file)
		assert.True(t, strings.HasPrefix(string(body), begins), file)
	}
	kind, body := fetched(t, director, "/api/classes/"+b.Class.ID+"/everything.zip?sounds=true")
	assert.Equal(t, "application/zip", kind)
	files, err := zip.NewReader(bytes.NewReader(body), int64(len(body)))
	require.NoError(t, err)
	names := []string{}
	for _, f := range files.File {
		names = append(names, f.Name)
	}
	assert.Contains(t, names, "takes/"+take+".flac")
	assert.Contains(t, names, "csv/comments.csv")
}

// A voice note is spoken, sent, undone and spoken again; the player hears it.
func TestAVoiceNoteIsSpokenAndHeard(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "VOICE")
	base := serve(t, s)
	player := openPage(t, browser.Options{Width: 390, Height: 844})
	do(t, player, signInPlayer(base, "VOICE", "Ada T."))
	do(
		t,
		player,
		browser.Press("No microphone?"),
		browser.Press("Player who cracks"),
		browser.Shown(`[data-verdict="not-yet"]`),
	)

	director := openPage(t, browser.Options{Width: 1280, Height: 900, Microphone: browser.Beeps})
	do(t, director, signInDirector(b, base))
	do(
		t,
		director,
		browser.Press("Listen"),
		browser.See("Play again"),
		chromedp.KeyEvent("v"),
		browser.See("Speak: 2 of 60 s"),
	)
	playing := says[bool](t, director, `!document.querySelector('audio').paused`)
	assert.False(t, playing, "the excerpt is not spoken over")
	do(t, director, browser.Press("Send it"), browser.See("A voice note of"), browser.See("Undo the voice note"),
		chromedp.KeyEvent("u"), browser.Gone(`//ul[@aria-label="Said"]/li`))
	do(
		t,
		director,
		chromedp.KeyEvent("v"),
		browser.See("Speak: 1 of 60 s"),
		chromedp.KeyEvent(kb.Escape),
		browser.See("Praise"),
	)
	do(
		t,
		director,
		chromedp.KeyEvent("v"),
		browser.See("Speak: 2 of 60 s"),
		browser.Press("Send it"),
		browser.See("A voice note of"),
	)

	do(
		t,
		player,
		chromedp.Reload(),
		browser.See("From your director"),
		browser.Shown(`[role=group][aria-label="Voice note"] button[aria-label="Play"]`),
	)
	source := says[string](
		t,
		player,
		`document.querySelector('[role=group][aria-label="Voice note"] audio').getAttribute('src')`,
	)
	_, sound := fetched(t, player, source)
	assert.Equal(t, "RIFF", string(sound[:4]))
	assert.Greater(t, len(sound), 44+48000, "a second of sound and more")
}

// A section looks back as long as is asked, a player's page tells the way up a
// ladder, and somebody can be excused from one step alone.
func TestLookingBack(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "BACK")
	step := b.AddStep(
		t,
		s,
		exercise.New(exercise.KindLadder, map[string]any{"ladder": "clarinet-break", "tempo_bpm": 120}),
		"clarinet",
	)
	base := serve(t, s)
	player := openPage(t, browser.Options{Width: 390, Height: 844})
	do(t, player, signInPlayer(base, "BACK", "Ada T."))
	do(
		t,
		player,
		browser.Click(`//button[@data-step][contains(., "Ladder")]`),
		browser.See("clean in a row pass this rung"),
	)
	for range 3 {
		do(
			t,
			player,
			browser.Press("No microphone?"),
			browser.Press("Steady player"),
			browser.Shown(`[data-verdict="clean"]`),
			browser.Press("Again"),
		)
	}
	do(t, player, browser.See("rung 2 of 15"))

	director := openPage(t, browser.Options{Width: 1280, Height: 900})
	do(t, director, signInDirector(b, base))
	do(
		t,
		director,
		browser.Click(`//a[contains(@href, "/section/") and contains(., "Clarinets")]`),
		browser.See("Comes out"),
		browser.See("low C to low G, and stay"),
	)
	do(
		t,
		director,
		choose(`//label[contains(., "the last")]/select`, "370"),
		browser.Shown(`tr[data-note="G3"]`),
	)
	assert.Equal(t, "?days=370", says[string](t, director, "location.search"))
	do(t, director, browser.Press("Ada Testerly"), browser.See("On rung 2 of 15"), browser.See("1 rung passed"),
		browser.Shown(`svg[aria-label*="up to rung 2"]`))

	do(t, director, browser.Press("Class"), browser.Press("Excused"), browser.See("Whoever is ill"))
	require.Eventually(t, func() bool {
		return says[bool](
			t,
			director,
			`[...document.querySelectorAll('option')].some((o) => o.textContent === '2. Ladder')`,
		)
	}, longestStep, 100*time.Millisecond)
	do(
		t,
		director,
		choose(`//label[.="Of"]/following-sibling::select`, step.ID),
		browser.Click(`//button[.="Excuse"]`),
		browser.See(", of 2. Ladder"),
	)
	var of string
	require.NoError(t, s.SQL().QueryRow("SELECT step_id FROM exception").Scan(&of))
	assert.Equal(t, step.ID, of)
}
