package print_test

import (
	"bytes"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"testing"
	"time"

	"github.com/makiuchi-d/gozxing"
	"github.com/makiuchi-d/gozxing/qrcode"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/notation"
	"earlychorus/core/plan"
	"earlychorus/server/print"
)

func sheets(t testing.TB, day plan.Day) (out []notation.Sheet) {
	t.Helper()
	for _, i := range instrument.All() {
		s, err := notation.SheetOf(
			plan.DemoWeek(),
			day,
			plan.InClass,
			exercise.Player{Instrument: i, Stage: 2},
			exercise.StandardConventions(),
		)
		require.NoError(t, err)
		out = append(out, s)
	}
	return out
}

var pageMark = regexp.MustCompile(`/Type /Page\b[^s]`)

// One page a section, for every instrument, on every day of the demo's week.
func TestOnePageASection(t *testing.T) {
	for day := range plan.Day(5) {
		var out bytes.Buffer
		require.NoError(t, print.Sheets(&out, print.A4, "The week", print.FingersDrawn, sheets(t, day)))
		assert.Equal(t, "%PDF", out.String()[:4])
		assert.Len(t, pageMark.FindAll(out.Bytes(), -1), len(instrument.All()), "day %d", day)
	}
}

// What is printed can be read by another reader: Debian's poppler.
func TestTheTextIsThere(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, print.Sheets(&out, print.A4, "The week", print.FingersDrawn, sheets(t, 0)[2:3]))
	name := filepath.Join(t.TempDir(), "a.pdf")
	require.NoError(t, os.WriteFile(name, out.Bytes(), 0o600))
	text, err := exec.Command("pdftotext", "-layout", name, "-").Output()
	require.NoError(t, err)
	assert.Contains(t, string(text), "Long tone, counted")
	assert.Contains(t, string(text), "Hold B♭, then F for 8 beats each. Rest in between.", "in the notes that are read")
	assert.NotContains(t, string(text), "…")
	assert.Contains(t, string(text), "♩ = 60")
}

func TestCards(t *testing.T) {
	var out bytes.Buffer
	cards := make([]print.Card, 23)
	for n := range cards {
		cards[n] = print.Card{Name: "Zoë Quillmarsh-Longname of the Causeway", Instrument: "Flute", PIN: "1234"}
	}
	require.NoError(t, print.Cards(&out, print.A4, "Ferry Bell Winds", "FERRY-BELL", "http://127.0.0.1:8080", cards))
	assert.Len(t, pageMark.FindAll(out.Bytes(), -1), 3)
	out.Reset()
	require.NoError(t, print.Sheets(&out, print.A4, "Nothing", print.FingersDrawn, nil))
	assert.NotZero(t, out.Len())
}

// What a player types from a card stands on it whole, beside the square and not on it: read
// from the paper with poppler.
func TestACardIsReadable(t *testing.T) {
	const point = 25.4 / 72
	name := filepath.Join(t.TempDir(), "cards.pdf")
	var out bytes.Buffer
	card := print.Card{
		Name:       "Maximiliana Featherstone-Quillmarsh of the Causeway",
		Instrument: "Bass clarinet",
		PIN:        "48211234",
	}
	require.NoError(t, print.Cards(&out, print.A4, "Ferry Bell Winds, beginners of the fifth year at the causeway",
		"HARBOUR-THISTLE-COPPER-MEADOWS", "https://band.island-school.example.org:8443", []print.Card{card, card}))
	require.NoError(t, os.WriteFile(name, out.Bytes(), 0o600))
	boxes, err := exec.Command("pdftotext", "-bbox", name, "-").Output()
	require.NoError(t, err)
	assert.Contains(t, string(boxes), ">HARBOUR-THISTLE-COPPER-MEADOWS<")
	assert.Contains(t, string(boxes), ">https://band.island-school.example.org:8443<")
	box := regexp.MustCompile(`xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="[\d.]+">([^<]+)<`)
	words := box.FindAllStringSubmatch(string(boxes), -1)
	require.NotEmpty(t, words)
	for _, w := range words {
		var at [3]float64 // left, top, right
		for n := range at {
			at[n], _ = strconv.ParseFloat(w[n+1], 64)
			at[n] *= point
		}
		edge := 14. + 91 // of the first card
		if at[0] > edge {
			edge += 91
		}
		if at[1] < 14+6+22 {
			edge -= 6 + 22 // the square stands beside
		}
		assert.Less(t, at[2], edge, w[4])
	}
}

