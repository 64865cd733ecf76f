// Package print makes PDF for paper: a day's sheet for each section, and cards to
// sign in with. Its fonts ship with it.
package print

import (
	_ "embed"
	"fmt"
	"io"
	"sync"

	"github.com/go-fonts/dejavu/dejavusanscondensed"
	"github.com/go-fonts/dejavu/dejavuserif"
	"github.com/go-fonts/dejavu/dejavuserifbold"
	"github.com/go-pdf/fpdf"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"
)

// In millimetres, with room for a stand's lip and a hole punch.
const (
	margin    = 14.
	inkGrey   = 90
	pointHigh = 0.3528 // a point in millimetres
)

// page is a PDF being written.
type page struct {
	*fpdf.Fpdf
	paper Paper
}

// bodyWide is how wide what is printed may be.
func (p page) bodyWide() float64 { return p.paper.wide - 2*margin }

// newDocument is in millimetres, with the fonts inside it: it prints the same everywhere,
// and asks nobody.
func newDocument(title string, paper Paper) page {
	pdf := fpdf.New("P", "mm", paper.Name, "")
	pdf.SetTitle(title, true)
	pdf.SetCreator("Early Chorus", true)
	pdf.SetMargins(margin, margin, margin)
	pdf.SetAutoPageBreak(false, margin)
	pdf.AddUTF8FontFromBytes("serif", "", dejavuserif.TTF)
	pdf.AddUTF8FontFromBytes("serif", "B", dejavuserifbold.TTF)
	pdf.AddUTF8FontFromBytes("sans", "", dejavusanscondensed.TTF)
	return page{pdf, paper}
}

// finish writes the document.
func (p page) finish(out io.Writer) error {
	if err := p.Error(); err != nil {
		return fmt.Errorf("print: %w", err)
	}
	return p.Output(out)
}

// grey is for what stands beside the thing itself.
func (p page) grey() { p.SetTextColor(inkGrey, inkGrey, inkGrey) }

// black is full black: a grey text is a dotted one on a school's printer.
func (p page) black() { p.SetTextColor(0, 0, 0) }

//go:embed fonts/bravura.otf
var bravura []byte

// music is the music font, read when something is first engraved.
var music = sync.OnceValue(func() *musicFont {
	f, err := sfnt.Parse(bravura)
	if err != nil {
		panic(fmt.Sprintf("print: the music font cannot be read: %v", err)) // it is inside the program
	}
	return &musicFont{font: f, outlines: map[rune][]sfnt.Segment{}}
})

// musicFont gives glyphs as outlines: the PDF writer embeds no such font, and a
// page needs a few glyphs only.
type musicFont struct {
	font     *sfnt.Font
	mu       sync.Mutex
	outlines map[rune][]sfnt.Segment
}

// unitsPerEm is the size at which outlines are read; SMuFL's em is four staff
// spaces.
const (
	unitsPerEm    = 1000
	spacesPerUnit = 4. / unitsPerEm
)

// outline is a sign of the music font as curves, kept: a page of notes asks for the
// same few a hundred times.
func (m *musicFont) outline(code rune) []sfnt.Segment {
	m.mu.Lock()
	defer m.mu.Unlock()
	if known, ok := m.outlines[code]; ok {
		return known
	}
	var buffer sfnt.Buffer
	index, err := m.font.GlyphIndex(&buffer, code)
	if err != nil || index == 0 {
		m.outlines[code] = nil
		return nil
	}
	segments, err := m.font.LoadGlyph(&buffer, index, fixed.I(unitsPerEm), nil)
	if err != nil {
		segments = nil
	}
	m.outlines[code] = append([]sfnt.Segment(nil), segments...)
	return m.outlines[code]
}
