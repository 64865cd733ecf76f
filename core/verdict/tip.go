package verdict

import (
	"slices"
	"strings"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// Tip is one piece of advice.
type Tip struct {
	Key  string `json:"key"`
	Text string `json:"text"`
}

// Advice is a row of the book of tips: which case it answers, and its words.
// Words in braces are said in the class's picture for air.
type Advice struct {
	Key       string            `json:"key"`
	Cause     Cause             `json:"cause"`
	Family    instrument.Family `json:"family,omitempty" doc:"empty answers every family"`
	Only      []string          `json:"only,omitempty" doc:"these instruments alone"`
	Group     scores.Chapter    `json:"group,omitempty" doc:"this chapter of the catalogue alone"`
	Register  Register          `json:"register,omitempty" doc:"empty answers every register"`
	Direction int               `json:"direction,omitempty" doc:"-1 too low, short or early, 1 the other way, 0 either"`
	Text      string            `json:"text"`
}

// Book is a class's own words for tips, by key; a tip given the empty text is
// never given. Tips it does not name keep ours.
type Book map[string]string

// Advices lists every tip with the class's own words, special cases before
// general ones.
func (b Book) Advices() []Advice {
	out := slices.Clone(advices)
	for n := range out {
		if own, ok := b[out[n].Key]; ok {
			out[n].Text = own
		}
	}
	return out
}

// Unknown lists the keys that no tip has, for whoever edits the book.
func (b Book) Unknown() (out []string) {
	for key := range b {
		if !slices.ContainsFunc(advices, func(a Advice) bool { return a.Key == key }) {
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
	Group      scores.Chapter
	Register   Register // of the note that decided; "" for the whole step
	Direction  int
	Air        string // the school of words; "" is the usual one
}

// Answers lists the tips for a cause in a situation, the most particular first.
func (b Book) Answers(cause Cause, s Situation) (out []Tip) {
	for _, a := range b.Advices() {
		if a.Cause == cause && a.answers(s) && a.Text != "" {
			out = append(out, Tip{a.Key, inWords(a.Text, s.Air)})
		}
	}
	return out
}

func (a Advice) answers(s Situation) bool {
	return (a.Family == "" || a.Family == s.Instrument.Family) &&
		(len(a.Only) == 0 || slices.Contains(a.Only, s.Instrument.Key)) &&
		(a.Group == "" || a.Group == s.Group) &&
		(a.Register == "" || a.Register == s.Register) &&
		(a.Direction == 0 || a.Direction == s.Direction)
}

// choose picks the tip for the first cause that has one not just given twice.
func (c Case) choose(causes []Cause, deciding *Measure) Tip {
	if len(causes) == 0 {
		return clean[len(c.RecentTips)%len(clean)]
	}
	// The deciding measure's cause speaks first.
	if deciding != nil {
		causes = append(
			[]Cause{deciding.Cause},
			slices.DeleteFunc(slices.Clone(causes), func(x Cause) bool { return x == deciding.Cause })...)
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

func (c Case) situation(cause Cause, deciding *Measure) Situation {
	s := Situation{Instrument: c.Instrument, Air: c.Air}
	if k, err := exercise.Get(c.Score.Kind); err == nil {
		s.Group = k.Group
	}
	if deciding == nil || deciding.Cause != cause {
		return s
	}
	s.Direction = deciding.direction
	if deciding.Note >= 0 {
		s.Register = RegisterOf(c.Instrument, c.Score.Targets()[deciding.Note].Target)
	}
	return s
}

// sameCause reports whether the latest takes were all given tips for one cause.
func sameCause(cause Cause, recent []string) bool {
	if len(recent) < AskAfter {
		return false
	}
	return !slices.ContainsFunc(recent[:AskAfter], func(key string) bool {
		return !slices.ContainsFunc(advices, func(a Advice) bool { return a.Key == key && a.Cause == cause })
	})
}

func givenTwice(key string, recent []string) bool {
	if len(recent) < TimesRunning {
		return false
	}
	return !slices.ContainsFunc(recent[:TimesRunning], func(k string) bool { return k != key })
}

// pictures are the schools of words for air: what a tip's braces become.
var pictures = map[string]map[string]string{
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

// inWords says a tip in the class's picture for air.
func inWords(text, school string) string {
	words, ok := pictures[school]
	if !ok {
		words = pictures["speed"]
	}
	for name, said := range words {
		text = strings.ReplaceAll(text, "{"+name+"}", said)
	}
	return text
}
