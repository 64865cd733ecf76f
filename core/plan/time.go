package plan

import (
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// What a step takes besides its own beats (common practice, no published
// source).
const (
	Reading   music.Seconds = 10 // a step, before it begins
	Recording music.Seconds = 20 // a take at home: recording and looking
	// Retries is how many more takes a step at home is expected to need, for each
	// time it is to be played.
	Retries = 0.5
)

// changing is the time to take the mouthpiece out and put it back, or to lay the
// instrument down.
var changing = map[scores.Chapter]music.Seconds{scores.Buzzing: 10, scores.Breathing: 5, scores.Caring: 5}

// Seconds returns what an item takes a player whose score of it is s.
func (i Item) Seconds(s scores.Score, at Place) music.Seconds {
	once := s.Seconds()
	around := Reading + changing[i.Step.Kind.Group]
	if at == AtHome && !i.Step.Kind.Ticked {
		takes := music.Seconds(float64(i.Times) * (1 + Retries))
		return around + takes*(once+Recording)
	}
	return around + music.Seconds(i.Times)*once
}
