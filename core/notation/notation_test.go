package notation_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"encoding/xml"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	ics "github.com/arran4/golang-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/bars"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/notation"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
)

func player(t testing.TB, key string) exercise.Player {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	return exercise.Player{Instrument: i, Stage: 2}
}

func score(t testing.TB, key, kind string, set map[string]any) scores.Score {
	t.Helper()
	s, err := exercise.New(kind, set).Score(player(t, key), exercise.StandardConventions())
	require.NoError(t, err)
	return s
}

func sheet(t testing.TB, key string, at plan.Place) notation.Sheet {
	t.Helper()
	s, err := notation.SheetOf(plan.DemoWeek(), 2, at, player(t, key), exercise.StandardConventions())
	require.NoError(t, err)
	return s
}

// Every bar of every kind, on every instrument, is full, and what is tied adds up
// to what the score asks for.
func TestBarsAreFull(t *testing.T) {
	for _, k := range exercise.Catalogue() {
		for _, i := range instrument.All() {
			s, err := exercise.New(
				k.Key,
				nil,
			).Score(
				exercise.Player{Instrument: i, Stage: 3},
				exercise.StandardConventions(),
			)
			if err != nil {
				continue
			}
			lengths := map[int]int{}
			for _, bar := range bars.Of(s) {
				sum := 0
				for _, y := range bar.Symbols {
					sum += y.Units
					lengths[y.Segment] += y.Units
				}
				require.Equal(t, 48, sum, "%s on %s", k.Key, i.Key)
			}
			for n, seg := range s.Segments[:len(s.Segments)-1] {
				assert.InDelta(
					t,
					float64(seg.Beats)*12,
					float64(lengths[n]),
					1,
					"%s on %s: segment %d",
					k.Key,
					i.Key,
					n,
				)
			}
		}
	}
}

func TestALongNoteIsTiedOverTheBar(t *testing.T) {
	s := score(t, "flute", "long-tone-counted", map[string]any{"notes": []int{0}, "beats": 6})
	var symbols []string
	for _, bar := range bars.Of(s) {
		for _, y := range bar.Symbols {
			symbols = append(symbols, fmt.Sprintf("%s %v %v %v", y.Type, y.Rest, y.TieFrom, y.TieTo))
		}
	}
	assert.Equal(t, []string{
		"half true false false",
		"half true false false",
		"whole false false true",
		"half false true false",
		"quarter true false false",
		"quarter true false false",
	}, symbols)
}

func TestTripletsAndAccidentals(t *testing.T) {
	s := score(t, "clarinet", "chromatic-loop", map[string]any{"group": "three", "loops": 1})
	bars := bars.Of(s)
	var marks []string
	for _, y := range bars[1].Symbols {
		if y.Rest {
			continue
		}
		assert.True(t, y.Triplet)
		assert.Equal(t, "eighth", y.Type)
		marks = append(marks, s.Segments[y.Segment].WrittenName+" "+y.Accidental)
	}
	// Written C major: only what the key does not have is marked.
	assert.Equal(t, []string{"G3 ", "A♭3 flat", "A3 natural", "B♭3 flat", "B3 natural", "C4 "}, marks[:6])
}

func TestSlursReachFromTheFirstToTheLast(t *testing.T) {
	s := score(t, "trombone", "slur-across-partials", map[string]any{"repeats": 1})
	var starts, ends []string
	for _, bar := range bars.Of(s) {
		for _, y := range bar.Symbols {
			if y.SlurStart {
				starts = append(starts, s.Segments[y.Segment].WrittenName)
			}
			if y.SlurEnd {
				ends = append(ends, s.Segments[y.Segment].WrittenName)
			}
		}
	}
	assert.Equal(t, []string{"F3"}, starts)
	assert.Equal(t, []string{"F3"}, ends)
}

// expected is what an independent reader must find in a written file.
type expected struct {
	File  string         `json:"file"`
	Notes []expectedNote `json:"notes"`
}

type expectedNote struct {
	Written string  `json:"written"`
	MIDI    int     `json:"midi"`
	Beats   float64 `json:"beats"`
}

var update = os.Getenv("UPDATE") != ""

