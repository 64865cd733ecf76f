package print

import (
	"bytes"
	"os/exec"
	"testing"

	"github.com/go-text/typesetting/shaping"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// inMany is a name of each script that schools send lists in.
var inMany = map[string]string{
	"Hebrew":     "שרה כהן",
	"Arabic":     "ليلى حداد",
	"Chinese":    "李明",
	"Japanese":   "山田さくら",
	"Korean":     "김민준",
	"Devanagari": "क्षितिज शर्मा",
	"Thai":       "ปัญญา ดี",
	"Tamil":      "கீர்த்தி",
	"Amharic":    "አበበ",
	"Georgian":   "ნინო",
	"Vietnamese": "Nguyễn Thị Ánh",
	"mixed":      "שרה (Sarah) Lee 2",
}

// glyphs counts a text's signs, and those that no face has.
func glyphs(lines []shaping.Line) (all, missing int) {
	for _, line := range lines {
		for _, run := range line {
			for _, g := range run.Glyphs {
				all++
				if g.GlyphID == 0 {
					missing++
				}
			}
		}
	}
	return all, missing
}

// The fonts are the Debian packages that scripts/setup.sh installs.
func TestEveryScriptIsPrinted(t *testing.T) {
	for script, name := range inMany {
		all, missing := glyphs(shape(name, 0))
		assert.Positive(t, all, script)
		assert.Zero(t, missing, script)
	}
	_, missing := glyphs(shape("\U00012000", 0)) // cuneiform: no school's
	assert.LessOrEqual(t, missing, 1, "what no face has is one box, and no panic")
}

// Arabic letters join, Indic ones combine, Hebrew stands from the right: a shaper's work, and
// what a list of letters would get wrong.
func TestScriptsAreShaped(t *testing.T) {
	joined, _ := glyphs(shape("لا", 0))
	assert.Equal(t, 1, joined, "lam and alef are one sign")
	combined, _ := glyphs(shape("क्ष", 0))
	assert.Less(t, combined, 3)
	line := shape("שרה Lee", 0)[0]
	require.Len(t, line, 2)
	for _, run := range line {
		// In a text from the right, what comes first is on the right.
		assert.Equal(t, run.Runes.Offset == 0, run.VisualIndex == 1)
	}
	assert.False(t, isShaped("Zoë Šimek, B♭ clarinet — “Ионов”"), "the writer's own fonts have it")
	assert.Len(t, shape("山田さくら山田さくら", 4), 3, "a long text is broken into lines")
}

// A card in every script is a document that readers open.
func TestCardsInEveryScript(t *testing.T) {
	var cards []Card
	for _, name := range inMany {
		cards = append(cards, Card{name, "Flute", "123456"})
	}
	var out bytes.Buffer
	require.NoError(t, Cards(&out, A4, "管楽 Winds", "A-B-C-D", "https://band.example", cards))
	read := exec.CommandContext(t.Context(), "pdftotext", "-", "-")
	read.Stdin = bytes.NewReader(out.Bytes())
	text, err := read.Output()
	require.NoError(t, err)
	assert.Contains(t, string(text), "Nguyễn Thị Ánh")
	assert.Less(t, out.Len(), 400_000, "only what is used is in it")
}

// One emoji in one name must not keep a class from its cards.
func TestANameWithAnEmojiPrints(t *testing.T) {
	var out bytes.Buffer
	cards := []Card{
		{Name: "Wren 🎺 Ashdown", Instrument: "Trumpet", PIN: "123456"},
		{Name: "שרה", Instrument: "Flute", PIN: "123456"},
		{Name: "李明\u0007", Instrument: "Flute", PIN: "123456"},
	}
	require.NoError(t, Cards(&out, A4, "First 👩🏽‍🎤 Winds", "A-B-C-D", "https://band.example", cards))
	assert.True(t, bytes.HasPrefix(out.Bytes(), []byte("%PDF")))
}
