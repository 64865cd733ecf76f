package exercise

import "earlychorus/core/music"

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
}

// Limits returns the stage's tolerances (common practice, no published
// source); an unknown stage is taken as the nearest known one.
func (s Stage) Limits() Limits {
	l := Limits{HeldRatio: 0.9, Gap: 0.06, Break: 0.04}
	switch {
	case s <= 1:
		l.Centre, l.Waver, l.ChangeTime = 50, 25, 0.4
	case s == 2:
		l.Centre, l.Waver, l.ChangeTime = 25, 12, 0.25
	case s == 3:
		l.Centre, l.Waver, l.ChangeTime = 18, 9, 0.18
	default:
		l.Centre, l.Waver, l.ChangeTime = 12, 6, 0.12
	}
	return l
}

// Easier returns the stage hard notes are judged at.
func (s Stage) Easier() Stage { return max(1, s-1) }

// Conventions are the schools a class follows, as far as scores need them.
type Conventions struct {
	A4    music.Hertz  `json:"a4_hz"`
	Start Articulation `json:"start" enum:"tongued,breath"`
}

// StandardConventions are the defaults: A at 440, tongued starts.
func StandardConventions() Conventions {
	return Conventions{A4: music.StandardA4, Start: Tongued}
}
