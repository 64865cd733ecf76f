package measure

import (
	"fmt"
	"math"

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

func plural(n float64, word string) string {
	if n == 1 {
		return word
	}
	return word + "s"
}

func lateOrEarly(s music.Seconds) string {
	ms := math.Round(float64(s) * 1000)
	if ms < 0 {
		return fmt.Sprintf("%.0f ms early", -ms)
	}
	return fmt.Sprintf("%.0f ms after the beat", ms)
}

func milliseconds(s music.Seconds) string { return fmt.Sprintf("%.0f ms", 1000*float64(s)) }

var intervalNames = map[int]string{
	1: "a half step", 2: "a whole step", 3: "a minor third", 4: "a major third", 5: "a fourth", 6: "a tritone",
	7: "a fifth", 12: "an octave", 19: "a twelfth", 24: "two octaves",
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
