package practice

import (
	"earlychorus/core/exercise"
	"earlychorus/core/fmt"
	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
)

// Played is a take of today, as the body remembers it.
type Played struct {
	Kind string        `json:"kind"`
	Load scores.Load   `json:"load"`
	Ago  music.Seconds `json:"ago_s" doc:"since it ended"`
}

// Hold is a rest before a step may begin; the zero Hold is none.
type Hold struct {
	Seconds music.Seconds `json:"hold_s" doc:"from now"`
	Over    bool          `json:"over" doc:"enough of this for today"`
	Why     string        `json:"why"`
}

// Before says how long to rest before a step, after what was done today, latest
// first. The caps are common practice, no published source; a director's own
// and the school's rules go first.
func Before(next scores.Score, today []Played) Hold {
	caps := plan.Caps(next.Stage)
	rounds, crossing := next.Load.Rounds, next.Load.BreakSeconds
	for _, d := range today {
		rounds += d.Load.Rounds
		crossing += d.Load.BreakSeconds
	}
	switch {
	case next.Load.Rounds > 0 && rounds > caps.Rounds:
		return Hold{Over: true, Why: fmt.Sprintf("%d rounds of breathing are enough for one day.", caps.Rounds)}
	case next.Load.BreakSeconds > 0 && crossing > caps.Break:
		return Hold{
			Over: true,
			Why: fmt.Sprintf(
				"%.0f minutes over the break are enough for one day. Tomorrow it is fresh.",
				caps.Break/60,
			),
		}
	}
	longest := Hold{}
	for _, h := range []Hold{
		afterPlaying(today), betweenBuzzes(next, today, caps), lipsInTenMinutes(next, today, caps),
	} {
		if h.Seconds > longest.Seconds {
			longest = h
		}
	}
	return longest
}

// afterPlaying: rest as long as you played, in buzzing and in register work.
func afterPlaying(today []Played) Hold {
	if len(today) == 0 {
		return Hold{}
	}
	last := today[0]
	k, err := exercise.Get(last.Kind)
	if err != nil || k.Group != scores.Buzzing && k.Group != scores.Registers {
		return Hold{}
	}
	return Hold{Seconds: max(0, last.Load.SoundSeconds-last.Ago), Why: "Rest as long as you played."}
}

// betweenBuzzes: so many seconds of buzzing, then a pause.
func betweenBuzzes(next scores.Score, today []Played, caps plan.Budgets) Hold {
	buzzed := next.Load.BuzzSeconds
	if buzzed == 0 {
		return Hold{}
	}
	quiet := caps.BuzzPause // since the last buzzing
	for n, d := range today {
		since := d.Ago
		if n > 0 {
			since = d.Ago - today[n-1].Ago // to the take that came after
		}
		if since >= caps.BuzzPause {
			break
		}
		if d.Load.BuzzSeconds > 0 {
			buzzed += d.Load.BuzzSeconds
			quiet = min(quiet, d.Ago)
		}
	}
	if buzzed <= caps.Buzz {
		return Hold{}
	}
	return Hold{
		Seconds: caps.BuzzPause - quiet,
		Why:     fmt.Sprintf("After %.0f seconds of buzzing lips want a minute off. Breathe quietly.", caps.Buzz),
	}
}

const lipWindow music.Seconds = 600

// lipsInTenMinutes: in the first weeks lips sound for half of any ten minutes at
// most.
func lipsInTenMinutes(next scores.Score, today []Played, caps plan.Budgets) Hold {
	if caps.Lip == 0 || next.Load.LipSeconds == 0 {
		return Hold{}
	}
	sum := next.Load.LipSeconds
	for _, d := range today {
		if d.Ago < lipWindow {
			sum += d.Load.LipSeconds
		}
	}
	hold := music.Seconds(0)
	for n := len(today) - 1; n >= 0 && sum > caps.Lip; n-- { // the oldest leave the window first
		if d := today[n]; d.Ago < lipWindow {
			sum -= d.Load.LipSeconds
			hold = lipWindow - d.Ago
		}
	}
	return Hold{
		Seconds: hold,
		Why: "Your lips have worked for half of the last ten minutes. Finger a tune, or take the instrument " +
			"apart and wipe it.",
	}
}
