// Package tone compares the colour of a player's notes with the same player's
// earlier ones. Microphones and rooms differ more than players do, so a tone is
// never a score and is compared with nothing but itself: one player, one note, one
// microphone, one room, about one loudness.
package tone

import (
	"math"

	"earlychorus/core/music"
)

// Quality is one side of a tone.
type Quality string

const (
	Clearness  Quality = "clearness"  // clear or breathy
	Brightness Quality = "brightness" // bright or dark
	Fullness   Quality = "fullness"   // full or thin
)

// Qualities lists them in the order in which they are said.
func Qualities() []Quality { return []Quality{Clearness, Brightness, Fullness} }

// Colour is how a note sounded.
type Colour struct {
	Clearness  music.Decibels // harmonics to noise
	Brightness float64        // centre of the spectrum, counted in harmonics
	Fullness   float64        // harmonics within 30 dB of the strongest
}

func (c Colour) of(q Quality) float64 {
	switch q {
	case Clearness:
		return float64(c.Clearness)
	case Brightness:
		return math.Log2(max(c.Brightness, 1)) // twice as bright is as far at any pitch
	}
	return c.Fullness
}

// alike is how far two notes by one player differ without anybody hearing it, in
// the units of Colour.of; a spread smaller than this is luck. From our own sampled
// players, no published source.
var alike = map[Quality]float64{Clearness: 1.5, Brightness: 0.12, Fullness: 1}

// Room is what a recording tells of where it was made.
type Room struct {
	Floor music.Decibels // how loud it is when nobody plays, dB below full scale
	Ring  music.Seconds  // by when its ring has fallen by 60 dB; 0 where it could not be heard
}

// A room whose quiet or ring changes by more is another room, or the microphone
// has moved (common practice, no published source).
const (
	otherFloor music.Decibels = 12
	otherRing  float64        = 2.2 // times
	// shortestRing: below it a release tells of the player, not of the room.
	shortestRing music.Seconds = 0.25
)

func (r Room) like(o Room) bool {
	if math.Abs(float64(r.Floor-o.Floor)) > float64(otherFloor) {
		return false
	}
	a, b := max(r.Ring, shortestRing), max(o.Ring, shortestRing)
	return r.Ring == 0 || o.Ring == 0 || max(a, b) <= music.Seconds(otherRing)*min(a, b)
}

// Heard is one note of one take, as far as its tone can be relied on.
type Heard struct {
	Take    string
	Day     int // any count of days
	Note    music.MIDI
	Through string // the microphone and how it was set, by an opaque name; "" not known
	Room    Room
	Level   music.Decibels
	Colour  Colour
}

// oneLoudness is how far two levels may lie apart to be compared: louder is brighter
// on every wind instrument.
const oneLoudness music.Decibels = 6

// unlike says why two notes of one player cannot be compared; "" where they can.
func (h Heard) unlike(o Heard) Why {
	switch {
	case h.Through != o.Through:
		return OtherDevice
	case !h.Room.like(o.Room):
		return OtherRoom
	case math.Abs(float64(h.Level-o.Level)) > float64(oneLoudness):
		return OtherLoudness
	}
	return ""
}
