package plan

import (
	"math"
	"slices"

	"earlychorus/core/exercise"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// chapters is the order of a warm-up: the body, the air, the lips, one sound,
// then what is built from it.
var chapters = []scores.Chapter{
	scores.SettingUp,
	scores.Breathing,
	scores.Buzzing,
	scores.LongTones,
	scores.Registers,
	scores.Patterns,
	scores.Ear,
	scores.Caring,
}

// Ordered is a day in the order of a school, and why it is so.
type Ordered struct {
	Items  []Item `json:"items" nullable:"false"`
	Reason string `json:"reason"`
}

// reasons are what each school of order stands on (common practice, no published
// source).
var reasons = map[exercise.Beginning]string{
	exercise.LowFirst:     "Low and relaxed first: the lips wake up before they are asked to work.",
	exercise.HighFirst:    "High first, while the lip is fresh; low notes after, to loosen it again.",
	exercise.EasiestFirst: "From the easiest note outward: each step begins from one that already works.",
}

// Reason is what a school of order stands on.
func Reason(b exercise.Beginning) string { return reasons[b] }

// Order puts a day into the order of the band's school of where to begin. Items
// that stand equal keep the director's own order.
func Order(items []Item, b Band) Ordered {
	school := b.Conventions.Begin
	places := map[string]place{}
	for _, i := range items {
		places[i.Key] = placeOf(i, b)
	}
	out := slices.Clone(items)
	slices.SortStableFunc(out, func(x, y Item) int {
		a, b := places[x.Key], places[y.Key]
		if a.chapter != b.chapter {
			return a.chapter - b.chapter
		}
		switch school {
		case exercise.HighFirst:
			return compare(-a.height, -b.height)
		case exercise.EasiestFirst:
			return compare(math.Abs(a.height), math.Abs(b.height))
		}
		return compare(a.height, b.height)
	})
	return Ordered{out, reasons[school]}
}

func compare(a, b float64) int {
	switch {
	case a < b:
		return -1
	case a > b:
		return 1
	}
	return 0
}

// place is where an item belongs: its chapter, and how high it lies.
type place struct {
	chapter int
	height  float64 // half steps of its sounding middle above home, over the band
}

func placeOf(i Item, b Band) place {
	p := place{chapter: slices.Index(chapters, i.Step.Kind.Group)}
	var count float64
	for _, who := range b.Players {
		s, err := i.Step.Score(who, b.Conventions)
		if err != nil || len(s.Targets()) == 0 {
			continue
		}
		var sum, beats music.Beats
		for _, t := range s.Targets() {
			sum += music.Beats(t.Target-who.Instrument.Home()) * t.Beats
			beats += t.Beats
		}
		p.height += float64(sum / beats)
		count++
	}
	if count > 0 {
		p.height = math.Round(p.height / count)
	}
	return p
}
