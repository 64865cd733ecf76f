package main

import (
	"runtime/debug"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Most recordings end before anything is collected; a concert is collected as it goes.
func TestALongRecordingIsCollectedAsUsual(t *testing.T) {
	usual := debug.SetGCPercent(100)
	limit := debug.SetMemoryLimit(-1)
	defer func() {
		debug.SetGCPercent(usual)
		debug.SetMemoryLimit(limit)
	}()
	collectLate()
	collectFor(60 * 48000)
	assert.Equal(t, int64(plenty), debug.SetMemoryLimit(-1))
	assert.Equal(t, -1, debug.SetGCPercent(-1))
	collectFor(3 * 3600 * 48000)
	assert.Greater(t, debug.SetMemoryLimit(-1), int64(plenty))
	assert.Equal(t, 100, debug.SetGCPercent(100))
}
