// Package lesson makes whole takes of which a teacher would know what to say: a
// step of every kind, for an instrument and a stage that can play it, played right
// or with one known mistake, by recorded instruments or by the core's own players,
// in dry and in ringing rooms.
package lesson

import (
	"context"
	"fmt"
	"hash/fnv"
	"math/rand/v2"

	"earlychorus/benches/sampled"
	"earlychorus/core/audio"
	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/explain"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
)

// Lesson is one take and what a teacher would conclude from it.
type Lesson struct {
	Instrument instrument.Instrument
	Step       exercise.Step
	Stage      scores.Stage
	Mistake    string // key; "" for a right take
	Target     int    // at which the mistake is made
	Source     string // of the sound: a package's name, or "own players"
	Room       Room
	Score      scores.Score
	Expect     Expectation

	round int
}

// Expectation is what a teacher would conclude.
type Expectation struct {
	Results []verdict.Result
	Causes  []measure.Cause // any of them; none for a right take
	Account explain.Kind    // of the target; "" where any will do
	Came    music.MIDI      // the note that sounded instead; 0 where any will do
	Tips    []string        // any of them; none where any will do
}

// OwnPlayers is the source of lessons that owe nothing to recordings.
const OwnPlayers = "own players"

// Name says which lesson it is, in one line.
func (l Lesson) Name() string {
	mistake := l.Mistake
	if mistake == "" {
		mistake = "right"
	}
	return fmt.Sprintf("%s/%s/%d/%s@%d/%s/%s",
		l.Instrument.Key, l.Step.Kind.Key, l.Stage, mistake, l.Target, l.Source, l.Room.Name)
}

// hash spreads lessons over halves, always the same.
func (l Lesson) hash() uint64 {
	h := fnv.New64a()
	_, _ = h.Write([]byte(l.Name())) // does not fail
	return h.Sum64()
}

// Part is which half a lesson belongs to: work is done on part 0, and part 1 is
// kept for the last look.
func (l Lesson) Part() int { return int(l.hash() >> 7 & 1) }

// Sound plays the take and records it in its room.
func (l Lesson) Sound() (audio.Mono, error) {
	chance := rand.New(rand.NewPCG(l.hash(), 1+uint64(l.round)))
	player := synth.Player{
		Instrument: l.Instrument,
		Seed:       chance.Uint64(),
		Late:       music.Seconds(0.02 + 0.03*chance.Float64()),
		Jitter:     3,
		Breath:     -44,
		Level:      -24, // so that very loud is not too loud for the microphone
	}
	playing := synth.Playing{Score: l.Score, Player: player}
	if m, ok := synth.MistakeOf(l.Mistake); ok {
		playing = m.Apply(player, l.Score, l.Target)
	}
	take, err := l.play(playing)
	if err != nil {
		return audio.Mono{}, err
	}
	return l.Room.record(take, l.Score, chance), nil
}

func (l Lesson) play(p synth.Playing) (audio.Mono, error) {
	for _, f := range sampled.Fonts() {
		if f.Name == l.Source {
			return f.Play(p, rate)
		}
	}
	sound, _ := p.Play(rate)
	return sound, nil
}

// rate is enough for what the ear listens to, and half the work of a microphone's.
const rate = 24000

// Conclusion is what the program made of a lesson.
type Conclusion struct {
	Analysis ear.Analysis
	Verdict  verdict.Verdict
}

// Way is a way of finding the story behind a take.
type Way func([]explain.Sound, explain.Part) explain.Story

// Hear gives the lesson's take to the program.
func (l Lesson) Hear(ctx context.Context) (Conclusion, error) { return l.HearBy(ctx, explain.Solve) }

// HearBy gives the lesson's take to the program, which explains it in some way.
func (l Lesson) HearBy(ctx context.Context, way Way) (Conclusion, error) {
	sound, err := l.Sound()
	if err != nil {
		return Conclusion{}, err
	}
	heard, err := ear.Analyze(ctx, sound, ear.Question{
		Instrument: &l.Instrument,
		Score:      &l.Score,
		Explain:    way,
	})
	if err != nil {
		return Conclusion{}, err
	}
	word, err := verdict.Decide(verdict.Case{
		Case: measure.Case{Instrument: l.Instrument, Score: l.Score, Analysis: heard},
	})
	return Conclusion{heard, word}, err
}
