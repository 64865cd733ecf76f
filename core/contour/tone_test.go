package contour_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/music"
)

const toneSeconds = 0.6

// harmonics adds up the harmonics of a pitch by their amplitudes, the first of
// which is the fundamental's, with white noise of the given deviation under them.
func harmonics(rate int, pitch float64, noise float64, amplitudes ...float64) audio.Mono {
	chance := rand.New(rand.NewPCG(7, 7))
	samples := make([]float64, int(toneSeconds*float64(rate)))
	for n := range samples {
		for h, a := range amplitudes {
			samples[n] += a * math.Sin(2*math.Pi*pitch*float64(h+1)*float64(n)/float64(rate)+float64(h*h))
		}
		samples[n] += noise * chance.NormFloat64()
	}
	return audio.Mono{Samples: samples, Rate: rate}
}

// falling are amplitudes that fall with the harmonic's number to a power.
func falling(count int, power float64) []float64 {
	out := make([]float64, count)
	for h := range out {
		out[h] = 0.1 * math.Pow(float64(h+1), -power)
	}
	return out
}

func toneOf(m audio.Mono, pitch float64) contour.Tone {
	return contour.NewToneEar(m).At(music.Hertz(pitch), toneSeconds/2)
}

// Ten harmonics of one strength: their centre is the mean of 1 to 10, they do not
// slope, all are heard, and the five odd ones are as strong as the five even ones.
func TestToneOfEqualHarmonics(t *testing.T) {
	for _, rate := range []int{44100, 48000} {
		tone := toneOf(harmonics(rate, 220, 0, falling(10, 0)...), 220)
		assert.InDelta(t, 5.5, tone.Brightness, 0.02)
		assert.InDelta(t, 0, tone.Tilt, 0.1)
		assert.Equal(t, 10, tone.Fullness)
		assert.InDelta(t, 0, float64(tone.OddEven), 0.05)
		assert.Greater(t, float64(tone.Clearness), 40.)
		assert.Less(t, float64(tone.Breath), -40.)
	}
}

// Amplitudes in 1/h are a sawtooth's, and fall by 6.02 dB an octave; in 1/h², a
// triangle's slope, by 12.04.
func TestTiltOfWavesKnownFromTheirSeries(t *testing.T) {
	assert.InDelta(t, -6.02, toneOf(harmonics(48000, 220, 0, falling(12, 1)...), 220).Tilt, 0.1)
	assert.InDelta(t, -12.04, toneOf(harmonics(48000, 220, 0, falling(5, 2)...), 220).Tilt, 0.1)
	// Power in 1/h² over twelve harmonics: Σ 1/h ÷ Σ 1/h² = 3.1032 ÷ 1.5650.
	assert.InDelta(t, 1.983, toneOf(harmonics(48000, 220, 0, falling(12, 1)...), 220).Brightness, 0.01)
	// 30 dB below the first lies the 31st of 1/h, and between the 5th and 6th of 1/h².
	assert.Equal(t, 5, toneOf(harmonics(48000, 220, 0, falling(9, 2)...), 220).Fullness)
}

// A stopped tube gives odd harmonics alone.
func TestOddHarmonicsAlone(t *testing.T) {
	tone := toneOf(harmonics(48000, 150, 0, 0.1, 0, 0.08, 0, 0.06, 0, 0.04), 150)
	assert.Greater(t, float64(tone.OddEven), 30.)
	tone = toneOf(harmonics(48000, 150, 0, 0, 0.1, 0, 0.1), 150)
	assert.Less(t, float64(tone.OddEven), -30.)
}

// White noise of deviation σ at rate R has the power σ²·2B/R in a band of B: here
// 15 harmonics of 440 Hz, the most that fit.
func TestClearnessIsTheNoiseThatWasAdded(t *testing.T) {
	for _, noise := range []float64{0.003, 0.01, 0.03} {
		tone := toneOf(harmonics(48000, 440, noise, falling(6, 1)...), 440)
		var power float64
		for _, a := range falling(6, 1) {
			power += a * a / 2
		}
		want := 10 * math.Log10(power/(noise*noise*2*15*440/48000))
		assert.InDelta(t, want, float64(tone.Clearness), 2.5, "σ = %v", noise)
		assert.InDelta(t, -want+10*math.Log10(11./15), float64(tone.Breath), 2.5, "harmonics 5 to 15 lie above 2 kHz")
	}
}

