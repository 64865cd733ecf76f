package plan

import (
	"cmp"
	"maps"
	"slices"

	"earlychorus/core/exercise"
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/say/several"
	"earlychorus/core/verdict"
)

// Observation is the word on one take of the last fortnight.
type Observation struct {
	Player     string         `json:"player" doc:"who, by any name that tells players apart"`
	Instrument string         `json:"instrument"`
	Result     verdict.Result `json:"result"`
	Cause      measure.Cause  `json:"cause,omitempty" doc:"what decided, when it was not clean"`
}

// StuckRung is a player whom a ladder does not let up.
type StuckRung struct {
	Player     string `json:"player"`
	Instrument string `json:"instrument"`
	Ladder     string `json:"ladder"`
	Rung       int    `json:"rung"`
	Tries      int    `json:"tries"`
}

// Suggestion is a step for next week, with its reason.
type Suggestion struct {
	Item    Item          `json:"item"`
	Reason  string        `json:"reason"`
	Section string        `json:"section" doc:"empty for the whole band"`
	Cause   measure.Cause `json:"cause,omitempty"`
	Players int           `json:"players" doc:"how many it is about"`
	Of      int           `json:"of" doc:"how many of them played"`
	Takes   int           `json:"takes"`
	Act     Act           `json:"act"`
}

// Act is what a suggestion asks the director to do.
type Act string

const (
	AddStep      Act = "add-step"    // the item, to next week's plan
	HearThem     Act = "hear-them"   // in person: what could be planned did not help
	CheckMicro   Act = "check-micro" // the recordings could often not be judged
	triedFor         = 2             // weeks in a row, after which a remedy did not help
	oftenUnheard     = 0.3           // of the takes
)

// A section's fault is worth a step when so many of its takes were heard, and so
// many of its players share it.
const (
	fewestTakes   = 5
	fewestPlayers = 2
	leastOfAll    = 0.25
	bandwide      = 0.5 // of the sections
)

// Core is what every band keeps, whatever last week brought: air, one sound
// together, and a tune.
func Core(c exercise.Conventions) []Item {
	return []Item{
		{
			Key:    "core-breath",
			Step:   exercise.New("breath-pattern", map[string]any{"rounds": 4}),
			Times:  1,
			Days:   SchoolDays,
			At:     InClass,
			Wanted: 3,
			Why:    "The whole band breathes together.",
		},
		{
			Key:    "core-long",
			Step:   c.LongToneStep(),
			Times:  1,
			Days:   SchoolDays,
			At:     Both,
			Wanted: 3,
			Why:    "One sound, every day.",
		},
		{
			Key:    "core-walk",
			Step:   exercise.New("five-note-walk", nil),
			Times:  1,
			Days:   SchoolDays,
			At:     Both,
			Wanted: 2,
			Why:    "The notes everyone has.",
		},
	}
}

// Suggest proposes steps of a class's remedies from the takes of the last fortnight: for
// each section its commonest fault, for the band what most sections share, and for each
// ladder that somebody is stuck on a rung lower down. The most players first. past
// are the plans of the weeks before, latest first: a remedy that stood in all of
// the last two is not proposed again, but the next in line, and then to hear the
// players in person.
func Suggest(book RemedyBook, heard []Observation, stuck []StuckRung, past ...[]Item) []Suggestion {
	sections := map[string]*section{}
	for _, o := range heard {
		i, err := instrument.Get(o.Instrument)
		if err != nil {
			continue
		}
		s := sections[i.Section]
		if s == nil {
			s = &section{
				book:     book,
				name:     i.Section,
				family:   i.Family,
				keys:     map[string]bool{},
				players:  map[string]bool{},
				by:       map[measure.Cause]map[string]int{},
				unheards: map[string]bool{},
			}
			sections[i.Section] = s
		}
		s.hear(o)
	}
	var out []Suggestion
	shared := map[measure.Cause]int{}
	for _, s := range sections {
		if c, ok := s.commonest(); ok {
			shared[c]++
		}
	}
	wide, isWide := mostShared(shared, len(sections))
	if isWide {
		out = append(out, forBand(wide, book, sections, past))
	}
	for _, s := range sections {
		if c, ok := s.commonest(); ok && !(isWide && c == wide) {
			out = append(out, s.suggest(c, past))
		}
		if s.isOftenUnheard() {
			out = append(out, s.microphone())
		}
	}
	out = append(out, laddersOf(stuck)...)
	slices.SortFunc(out, func(a, b Suggestion) int {
		return cmp.Or(
			cmp.Compare(b.Players, a.Players),
			cmp.Compare(a.Section, b.Section),
			cmp.Compare(a.Item.Key, b.Item.Key),
		)
	})
	return out
}

