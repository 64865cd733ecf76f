package print

import (
	"strings"
	"unicode"
)

// Names come as people write them. The fonts that ship have no signs above the basic plane
// (emoji, mostly), and the PDF writer ends a whole document over one: what cannot be printed
// is left out, and the name goes on.

// printable is a text as paper can have it.
func printable(text string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r > unicode.MaxRune || r > basicPlane, r == zeroWidthJoiner, isVariation(r):
			return -1
		case unicode.IsControl(r) && r != '\n' && r != '\t':
			return ' '
		}
		return r
	}, text)
}

const (
	basicPlane      = 0xFFFF
	zeroWidthJoiner = 0x200D // between the parts of an emoji
)

// isVariation reports whether a sign only says how the one before it looks.
func isVariation(r rune) bool { return r >= 0xFE00 && r <= 0xFE0F }

// Text prints a text with its baseline's left end at a place, in millimetres.
func (p page) Text(x, y float64, text string) { p.Fpdf.Text(x, y, printable(text)) }

// GetStringWidth is millimetres of a text in the font in use.
func (p page) GetStringWidth(text string) float64 { return p.Fpdf.GetStringWidth(printable(text)) }

// SplitText breaks a text into lines of a width, in millimetres.
func (p page) SplitText(text string, width float64) []string {
	return p.Fpdf.SplitText(printable(text), width)
}

// MultiCell prints a text over as many lines as it takes.
func (p page) MultiCell(w, h float64, text, border, align string, fill bool) {
	p.Fpdf.MultiCell(w, h, printable(text), border, align, fill)
}
