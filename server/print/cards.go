package print

import "io"

// Card is how one player signs in.
type Card struct {
	Name       string
	Instrument string
	PIN        string
}

const (
	cardsAcross = 2
	cardsDown   = 5
	cardWide    = bodyWide / cardsAcross
	cardHigh    = (pageHigh - 2*margin) / cardsDown
)

// Cards writes cards to cut out, ten to a page. address is where the class signs
// in, code the class's.
func Cards(out io.Writer, class, code, address string, cards []Card) error {
	p := newDocument(class + ": cards")
	for n, c := range cards {
		place := n % (cardsAcross * cardsDown)
		if place == 0 {
			p.AddPage()
			p.SetDrawColor(200, 200, 200)
		}
		p.card(
			c,
			class,
			code,
			address,
			margin+cardWide*float64(place%cardsAcross),
			margin+cardHigh*float64(place/cardsAcross),
		)
	}
	return p.finish(out)
}

// card is one player's way in, to be cut out: a name, where to go, the class's code
// and the PIN. Millimetres from its own corner.
func (p page) card(c Card, class, code, address string, x, y float64) {
	p.SetLineWidth(0.2)
	p.Rect(x, y, cardWide, cardHigh, "D")
	p.black()
	p.SetFont("serif", "B", 15)
	// Cut and not shrunk: a long name must not run over the next card.
	p.Text(x+6, y+12, p.cut(c.Name, cardWide-12))
	p.SetFont("serif", "", 10)
	p.grey()
	p.Text(x+6, y+18, c.Instrument+" · "+class)
	p.black()
	p.SetFont("sans", "", 10)
	p.Text(x+6, y+29, "Open")
	p.Text(x+26, y+29, address)
	p.Text(x+6, y+36, "Class code")
	p.SetFont("serif", "B", 12)
	p.Text(x+26, y+36, code)
	p.SetFont("sans", "", 10)
	p.Text(x+6, y+44, "Your PIN")
	p.SetFont("serif", "B", 14)
	p.Text(x+26, y+44, c.PIN)
}
