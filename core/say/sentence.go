package say

import (
	"math"
	"strings"

	"earlychorus/core/ear"
	"earlychorus/core/explain"
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/verdict"
)

// Sentence says what happened, in one line for a player: the note by its written
// name, what came instead by its name, a number a child can picture, and nothing
// about what was right.
func (t Teller) Sentence(v verdict.Verdict) string {
	switch {
	case v.OldSentence != "":
		return v.OldSentence
	case v.Ungraded:
		return fmt.Sprintf("Recorded: %s. This one is yours, and nobody grades it.", differentNotes(v.Notes))
	case v.Result == verdict.CantTell:
		return t.whyNot(v)
	case v.Result == verdict.Clean || v.Deciding == nil:
		return "Everything was as it should be."
	}
	m := *v.Deciding
	out := t.happened(m)
	if m.Tried {
		out += " A hard note: it counts as tried."
	}
	return out
}

func differentNotes(n int) string {
	if n == 1 {
		return "one note"
	}
	return fmt.Sprintf("%d different notes", n)
}

// whyNot says why a take cannot be told.
func (t Teller) whyNot(v verdict.Verdict) string {
	switch v.Why {
	case verdict.WhySilent:
		return "There is no sound in it. Is the right microphone chosen? Then try again."
	case verdict.WhyNobody:
		return "Nothing was heard. Check the microphone, then play."
	case verdict.WhyCut:
		return "The recording ends before the step does."
	case verdict.WhyNoisy:
		return "The room is too loud. Find a quieter place, or come closer."
	}
	if m := v.Deciding; m != nil {
		about := "This take"
		if m.Note >= 0 {
			about = t.Name(m.Target)
		}
		return fmt.Sprintf("%s could not be measured: %s.", about, doubts[m.Trust])
	}
	return "This take could not be measured."
}

// doubts say why something cannot be relied on.
var doubts = map[ear.Doubt]string{
	ear.Unheard:     "nothing was heard there",
	ear.TooShort:    "it was too short",
	ear.Unclear:     "its pitch is not clear enough",
	ear.Riding:      "the device turns its volume up and down by itself",
	ear.Overloaded:  "the sound was too loud for the microphone",
	ear.LoudRoom:    "the room is too loud",
	ear.SungNote:    "it is a voice, not the instrument",
	ear.WithAnother: "another player sounds with it",
}

// happened says one reading outside its limit.
func (t Teller) happened(m measure.Reading) string {
	says, ok := sentences[m.Cause]
	if !ok {
		r := t.Reading(m)
		return fmt.Sprintf("%s: %s.", r.Label, r.Text)
	}
	return capitals(says(told{m, t}))
}

// capitals begins sentences with a capital where they begin with where a note lies, as in
// "low A". A note's own name stays as it is: in some namings its case says its octave.
func capitals(sentences string) string {
	return strings.TrimPrefix(atBeginnings.Replace(". "+sentences), ". ")
}

var atBeginnings = strings.NewReplacer(". low ", ". Low ", ". middle ", ". Middle ", ". high ", ". High ")

// told is a reading with whom it is told to.
type told struct {
	measure.Reading
	t Teller
}

func (r told) note() string { return r.t.Name(r.Target) }
func (r told) came() string { return r.t.Name(r.Came) }

// way chooses words by the direction of a reading.
func (r told) way(low, high string) string {
	if r.Way < 0 {
		return low
	}
	return high
}

// instead says that another note came, and how.
func (r told) instead() string {
	if r.Account == explain.HeldOver {
		return fmt.Sprintf("Stayed on %s. %s did not come.", r.came(), r.note())
	}
	return fmt.Sprintf("%s came instead of %s.", r.came(), r.note())
}

func fixed(text string) func(told) string { return func(told) string { return text } }

func noted(format string) func(told) string {
	return func(r told) string { return fmt.Sprintf(format, r.note()) }
}

