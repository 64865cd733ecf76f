package plan

import (
	"math"

	"earlychorus/core/fmt"
)

// option is one way to play an item: as asked for, with fewer repeats, or not at
// all.
type option struct {
	item    Item
	dropped bool
	share   float64 // of what was asked for
	says    string  // what was cut
}

// counted are the parameters that say how often: a step can do with fewer.
var counted = []string{"repeats", "rounds", "loops", "pairs"}

// leastShare is how much of a step must be left for it to be worth its place.
const leastShare = 0.5

// mostOptions bounds the ways to play one item.
const mostOptions = 7

// optionsOf lists the ways to play an item, the whole first and dropping it
// last. A pinned item has one way.
func optionsOf(i Item) []option {
	out := []option{{item: i, share: 1}}
	if i.Pinned {
		return out
	}
	key, count := i.count()
	for times := i.Times; times >= int(math.Ceil(leastShare*float64(i.Times))); times-- {
		for n := count; n >= int(math.Ceil(leastShare*float64(count))); n-- {
			share := float64(times*n) / float64(i.Times*count)
			if share == 1 || share < leastShare || len(out) == mostOptions-1 {
				continue
			}
			fewer, says := i, ""
			fewer.Times = times
			if n < count {
				step, err := i.Step.With(map[string]any{key: n})
				if err != nil {
					continue
				}
				fewer.Step = step
				says = fmt.Sprintf("%d of %d %s", n, count, plainly[key])
			} else {
				says = fmt.Sprintf("%d of %d times through", times, i.Times)
			}
			out = append(out, option{item: fewer, share: share, says: says})
		}
	}
	return append(out, option{item: i, dropped: true, says: "left out"})
}

var plainly = map[string]string{"repeats": "repeats", "rounds": "rounds", "loops": "loops", "pairs": "pairs"}

// count is the parameter that says how often, and its value; 1 where a kind has
// none.
func (i Item) count() (key string, n int) {
	for _, key := range counted {
		if v, ok := i.Step.Values[key].(float64); ok {
			return key, int(v)
		}
	}
	return "", 1
}

// worth is what an option is worth: first that the item is there at all, by how
// much it is wanted; then how much of it is left.
func (o option) worth() int {
	if o.dropped {
		return 0
	}
	return weights[o.item.Wanted] * (keeping + int(math.Round(repeating*o.share)))
}

// weights of the director's wishes: one of a kind outweighs three of the one
// below.
var weights = map[Wanted]int{1: 1, 2: 4, 3: 16}

// keeping an item outweighs the repeats of all others together, for as many as a
// day may have.
const (
	repeating = 100
	keeping   = repeating * MostItems * 16
)
