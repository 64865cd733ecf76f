// Package explain finds the one story behind a take: what became of every target
// of its score, from the sounds that were heard. Verdicts, sentences, tips,
// boards and ladders are made from it.
package explain

import (
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Kind is what became of one target.
type Kind string

const (
	Played         Kind = "played"
	HeldOver       Kind = "held-over"       // the note before simply went on
	OtherPartial   Kind = "other-partial"   // another partial or register of the fingering asked for
	OtherFingering Kind = "other-fingering" // a note at most a whole step away: a finger, valve or position
	OtherNote      Kind = "other-note"      // any other note
	NotTongued     Kind = "not-tongued"     // the same note went on where the tongue should have parted it
	LeftOut        Kind = "left-out"        // skipped: what follows is right
	NeverCame      Kind = "never-came"      // nothing sounded in its time
	CutOff         Kind = "cut-off"         // nothing sounded from here to the end
)

// Kinds lists every kind of account.
func Kinds() []Kind {
	return []Kind{
		Played,
		HeldOver,
		OtherPartial,
		OtherFingering,
		OtherNote,
		NotTongued,
		LeftOut,
		NeverCame,
		CutOff,
	}
}

// Sounded reports whether the target got a sound of its own.
func (k Kind) Sounded() bool {
	return k == Played || k == OtherPartial || k == OtherFingering || k == OtherNote
}

// Another reports whether another note sounded in the target's place.
func (k Kind) Another() bool {
	return k == HeldOver || k == OtherPartial || k == OtherFingering || k == OtherNote
}

// Account is what became of one target.
type Account struct {
	Kind    Kind          `json:"kind" enum:"played,held-over,other-partial,other-fingering,other-note,not-tongued,left-out,never-came,cut-off"`
	Came    music.MIDI    `json:"came_midi,omitempty" doc:"the note that sounded in its place"`
	Partial int           `json:"partial,omitempty" doc:"which partial of the fingering asked for came instead; 0 where it is none"`
	Late    music.Seconds `json:"late_s" doc:"its start after its beat; 0 where it has no sound of its own"`
}

// Explanation is the story of a whole take.
type Explanation struct {
	Accounts []Account `json:"accounts" nullable:"false" doc:"one for each target of the score"`
	// Shift is how far every note lies from what was asked, in semitones, where all
	// lie off alike: another sheet, another instrument, another octave.
	Shift music.MIDI `json:"shift,omitempty" doc:"semitones by which the whole part is off; 0 where it is not"`
}

// Sound is a stretch of sound at one pitch.
type Sound struct {
	Onset, Release music.Seconds
	Pitch          music.Cents // from A4 = 440
	Level          music.Decibels
	Tongued        bool    // it follows the sound before after a dip of the tongue
	Doubt          float64 // 0 to 1: how little tells that it begins anew there
	Alien          bool    // it sounds like a voice or a click rather than a note
}

func (s Sound) length() music.Seconds { return s.Release - s.Onset }

// Part is what was to be played, by whom, and where it lies in the take.
type Part struct {
	Instrument *instrument.Instrument // nil when it is not known
	Score      scores.Score
	Start      music.Seconds // of the score's first beat in the take
}

// targets are the part's targets with their times and pitches in the take.
func (p Part) targets() []target {
	var out []target
	all := p.Score.Targets()
	for n, seg := range all {
		t := target{
			goesOn:  scores.GoesOn(all, n),
			Segment: seg,
			begin:   p.Start + p.Score.TempoBPM.Seconds(seg.StartBeat),
			pitch:   music.Between(music.StandardA4, seg.Target.Frequency(p.Score.A4Hz)),
		}
		t.end = t.begin + p.Score.TempoBPM.Seconds(seg.Beats)
		if p.Instrument != nil && seg.Phase != scores.Sing {
			for _, other := range p.Instrument.Partials(seg.Tube()) {
				if other.Note != seg.Target {
					at := music.Between(music.StandardA4, other.Off.Above(other.Note.Frequency(p.Score.A4Hz)))
					t.partials = append(t.partials, partial{other.Number, other.Note, at})
				}
			}
		}
		out = append(out, t)
	}
	return out
}

// target is one of the score's targets in the take.
type target struct {
	scores.Segment
	begin, end music.Seconds
	pitch      music.Cents // from A4 = 440
	partials   []partial
	goesOn     bool // from the note before, which is the same
}

// partial is another note of the fingering asked for.
type partial struct {
	number int
	note   music.MIDI
	pitch  music.Cents // from A4 = 440
}