type section struct {
	book    RemedyBook
	name    string
	family  instrument.Family
	keys    map[string]bool
	players map[string]bool
	takes   int
	by      map[measure.Cause]map[string]int // takes by player

	unheard  int             // takes that could not be judged
	unheards map[string]bool // their players
}

func (s *section) hear(o Observation) {
	if o.Result == verdict.CantTell {
		s.unheard++
		s.unheards[o.Player] = true
		return // the recording's fault
	}
	s.keys[o.Instrument], s.players[o.Player] = true, true
	s.takes++
	if o.Result == verdict.Clean || o.Cause == "" {
		return
	}
	if s.by[o.Cause] == nil {
		s.by[o.Cause] = map[string]int{}
	}
	s.by[o.Cause][o.Player]++
}

// commonest is the fault that most players of a section share; ok is false when
// too little was heard to say.
func (s *section) commonest() (best measure.Cause, ok bool) {
	if s.takes < fewestTakes {
		return "", false
	}
	least := max(fewestPlayers, int(leastOfAll*float64(len(s.players))+0.999))
	for _, c := range measure.Causes() { // the first to mend first
		if n := len(s.by[c]); n >= least && (best == "" || n > len(s.by[best])) && remedies()[c] != nil {
			best = c
		}
	}
	return best, best != ""
}

func (s *section) count(c measure.Cause) (players, takes int) {
	for _, n := range s.by[c] {
		takes += n
	}
	return len(s.by[c]), takes
}

// tried reports whether a kind of step stood in the plans of all the last weeks as a
// remedy for a cause, for some instruments or for everybody. What everybody plays
// daily for its own sake was no remedy.
func tried(kind string, c measure.Cause, keys []string, past [][]Item) bool {
	if len(past) < triedFor {
		return false
	}
	for _, week := range past[:triedFor] {
		if !slices.ContainsFunc(week, func(i Item) bool {
			return i.Step.Kind.Key == kind && i.Why == several.Named(c) &&
				(len(i.For) == 0 || slices.ContainsFunc(keys, func(k string) bool {
					return slices.Contains(i.For, k)
				}))
		}) {
			return false
		}
	}
	return true
}

func (s *section) suggest(c measure.Cause, past [][]Item) Suggestion {
	players, takes := s.count(c)
	keys := slices.Sorted(maps.Keys(s.keys))
	out := Suggestion{
		Section: s.name,
		Cause:   c,
		Players: players,
		Of:      len(s.players),
		Takes:   takes,
		Act:     AddStep,
		Reason: fmt.Sprintf(
			"%s: %s with %d of %d players (%d takes).",
			s.name,
			several.Named(c),
			players,
			len(s.players),
			takes,
		),
	}
	next, ok, planned := s.book.next(c, s.family, keys, past)
	if !ok {
		return out.inPerson(planned)
	}
	out.Item = Item{
		Key:    "for-" + keys[0] + "-" + string(c),
		Step:   next,
		Times:  1,
		Days:   SchoolDays,
		At:     AtHome,
		Wanted: 2,
		For:    keys,
		Why:    several.Named(c),
	}
	return out
}

