package main

import (
	"cmp"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
	"earlychorus/core/words"
	"earlychorus/server/api"
	"earlychorus/server/takeout"
)

const writtenBy = "<!-- Written by `earlychorus docs` from the code's own tables. Change those, then run " +
	"scripts/docs. -->\n\n"

func docsCommand() *cobra.Command {
	return &cobra.Command{
		Use:    "docs FOLDER",
		Short:  "Write the pages of the documentation that come from the code's own tables",
		Args:   cobra.ExactArgs(1),
		Hidden: true,
		RunE: func(_ *cobra.Command, args []string) error {
			for name, page := range map[string]string{
				"catalogue.md": cataloguePage(), "glossary.md": glossaryPage(),
				"instruments.md": instrumentsPage(), "tips.md": tipsPage(), "takeout.md": takeoutPage(),
				"audit.md": auditPage(), "player-words.md": playerWordsPage(),
			} {
				if err := os.WriteFile(filepath.Join(args[0], name), []byte(writtenBy+page), 0o644); err != nil {
					return err
				}
			}
			return nil
		},
	}
}

func takeoutPage() string {
	return "# Everything kept of a class\n\nA class's page offers it under *Years*, with or without recordings; " +
		"`GET /api/classes/{class}/everything.zip?sounds=true`\nanswers the same. Passwords and PINs are not in " +
		"it.\n\n" + takeout.Columns()
}

func auditPage() string {
	var b strings.Builder
	b.WriteString("# What is written down\n\nThe table `audit` says who did what with children's data: when, as what " +
		"(`role`), by whose account, in which class,\nto which player and take. It holds no names. Signing in and " +
		"failing to are written down for everybody; what follows for directors.\n\n")
	head(&b, "action", "asked as")
	routes := api.Audited()
	for _, route := range slices.SortedFunc(maps.Keys(routes), func(x, y string) int {
		return cmp.Or(cmp.Compare(routes[x], routes[y]), cmp.Compare(x, y))
	}) {
		row(&b, routes[route], "`"+route+"`")
	}
	return b.String()
}

// row writes a line of a table.
func row(b *strings.Builder, cells ...string) {
	for n := range cells {
		cells[n] = strings.ReplaceAll(cells[n], "|", "\\|")
	}
	fmt.Fprintf(b, "| %s |\n", strings.Join(cells, " | "))
}

func head(b *strings.Builder, cells ...string) {
	row(b, cells...)
	b.WriteString("|" + strings.Repeat(" --- |", len(cells)) + "\n")
}

func cataloguePage() string {
	var b strings.Builder
	b.WriteString(
		"# The catalogue of exercises\n\nEvery kind is written once in concert pitch and laid out for each " +
			"instrument and stage. The same list is answered by\n" +
			"`earlychorus catalogue` and by `GET /api/catalogue`, from which the page builds its editors.\n",
	)
	var group scores.Chapter
	for _, k := range exercise.Catalogue() {
		if k.Group != group {
			group = k.Group
			fmt.Fprintf(&b, "\n## %s\n", group)
		}
		fmt.Fprintf(&b, "\n### %s (`%s`)\n\n%s\n\n", k.Name, k.Key, k.Why)
		switch {
		case k.Ticked:
			b.WriteString("Done and ticked, not recorded. ")
		case k.Metered:
			b.WriteString("Blown into an air meter. ")
		}
		fmt.Fprintf(&b, "For %s. %s\n\n", forWhom(k), judged(k))
		head(&b, "parameter", "", "range; default")
		for _, p := range k.Parts {
			row(&b, "`"+p.Key+"`", p.Label, p.Range())
		}
	}
	b.WriteString("\n## Ladders\n\n")
	head(&b, "ladder", "for", "rungs")
	for _, l := range exercise.Ladders() {
		for _, i := range instrument.All() {
			if !l.Suits(i) {
				continue
			}
			var rungs []string
			for _, r := range l.Rungs(i) {
				rungs = append(rungs, r.Text)
			}
			row(&b, l.Name, i.Name, strings.Join(rungs, "; "))
		}
	}
	b.WriteString("\n## Schools\n\n")
	head(&b, "question", "schools, the usual one first")
	for _, s := range exercise.Schools() {
		var labels []string
		for _, o := range s.Options {
			labels = append(labels, o.Label)
		}
		row(&b, s.Question, strings.Join(labels, " · "))
	}
	return b.String()
}

func forWhom(k *exercise.Kind) string {
	var names []string
	for _, i := range instrument.All() {
		if k.Suits == nil || k.Suits(i) {
			names = append(names, i.Name)
		}
	}
	if len(names) == len(instrument.All()) {
		return "every instrument"
	}
	return strings.Join(names, ", ")
}

