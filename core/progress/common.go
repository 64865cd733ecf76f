package progress

import (
	"cmp"
	"slices"
	"strings"

	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/say/several"
	"earlychorus/core/verdict"
)

// Common is something several players share, as a sentence with its counts and
// the takes behind it.
type Common struct {
	Section  string        `json:"section" doc:"empty for the whole class"`
	Step     string        `json:"step"`
	Cause    measure.Cause `json:"cause" doc:"empty where many are not there yet, for causes of their own"`
	Players  int           `json:"players"`
	Of       int           `json:"of" doc:"who played the step"`
	Sentence string        `json:"sentence"`
	Takes    []string      `json:"takes" doc:"each player's latest" nullable:"false"`
}

// shared is how many players make something common, and which share of those who
// played.
const (
	fewestSharing = 2
	leastShare    = 0.4
	mostCommon    = 8
	// fewestSections share what is said of the class.
	fewestSections = 3
)

// Commons finds what sections, and the class, have in common on a day: the
// latest take of each player and step counts. names says a step's name. Where
// most sections share it, it is said of the class once. The most players first.
func Commons(takes []Take, names map[string]string) []Common {
	latest := latestOf(takes)
	out := []Common{}
	class := map[[2]string]bool{}
	for _, c := range grouped(latest, names, func(Take) string { return "" }) {
		if sections(latest, c) >= fewestSections {
			class[[2]string{c.Step, string(c.Cause)}] = true
			out = append(out, c)
		}
	}
	out = append(out, unmastered(latest, names, class)...)
	for _, c := range grouped(latest, names, func(t Take) string { return t.Section }) {
		if !class[[2]string{c.Step, string(c.Cause)}] {
			out = append(out, c)
		}
	}
	slices.SortStableFunc(out, func(a, b Common) int {
		return cmp.Or(
			cmp.Compare(b.Players, a.Players),
			cmp.Compare(a.Of, b.Of),
			cmp.Compare(a.Section, b.Section),
			cmp.Compare(a.Step, b.Step),
			cmp.Compare(a.Cause, b.Cause),
		)
	})
	return out[:min(len(out), mostCommon)]
}

// unmastered finds steps that many of the class are not there with yet, for causes of their own;
// said is what the class shares, which says it better.
func unmastered(latest []Take, names map[string]string, said map[[2]string]bool) (out []Common) {
	shares := map[string]bool{}
	for key := range said {
		shares[key[0]] = true
	}
	played, steps := map[string]int{}, []string{}
	behind := map[string][]string{}
	for _, t := range latest {
		if played[t.Step] == 0 {
			steps = append(steps, t.Step)
		}
		played[t.Step]++
		if t.Result == verdict.NotYet {
			behind[t.Step] = append(behind[t.Step], t.ID)
		}
	}
	for _, step := range steps {
		n := len(behind[step])
		if shares[step] || n < Fewest || float64(n) < leastShare*float64(played[step]) {
			continue
		}
		c := Common{
			Step:     step,
			Players:  n,
			Of:       played[step],
			Sentence: fmt.Sprintf("%d of %d players are not there yet: %s.", n, played[step], names[step]),
			Takes:    behind[step],
		}
		// Of one section or two it is said for them.
		if sections(latest, c) >= fewestSections {
			out = append(out, c)
		}
	}
	return out
}

// latestOf keeps the last take of each player and step; takes come in the order
// they were made.
func latestOf(takes []Take) []Take {
	at := map[[2]string]int{}
	var out []Take
	for _, t := range takes {
		key := [2]string{t.Player, t.Step}
		if n, seen := at[key]; seen {
			out[n] = t
			continue
		}
		at[key] = len(out)
		out = append(out, t)
	}
	return out
}

func grouped(takes []Take, names map[string]string, by func(Take) string) []Common {
	type group struct{ section, step string }
	played := map[group]int{}
	sharing := map[group]map[measure.Cause][]Take{}
	for _, t := range takes {
		g := group{by(t), t.Step}
		played[g]++
		if t.Result == verdict.Clean || t.Cause == "" {
			continue
		}
		if sharing[g] == nil {
			sharing[g] = map[measure.Cause][]Take{}
		}
		sharing[g][t.Cause] = append(sharing[g][t.Cause], t)
	}
	var out []Common
	for g, causes := range sharing {
		for cause, list := range causes {
			if len(list) < fewestSharing || float64(len(list)) < leastShare*float64(played[g]) {
				continue
			}
			c := Common{
				Section: g.section,
				Step:    g.step,
				Cause:   cause,
				Players: len(list),
				Of:      played[g],
			}
			for _, t := range list {
				c.Takes = append(c.Takes, t.ID)
			}
			c.Sentence = c.say(list, names[g.step])
			out = append(out, c)
		}
	}
	return out
}

func (c Common) say(list []Take, step string) string {
	who := "players"
	if c.Section != "" {
		who = strings.ToLower(c.Section[:1]) + c.Section[1:]
	}
	notes := ""
	if n := list[0].Notes; n != "" && !slices.ContainsFunc(list, func(t Take) bool { return t.Notes != n }) {
		// Of a whole line the notes are not news.
		if each := strings.Fields(n); len(each) <= 2 {
			notes = " on " + strings.Join(withoutOctaves(each), " and ")
		}
	}
	return fmt.Sprintf("%d of %d %s %s%s: %s.", c.Players, c.Of, who, several.Did(c.Cause), notes, step)
}

// withoutOctaves are notes' names without numbers, where they still tell them apart.
func withoutOctaves(names []string) []string {
	out := make([]string, len(names))
	for n, name := range names {
		out[n] = strings.TrimRight(name, "0123456789")
	}
	if len(out) == 2 && out[0] == out[1] && names[0] != names[1] {
		return names
	}
	return out
}

func sections(takes []Take, c Common) int {
	seen := map[string]bool{}
	for _, t := range takes {
		if slices.Contains(c.Takes, t.ID) {
			seen[t.Section] = true
		}
	}
	return len(seen)
}
