package demo

import (
	"math/rand/v2"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/synth"
	"earlychorus/server/store"
)

// take is one take of a person's day.
type take struct {
	person, day, nth int
}

// days of playing are really performed and heard; weeks before them are made from
// what those sound like.
const days = 3

// takesOf lists the demo's takes in the order they were made. The last day is
// today, and a few have not played yet.
func takesOf() (out []take) {
	for day := range days {
		for n, p := range people {
			count := 1
			switch {
			// One of the class hardly practises, so that the board has somebody to ask after.
			case p.habit == rare && day != 0:
				count = 0
			case p.habit == often:
				count = 2
			// A few have not played yet today: a full board is not what a morning looks like.
			case day == days-1 && n%9 == 4:
				count = 0
			}
			for nth := range count {
				out = append(out, take{n, day, nth})
			}
		}
	}
	return out
}

// plays reports whether a take of a person's day is of the n-th step too: on the
// first day only the long tone was set, a second time is for the first steps, and
// not everyone gets to the end.
func (t take) plays(n int, step store.Step) bool {
	main := step.Kind == exercise.KindLongToneCounted
	switch {
	case step.Test != nil: // some hand a test in on its first day
		return t.day == days-1 && t.nth == 0 && t.person%3 != 0
	case t.day == 0 || t.nth > 0:
		return main
	case main:
		return true
	case t.day == days-1:
		return n < 3 || (t.person+n)%3 != 0
	}
	return (t.person+n)%5 != 0
}

// player returns how a person plays a take: the habit, grown by the day, with
// the small differences no player is without: breath, a room, a little lateness and
// waver (values by ear, no published source). Within three days a habit shrinks by
// half or so, faster than in children, so that a demo shows growth.
func (t take) player(i instrument.Instrument, target music.MIDI, kind string) synth.Player {
	p := people[t.person]
	chance := rand.New(rand.NewPCG(uint64(t.person)+spread(kind), uint64(100*t.day+t.nth)))
	about := func(x, spread float64) float64 { return x + spread*chance.NormFloat64() }
	out := synth.Player{
		Instrument: i,
		Seed:       chance.Uint64(),
		Room:       music.Decibels(about(-68, 2)),
		Breath:     music.Decibels(about(-38, 2)),
		Level:      music.Decibels(about(-22, 2)),
		Late:       music.Seconds(0.05 + 0.03*chance.Float64()),
		Offset:     music.Cents(about(0, 5)),
		WaverDepth: music.Cents(about(5, 1)),
		WaverHz:    about(3.5, 0.5),
		Drift:      about(0, 0.4),
	}
	out.NoteOffsets = []music.Cents{0, music.Cents(about(4, 6))}
	out.FaultOn = 1 + chance.IntN(2)
	grown := float64(t.day) + 0.5*float64(t.nth)
	switch p.habit {
	case growing:
		out.Release = music.Seconds(0.1 + 0.15*grown) // tapers in the end
		out.WaverDepth = music.Cents(36 - 12*grown)
		out.Sag = music.Cents(20 - 7*grown)
	case flat:
		out.Offset = music.Cents(-44 + 5*grown)
	case sharp:
		out.Release = 0.08
		out.Offset = music.Cents(34 - 4*grown)
		out.Drift = 1.5
	case gaps:
		out.Release = 0.06 // the air stops at the end as well
		for n := range 3 - t.day {
			out.Gaps = append(
				out.Gaps,
				synth.Gap{
					At:     music.Seconds(about(1.6+2*float64(n), 0.3)),
					Length: music.Seconds(0.2 + 0.1*chance.Float64()),
				},
			)
		}
	case cracking:
		if t.day < days-1 || t.person%2 == 1 {
			out.Cracks = []synth.Crack{
				{At: music.Seconds(about(1.5, 0.4)), Length: 0.35, Semitones: synth.NextPartial(i, target)},
			}
		}
	case wrong:
		if t.day == 0 {
			out.Shift = synth.NextPartial(i, target)
		} else {
			out.Cracks = []synth.Crack{
				{At: 0, Length: music.Seconds(0.3 / grown), Semitones: synth.NextPartial(i, target)},
			}
		}
	case short:
		out.Release = 0.05
		out.Held = 0.55 + 0.15*grown
		out.Sag = 25
	case far:
		out.Level, out.Room = -42, -50
	case often:
		out.WaverDepth = music.Cents(20 - 6*grown)
		out.Offset = music.Cents(-26 + 9*grown)
	}
	return out
}

// spread makes a person's takes of different kinds differ; the long tone's stay
// as they are told of in the docs.
func spread(kind string) (n uint64) {
	if kind == exercise.KindLongToneCounted {
		return 0
	}
	for _, r := range kind {
		n = 31*n + uint64(r)
	}
	return n % 100_000 * 1000
}
