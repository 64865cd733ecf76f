package print

import (
	"fmt"
	"io"
	"time"
)

// Report is a page for home, in words a family reads.
type Report struct {
	School     string
	Class      string
	Player     string
	Instrument string
	Span       string // "5 October to 26 November"
	Played     string // "on 31 days"
	Well       []string
	Try        string
	Help       []string
	Lines      []ReportLine
	Ladders    []string
	Comments   []string
}

// ReportLine is one value by week.
type ReportLine struct {
	Title  string
	Says   string
	Unit   string
	Points []ReportPoint
}

// ReportPoint is a week's value.
type ReportPoint struct {
	Monday time.Time
	Value  float64
}

// ownNumbers stands under everything: a family must not think of other children.
const ownNumbers = "These are the player’s own numbers, compared with nobody else’s. A harder step makes them " +
	"worse for a while."

const (
	chartHigh    = 30.
	mostLadders  = 5
	mostComments = 6
	lineHigh     = 5.2
)

// HomeReport writes the page.
func HomeReport(out io.Writer, paper Paper, r Report) error {
	p := newDocument(r.Player, paper)
	p.AddPage()
	// fpdf puts a millimetre around every cell, which would set text off from what is drawn
	// beside it.
	p.SetCellMargin(0)
	p.SetFont("serif", "B", 20)
	p.Text(margin, margin+8, p.cut(r.Player, p.bodyWide()))
	p.SetFont("sans", "", 10)
	p.grey()
	p.Text(margin, margin+15, fmt.Sprintf("%s · %s, %s · %s", r.Instrument, r.Class, r.School, r.Span))
	p.black()
	p.SetFont("serif", "", 11)
	p.SetXY(margin, margin+20)
	p.MultiCell(p.bodyWide(), lineHigh, r.Played, "", "L", false)
	y := p.GetY() + 4
	y = p.reportList("What went well", r.Well, len(r.Well), y)
	if r.Try != "" {
		y = p.reportList("One thing to try", []string{r.Try}, 1, y)
	}
	y = p.reportList("How you can help", r.Help, len(r.Help), y)
	y = p.reportList("From the director", r.Comments, mostComments, y)
	y = p.reportList("On the way to a hard note", r.Ladders, mostLadders, y)
	for _, l := range r.Lines {
		y = p.reportLine(l, y)
	}
	p.SetFont("sans", "", 8.5)
	p.grey()
	p.SetXY(margin, y+2)
	p.MultiCell(p.bodyWide(), 4, ownNumbers, "", "L", false)
	return p.finish(out)
}

// reportLine writes a value's name, what may be said of it, and its weeks as a line
// of dots; it returns where it ends.
func (p page) reportLine(l ReportLine, y float64) float64 {
	// What has no room on the page is left out whole.
	if y+12+chartHigh > p.paper.high-margin {
		return y
	}
	p.SetFont("serif", "B", 12)
	p.Text(margin, y+4, l.Title)
	p.SetXY(margin, y+6)
	if l.Says != "" {
		p.SetFont("serif", "", 10.5)
		p.MultiCell(p.bodyWide(), lineHigh, l.Says, "", "L", false)
	}
	top := p.GetY() + 3
	bottom := top + chartHigh
	p.SetDrawColor(150, 150, 150)
	p.SetLineWidth(0.2)
	p.Line(margin, bottom, margin+p.bodyWide(), bottom)
	most := 1e-9
	for _, w := range l.Points {
		most = max(most, w.Value)
	}
	x := func(n int) float64 {
		first, last := l.Points[0].Monday, l.Points[len(l.Points)-1].Monday
		if first.Equal(last) {
			return margin + p.bodyWide()/2
		}
		return margin + 8 + (p.bodyWide()-16)*float64(l.Points[n].Monday.Sub(first))/float64(last.Sub(first))
	}
	at := func(n int) float64 { return bottom - (chartHigh-8)*l.Points[n].Value/most }
	p.SetFillColor(0, 0, 0)
	p.SetFont("sans", "", 8)
	for n, w := range l.Points {
		if n > 0 {
			p.Line(x(n-1), at(n-1), x(n), at(n))
		}
		p.Circle(x(n), at(n), 1, "F")
		p.Text(x(n)-3, at(n)-2.2, fmt.Sprintf("%.0f %s", w.Value, l.Unit))
		p.grey()
		p.Text(x(n)-5, bottom+3.6, w.Monday.Format("2 Jan"))
		p.black()
	}
	return bottom + 10
}

// reportList prints as many lines as there is room for, and the place below them, in
// millimetres. A page for home is one page.
func (p page) reportList(title string, lines []string, most int, y float64) float64 {
	if len(lines) == 0 {
		return y
	}
	p.SetFont("serif", "B", 12)
	p.Text(margin, y+4, title)
	p.SetFont("serif", "", 11)
	p.SetXY(margin, y+6)
	for _, l := range lines[:min(most, len(lines))] {
		p.SetX(margin)
		p.MultiCell(p.bodyWide(), lineHigh, l, "", "L", false)
	}
	return p.GetY() + 4
}
