package plan

import (
	"math"

	"earlychorus/core/fmt"
	"earlychorus/core/music"
)

// Fitted is a day that fits.
type Fitted struct {
	Items []Item `json:"items" nullable:"false" doc:"what is left, in order"`
	Cuts  []Cut  `json:"cuts" nullable:"false"`
	// Beyond says which budgets even the pinned items alone go beyond; the rest was
	// then left out.
	Beyond []Over        `json:"beyond" nullable:"false"`
	Total  music.Seconds `json:"total_s" doc:"of whoever takes longest"`
	Worth  int           `json:"worth" doc:"what was made as great as possible"`
}

// Cut is what was taken from one item, and why.
type Cut struct {
	Key     string `json:"key"`
	Dropped bool   `json:"dropped"`
	Says    string `json:"says" doc:"\"4 of 8 rounds\", \"left out\""`
	Why     string `json:"why"`
}

// Fit chooses, for each item of a day, how much of it is played, so that every
// player of the band stays inside every budget.
//
// The choice made is the one of greatest worth: Σ w(i)·(K + 100·share(i)) over
// the items kept, where w is 1, 4 or 16 by how much an item is wanted, share is
// the part of its repeats that is left, and K is so great that no number of
// repeats is worth dropping an item for. At equal worth the earlier items keep
// more. It is a multiple-choice knapsack with many capacities (time, break,
// buzz, lips, high range and rounds, for each player) of which two, buzz and
// lips, depend on the order; so it is searched depth first in the plan's own
// order, with bounds from the exact solution for each additive budget alone.
// The answer is exact.
func Fit(items []Item, b Band, at Place, minutesThere float64) (Fitted, error) {
	f := fitting{band: b, at: at, minutes: minutesThere}
	if err := f.prepare(items); err != nil {
		return Fitted{}, err
	}
	f.search()
	return f.answer(items), nil
}

type fitting struct {
	band    Band
	at      Place
	minutes float64
	options [][]option
	pieces  [][][]piece // [item][option][player]
	bounds  []bound
	leanest [][]float64 // [item][player]: the least that items from here on add to high sound over its share

	chosen []int
	best   []int
	worth  int
	nodes  int
}

func (f *fitting) prepare(items []Item) error {
	f.worth = -1
	f.chosen = make([]int, len(items))
	for _, i := range items {
		ways := optionsOf(i)
		pieces := make([][]piece, len(ways))
		for n, o := range ways {
			if o.dropped {
				pieces[n] = make([]piece, len(f.band.Players))
				for k := range pieces[n] {
					pieces[n][k].absent = true
				}
				continue
			}
			row, err := f.band.work([]Item{o.item}, f.at)
			if err != nil {
				return err
			}
			pieces[n] = row[0]
		}
		f.options, f.pieces = append(f.options, ways), append(f.pieces, pieces)
	}
	f.bound()
	return nil
}

// search tries the ways of each item in turn, the whole first.
func (f *fitting) search() {
	days := make([]day, len(f.band.Players))
	for n, p := range f.band.Players {
		days[n] = day{budgets: budgets(p.Stage, f.at, f.minutes), who: p.Instrument}
	}
	f.from(0, 0, days)
}

func (f *fitting) from(k, worth int, days []day) {
	f.nodes++
	if k == len(f.options) {
		for n := range days {
			if len(days[n].over()) > 0 {
				return
			}
		}
		if worth > f.worth {
			f.worth, f.best = worth, append([]int(nil), f.chosen...)
		}
		return
	}
	if worth+f.most(k, days) <= f.worth || f.tooHigh(k, days) {
		return
	}
	for o, way := range f.options[k] {
		next, fits := f.step(k, o, days)
		if !fits {
			continue
		}
		f.chosen[k] = o
		f.from(k+1, worth+way.worth(), next)
	}
}

// step adds an option of an item to everyone's day; fits is false when somebody
// is beyond a budget that only grows.
func (f *fitting) step(k, o int, days []day) (next []day, fits bool) {
	next = make([]day, len(days))
	for n := range days {
		next[n] = days[n]
		next[n].lips = days[n].lips[:len(days[n].lips):len(days[n].lips)]
		if f.options[k][o].dropped {
			continue
		}
		next[n].add(f.pieces[k][o][n], together(f.pieces[k][o], n, f.at))
		if !next[n].inside() {
			return nil, false
		}
	}
	return next, true
}

// answer says what was chosen, and why the rest was cut.
func (f *fitting) answer(items []Item) Fitted {
	out := Fitted{
		Items:  []Item{},
		Cuts:   []Cut{},
		Beyond: []Over{},
		Worth:  max(0, f.worth),
	}
	if f.best == nil {
		out.Beyond = f.pinnedAlone(&out, items)
		return out
	}
	for k, o := range f.best {
		if !f.options[k][o].dropped {
			out.Items = append(out.Items, f.options[k][o].item)
		}
		if o != 0 {
			way := f.options[k][o]
			out.Cuts = append(out.Cuts, Cut{items[k].Key, way.dropped, way.says, f.whyNot(k)})
		}
	}
	for _, d := range f.play(f.best) {
		out.Total = max(out.Total, d.load.Total)
	}
	return out
}

// play adds a choice up for everyone.
func (f *fitting) play(choice []int) []day {
	days := make([]day, len(f.band.Players))
	for n, p := range f.band.Players {
		days[n] = day{budgets: budgets(p.Stage, f.at, f.minutes), who: p.Instrument}
		for k, o := range choice {
			if !f.options[k][o].dropped {
				days[n].add(f.pieces[k][o][n], together(f.pieces[k][o], n, f.at))
			}
		}
	}
	return days
}

