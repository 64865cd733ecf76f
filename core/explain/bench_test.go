package explain_test

import (
	"testing"

	"earlychorus/core/explain"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// BenchmarkSolve is a scale with a voice in the room: sixty sounds beside the notes.
func BenchmarkSolve(b *testing.B) {
	p := explain.Part{Score: line(scores.Tongued, 58, 60, 62, 63, 65, 67, 69, 70, 69, 67, 65, 63)}
	var sounds []explain.Sound
	for n, t := range p.Score.Targets() {
		at := p.Score.TempoBPM.Seconds(t.StartBeat)
		sounds = append(sounds, explain.Sound{
			Onset:   at,
			Release: at + 0.3,
			Level:   -20,
			Pitch:   music.Between(music.StandardA4, t.Target.Frequency(music.StandardA4)),
		})
		for k := range 4 {
			begin := at + 0.3 + 0.09*music.Seconds(k)
			sounds = append(sounds, explain.Sound{
				Onset:   begin,
				Release: begin + 0.08,
				Level:   -45,
				Alien:   k%2 == 0,
				Pitch:   music.Cents(-1400 + 137*((3*n+k)%5)),
			})
		}
	}
	for b.Loop() {
		explain.Solve(sounds, p)
	}
}
