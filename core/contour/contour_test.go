package contour_test

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

func sine(f, seconds float64, rate int) audio.Mono {
	m := audio.Mono{Rate: rate, Samples: make([]float64, int(seconds*float64(rate)))}
	for n := range m.Samples {
		m.Samples[n] = 0.3 * math.Sin(2*math.Pi*f*float64(n)/float64(rate))
	}
	return m
}

func track(t testing.TB, e contour.Ear, m audio.Mono) contour.Contour {
	t.Helper()
	c, err := e.Track(context.Background(), m)
	require.NoError(t, err)
	return c
}

func ExampleEar_Track_flatA() {
	c, _ := contour.OpenEar.Track(context.Background(), sine(435, 1, 48000)) // an A played a little low
	heard := c.Frames[len(c.Frames)/2].Pitch
	fmt.Printf("%.0f Hz, %+.0f cents from A4\n", heard, music.Between(440, heard))
	// Output: 435 Hz, -20 cents from A4
}

func TestRatesAndPitchesOfPureTones(t *testing.T) {
	for _, rate := range []int{16000, 22050, 44100, 48000, 96000} {
		for _, f := range []float64{41.2, 58.27, 116.5, 233.1, 466.2, 932.3, 1760} {
			c := track(t, contour.OpenEar, sine(f, 0.6, rate))
			for _, frame := range c.Frames[15 : len(c.Frames)-15] {
				assert.InDelta(t, 0, float64(music.Between(music.Hertz(f), frame.Pitch)), 1, "%v Hz at %d", f, rate)
			}
		}
	}
}

// Every instrument's beginner range, exact pitches from the synthesiser: no
// frame more than 50 cents off, half of them within half a cent.
func TestEveryBeginnerNoteOfEveryInstrument(t *testing.T) {
	for _, i := range instrument.All() {
		ear := ear.For(i)
		var errors []float64
		for note := i.Beginner.From; note <= i.Beginner.To; note += 3 {
			sound, truth := play(note, synth.Player{
				Instrument: i,
				Offset:     7,
				Breath:     -40,
				Room:       -75,
			})
			c := track(t, ear, sound)
			from, to := contour.Index(truth.Onset+0.1), contour.Index(truth.Release-0.1)
			for _, frame := range c.Frames[from:to] {
				off := float64(music.Between(truth.Pitch, frame.Pitch))
				if !(math.Abs(off) <= 50) {
					t.Errorf("%s note %d heard at %.1f Hz instead of %.1f", i.Key, note, frame.Pitch, truth.Pitch)
					break
				}
				errors = append(errors, math.Abs(off))
			}
		}
		assert.Less(t, dsp.Median(errors), 0.5, i.Key)
	}
}

func play(note music.MIDI, p synth.Player) (audio.Mono, synth.Truth) {
	score := scores.Score{TempoBPM: 60, A4Hz: 440, Segments: []scores.Segment{
		{Phase: scores.Ready, Beats: 0.5},
		{
			Phase:     scores.Play,
			StartBeat: 0.5,
			Beats:     1,
			Target:    note,
		},
		{Phase: scores.Rest, StartBeat: 1.5, Beats: 0.5},
	}}
	sound, truths := p.Play(score, 48000)
	return sound, truths[0]
}

func TestSilenceAndNoiseHaveNoPitch(t *testing.T) {
	silent := audio.Mono{Rate: 48000, Samples: make([]float64, 48000)}
	noise := audio.Mono{Rate: 48000, Samples: make([]float64, 3*48000)}
	chance := rand.New(rand.NewPCG(3, 4))
	for n := range noise.Samples {
		noise.Samples[n] = 0.02 * chance.NormFloat64()
	}
	for name, m := range map[string]audio.Mono{"silence": silent, "noise": noise} {
		voiced := 0
		c := track(t, contour.OpenEar, m)
		for _, f := range c.Frames {
			if f.Voiced() {
				voiced++
			}
		}
		assert.LessOrEqual(t, voiced, len(c.Frames)/100, name)
	}
}

// A crack of 100 ms is followed, not bridged.
func TestShortCrackIsFollowed(t *testing.T) {
	clarinet, err := instrument.Get("clarinet")
	require.NoError(t, err)
	sound, truth := play(
		55,
		synth.Player{Instrument: clarinet, Cracks: []synth.Crack{{At: 0.4, Length: 0.1, Semitones: 19}}},
	)
	c := track(t, ear.For(clarinet), sound)
	high := 0
	for _, f := range c.Frames {
		if f.Pitch > 2*truth.Pitch {
			high++
		}
	}
	assert.InDelta(t, 10, high, 3)
}

func TestRefusesOtherRatesAndStops(t *testing.T) {
	_, err := contour.OpenEar.Track(context.Background(), sine(440, 1, 8000))
	assert.ErrorIs(t, err, contour.ErrRate)
	stopped, cancel := context.WithCancel(context.Background())
	cancel()
	_, err = contour.OpenEar.Track(stopped, sine(440, 1, 48000))
	assert.ErrorIs(t, err, context.Canceled)
	assert.Empty(t, track(t, contour.OpenEar, audio.Mono{Rate: 48000}).Frames)
}
