package verdict

import (
	"cmp"
	"slices"
	"strings"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Tip is one piece of advice.
type Tip struct {
	Key  string `json:"key"`
	Text string `json:"text"`
}

// Book is a class's own words for tips, by key; a tip given the empty text is
// never given. Tips it does not name keep ours.
type Book map[string]string

// Advices lists every tip with the class's own words, special cases before
// general ones.
func (b Book) Advices() []measure.Advice {
	out := measure.Advices()
	for n := range out {
		if own, ok := b[out[n].Key]; ok {
			out[n].Text = own
		}
	}
	return out
}

// Unknown lists the keys that no tip has, for whoever edits the book.
func (b Book) Unknown() (out []string) {
	ours := measure.Advices()
	for key := range b {
		if !slices.ContainsFunc(ours, func(a measure.Advice) bool { return a.Key == key }) {
			out = append(out, key)
		}
	}
	slices.Sort(out)
	return out
}

// AskDirector closes the list when every tip has been given twice running.
var AskDirector = Tip{"ask-director", "You have worked at this one. Ask your director to hear it with you."}

const (
	// TimesRunning is how often the same tip may be given in a row.
	TimesRunning = 2
	// AskAfter is for how many takes in a row tips for one cause may be given
	// before the director should hear it.
	AskAfter = 4
)

// Situation is where a tip is looked for.
type Situation struct {
	Instrument instrument.Instrument
	Chapter    scores.Chapter   // of the step's kind
	Register   measure.Register // of the note that decided; "" for the whole step
	Direction  int
	Air        exercise.AirPicture // the school of words; "" is the usual one
	Mend       string              // how to come to the right fingering; "" where it is not known
}

// Answers lists the tips for a cause in a situation, the most particular first.
func (b Book) Answers(cause measure.Cause, s Situation) (out []Tip) {
	for _, a := range b.Advices() {
		if a.Cause == cause && s.has(a.When) && a.Text != "" {
			out = append(out, Tip{a.Key, inWords(a.Text, s.Air, s.Mend)})
		}
	}
	return out
}

// has reports whether the situation is one that an advice answers.
func (s Situation) has(w measure.When) bool {
	return (w.Family == "" || w.Family == s.Instrument.Family) &&
		(len(w.Only) == 0 || slices.Contains(w.Only, s.Instrument.Key)) &&
		(w.Chapter == "" || w.Chapter == s.Chapter) &&
		(w.Register == "" || w.Register == s.Register) &&
		(w.Direction == 0 || w.Direction == s.Direction)
}

// clean takes are told what to enjoy.
var clean = []Tip{
	{"clean-listen", "Clean. Listen back once and remember how it felt."},
	{"clean-soft", "Clean. Try it again a little softer, just as steady."},
}

// choose picks the tip for the first cause that has one not just given twice.
func (c Case) choose(causes []measure.Cause, deciding *measure.Reading) Tip {
	if len(causes) == 0 {
		return clean[len(c.RecentTips)%len(clean)]
	}
	// The deciding measure's cause speaks first.
	if deciding != nil {
		others := slices.DeleteFunc(slices.Clone(causes), func(c measure.Cause) bool { return c == deciding.Cause })
		causes = append([]measure.Cause{deciding.Cause}, others...)
	}
	if sameCause(causes[0], c.RecentTips) {
		return AskDirector
	}
	for _, cause := range causes {
		for _, tip := range c.Tips.Answers(cause, c.situation(cause, deciding)) {
			if !givenTwice(tip.Key, c.RecentTips) {
				return tip
			}
		}
	}
	return AskDirector
}

func (c Case) situation(cause measure.Cause, deciding *measure.Reading) Situation {
	s := Situation{Instrument: c.Instrument, Air: c.Air}
	if k, err := exercise.Get(c.Score.Kind); err == nil {
		s.Chapter = k.Group
	}
	if deciding == nil || deciding.Cause != cause {
		return s
	}
	s.Direction = deciding.Direction
	if deciding.Note >= 0 {
		t := c.Score.Targets()[deciding.Note]
		s.Register = measure.RegisterOf(c.Instrument, t.Target)
		s.Mend = c.Instrument.Mend(t.Target, deciding.Came, instrument.UsualHands())
	}
	return s
}

// sameCause reports whether the latest takes were all given tips for one cause.
func sameCause(cause measure.Cause, recent []string) bool {
	if len(recent) < AskAfter {
		return false
	}
	advices := measure.Advices()
	return !slices.ContainsFunc(recent[:AskAfter], func(key string) bool {
		return !slices.ContainsFunc(advices, func(a measure.Advice) bool { return a.Key == key && a.Cause == cause })
	})
}

func givenTwice(key string, recent []string) bool {
	if len(recent) < TimesRunning {
		return false
	}
	return !slices.ContainsFunc(recent[:TimesRunning], func(k string) bool { return k != key })
}

// pictures are the schools of words for air: what a tip's braces become.
var pictures = map[exercise.AirPicture]map[string]string{
	"speed":  {"faster": "faster air", "slower": "slower air", "even": "air at one speed"},
	"warmth": {"faster": "cool air, sent far", "slower": "warm air, close by", "even": "air at one warmth"},
	"width": {
		"faster": "a narrower stream of air",
		"slower": "a wider stream of air",
		"even":   "a stream of one width",
	},
	"vowels": {
		"faster": "an \"ee\" inside the mouth",
		"slower": "an \"oh\" inside the mouth",
		"even":   "one vowel from start to end",
	},
}

// lookAtTheCard is said where the tables do not tell which finger differs.
const lookAtTheCard = "Look at the fingering on the card"

// inWords says a tip in the class's picture for air, and with the fingers to move.
func inWords(text string, school exercise.AirPicture, mend string) string {
	text = strings.ReplaceAll(text, "{mend}", cmp.Or(mend, lookAtTheCard))
	words, ok := pictures[school]
	if !ok {
		words = pictures["speed"]
	}
	for name, said := range words {
		text = strings.ReplaceAll(text, "{"+name+"}", said)
	}
	return text
}
