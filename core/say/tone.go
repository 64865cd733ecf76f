package say

import (
	"strings"

	"earlychorus/core/fmt"
	"earlychorus/core/tone"
)

// SaidTone is a take's tone in words.
type SaidTone struct {
	tone.Comparison
	Says    string       `json:"says" doc:"in one sentence, or why it cannot be compared"`
	Changes []ToneChange `json:"changes" nullable:"false"`
}

// ToneChange is one quality in words.
type ToneChange struct {
	tone.Change
	Label string `json:"label" doc:"the quality's name on screen"`
	Word  string `json:"word" doc:"clearer, breathier; or as usual"`
	Text  string `json:"text" doc:"against how many earlier takes, and how sure"`
}

// ToneCourse is how a tone went over weeks, in words.
type ToneCourse struct {
	tone.Course
	Says  string     `json:"says" doc:"in one sentence, or why there is nothing to say"`
	Turns []ToneTurn `json:"turns" nullable:"false"`
}

// ToneTurn is one quality's way in words.
type ToneTurn struct {
	tone.Turn
	Label string `json:"label"`
	Word  string `json:"word"`
}

// toneWords name each quality, more of it and less of it.
var toneWords = map[tone.Quality]struct{ label, more, less string }{
	tone.Clearness:  {"Clear or breathy", "clearer", "breathier"},
	tone.Brightness: {"Bright or dark", "brighter", "darker"},
	tone.Fullness:   {"Full or thin", "fuller", "thinner"},
}

const asUsual = "as usual"

func toneWord(q tone.Quality, way float64) string {
	if way < 0 {
		return toneWords[q].less
	}
	return toneWords[q].more
}

// ToneOf says how a take's tone is, against the player's own.
func ToneOf(c tone.Comparison) SaidTone {
	out := SaidTone{Comparison: c, Changes: []ToneChange{}}
	var other []string
	for _, change := range c.Changes {
		said := ToneChange{Change: change, Label: toneWords[change.Quality].label, Word: asUsual}
		said.Text = fmt.Sprintf("against the last %d takes of these notes", c.Against)
		if change.Sure != tone.AsUsual {
			said.Word = toneWord(change.Quality, change.Spreads)
			said.Text = fmt.Sprintf("than in %d of the last %d takes of these notes, %s", change.Beyond, c.Against,
				sureWords[change.Sure])
			other = append(other, said.Word)
		}
		out.Changes = append(out.Changes, said)
	}
	switch {
	case c.Why != "":
		out.Says = whyNotCompared(c.Why, c.Against)
	case len(other) == 0:
		out.Says = fmt.Sprintf("The tone is as usual: compared with %d takes of these notes.", c.Against)
	default:
		out.Says = fmt.Sprintf(
			"The tone is %s than usual: compared with %d takes of these notes.", list(other), c.Against,
		)
	}
	return out
}

var sureWords = map[tone.Sure]string{tone.Likely: "seldom by chance", tone.Certain: "hardly ever by chance"}

// whyNotCompared says why, and what would make it possible.
func whyNotCompared(why tone.Why, takes int) string {
	switch why {
	case tone.UnknownDevice:
		return "The tone cannot be compared: it is not known through which microphone this take came."
	case tone.OtherDevice:
		return "The tone cannot be compared: the earlier takes came through another microphone."
	case tone.OtherRoom:
		return "The tone cannot be compared: the earlier takes were made in another room, " +
			"or with the microphone elsewhere."
	case tone.OtherLoudness:
		return "The tone cannot be compared: the earlier takes were much louder or softer, and that changes it."
	case tone.TooFew:
		return fmt.Sprintf("Too early to compare the tone: %s of these notes in the last %d weeks, and %d are needed.",
			takesOf(takes), tone.Weeks, tone.Fewest)
	}
	return "The tone cannot be compared: no note of this take is clear enough of the room to tell."
}

func takesOf(n int) string {
	if n == 1 {
		return "1 take"
	}
	return fmt.Sprintf("%d takes", n)
}

// ToneCourseOf says how a player's tone went.
func ToneCourseOf(c tone.Course) ToneCourse {
	out := ToneCourse{Course: c, Turns: []ToneTurn{}}
	var changed []string
	for _, turn := range c.Turns {
		said := ToneTurn{Turn: turn, Label: toneWords[turn.Quality].label, Word: "no clear change"}
		if turn.Trend != nil && turn.Trend.Clear {
			said.Word = toneWord(turn.Quality, turn.Trend.PerWeek)
			changed = append(changed, said.Word)
		}
		out.Turns = append(out.Turns, said)
	}
	switch {
	case c.Why == tone.TooFew:
		out.Says = fmt.Sprintf("Tone on one microphone: %s so far, too few to say.", daysOf(c.Days))
	case c.Why == tone.Unheard:
		out.Says = "Nothing to say of the tone yet."
	case c.Why == tone.UnknownDevice:
		out.Says = whyNotCompared(c.Why, 0)
	case c.Why != "":
		out.Says = "The tone cannot be compared: most takes were made through another microphone or in another room."
	case len(changed) == 0:
		out.Says = fmt.Sprintf("No clear change of tone, over %s on one microphone.", daysOf(c.Days))
	default:
		out.Says = fmt.Sprintf("The tone grew %s, over %s on one microphone.", list(changed), daysOf(c.Days))
	}
	return out
}

func daysOf(n int) string {
	if n == 1 {
		return "1 day"
	}
	return fmt.Sprintf("%d days", n)
}

// list joins words as a sentence does.
func list(words []string) string {
	last := len(words) - 1
	if last < 1 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:last], ", ") + " and " + words[last]
}
