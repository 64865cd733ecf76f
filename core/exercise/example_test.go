package exercise_test

import (
	"fmt"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
)

// One walk for the whole band: each reads the notes that sound alike.
func ExampleStep_Score_oneWalkForTheBand() {
	walk := exercise.New("five-note-walk", nil)
	for _, key := range []string{"flute", "clarinet", "alto-sax", "horn", "trombone"} {
		i, _ := instrument.Get(key)
		score, _ := walk.Score(exercise.Player{Instrument: i, Stage: 1}, exercise.StandardConventions())
		fmt.Printf("%s: %s\n", i.Name, score.Reads())
	}
	// Output:
	// Flute: B♭4 C5 D5 E♭5 F5 E♭5 D5 C5 B♭4
	// B♭ clarinet: C4 D4 E4 F4 G4 F4 E4 D4 C4
	// Alto saxophone: G4 A4 B4 C5 D5 C5 B4 A4 G4
	// Horn in F: F4 G4 A4 B♭4 C5 B♭4 A4 G4 F4
	// Trombone: B♭2 C3 D3 E♭3 F3 E♭3 D3 C3 B♭2
}

// What a step asks, in the words that stand above it.
func ExampleStep_Sentence() {
	fmt.Println(exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{0}, "beats": 8}).Sentence())
	// Output:
	// Long tone, counted: concert B♭, 8 beats each at 60
}
