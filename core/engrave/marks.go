package engrave

import (
	"earlychorus/core/bars"
	"earlychorus/core/scores"
)

// Letters of dynamics, and marks over and under notes (SMuFL 1.4, from memory).
var letters = map[rune]rune{'p': '\uE520', 'm': '\uE521', 'f': '\uE522'}

// marksOver has the glyph over a note; the one under it is the next code.
var marksOver = map[scores.Mark]rune{
	scores.Accent:   '\uE4A0',
	scores.Staccato: '\uE4A2',
	scores.Tenuto:   '\uE4A4',
}

const (
	letterWidth  = 1.5
	hairpinMouth = 0.55 // half of it
	underAll     = 2.1  // from the lowest thing to the middle of what stands under it
	overAll      = 0.9
)

// beside is what stands under or over a note, to be placed when the line is known.
type beside struct {
	x       float64
	dynamic scores.Dynamic
	hairpin bars.Hairpin
	endX    float64 // of a hairpin; 0 while it is open
	manner  string
}

// mark draws how a note is tongued, and remembers what stands under and over it.
func (l *line) mark(s bars.Symbol, at place) {
	if code, ok := marksOver[s.Mark]; ok {
		y := at.y - 1
		if at.up > 0 {
			y, code = at.y+1, code+1
		}
		l.glyph(code, at.x-headWidth/2, y)
		l.reach(y - 0.5)
		l.reach(y + 0.5)
	}
	// A hairpin that the line before began is over where its note ends; on the next line it
	// is not begun anew.
	if s.Dynamic != "" || s.Hairpin != "" || s.Manner != "" {
		l.beside = append(l.beside, beside{
			x:       at.x,
			dynamic: s.Dynamic,
			hairpin: s.Hairpin,
			manner:  s.Manner,
		})
	}
}

// endHairpin ends the open hairpin after a symbol.
func (l *line) endHairpin(s bars.Symbol, x float64) {
	if !s.HairpinEnd {
		return
	}
	for n := range l.beside {
		if l.beside[n].hairpin != "" && l.beside[n].endX == 0 {
			l.beside[n].endX = x
		}
	}
}

// place draws what stands under and over the line's notes.
func (l *line) placeBeside() {
	if len(l.beside) == 0 {
		return
	}
	under, over := max(4, l.out.lowest)+underAll, min(0, l.out.highs)-overAll
	for _, b := range l.beside {
		from := b.x - headWidth/2
		for k, letter := range b.dynamic {
			l.glyph(letters[letter], from+letterWidth*float64(k), under+0.5)
			l.reach(under + 1)
		}
		if b.hairpin != "" {
			l.hairpin(b, from+letterWidth*float64(len(b.dynamic))+0.4, under)
		}
		if b.manner != "" {
			half := 0.25 * textHigh * float64(len([]rune(b.manner)))
			l.add(Mark{
				Kind:  Text,
				X:     max(b.x, half),
				Y:     over,
				Thick: textHigh,
				Words: b.manner,
			})
			l.reach(over - textHigh)
		}
	}
}

// hairpin is two lines that part, or meet.
func (l *line) hairpin(b beside, from, y float64) {
	to := b.endX
	if to == 0 {
		to = l.x - 0.6 // it goes on, on the next line
	}
	to = max(to, from+1.5)
	for _, side := range []float64{-hairpinMouth, hairpinMouth} {
		y1, y2 := y, y+side
		if b.hairpin == bars.Fade {
			y1, y2 = y2, y1
		}
		l.add(Mark{
			Kind:  Line,
			X:     from,
			Y:     y1,
			X2:    to,
			Y2:    y2,
			Thick: 0.14,
		})
	}
	l.reach(y + 1)
}
