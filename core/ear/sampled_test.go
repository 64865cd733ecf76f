package ear_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/benches/sampled"
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Sampled real instruments (Debian's timgm6mb-soundfont, played by fluidsynth)
// owe nothing to our own synthesiser: over every instrument's beginner range
// each note must be the one asked for, held as long as it was held, and have no
// event that a player could be blamed for.
func TestSampledInstruments(t *testing.T) {
	for _, i := range instrument.All() {
		if !sampled.TimGM.Known(i.Key) {
			continue
		}
		t.Run(i.Key, func(t *testing.T) {
			t.Parallel()
			score := scores.Score{
				TempoBPM: 60,
				A4Hz:     440,
				Segments: []scores.Segment{{Phase: scores.Ready, Beats: 1}},
			}
			var notes []sampled.Note
			for m := i.Beginner.From; m <= i.Beginner.To; m++ {
				at := score.Beats()
				score.Segments = append(score.Segments,
					scores.Segment{
						Phase:     scores.Play,
						StartBeat: at,
						Beats:     1.5,
						Target:    m,
					},
					scores.Segment{Phase: scores.Rest, StartBeat: at + 1.5, Beats: 1})
				notes = append(notes, sampled.Note{From: music.Seconds(at), To: music.Seconds(at + 1.5), MIDI: m})
			}
			sound, err := sampled.TimGM.Render(i.Key, notes)
			require.NoError(t, err)
			a := analyze(t, sound, i, score)
			for n, note := range a.Notes {
				require.True(t, note.Played, "note %d", notes[n].MIDI)
				assert.Equal(t, notes[n].MIDI, note.MIDI)
				assert.InDelta(t, float64(notes[n].From), float64(note.Onset), 0.06, "onset of note %d", notes[n].MIDI)
				ring := 0.065 // 50 ms, and the samples ring on a little by themselves
				if i.Key == "horn" {
					ring = 0.3 // its sample rings on for that long
				}
				assert.InDelta(
					t,
					float64(notes[n].To-notes[n].From),
					float64(note.Release-note.Onset),
					ring,
					"hold of note %d",
					notes[n].MIDI,
				)
			}
			for _, e := range a.Events {
				switch e.Kind {
				case ear.Break, ear.Gap, ear.Chirp, ear.WrongNote, ear.Undertone:
					t.Errorf("note %d: false %s at %.2f s for %.2f s", notes[e.Note].MIDI, e.Kind, e.At, e.Duration)
				}
			}
		})
	}
}
