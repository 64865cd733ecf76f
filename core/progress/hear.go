package progress

import (
	"cmp"
	"slices"
	"strings"

	"earlychorus/core/fmt"
	"earlychorus/core/music"
	"earlychorus/core/verdict"
)

// Reason is why somebody should be heard.
type Reason string

const (
	Pain       Reason = "pain"
	Question   Reason = "question"
	CannotTell Reason = "cant-tell"
	Stuck      Reason = "stuck"
	FirstTime  Reason = "first-time"
	Slipping   Reason = "slipping"
	Unheard    Reason = "unheard"
	NotYet     Reason = "not-yet"
)

// Weights is how much each reason counts. A director may change them; 0 leaves a
// reason out.
type Weights map[Reason]int

// StandardWeights are the usual ones (common practice, no published source):
// what may hurt first, then what only an ear can settle, then what is stuck,
// then praise that is due.
func StandardWeights() Weights {
	return Weights{
		Pain:       100,
		Question:   60,
		CannotTell: 40,
		Stuck:      35,
		FirstTime:  25,
		Slipping:   20,
		NotYet:     10,
		Unheard:    8,
	}
}

// Check reports a weight that cannot be used.
func (w Weights) Check() error {
	for r, v := range w {
		if _, known := StandardWeights()[r]; !known || v < 0 || v > 100 {
			return fmt.Errorf("give the reason %q a weight from 0 to 100", r)
		}
	}
	return nil
}

// With returns the usual weights, changed.
func (w Weights) With(own Weights) Weights {
	out := Weights{}
	for r, v := range w {
		out[r] = v
	}
	for r, v := range own {
		out[r] = v
	}
	return out
}

// Candidate is a take that may be worth hearing, with what is known around it.
type Candidate struct {
	Take   string
	Player string
	Step   string
	Result verdict.Result
	Words  string // what decided
	Cut    Cut

	Flag        Reason // Pain, Question or ""
	FlagWords   string
	Stuck       bool // the player's rung does not let up
	StuckTries  int  // tries on it; 0 where the player was just led back
	FirstClean  bool // the first clean take of this step by the player
	WasClean    bool // the take of the day before was clean, and this is not
	DaysUnheard int  // since a director last heard the player; school days
}

// Why is a reason in words.
type Why struct {
	Reason Reason `json:"reason"`
	Text   string `json:"text"`
	Weight int    `json:"weight"`
}

// Excerpt is what to listen to, and why.
type Excerpt struct {
	Take   string `json:"take"`
	Player string `json:"player"`
	Cut
	Why   []Why `json:"why" nullable:"false" doc:"the weightiest first"`
	Score int   `json:"score"`
}

// reasons lists why a candidate is worth hearing, the weightiest first.
func (c Candidate) reasons(w Weights) []Why {
	out := []Why{}
	add := func(r Reason, text string) {
		if w[r] > 0 {
			out = append(out, Why{r, text, w[r]})
		}
	}
	switch c.Flag {
	case Pain:
		add(Pain, "says it hurt, or was dizzy")
	case Question:
		add(Question, "asks: "+strings.TrimSpace(c.FlagWords))
	}
	if c.Result == verdict.CantTell {
		add(CannotTell, "couldn’t measure this one: please listen")
	}
	switch {
	case c.Stuck && c.StuckTries == 0:
		add(Stuck, "was led back on a ladder")
	case c.Stuck:
		add(Stuck, fmt.Sprintf("stuck on a rung after %d tries", c.StuckTries))
	}
	if c.FirstClean {
		add(FirstTime, "clean for the first time: praise is due")
	}
	if c.WasClean {
		add(Slipping, "was clean the time before, and is not now")
	}
	if c.Result == verdict.NotYet {
		add(NotYet, "not yet: "+c.Words)
	}
	if c.DaysUnheard >= longUnheard {
		add(Unheard, fmt.Sprintf("not heard by you in %d school days", c.DaysUnheard))
	}
	slices.SortStableFunc(out, func(a, b Why) int { return b.Weight - a.Weight })
	return out
}

const longUnheard = 5 // school days

// ListenIn chooses what to listen to in so many seconds: of each player at most
// two takes, the sum of the scores as large as the time allows, exactly. Time is
// counted in tenths of a second with deciding added to each excerpt. The
// weightiest first; a player's own stand together.
func ListenIn(candidates []Candidate, seconds music.Seconds, w Weights) []Excerpt {
	excerpts := bestOfEach(candidates, w)
	capacity := int(10 * seconds)
	value := make([]int, capacity+1)
	taken := make([][]bool, len(excerpts))
	for n, e := range excerpts {
		taken[n] = make([]bool, capacity+1)
		cost := int(10*(e.To-e.From+deciding) + 0.999)
		for room := capacity; room >= cost; room-- {
			if with := value[room-cost] + e.Score; with > value[room] {
				value[room], taken[n][room] = with, true
			}
		}
	}
	out := []Excerpt{}
	for n, room := len(excerpts)-1, capacity; n >= 0; n-- {
		if taken[n][room] {
			out = append(out, excerpts[n])
			room -= int(10*(excerpts[n].To-excerpts[n].From+deciding) + 0.999)
		}
	}
	return inOrder(out)
}

const mostOfOne = 2

// bestOfEach makes excerpts of what has a reason, the weightiest two of each
// player. The second of one player says what the first did not.
func bestOfEach(candidates []Candidate, w Weights) []Excerpt {
	all := []Excerpt{}
	for _, c := range candidates {
		why := c.reasons(w)
		if len(why) == 0 {
			continue
		}
		e := Excerpt{
			Take:   c.Take,
			Player: c.Player,
			Cut:    c.Cut,
			Why:    why,
		}
		if e.To <= e.From {
			e.Cut = beginning
		}
		for _, y := range why {
			e.Score += y.Weight
		}
		all = append(all, e)
	}
	slices.SortStableFunc(all, func(a, b Excerpt) int { return cmp.Or(b.Score-a.Score, cmp.Compare(a.Take, b.Take)) })
	count := map[string]int{}
	return slices.DeleteFunc(all, func(e Excerpt) bool {
		count[e.Player]++
		return count[e.Player] > mostOfOne
	})
}

// inOrder puts the weightiest first, and a player's own together.
func inOrder(out []Excerpt) []Excerpt {
	top := map[string]int{}
	for _, e := range out {
		top[e.Player] = max(top[e.Player], e.Score)
	}
	slices.SortStableFunc(out, func(a, b Excerpt) int {
		return cmp.Or(
			top[b.Player]-top[a.Player],
			cmp.Compare(a.Player, b.Player),
			b.Score-a.Score,
			cmp.Compare(a.Take, b.Take),
		)
	})
	return out
}

// WithReason counts the candidates that have a reason to be heard.
func WithReason(all []Candidate, w Weights) (count int) {
	for _, c := range all {
		if len(c.reasons(w)) > 0 {
			count++
		}
	}
	return count
}

// SchoolDays counts the days from Monday to Friday after one day up to another,
// both counted from any Monday.
func SchoolDays(after, to int) (days int) {
	for d := after + 1; d <= to; d++ {
		if ((d%7)+7)%7 < 5 {
			days++
		}
	}
	return days
}
