package plan

import (
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Budgets are what a day may ask for. A zero is no limit.
type Budgets struct {
	Total     music.Seconds `json:"total_s"`
	Break     music.Seconds `json:"break_s" doc:"crossing the register break"`
	Buzz      music.Seconds `json:"buzz_s" doc:"buzzing before so long a pause"`
	BuzzPause music.Seconds `json:"buzz_pause_s"`
	Lip       music.Seconds `json:"lip_s" doc:"sounding on the lips in any ten minutes"`
	HighShare float64       `json:"high_share" doc:"share of the sounding time that may lie high"`
	Rounds    int           `json:"rounds" doc:"of breathing exercises"`
}

// tenMinutes is the window that lip time is counted in.
const tenMinutes music.Seconds = 600

// Caps are the budgets but for the minutes (common practice, no published
// source; a director's own and the school's rules go first).
func Caps(s scores.Stage) Budgets {
	b := Budgets{
		Break:     300,
		Buzz:      60,
		BuzzPause: 60,
		HighShare: 0.25,
		Rounds:    12,
	}
	if s <= 1 {
		b.Lip = tenMinutes / 2
	}
	return b
}

// ForClass returns the budgets of a class's warm-up of so many minutes, for a
// stage; 0 minutes is the usual six.
func ForClass(s scores.Stage, minutes float64) Budgets {
	b := Caps(s)
	if minutes == 0 {
		minutes = 6
	}
	b.Total = music.Seconds(60 * minutes)
	return b
}

// ForHome returns the budgets of a day's practice at home; 0 minutes is the
// stage's usual.
func ForHome(s scores.Stage, minutes float64) Budgets {
	b := Caps(s)
	if minutes == 0 {
		switch {
		case s <= 1:
			minutes = 10
		case s == 2:
			minutes = 15
		default:
			minutes = 20
		}
	}
	b.Total = music.Seconds(60 * minutes)
	return b
}
