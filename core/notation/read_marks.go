package notation

import (
	"encoding/xml"

	"earlychorus/core/scores"
)

// How a line is played: slurs, marks and loudness as a file writes them.

// notationsElement is what may stand at a note that matters here.
type notationsElement struct {
	Slurs         []xmlSlur `xml:"slur"`
	Articulations struct {
		Staccato      *struct{} `xml:"staccato"`
		Staccatissimo *struct{} `xml:"staccatissimo"`
		Tenuto        *struct{} `xml:"tenuto"`
		Accent        *struct{} `xml:"accent"`
		StrongAccent  *struct{} `xml:"strong-accent"`
	} `xml:"articulations"`
	Dynamics *dynamicsElement `xml:"dynamics"`
}

type dynamicsElement struct {
	Marks []xmlEmpty `xml:",any"`
}

// mark is how a note is tongued; of several the first that we have.
func (n notationsElement) mark() scores.Mark {
	switch a := n.Articulations; {
	case a.Staccato != nil || a.Staccatissimo != nil:
		return scores.Staccato
	case a.Accent != nil || a.StrongAccent != nil:
		return scores.Accent
	case a.Tenuto != nil:
		return scores.Tenuto
	}
	return ""
}

// loudnesses are the marks a file may write, and what of ours they are.
var loudnesses = map[string]scores.Dynamic{
	"pppp": "pp", "ppp": "pp", "pp": "pp", "p": "p", "mp": "mp", "mf": "mf",
	"f": "f", "ff": "ff", "fff": "ff", "ffff": "ff",
}

// loudness reads a dynamic that stands before the next note.
func (r *reader) loudness(start xml.StartElement) error {
	var d dynamicsElement
	if err := r.decoder.DecodeElement(&d, &start); err != nil {
		return err
	}
	r.setLoudness(d)
	return nil
}

func (r *reader) setLoudness(d dynamicsElement) {
	for _, m := range d.Marks {
		if known, ok := loudnesses[m.XMLName.Local]; ok {
			r.dynamic = known
			continue
		}
		r.notice("Dynamics other than from pp to ff are left out.")
	}
}

// wedge begins or ends a hairpin.
func (r *reader) wedge(start xml.StartElement) {
	switch attribute(start, "type") {
	case "crescendo":
		r.hairpin = 1
	case "diminuendo":
		r.hairpin = -1
	case "stop":
		r.hairpin = 0
	}
}

// playedAs adds to a note how it is played.
func (r *reader) playedAs(n *readNote, e notationsElement) {
	if e.Dynamics != nil {
		r.setLoudness(*e.Dynamics)
	}
	n.slur, n.mark, n.dynamic, n.hairpin = r.slurred, e.mark(), r.dynamic, r.hairpin
	for _, s := range e.Slurs {
		switch s.Type {
		case "start":
			r.slurred = true
		case "stop":
			r.slurred = false
		}
	}
	r.dynamic = ""
}

// hairpins turns the notes under a hairpin into notes that each grow or fade a part of the
// way: to the next dynamic that is written, or by two steps.
func hairpins(notes []readNote) {
	now := scores.Dynamic("mf")
	for n := 0; n < len(notes); n++ {
		if notes[n].dynamic != "" {
			now = notes[n].dynamic
		}
		if notes[n].hairpin == 0 {
			continue
		}
		end := n
		for end < len(notes) && notes[end].hairpin == notes[n].hairpin && (end == n || notes[end].dynamic == "") {
			end++
		}
		goal := now.Louder(2 * notes[n].hairpin)
		if end < len(notes) && notes[end].dynamic != "" {
			goal = notes[end].dynamic
		}
		steps := goal.Step() - now.Step()
		for k := n; k < end; k++ {
			notes[k].dynamic = now.Louder(steps * (k - n) / (end - n))
			notes[k].dynamicTo = now.Louder(steps * (k - n + 1) / (end - n))
			if notes[k].dynamicTo == notes[k].dynamic {
				notes[k].dynamicTo = ""
			}
		}
		now, n = goal, end-1
	}
}
