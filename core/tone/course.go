package tone

import (
	"math"
	"slices"

	"earlychorus/core/dsp"
	"earlychorus/core/music"
	"earlychorus/core/progress"
)

// Turn is how one quality went over weeks.
type Turn struct {
	Quality Quality         `json:"quality" enum:"clearness,brightness,fullness"`
	Trend   *progress.Trend `json:"trend,omitempty" doc:"in usual spreads a week; absent where there is too little"`
}

// Course is how a player's tone went over weeks, on the microphone and in the room
// of the latest take.
type Course struct {
	Why   Why    `json:"why_not,omitempty" enum:"unheard,too-few,unknown-device,other-device,other-room,other-loudness"`
	Days  int    `json:"days" doc:"with takes that can be compared with each other"`
	Turns []Turn `json:"turns" nullable:"false"`
}

// CourseOf works out a player's course from notes of some weeks, oldest first.
func CourseOf(heard []Heard) Course {
	out := Course{Turns: []Turn{}}
	if len(heard) == 0 {
		out.Why = Unheard
		return out
	}
	latest := heard[len(heard)-1]
	if latest.Through == "" {
		out.Why = UnknownDevice
		return out
	}
	byNote := map[music.MIDI][]Heard{}
	kept := map[Why]int{}
	for _, h := range heard {
		level := h
		level.Level = latest.Level // each note has its own usual loudness: below
		why := latest.unlike(level)
		kept[why]++
		if why == "" {
			byNote[h.Note] = append(byNote[h.Note], h)
		}
	}
	if out.Days = daysOf(byNote); out.Days < progress.Fewest {
		out.Why = TooFew
		for _, why := range []Why{OtherDevice, OtherRoom} {
			if kept[why] > len(heard)/2 {
				out.Why = why
			}
		}
		return out
	}
	for _, q := range Qualities() {
		turn := Turn{Quality: q}
		points := daily(q, byNote)
		if t, ok := progress.TrendOf(points); ok {
			// Of three qualities and many players one seems to move by chance: what stays within
			// the usual spread is no change that anybody hears.
			t.Clear = t.Clear && math.Abs(t.PerWeek)*weeksOf(points) >= leastTurn
			turn.Trend = &t
		}
		out.Turns = append(out.Turns, turn)
	}
	return out
}

// leastTurn is how far a tone has to have gone, in usual spreads, to be told.
const leastTurn = 1.5

// weeksOf is from the first point to the last.
func weeksOf(points []progress.Point) float64 {
	first, last := points[0].Day, points[0].Day
	for _, p := range points {
		first, last = min(first, p.Day), max(last, p.Day)
	}
	return (last - first) / 7
}

func daysOf(byNote map[music.MIDI][]Heard) int {
	days := map[int]bool{}
	for _, list := range byNote {
		for _, h := range list {
			days[h.Day] = true
		}
	}
	return len(days)
}

// daily is a point a day: how far that day's notes lie from what each note usually is,
// at its usual loudness. Many notes of one day are one evening's practice.
func daily(q Quality, byNote map[music.MIDI][]Heard) []progress.Point {
	days := map[int][]float64{}
	for _, list := range byNote {
		list = usuallyLoud(list)
		if len(list) < progress.Fewest {
			continue
		}
		values := make([]float64, len(list))
		for k, h := range list {
			values[k] = h.Colour.of(q)
		}
		for k, h := range list {
			days[h.Day] = append(days[h.Day], inSpreads(q, values[k], values))
		}
	}
	var out []progress.Point
	for day, gaps := range days {
		out = append(out, progress.Point{Day: float64(day), Value: dsp.Median(gaps)})
	}
	return out
}

// usuallyLoud leaves out what was much louder or softer than usual.
func usuallyLoud(list []Heard) []Heard {
	levels := make([]float64, len(list))
	for k, h := range list {
		levels[k] = float64(h.Level)
	}
	usual := music.Decibels(dsp.Median(levels))
	return slices.DeleteFunc(slices.Clone(list), func(h Heard) bool {
		return max(h.Level-usual, usual-h.Level) > oneLoudness/2
	})
}
