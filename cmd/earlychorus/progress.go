package main

import (
	"fmt"
	"os"
)

// toldEvery is how many things go by between two words of progress.
const toldEvery = 100

// progress tells on standard error how many of something are done.
func progress(of string) func(done int) {
	return func(done int) {
		if done%toldEvery == 0 {
			fmt.Fprintf(os.Stderr, "\r%d %s", done, of)
		}
	}
}
