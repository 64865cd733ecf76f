package notation

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"strings"

	"earlychorus/core/exercise"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// ReadError is a file that cannot be used, with the place in it.
type ReadError struct {
	Place  string // "measure 3", or "" for the whole file
	Remedy string
}

func (e ReadError) Error() string {
	if e.Place == "" {
		return e.Remedy
	}
	return e.Place + ": " + e.Remedy
}

// Excerpt is a line of music read from a file, in degrees from home.
type Excerpt struct {
	Title   string          `json:"title"`
	Tempo   music.Tempo     `json:"tempo_bpm" doc:"0 when the file says none"`
	Melody  []exercise.Note `json:"melody" nullable:"false"`
	Notices []string        `json:"notices" doc:"what was read otherwise than written" nullable:"false"`
}

// What a file may hold. An excerpt is a line, not a symphony.
const (
	largestFile    = 2 << 20 // bytes, as sent
	largestScore   = 4 << 20 // bytes, unpacked
	mostZipEntries = 64
	mostNotes      = 64
)

// ReadExcerpt reads a line of music from MusicXML, plain or compressed. It must
// be one part of one voice. Errors: ReadError.
func ReadExcerpt(file []byte) (Excerpt, error) {
	if len(file) > largestFile {
		return Excerpt{}, ReadError{"", "the file is larger than 2 MB: save just the line"}
	}
	if bytes.HasPrefix(file, []byte("PK")) {
		var err error
		if file, err = unpack(file); err != nil {
			return Excerpt{}, err
		}
	}
	r := reader{decoder: xml.NewDecoder(bytes.NewReader(file)), divisions: 1}
	r.decoder.Strict = true
	r.decoder.CharsetReader = func(string, io.Reader) (io.Reader, error) {
		return nil, ReadError{"", "save the file as UTF-8"}
	}
	if err := r.score(); err != nil {
		return Excerpt{}, r.placed(err)
	}
	return r.excerpt()
}

// unpack takes the score out of a compressed file, never more of it than a score
// may hold.
func unpack(file []byte) ([]byte, error) {
	z, err := zip.NewReader(bytes.NewReader(file), int64(len(file)))
	if err != nil {
		return nil, ReadError{"", "the compressed file is broken: save it again, or as .musicxml"}
	}
	if len(z.File) > mostZipEntries {
		return nil, ReadError{"", fmt.Sprintf("the compressed file holds %d files: a score holds a few", len(z.File))}
	}
	name := rootfile(z)
	for _, f := range z.File {
		if f.Name == name || name == "" && isScore(f.Name) {
			return content(f)
		}
	}
	return nil, ReadError{"", "there is no score inside the compressed file"}
}

func isScore(name string) bool {
	return !strings.HasPrefix(name, "META-INF/") &&
		(strings.HasSuffix(name, ".xml") || strings.HasSuffix(name, ".musicxml"))
}

// rootfile is the score's name, as the container says.
func rootfile(z *zip.Reader) string {
	var container struct {
		Files []struct {
			Path string `xml:"full-path,attr"`
		} `xml:"rootfiles>rootfile"`
	}
	for _, f := range z.File {
		if f.Name != "META-INF/container.xml" {
			continue
		}
		raw, err := content(f)
		if err == nil && xml.Unmarshal(raw, &container) == nil && len(container.Files) > 0 {
			return container.Files[0].Path
		}
	}
	return ""
}

func content(f *zip.File) ([]byte, error) {
	in, err := f.Open()
	if err != nil {
		return nil, ReadError{"", "the compressed file is broken: save it again, or as .musicxml"}
	}
	defer in.Close() //nolint:errcheck // read only
	raw, err := io.ReadAll(io.LimitReader(in, largestScore+1))
	switch {
	case err != nil:
		return nil, ReadError{"", "the compressed file is broken: save it again, or as .musicxml"}
	case len(raw) > largestScore:
		return nil, ReadError{"", "the score unpacks to more than 4 MB: save just the line"}
	}
	return raw, nil
}

// reader walks through a score's tokens.
type reader struct {
	decoder   *xml.Decoder
	title     string
	tempo     music.Tempo
	divisions int
	chromatic int // what is added to the written note to get the sounding one
	parts     int
	measure   string
	voice     string
	notes     []readNote
	notices   []string

	slurred bool           // a slur is open
	dynamic scores.Dynamic // written since the last note
	hairpin int            // open: 1 grows, -1 fades
}

type readNote struct {
	midi  music.MIDI
	rest  bool
	beats music.Beats
	at    string // its measure

	slur      bool
	mark      scores.Mark
	dynamic   scores.Dynamic
	dynamicTo scores.Dynamic
	hairpin   int
}

