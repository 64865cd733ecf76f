package print

import (
	"fmt"
	"io"
	"slices"
	"strings"

	"earlychorus/core/engrave"
	"earlychorus/core/instrument"
	"earlychorus/core/notation"
	"earlychorus/core/scores"
)

// Staff spaces a day is tried in, from the one read across a stand to the least
// that still is; the first that lets the day fit on a page is taken.
var spaces = []float64{2.3, 2.1, 1.9, 1.75, 1.6, 1.45, 1.3, 1.15, 1.0}

const (
	headingPoints = 11.
	saysPoints    = 9.5
	smallPoints   = 8.5
	lineFeed      = 1.3
	stepGap       = 2.2
	titleHigh     = 13.
)

// Fingers is how a sheet shows fingerings.
type Fingers string

const (
	FingersDrawn Fingers = "drawn" // at the foot; brass, which have a digit or two, under the notes as well
	FingersWords Fingers = "words" // under the notes, in words
	FingersNone  Fingers = "none"
)

// AllFingers lists them, the usual first.
func AllFingers() []Fingers { return []Fingers{FingersDrawn, FingersWords, FingersNone} }

// Sheets writes a day's sheets as PDF, each section on a page of its own. More
// than a page is only taken by a day that does not fit in the smallest size.
func Sheets(out io.Writer, paper Paper, title string, fingers Fingers, sheets []notation.Sheet) error {
	p := newDocument(title, paper)
	for _, s := range sheets {
		p.sheet(s, fingers)
	}
	if len(sheets) == 0 {
		p.AddPage()
		p.SetFont("serif", "", 14)
		p.Text(margin, margin+10, "Nothing is planned for this day.")
	}
	return p.finish(out)
}

// laid is a step laid out in a size.
type laid struct {
	step    notation.StepPart
	systems []engrave.System
}

// sheet is one player's page. Staves are set as large as still leave everything on
// it: two pages would be one too many on a stand.
func (p page) sheet(s notation.Sheet, fingers Fingers) {
	space := spaces[len(spaces)-1]
	foot := 5 + float64(len(p.cautions(s)))*smallPoints*pointHigh*lineFeed
	var steps []laid
	for _, try := range spaces {
		steps = p.layOut(s, try, fingers)
		// From the largest down: nine sizes at most, each laid out anew, since a smaller staff
		// breaks its lines elsewhere.
		if titleHigh+p.height(steps, try)+foot <= p.paper.high-2*margin {
			space = try
			break
		}
	}
	p.AddPage()
	y := p.title(s)
	for n, step := range steps {
		// Even the smallest size may be too much; then a step is never cut in two.
		if y+p.stepHeight(step, space)+foot > p.paper.high-margin && y > margin+titleHigh {
			p.foot(s)
			p.AddPage()
			y = p.title(s)
		}
		y = p.step(n+1, step, y, space)
	}
	if fingers == FingersDrawn {
		p.fingerings(s, y+stepGap, p.paper.high-margin-foot)
	}
	p.foot(s)
}

// layOut engraves every step for one size of staff, in staff spaces.
func (p page) layOut(s notation.Sheet, space float64, fingers Fingers) []laid {
	out := make([]laid, len(s.Steps))
	under := fingers == FingersWords || fingers == FingersDrawn && isBrass(s.Instrument)
	for n, step := range s.Steps {
		score := step.Score
		if !under {
			score = withoutFingers(score)
		}
		out[n] = laid{step, engrave.Score(score, p.bodyWide()/space)}
	}
	return out
}

// isBrass reports whether an instrument's fingerings are a digit or two.
func isBrass(key string) bool {
	i, err := instrument.Get(key)
	return err == nil && i.Family == instrument.Brass
}

// withoutFingers is a score without the words of its fingerings.
func withoutFingers(s scores.Score) scores.Score {
	s.Segments = slices.Clone(s.Segments)
	for n := range s.Segments {
		s.Segments[n].Fingering = nil
	}
	return s
}

// title is the player, the class and the week, on one line. It answers with where
// the next thing goes, in millimetres from the top.
func (p page) title(s notation.Sheet) float64 {
	p.black()
	p.SetFont("serif", "B", 17)
	p.Text(margin, margin+6, s.Player)
	p.SetFont("serif", "", 10)
	p.grey()
	// At the right edge, whatever its length.
	wide := p.GetStringWidth(s.Title)
	p.Text(p.paper.wide-margin-wide, margin+6, s.Title)
	p.black()
	p.SetLineWidth(0.3)
	p.Line(margin, margin+8.5, p.paper.wide-margin, margin+8.5)
	return margin + titleHigh
}

// height is millimetres of all the steps.
func (p page) height(steps []laid, space float64) (sum float64) {
	for _, s := range steps {
		sum += p.stepHeight(s, space)
	}
	return sum
}

// stepHeight is millimetres of a step: its heading, its words and its lines of
// music.
func (p page) stepHeight(s laid, space float64) float64 {
	sum := headingPoints*pointHigh*lineFeed + float64(len(p.words(s)))*smallPoints*pointHigh*lineFeed + stepGap
	sum += float64(len(p.says(s))) * saysPoints * pointHigh * lineFeed
	for _, y := range s.systems {
		sum += (y.Above + y.Below + 0.6) * space
	}
	return sum
}

