package measure

import (
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// CauseRecording names a recording that cannot be judged.
const CauseRecording Cause = "recording"

// badRecording is a recording that cannot be judged, and what helps.
var badRecording = Fault{
	Cause: CauseRecording,
	Rank:  setWrong + 0,
	Tips: []Advice{
		{Key: "recording", Text: "Sit an arm's length from the microphone, choose a quiet corner and record again."},
	},
}

// CauseWrongInstrument names every note off by the same step.
const CauseWrongInstrument Cause = "wrong-instrument"

// wrongSheet is every note off by the same step, and what helps.
var wrongSheet = Fault{
	Cause: CauseWrongInstrument,
	Rank:  setWrong + 1,
	Tips: []Advice{
		{
			Key:  "wrong-instrument",
			Text: "Every note is off by the same step. Check that your own instrument and its own sheet are set.",
		},
	},
}

// WrongInstrument finds the take whose every note lies off by the same interval,
// where the tube itself would not lead: another instrument is set, or another's
// fingering chart was read.
func WrongInstrument(c Case) (Reading, bool) {
	shift, count := 0, 0
	notes := map[music.MIDI]bool{}
	for n, t := range c.Score.Targets() {
		note := c.Analysis.Notes[n]
		if t.Phase != scores.Play {
			return Reading{}, false
		}
		if !note.Played {
			continue
		}
		off := int(note.MIDI - t.Target)
		if off%12 == 0 || count > 0 && off != shift || c.onItsTube(t.Target, note.MIDI) {
			return Reading{}, false
		}
		shift, count = off, count+1
		notes[t.Target] = true
	}
	if len(notes) < 2 {
		return Reading{}, false
	}
	return Reading{
		Key:       RightNote.Key,
		Cause:     CauseWrongInstrument,
		Label:     "Instrument",
		Note:      WholeStep,
		Value:     float64(shift),
		Judged:    true,
		Excess:    hopeless,
		Text:      "every note sounded " + Interval(shift),
		Wanted:    "the notes of this instrument",
		Direction: sign(float64(shift)),
	}, true
}

// onItsTube reports whether a note is one that the fingering of another gives.
func (c Case) onItsTube(target, note music.MIDI) bool {
	for _, p := range c.Instrument.Partials(target) {
		if p.Note == note {
			return true
		}
	}
	return false
}
