package measure

import "fmt"

// TickedItems is which items of a step are done.
var TickedItems = Measure{
	Key:     "ticked",
	Meaning: "every item is ticked",
	Take:    ticked,
	Fault:   &leftUndone,
}

// CauseNotDone names an item that is not ticked.
const CauseNotDone Cause = "not-done"

// leftUndone is an item that is not ticked, and what helps.
var leftUndone = Fault{
	Cause: CauseNotDone,
	Rank:  setWrong + 3,
	Tips: []Advice{
		{Key: "not-done", Text: "Go down the list once more and tick what is left."},
	},
}

// ticked counts the items of a step that are not done.
func ticked(c Case, _ float64) []Reading {
	missing, first := 0, ""
	for n, item := range c.Score.Items {
		if n >= len(c.Ticked) || !c.Ticked[n] {
			if missing == 0 {
				first = item
			}
			missing++
		}
	}
	m := Reading{
		Label:  "Done",
		Value:  float64(missing),
		Text:   fmt.Sprintf("%d of %d done", len(c.Score.Items)-missing, len(c.Score.Items)),
		Wanted: "all of them",
		Excess: countOf(missing),
	}
	if missing > 0 {
		m.Text += ", not yet: " + first
	}
	return whole(m)
}
