// Package progress is what many takes say together: whom to hear first, what a
// section has in common, which note is the next wall, and whether a player grows.
package progress

import (
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/verdict"
)

// Fewest is how many takes a share or a trend is made of at least; under it there
// are counts only.
const Fewest = 5

// Take is the word on one take, as progress looks at it.
type Take struct {
	ID         string
	Player     string // tells players apart
	Instrument string
	Section    string
	Step       string // tells steps apart
	Day        int    // any count of days that grows by one a day
	Result     verdict.Result
	Cause      measure.Cause
	Notes      string // the written notes it was about: "C4 G4"
}

// Note is one note of one take.
type Note struct {
	Player     string
	Take       string
	Day        int
	Sounding   music.MIDI
	Good       bool // right note, within the limits of its step
	Trusted    bool // its pitch measures can be relied on
	Centre     music.Cents
	Steadiness music.Cents
	Held       music.Seconds
	Free       bool // held as long as the player could, not for so many beats
}
