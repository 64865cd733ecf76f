// Package caring says what an instrument needs now: what was done last, and what is due.
package caring

import (
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/scores"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// Due is care that an instrument needs again and again.
type Due struct {
	Every    exercise.Every   `json:"every" enum:"weekly,monthly,termly"`
	Name     string           `json:"name" doc:"how often: every week"`
	Items    []string         `json:"items" doc:"what to do, in order" nullable:"false"`
	Pictures []scores.Picture `json:"pictures" doc:"what is drawn beside each item" nullable:"false"`
	Last     string           `json:"last,omitempty" format:"date" doc:"when it was done last"`
	Due      string           `json:"due" format:"date"`
	Now      bool             `json:"now" doc:"it is due"`
}

// reminded is the care that one is reminded of: after playing needs no reminding.
var reminded = []exercise.Every{exercise.Weekly, exercise.Monthly, exercise.Termly}

// Of returns what a player's instrument needs as of a day, by when it was done last. Before
// the first time it is counted from the class's first lesson.
func Of(p store.Player, done map[exercise.Every]time.Time, day time.Time) ([]Due, error) {
	i, err := p.Plays()
	if err != nil {
		return nil, err
	}
	who := exercise.Player{Instrument: i, Stage: p.StageOn(day)}
	conventions := p.Class.Conventions()
	out := []Due{}
	for _, e := range reminded {
		step := exercise.CareStep(e)
		if !step.Suits(i) {
			continue
		}
		score, err := step.Score(who, conventions)
		if err != nil {
			return nil, err
		}
		d := Due{
			Every:    e,
			Name:     e.Name(),
			Items:    score.Items,
			Pictures: score.Pictures,
		}
		last, ok := done[e]
		switch {
		case ok:
			d.Last = view.Date(last)
		case p.Class.FirstLesson != nil:
			last = *p.Class.FirstLesson
		default:
			last = day.AddDate(0, 0, -e.Days())
		}
		due := last.AddDate(0, 0, e.Days())
		d.Due, d.Now = view.Date(due), !due.After(day)
		out = append(out, d)
	}
	return out, nil
}
