package plan

import (
	"slices"

	"earlychorus/core/json"
)

// Conflict is an item that two people changed in different ways.
type Conflict struct {
	Key    string `json:"key"`
	Base   *Item  `json:"base,omitempty"`
	Theirs *Item  `json:"theirs,omitempty" doc:"absent when they took it away"`
	Mine   *Item  `json:"mine,omitempty" doc:"absent when you took it away"`
}

// Merge brings two people's changes of one plan together: what only one of them
// changed is taken as changed, what both changed alike as well. What they changed
// differently is a conflict; theirs then stands in the result. The order is
// mine where I moved something, else theirs.
func Merge(base, theirs, mine []Item) (merged []Item, conflicts []Conflict) {
	b, t, m := byKey(base), byKey(theirs), byKey(mine)
	keep := map[string]Item{}
	for _, key := range keysOf(mine, theirs, base) {
		inBase, inTheirs, inMine := b[key], t[key], m[key]
		chosen := inTheirs
		switch {
		case same(inBase, inTheirs):
			chosen = inMine
		case same(inBase, inMine) || same(inTheirs, inMine):
		default:
			conflicts = append(conflicts, Conflict{key, inBase, inTheirs, inMine})
		}
		if chosen != nil {
			keep[key] = *chosen
		}
	}
	first, second := theirs, mine
	if !slices.Equal(common(base, mine), common(mine, base)) { // I moved something
		first, second = mine, theirs
	}
	return woven(keep, first, second), conflicts
}

func byKey(items []Item) map[string]*Item {
	out := map[string]*Item{}
	for n := range items {
		out[items[n].Key] = &items[n]
	}
	return out
}

func keysOf(lists ...[]Item) (out []string) {
	seen := map[string]bool{}
	for _, items := range lists {
		for _, i := range items {
			if !seen[i.Key] {
				seen[i.Key] = true
				out = append(out, i.Key)
			}
		}
	}
	return out
}

// same compares items as they are written down.
func same(a, b *Item) bool {
	if a == nil || b == nil {
		return a == b
	}
	x, errX := json.Marshal(a)
	y, errY := json.Marshal(b)
	return errX == nil && errY == nil && string(x) == string(y)
}

// common lists the keys of a that b has too, in a's order.
func common(a, b []Item) (out []string) {
	has := byKey(b)
	for _, i := range a {
		if has[i.Key] != nil {
			out = append(out, i.Key)
		}
	}
	return out
}

// woven orders what is kept: as the first list has it, and what only the second
// has behind the item it stands behind there.
func woven(keep map[string]Item, first, second []Item) []Item {
	var order []string
	for _, i := range first {
		if _, ok := keep[i.Key]; ok {
			order = append(order, i.Key)
		}
	}
	before := ""
	for _, i := range second {
		if _, ok := keep[i.Key]; ok && !slices.Contains(order, i.Key) {
			order = slices.Insert(order, slices.Index(order, before)+1, i.Key)
		}
		if slices.Contains(order, i.Key) {
			before = i.Key
		}
	}
	out := []Item{}
	for _, key := range order {
		out = append(out, keep[key])
	}
	return out
}

// Changes says in a few words what is different in a plan, for its history.
func Changes(from, to []Item) string {
	f, t := byKey(from), byKey(to)
	var added, gone, changed []string
	for _, i := range to {
		switch before := f[i.Key]; {
		case before == nil:
			added = append(added, i.Name())
		case !same(before, t[i.Key]):
			changed = append(changed, i.Name())
		}
	}
	for _, i := range from {
		if t[i.Key] == nil {
			gone = append(gone, i.Name())
		}
	}
	switch {
	case len(added)+len(gone)+len(changed) == 0 && !slices.Equal(keysOf(from), keysOf(to)):
		return "moved steps"
	case len(added)+len(gone)+len(changed) == 0:
		return "nothing"
	}
	return listed("added ", added) + listed("took away ", gone) + listed("changed ", changed)
}

const mostNamed = 2

func listed(verb string, names []string) string {
	switch {
	case len(names) == 0:
		return ""
	case len(names) > mostNamed:
		names = append(slices.Clone(names[:mostNamed]), "others")
	}
	out := verb
	for n, name := range names {
		if n > 0 {
			out += ", "
		}
		out += name
	}
	return out + ". "
}
