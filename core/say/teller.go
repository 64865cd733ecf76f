// Package say holds every word that is made of a conclusion: a verdict is kept as
// keys and numbers, and said here, at the edge, where it is shown. Words can so be
// mended for old takes too, and another language be put beside them.
package say

import (
	"cmp"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// Teller says conclusions to one class about one instrument.
type Teller struct {
	Instrument instrument.Instrument
	Naming     music.Naming        // "" is the English one
	Air        exercise.AirPicture // the class's school of words for air; "" is the usual one
	Tips       verdict.Book        // the class's own words for tips
	Hands      instrument.Hands    // its schools of fingering
	Items      []string            // of a ticked step
	called     map[music.MIDI]string
}

// ToPlayer returns the teller as it speaks to the player of a score about a verdict of it:
// notes are called by their names alone, and low or high where a name is there twice.
func (t Teller) ToPlayer(s scores.Score, v verdict.Verdict) Teller {
	key := exercise.WrittenKey(t.Instrument)
	sounding := map[music.MIDI]music.Spelling{}
	var page []music.Spelling
	put := func(m music.MIDI) {
		if m <= 0 {
			return
		}
		sounding[m] = key.Spell(t.Instrument.Written(m))
		page = append(page, sounding[m])
	}
	for _, seg := range s.Targets() {
		put(seg.Target)
		put(seg.GlideTo)
	}
	for _, m := range v.Measures {
		put(m.Target)
		put(m.Came)
	}
	if v.Deciding != nil {
		put(v.Deciding.Target)
		put(v.Deciding.Came)
	}
	calls := t.naming().Calls(page)
	t.called = map[music.MIDI]string{}
	for m, spelling := range sounding {
		t.called[m] = calls[spelling]
	}
	for _, seg := range s.Targets() { // as the page called them before they were played
		if seg.Called != "" {
			t.called[seg.Target] = seg.Called
		}
	}
	return t
}

func (t Teller) naming() music.Naming { return cmp.Or(t.Naming, music.English) }

// For returns the teller of a class with its conventions.
func For(i instrument.Instrument, c exercise.Conventions, tips verdict.Book) Teller {
	return Teller{
		Instrument: i,
		Naming:     c.Naming,
		Air:        c.Air,
		Tips:       tips,
		Hands:      c.Hands(0),
	}
}

// Tip is one piece of advice in words.
type Tip struct {
	Key  string `json:"key"`
	Text string `json:"text"`
}

// Said is a verdict with its words.
type Said struct {
	Version  int             `json:"version"`
	Result   verdict.Result  `json:"result" enum:"clean,nearly,not-yet,cant-tell"`
	Ungraded bool            `json:"ungraded,omitempty" doc:"the step is recorded and never graded"`
	Why      verdict.Why     `json:"why,omitempty" doc:"why it cannot be told"`
	Deciding *Spoken         `json:"deciding,omitempty" doc:"the measure that decided; absent when a recording fault did"`
	Short    string          `json:"short" doc:"what decided, in a few words, for a board's cell"`
	Sentence string          `json:"sentence"`
	Tip      Tip             `json:"tip"`
	Measures []Spoken        `json:"measures" nullable:"false"`
	Causes   []measure.Cause `json:"causes" doc:"everything outside its limit, worst kind first" nullable:"false"`
}

// Spoken is a reading with its words.
type Spoken struct {
	measure.Reading
	Label  string `json:"label" doc:"the measure's name on screen"`
	Text   string `json:"text" doc:"the value in words: \"18 cents flat\""`
	Wanted string `json:"wanted" doc:"the limit in words"`
	Unsure string `json:"unsure,omitempty" doc:"why the number cannot be relied on, in words"`
}

// Verdict says a verdict.
func (t Teller) Verdict(v verdict.Verdict) Said {
	out := Said{
		Version:  v.Version,
		Result:   v.Result,
		Ungraded: v.Ungraded,
		Why:      v.Why,
		Short:    t.Short(v),
		Sentence: t.Sentence(v),
		Tip:      t.Tip(v),
		Measures: []Spoken{},
		Causes:   v.Causes,
	}
	for _, m := range v.Measures {
		out.Measures = append(out.Measures, t.Reading(m))
	}
	if v.Deciding != nil {
		m := t.Reading(*v.Deciding)
		out.Deciding = &m
	}
	return out
}

// Name is a sounding note as its player reads it: "C5"; to the player of a score "C", or
// "high C".
func (t Teller) Name(m music.MIDI) string {
	if name, ok := t.called[m]; ok {
		return name
	}
	return t.naming().WithOctave(t.spell(m))
}

// spell is a sounding note as its player reads it.
func (t Teller) spell(m music.MIDI) music.Spelling {
	return exercise.WrittenKey(t.Instrument).Spell(t.Instrument.Written(m))
}