// The files in testdata are what the writers write; web/src/notation.test.ts
// reads them back with readers from the registry.
func TestFilesThatOtherReadersRead(t *testing.T) {
	var all []expected
	for _, key := range []string{"flute", "clarinet", "alto-sax", "horn", "tuba", "soprano-recorder"} {
		s := sheet(t, key, plan.InClass)
		var x, m bytes.Buffer
		require.NoError(t, notation.WriteMusicXML(&x, s))
		require.NoError(t, notation.WriteMIDI(&m, s))
		golden(t, key+".musicxml", x.Bytes())
		golden(t, key+".mid", m.Bytes())
		e := expected{File: key}
		for _, step := range s.Steps {
			for _, seg := range step.Score.Segments {
				if seg.Written != nil && (seg.Phase.Sounds() || seg.Phase == scores.Listen) {
					e.Notes = append(e.Notes, expectedNote{seg.Written.String(), int(seg.Target), float64(seg.Beats)})
				}
			}
		}
		all = append(all, e)
	}
	raw, err := json.MarshalIndent(all, "", " ")
	require.NoError(t, err)
	golden(t, "expected.json", append(raw, '\n'))
}

func golden(t *testing.T, name string, got []byte) {
	t.Helper()
	path := filepath.Join("testdata", name)
	if update {
		require.NoError(t, os.MkdirAll("testdata", 0o755))
		require.NoError(t, os.WriteFile(path, got, 0o644))
	}
	want, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.True(t, bytes.Equal(want, got), "%s is stale: run UPDATE=1 go test ./core/notation", name)
}

// What is written can be read again as an excerpt, whatever the instrument.
func TestMusicXMLComesBackAsTheSameLine(t *testing.T) {
	for _, i := range instrument.All() {
		p := exercise.Player{Instrument: i, Stage: 4}
		s, err := exercise.New(
			"five-note-walk",
			map[string]any{"way": "up", "beats": 1},
		).Score(
			p,
			exercise.StandardConventions(),
		)
		require.NoError(t, err)
		if (i.Home()-58)%12 != 0 {
			continue // recorders start from their own home
		}
		var out bytes.Buffer
		require.NoError(t, notation.WriteMusicXML(&out, notation.Sheet{
			Title:      "Walk",
			Instrument: i.Key,
			Player:     i.Name,
			Steps:      []notation.StepPart{{Heading: "Walk", Score: s}},
		}))
		x, err := notation.ReadExcerpt(out.Bytes())
		require.NoError(t, err, i.Key)
		assert.Equal(t, "Walk", x.Title)
		assert.Equal(t, music.Tempo(80), x.Tempo)
		var degrees []exercise.Degree
		for _, n := range x.Melody {
			if !n.Rest {
				degrees = append(degrees, n.Degree)
				assert.Equal(t, music.Beats(1), n.Beats)
			}
		}
		assert.Equal(t, exercise.FirstFive, degrees, i.Key)
	}
}

// Slurs, marks, dynamics and hairpins of a file are kept, and written again.
func TestExcerptsKeepHowTheyArePlayed(t *testing.T) {
	at := func(step string, more string) string { return note(step, 4, 1, more) }
	direction := func(what string) string {
		return "<direction><direction-type>" + what + "</direction-type></direction>"
	}
	x, err := notation.ReadExcerpt(musicXML(`<measure number="1"><attributes><divisions>1</divisions></attributes>` +
		direction("<dynamics><p/></dynamics>") +
		at("C", `<notations><slur type="start" number="1"/></notations>`) +
		at("D", `<notations><slur type="stop" number="1"/></notations>`) +
		at("E", `<notations><articulations><staccato/></articulations></notations>`) +
		direction(`<wedge type="crescendo"/>`) + at("F", "") + at("G", "") + direction(`<wedge type="stop"/>`) +
		direction("<dynamics><f/></dynamics>") +
		at("A", `<notations><articulations><accent/></articulations></notations>`) +
		direction("<dynamics><sfz/></dynamics>") + at("G", "") +
		`</measure>`))
	require.NoError(t, err)
	var said []string
	for _, n := range x.Melody {
		said = append(said, fmt.Sprintf("%v %s %s>%s", n.Slur, n.Mark, n.Dynamic, n.DynamicTo))
	}
	assert.Equal(t, []string{
		"false  p>", "true  >", "false staccato >", "false  p>mp", "false  mp>f", "false accent f>", "false  >",
	}, said)
	assert.Contains(t, x.Notices, "Dynamics other than from pp to ff are left out.")

	s := score(t, "flute", "excerpt", map[string]any{"melody": x.Melody})
	var out bytes.Buffer
	require.NoError(t, notation.WriteMusicXML(&out, notation.Sheet{
		Instrument: "flute",
		Steps:      []notation.StepPart{{Score: s}},
	}))
	for _, want := range []string{"<staccato>", "<accent>", "<p>", `<wedge type="crescendo">`, `<slur type="start"`} {
		assert.Contains(t, out.String(), want)
	}
}

