// Package engrave lays written music out as drawing: glyphs of a SMuFL font,
// lines and curves, in staff spaces. It is for paper; the page on screen has an
// engraver of its own.
package engrave

import (
	"earlychorus/core/bars"
	"earlychorus/core/scores"
)

// Kind is what a mark is drawn as.
type Kind int

const (
	Glyph Kind = iota // Code at X, Y, its origin
	Line              // from X, Y to X2, Y2, Thick wide
	Arc               // a slur or tie from X, Y to X2, Y2, bowing Bow up or down
	Text              // Words centred at X, its baseline at Y, Thick high
)

// Mark is one thing to draw. X grows to the right and Y down, both in staff
// spaces; 0 is the left end and the top line of the staff.
type Mark struct {
	Kind   Kind
	X, Y   float64
	X2, Y2 float64
	Thick  float64
	Bow    float64
	Code   rune
	Words  string
}

// System is one line of music.
type System struct {
	Width         float64
	Above, Below  float64 // how far it reaches over the top line, and under it
	Marks         []Mark
	lowest, highs float64
}

// Codes of SMuFL 1.4 (W3C Music Notation Community Group), from memory.
const (
	trebleClef = '\uE050'
	bassClef   = '\uE062'
	four       = '\uE084'
	wholeHead  = '\uE0A2'
	halfHead   = '\uE0A3'
	blackHead  = '\uE0A4'
	wholeRest  = '\uE4E3'
	flat       = '\uE260'
	natural    = '\uE261'
	sharp      = '\uE262'
	dot        = '\uE1E7'
	three      = '\uE883'
	comma      = '\uE4CE'
)

// crossed are the heads of what is not played on the instrument.
var crossed = map[rune]rune{wholeHead: '\uE0A7', halfHead: '\uE0A8', blackHead: '\uE0A9'}

var rests = map[string]rune{
	"whole":   wholeRest,
	"half":    '\uE4E4',
	"quarter": '\uE4E5',
	"eighth":  '\uE4E6',
	"16th":    '\uE4E7',
	"32nd":    '\uE4E8',
}

// flags upward; the downward one of each is the next code.
var flags = map[string]rune{"eighth": '\uE240', "16th": '\uE242', "32nd": '\uE244'}

var alterations = map[string]rune{"flat": flat, "natural": natural, "sharp": sharp}

const (
	clefWidth   = 3.4
	keyWidth    = 1.0
	timeWidth   = 2.2
	headWidth   = 1.18
	stemLength  = 3.5
	stemThick   = 0.12
	staffThick  = 0.13
	barThick    = 0.16
	ledgerReach = 0.4
	textHigh    = 1.25
)

// Score lays a step's bars out in lines of at most a width. Bars without notes at
// the beginning are left out: the count-in is clicked, not read. Runs of others
// are drawn as one bar with their number.
func Score(s scores.Score, width float64) []System {
	bars := collapse(bars.Of(s))
	if len(bars) == 0 {
		return nil
	}
	var out []System
	fingered := map[string]bool{}
	for first := true; len(bars) > 0; first = false {
		l := line{score: s, fingered: fingered, first: first}
		n := l.fits(bars, width)
		out = append(out, l.draw(bars[:n], width, n < len(bars)))
		bars = bars[n:]
	}
	return out
}

// bar is a bar to be drawn; rests counts the silent bars it stands for.
type bar struct {
	bars.Bar
	rests int
}

func collapse(all []bars.Bar) (out []bar) {
	for _, b := range all {
		silent := true
		for _, s := range b.Symbols {
			silent = silent && s.Rest
		}
		switch {
		case silent && len(out) == 0:
			continue
		case silent && out[len(out)-1].rests > 0:
			out[len(out)-1].rests++
		case silent:
			out = append(out, bar{b, 1})
		default:
			out = append(out, bar{b, 0})
		}
	}
	for len(out) > 0 && out[len(out)-1].rests > 0 {
		out = out[:len(out)-1]
	}
	return out
}

// natural is the room a symbol takes when nothing is stretched.
func (l *line) natural(s bars.Symbol) float64 {
	room := 1.9 + 0.085*float64(s.Units)
	if s.Accidental != "" {
		room += 1.1
	}
	if s.Dotted {
		room += 0.6
	}
	return room
}

