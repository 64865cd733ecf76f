package print

import (
	"bytes"
	"os"
	"path/filepath"
	"sync"
	"unicode"

	"github.com/go-fonts/dejavu/dejavusans"
	"github.com/go-text/typesetting/di"
	"github.com/go-text/typesetting/font"
	ot "github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/language"
	"github.com/go-text/typesetting/shaping"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"
)

// Names come in every script. What the PDF writer's own fonts have it writes as text; a text of
// other scripts is shaped as they ask (joined, reordered, from the right) and drawn, glyph by
// glyph: only what is used is in the document.

// fontFiles are where Debian keeps fonts of the scripts that do not ship with the program
// (packages fonts-noto-core and fonts-droid-fallback). They are opened when a text first needs
// one.
var fontFiles = []string{
	"/usr/share/fonts-droid-fallback/truetype/*.ttf", // Chinese, Japanese, Korean
	"/usr/share/fonts/truetype/droid/DroidSansFallback*.ttf",
	"/usr/share/fonts/truetype/noto/NotoSans*-Regular.ttf",
}

// scripts finds faces by the signs they have.
type scripts struct {
	mu    sync.Mutex
	faces []*font.Face
	files []string // not opened yet
	lacks map[rune]bool
}

var allScripts = sync.OnceValue(func() *scripts {
	s := &scripts{lacks: map[rune]bool{}}
	face, err := font.ParseTTF(bytes.NewReader(dejavusans.TTF))
	if err != nil {
		panic("print: a font that ships cannot be read: " + err.Error())
	}
	s.faces = append(s.faces, face)
	for _, pattern := range fontFiles {
		found, _ := filepath.Glob(pattern) // the patterns are right
		s.files = append(s.files, found...)
	}
	return s
})

// ResolveFace returns a face that has a sign, and the first one for what no face has.
func (s *scripts) ResolveFace(r rune) *font.Face {
	s.mu.Lock()
	defer s.mu.Unlock()
	if face := s.having(r); face != nil {
		return face
	}
	for len(s.files) > 0 && !s.lacks[r] {
		if face := s.openNext(); face != nil && has(face, r) {
			return face
		}
	}
	s.lacks[r] = true
	return s.faces[0]
}

// having is an open face that has a sign.
func (s *scripts) having(r rune) *font.Face {
	for _, f := range s.faces {
		if has(f, r) {
			return f
		}
	}
	return nil
}

// openNext opens one more file; nil where it cannot be read.
func (s *scripts) openNext() *font.Face {
	name := s.files[0]
	s.files = s.files[1:]
	raw, err := os.ReadFile(name)
	if err != nil {
		return nil
	}
	face, err := font.ParseTTF(bytes.NewReader(raw))
	if err != nil {
		return nil
	}
	s.faces = append(s.faces, face)
	return face
}

func has(f *font.Face, r rune) bool {
	_, ok := f.NominalGlyph(r)
	return ok
}

// isShaped reports whether a text has a sign that the writer's fonts lack, or that is written
// from the right.
func isShaped(text string) bool {
	for _, r := range text {
		if r > basicPlane || r > lastPlain && !unicode.In(r, plainScripts...) {
			return true
		}
	}
	return false
}

// lastPlain is the last sign of Latin; plainScripts and signs beyond it are in the fonts that
// ship, from the left and without joining.
const lastPlain = 0x024F

// basicPlane is the last sign that the PDF writer can write.
const basicPlane = 0xFFFF

var plainScripts = []*unicode.RangeTable{
	unicode.Latin, unicode.Greek, unicode.Cyrillic, unicode.Punct, unicode.Sm, unicode.So, unicode.Sc, unicode.Sk,
	unicode.Lm, unicode.No, unicode.Mn,
}

// em is the size at which texts are shaped: fine enough for any size on paper.
const em = 1000

// shape lays a text out in lines no wider than width ems; 0 for one line.
func shape(text string, width float64) []shaping.Line {
	runes := []rune(text)
	dir := directionOf(runes)
	var cut shaping.Segmenter
	var shaper shaping.HarfbuzzShaper
	var wrap shaping.LineWrapper
	input := shaping.Input{
		Text:      runes,
		RunEnd:    len(runes),
		Direction: dir,
		Size:      fixed.I(em),
		Language:  language.DefaultLanguage(),
	}
	var runs []shaping.Output
	for _, run := range cut.Split(input, allScripts()) {
		runs = append(runs, shaper.Shape(run))
	}
	most := fixed.I(1 << 24)
	if width > 0 {
		most = fixed.Int26_6(width * em * 64)
	}
	lines, _ := wrap.WrapParagraphF(
		shaping.WrapConfig{Direction: dir}, most, runes, shaping.NewSliceIterator(runs),
	)
	return lines
}

// directionOf is that of a text's first letter.
func directionOf(text []rune) di.Direction {
	for _, r := range text {
		if unicode.In(r, unicode.Hebrew, unicode.Arabic, unicode.Syriac, unicode.Thaana, unicode.Nko) {
			return di.DirectionRTL
		}
		if unicode.IsLetter(r) {
			return di.DirectionLTR
		}
	}
	return di.DirectionLTR
}

// wide is a line's width, in ems.
func wide(line shaping.Line) (ems float64) {
	for _, run := range line {
		ems += float64(run.Advance) / 64 / em
	}
	return ems
}

// drawn draws a line with its baseline's left end at a place; size is its em, in millimetres.
func (p page) drawn(line shaping.Line, x, y, size float64) {
	red, green, blue := p.GetTextColor()
	r, g, b := p.GetFillColor()
	p.SetFillColor(red, green, blue)
	defer p.SetFillColor(r, g, b)
	byPlace := make([]shaping.Output, len(line))
	for _, run := range line {
		byPlace[run.VisualIndex] = run
	}
	for _, run := range byPlace {
		scale := size / float64(run.Face.Upem())
		at := func(v fixed.Int26_6) float64 { return float64(v) / 64 / em * size }
		for _, g := range run.Glyphs {
			if outline, ok := run.Face.GlyphData(g.GlyphID).(font.GlyphOutline); ok {
				p.outlined(outline, x+at(g.XOffset), y-at(g.YOffset), scale)
			}
			x += at(g.Advance)
		}
	}
}

// ops are the parts of an outline, as the music font's reader calls them.
var ops = map[ot.SegmentOp]sfnt.SegmentOp{
	ot.SegmentOpMoveTo: sfnt.SegmentOpMoveTo,
	ot.SegmentOpLineTo: sfnt.SegmentOpLineTo,
	ot.SegmentOpQuadTo: sfnt.SegmentOpQuadTo,
	ot.SegmentOpCubeTo: sfnt.SegmentOpCubeTo,
}

// outlined fills an outline in a font's units, which count upward.
func (p page) outlined(o font.GlyphOutline, x, y, scale float64) {
	outline := make([]curve, len(o.Segments))
	for n, s := range o.Segments {
		outline[n].op = ops[s.Op]
		for k, q := range s.Args {
			outline[n].at[k] = [2]float64{x + float64(q.X)*scale, y - float64(q.Y)*scale}
		}
	}
	p.fill(outline)
}
