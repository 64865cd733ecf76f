package print

import (
	"strings"
	"unicode"

	"github.com/go-text/typesetting/shaping"
)

// printable is a text as paper can have it: without signs that only say how another one looks,
// and without pictures that no font here has. A name with one goes on.
func printable(text string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r == zeroWidthJoiner && strings.ContainsFunc(text, isPicture), isVariation(r), isPicture(r):
			return -1
		case unicode.IsControl(r) && r != '\n' && r != '\t':
			return ' '
		}
		return r
	}, text)
}

const zeroWidthJoiner = 0x200D // between the parts of a picture, and between letters that it joins

// isPicture reports an emoji, or a part of one.
func isPicture(r rune) bool { return r >= 0x1F000 && r <= 0x1FAFF || r >= 0xE0000 && r <= 0xE007F }

// isVariation reports whether a sign only says how the one before it looks.
func isVariation(r rune) bool { return r >= 0xFE00 && r <= 0xFE0F }

// letterHigh is the em of the font in use, in millimetres.
func (p page) letterHigh() float64 { points, _ := p.GetFontSize(); return points * pointHigh }

// Text prints a text with its baseline's left end at a place, in millimetres.
func (p page) Text(x, y float64, text string) {
	text = printable(text)
	if !isShaped(text) {
		p.Fpdf.Text(x, y, text)
		return
	}
	for _, line := range shape(text, 0) {
		p.drawn(line, x, y, p.letterHigh())
	}
}

// GetStringWidth is millimetres of a text in the font in use.
func (p page) GetStringWidth(text string) (mm float64) {
	text = printable(text)
	if !isShaped(text) {
		return p.Fpdf.GetStringWidth(text)
	}
	for _, line := range shape(text, 0) {
		mm = max(mm, wide(line)*p.letterHigh())
	}
	return mm
}

// SplitText breaks a text into lines of a width, in millimetres.
func (p page) SplitText(text string, width float64) (out []string) {
	text = printable(text)
	if !isShaped(text) {
		return p.Fpdf.SplitText(text, width)
	}
	for _, paragraph := range strings.Split(text, "\n") {
		runes := []rune(paragraph)
		for _, line := range shape(paragraph, width/p.letterHigh()) {
			from, to := spanOf(line)
			out = append(out, strings.TrimSpace(string(runes[from:to])))
		}
	}
	return out
}

// spanOf is the part of a text that a line has, in signs.
func spanOf(line shaping.Line) (from, to int) {
	for n, run := range line {
		if n == 0 || run.Runes.Offset < from {
			from = run.Runes.Offset
		}
		to = max(to, run.Runes.Offset+run.Runes.Count)
	}
	return from, to
}

// MultiCell prints a text over as many lines as it takes.
func (p page) MultiCell(w, h float64, text, border, align string, fill bool) {
	text = printable(text)
	if !isShaped(text) {
		p.Fpdf.MultiCell(w, h, text, border, align, fill)
		return
	}
	x, y := p.GetXY()
	for _, paragraph := range strings.Split(text, "\n") {
		for _, line := range shape(paragraph, w/p.letterHigh()) {
			// Where fpdf has the baseline of a cell: three tenths of a letter below its middle.
			p.drawn(line, x, y+h/2+0.3*p.letterHigh(), p.letterHigh())
			y += h
		}
	}
	p.SetXY(margin, y)
}
