package outcome_test

import (
	"context"
	"fmt"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/outcome"
	"earlychorus/core/say"
	"earlychorus/core/synth"
)

// What a trumpet player is told who holds a long tone well below its pitch.
func ExampleOf_flatTrumpet() {
	trumpet, _ := instrument.Get("trumpet")
	step := exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{0}})
	score, _ := step.Score(exercise.Player{Instrument: trumpet, Stage: 2}, exercise.StandardConventions())
	player, _ := synth.NewStandIn("flat", trumpet, synth.FirstNote(score, trumpet), 1)
	sound, _ := player.Play(score, 48000)
	came, _ := outcome.Of(context.Background(), sound, outcome.Request{Score: score})
	said := say.Teller{Instrument: trumpet}.Verdict(came.Verdict)
	fmt.Println(said.Result)
	fmt.Println(said.Sentence)
	fmt.Println(said.Deciding.Text, said.Deciding.Wanted)
	fmt.Println(said.Tip.Text)
	// Output:
	// nearly
	// C4 was flat.
	// 34 cents flat within ±25 cents
	// Flat: firm corners and faster air. Still flat when warm? Push the tuning slide in a little.
}
