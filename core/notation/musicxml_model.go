package notation

import "encoding/xml"

// The part of MusicXML 4.0 (W3C Music Notation Community Group, 2021) that is
// written. Names and order are the format's own.

type xmlScore struct {
	XMLName        xml.Name          `xml:"score-partwise"`
	Version        string            `xml:"version,attr"`
	Work           xmlWork           `xml:"work"`
	Identification xmlIdentification `xml:"identification"`
	PartList       xmlPartList       `xml:"part-list"`
	Part           xmlPart           `xml:"part"`
}

type xmlWork struct {
	Title string `xml:"work-title"`
}

type xmlIdentification struct {
	Encoding xmlEncoding `xml:"encoding"`
}

type xmlEncoding struct {
	Software string `xml:"software"`
}

type xmlPartList struct {
	ScorePart xmlScorePart `xml:"score-part"`
}

type xmlScorePart struct {
	ID   string `xml:"id,attr"`
	Name string `xml:"part-name"`
}

type xmlPart struct {
	ID       string       `xml:"id,attr"`
	Measures []xmlMeasure `xml:"measure"`
}

type xmlMeasure struct {
	Number int         `xml:"number,attr"`
	Print  *xmlPrint   `xml:"print"`
	Attrs  *xmlAttrs   `xml:"attributes"`
	Music  []any       `xml:",any"`
	End    *xmlBarline `xml:"barline"`
}

type xmlPrint struct {
	NewSystem string `xml:"new-system,attr"`
}

type xmlBarline struct {
	Location string `xml:"location,attr"`
	Style    string `xml:"bar-style"`
}

type xmlAttrs struct {
	Divisions int           `xml:"divisions,omitempty"`
	Key       *xmlKey       `xml:"key"`
	Time      *xmlTime      `xml:"time"`
	Clef      *xmlClef      `xml:"clef"`
	Transpose *xmlTranspose `xml:"transpose"`
}

type xmlKey struct {
	Fifths int    `xml:"fifths"`
	Mode   string `xml:"mode"`
}

type xmlTime struct {
	Beats    int `xml:"beats"`
	BeatType int `xml:"beat-type"`
}

type xmlClef struct {
	Sign string `xml:"sign"`
	Line int    `xml:"line"`
}

type xmlTranspose struct {
	Diatonic  int `xml:"diatonic"`
	Chromatic int `xml:"chromatic"`
	Octave    int `xml:"octave-change,omitempty"`
}

type xmlDirection struct {
	XMLName   xml.Name           `xml:"direction"`
	Placement string             `xml:"placement,attr,omitempty"`
	Types     []xmlDirectionType `xml:"direction-type"`
	Sound     *xmlSound          `xml:"sound"`
}

type xmlDirectionType struct {
	Words     *xmlWords     `xml:"words"`
	Rehearsal string        `xml:"rehearsal,omitempty"`
	Dynamics  *xmlDynamics  `xml:"dynamics"`
	Wedge     *xmlWedge     `xml:"wedge"`
	Metronome *xmlMetronome `xml:"metronome"`
}

type xmlWords struct {
	Style string `xml:"font-style,attr,omitempty"`
	Text  string `xml:",chardata"`
}

type xmlDynamics struct {
	Mark xmlEmpty
}

// xmlEmpty is an element whose name is all it says.
type xmlEmpty struct{ XMLName xml.Name }

type xmlWedge struct {
	Type string `xml:"type,attr"`
}

type xmlMetronome struct {
	Unit      string `xml:"beat-unit"`
	PerMinute string `xml:"per-minute"`
}

type xmlSound struct {
	Tempo    float64 `xml:"tempo,attr,omitempty"`
	Dynamics float64 `xml:"dynamics,attr,omitempty"`
}

type xmlNote struct {
	XMLName    xml.Name      `xml:"note"`
	Pitch      *xmlPitch     `xml:"pitch"`
	Rest       *struct{}     `xml:"rest"`
	Duration   int           `xml:"duration"`
	Ties       []xmlTie      `xml:"tie"`
	Voice      int           `xml:"voice"`
	Type       string        `xml:"type"`
	Dot        *struct{}     `xml:"dot"`
	Accidental string        `xml:"accidental,omitempty"`
	Triplet    *xmlModified  `xml:"time-modification"`
	Head       *xmlNotehead  `xml:"notehead"`
	Notations  *xmlNotations `xml:"notations"`
}

type xmlPitch struct {
	Step   string `xml:"step"`
	Alter  int    `xml:"alter,omitempty"`
	Octave int    `xml:"octave"`
}

type xmlTie struct {
	Type string `xml:"type,attr"`
}

type xmlModified struct {
	Actual int `xml:"actual-notes"`
	Normal int `xml:"normal-notes"`
}

type xmlNotehead struct {
	Shape string `xml:",chardata"`
}

type xmlNotations struct {
	Tied      []xmlTie      `xml:"tied"`
	Slurs     []xmlSlur     `xml:"slur"`
	Slides    []xmlSlur     `xml:"slide"`
	Technical *xmlTechnical `xml:"technical"`

	Marks *xmlArticulations `xml:"articulations"`
}

type xmlArticulations struct {
	Mark xmlEmpty
}

type xmlSlur struct {
	Type   string `xml:"type,attr"`
	Number int    `xml:"number,attr"`
}

type xmlTechnical struct {
	Other string `xml:"other-technical"`
}
