package synth

import (
	"math"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// amplitudes returns the strengths of harmonics 1 to n of a note, scaled to a
// peak of about 1. The shapes are rough pictures of each family: what matters
// is where an ear can go wrong (a weak fundamental, missing even harmonics).
func amplitudes(family instrument.Family, f music.Hertz, n int) []float64 {
	a := make([]float64, n)
	for k := range a {
		h := float64(k + 1)
		hz := h * float64(f)
		switch family {
		case instrument.Flutes, instrument.Recorders:
			a[k] = math.Exp(-1.1 * (h - 1))
		case instrument.Clarinets:
			a[k] = math.Pow(h, -1.1)
			if k%2 == 1 && hz < 2000 {
				a[k] *= 0.08 // the tube, closed at one end, gives few even harmonics
			}
		case instrument.DoubleReeds:
			a[k] = resonance(hz, 1000, 700) + 0.15/h
		case instrument.Saxophones:
			a[k] = resonance(hz, 700, 900) + 0.3/h
		default:
			a[k] = resonance(hz, 800, 900) + 0.1/h // brass: weak fundamental at the bottom
		}
		a[k] *= math.Exp(-hz / 5000)
	}
	return a
}

func resonance(hz, centre, width float64) float64 {
	d := (hz - centre) / width
	return 1 / (1 + d*d)
}

const tableSize = 8192

// wavetable is one period of a sound, for interpolation.
type wavetable []float64

func newWavetable(family instrument.Family, f music.Hertz, rate int) wavetable {
	n := max(1, min(60, int(0.45*float64(rate)/float64(f))))
	a := amplitudes(family, f, n)
	t := make(wavetable, tableSize+1)
	for k, strength := range a {
		phase := 1.7 * float64(k*k) // spread, so that the sum has no tall peak
		for i := range t {
			t[i] += strength * math.Sin(2*math.Pi*float64(k+1)*float64(i)/tableSize+phase)
		}
	}
	var energy float64
	for _, v := range t[:tableSize] {
		energy += v * v
	}
	gain := 1 / math.Sqrt(energy/tableSize)
	for i := range t {
		t[i] *= gain
	}
	return t
}

// at returns the wave at a phase in periods, with RMS 1.
func (t wavetable) at(phase float64) float64 {
	x := (phase - math.Floor(phase)) * tableSize
	i := int(x)
	return t[i] + (x-float64(i))*(t[i+1]-t[i])
}
