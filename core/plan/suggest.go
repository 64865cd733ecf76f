package plan

import (
	"cmp"
	"fmt"
	"slices"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
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
}

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

// Suggest proposes steps from the takes of the last fortnight: for each section
// its commonest fault, for the band what most sections share, and for each
// ladder that somebody is stuck on a rung lower down. The most players first.
func Suggest(heard []Observation, stuck []StuckRung) []Suggestion {
	sections := map[string]*section{}
	for _, o := range heard {
		i, err := instrument.Get(o.Instrument)
		if err != nil {
			continue
		}
		s := sections[i.Section]
		if s == nil {
			s = &section{
				name:    i.Section,
				family:  i.Family,
				keys:    map[string]bool{},
				players: map[string]bool{},
				by:      map[measure.Cause]map[string]int{},
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
		out = append(out, forBand(wide, sections))
	}
	for _, s := range sections {
		if c, ok := s.commonest(); ok && !(isWide && c == wide) {
			out = append(out, s.suggest(c))
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
	name    string
	family  instrument.Family
	keys    map[string]bool
	players map[string]bool
	takes   int
	by      map[measure.Cause]map[string]int // takes by player
}

func (s *section) hear(o Observation) {
	if o.Result == verdict.CantTell {
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
		if n := len(s.by[c]); n >= least && (best == "" || n > len(s.by[best])) && remedies[c] != nil {
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

func (s *section) suggest(c measure.Cause) Suggestion {
	players, takes := s.count(c)
	var keys []string
	for k := range s.keys {
		keys = append(keys, k)
	}
	slices.Sort(keys)
	return Suggestion{
		Item: Item{
			Key:    "for-" + keys[0] + "-" + string(c),
			Step:   remedies[c](s.family),
			Times:  1,
			Days:   SchoolDays,
			At:     AtHome,
			Wanted: 2,
			For:    keys,
			Why:    inClassWords[c],
		},
		Reason: fmt.Sprintf(
			"%s: %s with %d of %d players (%d takes).",
			s.name,
			inClassWords[c],
			players,
			len(s.players),
			takes,
		),
		Section: s.name,
		Cause:   c,
		Players: players,
		Of:      len(s.players),
		Takes:   takes,
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

func forBand(c measure.Cause, sections map[string]*section) Suggestion {
	out := Suggestion{
		Item: Item{
			Key:    "for-all-" + string(c),
			Step:   remedies[c](""),
			Times:  1,
			Days:   SchoolDays,
			At:     Both,
			Wanted: 3,
			Why:    inClassWords[c],
		},
		Cause: c,
	}
	for _, s := range sections {
		players, takes := s.count(c)
		out.Players, out.Takes, out.Of = out.Players+players, out.Takes+takes, out.Of+len(s.players)
	}
	out.Reason = fmt.Sprintf(
		"The whole band: %s with %d of %d players (%d takes).",
		inClassWords[c],
		out.Players,
		out.Of,
		out.Takes,
	)
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
		})
	}
	return out
}
