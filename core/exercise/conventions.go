package exercise

import (
	"slices"
	"strconv"

	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Conventions are the schools of teaching a class or a plan follows.
type Conventions struct {
	A4     music.Hertz  `json:"a4_hz"`
	Naming music.Naming `json:"naming" enum:"english,german,romance"`

	Begin       Beginning                    `json:"begin" enum:"low,high,easiest"`
	LongTone    LongToneLength               `json:"long_tone" enum:"counted,longest,seconds"`
	LongTempo   LongToneTempo                `json:"long_tempo" enum:"80,60,own"`
	Tuner       TunerView                    `json:"tuner" enum:"shown,hidden"`
	BuzzOn      BuzzPlace                    `json:"buzz_on" enum:"mouthpiece,tube,none"`
	BuzzMove    BuzzMove                     `json:"buzz_move" enum:"slide,straight"`
	Start       scores.Articulation          `json:"start" enum:"tongued,breath"`
	End         NoteEnd                      `json:"end" enum:"taper,marked"`
	Air         AirPicture                   `json:"air" enum:"speed,warmth,width,vowels"`
	EuphoniumC  instrument.EuphoniumC        `json:"euphonium_c" enum:"1-3,4"`
	ClarinetRun instrument.ClarinetChromatic `json:"clarinet_chromatic" enum:"side,fork-up"`
	ClarinetLow instrument.ClarinetLow       `json:"clarinet_low" enum:"alternate,left,right"`
	SingFirst   SingFirst                    `json:"sing_first" enum:"sing,play"`
	TuningNote  TuningNote                   `json:"tuning_note" enum:"Bb,A,F,C,own"`
	HardNotes   HardNotes                    `json:"hard_notes" enum:"tried,graded"`

	// TempoGive is how many per cent slower or faster than asked players may go.
	TempoGive int `json:"tempo_give" doc:"per cent slower or faster that players may choose; 0 to 40"`

	// LongBeats is how many beats a new counted long tone opens with.
	LongBeats music.Beats `json:"long_beats" doc:"beats of a counted long tone; 2 to 16"`

	// Tolerances and Hard are the director's own, where they differ from ours.
	Tolerances map[scores.Stage]scores.Limits `json:"tolerances,omitempty" doc:"limits by stage"`
	Hard       map[string][]music.MIDI        `json:"hard,omitempty" doc:"sounding hard notes by instrument key, in place of ours"`
}

// LimitsOf returns a stage's limits in this class.
func (c Conventions) LimitsOf(s scores.Stage) scores.Limits {
	if own, ok := c.Tolerances[s]; ok {
		return own.Filled(s.Limits())
	}
	return s.Limits()
}

// IsHard reports whether a sounding note counts as tried on an instrument in
// this class.
func (c Conventions) IsHard(i instrument.Instrument, m music.MIDI) bool {
	if c.HardNotes == GradedAlike {
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
	if c.LongBeats < leastLongBeats || c.LongBeats > mostLongBeats || c.LongBeats != music.Beats(int(c.LongBeats)) {
		return ParameterError{
			"long_beats",
			fmt.Sprintf("hold a long tone for %d to %d whole beats", leastLongBeats, mostLongBeats),
		}
	}
	for stage, l := range c.Tolerances {
		if stage < 1 || stage > 4 || !l.Filled(stage.Limits()).Usable() {
			return ParameterError{
				"tolerances",
				"give each stage, 1 to 4, a centre of 3 to 100 cents, a waver of 2 to 60, a change of 0.05 to 1 s " +
					"and a hold of half to all of the beats",
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

const (
	mostTempoGive  = 40
	leastLongBeats = 2
	mostLongBeats  = 16
)

// LongToneStep is a class's own long tone: counted at its tempo, as long as it
// stays beautiful, or so many seconds a note.
func (c Conventions) LongToneStep() Step { return New(c.longTone()) }

// LongToneKind is the kind of a class's own long tone.
func (c Conventions) LongToneKind() string {
	kind, _ := c.longTone()
	return kind
}

func (c Conventions) longTone() (kind string, set map[string]any) {
	switch c.LongTone {
	case AsLongAsBeautiful:
		return KindLongToneLongest, nil
	case SecondsANote:
		return "long-tone-chain", map[string]any{"by": "scale", "to": 4}
	}
	set = map[string]any{"beats": c.LongBeats}
	if bpm, err := strconv.Atoi(string(c.LongTempo)); err == nil { // "own" leaves the usual one
		set["tempo_bpm"] = bpm
	}
	return KindLongToneCounted, set
}

// GiveFor is how many per cent slower or faster players may take a step: as the director
// lets them, and in a class whose long tones go at the player's own tempo as far as ever.
func (c Conventions) GiveFor(s Step) int {
	if c.LongTempo == OwnTempo && s.Kind.Key == KindLongToneCounted {
		return mostTempoGive
	}
	return c.TempoGive
}

// Opens returns the parameters that a new step of a kind opens with in this class: the
// kind's own, but for what the class's schools say.
func (c Conventions) Opens(k *Kind) Values {
	v := Values{}
	for _, p := range k.Parts {
		v[p.Key] = p.Default
	}
	// A step is laid out on every instrument to be checked: not for each kind there is.
	if c.LongToneKind() == k.Key {
		return c.LongToneStep().Values
	}
	if k.Key == KindLongToneCounted {
		v["beats"] = float64(c.LongBeats)
		if bpm, err := strconv.ParseFloat(string(c.LongTempo), 64); err == nil {
			v["tempo_bpm"] = bpm
		}
	}
	return v
}

// EarsFirst reports whether the tuner is hidden until a take is over.
func (c Conventions) EarsFirst() bool { return c.Tuner == EarsFirst }

// Hands are the conventions where fingers are concerned.
func (c Conventions) Hands(repeat int) instrument.Hands {
	return instrument.Hands{
		EuphoniumC:        c.EuphoniumC,
		ClarinetChromatic: c.ClarinetRun,
		ClarinetLow:       c.ClarinetLow,
		Repeat:            repeat,
	}
}
