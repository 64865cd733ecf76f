package plan

import (
	"cmp"
	"maps"
	"slices"
	"strings"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/say/several"
)

// RemedyBook is a class's own remedies: for a line's key, the kinds in the order they
// are tried. A line that is not in it is ours.
type RemedyBook map[string][]string

// RemedyLine is what is assigned for a cause, in order, as a director sees and changes
// it.
type RemedyLine struct {
	Key    string            `json:"key"`
	Cause  measure.Cause     `json:"cause"`
	Family instrument.Family `json:"family" doc:"empty: everybody else, and the whole band"`
	Words  string            `json:"words" doc:"the cause, as suggestions name it"`
	Kinds  []string          `json:"kinds" nullable:"false" doc:"in the order they are tried"`
	Usual  []string          `json:"usual" nullable:"false" doc:"ours"`
}

const mostRemedies = 6

// lineKey names a line: the cause, and the family where it is not everybody's.
func lineKey(c measure.Cause, f instrument.Family) string {
	if f == "" {
		return string(c)
	}
	return string(c) + "/" + string(f)
}

// Lines lists every line as the class has it, by the words of its cause, everybody's
// before a family's.
func (b RemedyBook) Lines() []RemedyLine {
	var out []RemedyLine
	for c, families := range remedies() {
		for f, usual := range families {
			line := RemedyLine{
				Key:    lineKey(c, f),
				Cause:  c,
				Family: f,
				Words:  several.Named(c),
			}
			for _, r := range usual {
				line.Usual = append(line.Usual, r.kind)
			}
			line.Kinds = line.Usual
			if own, ok := b[line.Key]; ok {
				line.Kinds = append([]string{}, own...)
			}
			out = append(out, line)
		}
	}
	slices.SortFunc(out, func(a, b RemedyLine) int {
		return cmp.Or(strings.Compare(a.Words, b.Words), cmp.Compare(a.Family, b.Family))
	})
	return out
}

// Check returns what of a book cannot be, and the remedy; "" where all of it can.
func (b RemedyBook) Check() (key, remedy string) {
	for _, key := range slices.Sorted(maps.Keys(b)) {
		cause, family, _ := strings.Cut(key, "/")
		if _, ok := remedies()[measure.Cause(cause)][instrument.Family(family)]; !ok {
			return key, "choose a line of the list"
		}
		if len(b[key]) > mostRemedies {
			return key, "name at most six kinds"
		}
		for _, kind := range b[key] {
			if _, err := exercise.Parse(kind, nil); err != nil {
				return key, "choose kinds of the catalogue: there is no " + kind
			}
		}
	}
	return "", ""
}

// next returns the first remedy of a cause, for a family and players of instruments
// (keys), that suits one of them and was not tried; ok is false when there is none left,
// planned when there was one.
func (b RemedyBook) next(
	c measure.Cause, f instrument.Family, keys []string, past [][]Item,
) (s exercise.Step, ok, planned bool) {
	for _, r := range b.line(c, f) {
		if !suitsAny(r.kind, keys) {
			continue
		}
		planned = true
		if !tried(r.kind, c, keys, past) {
			return exercise.New(r.kind, r.set), true, true
		}
	}
	return exercise.Step{}, false, planned
}

// line is what a class tries for a cause, in order.
func (b RemedyBook) line(c measure.Cause, f instrument.Family) []recipe {
	usual, own := remedies()[c][f]
	if !own {
		usual, f = remedies()[c][""], ""
	}
	kinds, changed := b[lineKey(c, f)]
	if !changed {
		return usual
	}
	var line []recipe
	for _, kind := range kinds {
		// A kind of ours keeps what we ask of it; another comes as the catalogue has it.
		if at := slices.IndexFunc(usual, func(r recipe) bool { return r.kind == kind }); at >= 0 {
			line = append(line, usual[at])
		} else {
			line = append(line, recipe{kind, nil})
		}
	}
	return line
}

// suitsAny reports whether a kind suits one of some instruments. One that this version
// does not know, of a book that is older, suits none.
func suitsAny(kind string, keys []string) bool {
	s, err := exercise.Parse(kind, nil)
	return err == nil && slices.ContainsFunc(keys, func(key string) bool {
		i, err := instrument.Get(key)
		return err == nil && s.Suits(i)
	})
}
