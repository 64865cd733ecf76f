// Package bars lays a score out in bars of four beats, as an engraver sets it: which
// symbols stand in each, and what is drawn beside them.
package bars

import (
	"math"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Units divide a quarter note, which is a beat: enough for halves, thirds and
// quarters of it.
const (
	UnitsPerBeat = 12
	BeatsPerBar  = 4
	unitsPerBar  = UnitsPerBeat * BeatsPerBar
)

// Bar is four beats of written music.
type Bar struct {
	Symbols []Symbol `json:"symbols" nullable:"false"`
}

// Symbol is one note or rest as it is engraved; a longer note is several, tied.
type Symbol struct {
	Segment    int          `json:"segment" doc:"index into the score's segments"`
	Phase      scores.Phase `json:"phase"`
	Units      int          `json:"units" doc:"length, 12 to a quarter"`
	Type       string       `json:"type" enum:"whole,half,quarter,eighth,16th,32nd"`
	Dotted     bool         `json:"dotted,omitempty"`
	Triplet    bool         `json:"triplet,omitempty"`
	Rest       bool         `json:"rest,omitempty"`
	Accidental string       `json:"accidental,omitempty" doc:"to be drawn, after the key and the bar so far" enum:"sharp,flat,natural"`
	TieFrom    bool         `json:"tie_from,omitempty" doc:"tied from the one before"`
	TieTo      bool         `json:"tie_to,omitempty" doc:"tied to the next one"`
	SlurStart  bool         `json:"slur_start,omitempty"`
	SlurEnd    bool         `json:"slur_end,omitempty"`
	SlideTo    bool         `json:"slide_to,omitempty" doc:"a slide goes on from it to the next symbol, its goal"`
	Goal       bool         `json:"goal,omitempty" doc:"the goal of a slide: its note is the segment's goal"`
	Text       string       `json:"text,omitempty" doc:"what to do, over the first symbol of its segment"`

	Dynamic    scores.Dynamic `json:"dynamic,omitempty" doc:"to be drawn under it: the loudness changes here" enum:"pp,p,mp,mf,f,ff"`
	Hairpin    Hairpin        `json:"hairpin,omitempty" doc:"begins here" enum:"grow,fade"`
	HairpinEnd bool           `json:"hairpin_end,omitempty" doc:"ends with this symbol"`
	Mark       scores.Mark    `json:"mark,omitempty" enum:"staccato,tenuto,accent"`
	Manner     string         `json:"manner,omitempty" doc:"how it is played, in a word or two over it: no tongue, taper, 2 pushes a beat"`
}

// Hairpin is a loudness that changes along notes.
type Hairpin string

const (
	Grow Hairpin = "grow"
	Fade Hairpin = "fade"
)

// value is a written length.
type value struct {
	units   int
	name    string
	dotted  bool
	triplet bool
}

// values are the lengths that can be written, the longest first.
var values = []value{
	{48, "whole", false, false},
	{36, "half", true, false},
	{24, "half", false, false},
	{18, "quarter", true, false},
	{12, "quarter", false, false},
	{9, "eighth", true, false},
	{8, "quarter", false, true},
	{6, "eighth", false, false},
	{4, "eighth", false, true},
	{3, "16th", false, false},
	{2, "16th", false, true},
}

// Of lays a score out in bars of four beats, from its first click.
func Of(s scores.Score) []Bar {
	w := barWriter{score: s}
	for n, seg := range s.Segments {
		from, to := units(seg.StartBeat), units(seg.StartBeat+seg.Beats)
		if seg.Goal == nil {
			w.segment(n, seg, from, to)
			continue
		}
		// A slide is written as two notes, half its time each, with a line between.
		half := from + (to-from)/2
		w.segment(n, seg, from, half)
		last := w.last()
		last.SlideTo, last.TieTo = true, false
		begin := w.at
		w.segment(n, seg, half, to)
		w.goalFrom(begin)
	}
	w.fill()
	w.slurs()
	w.marks()
	w.accidentals()
	return w.bars
}

func units(b music.Beats) int { return int(math.Round(float64(b) * UnitsPerBeat)) }

type barWriter struct {
	score scores.Score
	bars  []Bar
	at    int // units written
}

// last returns the last symbol so far.
func (w *barWriter) last() *Symbol {
	symbols := w.bars[len(w.bars)-1].Symbols
	return &symbols[len(symbols)-1]
}

// goalFrom makes everything from a place in units on the goal of a slide.
func (w *barWriter) goalFrom(begin int) {
	at := 0
	for b := range w.bars {
		for k := range w.bars[b].Symbols {
			if s := &w.bars[b].Symbols[k]; at >= begin {
				s.Goal, s.Text = true, ""
			}
			at += w.bars[b].Symbols[k].Units
		}
	}
}

// Note returns what a symbol stands for on the staff; nil where it is no note.
func (s Symbol) Note(score scores.Score) *music.Spelling {
	seg := score.Segments[s.Segment]
	if s.Goal {
		return &seg.Goal.Written
	}
	return seg.Written
}

func (w *barWriter) segment(n int, seg scores.Segment, from, to int) {
	first := true
	for from < to {
		end := min(to, (from/unitsPerBar+1)*unitsPerBar)
		for _, v := range split(from, end-from) {
			s := Symbol{
				Segment: n,
				Phase:   seg.Phase,
				Units:   v.units,
				Type:    v.name,
				Dotted:  v.dotted,
				Triplet: v.triplet,
				Rest:    seg.Written == nil || !isWritten(seg.Phase),
			}
			if first {
				s.Text = seg.Text
			}
			if !s.Rest {
				s.TieFrom, s.TieTo = !first, from+v.units < to
			}
			w.add(s)
			from += v.units
			first = false
		}
	}
}

// isWritten reports whether a phase has notes on the staff.
func isWritten(p scores.Phase) bool {
	return p.Sounds() || p == scores.Finger || p == scores.Listen || p == scores.Strike
}

// split writes a stretch inside a bar in as few lengths as there are, beginning
// at a beat where it can.
func split(from, length int) (out []value) {
	for length > 0 {
		most := length
		if off := from % UnitsPerBeat; off != 0 {
			most = min(most, UnitsPerBeat-off)
		}
		v := largest(most)
		out = append(out, v)
		from, length = from+v.units, length-v.units
	}
	return out
}

func largest(most int) value {
	for _, v := range values {
		if v.units <= most {
			return v
		}
	}
	return values[len(values)-1]
}

func (w *barWriter) add(s Symbol) {
	if w.at%unitsPerBar == 0 {
		w.bars = append(w.bars, Bar{})
	}
	bar := &w.bars[len(w.bars)-1]
	bar.Symbols = append(bar.Symbols, s)
	w.at += s.Units
}

// fill completes the last bar with rests.
func (w *barWriter) fill() {
	for w.at%unitsPerBar != 0 {
		for _, v := range split(w.at, unitsPerBar-w.at%unitsPerBar) {
			w.add(Symbol{
				Segment: len(w.score.Segments) - 1,
				Phase:   scores.Rest,
				Units:   v.units,
				Type:    v.name,
				Dotted:  v.dotted,
				Triplet: v.triplet,
				Rest:    true,
			})
		}
	}
}

// slurs joins each note with the slurred ones after it.
func (w *barWriter) slurs() {
	segments := w.score.Segments
	begins, ends := map[int]bool{}, map[int]bool{}
	for n := 1; n < len(segments); n++ {
		if segments[n].Articulation != scores.Slurred || !isWritten(segments[n-1].Phase) {
			continue
		}
		if segments[n-1].Articulation != scores.Slurred || n == 1 || !isWritten(segments[n-2].Phase) {
			begins[n-1] = true
		}
		if n+1 == len(segments) || segments[n+1].Articulation != scores.Slurred {
			ends[n] = true
		}
	}
	for b := range w.bars {
		for k := range w.bars[b].Symbols {
			s := &w.bars[b].Symbols[k]
			s.SlurStart = begins[s.Segment] && !s.TieFrom && !s.Rest
			s.SlurEnd = ends[s.Segment] && !s.TieTo && !s.Rest
		}
	}
}

// accidentals marks the notes that need one: those that differ from the key, or
// from the same line or space earlier in the bar.
func (w *barWriter) accidentals() {
	names := map[int]string{-1: "flat", 0: "natural", 1: "sharp"}
	for b := range w.bars {
		now := map[string]int{}
		for k := range w.bars[b].Symbols {
			s := &w.bars[b].Symbols[k]
			if s.Rest || s.TieFrom {
				continue
			}
			p := *s.Note(w.score)
			line := p.Step + string(rune('0'+p.Octave))
			before, marked := now[line]
			if !marked {
				before = w.score.KeyFifths.Alteration(p.Step)
			}
			if p.Alter != before {
				s.Accidental = names[p.Alter]
				now[line] = p.Alter
			}
		}
	}
}