// judged lists what a kind is clean by, at stage 2.
func judged(k *exercise.Kind) string {
	for _, i := range instrument.All() {
		s, err := exercise.New(
			k.Key,
			nil,
		).Score(
			exercise.Player{Instrument: i, Stage: 2},
			exercise.StandardConventions(),
		)
		if err != nil {
			continue
		}
		if len(s.Rules) == 0 {
			return "Never graded."
		}
		var rules []string
		for _, r := range s.Rules {
			rules = append(rules, limit(r))
		}
		return "Clean at stage 2 by: " + strings.Join(rules, ", ") + "."
	}
	return ""
}

func limit(r scores.Rule) string {
	for _, m := range measure.All() {
		if m.Key == r.Measure && m.Unit != "" {
			return strings.TrimSpace(fmt.Sprintf("%s %v %s", r.Measure, r.Limit, m.Unit))
		}
	}
	return string(r.Measure)
}

func glossaryPage() string {
	var b strings.Builder
	b.WriteString("# Glossary\n\n")
	head(&b, "word", "meaning")
	for _, w := range words.All() {
		row(&b, w.Word, w.Meaning)
	}
	b.WriteString("\n## Measures a step may be judged by\n\nHow each is taken is in [measures.md](measures.md).\n\n")
	head(&b, "measure", "unit", "clean when")
	for _, m := range measure.All() {
		row(&b, "`"+string(m.Key)+"`", m.Unit, m.Meaning)
	}
	b.WriteString(
		"\n## Cautions\n\nCommon practice, no published source. They defer to the school's rules, a doctor or a " +
			"licensed technician.\n\n",
	)
	for _, c := range exercise.Cautions() {
		fmt.Fprintf(&b, "- %s\n", c.Text)
	}
	return b.String()
}

func instrumentsPage() string {
	var b strings.Builder
	b.WriteString(
		"# Instruments\n\nSounding notes are named in concert pitch. Transpositions, ranges and charts are from " +
			"memory but for what the tests check.\n\n",
	)
	head(
		&b,
		"key",
		"instrument",
		"written − sounding",
		"first five, written",
		"beginner range, written",
		"register",
		"built as",
	)
	for _, i := range instrument.All() {
		instrumentRow(&b, i)
	}
	for _, i := range instrument.All() {
		fingeringTable(&b, i)
	}
	return b.String()
}

// instrumentRow is an instrument's line in the table of all of them.
func instrumentRow(b *strings.Builder, i instrument.Instrument) {
	walk := exercise.New("five-note-walk", map[string]any{"way": "up"})
	s, err := walk.Score(exercise.Player{Instrument: i, Stage: 4}, exercise.StandardConventions())
	if err != nil {
		return
	}
	var five, built []string
	for _, t := range s.Targets() {
		five = append(five, t.WrittenName)
	}
	for _, v := range i.Variants {
		built = append(built, v.Name)
	}
	written := func(m music.MIDI) music.Spelling { return s.KeyFifths.Spell(i.Written(m)) }
	row(b, "`"+i.Key+"`", i.Name, fmt.Sprintf("%+d", i.Transposition), strings.Join(five, " "),
		fmt.Sprintf("%s–%s", written(i.Beginner.From), written(i.Beginner.To)), i.Register, strings.Join(built, ", "))
}

// fingeringTable is every note of an instrument's beginner range.
func fingeringTable(b *strings.Builder, i instrument.Instrument) {
	fmt.Fprintf(b, "\n## %s\n\n", i.Name)
	head(b, "written", "sounds", "fingering", "tends")
	written, sounds := exercise.WrittenKey(i), exercise.SoundingKey(i)
	for m := i.Beginner.From; m <= i.Beginner.To; m++ {
		text := "—"
		if f, ok := i.Fingering(m, instrument.UsualHands()); ok {
			text = strings.Join(append([]string{f.Text}, f.Alternates...), ", or ")
		}
		row(b, written.Spell(i.Written(m)).String(), sounds.Spell(m).String(), text, i.TendencyAdvice(m))
	}
}

func tipsPage() string {
	var b strings.Builder
	b.WriteString(
		"# Tips\n\nOne is given with each verdict that is not clean; the first that fits is taken. A director may " +
			"put other words in the place of any. Words in braces are said in the class's picture for air. Common " +
			"practice, no published source.\n\n",
	)
	head(&b, "cause", "for", "where", "which way", "tip")
	ways := map[int]string{-1: "low, short, early, down", 0: "", 1: "high, long, late, up"}
	for _, a := range verdict.Book(nil).Advices() {
		whose := string(a.Family)
		if len(a.Only) > 0 {
			whose = strings.Join(a.Only, ", ")
		}
		row(
			&b,
			string(a.Cause),
			strings.TrimSpace(whose+" "+string(a.Chapter)),
			string(a.Register),
			ways[a.Direction],
			a.Text,
		)
	}
	return b.String()
}
