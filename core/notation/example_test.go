package notation_test

import (
	"fmt"
	"strings"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/notation"
	"earlychorus/core/plan"
)

// A day's plan as a horn player would write it down.
func ExampleWriteText() {
	horn, _ := instrument.Get("horn")
	day := plan.Plan{Name: "Monday", Items: []plan.Item{{
		Key:   "walk",
		Step:  exercise.New(exercise.KindTuningNote, nil),
		Times: 1,
		Days:  plan.On(0),
		At:    plan.Both,
	}}}
	who := exercise.Player{Instrument: horn, Stage: 1}
	sheet, _ := notation.SheetOf(day, 0, plan.AtHome, who, exercise.StandardConventions())
	var page strings.Builder
	_ = notation.WriteText(&page, sheet)
	notes, _, _ := strings.Cut(page.String(), "   ! ") // cautions follow
	fmt.Print(notes)
	// Output:
	// Monday, Monday
	// Horn in F
	//
	// 1. Tuning note: the class's tuning note, held
	//    tempo 60, 13 s
	//    | Blow warm air through first (2)  breathe 2  F4 8 [1]  rest 1
}