func (l *line) width(b bar) float64 {
	if b.rests > 0 {
		return 5
	}
	sum := 1.2
	for _, s := range b.Symbols {
		sum += l.natural(s)
	}
	return sum
}

// line is a system being drawn.
type line struct {
	score     scores.Score
	fingered  map[string]bool // notes whose fingering stands already
	first     bool
	out       System
	x         float64
	tieFrom   *place
	slurFrom  *place
	slideFrom *place
	textEnd   float64 // where the fingering before ends, and its baseline
	textLow   float64
	slurLow   float64 // the lowest note under the slur
	beside    []beside
}

// place is where a note's head is.
type place struct{ x, y, up float64 } // up is 1 for a stem that goes up

func (l *line) headWidth() float64 {
	k := int(l.score.KeyFifths)
	room := clefWidth + keyWidth*float64(max(k, -k)) + 0.8
	if l.first {
		room += timeWidth
	}
	return room
}

// fits counts the bars that go into a line: one at least.
func (l *line) fits(bars []bar, width float64) int {
	used := l.headWidth()
	for n, b := range bars {
		used += l.width(b)
		if used > width && n > 0 {
			return n
		}
	}
	return len(bars)
}

// draw lays bars out in a line. A line that others follow is stretched to its
// width.
func (l *line) draw(bars []bar, width float64, more bool) System {
	used := 0.
	for _, b := range bars {
		used += l.width(b)
	}
	stretch := (width - l.headWidth()) / used
	if !more && stretch > 1.25 {
		stretch = 1.25
	}
	l.out.lowest = 4
	l.head()
	for n, b := range bars {
		begin := l.x
		if b.rests > 0 {
			l.silent(b, stretch)
		} else {
			l.notes(b, stretch)
		}
		l.x = begin + l.width(b)*stretch
		thick := barThick
		if !more && n == len(bars)-1 {
			l.add(Mark{
				Kind:  Line,
				X:     l.x - 0.55,
				Y:     0,
				X2:    l.x - 0.55,
				Y2:    4,
				Thick: barThick,
			})
			thick = 0.45
		}
		l.add(Mark{
			Kind:  Line,
			X:     l.x,
			Y:     0,
			X2:    l.x,
			Y2:    4,
			Thick: thick,
		})
	}
	l.placeBeside()
	for n := range 5 {
		l.add(Mark{
			Kind:  Line,
			X:     0,
			Y:     float64(n),
			X2:    l.x,
			Y2:    float64(n),
			Thick: staffThick,
		})
	}
	l.out.Width = l.x
	l.out.Above = 1 - min(0, l.out.highs)
	l.out.Below = max(4, l.out.lowest) + 0.6
	return l.out
}

func (l *line) add(m Mark) { l.out.Marks = append(l.out.Marks, m) }

func (l *line) glyph(code rune, x, y float64) {
	l.add(Mark{
		Kind: Glyph,
		Code: code,
		X:    x,
		Y:    y,
	})
}

func (l *line) reach(y float64) {
	l.out.highs, l.out.lowest = min(l.out.highs, y), max(l.out.lowest, y)
}

// head draws clef, key and, on the first line, time.
func (l *line) head() {
	l.x = 0.4
	if l.score.Clef == "bass" {
		l.glyph(bassClef, l.x, 1)
	} else {
		l.glyph(trebleClef, l.x, 3)
	}
	l.reach(-1.4)
	l.x = clefWidth
	for _, y := range signature(int(l.score.KeyFifths), l.score.Clef) {
		code := sharp
		if l.score.KeyFifths < 0 {
			code = flat
		}
		l.glyph(code, l.x, y)
		l.x += keyWidth
	}
	if l.first {
		l.x += 0.3
		l.glyph(four, l.x, 1)
		l.glyph(four, l.x, 3)
	}
	l.x = l.headWidth()
}

// signature is where the signs of a key stand, in their order.
func signature(fifths int, clef string) (out []float64) {
	sharps := []float64{0, 1.5, -0.5, 1, 2.5, 0.5, 2}
	flats := []float64{2, 0.5, 2.5, 1, 3, 1.5, 3.5}
	order, shift := sharps, 0.
	if fifths < 0 {
		order = flats
		fifths = -fifths
	}
	if clef == "bass" {
		shift = 1
	}
	for n := range fifths {
		out = append(out, order[n]+shift)
	}
	return out
}
