package synth

import (
	"math"
	"math/rand/v2"

	"earlychorus/core/audio"
	"earlychorus/core/music"
)

// Room is where a take is recorded, and with what. The zero Room adds nothing.
type Room struct {
	Seed   uint64
	Noise  music.Decibels // white noise, dB below full scale; 0 means none
	Hum    music.Decibels // mains hum, RMS below full scale; 0 means none
	HumHz  music.Hertz    // 0 means 50
	Echo   music.Seconds  // time for the echo to fall by 60 dB; 0 means none
	Hall   Hall           // another way to ring: dense, bright or dark
	Clicks []music.Seconds
	Click  music.Decibels // peak of a metronome's click; 0 means -6
	Bumps  []music.Seconds
	Device Device
}

// Device is a microphone and what its program does to the sound.
type Device struct {
	LowCut  music.Hertz    // what lies below is lost, as in telephones; 0 means nothing
	HighCut music.Hertz    // what lies above is lost; 0 means nothing
	Gain    music.Decibels // before the converter, which clips at full scale
	Riding  bool           // automatic gain: quiet stretches are slowly turned up
}

// Record returns the sound as the room's microphone takes it. sound is not
// changed. Its times are kept: the echo's direct sound comes at once.
func (r Room) Record(sound audio.Mono) audio.Mono {
	chance := rand.New(rand.NewPCG(r.Seed, 0x9003))
	out := audio.Mono{Rate: sound.Rate, Samples: append([]float64(nil), sound.Samples...)}
	rate := float64(sound.Rate)
	for _, at := range r.Clicks {
		addClick(out, at, r.Click)
	}
	if r.Echo > 0 {
		out.Samples = echoed(out.Samples, rate, float64(r.Echo), chance)
	}
	out = r.Hall.ring(out, chance)
	for _, at := range r.Bumps {
		addBump(out, at, chance)
	}
	r.addHum(out, chance)
	addNoise(out.Samples, r.Noise, chance)
	r.Device.take(out)
	return out
}

const (
	defaultClick = music.Decibels(-6)
	clickHz      = 1500
	clickLength  = 0.02
)

// addClick adds a metronome's click: a short, ringing tone.
func addClick(m audio.Mono, at music.Seconds, peak music.Decibels) {
	if peak == 0 {
		peak = defaultClick
	}
	rate := float64(m.Rate)
	for n := range int(clickLength * 4 * rate) {
		if k := int(float64(at)*rate) + n; k >= 0 && k < len(m.Samples) {
			t := float64(n) / rate
			m.Samples[k] += amplitude(peak) * math.Exp(-t/(clickLength/4)) * math.Sin(2*math.Pi*clickHz*t)
		}
	}
}

// addBump adds a knock against a stand or the microphone: low and dull.
func addBump(m audio.Mono, at music.Seconds, chance *rand.Rand) {
	rate := float64(m.Rate)
	f := 60 + 60*chance.Float64()
	for n := range int(0.25 * rate) {
		if k := int(float64(at)*rate) + n; k >= 0 && k < len(m.Samples) {
			t := float64(n) / rate
			m.Samples[k] += 0.25 * math.Exp(-t/0.03) * math.Sin(2*math.Pi*f*t)
		}
	}
}

// humHarmonics are the strengths of mains hum, from its fundamental up.
var humHarmonics = []float64{1, 0.6, 0.5, 0.25, 0.3, 0.12, 0.15}

func (r Room) addHum(m audio.Mono, chance *rand.Rand) {
	if r.Hum == 0 {
		return
	}
	hz := float64(r.HumHz)
	if hz == 0 {
		hz = 50
	}
	var energy float64
	for _, a := range humHarmonics {
		energy += a * a / 2
	}
	gain := amplitude(r.Hum) / math.Sqrt(energy)
	for k, a := range humHarmonics {
		phase, step := 2*math.Pi*chance.Float64(), 2*math.Pi*hz*float64(k+1)/float64(m.Rate)
		for n := range m.Samples {
			m.Samples[n] += gain * a * math.Sin(phase+step*float64(n))
		}
	}
}

// A room's echo: a few parallel combs that ring on, their delays without a
// common measure, behind early reflections.
var (
	combDelays  = []float64{0.0297, 0.0371, 0.0411, 0.0437, 0.0531, 0.0613} // seconds
	earlyDelays = []float64{0.0057, 0.0113, 0.0171, 0.0263}
)

const echoLevel = 0.35 // of the direct sound

func echoed(x []float64, rate, fall float64, chance *rand.Rand) []float64 {
	out := append([]float64(nil), x...)
	for _, d := range earlyDelays {
		delay, sign := int(d*rate), 1.
		if chance.Float64() < 0.5 {
			sign = -1
		}
		for n := delay; n < len(x); n++ {
			out[n] += sign * echoLevel / 2 * x[n-delay]
		}
	}
	for _, d := range combDelays {
		delay := int(d * rate)
		feedback := math.Pow(10, -3*d/fall)
		comb := make([]float64, len(x))
		var damped float64
		for n := delay; n < len(x); n++ {
			damped += 0.6 * (comb[n-delay] - damped) // walls swallow the top first
			comb[n] = x[n-delay] + feedback*damped
			out[n] += echoLevel / 3 * comb[n]
		}
	}
	return out
}

// take colours, rides and clips the sound in place.
func (d Device) take(m audio.Mono) {
	rate := float64(m.Rate)
	if d.LowCut > 0 {
		highPass(m.Samples, float64(d.LowCut)/rate)
		highPass(m.Samples, float64(d.LowCut)/rate)
	}
	if d.HighCut > 0 {
		lowPass(m.Samples, float64(d.HighCut)/rate)
		lowPass(m.Samples, float64(d.HighCut)/rate)
	}
	if d.Riding {
		ride(m.Samples, rate)
	}
	gain := amplitude(d.Gain)
	for n, x := range m.Samples {
		m.Samples[n] = max(-1, min(1, gain*x))
	}
}

func lowPass(x []float64, corner float64) {
	a, y := 1-math.Exp(-2*math.Pi*corner), 0.
	for n, v := range x {
		y += a * (v - y)
		x[n] = y
	}
}

func highPass(x []float64, corner float64) {
	a, y := 1-math.Exp(-2*math.Pi*corner), 0.
	for n, v := range x {
		y += a * (v - y)
		x[n] = v - y
	}
}

// ride holds the loudness near one level: down at once, up slowly.
func ride(x []float64, rate float64) {
	const wanted, most = 0.1, 8.
	power, gain := wanted*wanted, 1.
	for n, v := range x {
		power += (v*v - power) / (0.05 * rate)
		aim := min(most, wanted/math.Sqrt(power+1e-9))
		speed := 1 / (1.5 * rate)
		if aim < gain {
			speed = 1 / (0.02 * rate)
		}
		gain += speed * (aim - gain)
		x[n] = gain * v
	}
}

// Mixed returns a and b sounding together; b may be shorter.
func Mixed(a, b audio.Mono) audio.Mono {
	out := audio.Mono{Rate: a.Rate, Samples: append([]float64(nil), a.Samples...)}
	for n := range min(len(a.Samples), len(b.Samples)) {
		out.Samples[n] += b.Samples[n]
	}
	return out
}
