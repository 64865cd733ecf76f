package progress

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
)

// Home is what a family reads of a player's weeks: what went well, one thing to try, and how
// to help, none of which asks for knowing music.
type Home struct {
	Well []string
	Try  string
	Help []string
}

// AtHome are the facts of a player's weeks that a family's words are made of.
type AtHome struct {
	First    string // the player's first name
	Days     int    // with practice in them
	LateDays int    // of the last fortnight
	Growth   Growth
	Rungs    int             // ladder rungs passed in these weeks
	Clean    int             // takes of the last fortnight that came out clean
	Takes    int             // of the last fortnight
	Causes   []measure.Cause // what decided the takes of the last fortnight that did not
}

const (
	wellDays  = 8 // in a fortnight: four a week (common practice, no published source)
	mostWell  = 3
	sharesTry = 3 // takes with one cause before it is the one thing to try
)

// HomeOf makes a family's words. Nothing is said that the numbers do not bear, and nobody is
// compared with anybody else.
func HomeOf(h AtHome) Home {
	out := Home{Well: h.well(), Help: h.help()}
	if len(out.Well) > mostWell {
		out.Well = out.Well[:mostWell]
	}
	out.Try = h.try()
	return out
}

func (h AtHome) well() (out []string) {
	if h.Days == 0 {
		return []string{h.First + " has not recorded anything in these weeks. Any day is a good day to begin."}
	}
	if first, best := h.holds(); best > 0 && best >= first+1 {
		out = append(out, fmt.Sprintf(
			"%s held one note for %.0f seconds. In the first of these weeks it was %.0f.", h.First, best, first,
		))
	} else if best > 0 {
		out = append(out, fmt.Sprintf("%s held one note for %.0f seconds on one breath.", h.First, best))
	}
	if t := h.Growth.Steadiness.Trend; t != nil && t.Clear && t.PerWeek < 0 {
		out = append(out, "Notes are steadier than they were a few weeks ago.")
	}
	if t := h.Growth.Centre.Trend; t != nil && t.Clear && t.PerWeek < 0 {
		out = append(out, "Notes are better in tune than they were a few weeks ago.")
	}
	if h.Rungs > 0 {
		passed := counted(h.Rungs, "passed one step", "passed %d steps")
		out = append(out, h.First+" "+passed+" on the way to a hard note.")
	}
	if h.Clean > 0 {
		out = append(out, fmt.Sprintf("In the last two weeks %d of %d recordings were clean.", h.Clean, h.Takes))
	}
	if h.LateDays >= wellDays || len(out) == 0 {
		out = append(out, fmt.Sprintf("%s practiced on %d of the last 14 days.", h.First, h.LateDays))
	}
	return out
}

// holds are the longest notes of the first week that had one, and of all.
func (h AtHome) holds() (first, best float64) {
	for _, w := range h.Growth.Weeks {
		if w.BestHold > 0 && first == 0 {
			first = w.BestHold
		}
		best = max(best, w.BestHold)
	}
	return first, best
}

func counted(n int, one, many string) string {
	if n == 1 {
		return one
	}
	return fmt.Sprintf(many, n)
}

// try is one thing: what came up most lately, or else to come back more often.
func (h AtHome) try() string {
	counts, most := map[measure.Cause]int{}, measure.Cause("")
	for _, c := range h.Causes {
		counts[c]++
		if _, said := triedAtHome[c]; said && (most == "" || counts[c] > counts[most]) {
			most = c
		}
	}
	switch {
	case counts[most] >= sharesTry:
		return triedAtHome[most]
	case h.LateDays < wellDays/2:
		return "Little and often: five minutes on four days do more than an hour on one."
	}
	return "One long, calm note at the start of each practice, as still as can be."
}

// triedAtHome are a family's words for what decided a take. They ask for nothing that needs a
// teacher beside.
var triedAtHome = map[measure.Cause]string{
	measure.CauseGap:          "The sound stops on the way. Take a bigger breath first, and blow to the very end.",
	measure.CauseHeld:         "Notes end early. Count aloud for them: hold until you have said the last number.",
	measure.CauseSteadiness:   "Notes shake a little. Try one long note with still shoulders and slow air.",
	measure.CauseDrift:        "Notes slide away as they go on. Try the note again, and keep blowing as at the start.",
	measure.CauseCentre:       "Notes are a little out of tune. Listen to the note on the page first, then match it.",
	measure.CauseBreak:        "Notes jump. Try them softer and slower, with the fingers pressed all the way down.",
	measure.CauseRegisterLow:  "The high note stays low. Play the high one alone first, then both.",
	measure.CauseHeldOver:     "The fingers are late. Press them twice without blowing, then play.",
	measure.CauseFingering:    "One note has the wrong fingers. Look at the picture of that note before playing.",
	measure.CauseWrongNote:    "One note comes out as another. Look at its picture, and play that one alone first.",
	measure.CausePartial:      "The lips land on another note. Sing it first, then play it.",
	measure.CauseNotTongued:   "Each note starts with the tongue, as in “too”. Say it four times, then play it.",
	measure.CauseLate:         "Notes start late. Breathe one beat earlier, in time with the click.",
	measure.CauseTiming:       "Clap the line once with the click before playing it.",
	measure.CausePace:         "Slower is fine. Turn the click on, and choose a slower speed.",
	measure.CauseTempo:        "Keep the click on, and choose a slower speed.",
	measure.CauseChange:       "Changes take long. Do only those two notes, five times, slowly.",
	measure.CauseSwell:        "Soft can be softer and loud louder. Try it as slowly as the waves come in.",
	measure.CauseEnding:       "Let the end of the note fade. Do not drop it.",
	measure.CauseLeftOut:      "A note went missing. Do the line once with the fingers only, then play.",
	measure.CauseRecording:    "The microphone heard too little or too much. Try a quiet room, an arm’s length away.",
	measure.CauseNobody:       "The microphone heard nothing. Try a quiet room, an arm’s length away.",
	measure.CauseNoResponse:   "A note did not speak. Rest a moment, wet the lips or the reed, and try it again.",
	measure.CauseRegisterHigh: "The low note jumps up. Play it softly, with warm, slow air.",
}

// help is what anybody at home can do, whatever they know of music.
func (h AtHome) help() []string {
	out := []string{
		"Ask to hear the long note of the day. Two minutes of listening are plenty.",
		"Say what you heard: “that one was steady”. Leave the mending to the director.",
	}
	if h.LateDays < wellDays/2 {
		return append(out, "Choose one time of the day for it, and keep the instrument where it is seen.")
	}
	return append(out, "If anything hurts, or makes dizzy: stop for the day, and tell the director.")
}
