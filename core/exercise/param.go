package exercise

import (
	"math"
	"slices"
	"strings"

	"earlychorus/core/fmt"
	"earlychorus/core/json"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// ParamType is what a parameter holds.
type ParamType string

const (
	Number   ParamType = "number"  // a number in a range, in steps
	Choice   ParamType = "choice"  // one of the options
	Switch   ParamType = "switch"  // true or false
	NoteList ParamType = "notes"   // degrees from the home note, in order
	Melody   ParamType = "melody"  // notes with their beats
	Written  ParamType = "written" // notes as one section reads them, by name
	Words    ParamType = "words"   // a line of text
	AnyChars           = 200       // the longest of these
	mostOf             = 64        // notes in a melody
	degreeUp           = "an octave above it"
	degreeDn           = "a fourth below home"
)

// Param is one thing a step of a kind sets: everything an editor needs.
type Param struct {
	Key     string    `json:"key"`
	Label   string    `json:"label"`
	Unit    string    `json:"unit,omitempty"`
	Type    ParamType `json:"type" enum:"number,choice,switch,notes,melody,written,words"`
	Min     float64   `json:"min,omitempty"`
	Max     float64   `json:"max,omitempty"`
	Step    float64   `json:"step,omitempty"`
	Options []Option  `json:"options,omitempty"`
	Default any       `json:"default"`
	// Remedy is what to do when a value is out of range: "hold each note for 2 to
	// 16 whole beats".
	Remedy string `json:"remedy"`
	// Before is what a step asked for that was kept before there was this parameter;
	// nil is the default.
	Before any `json:"-"`
}

// before says what steps meant that were kept without the parameter.
func (p Param) before(value any) Param {
	p.Before = value
	return p
}

// Option is one of the values a choice may take.
type Option struct {
	Key   string `json:"key"`
	Label string `json:"label"`
}

// ParameterError names the parameter of a step that cannot be used, and the
// remedy.
type ParameterError struct{ Field, Remedy string }

func (e ParameterError) Error() string { return e.Field + ": " + e.Remedy }

// number is a numeric parameter.
func number(key, label, unit string, least, most, step, usual float64, remedy string) Param {
	return Param{
		Key:     key,
		Label:   label,
		Unit:    unit,
		Type:    Number,
		Min:     least,
		Max:     most,
		Step:    step,
		Default: usual,
		Remedy:  remedy,
	}
}

func choice(key, label, usual string, options ...Option) Param {
	var keys []string
	for _, o := range options {
		keys = append(keys, o.Key)
	}
	return Param{
		Key:     key,
		Label:   label,
		Type:    Choice,
		Options: options,
		Default: usual,
		Remedy:  "choose one of " + strings.Join(keys, ", "),
	}
}

func onOff(key, label string, usual bool) Param {
	return Param{
		Key:     key,
		Label:   label,
		Type:    Switch,
		Default: usual,
		Remedy:  "say true or false",
	}
}

func notes(label string, most int, usual ...Degree) Param {
	return Param{
		Key:     "notes",
		Label:   label,
		Type:    NoteList,
		Min:     1,
		Max:     float64(most),
		Default: usual,
		Remedy:  fmt.Sprintf("choose 1 to %d notes, from %s to %s", most, degreeDn, degreeUp),
	}
}

// writtenNotes asks one section for notes as it reads them, anywhere in its instrument's
// range, in place of the concert notes.
func writtenNotes(most int) Param {
	return Param{
		Key:     "written",
		Label:   "Or written notes, for one section",
		Type:    Written,
		Max:     float64(most),
		Default: []string{},
		Remedy:  fmt.Sprintf("name up to %d written notes with their octaves: E3, F♯4, B♭3", most),
	}
}

// Parameters that many kinds share.
func beats(usual float64) Param {
	return number("beats", "Beats each", "beats", 2, 16, 1, usual, "hold each note for 2 to 16 whole beats")
}

func restBeats(usual float64) Param {
	return number("rest_beats", "Beats of rest between", "beats", 2, 16, 1, usual, "rest for 2 to 16 whole beats")
}

func tempo(usual float64) Param {
	return number(
		"tempo_bpm",
		"Tempo",
		"beats a minute",
		float64(music.SlowestTempo),
		float64(music.FastestTempo),
		1,
		usual,
		fmt.Sprintf("choose a tempo from %.0f to %.0f", music.SlowestTempo, music.FastestTempo),
	)
}

func repeats(usual, most float64) Param {
	return number("repeats", "Times", "", 1, most, 1, usual, fmt.Sprintf("play it 1 to %.0f times", most))
}

// fingersFirst opens a pattern with its fingers alone.
func fingersFirst() Param { return onOff("fingers_first", "Fingers alone first", false) }

// Values are a step's parameters by key.
type Values map[string]any

// Note is a note of a melody: a degree, or a rest, its beats, and how it is played.
type Note struct {
	Degree    Degree         `json:"degree"`
	Beats     music.Beats    `json:"beats"`
	Rest      bool           `json:"rest,omitempty"`
	Slur      bool           `json:"slur,omitempty"`       // joined to the note before, without the tongue
	Mark      scores.Mark    `json:"mark,omitempty"`       // how it is tongued, where the music says so
	Dynamic   scores.Dynamic `json:"dynamic,omitempty"`    // from here on
	DynamicTo scores.Dynamic `json:"dynamic_to,omitempty"` // it grows or fades to this
}

// usable reports whether a melody may hold the note.
func (n Note) usable() bool {
	return n.Beats > 0 && n.Beats <= 16 && n.Degree >= LowestDegree && n.Degree <= HighestDegree &&
		n.Mark.Known() && n.Dynamic.Known() && n.DynamicTo.Known()
}

func (v Values) beats(key string) music.Beats     { return music.Beats(v[key].(float64)) }
func (v Values) tempo() music.Tempo               { return music.Tempo(v["tempo_bpm"].(float64)) }
func (v Values) number(key string) float64        { return v[key].(float64) }
func (v Values) count(key string) int             { return int(v[key].(float64)) }
func (v Values) choice(key string) string         { return v[key].(string) }
func (v Values) on(key string) bool               { return v[key].(bool) }
func (v Values) notes() []Degree                  { return v["notes"].([]Degree) }
func (v Values) written() []string                { return v["written"].([]string) }
func (v Values) melody() []Note                   { return v["melody"].([]Note) }
func (v Values) seconds(key string) music.Seconds { return music.Seconds(v[key].(float64)) }

// values reads and checks a kind's parameters. Of a step that was kept, what is missing
// was not asked for then.
func (k *Kind) values(raw map[string]json.RawMessage, kept bool) (Values, error) {
	v := Values{}
	for _, p := range k.Parts {
		given, ok := raw[p.Key]
		if !ok {
			v[p.Key] = p.Default
			if kept && p.Before != nil {
				v[p.Key] = p.Before
			}
			continue
		}
		value, ok := p.read(given)
		if !ok {
			return nil, ParameterError{p.Key, p.Remedy}
		}
		v[p.Key] = value
	}
	for key := range raw {
		if !slices.ContainsFunc(k.Parts, func(p Param) bool { return p.Key == key }) {
			return nil, ParameterError{key, fmt.Sprintf("%s has no such parameter", k.Name)}
		}
	}
	return v, nil
}

// read turns JSON into a value of the parameter; ok is false when it is not one.
func (p Param) read(raw json.RawMessage) (value any, ok bool) {
	switch p.Type {
	case Number:
		var x float64
		if json.Unmarshal(raw, &x) != nil || x < p.Min || x > p.Max {
			return nil, false
		}
		steps := (x - p.Min) / p.Step
		return x, math.Abs(steps-math.Round(steps)) < 1e-9
	case Choice:
		var s string
		known := json.Unmarshal(raw, &s) == nil &&
			slices.ContainsFunc(p.Options, func(o Option) bool { return o.Key == s })
		return s, known
	case Switch:
		var b bool
		err := json.Unmarshal(raw, &b)
		return b, err == nil
	case NoteList:
		var d []Degree
		if json.Unmarshal(raw, &d) != nil || len(d) < 1 || float64(len(d)) > p.Max {
			return nil, false
		}
		return d, !slices.ContainsFunc(d, func(x Degree) bool { return x < LowestDegree || x > HighestDegree })
	case Melody:
		var m []Note
		if json.Unmarshal(raw, &m) != nil || len(m) < 1 || len(m) > mostOf {
			return nil, false
		}
		return m, !slices.ContainsFunc(m, func(n Note) bool { return !n.usable() })
	case Written:
		return readWritten(raw, int(p.Max))
	}
	var s string
	err := json.Unmarshal(raw, &s)
	return s, err == nil && len(s) <= AnyChars
}

// readWritten reads the names of written notes, and writes each as it is printed.
func readWritten(raw json.RawMessage, most int) (names []string, ok bool) {
	if json.Unmarshal(raw, &names) != nil || len(names) > most {
		return nil, false
	}
	for n, name := range names {
		note, known := music.ReadNote(name)
		if !known {
			return nil, false
		}
		names[n] = note.String()
	}
	return append([]string{}, names...), true
}

// Range says what a parameter may be and what it is when nothing is said: "2 to
// 16 beats, by 1; 8".
func (p Param) Range() string {
	switch p.Type {
	case Number:
		unit := ""
		if p.Unit != "" {
			unit = " " + p.Unit
		}
		return fmt.Sprintf("%v to %v%s, by %v; %v", p.Min, p.Max, unit, p.Step, p.Default)
	case Choice:
		var keys []string
		for _, o := range p.Options {
			keys = append(keys, o.Key)
		}
		return fmt.Sprintf("%s; %v", strings.Join(keys, ", "), p.Default)
	case NoteList:
		return fmt.Sprintf(
			"1 to %v notes, half steps from home %d to %d; %v",
			p.Max,
			LowestDegree,
			HighestDegree,
			p.Default,
		)
	case Written:
		return fmt.Sprintf("up to %v written notes by name, as E3 or F♯4; none", p.Max)
	case Melody:
		return fmt.Sprintf("1 to %d notes and rests; %d of them", mostOf, len(p.Default.([]Note)))
	}
	return fmt.Sprintf("%v", p.Default)
}

// sayBeats says a number of beats: "1 beat", "8 beats".
func sayBeats(b music.Beats) string {
	if b == 1 {
		return "1 beat"
	}
	return fmt.Sprintf("%.0f beats", b)
}
