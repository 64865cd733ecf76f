package print

import (
	"golang.org/x/image/font/sfnt"

	"earlychorus/core/engrave"
)

// engraved draws a line of music; x and y are where the left end of its top line
// lies, space is a staff space, all in millimetres.
func (p page) engraved(s engrave.System, x, y, space float64) {
	for _, m := range s.Marks {
		mx, my := x+m.X*space, y+m.Y*space
		switch m.Kind {
		case engrave.Glyph:
			p.glyph(m.Code, mx, my, space)
		case engrave.Line:
			p.SetLineWidth(m.Thick * space)
			p.Line(mx, my, x+m.X2*space, y+m.Y2*space)
		case engrave.Arc:
			p.arc(m, x, y, space)
		case engrave.Text:
			p.SetFont("sans", "", m.Thick*space/pointHigh)
			wide := p.GetStringWidth(m.Words)
			p.Text(mx-wide/2, my, m.Words)
		}
	}
}

// glyph fills a glyph's outline.
func (p page) glyph(code rune, x, y, space float64) {
	var outline []curve
	for _, s := range music().outline(code) {
		c := curve{op: s.Op}
		for n, q := range s.Args {
			c.at[n] = [2]float64{x + float64(q.X)/64*spacesPerUnit*space, y + float64(q.Y)/64*spacesPerUnit*space}
		}
		outline = append(outline, c)
	}
	p.fill(outline)
}

// curve is a part of an outline, its points in millimetres.
type curve struct {
	op sfnt.SegmentOp
	at [3][2]float64
}

// fill fills an outline.
func (p page) fill(outline []curve) {
	for n, c := range outline {
		a, b, d := c.at[0], c.at[1], c.at[2]
		switch c.op {
		case sfnt.SegmentOpMoveTo:
			if n > 0 {
				p.ClosePath()
			}
			p.MoveTo(a[0], a[1])
		case sfnt.SegmentOpLineTo:
			p.LineTo(a[0], a[1])
		case sfnt.SegmentOpQuadTo:
			p.CurveTo(a[0], a[1], b[0], b[1])
		case sfnt.SegmentOpCubeTo:
			p.CurveBezierCubicTo(a[0], a[1], b[0], b[1], d[0], d[1])
		}
	}
	if len(outline) > 0 {
		p.ClosePath()
		p.DrawPath("F")
	}
}

// arc fills a slur: two curves, thick in the middle.
func (p page) arc(m engrave.Mark, x, y, space float64) {
	x1, y1, x2, y2 := x+m.X*space, y+m.Y*space, x+m.X2*space, y+m.Y2*space
	// Control points a third in: the curve then rises as far as three quarters of their
	// height, hence the 1.33.
	third := (x2 - x1) / 3
	bow := m.Bow * space * 1.33
	thick := m.Thick * space
	// A slur above the notes is thick upward, one below downward.
	if bow < 0 {
		thick = -thick
	}
	p.MoveTo(x1, y1)
	p.CurveBezierCubicTo(x1+third, y1+bow, x2-third, y2+bow, x2, y2)
	p.CurveBezierCubicTo(x2-third, y2+bow+thick, x1+third, y1+bow+thick, x1, y1)
	p.ClosePath()
	p.DrawPath("F")
}
