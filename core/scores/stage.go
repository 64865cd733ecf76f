package scores

import (
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Stage is how far a player has come, in school weeks from the first lesson:
// 1 is weeks 1–4, 2 weeks 5–9, 3 weeks 10–18, 4 from week 19.
type Stage int

// Limits are what a take must keep to be clean. A director may change any.
type Limits struct {
	Centre     music.Cents   `json:"centre_cents" doc:"farthest the centre may lie from the target, either way"`
	Waver      music.Cents   `json:"waver_cents" doc:"half the 5–95 % range of the detrended pitch"`
	HeldRatio  float64       `json:"held_ratio" doc:"sounding share of the beats asked for"`
	Gap        music.Seconds `json:"gap_s" doc:"shortest silence inside a note that counts as a gap"`
	Break      music.Seconds `json:"break_s" doc:"shortest visit to another partial that counts as a break"`
	ChangeTime music.Seconds `json:"change_s" doc:"longest change between two notes"`

	Drift music.Cents    `json:"drift_cents" doc:"how far a long note may climb or sink from its start to its end"`
	Level music.Decibels `json:"level_db" doc:"how far an even note may fade or grow from its start to its end"`
	Start music.Seconds  `json:"start_s" doc:"how far from its beat a note may begin"`
}

// Limits returns the stage's tolerances (common practice, no published
// source); an unknown stage is taken as the nearest known one.
func (s Stage) Limits() Limits {
	l := Limits{HeldRatio: 0.9, Gap: 0.06, Break: 0.04}
	switch {
	case s <= 1:
		l.Centre, l.Waver, l.ChangeTime = 50, 25, 0.4
		l.Drift, l.Level, l.Start = 50, 12, 0.4
	case s == 2:
		l.Centre, l.Waver, l.ChangeTime = 25, 12, 0.25
		l.Drift, l.Level, l.Start = 25, 8, 0.25
	case s == 3:
		l.Centre, l.Waver, l.ChangeTime = 18, 9, 0.18
		l.Drift, l.Level, l.Start = 18, 6, 0.18
	default:
		l.Centre, l.Waver, l.ChangeTime = 12, 6, 0.12
		l.Drift, l.Level, l.Start = 12, 4, 0.12
	}
	return l
}

// Usable reports whether a director's own limits make sense.
func (l Limits) Usable() bool {
	within := func(x, least, most float64) bool { return x >= least && x <= most }
	return within(float64(l.Centre), 3, 100) && within(float64(l.Waver), 2, 60) && within(l.HeldRatio, 0.5, 1) &&
		within(float64(l.Gap), 0.03, 0.5) &&
		within(float64(l.Break), 0.03, 0.5) &&
		within(float64(l.ChangeTime), 0.05, 1) &&
		within(float64(l.Drift), 3, 200) &&
		within(float64(l.Level), 2, 30) &&
		within(float64(l.Start), 0.05, 1)
}

// Filled returns the limits with those that are not set taken from others: limits
// that a director changed before there were so many.
func (l Limits) Filled(from Limits) Limits {
	if l.Drift == 0 {
		l.Drift = from.Drift
	}
	if l.Level == 0 {
		l.Level = from.Level
	}
	if l.Start == 0 {
		l.Start = from.Start
	}
	return l
}

// StageOfWeek returns the stage of the school week that many weeks after the
// first lesson; the week of the lesson is 1.
func StageOfWeek(week int) Stage {
	switch {
	case week < 5:
		return 1
	case week < 10:
		return 2
	case week < 19:
		return 3
	}
	return 4
}

// Easier returns the stage hard notes are judged at.
func (s Stage) Easier() Stage { return max(1, s-1) }

// Span returns the notes around a home note that the stage asks for (common
// practice, no published source); the beginner range bounds it too.
func (s Stage) Span(i instrument.Instrument) instrument.Span {
	below, above := music.MIDI(8), music.MIDI(14) // a clarinet's low E
	switch {
	case s <= 1:
		below, above = 2, 9
	case s == 2:
		below, above = 5, 12
	case s >= 4:
		return i.Beginner
	}
	return instrument.Span{From: max(i.Beginner.From, i.Home()-below), To: min(i.Beginner.To, i.Home()+above)}
}
