package take

import (
	"math"

	"earlychorus/core/exercise"
	"earlychorus/core/music"
)

// group is the plateaus of one note: those at its own pitch and those where
// it went elsewhere.
type group struct {
	target   *exercise.Segment
	begin    music.Seconds // the target's beat, when there is a score
	beats    music.Seconds // the length asked for
	pitch    music.Cents   // what the note is measured against, from A4 = 440
	midi     music.MIDI    // the note that was played
	on       []plateau
	off      []plateau
	all      []plateau
	wrong    bool // the note never came, or another sounded longer
	response bool // the start can be compared with its beat
}

const (
	// samePitch is how far off a note may be and still be that note: more than
	// the loosest tolerance, less than a semitone.
	samePitch music.Cents = 70
	// strayTime is how far from a note a short sound may lie and still be part of it.
	strayTime  music.Seconds = 1.5
	shortStray music.Seconds = 0.3
)

// groupByScore gives each target the plateaus between the middles of the
// rests on its two sides.
func groupByScore(plateaus []plateau, s exercise.Score, start music.Seconds) []group {
	targets := s.Targets()
	groups := make([]group, len(targets))
	for n := range targets {
		t := targets[n]
		groups[n] = group{
			target: &t, begin: start + s.TempoBPM.Seconds(t.StartBeat), beats: s.TempoBPM.Seconds(t.Beats),
			pitch: music.Between(standardPitch, t.Target.Frequency(s.A4Hz)), midi: t.Target, response: true,
		}
	}
	for _, p := range plateaus {
		middle := (p.Onset + p.Release) / 2
		owner := 0
		for n := 1; n < len(groups); n++ {
			before := groups[n-1].begin + groups[n-1].beats
			if middle > (before+groups[n].begin)/2 {
				owner = n
			}
		}
		if len(groups) > 0 {
			groups[owner].all = append(groups[owner].all, p)
		}
	}
	for n := range groups {
		groups[n].sort(s.A4Hz)
	}
	return groups
}

// sort tells the plateaus at the target from the others. Where another pitch
// sounded longer than the target, that is the note that was played.
func (g *group) sort(a4 music.Hertz) {
	var on, off music.Seconds
	longest := plateau{}
	for _, p := range g.all {
		if near(p.pitch, g.pitch) {
			on += p.length()
			continue
		}
		off += p.length()
		if p.length() > longest.length() {
			longest = p
		}
	}
	own := g.pitch
	if longest.length() > on {
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
	g.dropStrays()
}

func near(a, b music.Cents) bool { return math.Abs(float64(a-b)) <= float64(samePitch) }

// dropStrays forgets short sounds far from the note: a cough, a chair, a
// neighbour trying a note in the rest.
func (g *group) dropStrays() {
	if len(g.on) == 0 {
		return
	}
	from, to := g.on[0].Onset, g.on[0].Release
	for _, p := range g.on {
		if p.length() >= shortStray {
			from, to = min(from, p.Onset), max(to, p.Release)
		}
	}
	keep := func(in []plateau) (out []plateau) {
		for _, p := range in {
			if p.length() < shortStray && (p.Release < from-strayTime || p.Onset > to+strayTime) {
				continue
			}
			out = append(out, p)
		}
		return out
	}
	g.on, g.off, g.all = keep(g.on), keep(g.off), keep(g.all)
}

// Without a score, a note goes on over a silence up to joinTime, and a visit
// to another pitch up to visitTime is a break in it.
const (
	joinTime  music.Seconds = 0.5
	visitTime music.Seconds = 0.35
	touchTime music.Seconds = 0.06
)

// groupByEar joins plateaus into notes when there is no score to say.
func groupByEar(plateaus []plateau, q Question) []group {
	a4 := q.A4
	if a4 == 0 {
		a4 = music.StandardA4
	}
	var groups []group
	for n := 0; n < len(plateaus); n++ {
		p := plateaus[n]
		if p.length() < longEnough && !(n+1 < len(plateaus) && plateaus[n+1].Onset-p.Release < touchTime) {
			continue // too short to be a note by itself
		}
		midi, off := music.Nearest(p.pitch.Above(standardPitch), a4)
		g := group{pitch: p.pitch - off, midi: midi, on: []plateau{p}, all: []plateau{p}}
		for n+1 < len(plateaus) && g.takes(plateaus[n+1:]) {
			n++
		}
		groups = append(groups, g)
	}
	return groups
}

// takes adds the next plateau if it belongs to the note, as its continuation
// or as a short visit elsewhere that comes back.
func (g *group) takes(next []plateau) bool {
	last := g.all[len(g.all)-1]
	p := next[0]
	apart := p.Onset - last.Release
	own := g.on[0].pitch
	if near(p.pitch, own) && apart < joinTime {
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
