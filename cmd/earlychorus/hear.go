package main

import (
	"bytes"
	"fmt"
	"os"
	"runtime/debug"

	"earlychorus/core/audio"
	"earlychorus/core/audio/flac"
	"earlychorus/core/audio/wav"
	"earlychorus/core/instrument"
)

// longestFile bounds what is read, in seconds: a whole concert fits.
const longestFile = 3 * 3600

// plenty is memory that a command which hears a file and ends may fill before any of it is
// collected: to collect from a few megabytes on, as a server does, takes a tenth of its time.
const plenty = 512 << 20

func collectLate() {
	debug.SetGCPercent(-1)
	debug.SetMemoryLimit(plenty)
}

// readSound reads a WAV or FLAC file.
func readSound(name string) (audio.Mono, error) {
	file, err := os.Open(name)
	if err != nil {
		return audio.Mono{}, err
	}
	defer file.Close() //nolint:errcheck // read only
	head := make([]byte, 4)
	n, _ := file.ReadAt(head, 0) // a short file is not FLAC, and WAV's reader says so
	var sound audio.Mono
	if bytes.Equal(head[:n], []byte("fLaC")) {
		sound, err = flac.Decode(file, longestFile)
	} else {
		sound, err = wav.Decode(file, longestFile)
	}
	if err != nil {
		return audio.Mono{}, fmt.Errorf("%s: %w", name, err)
	}
	return sound, nil
}

// chosenInstrument returns nil for "".
func chosenInstrument(key string) (*instrument.Instrument, error) {
	if key == "" {
		return nil, nil
	}
	i, err := instrument.Get(key)
	return &i, err
}

const instrumentFlag = "instrument that plays, such as clarinet or alto-sax; without it every pitch is listened for"
