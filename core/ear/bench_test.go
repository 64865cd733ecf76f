package ear_test

import (
	"context"
	"testing"

	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/synth"
)

// BenchmarkAnalyze is the cost of a whole analysis of the usual long tone.
func BenchmarkAnalyze(b *testing.B) {
	i, err := instrument.Get("clarinet")
	if err != nil {
		b.Fatal(err)
	}
	s, err := exercise.New(
		exercise.KindLongToneCounted,
		nil,
	).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	if err != nil {
		b.Fatal(err)
	}
	sound, _ := synth.Player{
		Instrument: i,
		Room:       -68,
		Breath:     -40,
		Jitter:     2,
	}.Play(s, 48000)
	for b.Loop() {
		if _, err := ear.Analyze(context.Background(), sound, ear.Question{Instrument: &i, Score: &s}); err != nil {
			b.Fatal(err)
		}
	}
	b.ReportMetric(sound.Seconds()*float64(b.N)/b.Elapsed().Seconds(), "x-real-time")
}
