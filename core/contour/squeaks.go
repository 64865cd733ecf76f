package contour

import (
	"slices"

	"earlychorus/core/audio"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Squeaks returns the bursts that are left of a sound between two moments when what
// repeats with its pitch is taken away: a reed's squeak is no harmonic of the note it
// breaks into, and over a bright tone it stands out in no other way. least is the
// loudness of the slope from which one counts, dB below full scale as Level's.
func (c Contour) Squeaks(m audio.Mono, from, to music.Seconds, least music.Decibels) []Burst {
	var u unpitched
	return u.squeaks(c, m, from, to, least)
}

// unpitched is what is left of a sound without its pitch, from a moment on, as far as it was
// worked out: what is asked of a longer stretch from the same moment goes on from there.
type unpitched struct {
	levels  []float64     // of its slope, in whole blocks
	last    float64       // the sample before the next block
	open    []float64     // those from there on
	pitches []music.Hertz // of the hops so far; 0 for none
	period  float64       // in samples, of the last that had a pitch; 0 before it
}

// squeaks is described at Contour.Squeaks; from is the same each time.
func (u *unpitched) squeaks(c Contour, m audio.Mono, from, to music.Seconds, least music.Decibels) (out []Burst) {
	rate := float64(m.Rate)
	first, end := max(0, int(float64(from)*rate)), min(len(m.Samples), int(float64(to)*rate))
	if end <= first {
		return nil
	}
	hop, block := int(rate*float64(Hop)), max(1, int(clickBlock*rate))
	if !u.stillPitchedAs(c, first, hop, rate) {
		*u = unpitched{}
	}
	settled := end - int(unsettled*rate) // later, the pitch may yet be told otherwise
	for at := first + len(u.pitches)*hop; at+hop <= settled; at += hop {
		u.goOn(c, m, at, at+hop)
		u.level(block, rate)
	}
	rest := u.copied()
	for at := first + len(rest.pitches)*hop; at < end; at += hop {
		rest.goOn(c, m, at, min(at+hop, end))
	}
	rest.level(block, rate)
	at := music.Seconds(float64(block) / rate)
	for _, s := range bursts(rest.levels, int(squeakRings/clickBlock)) {
		begin, end := int(s.from)+1, int(s.to)
		if music.Decibels(loudest(rest.levels[begin:end])) >= least {
			out = append(out, Burst{from + music.Seconds(begin)*at, from + music.Seconds(end)*at})
		}
	}
	return out
}

// unsettled is how far before the end of a stretch its pitch may be told otherwise when more
// of it has come, in seconds: farther back it seldom is.
const unsettled = 0.4

// stillPitchedAs reports whether the hops so far have the pitches still that they had.
func (u *unpitched) stillPitchedAs(c Contour, first, hop int, rate float64) bool {
	for n, pitch := range u.pitches {
		if c.pitchAt(first+n*hop, rate) != pitch {
			return false
		}
	}
	return true
}

// pitchAt is the pitch at a sample; 0 for none.
func (c Contour) pitchAt(sample int, rate float64) music.Hertz {
	if k := Index(music.Seconds(float64(sample) / rate)); k < len(c.Frames) {
		return c.Frames[k].Pitch
	}
	return 0
}

// goOn subtracts from the samples of a hop those a period before.
func (u *unpitched) goOn(c Contour, m audio.Mono, from, to int) {
	pitch := c.pitchAt(from, float64(m.Rate))
	u.pitches = append(u.pitches, pitch)
	if pitch > 0 {
		u.period = float64(m.Rate) / float64(pitch)
	}
	held := len(u.open)
	u.open = append(u.open, make([]float64, to-from)...)
	if u.period > 0 {
		dsp.LessPeriod(u.open[held:], m.Samples, from, u.period)
	}
}

// level measures the blocks that are whole by now.
func (u *unpitched) level(block int, rate float64) {
	done := 0
	for ; done+block <= len(u.open); done += block {
		part := u.open[done : done+block]
		u.levels = append(u.levels, slopeLevel(part, u.last, rate))
		u.last = part[block-1]
	}
	u.open = append(u.open[:0], u.open[done:]...)
}

// copied is a copy that may go on by itself.
func (u *unpitched) copied() unpitched {
	c := *u
	c.levels, c.open, c.pitches = slices.Clone(u.levels), slices.Clone(u.open), slices.Clone(u.pitches)
	return c
}

// squeakRings is how long a squeak lasts at most, in seconds, with its ring in a hall.
const squeakRings = 0.4