// What is asked of the air and of the ends is in the files, too.
func TestPulsesAndTapersAreWritten(t *testing.T) {
	for _, c := range []struct {
		kind, says string
		set        map[string]any
	}{
		{"air-pulses", "2 pushes a beat", nil},
		{"starts-and-ends", "no tongue, taper", map[string]any{"start": "breath"}},
		{"starts-and-ends", "stop", map[string]any{"end": "stopped"}},
		{"overtones", "overtone", nil},
	} {
		s := notation.Sheet{
			Instrument: "alto-sax",
			Steps:      []notation.StepPart{{Score: score(t, "alto-sax", c.kind, c.set)}},
		}
		var x bytes.Buffer
		require.NoError(t, notation.WriteMusicXML(&x, s))
		assert.Contains(t, x.String(), c.says, c.kind)
	}
}

// loudnesses are the values a file sets the expression controller to.
func loudnesses(t *testing.T, kind string, set map[string]any) (out []int) {
	t.Helper()
	var m bytes.Buffer
	require.NoError(t, notation.WriteMIDI(&m, notation.Sheet{
		Instrument: "flute",
		Steps:      []notation.StepPart{{Score: score(t, "flute", kind, set)}},
	}))
	for n, b := range m.Bytes() {
		if n >= 2 && m.Bytes()[n-1] == 11 && m.Bytes()[n-2] == 0xB0 {
			out = append(out, int(b))
		}
	}
	return out
}

func TestMIDIPushesAndTapers(t *testing.T) {
	pushed := loudnesses(t, "air-pulses", map[string]any{"pulses": 2})
	lowest := 0
	for _, l := range pushed {
		if l == slices.Min(pushed) {
			lowest++
		}
	}
	assert.Equal(t, 16, lowest, "two to a beat over eight beats")
	assert.Positive(t, slices.Min(pushed), "the air never turns back")
	assert.Zero(t, slices.Min(loudnesses(t, "starts-and-ends", nil)), "a taper ends in nothing")
}

func musicXML(measures string) []byte {
	return []byte(
		`<?xml version="1.0"?><score-partwise version="4.0"><part-list><score-part id="P1">` +
			`<part-name>x</part-name></score-part></part-list><part id="P1">` +
			measures +
			`</part></score-partwise>`,
	)
}

func note(step string, octave, duration int, more string) string {
	return fmt.Sprintf(
		`<note><pitch><step>%s</step><octave>%d</octave></pitch><duration>%d</duration>%s</note>`,
		step,
		octave,
		duration,
		more,
	)
}

func TestExcerptsFromOutside(t *testing.T) {
	x, err := notation.ReadExcerpt(musicXML(`<measure number="1"><attributes><divisions>2</divisions></attributes>` +
		`<note><rest/><duration>2</duration></note>` + note(
		"C",
		4,
		2,
		"",
	) + note("D", 4, 1, "") + note("F", 4, 3, `<tie type="start"/>`) + `</measure>` +
		`<measure number="2">` + note(
		"F",
		4,
		4,
		`<tie type="stop"/>`,
	) + `<note><grace/><pitch><step>G</step><octave>4</octave></pitch></note>` +
		`<note><rest/><duration>2</duration></note>` + note("B", 3, 2, "") + `</measure>`))
	require.NoError(t, err)
	assert.Equal(
		t,
		[]exercise.Note{
			{Degree: 2, Beats: 1},
			{Degree: 4, Beats: 0.5},
			{Degree: 7, Beats: 3.5},
			{Beats: 1, Rest: true},
			{Degree: 1, Beats: 1},
		},
		x.Melody,
	)
	assert.Equal(t, []string{"Grace and cue notes are left out."}, x.Notices)

	// The line serves as it is.
	raw, err := json.Marshal(map[string]any{"melody": x.Melody, "title": "From outside"})
	require.NoError(t, err)
	_, err = exercise.Parse("excerpt", raw)
	require.NoError(t, err)

	high, err := notation.ReadExcerpt(musicXML(`<measure number="1">` + note("C", 7, 1, "") + `</measure>`))
	require.NoError(t, err)
	assert.Equal(t, exercise.Degree(2), high.Melody[0].Degree)
	assert.Contains(t, high.Notices[0], "own octave")
}

