package ear

import (
	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/fmt"
	"earlychorus/core/music"
)

// A microphone is checked with a few seconds of quiet, one note, and quiet
// again: QuietBefore, PlayFor and QuietAfter say how long each.
const (
	QuietBefore music.Seconds = 2
	PlayFor     music.Seconds = 3
	QuietAfter  music.Seconds = 2
)

// MicrophoneCheck is what a check found out about a microphone and its room.
type MicrophoneCheck struct {
	Good    bool           `json:"good"`
	Room    music.Decibels `json:"room_db" doc:"loudness of the quiet"`
	Note    music.Decibels `json:"note_db" doc:"loudness of the note"`
	Above   music.Decibels `json:"above_db" doc:"the note above the room"`
	Clipped bool           `json:"clipped"`
	Riding  bool           `json:"riding" doc:"the device seems to turn the volume up and down by itself"`
	Heard   bool           `json:"heard" doc:"a note was heard at all"`
	Says    []string       `json:"says" doc:"what to do about it; one line where all is well" nullable:"false"`
}

// gainStep is how much louder the quiet after a note may be than the quiet
// before it, before the device is suspected (common practice, no published
// source).
const gainStep music.Decibels = 8

// CheckMicrophone listens to a check. Errors: asker's; contour.ErrRate.
func CheckMicrophone(asker audio.Asker, sound audio.Mono) (MicrophoneCheck, error) {
	c, clipped, err := listenOpenly(asker, sound)
	if err != nil {
		return MicrophoneCheck{}, err
	}
	r := listenToRecording(clipped, c)
	out := MicrophoneCheck{
		Room:  r.NoiseFloor,
		Above: r.SNR,
		Note:  r.NoiseFloor + r.SNR,
		Says:  []string{},
	}
	for _, f := range c.Frames {
		out.Heard = out.Heard || f.Voiced()
	}
	before, after := quietest(c, 0, QuietBefore), quietest(c, QuietBefore+PlayFor, QuietBefore+PlayFor+QuietAfter)
	out.Riding = out.Heard && after-before > gainStep
	for _, f := range r.Faults {
		switch f {
		case NoSound:
			out.Says = append(
				out.Says,
				"The microphone gives no sound. Choose another one, or see whether it is switched off.",
			)
		case TooQuiet:
			out.Says = append(out.Says, "You are too far away. Come within an arm's length of the microphone.")
		case Noisy:
			out.Says = append(
				out.Says,
				fmt.Sprintf(
					"The room is loud: your note is only %.0f dB above it. Find a quieter place, or come closer.",
					float64(r.SNR),
				),
			)
		case Clipped:
			out.Says = append(
				out.Says,
				"The sound is too loud for the microphone. Move back a step, or point the bell past it.",
			)
		case GainRiding:
			out.Riding = true
		}
	}
	if out.Riding {
		out.Says = append(
			out.Says,
			"The device seems to turn its volume up and down by itself. Switch \"automatic gain\" or \"enhance "+
				"voice\" off in its sound settings; until then how even your sound is cannot be told.",
		)
	}
	if !out.Heard && len(out.Says) == 0 {
		out.Says = append(out.Says, "No note was heard. Play or sing one when it says so.")
	}
	if out.Good = len(out.Says) == 0; out.Good {
		out.Says = append(out.Says, fmt.Sprintf("All is well: your note is %.0f dB above the room.", float64(r.SNR)))
	}
	return out, nil
}

// listenOpenly listens to a sound of nobody knows whom.
func listenOpenly(asker audio.Asker, sound audio.Mono) (c contour.Contour, clipped float64, err error) {
	t, err := contour.OpenEar.Open(sound.Rate)
	if err != nil {
		return c, 0, err
	}
	t.Hear(sound.Samples)
	t.End()
	c, err = t.Track(asker)
	return c, t.ClippedRatio(), err
}

// quietest returns the median level of the quieter half of a stretch, so that a
// late note does not count as the room.
func quietest(c contour.Contour, from, to music.Seconds) music.Decibels {
	var levels []float64
	for n, f := range c.Frames {
		if at := contour.Time(n); at >= from && at < to && !f.Voiced() {
			levels = append(levels, float64(f.Level))
		}
	}
	if len(levels) == 0 {
		return contour.Silence
	}
	return music.Decibels(dsp.Quantile(levels, 0.25))
}
