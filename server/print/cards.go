package print

import (
	"fmt"
	"io"
	"strings"

	"rsc.io/qr"
)

// Card is how one player signs in.
type Card struct {
	Name       string
	Instrument string
	PIN        string
}

const (
	cardsAcross = 2
	cardsDown   = 5
)

// card is how wide and high a card is on the paper.
func (p Paper) card() (wide, high float64) {
	return (p.wide - 2*margin) / cardsAcross, (p.high - 2*margin) / cardsDown
}

// Cards writes cards to cut out, ten to a page. address is where the class signs
// in, code the class's; a telephone reads both from the square.
func Cards(out io.Writer, paper Paper, class, code, address string, cards []Card) error {
	p := newDocument(class+": cards", paper)
	cardWide, cardHigh := paper.card()
	square, err := qr.Encode(signInLink(address, code), qr.M)
	if err != nil {
		return fmt.Errorf("print: %w", err)
	}
	for n, c := range cards {
		place := n % (cardsAcross * cardsDown)
		if place == 0 {
			p.AddPage()
			p.SetDrawColor(200, 200, 200)
		}
		x, y := margin+cardWide*float64(place%cardsAcross), margin+cardHigh*float64(place/cardsAcross)
		p.card(c, class, code, address, x, y)
		p.square(square, x+cardWide-squareWide-cardEdge, y+cardEdge)
	}
	return p.finish(out)
}

// signInLink opens the page with the class's code in it. It stands behind a #, so that it
// is sent to no server and stands in no log; the page takes it out of the address at once.
func signInLink(address, code string) string {
	if !strings.Contains(address, "://") {
		address = "http://" + address
	}
	return strings.TrimRight(address, "/") + "/sign-in#" + code
}

const (
	squareWide = 22. // millimetres
	cardEdge   = 6.
)

// square draws a square code; x and y are its upper left corner.
func (p page) square(code *qr.Code, x, y float64) {
	dot := squareWide / float64(code.Size)
	p.SetFillColor(0, 0, 0)
	for row := range code.Size {
		for column := range code.Size {
			if code.Black(column, row) {
				// A hair wider than it is, or printers leave white lines between.
				p.Rect(x+float64(column)*dot, y+float64(row)*dot, dot+0.02, dot+0.02, "F")
			}
		}
	}
}

// card is one player's way in, to be cut out: a name, where to go, the class's code
// and the PIN; the square stands above right. Millimetres from its own corner.
func (p page) card(c Card, class, code, address string, x, y float64) {
	const entry = 20.
	cardWide, cardHigh := p.paper.card()
	inside := cardWide - 2*cardEdge
	beside := inside - squareWide - 3
	p.SetLineWidth(0.2)
	p.Rect(x, y, cardWide, cardHigh, "D")
	x += cardEdge
	p.black()
	p.SetFont("serif", "B", 15)
	// Cut and not shrunk: a long name must not run over the square.
	p.Text(x, y+12, p.cut(c.Name, beside))
	p.SetFont("serif", "", 10)
	p.grey()
	p.Text(x, y+18, p.cut(c.Instrument, beside))
	p.Text(x, y+23, p.cut(class, beside))
	p.black()
	for n, line := range []struct {
		label, text, style string
		size               float64
	}{
		{"Open", address, "", 10},
		{"Class code", code, "B", 12},
		{"Your PIN", c.PIN, "B", 14},
	} {
		down := y + 33 + 7.5*float64(n)
		p.SetFont("sans", "", 10)
		p.Text(x, down, line.label)
		p.fit(line.text, line.style, line.size, inside-entry)
		p.Text(x+entry, down, line.text)
	}
}

// fit takes letters so small that a line is no wider: what is typed from paper is never cut.
func (p page) fit(text, style string, size, width float64) {
	p.SetFont("serif", style, size)
	if wide := p.GetStringWidth(text); wide > width {
		p.SetFontSize(size * width / wide)
	}
}