func TestFilesThatCannotBeUsedSayWhere(t *testing.T) {
	bar := func(s string) []byte {
		return musicXML(
			`<measure number="1">` + note("C", 4, 1, "") + `</measure><measure number="2">` + s + `</measure>`,
		)
	}
	for name, c := range map[string]struct {
		file []byte
		says string
	}{
		"not xml":   {[]byte("hello"), "not a MusicXML file"},
		"empty":     {nil, "not a MusicXML file"},
		"other xml": {[]byte("<html/>"), "not a MusicXML file"},
		"by time":   {[]byte("<score-timewise/>"), "score-partwise"},
		"broken":    {bar(`<note><pitch>`), "measure 2: the file is broken here"},
		"chord":     {bar(note("E", 4, 1, "<chord/>")), "measure 2: there is a chord"},
		"voices": {
			bar(note("E", 4, 1, "<voice>1</voice>") + note("E", 4, 1, "<voice>2</voice>")),
			"measure 2: there is more than one voice",
		},
		"backup": {bar(`<backup><duration>1</duration></backup>`), "measure 2: there is more than one voice"},
		"staves": {bar(note("E", 4, 1, "<staff>2</staff>")), "two staves"},
		"parts": {
			[]byte(strings.ReplaceAll(string(bar("")), "</part>", "</part><part/>")), "more than one part",
		},
		"no length":  {bar(note("E", 4, 0, "")), "measure 2: a note has no length"},
		"no step":    {bar(note("X", 4, 1, "")), `"X" is no step`},
		"too wide":   {bar(note("C", 6, 1, "")), "wider than from a fourth below"},
		"too long":   {bar(note("C", 4, 20, "")), "a note lasts 20 beats"},
		"too many":   {bar(strings.Repeat(note("C", 4, 1, ""), 70)), "71 notes"},
		"nothing":    {musicXML(""), "no notes"},
		"too large":  {make([]byte, 3<<20), "larger than 2 MB"},
		"broken zip": {[]byte("PK\x03\x04 rubbish"), "compressed file is broken"},
		"divisions": {
			musicXML(`<measure number="1"><attributes><divisions>-4</divisions></attributes></measure>`),
			"divisions",
		},
		"entities": {
			[]byte(`<!DOCTYPE a [<!ENTITY b "bbbb">]>` +
				`<score-partwise><part id="P1"><measure number="1">&b;</measure></part></score-partwise>`),
			"broken here",
		},
		"other charset": {[]byte(`<?xml version="1.0" encoding="utf-16"?><score-partwise/>`), "MusicXML"},
	} {
		_, err := notation.ReadExcerpt(c.file)
		var said notation.ReadError
		require.True(t, errors.As(err, &said), "%s: %v", name, err)
		assert.Contains(t, err.Error(), c.says, name)
	}
}

