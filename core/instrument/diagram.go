package instrument

import (
	"strings"
	"unicode/utf8"
)

// Diagram is a fingering as a drawing: marks laid out on a small sheet, in
// units that the page scales. It holds everything that is drawn; the page
// decides nothing.
type Diagram struct {
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
	Marks  []Mark  `json:"marks" nullable:"false"`
}

// Mark is one thing in a diagram.
type Mark struct {
	Shape string  `json:"shape" enum:"hole,key,valve,slide,stop,bar"`
	State string  `json:"state" enum:"open,closed,half"`
	X     float64 `json:"x"`
	Y     float64 `json:"y"`
	Size  float64 `json:"size"`
	Label string  `json:"label,omitempty"`
}

// ChangesFrom lists the marks that differ from the fingering before, by their
// place in Marks: the fingers that move.
func (d Diagram) ChangesFrom(before Diagram) []int {
	was := map[[2]float64]string{}
	for _, m := range before.Marks {
		was[[2]float64{m.X, m.Y}] = m.State
	}
	var out []int
	for n, m := range d.Marks {
		if was[[2]float64{m.X, m.Y}] != m.State {
			out = append(out, n)
		}
	}
	return out
}

const (
	open   = "open"
	closed = "closed"
	half   = "half"
)

// draw lays a fingering's text out as the instrument's own diagram.
func (i Instrument) draw(text string) Diagram {
	switch {
	case i.tube == nil:
		return drawHoles(text, i.Family)
	case i.tube.valves == 0:
		return drawSlide(text)
	}
	return drawValves(text, i.tube.valves)
}

// drawValves: the valves in a row as the player sees them, pressed ones filled.
func drawValves(text string, count int) Diagram {
	d := Diagram{Width: float64(24*count + 8), Height: 32}
	for v := range count {
		m := Mark{
			Shape: "valve",
			State: open,
			X:     16 + 24*float64(v),
			Y:     16,
			Size:  9,
			Label: string(rune('1' + v)),
		}
		if strings.ContainsRune(text, rune('1'+v)) {
			m.State = closed
		}
		d.Marks = append(d.Marks, m)
	}
	return d
}

const slidePositions = 7

// drawSlide: seven stops along a slide, the hand on one of them.
func drawSlide(text string) Diagram {
	d := Diagram{Width: 130, Height: 34, Marks: []Mark{{
		Shape: "bar",
		State: open,
		X:     8,
		Y:     12,
		Size:  114,
	}}}
	here := text[len(text)-1]
	for k := range slidePositions {
		m := Mark{
			Shape: "stop",
			State: open,
			X:     12 + 17.6*float64(k),
			Y:     12,
			Size:  3,
			Label: string(rune('1' + k)),
		}
		if here == byte('1'+k) {
			m.Shape, m.State, m.Size = "slide", closed, 6
		}
		d.Marks = append(d.Marks, m)
	}
	return d
}

// Rows of a woodwind's sheet: the thumb beside the left hand's three fingers,
// the right hand's below, keys beside the hand that presses them.
const (
	fingerX  = 40.
	thumbX   = 16.
	keyX     = 60.
	leftY    = 14.
	rightY   = 74.
	rowStep  = 18.
	holeSize = 7.
)

// drawHoles lays out a woodwind's text: thumb, three fingers of each hand, and
// whatever keys are pressed with them. Recorders have four holes below.
func drawHoles(text string, f Family) Diagram {
	d := Diagram{Width: 118, Height: 132}
	left, right, _ := strings.Cut(text, "|")
	if hasThumbHole(f) {
		d.Marks = append(d.Marks, Mark{
			Shape: "hole",
			State: thumbState(left),
			X:     thumbX,
			Y:     leftY,
			Size:  holeSize,
			Label: "T",
		})
	}
	d.addHand(left, "123", leftY)
	if f == Recorders {
		d.addHand(right, "4567", rightY-4)
	} else {
		d.addHand(right, "123", rightY)
	}
	return d
}

// hasThumbHole: the others' thumbs press keys or carry weight only.
func hasThumbHole(f Family) bool { return f == Flutes || f == Clarinets || f == Recorders }

func thumbState(left string) string {
	for _, word := range strings.Fields(left) {
		switch word {
		case "T":
			return closed
		case "½T":
			return half
		}
	}
	return open
}

// addHand adds a hand's holes and, beside them, its keys.
func (d *Diagram) addHand(text, fingers string, top float64) {
	closedFingers, halfFingers, keys := handOf(text, fingers)
	for k, finger := range fingers {
		m := Mark{
			Shape: "hole",
			State: open,
			X:     fingerX,
			Y:     top + rowStep*float64(k),
			Size:  holeSize,
		}
		switch {
		case strings.ContainsRune(halfFingers, finger):
			m.State = half
		case strings.ContainsRune(closedFingers, finger):
			m.State = closed
		}
		d.Marks = append(d.Marks, m)
	}
	for k, key := range keys {
		d.Marks = append(d.Marks, Mark{
			Shape: "key",
			State: closed,
			X:     keyX,
			Y:     top + 13*float64(k),
			Size:  4,
			Label: key,
		})
	}
}

// handOf reads a hand's half of a fingering: which fingers close their holes,
// which half close them, and the names of the keys pressed.
func handOf(text, fingers string) (down, halfDown string, keys []string) {
	var name []string
	flush := func() {
		if len(name) > 0 {
			keys = append(keys, strings.Join(name, " "))
			name = nil
		}
	}
	for _, word := range strings.Fields(text) {
		switch {
		case word == "T" || word == "½T" || word == "open":
		case word == "½":
			halfDown += "1" // oboe: the half hole is the first finger's
		case word == "+":
			flush()
		case isFingers(word, fingers):
			flush()
			halved := false
			for _, r := range word {
				if r == '½' {
					halved = true
					continue
				}
				if halved {
					halfDown += string(r)
				} else {
					down += string(r)
				}
				halved = false
			}
		default:
			name = append(name, word)
		}
	}
	flush()
	return down, halfDown, keys
}

func isFingers(word, fingers string) bool {
	if word == "½" || utf8.RuneCountInString(word) == 0 {
		return false
	}
	return strings.Trim(word, fingers+"½") == ""
}
