package sampled

import (
	"math"
	"math/rand/v2"
	"slices"

	"earlychorus/core/audio"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// Play plays what a simulated player would, mistakes and all, on the recorded
// instrument and with a recorded voice. Buzzes and air have no recordings: those
// are the simulated player's own.
func (f Font) Play(p synth.Playing, rate int) (audio.Mono, error) {
	d := deck{font: f, playing: p, chance: rand.New(rand.NewPCG(p.Player.Seed, 0x5A3E))}
	if slices.ContainsFunc(p.Score.Rules, func(r scores.Rule) bool { return r.Measure == measure.Taper.Key }) {
		d.taper = tapers
	}
	d.prepare()
	targets := p.Score.Targets()
	for n := 0; n < len(targets); {
		to := n + 1
		for to < len(targets) && targets[to].Articulation == scores.Slurred {
			to++
		}
		if targets[n].Phase != scores.Buzz {
			d.phrase(targets, n, to)
		}
		n = to
	}
	sound, err := f.play(d.track.file(p.Score.Seconds()+1), rate)
	if err != nil {
		return audio.Mono{}, err
	}
	level(sound)
	sound.Samples = sound.Samples[:min(len(sound.Samples), int(float64(p.Score.Seconds())*float64(rate)))]
	return synth.Mixed(padded(sound, p.Score.Seconds()), p.Others(rate)), nil
}

// deck lays a playing out over MIDI's channels: each tone has its own, so that
// its loudness and its pitch can move.
type deck struct {
	font    Font
	playing synth.Playing
	track   track
	next    int
	chance  *rand.Rand
	taper   music.Seconds // how long the ends fade; 0 where they need not
}

const (
	drums     = 9 // a channel that plays no notes
	bendRange = 24
	controls  = music.Seconds(0.01) // between two of them
	lead      = music.Seconds(0.25) // a slurred tone sounds unheard for so long: its own attack is not heard
	crossfade = music.Seconds(0.03)
	attack    = music.Seconds(0.012)
	breath    = music.Seconds(0.28) // of a start without the tongue
	release   = music.Seconds(0.05)
	tapers    = music.Seconds(0.5)
	stop      = music.Seconds(0.045) // the tongue's silence before a tongued note
	headroom  = -9.                  // dB below the sample's own loudness
	stepLevel = 4.                   // dB from one written dynamic to the next
)

// tone is one stretch of sound at one pitch.
type tone struct {
	program  int
	note     music.MIDI
	from, to music.Seconds
	in, out  music.Seconds // lengths of its fades
	unheard  music.Seconds // it begins so long before from, silent
	level    func(at music.Seconds) float64
	cents    func(at music.Seconds) float64
}

func (d *deck) prepare() {
	for c := range byte(16) {
		for _, m := range [][]byte{{101, 0}, {100, 0}, {6, bendRange}, {38, 0}} {
			d.track.add(0, append([]byte{0xB0 | c}, m...)...)
		}
	}
}

func (d *deck) sound(t tone) {
	if t.to <= t.from {
		return
	}
	if d.next == drums {
		d.next++
	}
	c := byte(d.next)
	d.next = (d.next + 1) % 16
	begin := max(0, t.from-t.unheard)
	d.track.add(begin, 0xC0|c, byte(t.program))
	d.track.add(begin, 0xB0|c, 11, 0)
	d.track.add(begin, 0x90|c, byte(t.note), 100)
	for at := t.from - t.in/2; at <= t.to+t.out; at += controls {
		edge := math.Min(risen(at-t.from+t.in/2, t.in), risen(t.to+t.out-at, t.out))
		gain := 0.
		if edge > 0.001 {
			gain = 127 * math.Pow(10, (headroom+t.level(at)+20*math.Log10(edge))/40)
		}
		d.track.add(at, 0xB0|c, 11, byte(max(0, min(127, math.Round(gain)))))
		bend := int(8192 + 8192*t.cents(at)/100/bendRange)
		d.track.add(at, 0xE0|c, byte(bend&0x7F), byte(bend>>7&0x7F))
	}
	d.track.add(t.to+t.out+controls, 0xB0|c, 11, 0)
	d.track.add(t.to+t.out+2*controls, 0x80|c, byte(t.note), 0)
}

func risen(since, length music.Seconds) float64 {
	if length <= 0 {
		return 1
	}
	return max(0, min(1, float64(since/length)))
}

// level brings the sound to the loudness a simulated player plays at.
func level(m audio.Mono) {
	block := m.Rate / 20
	loudest := 0.
	for from := 0; from+block <= len(m.Samples); from += block {
		var sum float64
		for _, v := range m.Samples[from : from+block] {
			sum += v * v
		}
		loudest = math.Max(loudest, sum/float64(block))
	}
	if loudest == 0 {
		return
	}
	gain := math.Pow(10, -22./20) / math.Sqrt(loudest)
	for n := range m.Samples {
		m.Samples[n] *= gain
	}
}

func padded(m audio.Mono, length music.Seconds) audio.Mono {
	if missing := int(float64(length)*float64(m.Rate)) - len(m.Samples); missing > 0 {
		m.Samples = append(m.Samples, make([]float64, missing)...)
	}
	return m
}
