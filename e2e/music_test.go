package e2e

import (
	"bytes"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio/flac"
	"earlychorus/core/audio/wav"
	"earlychorus/e2e/browser"
	"earlychorus/server/store/storetest"
)

// A director picks written notes for one section, keeps the step under a name of their
// own and looks a fingering up; the player plays from the book of fingerings, hands a FLAC
// file in, and says that the instrument was looked after.
func TestTheMusicOfOneSection(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "TIDE")
	base := serve(t, s)
	page := openPage(t, browser.Options{Width: 1280, Height: 1000})
	do(t, page, signInDirector(b, base), browser.Press("Plan"), saved(),
		browser.Click(`button[data-add="Long tone, counted"]`),
		browser.See("Or written notes, for one section"),
		browser.Type("Or written notes, for one section", "E3 H9"),
		browser.Click(`//h2[.="Long tone, counted"]`),
		browser.See("name up to 6 written notes with their octaves"),
		browser.Replace("Or written notes, for one section", "E3 f#3"),
		browser.Click(`//h2[.="Long tone, counted"]`),
		browser.See("T 123 | 123 + E (left)"),
		browser.See("T 123 | 123 + F♯ (left)"),
		browser.Press("Keep it as an exercise of your own"),
		browser.Type("Your name for it", "Low tide"),
		browser.Press("Keep under this name"),
		browser.See("Kept: it stands first in the catalogue"),
		browser.See("You call it Low tide"),
		saved(),
		browser.Shown(`button[data-add="Low tide"]`),
		browser.Press("All fingerings, B♭ clarinet"),
		browser.See("Fingerings, B♭ clarinet"),
		browser.Press("All"),
		browser.See("T 12 cross E♭"),
		browser.See("right little"),
	)

	player := openPage(t, browser.Options{Width: 390, Height: 844})
	do(t, player, signInPlayer(base, "TIDE", "Ada T."),
		browser.Click(`button[data-step="2"]`),
		browser.See("Low tide"),
		browser.Click(`button[data-step="1"]`),
		browser.Press("Fingerings"),
		browser.See("Fingerings, B♭ clarinet"),
		browser.Press("Back to your practice"),
		browser.Press("No microphone?"),
	)
	sound, err := wav.Decode(bytes.NewReader(clarinetTake(t)), 0)
	require.NoError(t, err)
	packed, err := flac.Encode(sound)
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "take.flac")
	require.NoError(t, os.WriteFile(file, packed, 0o600))
	do(t, player,
		chromedp.SetUploadFiles(`#recording-file`, []string{file}),
		browser.Shown(`[data-verdict]`),
		safe(),
		browser.Press("Again"),
		browser.See("Looking after your instrument"),
		browser.Press("Every week"),
		browser.Press("I have done it"),
		browser.See("done today"),
		safe(),
	)
	require.Eventually(t, func() bool {
		latest, err := s.LatestCare(t.Context(), []string{b.Players[0].ID})
		return err == nil && len(latest[b.Players[0].ID]) == 1
	}, longestStep, 100*time.Millisecond, "the word goes up by itself")
}
