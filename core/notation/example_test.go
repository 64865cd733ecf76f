package notation_test

import (
	"os"

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
		Step:  exercise.New("five-note-walk", nil),
		Times: 1,
		Days:  plan.On(0),
		At:    plan.Both,
	}}}
	who := exercise.Player{Instrument: horn, Stage: 1}
	sheet, _ := notation.SheetOf(day, 0, plan.AtHome, who, exercise.StandardConventions())
	_ = notation.WriteText(os.Stdout, sheet)
	// Output:
	// Monday, Monday
	// Horn in F
	//
	// 1. Five-note walk: up and down, 2 beats each at 80
	//    tempo 80, 20 s
	//    | Sit tall, fingers ready (2)  breathe 2  F4 2 [1]  G4 2 [open]  A4 2 [1-2]  B♭4 2 [1]  C5 2 [open]  B♭4 2 [1]  rest 2
	//    | breathe 2  A4 2 [1-2]  G4 2 [open]  F4 2 [1]  rest 1
}