func (r *reader) placed(err error) error {
	var known ReadError
	if errors.As(err, &known) {
		return err
	}
	place := ""
	if r.measure != "" {
		place = "measure " + r.measure
	}
	return ReadError{place, "the file is broken here: save it again"}
}

func (r *reader) here(remedy string, args ...any) error {
	return ReadError{"measure " + r.measure, fmt.Sprintf(remedy, args...)}
}

func (r *reader) notice(text string) {
	for _, n := range r.notices {
		if n == text {
			return
		}
	}
	r.notices = append(r.notices, text)
}

func (r *reader) score() error {
	root := false
	for {
		token, err := r.decoder.Token()
		if errors.Is(err, io.EOF) {
			if !root {
				return ReadError{"", "this is not a MusicXML file"}
			}
			return nil
		}
		if err != nil {
			if !root {
				return ReadError{"", "this is not a MusicXML file"}
			}
			return err
		}
		start, ok := token.(xml.StartElement)
		if !ok {
			continue
		}
		if !root {
			switch start.Name.Local {
			case "score-partwise":
				root = true
				continue
			case "score-timewise":
				return ReadError{"", "the file is ordered by time: save it as score-partwise"}
			}
			return ReadError{"", "this is not a MusicXML file"}
		}
		if err := r.element(start); err != nil {
			return err
		}
	}
}

// element reads what matters; what does not is walked into, or over.
func (r *reader) element(start xml.StartElement) error {
	switch start.Name.Local {
	case "work-title", "movement-title":
		return r.decoder.DecodeElement(&r.title, &start)
	case "part":
		if r.parts++; r.parts > 1 {
			return ReadError{"", "the file has more than one part: save one alone"}
		}
	case "measure":
		r.measure = attribute(start, "number")
	case "divisions":
		if err := r.decoder.DecodeElement(&r.divisions, &start); err != nil {
			return err
		}
		if r.divisions < 1 || r.divisions > 1<<16 {
			return r.here("its divisions cannot be used")
		}
	case "transpose":
		var t xmlTranspose
		if err := r.decoder.DecodeElement(&t, &start); err != nil {
			return err
		}
		r.chromatic = t.Chromatic + 12*t.Octave
	case "sound":
		var bpm float64
		if _, err := fmt.Sscan(attribute(start, "tempo"), &bpm); err == nil && r.tempo == 0 {
			r.tempo = music.Tempo(bpm)
		}
	case "dynamics":
		return r.loudness(start)
	case "wedge":
		r.wedge(start)
	case "repeat":
		r.notice("Repeats are not played: write them out if they matter.")
	case "backup":
		return r.here("there is more than one voice: save one alone")
	case "forward":
		return r.here("there is a gap in the voice: put a rest there")
	case "note":
		return r.note(start)
	case "credit", "defaults", "identification", "part-list":
		return r.decoder.Skip()
	}
	return nil
}

func attribute(e xml.StartElement, name string) string {
	for _, a := range e.Attr {
		if a.Name.Local == name {
			return a.Value
		}
	}
	return ""
}

// noteElement is what a note may hold that matters here.
type noteElement struct {
	Chord     *struct{} `xml:"chord"`
	Grace     *struct{} `xml:"grace"`
	Cue       *struct{} `xml:"cue"`
	Rest      *struct{} `xml:"rest"`
	Unpitched *struct{} `xml:"unpitched"`
	Pitch     *xmlPitch `xml:"pitch"`
	Duration  float64   `xml:"duration"`
	Ties      []xmlTie  `xml:"tie"`
	Voice     string    `xml:"voice"`
	Staff     string    `xml:"staff"`

	Notations notationsElement `xml:"notations"`
}

var stepSemitones = map[string]int{"C": 0, "D": 2, "E": 4, "F": 5, "G": 7, "A": 9, "B": 11}

