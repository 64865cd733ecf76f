package main

import (
	"fmt"
	"slices"
	"strings"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/say"
	"earlychorus/core/task"
	"earlychorus/core/verdict"
)

// playerWordsPage lists every line that the core says to a player, so that one person can
// read them through; web/src/words.test.ts holds them to a child's reading.
func playerWordsPage() string {
	var b strings.Builder
	b.WriteString("# What players read\n\nEvery line that the core says to a player, on examples of a clarinet " +
		"and a trombone. The page's own lines are in\n`web/src/features` beside what they belong to. " +
		"`web/src/words.test.ts` holds both to a child's reading.\n")
	sections := []struct {
		title string
		lines func() []string
	}{
		{"What to do", taskLines},
		{"What it is good for", whyLines},
		{"While it goes on", cueLines},
		{"To be ticked", itemLines},
		{"Take care", cautionLines},
		{"What happened", happenedLines},
		{"Tips", tipLines},
	}
	for _, s := range sections {
		lines := s.lines()
		slices.Sort(lines)
		fmt.Fprintf(&b, "\n## %s\n\n", s.title)
		for _, line := range slices.Compact(lines) {
			fmt.Fprintf(&b, "- %s\n", line)
		}
	}
	return b.String()
}

// readers are the instruments whose pages are read through: one of each family's way.
var readers = []string{"clarinet", "trombone", "flute", "alto-sax", "bassoon", "snare-drum"}

// onEach adds what a function says of every kind on every reader's instrument.
func onEach(says func(exercise.Step, instrument.Instrument) []string) (out []string) {
	for _, k := range exercise.Catalogue() {
		step := exercise.New(k.Key, nil)
		for _, key := range readers {
			if i, err := instrument.Get(key); err == nil && step.Suits(i) {
				out = append(out, says(step, i)...)
			}
		}
	}
	return out
}

func taskLines() []string {
	return onEach(func(step exercise.Step, i instrument.Instrument) []string {
		s, err := step.Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
		if err != nil {
			return nil
		}
		return []string{task.Of(s).Sentence}
	})
}

func whyLines() (out []string) {
	for _, k := range exercise.Catalogue() {
		out = append(out, k.Why)
	}
	return out
}

func cueLines() []string {
	return onEach(func(step exercise.Step, i instrument.Instrument) (out []string) {
		s, err := step.Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
		if err != nil || s.Ticked {
			return nil
		}
		for _, seg := range s.Segments {
			if seg.Text != "" {
				out = append(out, seg.Text)
			}
		}
		return append(out, s.Notices...)
	})
}

func itemLines() []string {
	return onEach(func(step exercise.Step, i instrument.Instrument) []string {
		s, err := step.Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
		if err != nil || !s.Ticked {
			return nil
		}
		return s.Items
	})
}

func cautionLines() (out []string) {
	for _, c := range exercise.Cautions() {
		out = append(out, c.Text)
	}
	return out
}

func happenedLines() (out []string) {
	for _, key := range []string{"clarinet", "trombone"} {
		if i, err := instrument.Get(key); err == nil {
			out = append(out, say.Teller{Instrument: i, Hands: instrument.UsualHands()}.Lines()...)
		}
	}
	return out
}

func tipLines() (out []string) {
	i, err := instrument.Get("clarinet")
	if err != nil {
		return nil
	}
	t := say.Teller{Instrument: i, Hands: instrument.UsualHands()}
	for _, a := range (verdict.Book{}).Advices() {
		out = append(out, t.Advice(a).Text)
	}
	return out
}
