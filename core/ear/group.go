package ear

import (
	"math"
	"slices"

	"earlychorus/core/explain"
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
)

// groupByScore gives each target its plateaus, as the likeliest story has it, and
// returns those of none.
func (l *listening) groupByScore(plateaus []plateau) (groups []group, strays []plateau) {
	s := *l.Score
	story := l.explained(plateaus)
	if l.nobody {
		plateaus = nil
	} else if parted, ok := l.partUnheard(plateaus, story); ok {
		plateaus, story = parted, l.explained(parted)
	}
	l.Explanation = story.Explanation
	targets := s.Targets()
	groups = make([]group, len(targets))
	for n := range targets {
		t := targets[n]
		groups[n] = group{
			target: &t,
			begin:  l.Start + s.TempoBPM.Seconds(t.StartBeat),
			beats:  s.TempoBPM.Seconds(t.Beats),
			pitch:  music.Between(standardPitch, t.Target.Frequency(s.A4Hz)),
			midi:   t.Target,
		}
	}
	for n, owner := range story.Owners {
		if owner >= 0 && len(groups[owner].all) == 0 && l.isVoiceBefore(plateaus, story.Owners, n) {
			story.Owners[n], owner = -1, -1
		}
		if owner < 0 {
			strays = append(strays, plateaus[n])
			continue
		}
		if n > 0 && story.Owners[n-1] < 0 && len(groups[owner].all) == 0 &&
			targets[owner].Articulation != scores.Slurred {
			l.startAnew(&plateaus[n], plateaus[n-1])
		}
		groups[owner].all = append(groups[owner].all, plateaus[n])
	}
	for n := range groups {
		groups[n].settle(story.Accounts[n], story.Shift, s.A4Hz)
	}
	return groups, strays
}

// isVoiceBefore reports whether a plateau that was taken for a note's beginning is a voice, which
// the far louder note came in upon.
func (l *listening) isVoiceBefore(plateaus []plateau, owners []int, n int) bool {
	if n+1 == len(plateaus) || owners[n+1] != owners[n] {
		return false
	}
	voice, note := plateaus[n], plateaus[n+1]
	return voice.length() < voiceLongest && note.level-voice.level > voiceSofter && l.isAlien(voice)
}

// Of a voice that a note comes in upon.
const (
	voiceLongest = music.Seconds(0.3)
	voiceSofter  = music.Decibels(8)
)

// explained returns the likeliest story of what sounded, and notes where nobody played.
func (l *listening) explained(plateaus []plateau) explain.Story {
	sounds, others := make([]explain.Sound, len(plateaus)), l.othersAmong(plateaus)
	for n, p := range plateaus {
		sounds[n] = explain.Sound{
			Onset:   p.Onset,
			Release: p.Release,
			Pitch:   p.pitch,
			Level:   p.level,
			Tongued: p.starts == ByTongue,
			Doubt:   p.doubt,
			Alien:   others[n] || l.isAlien(p),
		}
	}
	if l.onlyAlien(sounds) {
		sounds, l.nobody = nil, true
	}
	solve := l.Explain
	if solve == nil {
		solve = explain.Solve
	}
	return solve(sounds, explain.Part{Instrument: l.Question.Instrument, Score: *l.Score, Start: l.Start})
}

// settle tells the plateaus at the note that came from the visits to others.
func (g *group) settle(a explain.Account, shift music.MIDI, a4 music.Hertz) {
	if g.target.Phase == scores.Sing && len(g.all) > 0 {
		longest := g.longest(func(plateau) bool { return true })
		octaves := math.Round(float64(longest.pitch-g.pitch) / 1200)
		g.pitch += music.Cents(1200 * octaves)
		g.midi += music.MIDI(12 * octaves)
	}
	if g.target.GlideTo != 0 {
		g.on = g.all // a slide is at no pitch for long
		return
	}
	own := g.pitch
	if g.wrong = len(g.all) > 0 && (a.Kind.Another() || shift != 0); g.wrong {
		other := g.longest(func(p plateau) bool { return a.Kind == explain.Played || !near(p.pitch, g.pitch) })
		own = other.pitch
		g.midi, _ = music.Nearest(own.Above(standardPitch), a4)
	}
	main := g.longest(func(p plateau) bool { return near(p.pitch, own) }).pitch
	for _, p := range g.all {
		if near(p.pitch, own) || near(p.pitch, main) {
			g.on = append(g.on, p)
		} else {
			g.off = append(g.off, p)
		}
	}
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