// sentences say each cause.
var sentences = map[measure.Cause]func(told) string{
	measure.CauseWrongInstrument: func(r told) string {
		return fmt.Sprintf("Every note sounded %s.", Interval(int(r.Value)))
	},
	measure.CauseRegisterLow: told.instead,
	measure.CauseSlurStays:   told.instead,
	measure.CauseHeldOver:    told.instead,
	measure.CauseRegisterHigh: func(r told) string {
		if r.Key != measure.RightNote.Key {
			return fmt.Sprintf("%s flew up to %s %s.", r.note(), r.came(), forAbout(r.Value))
		}
		return fmt.Sprintf("%s flew up to %s.", r.note(), r.came())
	},
	measure.CausePartial: func(r told) string {
		return fmt.Sprintf("You landed on %s. %s was asked.", r.came(), r.note())
	},
	measure.CauseFingering: func(r told) string {
		return fmt.Sprintf("You played %s. %s was asked.", r.came(), r.note())
	},
	measure.CauseWrongNote: func(r told) string {
		return fmt.Sprintf("You played %s. %s was asked.", r.came(), r.note())
	},
	measure.CauseNotTongued: noted("%s ran on: it was not tongued again."),
	measure.CauseLeftOut:    noted("You left out %s."),
	measure.CauseNoResponse: noted("%s did not sound."),
	measure.CauseGap: func(r told) string {
		return fmt.Sprintf("%s stopped %s.", r.note(), forAbout(r.Value))
	},
	measure.CauseBreak: func(r told) string {
		return fmt.Sprintf("%s cracked to %s %s.", r.note(), r.came(), forAbout(r.Value))
	},
	measure.CauseUndertone: func(r told) string {
		return fmt.Sprintf("%s began with %s %s.", r.note(), r.came(), forAbout(r.Value))
	},
	measure.CauseChirp: noted("%s squeaked."),
	measure.CauseCentre: func(r told) string {
		return fmt.Sprintf("%s was %s.", r.note(), howFlat(r.Value))
	},
	measure.CauseLanding: func(r told) string {
		return fmt.Sprintf("%s was %s when you landed on it.", r.note(), howFlat(r.Value))
	},
	measure.CauseSteadiness: noted("%s was wobbly."),
	measure.CauseDrift: func(r told) string {
		return r.note() + r.way(" sank on the way to its end.", " climbed on the way to its end.")
	},
	measure.CauseFade: func(r told) string { return r.note() + r.way(" faded away.", " grew louder and louder.") },
	measure.CauseStep: func(r told) string {
		return r.note() + r.way(" got softer all at once.", " got louder all at once.")
	},
	measure.CauseBegins: func(r told) string {
		return r.note() + r.way(" began without the tongue.", " began with the tongue.")
	},
	measure.CauseSlurred: fixed("The notes ran into each other: they were not tongued."),
	measure.CauseHeld: func(r told) string {
		if r.Of == 0 {
			return fmt.Sprintf("%s lasted %.0f seconds.", r.note(), r.Value)
		}
		return fmt.Sprintf("%s lasted %s of %.0f beats.", r.note(), Halves(math.Min(r.Value, r.Of)), r.Of)
	},
	measure.CauseScoop:  func(r told) string { return r.note() + r.way(" started too low.", " started too high.") },
	measure.CauseEnding: noted("The end of %s fell, or was cut off."),
	measure.CausePace:   fixedWay("You played slower than the click.", "You played faster than the click."),
	measure.CauseTempo:  fixedWay("You slowed down.", "You sped up."),
	measure.CauseLate:   func(r told) string { return r.note() + r.way(" came early.", " came late.") },
	measure.CauseTiming: func(r told) string {
		return r.note() + r.way(" came before the beat.", " came after the beat.")
	},
	measure.CauseChange:   noted("%s took too long to come."),
	measure.CauseEvenness: func(r told) string { return "Some notes were longer than others" + begun(r) + "." },
	measure.CauseTongue: func(r told) string {
		if r.Note < 0 {
			return "The notes were tongued, not slurred."
		}
		return fmt.Sprintf("The tongue touched %s in the slur.", r.note())
	},
	measure.CauseSwell:      fixed("Soft and loud were too much alike."),
	measure.CauseDynamics:   fixed("Soft was as loud as loud."),
	measure.CausePitchShift: fixedWay("The note fell when it got loud.", "The note rose when it got loud."),
	measure.CausePulse:      fixedWay("There were too few pushes of air.", "There were too many pushes of air."),
	measure.CauseSung: func(r told) string {
		if r.Absent {
			return r.note() + " was not sung."
		}
		return fmt.Sprintf("You sang %s %s.", r.note(), howFlat(r.Value))
	},
	measure.CausePlayedInstead: noted("%s was played, not sung."),
	measure.CauseLine: func(r told) string {
		return "The line " + lineNames[int(r.Value)] + " is missing."
	},
	measure.CauseSlide: fixed("The slide had a silent spot, or stopped short."),
	measure.CauseApart: fixed("High and low were too close."),
	measure.CausePlateaus: func(r told) string {
		return fmt.Sprintf("%.0f of %.0f notes were found.", r.Of-r.Value, r.Of)
	},
	measure.CauseStrokes: func(r told) string {
		return r.way(
			fmt.Sprintf("%.0f of %.0f strokes came. Stroke %d was missing.", r.Value, r.Of, r.Count),
			fmt.Sprintf("There were %.0f strokes too many.", r.Value-r.Of),
		)
	},
	measure.CauseStrokeTiming: func(r told) string {
		return fmt.Sprintf("Stroke %d came %s the beat.", r.Count, r.way("before", "after"))
	},
	measure.CauseBursts:    bursts,
	measure.CauseAirEven:   fixed("Some bursts were stronger than others."),
	measure.CauseAirLength: fixedWay("The air ran out too soon.", "The air went on too long."),
	measure.CauseMeterDelay: func(r told) string {
		if r.Absent {
			return fmt.Sprintf("Blow %d: no air in the meter.", r.Count)
		}
		return fmt.Sprintf("Blow %d: the ball came up late.", r.Count)
	},
	measure.CauseMeterSteady: func(r told) string { return fmt.Sprintf("Blow %d: the ball danced.", r.Count) },
	measure.CauseNotDone: func(r told) string {
		out := fmt.Sprintf("%.0f of %.0f done.", r.Of-r.Value, r.Of)
		if n := r.Count - 1; n >= 0 && n < len(r.t.Items) {
			out += " Not yet: " + r.t.Items[n]
		}
		return out
	},
}

// begun says which little finger began the runs that are meant.
func begun(r told) string {
	if r.Side == "" {
		return ""
	}
	return " when the " + r.Side + " little finger began"
}

var lineNames = map[int]string{1: "on air", 2: "on the buzz", 3: "on the instrument"}

func fixedWay(low, high string) func(told) string {
	return func(r told) string { return r.way(low, high) }
}

func bursts(r told) string {
	switch {
	case r.Absent:
		return "No air was heard."
	case r.Of == 0:
		return "The air stopped on the way."
	}
	return fmt.Sprintf("%.0f bursts. %.0f were asked.", r.Value, r.Of)
}
