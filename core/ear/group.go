package ear

import (
	"math"
	"slices"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// group is the plateaus of one note: those at its own pitch and those where
// it went elsewhere.
type group struct {
	target *scores.Segment
	begin  music.Seconds // the target's beat, when there is a score
	beats  music.Seconds // the length asked for
	pitch  music.Cents   // what the note is measured against, from A4 = 440
	midi   music.MIDI    // the note that was played
	on     []plateau
	off    []plateau
	all    []plateau
	wrong  bool // the note never came, or another sounded longer
}

const (
	// samePitch is how far off a note may be and still be that note: more than
	// the loosest tolerance, less than a semitone.
	samePitch music.Cents = 70
	// strayTime is how far from a note a short sound may lie and still be part of it.
	strayTime  music.Seconds = 0.5
	shortStray music.Seconds = 0.3
)

// groupByScore gives each target its plateaus and returns those of none.
func groupByScore(plateaus []plateau, s scores.Score, start music.Seconds) (groups []group, strays []plateau) {
	targets := s.Targets()
	groups = make([]group, len(targets))
	for n := range targets {
		t := targets[n]
		groups[n] = group{
			target: &t,
			begin:  start + s.TempoBPM.Seconds(t.StartBeat),
			beats:  s.TempoBPM.Seconds(t.Beats),
			pitch:  music.Between(standardPitch, t.Target.Frequency(s.A4Hz)),
			midi:   t.Target,
		}
	}
	for n, owner := range alignment(plateaus, s, start) {
		if owner < 0 || owner >= len(groups) {
			strays = append(strays, plateaus[n])
			continue
		}
		groups[owner].all = append(groups[owner].all, plateaus[n])
	}
	for n := range groups {
		strays = append(strays, groups[n].sort(s.A4Hz)...)
	}
	return groups, strays
}

// sort tells the plateaus at the target from the others, and returns those
// that do not belong to the note after all. Where another pitch sounded longer
// than the target, that is the note that was played.
func (g *group) sort(a4 music.Hertz) (strays []plateau) {
	if g.target != nil && g.target.Phase == scores.Sing && len(g.all) > 0 {
		longest := g.longest(func(plateau) bool { return true })
		octaves := math.Round(float64(longest.pitch-g.pitch) / 1200)
		g.pitch += music.Cents(1200 * octaves)
		g.midi += music.MIDI(12 * octaves)
	}
	if g.target != nil && g.target.GlideTo != 0 {
		g.on = g.all // a slide is at no pitch for long
		return nil
	}
	var on, off music.Seconds
	for _, p := range g.all {
		if near(p.pitch, g.pitch) {
			on += p.length()
		} else {
			off += p.length()
		}
	}
	own := g.pitch
	if longest := g.longest(func(p plateau) bool { return !near(p.pitch, g.pitch) }); longest.length() > on {
		g.wrong = true
		own = longest.pitch
		g.midi, _ = music.Nearest(own.Above(standardPitch), a4)
	}
	for _, p := range g.all {
		if near(p.pitch, own) {
			g.on = append(g.on, p)
		} else {
			g.off = append(g.off, p)
		}
	}
	return g.dropStrays()
}

func (g *group) longest(among func(plateau) bool) (best plateau) {
	for _, p := range g.all {
		if among(p) && p.length() > best.length() {
			best = p
		}
	}
	return best
}

func (g *group) isOn(p plateau) bool {
	return slices.ContainsFunc(g.on, func(on plateau) bool { return on.from == p.from })
}

func near(a, b music.Cents) bool { return math.Abs(float64(a-b)) <= float64(samePitch) }

// dropStrays takes short sounds far from the note out: a cough, a chair, a
// neighbour trying a note in the rest.
func (g *group) dropStrays() (strays []plateau) {
	if len(g.on) == 0 {
		return nil
	}
	main := g.longest(g.isOn)
	from, to := main.Onset, main.Release
	for _, p := range g.on {
		if p.length() >= shortStray {
			from, to = min(from, p.Onset), max(to, p.Release)
		}
	}
	far := func(p plateau) bool {
		return p.length() < shortStray && (p.Release < from-strayTime || p.Onset > to+strayTime)
	}
	keep := func(in []plateau) (out []plateau) {
		for _, p := range in {
			if !far(p) {
				out = append(out, p)
			}
		}
		return out
	}
	for _, p := range g.all {
		if far(p) {
			strays = append(strays, p)
		}
	}
	g.on, g.off, g.all = keep(g.on), keep(g.off), keep(g.all)
	return strays
}

// Without a score, a note goes on over a silence up to joinTime, and a visit
// to another pitch up to visitTime is a break in it.
const (
	joinTime  music.Seconds = 0.5
	visitTime music.Seconds = 0.35
	touchTime music.Seconds = 0.06
)

// groupByEar joins plateaus into notes when there is no score to say.
func groupByEar(plateaus []plateau, a4 music.Hertz) (groups []group, strays []plateau) {
	for n := 0; n < len(plateaus); n++ {
		p := plateaus[n]
		if p.length() < longEnough && !(n+1 < len(plateaus) && plateaus[n+1].Onset-p.Release < touchTime) {
			strays = append(strays, p) // too short to be a note by itself
			continue
		}
		midi, off := music.Nearest(p.pitch.Above(standardPitch), a4)
		g := group{
			pitch: p.pitch - off,
			midi:  midi,
			on:    []plateau{p},
			all:   []plateau{p},
		}
		for n+1 < len(plateaus) && g.takes(plateaus[n+1:]) {
			n++
		}
		groups = append(groups, g)
	}
	return groups, strays
}

// takes adds the next plateau if it belongs to the note, as its continuation
// or as a short visit elsewhere that comes back.
func (g *group) takes(next []plateau) bool {
	last := g.all[len(g.all)-1]
	p := next[0]
	apart := p.Onset - last.Release
	own := g.on[0].pitch
	if near(p.pitch, own) && apart < joinTime && p.starts != ByTongue {
		g.on, g.all = append(g.on, p), append(g.all, p)
		return true
	}
	returns := len(next) > 1 && near(next[1].pitch, own) && next[1].Onset-p.Release < touchTime
	if !near(p.pitch, own) && apart < touchTime && p.length() < visitTime && returns {
		g.off, g.all = append(g.off, p), append(g.all, p)
		return true
	}
	return false
}
