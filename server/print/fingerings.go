package print

import (
	"earlychorus/core/instrument"
	"earlychorus/core/notation"
	"earlychorus/core/scores"
)

// The day's fingerings, drawn in a row at the end of a sheet where there is room for them:
// each note once, what is hard first.
const (
	fingeringHigh = 24.  // millimetres, with its name
	fingeringUnit = 0.13 // millimetres to a unit of a diagram
	fingeringGap  = 3.
)

// fingerings draws the row and returns where the page goes on; nothing where it does not
// fit.
func (p page) fingerings(s notation.Sheet, y, bottom float64) float64 {
	notes := fingered(s)
	if len(notes) == 0 || y+fingeringHigh > bottom {
		return y
	}
	x := margin
	for _, seg := range notes {
		d := seg.Fingering.Diagram
		wide := max(d.Width*fingeringUnit, 12)
		if x+wide > p.paper.wide-margin {
			break
		}
		p.black()
		p.SetFont("serif", "B", smallPoints)
		p.Text(x, y+3, seg.WrittenName)
		p.diagram(d, x, y+4.5)
		x += wide + fingeringGap
	}
	return y + fingeringHigh
}

// fingered lists the notes of a sheet that have a fingering, each once: hard ones first,
// then in the order they come.
func fingered(s notation.Sheet) (out []scores.Segment) {
	seen := map[string]bool{}
	for _, hard := range []bool{true, false} {
		for _, step := range s.Steps {
			for _, seg := range step.Score.Segments {
				if seg.Fingering == nil || seg.Hard != hard || seen[seg.WrittenName] {
					continue
				}
				seen[seg.WrittenName] = true
				out = append(out, seg)
			}
		}
	}
	return out
}

// diagram draws a fingering as the core laid it out; x and y are its upper left corner.
func (p page) diagram(d instrument.Diagram, x, y float64) {
	p.SetLineWidth(0.15)
	for _, m := range d.Marks {
		mx, my, size := x+m.X*fingeringUnit, y+m.Y*fingeringUnit, m.Size*fingeringUnit
		style := "D"
		if m.State == "closed" {
			style = "FD"
		}
		switch m.Shape {
		case "bar":
			p.Line(mx-size, my, mx+size, my)
			continue
		case "bell":
			p.Line(mx, my-size, mx-0.6, my-0.5)
			p.Line(mx, my+size, mx-0.6, my+0.5)
			continue
		case "key":
			p.Rect(mx-size, my-size/2, 2*size, size, style)
			p.SetFont("sans", "", keyPoints)
			p.Text(mx+size+0.4, my+0.6, keyWords(m))
			continue
		}
		p.Circle(mx, my, size, style)
		if m.State == "half" {
			p.Rect(mx-size, my, 2*size, 0.2, "F")
		}
		if m.Shape != "hole" {
			p.SetFont("sans", "", keyPoints)
			p.Text(mx-0.4, my+size+1.6, m.Label)
		}
	}
}

const keyPoints = 4.5

// keyWords names a key and the finger that presses it.
func keyWords(m instrument.Mark) string {
	if m.Finger == "" {
		return m.Label
	}
	return m.Label + ", " + m.Finger
}
