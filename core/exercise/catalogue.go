package exercise

import (
	"encoding/json"
	"fmt"

	"earlychorus/core/instrument"
)

// KindLongToneCounted is the catalogue's key of LongToneCounted.
const KindLongToneCounted = "long-tone-counted"

// Exercise is a recipe: parameters that can be worked out for any instrument.
type Exercise interface {
	Check() error
	Sentence() string
	Score(instrument.Instrument, Conventions, Stage) (Score, error)
}

// Parse reads the parameters of a kind from JSON, as a step stores them.
func Parse(kind string, parameters []byte) (Exercise, error) {
	switch kind {
	case KindLongToneCounted:
		var p LongToneCounted
		if err := json.Unmarshal(parameters, &p); err != nil {
			return nil, fmt.Errorf("exercise: parameters of %s: %w", kind, err)
		}
		return p, p.Check()
	}
	return nil, fmt.Errorf("exercise: the catalogue has no kind %q", kind)
}

// Why says in one line, to a player, what a kind is good for.
func Why(kind string) string {
	switch kind {
	case KindLongToneCounted:
		return "Long tones teach your air and your ear to hold a note still."
	}
	return ""
}