// whyNot is the budget that would be exceeded if one item alone were whole.
func (f *fitting) whyNot(k int) string {
	choice := append([]int(nil), f.best...)
	choice[k] = 0
	for _, d := range f.play(choice) {
		if over := d.over(); len(over) > 0 {
			if over[0].Budget == "total" {
				return fmt.Sprintf("with all of it the day would take %s", over[0].Text)
			}
			return over[0].Text
		}
	}
	return "other steps are wanted more"
}

// pinnedAlone is what happens when even the pinned items do not fit: they are
// kept, all others are left out, and the budgets they break are named.
func (f *fitting) pinnedAlone(out *Fitted, items []Item) (beyond []Over) {
	choice := make([]int, len(items))
	for k, i := range items {
		if i.Pinned {
			out.Items = append(out.Items, i)
			continue
		}
		choice[k] = len(f.options[k]) - 1
		out.Cuts = append(out.Cuts, Cut{i.Key, true, "left out", "the pinned steps alone are too much"})
	}
	for _, d := range f.play(choice) {
		out.Total = max(out.Total, d.load.Total)
		beyond = append(beyond, d.over()...)
	}
	return beyond
}

// bound is the exact solution for one additive budget of one player alone:
// most[k][r] is the greatest worth of the items from k on with r units left.
type bound struct {
	player int
	left   func(d day) float64
	most   [][]int
}

// bound prepares the bounds: each budget of each player by itself, in whole
// units, rounded so that it never promises too little.
func (f *fitting) bound() {
	f.leanest = make([][]float64, len(f.options)+1)
	f.leanest[len(f.options)] = make([]float64, len(f.band.Players))
	for k := len(f.options) - 1; k >= 0; k-- {
		f.leanest[k] = make([]float64, len(f.band.Players))
		for n, p := range f.band.Players {
			least := math.Inf(1)
			for o := range f.options[k] {
				least = math.Min(least, f.pieces[k][o][n].highOver(budgets(p.Stage, f.at, f.minutes).HighShare))
			}
			f.leanest[k][n] = f.leanest[k+1][n] + least
		}
	}
	for n, p := range f.band.Players {
		b := budgets(p.Stage, f.at, f.minutes)
		f.addBound(
			n,
			float64(b.Total),
			func(d day) float64 { return float64(b.Total - d.load.Total) },
			func(k, o int) float64 {
				return float64(together(f.pieces[k][o], n, f.at))
			},
		)
		f.addBound(
			n,
			float64(b.Break),
			func(d day) float64 { return float64(b.Break - d.load.Break) },
			func(k, o int) float64 {
				return float64(f.pieces[k][o][n].times) * float64(f.pieces[k][o][n].load.BreakSeconds)
			},
		)
		f.addBound(
			n,
			float64(b.Rounds),
			func(d day) float64 { return float64(b.Rounds - d.load.Rounds) },
			func(k, o int) float64 {
				return float64(f.pieces[k][o][n].times * f.pieces[k][o][n].load.Rounds)
			},
		)
		if b.Total <= tenMinutes { // the whole day lies in one window
			f.addBound(
				n,
				float64(b.Lip),
				func(d day) float64 { return float64(b.Lip - d.load.Lip) },
				func(k, o int) float64 {
					return float64(f.pieces[k][o][n].times) * float64(f.pieces[k][o][n].load.LipSeconds)
				},
			)
		}
	}
}

func (f *fitting) addBound(player int, capacity float64, left func(day) float64, cost func(k, o int) float64) {
	if capacity <= 0 {
		return
	}
	units := int(capacity+tolerance) + 1
	most := make([][]int, len(f.options)+1)
	most[len(f.options)] = make([]int, units+1)
	touched := false
	for k := len(f.options) - 1; k >= 0; k-- {
		most[k] = make([]int, units+1)
		for o, way := range f.options[k] {
			needs := 0
			if !way.dropped {
				needs = int(math.Floor(cost(k, o)))
			}
			touched = touched || needs > 0
			for r := needs; r <= units; r++ {
				most[k][r] = max(most[k][r], way.worth()+most[k+1][r-needs])
			}
		}
	}
	if touched && most[0][units] >= 0 {
		f.bounds = append(f.bounds, bound{player, left, most})
	}
}

// highOver is how many seconds of a piece are high beyond the share that may be.
func (p piece) highOver(share float64) float64 {
	if p.absent {
		return 0
	}
	return float64(p.times) * (float64(p.load.HighSeconds) - share*float64(p.load.SoundSeconds))
}

// tooHigh reports whether somebody's day cannot come back below its share of
// high sound, whatever follows.
func (f *fitting) tooHigh(k int, days []day) bool {
	for n, d := range days {
		if d.budgets.HighShare > 0 &&
			float64(d.load.High)-d.budgets.HighShare*float64(d.load.Sound)+f.leanest[k][n] > tolerance {
			return true
		}
	}
	return false
}

// most is the greatest worth that items from k on may still add: no budget alone
// allows more.
func (f *fitting) most(k int, days []day) int {
	least := math.MaxInt
	for _, b := range f.bounds {
		left := int(math.Floor(b.left(days[b.player]) + tolerance))
		if left < 0 {
			return -1
		}
		least = min(least, b.most[k][min(left, len(b.most[k])-1)])
	}
	if least == math.MaxInt {
		least = 0
		for _, ways := range f.options[k:] {
			least += ways[0].worth()
		}
	}
	return least
}
