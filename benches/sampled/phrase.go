package sampled

import (
	"math"

	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// phrase plays targets from n to to (excluded), which are slurred together.
func (d *deck) phrase(targets []scores.Segment, n, to int) {
	for from := n; from < to; {
		end := from + 1
		for end < to && targets[end].Target == targets[from].Target {
			end++ // slurred at the same pitch: one tone
		}
		d.legs(targets, from, end, n, to)
		from = end
	}
}

// legs plays one tone that stands for targets from..end of a phrase from first to
// last.
func (d *deck) legs(targets []scores.Segment, from, end, first, last int) {
	s, p := d.playing.Score, d.playing.Player.OnPhrase(d.playing.Score, targets, from, end)
	seg := targets[from]
	tempo := s.TempoBPM
	t := tone{
		note: seg.Target,
		from: tempo.Seconds(seg.StartBeat),
		to:   tempo.Seconds(targets[end-1].StartBeat + targets[end-1].Beats),
		in:   attack,
		out:  release,
	}
	if from == first {
		t.from += p.Late
		if seg.Articulation == scores.BreathStart {
			t.in = breath
		}
	} else {
		t.in, t.unheard = crossfade, lead
	}
	t.program = p.Instrument.MIDIProgram
	if seg.Phase == scores.Sing {
		t.program = d.font.aahs
		t.note += music.MIDI(12 * p.SingsUp)
	}
	if end < last {
		t.to, t.out = t.to-crossfade/2, crossfade
	} else {
		if p.Held > 0 {
			t.to = t.from + music.Seconds(p.Held)*(t.to-t.from)
		}
		t.to -= stop // the next note's tongue, or the end
		if d.taper > 0 {
			t.to, t.out = t.to-d.taper/2, d.taper
		}
	}
	d.curves(&t, targets[from:end], p)
	d.faults(t, p)
}

// curves sets how a tone's loudness and pitch move.
func (d *deck) curves(t *tone, legs []scores.Segment, p synth.Player) {
	begin, length := t.from, t.to-t.from
	tempo := d.playing.Score.TempoBPM
	phase := d.chance.Float64()
	t.level = func(at music.Seconds) float64 {
		since := max(0, min(1, float64((at-begin)/length)))
		loud := 0.
		for _, leg := range legs {
			share := float64((tempo.Beats(at) - leg.StartBeat) / leg.Beats)
			if share < 0 {
				break
			}
			to := leg.Dynamic
			if leg.DynamicTo != "" {
				to = leg.DynamicTo
			}
			a, b := float64(leg.Dynamic.Step()), float64(to.Step())
			loud = a + min(1, share)*(b-a)
			if leg.Pulses > 0 {
				pulses := float64(leg.Pulses) * float64(tempo) / 60
				loud += 0.8 * math.Cos(2*math.Pi*pulses*float64(at-begin))
			}
		}
		return (1-p.Flatten)*stepLevel*loud - float64(p.Fade)*since - math.Max(0, -float64(p.Fade)) +
			float64(p.LevelWaver)*math.Sin(2*math.Pi*1.3*float64(at-begin))
	}
	glide := 0.
	if legs[0].GlideTo != 0 {
		glide = 100 * float64(legs[0].GlideTo-legs[0].Target)
	}
	t.cents = func(at music.Seconds) float64 {
		since := float64(at - begin)
		share := max(0, min(1, since/float64(length)))
		c := float64(p.Offset) + p.Drift*(since-float64(length)/2) + glide*share
		c += float64(p.WaverDepth) * (0.8*math.Sin(2*math.Pi*(5*since+phase)) + 0.2*math.Sin(2*math.Pi*6.85*since))
		c += float64(p.Scoop) * math.Exp(-since/0.05)
		if left := float64(length) - since; p.Sag != 0 && left < 1 {
			c -= float64(p.Sag) * (1 - left)
		}
		return c
	}
}

// faults sounds a tone with the gaps, cracks and undertones of its player.
func (d *deck) faults(t tone, p synth.Player) {
	whole := t.level
	muted := func(at music.Seconds) float64 {
		for _, g := range p.Gaps {
			if at > t.from+g.At && at < t.from+g.At+g.Length {
				return silence
			}
		}
		for _, k := range p.Cracks {
			if at > t.from+k.At && at < t.from+k.At+k.Length || k.At == 0 && at < t.from+k.Length {
				return silence
			}
		}
		return whole(at)
	}
	main := t
	main.level = muted
	d.sound(main)
	for _, k := range p.Cracks {
		away := t
		away.note += music.MIDI(k.Semitones)
		if k.At > 0 {
			away.from, away.in, away.unheard = t.from+k.At, crossfade, lead
		}
		away.to, away.out = min(t.to, t.from+k.At+k.Length), crossfade
		d.sound(away)
	}
	for _, u := range p.Undertones {
		under := t
		under.note += music.MIDI(u.Semitones)
		under.from = t.from + u.At
		under.to, under.out = min(t.to, t.from+u.At+u.Length), crossfade
		under.level = func(at music.Seconds) float64 { return whole(at) + float64(u.Level) }
		d.sound(under)
	}
}

const silence = -200. // dB
