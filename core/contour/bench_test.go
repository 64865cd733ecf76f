package contour_test

import (
	"testing"

	"earlychorus/core/contour"
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// BenchmarkTrack is the cost of the whole ear on half a minute of playing.
// ./bench compares whole processes with other tools.
func BenchmarkTrack(b *testing.B) {
	for _, key := range []string{"clarinet", "tuba"} {
		i, err := instrument.Get(key)
		if err != nil {
			b.Fatal(err)
		}
		score := scores.Score{TempoBPM: 60, A4Hz: 440}
		for at := music.Beats(1); at < 28; at += 4 {
			score.Segments = append(score.Segments, scores.Segment{
				Phase:     scores.Play,
				StartBeat: at,
				Beats:     3,
				Target:    i.Home() + music.MIDI(at)/3,
			})
		}
		sound, _ := synth.Player{
			Instrument: i,
			Room:       -65,
			Breath:     -40,
			Jitter:     2,
			WaverDepth: 5,
		}.Play(score, 48000)
		for name, ear := range map[string]contour.Ear{"known": ear.For(i), "open": contour.OpenEar} {
			b.Run(key+"/"+name, func(b *testing.B) {
				for b.Loop() {
					track(b, ear, sound)
				}
				b.ReportMetric(sound.Seconds()*float64(b.N)/b.Elapsed().Seconds(), "x-real-time")
			})
		}
	}
}
