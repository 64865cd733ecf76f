package say

import (
	"math"

	"earlychorus/core/fmt"
	"earlychorus/core/music"
)

// FlatOrSharp says a distance in cents: "18 cents flat".
func FlatOrSharp(c music.Cents) string {
	n := math.Round(float64(c))
	switch {
	case n < 0:
		return fmt.Sprintf("%.0f %s flat", -n, plural(-n, "cent"))
	case n > 0:
		return fmt.Sprintf("%.0f %s sharp", n, plural(n, "cent"))
	}
	return "in tune"
}

// howFlat says the same as a child pictures it.
func howFlat(cents float64) string {
	way := "sharp"
	if cents < 0 {
		way, cents = "flat", -cents
	}
	switch {
	case cents < 20:
		return "a little " + way
	case cents < 45:
		return way
	}
	return "very " + way
}

// InTune says where a note lay as a child pictures it: within the band, or which way off.
func InTune(c, within music.Cents) string {
	if math.Abs(float64(c)) <= float64(within) {
		return "in tune"
	}
	return howFlat(float64(c))
}

func plural(n float64, word string) string {
	if n == 1 {
		return word
	}
	return word + "s"
}

func milliseconds(s float64) string { return fmt.Sprintf("%.0f ms", 1000*s) }

func lateOrEarly(s float64) string {
	ms := math.Round(s * 1000)
	if ms < 0 {
		return fmt.Sprintf("%.0f ms early", -ms)
	}
	return fmt.Sprintf("%.0f ms after the beat", ms)
}

// forAbout says a short time as one says it aloud: "for half a second".
func forAbout(s float64) string {
	switch {
	case s < 0.15:
		return "for a moment"
	case s < 0.29:
		return "for a quarter of a second"
	case s < 0.42:
		return "for a third of a second"
	case s < 0.75:
		return "for half a second"
	case s < 1.5:
		return "for a second"
	}
	return fmt.Sprintf("for %.0f seconds", s)
}

// Halves says beats to the half: "3 of 8 beats".
func Halves[N ~float64](beats N) string {
	n := math.Round(2*float64(beats)) / 2
	whole, half := math.Modf(n)
	if half == 0 {
		return fmt.Sprintf("%.0f", whole)
	}
	if whole == 0 {
		return "½"
	}
	return fmt.Sprintf("%.0f½", whole)
}

var intervalNames = map[int]string{
	1:  "a half step",
	2:  "a whole step",
	3:  "a minor third",
	4:  "a major third",
	5:  "a fourth",
	6:  "a tritone",
	7:  "a fifth",
	12: "an octave",
	19: "a twelfth",
	24: "two octaves",
}

// Interval says how far another note lies: "an octave up".
func Interval(semitones int) string {
	direction := "up"
	if semitones < 0 {
		direction, semitones = "down", -semitones
	}
	name, ok := intervalNames[semitones]
	if !ok {
		name = fmt.Sprintf("%d half steps", semitones)
	}
	return name + " " + direction
}