func (r *reader) note(start xml.StartElement) error {
	var n noteElement
	if err := r.decoder.DecodeElement(&n, &start); err != nil {
		return err
	}
	switch {
	case n.Chord != nil:
		return r.here("there is a chord: keep one note of it")
	case n.Grace != nil || n.Cue != nil:
		r.notice("Grace and cue notes are left out.")
		return nil
	case n.Unpitched != nil:
		return r.here("there is a note without pitch")
	case n.Staff != "" && n.Staff != "1":
		return r.here("there are two staves: save one alone")
	case n.Voice != "" && r.voice != "" && n.Voice != r.voice:
		return r.here("there is more than one voice: save one alone")
	case n.Duration <= 0:
		return r.here("a note has no length")
	case n.Pitch == nil && n.Rest == nil:
		return r.here("a note has neither pitch nor rest")
	}
	if n.Voice != "" {
		r.voice = n.Voice
	}
	read := readNote{rest: n.Rest != nil, beats: music.Beats(n.Duration / float64(r.divisions)), at: r.measure}
	if !read.rest {
		semitones, ok := stepSemitones[n.Pitch.Step]
		if !ok {
			return r.here("%q is no step of the staff", n.Pitch.Step)
		}
		read.midi = music.MIDI(12*(n.Pitch.Octave+1) + semitones + n.Pitch.Alter + r.chromatic)
		if tiedFrom(n.Ties) && len(r.notes) > 0 && r.notes[len(r.notes)-1].midi == read.midi {
			r.notes[len(r.notes)-1].beats += read.beats
			r.playedAs(&readNote{}, n.Notations) // its slur may end here
			return nil
		}
		r.playedAs(&read, n.Notations)
	}
	r.notes = append(r.notes, read)
	return nil
}

func tiedFrom(ties []xmlTie) bool {
	for _, t := range ties {
		if t.Type == "stop" {
			return true
		}
	}
	return false
}

// concertBFlat is the home note that degrees are counted from.
const concertBFlat music.MIDI = 58

// excerpt puts the notes around home, in the octave where all of them lie within
// what a step may ask for.
func (r *reader) excerpt() (Excerpt, error) {
	notes := trimmed(r.notes)
	switch {
	case len(notes) == 0:
		return Excerpt{}, ReadError{"", "the file has no notes"}
	case len(notes) > mostNotes:
		return Excerpt{}, ReadError{
			"measure " + notes[mostNotes].at,
			fmt.Sprintf("the line has %d notes and rests: %d at most", len(notes), mostNotes),
		}
	}
	hairpins(notes)
	octave, outside := bestOctave(notes)
	if outside >= 0 {
		return Excerpt{}, ReadError{
			"measure " + notes[outside].at,
			"the line is wider than from a fourth below home to an octave above it: choose a shorter piece of it",
		}
	}
	out := Excerpt{
		Title:   strings.TrimSpace(r.title),
		Tempo:   r.tempo,
		Melody:  []exercise.Note{},
		Notices: append([]string{}, r.notices...),
	}
	out.keepTempo()
	for _, n := range notes {
		d := exercise.Note{
			Beats:     n.beats,
			Rest:      n.rest,
			Slur:      n.slur,
			Mark:      n.mark,
			Dynamic:   n.dynamic,
			DynamicTo: n.dynamicTo,
		}
		if d.Beats > mostBeats {
			return Excerpt{}, ReadError{
				"measure " + n.at,
				fmt.Sprintf("a note lasts %.0f beats: %d at most", d.Beats, mostBeats),
			}
		}
		if !n.rest {
			d.Degree = exercise.Degree(n.midi + octave - concertBFlat)
		}
		out.Melody = append(out.Melody, d)
	}
	if octave != 0 {
		out.Notices = append(out.Notices, "The line is played in each instrument's own octave.")
	}
	return out, nil
}

// keepTempo brings a file's tempo within what a step may have, and says so.
func (out *Excerpt) keepTempo() {
	if out.Tempo != 0 && (out.Tempo < music.SlowestTempo || out.Tempo > music.FastestTempo) {
		out.Notices = append(
			out.Notices,
			fmt.Sprintf(
				"The file's tempo of %.0f was brought within %.0f to %.0f.",
				out.Tempo,
				music.SlowestTempo,
				music.FastestTempo,
			),
		)
		out.Tempo = min(music.FastestTempo, max(music.SlowestTempo, out.Tempo))
	}
}

const mostBeats = 16

// trimmed leaves rests before the first and after the last note out.
func trimmed(notes []readNote) []readNote {
	for len(notes) > 0 && notes[0].rest {
		notes = notes[1:]
	}
	for len(notes) > 0 && notes[len(notes)-1].rest {
		notes = notes[:len(notes)-1]
	}
	return notes
}

// bestOctave is what to add so that every note lies within reach of home;
// outside is the first that does not, or -1.
func bestOctave(notes []readNote) (octave music.MIDI, outside int) {
	best, first := 1<<30, 0
	for o := music.MIDI(-72); o <= 72; o += 12 {
		count, where := 0, -1
		for n, note := range notes {
			d := exercise.Degree(note.midi + o - concertBFlat)
			if !note.rest && (d < exercise.LowestDegree || d > exercise.HighestDegree) {
				if count++; where < 0 {
					where = n
				}
			}
		}
		if count < best || count == best && o == 0 {
			best, octave, first = count, o, where
		}
	}
	return octave, first
}