// A telephone reads the square from the paper: drawn by poppler, read by a reader that is
// not ours.
func TestTheSquareIsRead(t *testing.T) {
	name := filepath.Join(t.TempDir(), "cards")
	var out bytes.Buffer
	require.NoError(t, print.Cards(&out, print.A4, "Ferry Bell Winds", "HARBOUR-THISTLE-COPPER-MEADOWS",
		"https://band.example.org", []print.Card{{Name: "Wren Ashdown", Instrument: "Flute", PIN: "1234"}}))
	require.NoError(t, os.WriteFile(name+".pdf", out.Bytes(), 0o600))
	require.NoError(t, exec.Command("pdftoppm", "-png", "-singlefile", "-r", "150", name+".pdf", name).Run())
	file, err := os.Open(name + ".png")
	require.NoError(t, err)
	defer file.Close() //nolint:errcheck // read only
	picture, err := png.Decode(file)
	require.NoError(t, err)
	bits, err := gozxing.NewBinaryBitmapFromImage(picture)
	require.NoError(t, err)
	read, err := qrcode.NewQRCodeReader().Decode(bits, nil)
	require.NoError(t, err)
	assert.Equal(t, "https://band.example.org/sign-in#HARBOUR-THISTLE-COPPER-MEADOWS", read.GetText())
}

// BenchmarkSheets is a day's print for sixteen sections.
func BenchmarkSheets(b *testing.B) {
	all := sheets(b, 0)
	for b.Loop() {
		var out bytes.Buffer
		if err := print.Sheets(&out, print.A4, "The week", print.FingersDrawn, all); err != nil {
			b.Fatal(err)
		}
	}
}

// The page for home is one page whatever is on it, and can be read back.
func TestThePageForHome(t *testing.T) {
	r := print.Report{
		School:     "Quillmarsh Island School",
		Class:      "Ferry Bell Winds",
		Player:     "Maro Quenby",
		Instrument: "B♭ clarinet",
		Span:       "5 October to 26 November",
		Played:     "Practiced on 31 of these days.",
		Well:       []string{"Maro held one note for 11 seconds. 🎷"},
		Try:        "Take a bigger breath first.",
		Help:       []string{"Ask to hear the long note of the day."},
	}
	for _, title := range []string{"Longest hold", "In tune (average distance)", "Waver"} {
		l := print.ReportLine{Title: title, Says: "No clear change yet, over 31 days.", Unit: "s"}
		for n := range 10 {
			monday := time.Date(2026, 10, 5+7*(n+n/5), 0, 0, 0, 0, time.UTC) // a week off in between
			l.Points = append(l.Points, print.ReportPoint{Monday: monday, Value: float64(n)})
		}
		r.Lines = append(r.Lines, l)
	}
	for range 20 {
		r.Ladders = append(r.Ladders, "Over the clarinet's break: rung 3 of 15, G3 alone")
		r.Comments = append(r.Comments, "“Press the third finger flat and try again.”")
	}
	var out bytes.Buffer
	require.NoError(t, print.HomeReport(&out, print.A4, r))
	assert.Len(t, pageMark.FindAll(out.Bytes(), -1), 1)
	file := filepath.Join(t.TempDir(), "report.pdf")
	require.NoError(t, os.WriteFile(file, out.Bytes(), 0o600))
	text, err := exec.Command("pdftotext", "-layout", file, "-").Output()
	require.NoError(t, err)
	for _, says := range []string{
		"Maro Quenby", "B♭ clarinet", "What went well", "for 11 seconds", "One thing to try", "How you can help",
		"third finger", "5 Oct", "14 Dec", "compared with nobody",
	} {
		assert.Contains(t, string(text), says)
	}
	out.Reset()
	err = print.HomeReport(&out, print.A4, print.Report{Player: "Nobody Yet"})
	require.NoError(t, err, "nothing was played yet")
	once := print.ReportLine{
		Title:  "Waver",
		Unit:   "cents",
		Points: []print.ReportPoint{{Monday: time.Date(2026, 10, 5, 0, 0, 0, 0, time.UTC), Value: 3}},
	}
	single := print.Report{Player: "Once Only", Lines: []print.ReportLine{once}}
	require.NoError(t, print.HomeReport(&out, print.A4, single))
}

// On Letter everything lies on the page, too: wider and lower than A4.
func TestEverythingFitsOnLetter(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, print.Sheets(&out, print.Letter, "The week", print.FingersDrawn, sheets(t, 0)[2:3]))
	assert.Contains(t, out.String(), "/MediaBox [0 0 612.00 792.00]")
	assert.NotContains(t, out.String(), "841.89")
	name := filepath.Join(t.TempDir(), "letter.pdf")
	require.NoError(t, os.WriteFile(name, out.Bytes(), 0o600))
	places, err := exec.Command("pdftotext", "-bbox", name, "-").Output()
	require.NoError(t, err)
	low := regexp.MustCompile(`yMax="([0-9.]+)"`).FindAllStringSubmatch(string(places), -1)
	require.NotEmpty(t, low)
	for _, y := range low {
		at, err := strconv.ParseFloat(y[1], 64)
		require.NoError(t, err)
		assert.Less(t, at, 792.)
	}
}
