package measure

import (
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Register is where in an instrument's beginner range a note lies.
type Register string

const (
	LowRegister  Register = "low"
	MidRegister  Register = "middle"
	HighRegister Register = "high"
)

// RegisterOf returns the third of the beginner range that a sounding note lies
// in.
func RegisterOf(i instrument.Instrument, m music.MIDI) Register {
	switch third := (i.Beginner.To - i.Beginner.From) / 3; {
	case m < i.Beginner.From+third:
		return LowRegister
	case m > i.Beginner.To-third:
		return HighRegister
	}
	return MidRegister
}
