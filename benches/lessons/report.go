package main

import (
	"cmp"
	"fmt"
	"io"
	"maps"
	"slices"

	"earlychorus/benches/figures"
)

// count is how many lessons of one sort there were, and how many were right.
type count struct{ all, right, word, account, tip int }

func (c *count) add(r result) {
	c.all++
	for to, is := range map[*int]bool{&c.right: r.right(), &c.word: r.word, &c.account: r.account, &c.tip: r.tip} {
		if is {
			*to++
		}
	}
}

// report prints the tables: by mistake, by instrument, by room and by source.
func report(w io.Writer, found []result) []figures.Figure {
	var all, rights, wrongs count
	tables := []struct {
		title string
		of    func(result) string
		rows  map[string]*count
	}{
		{"mistake", func(r result) string { return cmp.Or(r.lesson.Mistake, "none") }, map[string]*count{}},
		{"instrument", func(r result) string { return r.lesson.Instrument.Key }, map[string]*count{}},
		{"kind", func(r result) string { return r.lesson.Step.Kind.Key }, map[string]*count{}},
		{"room", func(r result) string { return r.lesson.Room.Name }, map[string]*count{}},
		{"sound", func(r result) string { return r.lesson.Source }, map[string]*count{}},
	}
	for _, r := range found {
		all.add(r)
		if r.lesson.Mistake == "" {
			rights.add(r)
		} else {
			wrongs.add(r)
		}
		for _, t := range tables {
			key := t.of(r)
			if t.rows[key] == nil {
				t.rows[key] = &count{}
			}
			t.rows[key].add(r)
		}
	}
	for _, t := range tables {
		fmt.Fprintf(w, "\n| %s | lessons | right | verdict | account | tip |\n|---|---|---|---|---|---|\n", t.title)
		for _, key := range slices.Sorted(maps.Keys(t.rows)) {
			c := t.rows[key]
			fmt.Fprintf(w, "| %s | %d | %s | %s | %s | %s |\n",
				key, c.all, share(c.right, c.all), share(c.word, c.all), share(c.account, c.all), share(c.tip, c.all))
		}
	}
	fmt.Fprintf(w, "\nright conclusions: %d of %d (%s); mistakes named: %s; right takes accused: %s of %d\n",
		all.right, all.all, share(all.right, all.all), share(wrongs.right, wrongs.all),
		share(rights.all-rights.word, rights.all), rights.all)
	of := func(part, whole int) float64 { return 100 * float64(part) / float64(max(1, whole)) }
	return []figures.Figure{
		figures.Plain("lessons", "%d", all.all),
		figures.AtLeast("right conclusions", "%.1f %%", of(all.right, all.all), 99),
		figures.AtMost("right takes accused", "%.2f %%", of(rights.all-rights.word, rights.all), 0.5),
		figures.Plain("mistakes named", "%.1f %%", of(wrongs.right, wrongs.all)),
	}
}

func share(part, whole int) string {
	if whole == 0 {
		return "none"
	}
	return fmt.Sprintf("%.1f %%", 100*float64(part)/float64(whole))
}
