package ear

import (
	"slices"

	"earlychorus/core/scores"
)

// Trust says, for each group of measures, why it cannot be relied on; "" where
// it can.
type Trust struct {
	Pitch string `json:"pitch,omitempty"`
	Level string `json:"level,omitempty" doc:"loudness, swell, tail, attack"`
	Tone  string `json:"tone,omitempty"`
	Time  string `json:"time,omitempty" doc:"response, hold, gaps"`
}

const (
	leastConfident = 0.75
	noisyForTone   = 25 // dB above the room: less, and the room's noise is in the tone
)

// judgeTrust decides what of a note can be relied on.
func (n *Note) judgeTrust(r Recording, sounds []Sound) {
	if n.WhyNot == "" && n.Confidence < leastConfident && n.Slide == nil {
		n.WhyNot = "the pitch is not clear enough"
	}
	n.Trusted = n.WhyNot == ""
	n.Distrust = Trust{Pitch: n.WhyNot}
	has := func(f Fault) bool { return slices.Contains(r.Faults, f) }
	switch {
	case has(GainRiding):
		n.Distrust.Level = "the device seems to turn the volume up and down by itself"
	case has(Clipped):
		n.Distrust.Level = "the microphone was overloaded"
	}
	switch {
	case has(Clipped):
		n.Distrust.Tone = "the microphone was overloaded"
	case r.SNR < noisyForTone:
		n.Distrust.Tone = "the room is too loud to judge the tone"
	case n.Phase == scores.Sing:
		n.Distrust.Tone = "a voice, not the instrument"
	}
	if has(Noisy) {
		n.Distrust.Time = "the room is too loud to hear where notes begin and end"
	}
	for _, s := range sounds {
		if s.Kind == OtherPlayer && s.Note >= 0 && s.At == n.Onset {
			n.Distrust.Tone, n.Distrust.Level = "another player sounds with it", "another player sounds with it"
		}
	}
}
