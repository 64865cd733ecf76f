package verdict

import (
	"slices"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

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
const AskDirector = "ask-director"

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
}

// Answers lists the tips for a cause in a situation, the most particular first.
func (b Book) Answers(cause measure.Cause, s Situation) (out []measure.Advice) {
	for _, a := range b.Advices() {
		if a.Cause == cause && s.has(a.When) && a.Text != "" {
			out = append(out, a)
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

// CleanTips are told to clean takes in turn: what to enjoy.
func CleanTips() []string { return []string{"clean-listen", "clean-soft"} }

// choose picks the tip for the first cause that has one not just given twice, and
// returns its key.
func (c Case) choose(causes []measure.Cause, deciding *measure.Reading) string {
	if len(causes) == 0 {
		return CleanTips()[len(c.RecentTips)%len(CleanTips())]
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
				return tip.Key
			}
		}
	}
	return AskDirector
}

func (c Case) situation(cause measure.Cause, deciding *measure.Reading) Situation {
	s := Situation{Instrument: c.Instrument}
	if k, err := exercise.Get(c.Score.Kind); err == nil {
		s.Chapter = k.Group
	}
	if deciding == nil || deciding.Cause != cause {
		return s
	}
	s.Direction = deciding.Way
	if deciding.Note >= 0 {
		s.Register = measure.RegisterOf(c.Instrument, c.Score.Targets()[deciding.Note].Target)
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
