package explain

import (
	"math"

	"earlychorus/core/music"
)

// run is the sounds from..to (excluded) taken as one target's: those at its own
// pitch, visits to others, and what does not belong to it after all.
type run struct {
	account Account
	onset   music.Seconds // of its first own sound
	release music.Seconds
	own     music.Seconds // when its own pitch was last heard
	cost    float64
	strays  []int // sounds inside it that are not its own
	visits  []int // its own sounds at another pitch
}

// longest returns the longest of the sounds from..to.
func (v *solver) longest(from, to int) int {
	best := from
	for n := from; n < to; n++ {
		if v.sounds[n].length() > v.sounds[best].length() {
			best = n
		}
	}
	return best
}

// mostInRun bounds how many sounds one note may be broken into.
const mostInRun = 16

// joined is how near two sounds are that touch.
const joined = music.Seconds(0.07)

// run weighs sounds from..to as target k's.
func (v *solver) run(k, from, to int) run {
	t := v.targets[k]
	pitch := v.dominant(k, from, to)
	r := run{account: t.account(pitch, v.shift, v.a4), onset: -1}
	r.cost = costOf[r.account.Kind]
	var own music.Seconds
	last := -1 // the latest sound that belongs
	for n := from; n < to; n++ {
		s := v.sounds[n]
		belongs := (far(s.Pitch, pitch) <= samePitch || t.GlideTo != 0) && !v.astray(n, from, to) &&
			!v.over(t, r, s) && !(r.onset < 0 && t.DynamicTo == "" && v.under(n, from, to)) &&
			!(r.onset < 0 && v.tooSoon(t, n, to)) &&
			!v.scrap(t, r, n, from, to)
		switch {
		case belongs:
			own += s.length()
			r.cost += v.rejoins(last, n)
			r.own = s.Release
		case !s.Alien && !v.over(t, r, s) && v.touches(n, from, to, pitch) && !v.ringsOn(t, r, n, to) &&
			visit(s) < v.stray(n)+v.reward(n, from, to, pitch):
			r.cost += visit(s)
			r.visits = append(r.visits, n)
			if r.onset < 0 {
				if number, _ := t.partialAt(s.Pitch); number == 0 {
					r.cost += costOfBefore
				}
			}
		default:
			r.cost += v.stray(n)
			r.strays = append(r.strays, n)
			continue
		}
		if r.onset < 0 {
			r.onset = s.Onset
		}
		r.release, last = s.Release, n
	}
	if r.onset < 0 {
		return run{cost: math.Inf(1)}
	}
	first := v.sounds[from]
	r.cost += costOfDoubt * first.Doubt
	main := v.sounds[v.longest(from, to)]
	if main.Alien {
		r.cost += costOfAlien
	}
	if below := v.loud - main.Level - v.softBelow(t); below > 0 {
		r.cost += min(mostForSoft, costOfSoft+costOfSofter*float64(below))
	}
	if own < max(scrapTime, scrapShare*(t.end-t.begin)) {
		r.cost += costOfScrap
	}
	r.account.Late = r.onset - t.begin
	return r
}

// softBelow is how far below the loudest a sound is softer than a target asks for.
func (v *solver) softBelow(t target) music.Decibels {
	softest := t.Dynamic.Step()
	if t.DynamicTo != "" {
		softest = min(softest, t.DynamicTo.Step())
	}
	return softBelow + stepSofter*music.Decibels(v.loudestAsked-softest)
}

// dominant is the pitch a run of sounds stands for: the target's, where it sounds
// longest or comes to stay; otherwise that of the longest sound.
func (v *solver) dominant(k, from, to int) music.Cents {
	t := v.targets[k]
	var at, away music.Seconds
	var atPitch, awayPitch music.Cents
	for n, s := range v.sounds[from:to] {
		if v.isTarget(k, from+n) {
			if at += s.length(); s.length() > 0 && (atPitch == 0 || s.length() > at/2) {
				atPitch = s.Pitch
			}
		} else if s.length() > away {
			away, awayPitch = s.length(), s.Pitch
		}
	}
	stays := v.sounds[to-1]
	comes := v.isTarget(k, to-1) && stays.length() >= comesToStay &&
		stays.length() > (t.end-t.begin)/4
	if at > 0 && (at >= away || comes) {
		return atPitch
	}
	return awayPitch
}

// comesToStay is how long a note must last at the end to have come after all.
const comesToStay = music.Seconds(0.3)

