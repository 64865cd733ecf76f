package engrave

import (
	"strconv"
	"strings"

	"earlychorus/core/bars"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// silent draws a bar of rest, with a number where it stands for several.
func (l *line) silent(b bar, stretch float64) {
	middle := l.x + l.width(b)*stretch/2
	l.glyph(wholeRest, middle-0.55, 1)
	if b.rests > 1 {
		l.add(Mark{
			Kind:  Text,
			X:     middle,
			Y:     -0.7,
			Thick: textHigh,
			Words: strconv.Itoa(b.rests),
		})
	}
}

func (l *line) notes(b bar, stretch float64) {
	x := l.x + 1.0
	var group []float64 // of a triplet
	units := 0
	for _, s := range b.Symbols {
		at := x
		if s.Accidental != "" {
			at += 1.1
		}
		if s.Rest {
			l.rest(s, at)
		} else {
			l.note(s, at)
		}
		if s.Triplet {
			group = append(group, at)
			if units += s.Units; units%bars.UnitsPerBeat == 0 {
				l.glyph(three, (group[0]+group[len(group)-1])/2+0.2, min(-1, l.out.highs)-0.2)
				l.reach(-2.2)
				group = nil
			}
		}
		x += l.natural(s) * stretch
		l.endHairpin(s, x-0.6)
	}
}

func (l *line) rest(s bars.Symbol, x float64) {
	y := 2.
	if s.Type == "whole" {
		y = 1
	}
	l.glyph(rests[s.Type], x, y)
	if s.Dotted {
		l.glyph(dot, x+1.6, 1.5)
	}
}

// height is how far under the top line a written note lies, in spaces.
func height(p music.Spelling, clef string) float64 {
	const steps = "CDEFGAB"
	step := float64(7*p.Octave + strings.Index(steps, p.Step))
	top := float64(7*5 + 3) // F5
	if clef == "bass" {
		top = 7*3 + 5 // A3
	}
	return (top - step) / 2
}

func (l *line) note(s bars.Symbol, x float64) {
	seg := l.score.Segments[s.Segment]
	y := height(*s.Note(l.score), l.score.Clef)
	l.reach(y - 0.6)
	l.reach(y + 0.6)
	for n := 5.; n <= y+0.01; n++ {
		l.ledger(x, n)
	}
	for n := -1.; n >= y-0.01; n-- {
		l.ledger(x, n)
	}
	head := blackHead
	switch s.Type {
	case "whole":
		head = wholeHead
	case "half":
		head = halfHead
	}
	if seg.Phase != scores.Play {
		head = crossed[head]
	}
	width := headWidth
	if s.Type == "whole" {
		width = 1.7
	}
	l.glyph(head, x, y)
	if s.Accidental != "" {
		l.glyph(alterations[s.Accidental], x-1.15, y)
	}
	if s.Dotted {
		aside := y
		if y == float64(int(y)) {
			aside -= 0.5 // a dot stands in a space
		}
		l.glyph(dot, x+width+0.35, aside)
	}
	at := place{x + width/2, y, 1}
	if y < 2 {
		at.up = -1
	}
	if s.Type != "whole" {
		l.stem(s, x, y, at.up)
	}
	l.join(s, at)
	l.mark(s, at)
	l.finger(seg, at)
}

func (l *line) ledger(x, y float64) {
	l.add(Mark{
		Kind:  Line,
		X:     x - ledgerReach,
		Y:     y,
		X2:    x + headWidth + ledgerReach,
		Y2:    y,
		Thick: 0.16,
	})
}

func (l *line) stem(s bars.Symbol, x, y, up float64) {
	sx, end := x+headWidth-stemThick/2, y-stemLength
	if up < 0 {
		sx, end = x+stemThick/2, y+stemLength
	}
	l.add(Mark{
		Kind:  Line,
		X:     sx,
		Y:     y - 0.15*up,
		X2:    sx,
		Y2:    end,
		Thick: stemThick,
	})
	l.reach(end)
	if code, ok := flags[s.Type]; ok {
		if up < 0 {
			code++
		}
		l.glyph(code, sx-stemThick/2, end)
	}
}

// join draws ties and slurs that end here, and begins those that start.
func (l *line) join(s bars.Symbol, at place) {
	if s.TieFrom && l.tieFrom != nil {
		l.arc(*l.tieFrom, at, 0.6)
	}
	l.tieFrom = nil
	if s.TieTo {
		l.tieFrom = &at
	}
	if s.Goal && l.slideFrom != nil {
		l.slide(*l.slideFrom, at)
	}
	l.slideFrom = nil
	if s.SlideTo {
		l.slideFrom = &at
	}
	l.slurLow = max(l.slurLow, at.y)
	if s.SlurEnd && l.slurFrom != nil {
		under := 0.
		if sideOf(*l.slurFrom, at) > 0 {
			under = l.slurLow - max(l.slurFrom.y, at.y) // a lower note between is gone round
		}
		l.arc(*l.slurFrom, at, 1.1+under)
		l.slurFrom = nil
	}
	if s.SlurStart {
		l.slurFrom, l.slurLow = &at, at.y
	}
}

// slide draws a line from one head to the goal's.
func (l *line) slide(from, to place) {
	l.add(Mark{
		Kind:  Line,
		X:     from.x + 0.9,
		Y:     from.y,
		X2:    to.x - 0.9,
		Y2:    to.y,
		Thick: 0.16,
	})
}

// arc bows away from the stems: under the heads where both go up, else over
// everything.
func (l *line) arc(from, to place, bow float64) {
	side := sideOf(from, to)
	end := func(p place) float64 {
		if side < 0 && p.up > 0 {
			return p.y - stemLength - 0.4
		}
		return p.y + 0.8*side
	}
	y, y2 := end(from), end(to)
	l.add(Mark{
		Kind:  Arc,
		X:     from.x + 0.3,
		Y:     y,
		X2:    to.x - 0.3,
		Y2:    y2,
		Bow:   bow * side,
		Thick: 0.2,
	})
	l.reach(y + 1.2*side)
	l.reach(y2 + 1.2*side)
}

// sideOf is where an arc bows to: 1 under the notes, -1 over them.
func sideOf(from, to place) float64 {
	if from.up < 0 || to.up < 0 {
		return -1
	}
	return 1
}

// finger writes a note's fingering under the staff, once a line.
func (l *line) finger(seg scores.Segment, at place) {
	if seg.Fingering == nil || l.fingered[seg.WrittenName] {
		return
	}
	l.fingered[seg.WrittenName] = true
	y := max(5.9, at.y+2)
	half := 0.3 * textHigh * float64(len([]rune(seg.Fingering.Text)))
	if at.x-half < l.textEnd && y < l.textLow+textHigh {
		y = l.textLow + textHigh // the one before is in the way
	}
	l.textEnd, l.textLow = at.x+half, y
	l.add(Mark{
		Kind:  Text,
		X:     at.x,
		Y:     y,
		Thick: textHigh,
		Words: seg.Fingering.Text,
	})
	l.reach(y)
}
