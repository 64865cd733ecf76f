package ladder_test

import (
	"fmt"

	"earlychorus/core/ladder"
	"earlychorus/core/verdict"
)

// Three clean in a row pass a rung; one that is not begins the counting again.
func ExampleRules_Replay() {
	rules := ladder.Standard()
	var log []ladder.Entry
	for _, r := range []verdict.Result{
		verdict.Clean,
		verdict.NotYet,
		verdict.Clean,
		verdict.Clean,
		verdict.Clean,
	} {
		log = append(log, ladder.Entry{
			What:   ladder.Tried,
			Day:    "2026-11-26",
			Rung:   1,
			Result: r,
		})
		now := rules.Replay(5, log)
		fmt.Printf("%s: rung %d, %d to go\n", r, now.Rung, rules.Needs(now))
	}
	// Output:
	// clean: rung 1, 2 to go
	// not-yet: rung 1, 3 to go
	// clean: rung 1, 2 to go
	// clean: rung 1, 1 to go
	// clean: rung 2, 3 to go
}
