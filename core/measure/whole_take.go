package measure

// CauseRecording names a recording that cannot be judged.
const CauseRecording Cause = "recording"

// badRecording is a recording that cannot be judged, and what helps.
var badRecording = Fault{
	Cause: CauseRecording,
	Rank:  setWrong + 0,
	Tips: []Advice{
		{Key: "recording", Text: "Sit an arm's length from the microphone. Find a quiet corner. Then record again."},
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

// CauseNobody names a take in which nobody is heard.
const CauseNobody Cause = "nobody"

// nobodyHeard is a take without a player, and what helps.
var nobodyHeard = Fault{
	Cause: CauseNobody,
	Rank:  setWrong + 2,
	Tips:  []Advice{{Key: "nobody", Text: "Check the microphone, come nearer, then play."}},
}

// NobodyHeard reports whether nothing sounds in the take that could be its player:
// no note, no air. Silence is a matter of the microphone before it is one of lips
// and reeds.
func NobodyHeard(c Case) bool {
	for _, n := range c.Analysis.Notes {
		if n.Played {
			return false
		}
	}
	for _, a := range c.Analysis.Airs {
		if a.Heard {
			return false
		}
	}
	for _, s := range c.Analysis.Strokes {
		if s.Heard {
			return false
		}
	}
	return len(c.Analysis.Notes)+len(c.Analysis.Airs)+len(c.Analysis.Strokes) > 0 && !c.Analysis.Blown
}

// WrongInstrument finds the take whose every note lies off alike: another
// instrument is set, another's sheet was read, or all lies in another octave.
func WrongInstrument(c Case) (Reading, bool) {
	shift := int(c.Analysis.Shift)
	if shift == 0 {
		return Reading{}, false
	}
	return Reading{
		Key:    RightNote.Key,
		Cause:  CauseWrongInstrument,
		Note:   WholeStep,
		Value:  float64(shift),
		Judged: true,
		Excess: hopeless,
		Way:    sign(float64(shift)),
	}, true
}
