package explain

import (
	"math"
	"slices"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Story is an explanation with the sounds that tell it.
type Story struct {
	Explanation
	// Owners says for each sound which target it belongs to; -1 for none.
	Owners []int
}

// Solve finds the likeliest story: one best path over targets, accounts and
// sounds, for the part as written and for the part shifted as a whole.
func Solve(sounds []Sound, p Part) Story {
	targets := p.targets()
	best := Story{Explanation: Explanation{Accounts: make([]Account, len(targets))}, Owners: none(len(sounds))}
	least := math.Inf(1)
	for n, shift := range shiftsOf(targets) {
		if n > 0 && (least <= costOfShift || least < costOfStrange && !best.strange()) {
			break // no shift can be likelier
		}
		if n > 0 && onTheirTubes(targets, shift) {
			continue
		}
		v := &solver{
			sounds:  sounds,
			targets: targets,
			shift:   shift,
			a4:      p.Score.A4Hz,
			tempo:   p.Score.TempoBPM,
			loud:    loudest(sounds),

			loudestAsked: loudestOf(targets),
		}
		story, cost := v.solve()
		if shift != 0 {
			cost += costOfShift
		}
		if cost < least {
			best, least = story, cost
		}
	}
	return best
}

// strange reports whether so few notes came as asked that the whole part may be off.
func (s Story) strange() bool {
	other := 0
	for _, a := range s.Accounts {
		if a.Kind != Played {
			other++
		}
	}
	return 3*other >= len(s.Accounts)
}

// shiftsOf lists by how much a whole part may be off: not at all, by an octave,
// or by what instruments transpose. One or two notes do not tell.
func shiftsOf(targets []target) []music.MIDI {
	notes := map[music.MIDI]struct{}{}
	for _, t := range targets {
		if t.Phase == scores.Play && t.GlideTo == 0 {
			notes[t.Target] = struct{}{}
		}
	}
	if len(notes) < fewestShifted {
		return []music.MIDI{0}
	}
	return []music.MIDI{0, -12, 12, -2, 2, -1, 1, -3, 3, -5, 5, -7, 7, -9, 9, -14, 14}
}

// onTheirTubes reports whether a shift leads every note to another partial of its
// own fingerings: the lips made it, not the sheet. An octave is named as one.
func onTheirTubes(targets []target, shift music.MIDI) bool {
	if shift == 12 || shift == -12 {
		return false
	}
	on := 0
	for _, t := range targets {
		if slices.ContainsFunc(t.partials, func(p partial) bool { return p.note == t.Target+shift }) {
			on++
		}
	}
	return on == len(targets) || on > 0 && max(shift, -shift) >= aFourth
}

const aFourth music.MIDI = 5

const fewestShifted = 3 // different notes

func none(count int) []int {
	out := make([]int, count)
	for n := range out {
		out[n] = -1
	}
	return out
}

func loudest(sounds []Sound) music.Decibels {
	var levels []music.Decibels
	for _, s := range sounds {
		if s.length() >= strayTime/2 {
			levels = append(levels, s.Level)
		}
	}
	if len(levels) == 0 {
		return 0
	}
	return slices.Max(levels)
}

// loudestOf is the step of the loudest dynamic that a part asks for.
func loudestOf(targets []target) (step int) {
	for n, t := range targets {
		most := t.Dynamic.Step()
		if t.DynamicTo != "" {
			most = max(most, t.DynamicTo.Step())
		}
		if n == 0 || most > step {
			step = most
		}
	}
	return step
}

type solver struct {
	sounds  []Sound
	targets []target
	shift   music.MIDI
	a4      music.Hertz
	tempo   music.Tempo
	loud    music.Decibels
	// loudestAsked is the loudest dynamic of the part, by its step.
	loudestAsked int
	played       [][]bool  // by target and sound: it is the note asked for
	absent       []absence // by target: none of those before it came
}

// isTarget reports whether a sound is the note a target asks for.
func (v *solver) isTarget(k, sound int) bool { return v.played[k][sound] }

// listen compares every sound with every target, once.
func (v *solver) listen() {
	v.played = make([][]bool, len(v.targets))
	for k, t := range v.targets {
		v.played[k] = make([]bool, len(v.sounds))
		for n, s := range v.sounds {
			v.played[k][n] = t.account(s.Pitch, v.shift, v.a4).Kind == Played
		}
	}
}

// cell is the best story of the sounds before to, in which target was the last
// one to get a run of sounds of its own, from..to.
type cell struct {
	cost   float64
	run    run
	from   int
	before *cell
	target int
	to     int
	// without[n] is what it costs that the n targets behind this one have no sound of their
	// own, and how long those are that left a hole, in beats.
	without []absence
}

// absence is targets without a sound of their own.
type absence struct{ cost, gone float64 }

// The path looks so far back for the run before.
const (
	mostSkipped = 8 // targets
	mostStrays  = 40
)

// solve returns the likeliest story and its cost.
func (v *solver) solve() (Story, float64) {
	v.listen()
	v.absent = v.without(nil, len(v.targets))
	strays := make([]float64, len(v.sounds)+1) // strays[n]: of all sounds before n
	for n := range v.sounds {
		strays[n+1] = strays[n] + v.stray(n)
	}
	ends := make([][]*cell, len(v.targets)) // by target, cells in order of their runs
	best, least := (*cell)(nil), strays[len(v.sounds)]+v.tail(nil)
	for k := range v.targets {
		for from := range v.sounds {
			if !v.near(k, from) {
				continue
			}
			var ways []way
			for to := from + 1; to <= min(len(v.sounds), from+mostInRun); to++ {
				c := v.extend(ends, strays, &ways, k, from, to)
				if c == nil {
					continue
				}
				ends[k] = v.keep(ends[k], c)
				if total := c.cost + strays[len(v.sounds)] - strays[to] + v.tail(c); total < least {
					best, least = c, total
				}
			}
		}
	}
	return v.tell(best), least
}

// near reports whether a sound may begin target k at all.
func (v *solver) near(k, from int) bool {
	t := v.targets[k]
	return math.Abs(v.beats(v.sounds[from].Onset-t.begin)) <= farthest+float64(t.Beats)
}

// farthest is how many beats from its time a note may come.
const farthest = 5

func (v *solver) beats(s music.Seconds) float64 { return float64(v.tempo.Beats(s)) }

// way is the best story of the sounds before a moment at which target k may begin.
type way struct {
	onset  music.Seconds
	cost   float64
	before *cell
}

// wayTo returns the best way to target k's beginning with a sound at a moment, of which
// from is the first that is not told yet.
func (v *solver) wayTo(ends [][]*cell, strays []float64, k, from int, onset music.Seconds) way {
	best := way{onset: onset, cost: math.Inf(1)}
	consider := func(before *cell, known float64) {
		if known >= best.cost {
			return // what lies between costs nothing at best
		}
		between, _ := v.between(before, k, onset)
		if cost := between + known; cost < best.cost {
			best.cost, best.before = cost, before
		}
	}
	headless := v.headless(from)
	consider(nil, strays[from]+headless)
	for j := k - 1; j >= max(0, k-1-mostSkipped); j-- {
		for n := len(ends[j]) - 1; n >= 0; n-- {
			before := ends[j][n]
			switch {
			case before.to == from && !slices.Contains(before.run.strays, from-1):
				consider(before, before.cost+v.goneOn(k, from))
			case before.to == from:
				consider(before, before.cost+headless)
			case before.to < from && from-before.to <= mostStrays:
				consider(before, strays[from]-strays[before.to]+before.cost+headless)
			}
		}
	}
	return best
}

// headless is what it costs that a note begins with a sound though the one before, which is
// nobody's, goes over into it on the same pitch.
func (v *solver) headless(from int) float64 {
	if from == 0 {
		return 0
	}
	head, s := v.sounds[from-1], v.sounds[from]
	if head.Alien || s.Onset-head.Release > joined || far(head.Pitch, s.Pitch) > samePitch ||
		s.Level-head.Level > underBelow {
		return 0
	}
	return costOfHeadless
}

// goneOn is what it costs that a note which only goes on begins with a sound, though the one
// before, which goes over into it, lies in the note's own time.
func (v *solver) goneOn(k, from int) float64 {
	if t := v.targets[k]; !t.goesOn || v.sounds[from-1].Onset < t.begin-joined {
		return 0
	}
	return v.headless(from)
}

// extend returns the best story that ends with sounds from..to being target k's,
// or nil. ways are those from the same sound that are known already: how the story came
// there is the same wherever the target ends.
func (v *solver) extend(ends [][]*cell, strays []float64, ways *[]way, k, from, to int) *cell {
	r := v.run(k, from, to)
	if math.IsInf(r.cost, 1) {
		return nil
	}
	n := slices.IndexFunc(*ways, func(w way) bool { return w.onset == r.onset })
	if n < 0 {
		n = len(*ways)
		*ways = append(*ways, v.wayTo(ends, strays, k, from, r.onset))
	}
	w := (*ways)[n]
	return &cell{
		cost:   w.cost + r.cost + off(v.beats(r.account.Late)),
		run:    r,
		from:   from,
		before: w.before,
		target: k,
		to:     to,
	}
}

// keep adds a story to those that end with a target, of which the best two for each
// last sound are worth going on from.
func (v *solver) keep(cells []*cell, c *cell) []*cell {
	worst, same := -1, 0
	for n, other := range cells {
		if other.to != c.to {
			continue
		}
		if same++; worst < 0 || other.cost > cells[worst].cost {
			worst = n
		}
	}
	if same == 2 && c.cost >= cells[worst].cost {
		return cells
	}
	c.without = v.without(c, mostSkipped)
	if same < 2 {
		return append(cells, c)
	}
	cells[worst] = c
	return cells
}

// between weighs the targets from the run before to target k, none of which has a
// sound of its own, and how the pace changes. closed reports whether what was left
// out left no hole.
func (v *solver) between(before *cell, k int, onset music.Seconds) (cost float64, closed bool) {
	missing, was := absence{}, 0.
	if before != nil {
		missing, was = before.without[k-before.target-1], v.beats(before.run.account.Late)
	} else {
		missing = v.absent[k]
	}
	cost, gone := missing.cost, missing.gone
	late := v.beats(onset - v.targets[k].begin)
	// The pace goes on as it was, or is caught up with, or what was left out leaves
	// no hole.
	change := math.Min(math.Abs(late-was), math.Abs(late))
	if without := math.Abs(late - was + gone); gone > 0 && without < change {
		change, closed = without, true
	}
	if change > beatsForFree && v.onAnothersBeat(k, onset) {
		cost += costOfOthersBeat
	}
	return cost + lateness(change), closed
}

// without tells for up to so many targets behind a cell what it costs that they have no
// sound of their own.
func (v *solver) without(before *cell, most int) []absence {
	first := 0
	if before != nil {
		first = before.target + 1
	}
	out := make([]absence, 1, most+1)
	for n := first; n < min(len(v.targets), first+most); n++ {
		sum, kind := out[n-first], v.skipped(before, n)
		if kind == NeverCame {
			sum.gone += float64(v.targets[n].Beats)
		}
		sum.cost += costOf[kind]
		out = append(out, sum)
	}
	return out
}

// onAnothersBeat reports whether a sound begins where the same note is asked for again,
// or was asked for before: it is that one, and one of the two is missing.
func (v *solver) onAnothersBeat(k int, onset music.Seconds) bool {
	for _, n := range []int{k - 1, k + 1} {
		if n >= 0 && n < len(v.targets) && v.targets[n].Target == v.targets[k].Target &&
			math.Abs(v.beats(onset-v.targets[n].begin)) < beatsForFree {
			return true
		}
	}
	return false
}

// skipped says what became of a target that has no sound of its own: the sound
// before goes on over it, or there is none.
func (v *solver) skipped(before *cell, n int) Kind {
	if before == nil {
		return NeverCame
	}
	t, r := v.targets[n], before.run
	covers := func(late music.Seconds) bool {
		from, to := t.begin+late, t.end+late
		held := min(to, r.release) - max(from, r.onset)
		for _, n := range r.visits { // at another pitch it is not held
			held -= max(0, min(to, v.sounds[n].Release)-max(from, v.sounds[n].Onset))
		}
		return held >= coversShare*(to-from)
	}
	switch {
	case !covers(r.account.Late) && !covers(0):
		return NeverCame
	case v.isItself(t, before):
		return NeverCame // the sound is this target's: the one before it did not come
	case t.Target == v.targets[before.target].Target && r.account.Kind == Played:
		return NotTongued
	}
	return HeldOver
}

// isItself reports whether the sound of the target before, a repetition, begins where
// this one should: then that one is missing, and nothing went untongued.
func (v *solver) isItself(t target, before *cell) bool {
	of := v.targets[before.target]
	return t.Target == of.Target && before.run.onset > t.begin-(t.begin-of.begin)/4
}

// skip is the account of a target that has no sound of its own.
func (v *solver) skip(before *cell, n int) Account {
	a := Account{Kind: v.skipped(before, n)}
	if a.Kind == HeldOver || a.Kind == NotTongued {
		a.Came = before.run.account.Came
	}
	if a.Kind == HeldOver {
		a.Partial, _ = v.targets[n].partialAt(music.Between(music.StandardA4, a.Came.Frequency(v.a4)))
	}
	return a
}

// coversShare is how much of a target's time the note before must fill to have
// been held over it.
const coversShare = 0.5

// tail is what the targets behind the last run cost.
func (v *solver) tail(last *cell) (cost float64) {
	first := 0
	if last != nil {
		first = last.target + 1
	}
	for n := first; n < len(v.targets); n++ {
		cost += costOf[v.skipped(last, n)]
	}
	return cost
}

// behind says what became of the targets behind the last run.
func (v *solver) behind(last *cell) (out []Account) {
	first := 0
	if last != nil {
		first = last.target + 1
	}
	for n := first; n < len(v.targets); n++ {
		a := v.skip(last, n)
		if a.Kind == NeverCame {
			a.Kind = CutOff
		}
		out = append(out, a)
	}
	return out
}

// tell writes the path down.
func (v *solver) tell(last *cell) Story {
	out := Story{
		Explanation: Explanation{Accounts: make([]Account, len(v.targets)), Shift: v.shift},
		Owners:      none(len(v.sounds)),
	}
	first := 0
	if last != nil {
		first = last.target + 1
	}
	copy(out.Accounts[first:], v.behind(last))
	for c := last; c != nil; c = c.before {
		out.Accounts[c.target] = c.run.account
		for n := c.from; n < c.to; n++ {
			if !slices.Contains(c.run.strays, n) {
				out.Owners[n] = c.target
			}
		}
		v.tellSkipped(out.Accounts, c)
	}
	return out
}

// tellSkipped writes down what became of the targets before a run that have no
// sound of their own. One that leaves no hole, or others right behind it, was left
// out.
func (v *solver) tellSkipped(accounts []Account, c *cell) {
	first := 0
	if c.before != nil {
		first = c.before.target + 1
	}
	_, closed := v.between(c.before, c.target, c.run.onset)
	for n := first; n < c.target; n++ {
		accounts[n] = v.skip(c.before, n)
		if accounts[n].Kind == NeverCame && closed {
			accounts[n].Kind = LeftOut
		}
	}
}
