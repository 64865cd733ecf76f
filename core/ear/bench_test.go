package ear_test

import (
	"context"
	"testing"

	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/synth"
)

// BenchmarkAnalyze is the cost of a whole analysis of the usual long tone: of one with many
// harmonics in a dry room, and of one with few in a hall, which is looked into more often.
func BenchmarkAnalyze(b *testing.B) {
	for _, c := range []struct {
		instrument string
		hall       synth.Hall
	}{{"clarinet", synth.Hall{}}, {"piccolo", synth.Hall{Fall: 1.2}}} {
		b.Run(c.instrument, func(b *testing.B) {
			i, err := instrument.Get(c.instrument)
			if err != nil {
				b.Fatal(err)
			}
			s, err := exercise.New(exercise.KindLongToneCounted, nil).Score(
				exercise.Player{Instrument: i, Stage: 2},
				exercise.StandardConventions(),
			)
			if err != nil {
				b.Fatal(err)
			}
			played, _ := synth.Player{
				Instrument: i,
				Room:       -68,
				Breath:     -40,
				Jitter:     2,
			}.Play(s, 48000)
			sound := synth.Room{Hall: c.hall}.Record(played)
			for b.Loop() {
				_, err := ear.Analyze(context.Background(), sound, ear.Question{Instrument: &i, Score: &s})
				if err != nil {
					b.Fatal(err)
				}
			}
			b.ReportMetric(sound.Seconds()*float64(b.N)/b.Elapsed().Seconds(), "x-real-time")
		})
	}
}
