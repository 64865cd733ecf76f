package main

import "runtime/debug"

// plenty is memory that a command which hears and ends may fill before any of it is
// collected: to collect from a few megabytes on, as a server does, takes a tenth of its time.
const plenty = 512 << 20

func collectLate() {
	debug.SetGCPercent(-1)
	debug.SetMemoryLimit(plenty)
}
