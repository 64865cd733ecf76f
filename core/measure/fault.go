package measure

import (
	"cmp"
	"math"
	"slices"

	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// Cause names what a take is not clean for. Several measures may have one cause,
// and a tip answers a cause. It is kept with every take.
type Cause string

// Fault is what a reading outside its limit comes from, when it is mended, and
// what helps.
type Fault struct {
	Cause Cause
	Rank  int // the lower, the earlier it is mended: no two faults have the same
	Tips  []Advice
}

// Ranks of the families of faults: mending one of a later family is no use
// before those of an earlier one (common practice, no published source).
const (
	setWrong        = 100 * (1 + iota) // the room, the sheet, the list
	whichNote                          // which note sounds
	whetherItSounds                    // whether it sounds
	wherePitchLies                     // where it lies
	howItHolds                         // how it holds
	whenItComes                        // when it comes
	howLoud                            // how loud it is
	airAlone                           // air without a tone
)

// Low and High are the ways a reading can lie outside its limit.
const (
	Low  = -1 // too low, too short, too soft, too early, or down
	High = 1
)

// Advice is a tip of the book: which case it answers, and its words. Words in
// braces are said in the class's picture for air. The advice is common practice,
// no published source.
type Advice struct {
	Key   string `json:"key"`
	Cause Cause  `json:"cause"`
	When
	Text string `json:"text"`
}

// When says which cases an advice answers; what is left out answers all.
type When struct {
	Family    instrument.Family `json:"family,omitempty" doc:"empty answers every family"`
	Only      []string          `json:"only,omitempty" doc:"these instruments alone"`
	Chapter   scores.Chapter    `json:"group,omitempty" doc:"this chapter of the catalogue alone"`
	Register  Register          `json:"register,omitempty" doc:"empty answers every register"`
	Direction int               `json:"direction,omitempty" doc:"-1 too low, short or early, 1 the other way, 0 either"`
}

// faults are those of the measures, and what is found in the take as a whole, in
// order of rank.
var faults = func() []*Fault {
	out := []*Fault{&badRecording, &nobodyHeard, &wrongSheet}
	for _, m := range all {
		for _, f := range append([]*Fault{m.Fault}, m.Also...) {
			if f != nil && !slices.Contains(out, f) {
				out = append(out, f)
			}
		}
	}
	slices.SortFunc(out, func(a, b *Fault) int { return cmp.Compare(a.Rank, b.Rank) })
	return out
}()

// Faults lists every fault a take may have, the first to mend first.
func Faults() []Fault {
	out := make([]Fault, len(faults))
	for n, f := range faults {
		out[n] = *f
	}
	return out
}

// Causes lists every cause a verdict may name, the first to mend first.
func Causes() []Cause {
	out := make([]Cause, len(faults))
	for n, f := range faults {
		out[n] = f.Cause
	}
	return out
}

// Rank orders the cause among the others: the lower, the earlier it is mended.
// A cause that no fault has comes last.
func (c Cause) Rank() int {
	for _, f := range faults {
		if f.Cause == c {
			return f.Rank
		}
	}
	return math.MaxInt
}

// Advices lists every tip, the faults to mend first first, and for each of them
// special cases before general ones.
func Advices() []Advice {
	var out []Advice
	for _, f := range faults {
		for _, a := range f.Tips {
			a.Cause = f.Cause
			out = append(out, a)
		}
	}
	return out
}
