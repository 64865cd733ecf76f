package synth

import (
	"math"

	"earlychorus/core/audio"
	"earlychorus/core/scores"
)

// Others returns everything of the playing but the instrument's and the voice's
// own notes: buzzes, air, squeaks and the room's noise. A recorded instrument is
// laid over it.
func (p Playing) Others(rate int) audio.Mono {
	rest := Playing{Score: p.Score, Player: p.Player}
	rest.Score.Segments = append([]scores.Segment(nil), p.Score.Segments...)
	for n := range rest.Score.Segments {
		switch rest.Score.Segments[n].Phase {
		case scores.Play, scores.Sing:
			rest.Score.Segments[n].Phase = scores.Rest
		}
	}
	sound, _ := rest.Player.Play(rest.Score, rate)
	for n, t := range p.Score.Targets() {
		on := p.Player.OnNote(n)
		for _, c := range on.Chirps {
			c.At += p.Score.TempoBPM.Seconds(t.StartBeat) + on.Late
			c.addTo(sound, amplitude(on.level()))
		}
	}
	return sound
}

func (c Chirp) addTo(m audio.Mono, gain float64) {
	rate := float64(m.Rate)
	phase, from := 0., int(float64(c.At)*rate)
	for n := range int(float64(c.Length) * rate) {
		t := float64(n) / rate
		phase += c.pitch(t) / rate
		if k := from + n; k >= 0 && k < len(m.Samples) {
			m.Samples[k] += gain * c.loudness(t) * math.Sin(2*math.Pi*phase)
		}
	}
}

// pitch is a squeak's, in Hz, so many seconds into it: it rises through the high
// partials of the reed.
func (c Chirp) pitch(t float64) float64 { return 1900 + 900*t/float64(c.Length) }

// loudness is a squeak's against its note, as an amplitude.
func (c Chirp) loudness(t float64) float64 {
	return 1.2 * min(rise(t/0.01), rise((float64(c.Length)-t)/0.01))
}
