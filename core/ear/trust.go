package ear

import (
	"slices"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Doubt is why something cannot be relied on; "" where it can.
type Doubt string

const (
	Unheard     Doubt = "unheard"      // nothing sounded
	TooShort    Doubt = "too-short"    // to measure
	Unclear     Doubt = "unclear"      // the pitch
	Riding      Doubt = "riding"       // the device turns the volume up and down by itself
	Overloaded  Doubt = "overloaded"   // the microphone
	LoudRoom    Doubt = "loud-room"    // for what is asked of it
	SungNote    Doubt = "sung"         // a voice, not the instrument
	WithAnother Doubt = "with-another" // another player sounds with it
)

// Trust says, for each group of measures, why it cannot be relied on; "" where
// it can.
type Trust struct {
	Pitch Doubt `json:"pitch,omitempty"`
	Level Doubt `json:"level,omitempty" doc:"loudness, swell, tail, attack"`
	Tone  Doubt `json:"tone,omitempty"`
	Time  Doubt `json:"time,omitempty" doc:"response, hold, gaps"`
}

const (
	leastConfident = 0.75
	// harmlessBelow is how far under a note another player changes its loudness by no more
	// than half a dB.
	harmlessBelow music.Decibels = 9
	// talksBefore is how long before a note somebody who talks up to it is last heard.
	talksBefore                 = music.Seconds(0.3)
	noisyForTone music.Decibels = 25 // dB above the room: less, and the room's noise is in the tone
)

// judgeTrust decides what of a note can be relied on.
func (n *Note) judgeTrust(r Recording, sounds []Sound) {
	if n.WhyNot == "" && n.Confidence < leastConfident && n.Slide == nil {
		n.WhyNot = Unclear
	}
	n.Trusted = n.WhyNot == ""
	n.Distrust = Trust{Pitch: n.WhyNot}
	has := func(f Fault) bool { return slices.Contains(r.Faults, f) }
	switch {
	case has(GainRiding):
		n.Distrust.Level = Riding
	case has(Clipped):
		n.Distrust.Level = Overloaded
	}
	switch {
	case has(Clipped):
		n.Distrust.Tone = Overloaded
	case r.SNR < noisyForTone:
		n.Distrust.Tone = LoudRoom
	case n.Phase == scores.Sing:
		n.Distrust.Tone = SungNote
	}
	if has(Noisy) {
		n.Distrust.Time = LoudRoom
	}
	for _, s := range sounds {
		// Who talks just then talks into the first moment of the note.
		if s.Kind == Voice && s.At < n.Onset+scoopTime && s.At+s.Duration > n.Onset-talksBefore {
			n.Scoop = 0
		}
		if s.Kind == OtherPlayer && s.Note >= 0 && s.At == n.Onset {
			n.Distrust.Tone = WithAnother
			if s.Below < harmlessBelow && n.Distrust.Level == "" {
				n.Distrust.Level = WithAnother
			}
		}
	}
}
