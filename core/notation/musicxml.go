package notation

import (
	"encoding/xml"
	"fmt"
	"io"
	"strconv"

	"earlychorus/core/bars"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

const musicXMLHead = xml.Header +
	`<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" ` +
	`"http://www.musicxml.org/dtds/partwise.dtd">` + "\n"

// WriteMusicXML writes a sheet as MusicXML 4.0: one part, in the instrument's
// written pitch with its transposition. Steps without notes are words over
// rests. Errors are the writer's, or instrument.UnknownError.
func WriteMusicXML(out io.Writer, s Sheet) error {
	i, err := s.of()
	if err != nil {
		return err
	}
	score := xmlScore{
		Version:        "4.0",
		Work:           xmlWork{s.Title},
		Identification: xmlIdentification{xmlEncoding{"Early Chorus"}},
		PartList:       xmlPartList{xmlScorePart{"P1", s.Player}},
		Part:           xmlPart{ID: "P1", Measures: []xmlMeasure{}},
	}
	for n, step := range s.Steps {
		score.Part.Measures = append(score.Part.Measures, measuresOf(step, n, len(score.Part.Measures), i)...)
	}
	if _, err := io.WriteString(out, musicXMLHead); err != nil {
		return err
	}
	enc := xml.NewEncoder(out)
	enc.Indent("", " ")
	if err := enc.Encode(score); err != nil {
		return err
	}
	_, err = io.WriteString(out, "\n")
	return err
}

// measuresOf writes one step, which begins a line of its own. before is how many
// measures there are.
func measuresOf(step StepPart, n, before int, i instrument.Instrument) []xmlMeasure {
	w := xmlWriter{score: step.Score}
	var out []xmlMeasure
	written := bars.Of(step.Score)
	for b, bar := range written {
		m := xmlMeasure{Number: before + b + 1}
		if b == 0 {
			m.Attrs = attributes(step.Score, i, n == 0)
			m.Music = append(m.Music, opening(step, n))
			if n > 0 {
				m.Print = &xmlPrint{"yes"}
			}
		}
		for _, s := range bar.Symbols {
			m.Music = append(m.Music, w.symbol(s)...)
		}
		if b == len(written)-1 {
			m.End = &xmlBarline{"right", "light-heavy"}
		}
		out = append(out, m)
	}
	return out
}

func attributes(s scores.Score, i instrument.Instrument, first bool) *xmlAttrs {
	a := &xmlAttrs{Key: &xmlKey{int(s.KeyFifths), "major"}}
	if !first {
		return a
	}
	a.Divisions, a.Time = bars.UnitsPerBeat, &xmlTime{bars.BeatsPerBar, 4}
	a.Clef = &xmlClef{"G", 2}
	if i.Clef == instrument.Bass {
		a.Clef = &xmlClef{"F", 4}
	}
	a.Transpose = transpose(i.Transposition)
	return a
}

// diatonicOf is how many steps of the staff a transposition of so many semitones
// moves: a whole step is one, a minor third two.
var diatonicOf = [12]int{0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6}

// transpose is what is added to the written note to get the sounding one.
func transpose(writtenAbove int) *xmlTranspose {
	if writtenAbove == 0 {
		return nil
	}
	octaves, rest := -(writtenAbove / 12), writtenAbove%12
	if rest < 0 { // written below: not in this band, but for the octave
		octaves, rest = octaves+1, rest+12
	}
	return &xmlTranspose{Diatonic: -diatonicOf[rest], Chromatic: -rest, Octave: octaves}
}

func opening(step StepPart, n int) xmlDirection {
	tempo := strconv.FormatFloat(float64(step.Score.TempoBPM), 'f', -1, 64)
	heading := fmt.Sprintf("%d. %s", n+1, step.Heading)
	if step.Times > 1 {
		heading += fmt.Sprintf(", %d times", step.Times)
	}
	return xmlDirection{
		Placement: "above",
		Types:     []xmlDirectionType{{Words: &xmlWords{Text: heading}}, {Metronome: &xmlMetronome{"quarter", tempo}}},
		Sound:     &xmlSound{Tempo: float64(step.Score.TempoBPM)},
	}
}

type xmlWriter struct {
	score scores.Score
	wedge bool // one is open
}

func (w *xmlWriter) symbol(s bars.Symbol) (out []any) {
	seg := w.score.Segments[s.Segment]
	if s.Text != "" && (s.Rest || seg.Phase != scores.Play) {
		out = append(out, words(s.Text))
	}
	if s.Manner != "" {
		out = append(out, words(s.Manner))
	}
	out = append(out, w.dynamics(s)...)
	note := xmlNote{
		Duration:   s.Units,
		Voice:      1,
		Type:       s.Type,
		Accidental: s.Accidental,
	}
	if s.Dotted {
		note.Dot = &struct{}{}
	}
	if s.Triplet {
		note.Triplet = &xmlModified{3, 2}
	}
	if s.Rest {
		note.Rest, note.Accidental = &struct{}{}, ""
		return append(out, note)
	}
	pitch := s.Note(w.score)
	note.Pitch = &xmlPitch{pitch.Step, pitch.Alter, pitch.Octave}
	if seg.Phase != scores.Play {
		note.Head = &xmlNotehead{heads[seg.Phase]}
	}
	note.Ties, note.Notations = ties(s), notationsOf(s, seg)
	return append(out, note)
}

// heads tell what is not played on the instrument.
var heads = map[scores.Phase]string{
	scores.Buzz:   "x",
	scores.Strike: "x",
	scores.Sing:   "diamond",
	scores.Finger: "slash",
	scores.Listen: "circle-x",
}

func words(text string) xmlDirection {
	return xmlDirection{Placement: "above", Types: []xmlDirectionType{{Words: &xmlWords{"italic", text}}}}
}

// dynamics writes a mark where the loudness changes, and hairpins.
func (w *xmlWriter) dynamics(s bars.Symbol) (out []any) {
	mark := func(t xmlDirectionType, sound *xmlSound) {
		out = append(out, xmlDirection{Placement: "below", Types: []xmlDirectionType{t}, Sound: sound})
	}
	if w.wedge && !s.TieFrom {
		mark(xmlDirectionType{Wedge: &xmlWedge{"stop"}}, nil)
		w.wedge = false
	}
	if s.Dynamic != "" {
		mark(
			xmlDirectionType{Dynamics: &xmlDynamics{xmlEmpty{xml.Name{Local: string(s.Dynamic)}}}},
			&xmlSound{Dynamics: percent(s.Dynamic)},
		)
	}
	if s.Hairpin != "" {
		mark(xmlDirectionType{Wedge: &xmlWedge{wedges[s.Hairpin]}}, nil)
		w.wedge = true
	}
	return out
}

var wedges = map[bars.Hairpin]string{bars.Grow: "crescendo", bars.Fade: "diminuendo"}

// percent of a forte's velocity, as MusicXML counts dynamics (90 of MIDI's 127
// is 100).
func percent(d scores.Dynamic) float64 { return float64(velocity(d)) * 100 / 90 }

func ties(s bars.Symbol) (out []xmlTie) {
	if s.TieFrom {
		out = append(out, xmlTie{"stop"})
	}
	if s.TieTo {
		out = append(out, xmlTie{"start"})
	}
	return out
}

func notationsOf(s bars.Symbol, seg scores.Segment) *xmlNotations {
	n := &xmlNotations{Tied: ties(s)}
	if s.SlurEnd {
		n.Slurs = append(n.Slurs, xmlSlur{"stop", 1})
	}
	if s.SlurStart {
		n.Slurs = append(n.Slurs, xmlSlur{"start", 1})
	}
	if s.SlideTo {
		n.Slides = append(n.Slides, xmlSlur{"start", 1})
	}
	if s.Goal && !s.TieFrom {
		n.Slides = append(n.Slides, xmlSlur{"stop", 1})
	}
	if seg.Fingering != nil && !s.TieFrom {
		n.Technical = &xmlTechnical{seg.Fingering.Text}
	}
	if s.Mark != "" {
		n.Marks = &xmlArticulations{xmlEmpty{xml.Name{Local: string(s.Mark)}}}
	}
	if len(n.Tied) == 0 && len(n.Slurs) == 0 && len(n.Slides) == 0 && n.Technical == nil && n.Marks == nil {
		return nil
	}
	return n
}
