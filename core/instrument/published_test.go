package instrument_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Checks against published sources. The values are quoted from memory of them.

// ISO 16:1975, Acoustics — Standard tuning frequency: A in the treble staff is
// 440 Hz. The equal-tempered frequencies are those of Young, R. W. (1939),
// "Terminology for logarithmic frequency units", J. Acoust. Soc. Am. 11.
func TestEqualTemperamentAsPublished(t *testing.T) {
	for note, want := range map[music.MIDI]float64{
		21: 27.5, 33: 55, 46: 116.541, 48: 130.813, 58: 233.082, 60: 261.626, 64: 329.628, 69: 440,
		72: 523.251, 84: 1046.502,
	} {
		assert.InDelta(t, want, float64(note.Frequency(music.StandardA4)), 0.001, "MIDI %d", note)
	}
	assert.InDelta(t, 442./440, float64(music.MIDI(58).Frequency(442)/music.MIDI(58).Frequency(440)), 1e-9)
}

// Ellis, A. J. (1885), "On the Musical Scales of Various Nations", J. Soc. Arts
// 33, who introduced the cent: fifth 702, major third 386, natural seventh 969,
// the eleventh partial 551, to the nearest cent.
func TestTheHarmonicSeriesAsPublished(t *testing.T) {
	for n, want := range map[int]float64{
		3: 702 - 700, 5: 386 - 400, 7: 969 - 1000, 9: 204 - 200, 11: 551 - 600, 13: 841 - 800,
	} {
		assert.InDelta(t, want, float64(instrument.OfPartial(n)), 0.5, "partial %d", n)
	}
	for _, n := range []int{1, 2, 4, 8} {
		assert.InDelta(t, 0, float64(instrument.OfPartial(n)), 1e-9)
	}
}

// ISO 9613-1:1993, annex: c = 343.2·√(T/293.15) m/s, 343.2 at 20 °C.
func TestTheSpeedOfSoundAsPublished(t *testing.T) {
	for _, celsius := range []float64{0, 10, 20, 27, 37} {
		want := 343.2 * math.Sqrt((celsius+273.15)/293.15)
		assert.InDelta(t, want, instrument.SpeedOfSound(celsius), 0.15, "%v °C", celsius)
	}
	// From 15 to 25 °C a wind instrument rises by about 3 cents a degree.
	rise := 1200 * math.Log2(instrument.SpeedOfSound(25)/instrument.SpeedOfSound(15))
	assert.InDelta(t, 3, rise/10, 0.1)
}

// Backus, J. (1969), "The Acoustical Foundations of Music": a clarinet is a
// stopped cylinder, so its register key gives the third partial, a twelfth; a
// cone or an open tube gives the second, an octave.
func TestRegistersAsPublished(t *testing.T) {
	for _, i := range instrument.All() {
		for m := i.Beginner.From; m <= i.Beginner.To; m++ {
			upper, ok := i.RegisterPair(m)
			if !ok {
				continue
			}
			ratio := float64(upper.Frequency(440) / m.Frequency(440))
			if i.Family == instrument.Clarinets {
				assert.InDelta(t, 3, ratio, 0.01, i.Key)
			} else {
				assert.InDelta(t, 2, ratio, 1e-9, i.Key)
			}
		}
	}
}
