package exercise

import (
	"fmt"
	"slices"
	"strconv"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Conventions are the schools of teaching a class or a plan follows.
type Conventions struct {
	A4     music.Hertz  `json:"a4_hz"`
	Naming music.Naming `json:"naming" enum:"english,german,romance"`

	Begin       string              `json:"begin" enum:"low,high,easiest"`
	LongTone    string              `json:"long_tone" enum:"counted,longest,seconds"`
	LongTempo   string              `json:"long_tempo" enum:"60,80,own"`
	Tuner       string              `json:"tuner" enum:"shown,hidden"`
	BuzzOn      string              `json:"buzz_on" enum:"mouthpiece,tube,none"`
	BuzzMove    string              `json:"buzz_move" enum:"slide,straight"`
	Start       scores.Articulation `json:"start" enum:"tongued,breath"`
	End         string              `json:"end" enum:"taper,marked"`
	Air         string              `json:"air" enum:"speed,warmth,width,vowels"`
	EuphoniumC  string              `json:"euphonium_c" enum:"1-3,4"`
	ClarinetRun string              `json:"clarinet_chromatic" enum:"side,fork-up"`
	ClarinetLow string              `json:"clarinet_low" enum:"left,right,alternate"`
	SingFirst   string              `json:"sing_first" enum:"sing,play"`
	TuningNote  string              `json:"tuning_note" enum:"Bb,A,F,C,own"`
	HardNotes   string              `json:"hard_notes" enum:"tried,graded"`

	// TempoGive is how many per cent slower or faster than asked players may go.
	TempoGive int `json:"tempo_give" doc:"per cent slower or faster that players may choose; 0 to 40"`

	// Tolerances and Hard are the director's own, where they differ from ours.
	Tolerances map[scores.Stage]scores.Limits `json:"tolerances,omitempty" doc:"limits by stage"`
	Hard       map[string][]music.MIDI        `json:"hard,omitempty" doc:"sounding hard notes by instrument key, in place of ours"`
}

// LimitsOf returns a stage's limits in this class.
func (c Conventions) LimitsOf(s scores.Stage) scores.Limits {
	if own, ok := c.Tolerances[s]; ok {
		return own
	}
	return s.Limits()
}

// IsHard reports whether a sounding note counts as tried on an instrument in
// this class.
func (c Conventions) IsHard(i instrument.Instrument, m music.MIDI) bool {
	if c.HardNotes == GradeHard {
		return false
	}
	if own, ok := c.Hard[i.Key]; ok {
		return slices.Contains(own, m)
	}
	return i.IsHard(m)
}

// Check reports the first answer that cannot be used, or nil. Errors:
// ParameterError.
func (c Conventions) Check() error {
	if c.A4 < music.LowestA4 || c.A4 > music.HighestA4 {
		return ParameterError{
			"a4_hz",
			fmt.Sprintf("choose a tuning reference from %.0f to %.0f Hz", music.LowestA4, music.HighestA4),
		}
	}
	if !slices.Contains(music.Namings(), c.Naming) {
		return ParameterError{"naming", "choose english, german or romance"}
	}
	for _, s := range Schools() {
		if err := (&Conventions{}).Set(s.Key, c.Get(s.Key)); err != nil {
			return err
		}
	}
	if c.TempoGive < 0 || c.TempoGive > mostTempoGive {
		return ParameterError{
			"tempo_give",
			fmt.Sprintf("let players go 0 to %d per cent slower or faster", mostTempoGive),
		}
	}
	for stage, l := range c.Tolerances {
		if stage < 1 || stage > 4 || !l.Usable() {
			return ParameterError{
				"tolerances",
				"give each stage, 1 to 4, a centre of 3 to 100 cents, a waver of 2 to 60, a change of 0.05 to 1 s and a hold of half to all of the beats",
			}
		}
	}
	for key, notes := range c.Hard {
		i, err := instrument.Get(key)
		if err != nil || slices.ContainsFunc(notes, func(m music.MIDI) bool { return !i.Beginner.Contains(m) }) {
			return ParameterError{
				"hard",
				fmt.Sprintf("choose hard notes inside the beginner range of a known instrument, not %s", key),
			}
		}
	}
	return nil
}

const mostTempoGive = 40

// The choices that code asks about.
const (
	EasiestFirst  = "easiest"
	HighFirst     = "high"
	BuzzNone      = "none"
	BuzzOnTube    = "tube"
	StraightMove  = "straight"
	TaperedEnd    = "taper"
	PlayAtOnce    = "play"
	GradeHard     = "graded"
	OwnTuningNote = "own"
)

// School is a question on which teachers differ.
type School struct {
	Key      string   `json:"key"`
	Question string   `json:"question"`
	Options  []Option `json:"options" nullable:"false" doc:"the first is the default"`
}

// Schools lists the questions and their answers, the usual one first (common
// practice, no published source).
func Schools() []School {
	return []School{
		{
			"begin",
			"Where to begin",
			[]Option{
				{"low", "low and relaxed first"},
				{"high", "high notes while the lip is fresh, low ones after"},
				{"easiest", "from the easiest note outward"},
			},
		},
		{
			"long_tone",
			"How long is a long tone",
			[]Option{
				{"counted", "counted beats with a metronome"},
				{"longest", "as long as it stays beautiful, against one's own best"},
				{"seconds", "a set number of seconds a note"},
			},
		},
		{
			"long_tempo",
			"Tempo of counted long tones",
			[]Option{{"80", "80"}, {"60", "60"}, {"own", "the player's own"}},
		},
		{
			"tuner",
			"A tuner in view",
			[]Option{{"shown", "from the start"}, {"hidden", "ears first: hidden until the take is over"}},
		},
		{
			"buzz_on",
			"Buzzing on",
			[]Option{
				{"mouthpiece", "the mouthpiece"},
				{"tube", "the slide tube or lead pipe"},
				{"none", "nothing: listen to the sound only"},
			},
		},
		{
			"buzz_move",
			"Moving a buzz",
			[]Option{
				{"slide", "slide between notes until the ear is sure"},
				{"straight", "straight to the note at once"},
			},
		},
		{"start", "Start of a note", []Option{{"tongued", "tongued"}, {"breath", "breath start for part of the work"}}},
		{"end", "End of a note", []Option{{"taper", "air tapers, no tongue"}, {"marked", "as the director marks it"}}},
		{
			"air",
			"Pictures for air",
			[]Option{
				{"speed", "fast and slow"},
				{"warmth", "cool and far, warm and near"},
				{"width", "a wide or a narrow stream at one speed"},
				{"vowels", "vowel shapes: ee, ah, oh"},
			},
		},
		{
			"euphonium_c",
			"Euphonium's C in the staff",
			[]Option{{"1-3", "1-3"}, {"4", "4, where there is a fourth valve"}},
		},
		{
			"clarinet_chromatic",
			"Clarinet's chromatic E♭ and F♯",
			[]Option{
				{"side", "side keys both ways"},
				{"fork-up", "fork and first finger going up, side keys coming down"},
			},
		},
		{
			"clarinet_low",
			"Clarinet's low start",
			[]Option{
				{"alternate", "little fingers alternate every repeat"},
				{"left", "left little finger"},
				{"right", "right little finger"},
			},
		},
		{
			"sing_first",
			"Singing first",
			[]Option{{"sing", "sing while fingering silently, then play"}, {"play", "play at once"}},
		},
		{
			"tuning_note",
			"Tuning note",
			[]Option{
				{"Bb", "concert B♭"},
				{"A", "concert A"},
				{"F", "concert F"},
				{"C", "concert C"},
				{"own", "one for each instrument"},
			},
		},
		{
			"hard_notes",
			"Hard notes",
			[]Option{{"tried", "counted as tried, never held against the player"}, {"graded", "graded like the rest"}},
		},
	}
}

// StandardConventions are the defaults.
func StandardConventions() Conventions {
	return Conventions{
		A4:          music.StandardA4,
		Naming:      music.English,
		Begin:       "low",
		LongTone:    "counted",
		LongTempo:   "80",
		Tuner:       "shown",
		BuzzOn:      "mouthpiece",
		BuzzMove:    "slide",
		Start:       scores.Tongued,
		End:         "taper",
		Air:         "speed",
		EuphoniumC:  "1-3",
		ClarinetRun: "side",
		ClarinetLow: "alternate",
		SingFirst:   "sing",
		TuningNote:  "Bb",
		HardNotes:   "tried",
		TempoGive:   20,
	}
}

// Get returns the answer to a school's question; "" for an unknown one.
func (c Conventions) Get(school string) string {
	if school == "start" {
		return string(c.Start)
	}
	if at := c.field(school); at != nil {
		return *at
	}
	return ""
}

// Set answers a question, or returns a ParameterError.
func (c *Conventions) Set(school, answer string) error {
	for _, s := range Schools() {
		if s.Key != school {
			continue
		}
		if !slices.ContainsFunc(s.Options, func(o Option) bool { return o.Key == answer }) {
			return ParameterError{school, "choose one of the answers to: " + s.Question}
		}
		if at := c.field(school); at != nil {
			*at = answer
		} else {
			c.Start = scores.Articulation(answer)
		}
		return nil
	}
	return ParameterError{school, "there is no such question"}
}

// field is where an answer is kept; the start of a note has a type of its own.
func (c *Conventions) field(school string) *string {
	return map[string]*string{
		"begin": &c.Begin, "long_tone": &c.LongTone, "long_tempo": &c.LongTempo, "tuner": &c.Tuner, "buzz_on": &c.BuzzOn, "buzz_move": &c.BuzzMove,
		"end": &c.End, "air": &c.Air, "euphonium_c": &c.EuphoniumC, "clarinet_chromatic": &c.ClarinetRun, "clarinet_low": &c.ClarinetLow,
		"sing_first": &c.SingFirst, "tuning_note": &c.TuningNote, "hard_notes": &c.HardNotes,
	}[school]
}

// LongToneStep is a class's own long tone: counted at its tempo, as long as it
// stays beautiful, or so many seconds a note.
func (c Conventions) LongToneStep() Step {
	switch c.LongTone {
	case "longest":
		return New(KindLongToneLongest, nil)
	case "seconds":
		return New("long-tone-chain", map[string]any{"by": "scale", "to": 4})
	}
	set := map[string]any{}
	if bpm, err := strconv.Atoi(c.LongTempo); err == nil { // "own" leaves the usual one
		set["tempo_bpm"] = bpm
	}
	return New(KindLongToneCounted, set)
}

// EarsFirst reports whether the tuner is hidden until a take is over.
func (c Conventions) EarsFirst() bool { return c.Tuner == "hidden" }

// Hands are the conventions where fingers are concerned.
func (c Conventions) Hands(repeat int) instrument.Hands {
	return instrument.Hands{
		EuphoniumC:        c.EuphoniumC,
		ClarinetChromatic: c.ClarinetRun,
		ClarinetLow:       c.ClarinetLow,
		Repeat:            repeat,
	}
}
