package synth

import (
	"math"
	"sync"

	"earlychorus/core/dsp"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// colour is how an instrument's harmonics lie. The figures are rough pictures
// of each instrument (from memory): what matters is where an ear can go wrong,
// a weak fundamental at the bottom of brass and bassoon, missing even
// harmonics, a fundamental nearly alone in a flute.
type colour struct {
	formant, width float64 // Hz: the resonance that lifts harmonics
	floor          float64 // strength of the first harmonic outside it
	tilt           float64 // dB per octave above the formant, at mezzoforte
	evens          float64 // strength of even harmonics below evensFrom
	evensFrom      float64 // Hz
}

var familyColours = map[instrument.Family]colour{
	instrument.Flutes: {
		formant: 600,
		width:   900,
		floor:   1,
		tilt:    13,
		evens:   1,
	},
	instrument.Recorders: {
		formant:   700,
		width:     900,
		floor:     1,
		tilt:      18,
		evens:     0.5,
		evensFrom: 3000,
	},
	instrument.Clarinets: {
		formant:   400,
		width:     900,
		floor:     0.9,
		tilt:      8,
		evens:     0.06,
		evensFrom: 1800,
	},
	instrument.DoubleReeds: {
		formant: 1100,
		width:   600,
		floor:   0.25,
		tilt:    9,
		evens:   1,
	},
	instrument.Saxophones: {
		formant: 700,
		width:   700,
		floor:   0.45,
		tilt:    8,
		evens:   1,
	},
	instrument.Brass: {
		formant: 900,
		width:   800,
		floor:   0.12,
		tilt:    10,
		evens:   1,
	},
}

var ownColours = map[string]colour{
	"bassoon": {
		formant: 480,
		width:   280,
		floor:   0.12,
		tilt:    9,
		evens:   1,
	},
	"bass-clarinet": {
		formant:   250,
		width:     500,
		floor:     0.9,
		tilt:      8,
		evens:     0.1,
		evensFrom: 900,
	},
	"bari-sax": {
		formant: 400,
		width:   400,
		floor:   0.35,
		tilt:    8,
		evens:   1,
	},
	"horn": {
		formant: 420,
		width:   300,
		floor:   0.2,
		tilt:    12,
		evens:   1,
	},
	"trombone": {
		formant: 520,
		width:   400,
		floor:   0.15,
		tilt:    10,
		evens:   1,
	},
	"euphonium": {
		formant: 420,
		width:   320,
		floor:   0.2,
		tilt:    13,
		evens:   1,
	},
	"euphonium-tc": {
		formant: 420,
		width:   320,
		floor:   0.2,
		tilt:    13,
		evens:   1,
	},
	"tuba": {
		formant: 240,
		width:   200,
		floor:   0.1,
		tilt:    12,
		evens:   1,
	},
}

// Lips alone buzz like a rough saw; a child's "ah" has its lowest formant here.
var (
	buzzColour = colour{
		formant: 800,
		width:   900,
		floor:   0.6,
		tilt:    6,
		evens:   1,
	}
	voiceColour = colour{
		formant: 800,
		width:   350,
		floor:   0.5,
		tilt:    12,
		evens:   1,
	}
)

func colourIn(phase scores.Phase, i instrument.Instrument) colour {
	switch phase {
	case scores.Buzz:
		return buzzColour
	case scores.Sing:
		return voiceColour
	}
	if c, ok := ownColours[i.Key]; ok {
		return c
	}
	return familyColours[i.Family]
}

// softer is how much steeper the harmonics fall in a very soft note, dB per
// octave above the formant; a very loud one is as much flatter.
const softer = 5

// harmonics returns the strengths of harmonics 1 to n of a note. brightness
// runs from 0, very soft, to 1, very loud.
func (c colour) harmonics(f music.Hertz, n int, brightness float64) []float64 {
	a := make([]float64, n)
	for k := range a {
		h := float64(k + 1)
		hz := h * float64(f)
		d := (hz - c.formant) / c.width
		a[k] = 1/(1+d*d) + c.floor*math.Pow(h, -1.2)
		if over := math.Log2(hz / c.formant); over > 0 {
			a[k] *= math.Pow(10, -(c.tilt+softer*(1-2*brightness))*over/20)
		}
		if k%2 == 1 && hz < c.evensFrom {
			a[k] *= c.evens
		}
	}
	return a
}

// attackTime is how long a note takes to speak: longer for longer tubes.
func attackTime(i instrument.Instrument, f music.Hertz) music.Seconds {
	base := music.Seconds(0.025)
	switch i.Family {
	case instrument.Flutes, instrument.Recorders:
		base = 0.04
	case instrument.DoubleReeds:
		base = 0.015
	}
	return base + 1.5/music.Seconds(f)
}

const (
	tableSize     = 4096
	mostHarmonics = 80
	middle        = 0.5 // the brightness of a mezzoforte
)

// tone is a note's sound at two brightnesses, to be mixed: very soft and very
// loud. Phases agree, so that mixing cancels nothing.
type tone struct{ soft, loud []float64 }

func newTone(c colour, f music.Hertz, rate float64) tone {
	n := max(1, min(mostHarmonics, int(0.45*rate/float64(f))))
	soft, loud := c.harmonics(f, n, 0), c.harmonics(f, n, 1)
	// A mezzoforte has RMS 1; the two ends keep their places against it.
	var energy float64
	for k := range soft {
		m := (1-middle)*soft[k] + middle*loud[k]
		energy += m * m / 2
	}
	gain := 1 / math.Sqrt(energy)
	return tone{period(soft, gain), period(loud, gain)}
}

// period returns one period of the harmonics, with its first sample repeated
// at the end for interpolation.
func period(strengths []float64, gain float64) []float64 {
	re, im := make([]float64, tableSize), make([]float64, tableSize)
	for k, a := range strengths {
		phase := 1.7 * float64(k*k) // spread, so that the sum has no tall peak
		re[k+1], im[k+1] = gain*a*math.Cos(phase), -gain*a*math.Sin(phase)
	}
	fft := tables()
	fft.Transform(re, im)
	table := make([]float64, tableSize+1)
	for n := range table {
		table[n] = re[fft.Place(n%tableSize)]
	}
	return table
}

var tables = sync.OnceValue(func() *dsp.FFT { return dsp.NewFFT(tableSize) })

// at returns the wave at a phase in periods; RMS 1 at the middle brightness.
func (t tone) at(phase, brightness float64) float64 {
	x := (phase - math.Floor(phase)) * tableSize
	i := int(x)
	w := x - float64(i)
	soft := t.soft[i] + w*(t.soft[i+1]-t.soft[i])
	loud := t.loud[i] + w*(t.loud[i+1]-t.loud[i])
	return soft + brightness*(loud-soft)
}

// partialInterval returns where the partial nearest to a note so many
// semitones away really lies: the pure intervals of a harmonic series.
func partialInterval(semitones int) music.Cents {
	for _, ratio := range []float64{1, 6. / 5, 5. / 4, 4. / 3, 3. / 2, 5. / 3, 7. / 4, 2, 5. / 2, 3, 4, 5} {
		c := 1200 * math.Log2(ratio)
		if math.Round(c/100) == math.Abs(float64(semitones)) {
			return music.Cents(math.Copysign(c, float64(semitones)))
		}
	}
	return music.Cents(100 * semitones)
}