// inPerson is the suggestion when everything that could be planned was, or the director
// has nothing planned for it.
func (s Suggestion) inPerson(planned bool) Suggestion {
	s.Act = HearThem
	if planned {
		s.Reason += " Two weeks of practice did not change it: hear them in person."
	} else {
		s.Reason += " No step is assigned for it: hear them in person."
	}
	return s
}

// isOftenUnheard reports whether many takes of several players cannot be judged.
func (s *section) isOftenUnheard() bool {
	return len(s.unheards) >= fewestPlayers && s.unheard >= fewestTakes &&
		float64(s.unheard) >= oftenUnheard*float64(s.unheard+s.takes)
}

// microphone is the suggestion where takes can often not be judged.
func (s *section) microphone() Suggestion {
	return Suggestion{
		Section: s.name,
		Players: len(s.unheards),
		Of:      len(s.players),
		Takes:   s.unheard,
		Act:     CheckMicro,
		Reason: fmt.Sprintf(
			"%s: %d of %d takes could not be judged (%d players). Do the microphone check together.",
			s.name,
			s.unheard,
			s.unheard+s.takes,
			len(s.unheards),
		),
	}
}

func mostShared(shared map[measure.Cause]int, sections int) (best measure.Cause, ok bool) {
	for _, c := range measure.Causes() {
		if shared[c] > shared[best] {
			best = c
		}
	}
	return best, shared[best] >= 2 && float64(shared[best]) >= bandwide*float64(sections)
}

func forBand(c measure.Cause, book RemedyBook, sections map[string]*section, past [][]Item) Suggestion {
	out := Suggestion{Cause: c, Act: AddStep}
	var keys []string
	for _, s := range sections {
		players, takes := s.count(c)
		out.Players, out.Takes, out.Of = out.Players+players, out.Takes+takes, out.Of+len(s.players)
		keys = append(keys, slices.Collect(maps.Keys(s.keys))...)
	}
	out.Reason = fmt.Sprintf(
		"The whole band: %s with %d of %d players (%d takes).",
		several.Named(c),
		out.Players,
		out.Of,
		out.Takes,
	)
	next, ok, planned := book.next(c, "", keys, past)
	if !ok {
		return out.inPerson(planned)
	}
	out.Item = Item{
		Key:    "for-all-" + string(c),
		Step:   next,
		Times:  1,
		Days:   SchoolDays,
		At:     Both,
		Wanted: 3,
		Why:    several.Named(c),
	}
	return out
}

// laddersOf asks each stuck ladder's players for the rung below.
func laddersOf(stuck []StuckRung) (out []Suggestion) {
	type way struct{ instrument, ladder string }
	by := map[way][]StuckRung{}
	for _, s := range stuck {
		by[way{s.Instrument, s.Ladder}] = append(by[way{s.Instrument, s.Ladder}], s)
	}
	for w, all := range by {
		lowest, tries := all[0].Rung, 0
		for _, s := range all {
			lowest, tries = min(lowest, s.Rung), tries+s.Tries
		}
		l, known := exercise.LadderOf(w.ladder)
		i, err := instrument.Get(w.instrument)
		if !known || err != nil {
			continue
		}
		rung := max(1, lowest-1)
		stand := fmt.Sprintf("stuck at rung %d (%d tries)", lowest, tries)
		if tries == 0 {
			stand = fmt.Sprintf("led back to rung %d", lowest)
		}
		out = append(out, Suggestion{
			Item: Item{
				Key:    "ladder-" + w.ladder + "-" + w.instrument,
				Step:   exercise.New(exercise.KindLadder, map[string]any{"ladder": w.ladder, "rung": rung}),
				Times:  1,
				Days:   SchoolDays,
				At:     AtHome,
				Wanted: 2,
				For:    []string{w.instrument},
				Why:    "From the last rung that worked.",
			},
			Reason:  fmt.Sprintf("%s: %s, %d %s; from the rung before.", i.Section, l.Name, len(all), stand),
			Section: i.Section,
			Players: len(all),
			Of:      len(all),
			Takes:   tries,
			Act:     AddStep,
		})
	}
	return out
}
