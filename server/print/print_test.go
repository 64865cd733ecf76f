package print_test

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"testing"

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
		s, err := notation.SheetOf(plan.DemoWeek(), day, plan.InClass, exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
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
		require.NoError(t, print.Sheets(&out, "The week", sheets(t, day)))
		assert.Equal(t, "%PDF", out.String()[:4])
		assert.Len(t, pageMark.FindAll(out.Bytes(), -1), len(instrument.All()), "day %d", day)
	}
}

// What is printed can be read by another reader: Debian's poppler.
func TestTheTextIsThere(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, print.Sheets(&out, "The week", sheets(t, 0)[2:3]))
	name := filepath.Join(t.TempDir(), "a.pdf")
	require.NoError(t, os.WriteFile(name, out.Bytes(), 0o600))
	text, err := exec.Command("pdftotext", "-layout", name, "-").Output()
	require.NoError(t, err)
	assert.Contains(t, string(text), "Long tone, counted: concert B♭ then F")
	assert.Contains(t, string(text), "♩ = 60")
}

func TestCards(t *testing.T) {
	var out bytes.Buffer
	cards := make([]print.Card, 23)
	for n := range cards {
		cards[n] = print.Card{Name: "Zoë Quillmarsh-Longname of the Causeway", Instrument: "Flute", PIN: "1234"}
	}
	require.NoError(t, print.Cards(&out, "Ferry Bell Winds", "FERRY-BELL", "http://127.0.0.1:8080", cards))
	assert.Len(t, pageMark.FindAll(out.Bytes(), -1), 3)
	out.Reset()
	require.NoError(t, print.Sheets(&out, "Nothing", nil))
	assert.NotZero(t, out.Len())
}

// BenchmarkSheets is a day's print for sixteen sections.
func BenchmarkSheets(b *testing.B) {
	all := sheets(b, 0)
	for b.Loop() {
		var out bytes.Buffer
		if err := print.Sheets(&out, "The week", all); err != nil {
			b.Fatal(err)
		}
	}
}
