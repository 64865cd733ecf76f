package synth

import (
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// mistakesOfSound are those in which the right note sounds, and does not hold.
var mistakesOfSound = []Mistake{
	{
		Key:   "sinks",
		Label: "Player whose notes sink",
		At:    where(long),
		Make:  func(p *Playing, n int) { p.bend(n, -sinksBy) },
	},
	{
		Key:   "climbs",
		Label: "Player whose notes climb",
		At:    where(long),
		Make:  func(p *Playing, n int) { p.bend(n, sinksBy) },
	},
	{
		Key:   "fades",
		Label: "Player whose notes fade",
		At:    where(even),
		Make:  func(p *Playing, _ int) { p.Player.Fade = fadesBy },
	},
	{
		Key:   "swells",
		Label: "Player whose notes grow",
		At:    where(even),
		Make: func(p *Playing, _ int) {
			p.Player.Level, p.Player.Fade = p.Player.level()-fadesBy, -fadesBy
		},
	},
	{
		Key:   "wavers",
		Label: "Wavering player",
		At:    where(long),
		Make:  func(p *Playing, _ int) { p.Player.WaverDepth = 45 },
	},
	{
		Key:   "flat",
		Label: "Flat player",
		At:    where(long),
		Make:  func(p *Playing, _ int) { p.Player.Offset -= 60 },
	},
	{
		Key:   "sharp",
		Label: "Sharp player",
		At:    where(long),
		Make:  func(p *Playing, _ int) { p.Player.Offset += 60 },
	},
	{
		Key:   "gap",
		Label: "Player whose sound stops once",
		At:    where(long),
		Make: func(p *Playing, n int) {
			p.Player.FaultOn, p.Player.Gaps = n+1, []Gap{{At: p.within(n), Length: stopsFor}}
		},
	},
	{
		Key:   "crack",
		Label: "Player who cracks to the next partial",
		At:    where(long),
		Make: func(p *Playing, n int) {
			up := NextPartial(p.Player.Instrument, p.target(n).Target)
			p.Player.FaultOn = n + 1
			p.Player.Cracks = []Crack{{At: p.within(n), Length: cracksFor, Semitones: up}}
		},
	},
	{
		Key:   "chirps",
		Label: "Player whose reed chirps",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return long(s, i, targets, n) && (i.Family == instrument.Clarinets || i.Family == instrument.Saxophones)
		}),
		Make: func(p *Playing, n int) {
			p.Player.FaultOn, p.Player.Chirps = n+1, []Chirp{{At: p.within(n), Length: chirpsFor}}
		},
	},
	{
		Key:   "same-loudness",
		Label: "Player who does not change the loudness",
		At: whole(func(s scores.Score, _ instrument.Instrument, targets []scores.Segment) bool {
			least, most := 9, -9
			for _, t := range targets {
				if t.Dynamic != "" {
					least, most = min(least, t.Dynamic.Step()), max(most, t.Dynamic.Step())
				}
				if t.DynamicTo != "" {
					return false // a swell: judged as one
				}
			}
			return most-least >= 2
		}),
		Make: func(p *Playing, _ int) { p.Player.Flatten = 1 },
	},
}

const (
	sinksBy   = 80.                  // cents from the start to the end of a note: too much at any stage
	fadesBy   = music.Decibels(15)   // over a note
	stopsFor  = music.Seconds(0.3)   // of a gap
	cracksFor = music.Seconds(0.35)  // of a crack
	chirpsFor = music.Seconds(0.085) // of a chirp
)

// even is a long tone whose loudness is to stay the same.
func even(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
	return long(s, i, targets, n) && s.TempoBPM.Seconds(targets[n].Beats) >= 3
}

// bend makes note n drift by so many cents over its length.
func (p *Playing) bend(n int, cents float64) {
	p.Player.Drift = cents / float64(p.Score.TempoBPM.Seconds(p.target(n).Beats))
}

// within is a moment well inside note n.
func (p *Playing) within(n int) music.Seconds {
	return 0.45 * p.Score.TempoBPM.Seconds(p.target(n).Beats)
}
