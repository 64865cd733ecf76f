// Package plan is the arithmetic of a week of steps: how long it takes, what it
// asks of lips and breath, what fits into the minutes there are, in which order,
// and what next week should bring.
package plan

import (
	"cmp"
	"slices"
	"strings"

	"earlychorus/core/exercise"
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/json"
	"earlychorus/core/playtest"
)

// Plan is a week of steps for a class.
type Plan struct {
	Name  string `json:"name"`
	Items []Item `json:"items"`
}

// Item is a step placed on days.
type Item struct {
	Key    string        `json:"key" doc:"the item's own name in its plan"`
	Step   exercise.Step `json:"step"`
	Times  int           `json:"times" doc:"how often it is played through"`
	Days   Days          `json:"days"`
	At     Place         `json:"at" enum:"class,home,both"`
	Wanted Wanted        `json:"wanted" doc:"1 if there is room, 2 usual, 3 rather than others" enum:"1,2,3"`
	Pinned bool          `json:"pinned,omitempty" doc:"neither cut nor dropped to fit"`
	For    []string      `json:"for,omitempty" doc:"these instruments only; empty is everyone it suits"`
	Why    string        `json:"why,omitempty"`
	Called string        `json:"called,omitempty" doc:"the director's own name for it"`

	Test *playtest.Test `json:"test,omitempty" doc:"of a step that is a test; its days are those up to the one it is due"`
}

// Name is what an item is called: the director's own name for it, or its kind's.
func (i Item) Name() string { return cmp.Or(i.Called, i.Step.Kind.Name) }

// Wanted is how much a director wants an item.
type Wanted int

// Place is where an item is played.
type Place string

const (
	InClass Place = "class"
	AtHome  Place = "home"
	Both    Place = "both"
)

// Is reports whether an item of place p is played at q.
func (p Place) Is(q Place) bool { return p == q || p == Both || q == Both }

// Days are the school days of a week on which an item is played.
type Days uint8

// Day is a day of the week, from Monday, 0, to Sunday, 6.
type Day int

// SchoolDays are Monday to Friday.
const SchoolDays Days = 0b11111

// On returns the set of some days.
func On(days ...Day) (out Days) {
	for _, d := range days {
		out |= 1 << d
	}
	return out
}

// Has reports whether a day is in the set.
func (d Days) Has(day Day) bool { return d&(1<<day) != 0 }

// weekdays in RFC 5545's order and letters, which are how plans are written too.
var weekdays = []string{"MO", "TU", "WE", "TH", "FR", "SA", "SU"}

// Names lists the days as two letters each: "MO".
func (d Days) Names() []string {
	out := []string{}
	for n, name := range weekdays {
		if d.Has(Day(n)) {
			out = append(out, name)
		}
	}
	return out
}

// MarshalJSON writes the days as their names.
func (d Days) MarshalJSON() ([]byte, error) { return json.Marshal(d.Names()) }

// UnmarshalJSON reads names of days.
func (d *Days) UnmarshalJSON(raw []byte) error {
	var names []string
	if err := json.Unmarshal(raw, &names); err != nil {
		return exercise.ParameterError{Field: "days", Remedy: "list days as MO, TU, WE, TH, FR, SA, SU"}
	}
	*d = 0
	for _, name := range names {
		n := slices.Index(weekdays, strings.ToUpper(name))
		if n < 0 {
			return exercise.ParameterError{
				Field:  "days",
				Remedy: fmt.Sprintf("%q is no day: use MO, TU, WE, TH, FR, SA, SU", name),
			}
		}
		*d |= 1 << n
	}
	return nil
}

// OfDay lists the items of a day and a place, in order.
func (p Plan) OfDay(day Day, at Place) (out []Item) {
	for _, i := range p.Items {
		if i.Days.Has(day) && i.At.Is(at) {
			out = append(out, i)
		}
	}
	return out
}

// IsFor reports whether an item is for an instrument.
func (i Item) IsFor(in instrument.Instrument) bool {
	return i.Step.Suits(in) && (len(i.For) == 0 || slices.Contains(i.For, in.Key))
}

// AsksOf reports whether an item asks something of a player.
func (i Item) AsksOf(p exercise.Player) bool { return i.IsFor(p.Instrument) && i.Step.AsksOf(p) }

// Band is whom a plan is worked out for: one entry for each instrument and stage
// there is in a class.
type Band struct {
	Players     []exercise.Player
	Conventions exercise.Conventions
}

// Errors of an item that cannot be used.
func (i Item) check() error {
	switch {
	case i.Step.Kind == nil:
		return exercise.ParameterError{Field: "step", Remedy: "choose a kind"}
	case i.Times < 1 || i.Times > mostTimes:
		return exercise.ParameterError{Field: "times", Remedy: fmt.Sprintf("play it 1 to %d times", mostTimes)}
	case i.Wanted < 1 || i.Wanted > 3:
		return exercise.ParameterError{Field: "wanted", Remedy: "say 1, 2 or 3"}
	case i.Test != nil && i.Test.Check() != nil:
		return i.Test.Check()
	case i.At != InClass && i.At != AtHome && i.At != Both:
		return exercise.ParameterError{Field: "at", Remedy: "say class, home or both"}
	}
	for _, key := range i.For {
		if _, err := instrument.Get(key); err != nil {
			return exercise.ParameterError{
				Field:  "for",
				Remedy: fmt.Sprintf("%q is no instrument: use %s", key, strings.Join(instrument.Keys(), ", ")),
			}
		}
	}
	return nil
}

const (
	mostTimes = 6
	// MostItems bounds a day.
	MostItems = 12
)

// Check reports the first thing in a plan that cannot be used, or nil. Errors:
// exercise.ParameterError, its field naming the item.
func (p Plan) Check() error {
	for n, i := range p.Items {
		if err := i.check(); err != nil {
			bad := err.(exercise.ParameterError)
			bad.Field = fmt.Sprintf("items[%d].%s", n, bad.Field)
			return bad
		}
	}
	for day := Day(0); day < 7; day++ {
		for _, at := range []Place{InClass, AtHome} {
			if n := len(p.OfDay(day, at)); n > MostItems {
				return exercise.ParameterError{
					Field:  "items",
					Remedy: fmt.Sprintf("%d steps on one day are too many: plan %d at most", n, MostItems),
				}
			}
		}
	}
	return nil
}
