package roster

import "earlychorus/core/instrument"

// Taught is what a school's people have said of their lists by hand, once: what their columns
// mean, and which instruments their words do. It goes before what the program knows.
type Taught struct {
	Columns map[string]string `json:"columns,omitempty"` // heading, plainly → meaning; "" for not used
	Words   map[string]Played `json:"words,omitempty"`   // word, plainly → what is played
}

// Played is an instrument as it is built.
type Played struct {
	Instrument string `json:"instrument"`
	Variant    string `json:"variant,omitempty"`
}

// mostTaught bounds what one school says of its lists.
const mostTaught = 500

// NotUsed is the meaning of a column that says nothing of a player.
const NotUsed = "-"

// Meanings lists what a column may be said to mean.
func Meanings() []string {
	out := []string{fullName}
	for _, f := range Fields() {
		out = append(out, f.Key)
	}
	return append(out, NotUsed)
}

// meaning returns what a heading means in this school.
func (t Taught) meaning(heading string) string {
	if m, ok := t.Columns[plainly(heading)]; ok {
		if m == NotUsed {
			return ""
		}
		return m
	}
	return meaningOf(heading)
}

// instrument returns what a word means in this school.
func (t Taught) instrument(word string) (key, variant string) {
	if p, ok := t.Words[plainly(word)]; ok {
		return p.Instrument, p.Variant
	}
	return InstrumentOf(word)
}

// Learn adds what was said of a list while it was taken in: how its columns were understood
// after all, and what became of words that were not known, where all rows agree. Words of rows
// that kept what they were understood as teach nothing.
func (t Taught) Learn(columns []Column, rows []Row) Taught {
	out := Taught{Columns: map[string]string{}, Words: map[string]Played{}}
	for heading, m := range t.Columns {
		out.Columns[heading] = m
	}
	for word, p := range t.Words {
		out.Words[word] = p
	}
	used := map[string]bool{} // headings of which one column says something: its twin says nothing
	for _, c := range columns {
		used[plainly(c.Name)] = used[plainly(c.Name)] || c.Meaning != ""
	}
	for _, c := range columns {
		heading, m := plainly(c.Name), c.Meaning
		if !c.Headed || m == t.meaning(c.Name) || m == "" && used[heading] || len(out.Columns) >= mostTaught {
			continue
		}
		if m == "" {
			m = NotUsed
		}
		out.Columns[heading] = m
	}
	said := map[string]Played{}
	torn := map[string]bool{}
	for _, r := range rows {
		word := plainly(r.Said)
		p := Played{r.Instrument, r.Variant}
		if before, twice := said[word]; twice && before != p {
			torn[word] = true
		}
		said[word] = p
	}
	for word, p := range said {
		key, variant := t.instrument(word)
		if _, err := instrument.Get(p.Instrument); err != nil || word == "" || torn[word] {
			continue
		}
		if (p != Played{key, variant}) && len(out.Words) < mostTaught {
			out.Words[word] = p
		}
	}
	return out
}