// step prints one step and returns where the next begins.
func (p page) step(n int, s laid, y, space float64) float64 {
	p.black()
	p.SetFont("serif", "B", headingPoints)
	y += headingPoints * pointHigh * lineFeed
	heading := fmt.Sprintf("%d  %s", n, s.step.Name)
	p.Text(margin, y, p.cut(heading, p.bodyWide()-34))
	p.SetFont("sans", "", headingPoints-1)
	tempo := fmt.Sprintf("♩ = %.0f", s.step.Score.TempoBPM)
	if s.step.Times > 1 {
		tempo += fmt.Sprintf("   %d times", s.step.Times)
	}
	if !s.step.Score.Ticked {
		p.Text(p.paper.wide-margin-p.GetStringWidth(tempo), y, tempo)
	}
	p.SetFont("serif", "", saysPoints)
	for _, line := range p.says(s) {
		y += saysPoints * pointHigh * lineFeed
		p.Text(margin+5, y, line)
	}
	for _, system := range s.systems {
		y += system.Above * space
		p.engraved(system, margin, y, space)
		y += (system.Below + 0.6) * space
	}
	p.SetFont("sans", "", smallPoints)
	p.grey()
	for _, line := range p.words(s) {
		y += smallPoints * pointHigh * lineFeed
		p.Text(margin+5, y, line)
	}
	p.black()
	return y + stepGap
}

// says are the lines of what to do, in the notes that the section reads: whole, whatever their
// length.
func (p page) says(s laid) []string {
	if s.step.Says == "" {
		return nil
	}
	p.SetFont("serif", "", saysPoints)
	return p.SplitText(s.step.Says, p.bodyWide()-5)
}

// words are the lines printed under a step: its course where there are no notes,
// what was put elsewhere, cautions.
func (p page) words(s laid) []string {
	var out []string
	score := s.step.Score
	switch {
	case score.Ticked:
		out = append(out, "□ "+strings.Join(score.Items, "   □ "))
	case len(s.systems) == 0 && s.step.Says == "":
		out = append(out, course(score))
	case len(s.systems) == 0 && rounds(score) > 1:
		out = append(out, fmt.Sprintf("%d rounds", rounds(score)))
	}
	return p.lines(append(out, score.Notices...))
}

// lines breaks texts to the width of the page. The font is set first, for it is what
// is measured.
func (p page) lines(texts []string) (out []string) {
	p.SetFont("sans", "", smallPoints)
	for _, text := range texts {
		out = append(out, p.SplitText(text, p.bodyWide()-5)...)
	}
	return out
}

// cautions are those of the whole day, each once.
func (p page) cautions(s notation.Sheet) []string {
	var all []string
	for _, step := range s.Steps {
		for _, c := range step.Score.Cautions {
			// A caution printed with each of nine steps is read once, if at all.
			if !slices.Contains(all, c) {
				all = append(all, c)
			}
		}
	}
	if len(all) == 0 {
		return nil
	}
	return p.lines([]string{"Take care. " + strings.Join(all, " ")})
}

// foot prints the day's cautions at the foot of the page.
func (p page) foot(s notation.Sheet) {
	lines := p.cautions(s)
	y := p.paper.high - margin - float64(len(lines)-1)*smallPoints*pointHigh*lineFeed
	p.SetLineWidth(0.2)
	if len(lines) > 0 {
		p.Line(margin, y-4, p.paper.wide-margin, y-4)
	}
	for n, line := range lines {
		p.Text(margin, y+float64(n)*smallPoints*pointHigh*lineFeed, line)
	}
}

// rounds counts a score's breaths: a round begins with one.
func rounds(s scores.Score) (n int) {
	for _, seg := range s.Segments {
		if seg.Phase == scores.Breathe {
			n++
		}
	}
	return n
}

// course says what is done one after the other, once for all rounds.
func course(s scores.Score) string {
	var parts []string
	rounds := 0
	for _, seg := range s.Segments {
		// A round begins with its breath.
		if seg.Phase == scores.Breathe {
			rounds++
		}
		if rounds > 1 || seg.Phase == scores.Ready {
			continue
		}
		part := fmt.Sprintf("%s %.0f", seg.Text, float64(seg.Beats))
		if seg.Bursts > 0 {
			part += fmt.Sprintf(" in %d bursts", seg.Bursts)
		}
		parts = append(parts, part)
	}
	out := strings.Join(parts, ", ")
	if rounds > 1 {
		out += fmt.Sprintf("; %d rounds", rounds)
	}
	return out
}

// cut shortens a line to a width.
func (p page) cut(text string, width float64) string {
	if p.GetStringWidth(text) <= width {
		return text
	}
	runes := []rune(text)
	for len(runes) > 1 && p.GetStringWidth(string(runes)+"…") > width {
		runes = runes[:len(runes)-1]
	}
	return string(runes) + "…"
}
