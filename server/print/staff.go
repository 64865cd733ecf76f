package print

import (
	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"

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
	at := func(q fixed.Point26_6) (float64, float64) {
		return x + float64(q.X)/64*spacesPerUnit*space, y + float64(q.Y)/64*spacesPerUnit*space
	}
	open := false
	for _, s := range music().outline(code) {
		ax, ay := at(s.Args[0])
		switch s.Op {
		case sfnt.SegmentOpMoveTo:
			if open {
				p.ClosePath()
			}
			p.MoveTo(ax, ay)
			open = true
		case sfnt.SegmentOpLineTo:
			p.LineTo(ax, ay)
		case sfnt.SegmentOpQuadTo:
			bx, by := at(s.Args[1])
			p.CurveTo(ax, ay, bx, by)
		case sfnt.SegmentOpCubeTo:
			bx, by := at(s.Args[1])
			cx, cy := at(s.Args[2])
			p.CurveBezierCubicTo(ax, ay, bx, by, cx, cy)
		}
	}
	if open {
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
