package instrument

import (
	"math"
	"slices"
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
	Shape  string  `json:"shape" enum:"hole,key,valve,slide,stop,bar,bell"`
	State  string  `json:"state" enum:"open,closed,half"`
	X      float64 `json:"x"`
	Y      float64 `json:"y"`
	Size   float64 `json:"size"`
	Label  string  `json:"label,omitempty"`
	Finger string  `json:"finger,omitempty" doc:"which finger presses it, of a key"`
}

// ChangesFrom lists the marks that differ from the fingering before, by their
// place in Marks: the fingers that move.
func (d Diagram) ChangesFrom(before Diagram) []int {
	var out []int
	for n, m := range d.Marks {
		if m.Shape == "bar" || m.Shape == "bell" {
			continue
		}
		if was := before.at(m); was.State != m.State || was.Shape != m.Shape && m.Shape == "slide" {
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
		return i.drawHoles(text)
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

// A slide's sheet: its stops at their real distances, so many units to the longest.
const (
	slideFrom  = 12.
	slideReach = 106.
	slideY     = 14.
)

// SlideTravel returns how far out position k of a slide is, from 1, as a share of the
// seventh's: each half step adds 2^(1/12) − 1 of the tube so far.
func SlideTravel(k int) float64 {
	out := func(k int) float64 { return math.Exp2(float64(k-1)/12) - 1 }
	return out(k) / out(slidePositions)
}

// drawSlide: seven stops along a slide at their real distances, the hand on one of them;
// the bell's rim a landmark a little before the fourth (common practice).
func drawSlide(text string) Diagram {
	d := Diagram{Width: 130, Height: 40, Marks: []Mark{
		{
			Shape: "bar",
			State: open,
			X:     slideFrom + slideReach/2,
			Y:     slideY,
			Size:  slideReach / 2,
		},
		{
			Shape: "bell",
			State: open,
			X:     slideAt(3) + 0.8*(slideAt(4)-slideAt(3)),
			Y:     slideY,
			Size:  11,
		},
	}}
	here := text[len(text)-1]
	for k := 1; k <= slidePositions; k++ {
		m := Mark{
			Shape: "stop",
			State: open,
			X:     slideAt(k),
			Y:     slideY,
			Size:  3,
			Label: string(rune('0' + k)),
		}
		if here == byte('0'+k) {
			m.Shape, m.State, m.Size = "slide", closed, 6
		}
		d.Marks = append(d.Marks, m)
	}
	return d
}

func slideAt(k int) float64 { return slideFrom + slideReach*SlideTravel(k) }

// Rows of a woodwind's sheet: the thumb beside the left hand's three fingers,
// the right hand's below, keys beside the hand that presses them.
const (
	fingerX  = 40.
	thumbX   = 16.
	keyX     = 60.
	leftY    = 14.
	rightY   = 84.
	rowStep  = 18.
	holeSize = 7.
)

// drawHoles lays out a woodwind's text: thumb, three fingers of each hand, and
// whatever keys are pressed with them. Recorders have four holes below.
func (i Instrument) drawHoles(text string) Diagram {
	f := i.Family
	d := Diagram{Width: 178, Height: 146}
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
	rights, rightTop := "123", rightY
	if f == Recorders {
		rights, rightTop = "4567", rightY-4
	}
	d.addHand(left, "123", leftY)
	d.addHand(right, rights, rightTop)
	d.addKeys(i, left, "123", leftHand)
	d.addKeys(i, right, rights, rightHand)
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
	closedFingers, halfFingers, _ := handOf(text, fingers)
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
}

// addKeys draws the keys that are pressed beside the hand that presses them: the thumb's
// from the top, the little finger's from below, the others between.
func (d *Diagram) addKeys(i Instrument, text, fingers string, of hand) {
	_, _, keys := handOf(text, fingers)
	for _, key := range keys {
		finger := i.fingerOf(key, of)
		top := leftY
		if finger == "" && of == rightHand || strings.Contains(finger, "right") {
			top = rightY
		}
		y := top
		step := keyStep
		if strings.HasSuffix(finger, "little finger") {
			y, step = top+2*rowStep+littleBelow, -keyStep
		}
		for d.hasKeyAt(y) {
			y += step
		}
		d.Marks = append(d.Marks, Mark{
			Shape:  "key",
			State:  closed,
			X:      keyX,
			Y:      y,
			Size:   5,
			Label:  strings.TrimSuffix(strings.TrimSuffix(key, " (left)"), " (right)"),
			Finger: finger,
		})
	}
}

func (d *Diagram) hasKeyAt(y float64) bool {
	return slices.ContainsFunc(d.Marks, func(m Mark) bool { return m.Shape == "key" && m.Y == y })
}

const (
	keyStep     = 18.
	littleBelow = 4. // under the third finger
)

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
