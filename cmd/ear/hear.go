package main

import (
	"bytes"
	"fmt"
	"os"

	"earlychorus/core/audio"
	"earlychorus/core/audio/flac"
	"earlychorus/core/audio/wav"
	"earlychorus/core/instrument"
)

// longestFile bounds what is read, in seconds: a whole concert fits.
const longestFile = 3 * 3600

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
	collectFor(len(sound.Samples))
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