// How loud a tone is says nothing about its colour.
func TestToneDoesNotDependOnLoudness(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pitch := rapid.Float64Range(80, 900).Draw(t, "pitch")
		gain := rapid.Float64Range(0.01, 5).Draw(t, "gain")
		loud := falling(6, 1)
		for n := range loud {
			loud[n] *= gain
		}
		a, b := toneOf(
			harmonics(48000, pitch, 0, falling(6, 1)...),
			pitch,
		), toneOf(
			harmonics(48000, pitch, 0, loud...),
			pitch,
		)
		assert.InDelta(t, a.Brightness, b.Brightness, 1e-6)
		assert.InDelta(t, a.Tilt, b.Tilt, 1e-6)
		assert.Equal(t, a.Fullness, b.Fullness)
	})
}

func TestThereIsNoToneInSilence(t *testing.T) {
	silent := audio.Mono{Samples: make([]float64, 48000), Rate: 48000}
	assert.Zero(t, contour.NewToneEar(silent).At(440, 0.5))
	assert.Zero(t, contour.NewToneEar(silent).At(9000, 0.5), "above what is listened to")
	assert.Zero(t, contour.NewToneEar(audio.Mono{Rate: 48000}).At(440, 0.5))
}

// r/(1−r) of a half is one, which is 0 dB; of ten elevenths, ten; and nothing is
// told beyond ±40 dB. Source: P. Boersma, IFA Proceedings 17 (1993), pp. 97–110,
// from memory.
func TestHarmonicsToNoiseAsPublished(t *testing.T) {
	assert.InDelta(t, 0, float64(contour.HarmonicsToNoise(0.5)), 1e-9)
	assert.InDelta(t, 10, float64(contour.HarmonicsToNoise(10./11)), 1e-9)
	assert.InDelta(t, 20, float64(contour.HarmonicsToNoise(0.99)), 0.05, "99 % of the energy is periodic")
	assert.InDelta(t, 40, float64(contour.HarmonicsToNoise(1)), 1e-3)
	assert.InDelta(t, -40, float64(contour.HarmonicsToNoise(0)), 1e-3)
}

// burst is silence, then a sine of the given amplitude from one moment to another.
func burst(amplitude float64, from, to music.Seconds) audio.Mono {
	m := audio.Mono{Samples: make([]float64, 48000), Rate: 48000}
	for n := range m.Samples {
		if at := music.Seconds(n) / 48000; at >= from && at < to {
			m.Samples[n] = amplitude * math.Sin(2*math.Pi*1000*float64(n)/48000)
		}
	}
	return m
}

// A full-scale sine lies 3.01 dB below full scale, half of it 6.02 dB lower; a
// window half filled, 3.01 dB lower again.
func TestEnvelopeIsTheRootMeanSquare(t *testing.T) {
	e := contour.NewEnvelope(burst(1, 0.2, 0.8))
	assert.InDelta(t, -3.01, float64(e.Level(0.5, 0.02)), 0.01)
	assert.InDelta(t, -6.02, float64(e.Level(0.2, 0.02)), 0.02)
	assert.InDelta(t, -9.03, float64(contour.NewEnvelope(burst(0.5, 0.2, 0.8)).Level(0.5, 0.02)), 0.01)
	assert.Equal(t, contour.Silence, e.Level(0.1, 0.02))
	for _, outside := range []music.Seconds{-1, 2} {
		assert.Equal(t, contour.Silence, e.Level(outside, 0.02))
	}
}

// Where a note starts and stops is found to two milliseconds, whatever was guessed.
func TestCrossingFindsTheStartAndTheEnd(t *testing.T) {
	e := contour.NewEnvelope(burst(0.5, 0.3, 0.7))
	half := music.Decibels(-9.03 - 3.01) // half the window's energy: its middle is at the edge
	for _, guess := range []music.Seconds{0.26, 0.3, 0.34} {
		assert.InDelta(t, 0.3, float64(e.Crossing(guess, 0.06, 0.01, half, true)), 0.002)
		assert.InDelta(t, 0.7, float64(e.Crossing(guess+0.4, 0.06, 0.01, half, false)), 0.002)
	}
	assert.InDelta(t, 0.5, float64(e.Crossing(0.5, 0.06, 0.01, half, true)), 0, "nothing there: the guess stands")
	assert.InDelta(t, 0.3, float64(e.Crossing(0.3, 0.06, 0.01, half, false)), 0, "the other way is not this one")
}
