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

// report prints the tables: by mistake, by instrument, by room and by source. Right takes and
// mistakes weigh as many as they are among all, however many of each were heard.
func report(w io.Writer, found []result, of among) []figures.Figure {
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
	right := (rights.percent(rights.right)*float64(of.rights) + wrongs.percent(wrongs.right)*float64(of.wrongs)) /
		float64(max(1, of.rights+of.wrongs))
	fmt.Fprintf(w, "\nright conclusions: %.1f %% of %d; mistakes named: %s; right takes accused: %s of %d\n",
		right, all.all, share(wrongs.right, wrongs.all), share(rights.all-rights.word, rights.all), rights.all)
	return []figures.Figure{
		figures.Plain("lessons", "%d", all.all),
		figures.AtLeast("right conclusions", "%.1f %%", right, 99),
		figures.AtMost("right takes accused", "%.2f %%", rights.percent(rights.all-rights.word), 0.5),
		figures.Plain("mistakes named", "%.1f %%", wrongs.percent(wrongs.right)),
	}
}

// percent is how much a part is of all.
func (c *count) percent(part int) float64 { return 100 * float64(part) / float64(max(1, c.all)) }

func share(part, whole int) string {
	if whole == 0 {
		return "none"
	}
	return fmt.Sprintf("%.1f %%", 100*float64(part)/float64(whole))
}