// rejoins is what it costs that a note goes on after a tongue or a silence.
func (v *solver) rejoins(last, n int) float64 {
	if last < 0 || last != n-1 {
		return 0
	}
	if v.sounds[n].Tongued {
		return costOfTongue * (1 - v.sounds[n].Doubt)
	}
	apart := v.sounds[n].Onset - v.sounds[last].Release
	switch {
	case apart <= 0:
		return 0
	case apart < joined:
		return costOfGap * float64(apart/joined)
	}
	return costOfGap + costOfGap*float64(apart)
}

// touches reports whether a sound away from a note's pitch hangs together with
// the note: it begins where the note stops, or ends where it begins.
func (v *solver) touches(n, from, to int, pitch music.Cents) bool {
	before := n > from && v.sounds[n].Onset-v.sounds[n-1].Release < joined
	after := n+1 < to && v.sounds[n+1].Onset-v.sounds[n].Release < joined
	if !before && !after {
		return false
	}
	// A sound softer by far than the note is the room's or a neighbour's.
	for k := from; k < to; k++ {
		if far(v.sounds[k].Pitch, pitch) <= samePitch && v.sounds[k].Level-v.sounds[n].Level > softBelow {
			return false
		}
	}
	return true
}

// reward makes a visit that comes back to the note likelier than a stray.
func (v *solver) reward(n, from, to int, pitch music.Cents) float64 {
	if n > from && n+1 < to && far(v.sounds[n+1].Pitch, pitch) <= samePitch {
		return costOfVisit + costOfLongVisit
	}
	return 0
}

// A short sound far from the rest of a note is not a part of it: a cough, a chair,
// a neighbour trying the note in the rest.
const (
	astrayTime = music.Seconds(0.5)
	shortSound = music.Seconds(0.3)
)

func (v *solver) astray(n, from, to int) bool {
	if v.sounds[n].length() >= shortSound || to-from == 1 {
		return false
	}
	before := n == from || v.sounds[n].Onset-v.sounds[n-1].Release > astrayTime
	after := n+1 == to || v.sounds[n+1].Onset-v.sounds[n].Release > astrayTime
	return before && after
}

// over reports whether a sound comes after a note is over: its time is up, or all but, and the
// sound begins anew.
func (v *solver) over(t target, r run, s Sound) bool {
	apart, end := s.Onset-max(r.own, r.onset), t.end+max(0, r.onset-t.begin)
	switch {
	case r.onset < 0:
		return false
	case apart >= joined:
		return s.Onset > end-atTheEnd
	}
	return apart > goesOver && s.Onset > end
}

const (
	atTheEnd = music.Seconds(0.15) // how near to its end a note is over
	goesOver = music.Seconds(0.02) // as far apart are sounds of which one becomes the other
)

// ringsOn reports whether another pitch at a note's end is the room's ring, or what
// sounds beside the player: it is short, or softer, and the note does not come back.
func (v *solver) ringsOn(t target, r run, n, to int) bool {
	s := v.sounds[n]
	if r.onset < 0 || n+1 < to {
		return false
	}
	late := max(0, r.onset-t.begin)
	return s.length() < ringTime && s.Release > t.end+late-2*atTheEnd
}

const ringTime = music.Seconds(0.35)

// under reports whether a sound is far softer than what the run goes on with: a hum
// or a neighbour on the same note before the player.
func (v *solver) under(n, from, to int) bool {
	return v.sounds[v.longest(from, to)].Level-v.sounds[n].Level > underBelow
}

const underBelow = music.Decibels(12)

// tooSoon reports whether a short sound before a note's time stops again before the note
// comes: a word, a try, a neighbour.
func (v *solver) tooSoon(t target, n, to int) bool {
	s := v.sounds[n]
	if s.length() >= shortSound || s.Release >= t.begin {
		return false
	}
	for _, next := range v.sounds[n+1 : to] {
		if far(next.Pitch, s.Pitch) <= samePitch {
			return next.Onset-s.Release > 3*joined/2
		}
	}
	return false
}

// scrap reports whether a sound after a silence is too short, or too soft against
// the note, to be its going on; or one that touches the note is its ring.
func (v *solver) scrap(t target, r run, n, from, to int) bool {
	if r.onset < 0 {
		return false
	}
	s := v.sounds[n]
	softer := v.sounds[v.longest(from, to)].Level - s.Level
	if s.Onset-r.release < joined {
		late := max(0, r.onset-t.begin)
		return softer > ringBelow || softer > underBelow && t.DynamicTo == "" && s.Onset > t.end+late-atTheEnd
	}
	return s.length() < scrapLength || softer > underBelow
}

// ringBelow is how much softer than its note a ring is that was heard as a sound of its own.
const ringBelow = music.Decibels(24)

const scrapLength = music.Seconds(0.12)