func zipped(t *testing.T, files map[string][]byte) []byte {
	t.Helper()
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for name, data := range files {
		w, err := z.Create(name)
		require.NoError(t, err)
		_, err = w.Write(data)
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return out.Bytes()
}

func TestCompressedFiles(t *testing.T) {
	line := musicXML(`<measure number="1">` + note("C", 4, 1, "") + `</measure>`)
	container := []byte(`<container><rootfiles><rootfile full-path="music/line.xml"/></rootfiles></container>`)
	x, err := notation.ReadExcerpt(
		zipped(
			t,
			map[string][]byte{"META-INF/container.xml": container, "music/line.xml": line, "other.xml": []byte("<x/>")},
		),
	)
	require.NoError(t, err)
	assert.Len(t, x.Melody, 1)
	_, err = notation.ReadExcerpt(zipped(t, map[string][]byte{"a.musicxml": line}))
	require.NoError(t, err)
	_, err = notation.ReadExcerpt(zipped(t, map[string][]byte{"readme.txt": line}))
	assert.ErrorContains(t, err, "no score inside")

	// A bomb: 64 MB of spaces in a few kB.
	_, err = notation.ReadExcerpt(zipped(t, map[string][]byte{"bomb.xml": bytes.Repeat([]byte(" "), 64<<20)}))
	assert.ErrorContains(t, err, "unpacks to more than 4 MB")
	many := map[string][]byte{}
	for n := range 100 {
		many[fmt.Sprint(n)] = nil
	}
	_, err = notation.ReadExcerpt(zipped(t, many))
	assert.ErrorContains(t, err, "holds 100 files")
}

func FuzzReadExcerpt(f *testing.F) {
	f.Add(musicXML(`<measure number="1">` + note("C", 4, 1, "") + `</measure>`))
	f.Add([]byte("PK\x03\x04"))
	f.Fuzz(func(t *testing.T, file []byte) {
		x, err := notation.ReadExcerpt(file)
		if err != nil {
			var said notation.ReadError
			require.True(t, errors.As(err, &said), "%v", err)
			return
		}
		for _, n := range x.Melody {
			require.Positive(t, float64(n.Beats))
			require.True(t, n.Rest || n.Degree >= exercise.LowestDegree && n.Degree <= exercise.HighestDegree)
		}
	})
}

// RFC 5545 read back by the library's own parser; the rules by hand.
func TestPlansAsACalendar(t *testing.T) {
	var out bytes.Buffer
	week := plan.DemoWeek()
	require.NoError(t, notation.WriteICalendar(&out, "Class", []notation.Week{{
		Plan:  week,
		Dates: [7]string{"20261123", "20261124", "20261125", "20261126", "20261127", "20261128", "20261129"},
		Weeks: 2,
		Stamp: "20261120T080000Z",
		Host:  "school.example",
	}}))
	for _, line := range strings.Split(out.String(), "\r\n") {
		assert.LessOrEqual(t, len(line), 75, "RFC 5545, 3.1: lines are folded")
	}
	c, err := ics.ParseCalendar(bytes.NewReader(out.Bytes()))
	require.NoError(t, err)
	require.Len(t, c.Events(), len(week.Items))
	for n, e := range c.Events() {
		assert.Equal(t, "20261120T080000Z", e.GetProperty(ics.ComponentPropertyDtstamp).Value)
		if week.Items[n].Key == "slide" {
			assert.Equal(t, "20261124", e.GetProperty(ics.ComponentPropertyDtStart).Value)
			assert.Equal(t, "FREQ=WEEKLY;BYDAY=TU,TH;COUNT=4", e.GetProperty(ics.ComponentPropertyRrule).Value)
			assert.Contains(t, e.GetProperty(ics.ComponentPropertySummary).Value, "Buzz slide")
		}
	}
}

func TestSheetsAsText(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, notation.WriteText(&out, sheet(t, "clarinet", plan.InClass)))
	text := out.String()
	assert.Contains(t, text, "The week of the spring tide, Wednesday\nB♭ clarinet\n")
	assert.Contains(t, text, "[ ] Sit tall at the front of the chair")
	assert.Contains(t, text, "C4 8 [T 123]")
	assert.Contains(t, text, "while the brass rest", "woodwinds have something to do meanwhile")
	assert.Contains(t, text, "! Five minutes a day are enough")
	var home bytes.Buffer
	require.NoError(t, notation.WriteText(&home, sheet(t, "clarinet", plan.AtHome)))
	assert.NotContains(t, home.String(), "while the brass rest")
}

// MusicXML 4.0 is well formed, and nothing in it is empty that may not be.
func TestMusicXMLIsWellFormed(t *testing.T) {
	for _, i := range instrument.All() {
		var out bytes.Buffer
		require.NoError(t, notation.WriteMusicXML(&out, sheet(t, i.Key, plan.AtHome)))
		d := xml.NewDecoder(&out)
		for {
			if _, err := d.Token(); err != nil {
				assert.ErrorContains(t, err, "EOF")
				break
			}
		}
	}
	assert.Error(t, notation.WriteMusicXML(&bytes.Buffer{}, notation.Sheet{Instrument: "kazoo"}))
	assert.Error(t, notation.WriteMIDI(&bytes.Buffer{}, notation.Sheet{Instrument: "kazoo"}))
}
