package main

import (
	"math"
	"runtime/debug"
)

// plenty is memory, in bytes, that may be filled before any of it is collected: to collect
// from a few megabytes on, as a server does, takes a tenth of a short command's time.
const plenty = 512 << 20

// collectLate is for what soon ends.
func collectLate() {
	debug.SetGCPercent(-1)
	debug.SetMemoryLimit(plenty)
}

// collectFor goes back to what is usual for a recording so long that it and what is heard
// in it would fill plenty: held to that, nothing would be done but collecting.
func collectFor(samples int) {
	const aSample, heardToo = 8, 4
	if samples*aSample*heardToo > plenty {
		debug.SetGCPercent(100)
		debug.SetMemoryLimit(math.MaxInt64)
	}
}
