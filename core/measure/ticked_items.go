package measure

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
	missing, first := 0, 0
	for n := range c.Score.Items {
		if n >= len(c.Ticked) || !c.Ticked[n] {
			if missing == 0 {
				first = n + 1
			}
			missing++
		}
	}
	return whole(Reading{
		Value:  float64(missing),
		Of:     float64(len(c.Score.Items)),
		Count:  first, // the first that is missing
		Excess: countOf(missing),
	})
}
