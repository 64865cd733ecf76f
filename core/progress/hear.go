package progress

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"earlychorus/core/music"
	"earlychorus/core/take"
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
	return Weights{Pain: 100, Question: 60, CannotTell: 40, Stuck: 35, FirstTime: 25, Slipping: 20, NotYet: 10, Unheard: 8}
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
	Take     string
	Player   string
	Step     string
	Result   verdict.Result
	Analysis take.Analysis
	Deciding int // index of the note that decided; verdict.WholeStep for the whole
	Words    string

	Flag        Reason // Pain, Question or ""
	FlagWords   string
	StuckTries  int  // tries on the player's rung, where it is stuck
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
	Take   string        `json:"take"`
	Player string        `json:"player"`
	From   music.Seconds `json:"from_s" doc:"in the recording"`
	To     music.Seconds `json:"to_s"`
	Why    []Why         `json:"why" nullable:"false" doc:"the weightiest first"`
	Score  int           `json:"score"`
	At     string        `json:"at" doc:"what the excerpt is about"`
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
		add(CannotTell, "the recording could not be judged: only an ear can")
	}
	if c.StuckTries > 0 {
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
		add(Unheard, fmt.Sprintf("nobody has listened for %d school days", c.DaysUnheard))
	}
	slices.SortStableFunc(out, func(a, b Why) int { return b.Weight - a.Weight })
	return out
}

const longUnheard = 5 // school days

// Times of an excerpt.
const (
	before    music.Seconds = 1   // of music ahead of what matters
	after     music.Seconds = 1.5 // behind it
	longest   music.Seconds = 10
	shortest  music.Seconds = 3
	deciding  music.Seconds = 4 // what a director needs to decide and press a key
	praiseFor music.Seconds = 6 // of a good take
)

// span cuts out what matters: the event in the note that decided, that note's
// start, or the beginning of the first note.
func (c Candidate) span() (from, to music.Seconds, at string) {
	a := c.Analysis
	from, to, at = 0, longest, "the beginning"
	if n := slices.IndexFunc(a.Notes, func(n take.Note) bool { return n.Played }); n >= 0 {
		from, to = a.Notes[n].Onset-before, a.Notes[n].Onset+praiseFor
	}
	if c.Deciding >= 0 && c.Deciding < len(a.Notes) && a.Notes[c.Deciding].Played {
		n := a.Notes[c.Deciding]
		from, to, at = n.Onset-before, min(n.Release, n.Onset+longest-before-after)+after, "the note that decided"
		for _, e := range a.Events {
			if e.Note == c.Deciding && telling(e.Kind) {
				from, to, at = e.At-before-0.5, e.At+e.Duration+after, "where it happened"
				break
			}
		}
	}
	from = max(0, from)
	to = min(max(to, from+shortest), from+longest, max(a.Seconds, from+shortest))
	return from, to, at
}

func telling(k take.EventKind) bool {
	switch k {
	case take.Gap, take.Break, take.Undertone, take.WrongNote, take.Chirp, take.Scoop, take.Sag:
		return true
	}
	return false
}

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
		e := Excerpt{Take: c.Take, Player: c.Player, Why: why}
		e.From, e.To, e.At = c.span()
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
		return cmp.Or(top[b.Player]-top[a.Player], cmp.Compare(a.Player, b.Player), b.Score-a.Score, cmp.Compare(a.Take, b.Take))
	})
	return out
}

// TimeFor returns how long a list takes, deciding included.
func TimeFor(list []Excerpt) (all music.Seconds) {
	for _, e := range list {
		all += e.To - e.From + deciding
	}
	return all
}

// Weightiest returns the candidates with a reason, the weightiest first, so many
// at most: only they need to be looked into.
func Weightiest(all []Candidate, w Weights, most int) []Candidate {
	weigh := func(c Candidate) (sum int) {
		for _, y := range c.reasons(w) {
			sum += y.Weight
		}
		return sum
	}
	out := slices.DeleteFunc(slices.Clone(all), func(c Candidate) bool { return weigh(c) == 0 })
	slices.SortStableFunc(out, func(a, b Candidate) int { return cmp.Or(weigh(b)-weigh(a), cmp.Compare(a.Take, b.Take)) })
	return out[:min(len(out), most)]
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
