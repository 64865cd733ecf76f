package notation

import (
	"fmt"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
	"earlychorus/core/task"
)

// Sheet is a day's steps for one instrument, one after the other.
type Sheet struct {
	Title      string     `json:"title"`
	Instrument string     `json:"instrument" doc:"instrument key"`
	Player     string     `json:"player" doc:"the instrument's name, or a section's"`
	Steps      []StepPart `json:"steps" nullable:"false"`
}

// StepPart is one step of a sheet.
type StepPart struct {
	Name    string       `json:"name" doc:"the director's own, or the kind's"`
	Heading string       `json:"heading" doc:"the step in concert pitch, as a director says it"`
	Says    string       `json:"says,omitempty" doc:"what to do, in the notes the player reads"`
	Why     string       `json:"why,omitempty"`
	Times   int          `json:"times"`
	Score   scores.Score `json:"score"`
}

// of is the instrument a sheet is for.
func (s Sheet) of() (instrument.Instrument, error) { return instrument.Get(s.Instrument) }

var dayNames = [7]string{"Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"}

// SheetOf works a day of a plan out for a player. In class, who does not buzz
// plays home in the others' rests; at home, what is not for the instrument is
// left out. Errors: those of exercise.Step.Score.
func SheetOf(p plan.Plan, day plan.Day, at plan.Place, who exercise.Player, c exercise.Conventions) (Sheet, error) {
	s := Sheet{
		Title:      fmt.Sprintf("%s, %s", p.Name, dayNames[day]),
		Instrument: who.Instrument.Key,
		Player:     who.Instrument.Name,
		Steps:      []StepPart{},
	}
	for _, i := range p.OfDay(day, at) {
		score, ok, err := ScoreOf(i, at, who, c)
		if err != nil {
			return s, err
		}
		if ok {
			part := StepPart{
				Name:    i.Name(),
				Heading: score.Title,
				Why:     i.Why,
				Times:   i.Times,
				Score:   score,
			}
			// Who has another part meanwhile reads what that is.
			if i.AsksOf(who) {
				part.Says = task.Of(score).Sentence
			} else {
				part.Name = score.Title
			}
			s.Steps = append(s.Steps, part)
		}
	}
	return s, nil
}

// ScoreOf works one item out for a player; ok is false when there is nothing for
// the instrument to do.
func ScoreOf(
	i plan.Item,
	at plan.Place,
	who exercise.Player,
	c exercise.Conventions,
) (s scores.Score, ok bool, err error) {
	if i.AsksOf(who) {
		s, err = i.Step.Score(who, c)
		return plan.FillRests(s), true, err
	}
	// What is ticked or blown into a meter takes no time together.
	together := at == plan.InClass && !i.Step.Kind.Ticked && !i.Step.Kind.Metered
	if together && !who.Instrument.IsPitched() {
		s, err = alongside(i, who, c)
		return s, err == nil, err
	}
	if at == plan.AtHome || i.Step.Kind.Group != scores.Buzzing || len(i.For) > 0 {
		return s, false, nil
	}
	theirs, err := i.Step.Score(exercise.Player{Instrument: aBrassPlayer(), Stage: who.Stage}, c)
	if err != nil {
		return s, false, err
	}
	s, err = plan.Meanwhile(theirs, who, c)
	return s, true, err
}

// alongside is what percussion does in class while the others play a step: it counts and
// breathes with those who take longest, for whom everybody waits.
func alongside(i plan.Item, who exercise.Player, c exercise.Conventions) (longest scores.Score, err error) {
	found := false
	for _, other := range instrument.All() {
		if !i.IsFor(other) {
			continue
		}
		theirs, err := i.Step.Score(exercise.Player{Instrument: other, Stage: who.Stage}, c)
		if err != nil {
			return longest, err
		}
		if !found || theirs.Beats() > longest.Beats() {
			longest, found = theirs, true
		}
	}
	if !found {
		return longest, exercise.ErrNotFor
	}
	return plan.CountAlong(longest, who.Instrument), nil
}

// aBrassPlayer is one whose beats the others follow: all brass have the same.
func aBrassPlayer() instrument.Instrument {
	i, err := instrument.Get("trombone")
	if err != nil {
		panic(err) // it is in the table
	}
	return i
}
