package synth

import (
	"math"
	"math/rand/v2"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// leg is one note of a phrase: from when to when, where its pitch goes, and how
// loud it is written, in steps from mezzoforte.
type leg struct {
	from, to       float64 // seconds
	pitch, glideTo music.Hertz
	above, glides  music.Cents // over the first leg's pitch; from there to where it goes
	loud, loudTo   float64
	pulses         float64 // a second
	tone           tone
}

// voice is a phrase being played, sample by sample.
type voice struct {
	player  Player
	legs    []leg
	pitch   music.Hertz // of the first leg
	length  float64     // seconds
	dt      float64
	gain    float64
	breath  float64 // against the tone
	jolt    float64 // of the jitter, a sample
	chance  *rand.Rand
	cracks  []float64 // where each crack goes, against the note it is in
	cracked []tone    // and how it sounds there
	below   []float64 // where each undertone lies
	under   []tone    // and how it sounds

	phase      float64
	underPhase []float64
	chirpPhase float64
	waverPhase float64
	wander     float64 // cents, the jitter's
	air        hiss
	slow       slow
	sounding   music.Hertz
	breathes   bool // it begins with the breath alone
}

const (
	releaseTime = 0.06
	edgeTime    = 0.008 // a gap's edges
	crackHiss   = 0.012 // the transient of a jump
	scoopTime   = 0.05  // time constant
	wanderTime  = 0.15  // time constant of the jitter
	slurTime    = 0.03  // a change of note without the tongue
	stepLevel   = 4.    // dB from one written dynamic to the next
	pulseDepth  = 0.8   // steps of loudness either way
	stepBright  = 0.16  // and what it does to the brightness
)

func newVoice(p Player, phase scores.Phase, legs []leg, length, rate float64, chance *rand.Rand) *voice {
	c := colourIn(phase, p.Instrument)
	v := &voice{
		player:     p,
		legs:       legs,
		pitch:      legs[0].pitch,
		length:     length,
		dt:         1 / rate,
		gain:       amplitude(p.level()),
		breath:     amplitude(p.Breath),
		jolt:       math.Sqrt(2 / rate / wanderTime),
		chance:     chance,
		waverPhase: chance.Float64(),
		air:        newHiss(rate),
	}
	for n := range legs {
		l := &legs[n]
		l.tone = newTone(c, l.pitch, rate)
		l.above, l.glides = music.Between(v.pitch, l.pitch), music.Between(l.pitch, l.glideTo)
	}
	for _, k := range p.Cracks {
		by := partialInterval(k.Semitones)
		from := v.leg(float64(k.At)).pitch
		v.cracks, v.cracked = append(v.cracks, ratio(by)), append(v.cracked, newTone(c, by.Above(from), rate))
	}
	for _, u := range p.Undertones {
		by := partialInterval(u.Semitones)
		v.below, v.under = append(v.below, ratio(by)), append(v.under, newTone(c, by.Above(v.pitch), rate))
	}
	v.underPhase = make([]float64, len(v.under))
	if p.Attack == 0 {
		v.player.Attack = attackTime(p.Instrument, v.pitch)
	}
	if p.Release == 0 {
		v.player.Release = releaseTime
	}
	return v
}

// leg returns the note of the phrase that sounds at t.
func (v *voice) leg(t float64) *leg {
	n := 0
	for n+1 < len(v.legs) && t >= v.legs[n+1].from {
		n++
	}
	return &v.legs[n]
}

// melody is where the written notes have the pitch at t, in cents from the
// first: slurs take a moment, slides go evenly.
func (v *voice) melody(t float64) music.Cents {
	var c music.Cents
	for n := range v.legs {
		l := &v.legs[n]
		own := l.above
		if l.glideTo != l.pitch {
			own += music.Cents(float64(l.glides) * min(1, max(0, (t-l.from)/(l.to-l.from))))
		}
		if n == 0 {
			c = own
			continue
		}
		c += music.Cents(float64(own-c) * rise((t-l.from)/slurTime+0.5))
	}
	return c
}

// loudness is the written dynamic at t, in steps from mezzoforte.
func (v *voice) loudness(t float64) float64 {
	l := v.leg(t)
	share := min(1, max(0, (t-l.from)/(l.to-l.from)))
	pushed := 0.
	if l.pulses > 0 {
		pushed = pulseDepth * math.Cos(2*math.Pi*l.pulses*(t-l.from))
	}
	return (1 - v.player.Flatten) * (l.loud + share*(l.loudTo-l.loud) + pushed)
}

// truths cuts what was played into its notes.
func (v *voice) truths(onset, length music.Seconds, path []music.Hertz) []Truth {
	out := make([]Truth, len(v.legs))
	for n, l := range v.legs {
		from, to := max(0, music.Seconds(l.from)), length
		if n+1 < len(v.legs) {
			to = min(length, music.Seconds(v.legs[n+1].from))
		}
		a := min(int(from/PathStep), len(path))
		b := max(a, min(int(to/PathStep), len(path))) // a note may come later than its phrase ends
		out[n] = Truth{
			Onset:   onset + from,
			Release: onset + to,
			Pitch:   l.pitch,
			Path:    path[a:b],
		}
	}
	return out
}

// next returns the sample at t seconds into the note; before 0 there is only
// air.
func (v *voice) next(t float64) float64 {
	air := v.air.next(v.chance)
	if t < 0 {
		v.sounding = 0
		return v.gain * blown * air
	}
	now := v.slow.next(v, t)
	tone, f, hissing := v.leg(t).tone, now.pitch*v.jitter(), 0.
	for n, c := range v.player.Cracks {
		since, left := t-float64(c.At), float64(c.At+c.Length)-t
		if since >= 0 && left > 0 {
			tone, f = v.cracked[n], f*v.cracks[n]
		}
		if c.At > 0 && math.Abs(since) < crackHiss || math.Abs(left) < crackHiss {
			hissing = 0.3
		}
	}
	v.phase += f * v.dt
	v.sounding = music.Hertz(f)
	if now.gap < 0.5 {
		v.sounding = 0
	}
	level := v.gain * now.amplitude
	out := level * (1 - hissing) * tone.at(v.phase, now.brightness)
	for n, u := range v.player.Undertones {
		since, left := t-float64(u.At), float64(u.At+u.Length)-t
		v.underPhase[n] += f * v.below[n] * v.dt
		out += level * amplitude(u.Level) * min(
			rise(since/0.02),
			rise(left/0.02),
		) * v.under[n].at(
			v.underPhase[n],
			now.brightness,
		)
	}
	out += level * v.chirp(t)
	if v.player.Breath != 0 {
		out += level * v.breath * air
	}
	return out + level*(hissing+v.tongue(t))*air
}

// blown is how loud the air is before a note, against the note.
var blown = amplitude(airLevel)

const (
	airLevel   = music.Decibels(-26) // of the air before a note, against the note
	tongueTime = 0.006
	tongueHiss = 0.25
)

// tongue is the tick of the tongue at the start.
func (v *voice) tongue(t float64) float64 {
	if t > tongueTime || v.breathes {
		return 0
	}
	return tongueHiss
}

func (v *voice) chirp(t float64) float64 {
	var out float64
	for _, c := range v.player.Chirps {
		since := t - float64(c.At)
		if since < 0 || since > float64(c.Length) {
			continue
		}
		v.chirpPhase += c.pitch(since) * v.dt
		out += c.loudness(since) * math.Sin(2*math.Pi*v.chirpPhase)
	}
	return out
}

// bend is how far the pitch is off the note at t, but for its jitter.
func (v *voice) bend(t float64) music.Cents {
	p := &v.player
	c := p.Drift * (t - v.length/2)
	if p.WithLevel != 0 {
		c += float64(p.WithLevel) * v.loudness(t) / 5 // five steps from very soft to very loud
	}
	if p.WaverDepth != 0 {
		rate := p.WaverHz
		if rate == 0 {
			rate = 5
		}
		// Two close rates beat, as an unsteady player's waver does.
		c += float64(
			p.WaverDepth,
		) * (0.8*math.Sin(2*math.Pi*(rate*t+v.waverPhase)) + 0.2*math.Sin(2*math.Pi*rate*1.37*t))
	}
	if p.Vibrato != 0 {
		c += float64(p.Vibrato) * math.Sin(2*math.Pi*(vibratoHz*t+v.waverPhase))
	}
	if p.Scoop != 0 {
		c += float64(p.Scoop) * math.Exp2(-t/scoopTime/math.Ln2)
	}
	if left := v.length - t; p.Sag != 0 && left < 1 {
		c -= float64(p.Sag) * (1 - left)
	}
	return music.Cents(c)
}

// jitter is how far the lips have wandered off the pitch by the next sample, as a ratio.
func (v *voice) jitter() float64 {
	if v.player.Jitter == 0 {
		return 1
	}
	v.wander += -v.wander*v.dt/wanderTime + v.jolt*v.chance.NormFloat64()
	return ratio(v.player.Jitter * music.Cents(v.wander))
}

// ratio is an interval as a ratio of frequencies.
func ratio(c music.Cents) float64 { return math.Exp2(float64(c) / 1200) }

const vibratoHz = 5.5

// shape is how loud and bright a note is at a moment.
type shape struct {
	edge, gap  float64 // 0 to 1: attack and release; gaps
	level      music.Decibels
	brightness float64 // 0 soft to 1 loud
}

func (s shape) amplitude() float64 { return s.edge * s.gap * amplitude(s.level) }

func (v *voice) shape(t float64) shape {
	p := &v.player
	rising := t / float64(p.Attack)
	s := shape{edge: min(rise(rising), rise((v.length-t)/float64(p.Release))), gap: 1}
	for _, g := range p.Gaps {
		from, to := float64(g.At), float64(g.At+g.Length)
		s.gap = min(s.gap, max(rise((from-t)/edgeTime), rise((t-to)/edgeTime)))
	}
	loud := v.loudness(t)
	s.level = music.Decibels(stepLevel*loud - float64(p.Fade)*t/v.length)
	if p.LevelWaver != 0 {
		s.level += music.Decibels(float64(p.LevelWaver) * math.Sin(2*math.Pi*(1.3*t+v.waverPhase)))
	}
	// The upper harmonics come later than the lower ones and leave sooner.
	s.brightness = max(0, min(1, middle+stepBright*loud)) * min(1, 0.3+0.7*rise(rising/2)) * (0.4 + 0.6*s.edge)
	return s
}

// rise goes from 0 to 1 as x does, with flat ends.
func rise(x float64) float64 {
	if x <= 0 {
		return 0
	}
	if x >= 1 {
		return 1
	}
	return 0.5 - 0.5*math.Cos(math.Pi*x)
}
