package explain

import (
	"math"

	"earlychorus/core/music"
)

// Costs of the accounts. They say how beginners fail: staying on the old note is
// commoner than silence, another partial commoner than another fingering, and a
// half step weighs as much as being wrong (common practice, no published source;
// settled on half of the lessons of benches/lessons).
var costOf = map[Kind]float64{
	Played:         0,
	OtherPartial:   0.6,
	OtherFingering: 0.9,
	OtherNote:      1.5,
	HeldOver:       0.4,
	NotTongued:     0.4,
	LeftOut:        0.9,
	NeverCame:      0.95,
}

const (
	// costOfShift is what a whole part off alike costs, once: less than two notes.
	costOfShift = 1.4
	// costOfStrange is a story so odd that all may have been off alike.
	costOfStrange = 2 * costOfShift
	// A sound that belongs to no target costs by its length and its loudness.
	costOfStray     = 0.1
	costOfLongStray = 1.1
	strayTime       = music.Seconds(0.4)
	aNote           = music.Seconds(0.5) // longer than a syllable
	softStray       = 0.35               // of it, when it is as soft as softBelow
	softBelow       = music.Decibels(18)
	stepSofter      = music.Decibels(4) // more, for each step of dynamics that it is asked softer
	// A visit to another pitch inside a note, a silence inside it, a second tongue.
	costOfVisit     = 0.15
	costOfLongVisit = 0.5
	visitTime       = music.Seconds(0.6)
	costOfBefore    = 0.4 // more, where it sounds before the note and is no partial of it
	costOfGap       = 0.25
	costOfTongue    = 0.5
	costOfHeadless  = 0.5 // a note without the sound that goes over into it
	// Lateness: against the note before, and against the beat.
	beatsForFree  = 0.2
	costPerBeat   = 0.5
	mostForBeats  = 3.
	costOfBeatOff = 0.1
	mostForOff    = 0.5
	// A note that is late, just where it is asked for again.
	costOfOthersBeat = 0.5
	// A start that little tells; what sounds like a voice or a click; what is softer
	// by far than the rest, where nothing asks for it.
	costOfDoubt = 0.38
	costOfAlien = 1.
	costOfSoft  = 0.8
	// A dB below softBelow, and all of it together: a ring 30 dB down is no note.
	costOfSofter = 0.05
	mostForSoft  = 1.6
	// A sound too short to be the note it stands for.
	costOfScrap = 0.6
	scrapShare  = 0.15
	scrapTime   = music.Seconds(0.09)
)

// stray is what sound n costs that belongs to no target: little where it is softer by far than
// the loudest, or than the note it goes over into.
func (v *solver) stray(n int) float64 {
	s, loud := v.sounds[n], v.loud
	share := math.Min(1, float64(s.length()/strayTime))
	if s.Alien {
		return costOfStray
	}
	if n+1 < len(v.sounds) {
		if next := v.sounds[n+1]; next.Onset-s.Release < joined && next.length() >= aNote && !next.Alien {
			loud = next.Level
		}
	}
	soft := math.Max(0, math.Min(1, float64((loud-s.Level)/softBelow)))
	return (costOfStray + costOfLongStray*share) * (1 - (1-softStray)*soft)
}

// visit is what another pitch costs inside a note.
func visit(s Sound) float64 {
	return costOfVisit + costOfLongVisit*math.Min(1, float64(s.length()/visitTime))
}

// lateness is what a change of lateness costs, in beats.
func lateness(beats float64) float64 {
	return math.Min(mostForBeats, costPerBeat*math.Max(0, math.Abs(beats)-beatsForFree))
}

// off is what lying off the beat costs by itself.
func off(beats float64) float64 {
	return math.Min(mostForOff, costOfBeatOff*math.Max(0, math.Abs(beats)-beatsForFree))
}
