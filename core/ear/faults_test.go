package ear_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// oneNote is a note of two seconds with a second before and behind it.
func oneNote(note music.MIDI) scores.Score {
	return scores.Score{TempoBPM: 60, A4Hz: 440, Segments: []scores.Segment{
		{Phase: scores.Ready, Beats: 1},
		{
			Phase:     scores.Play,
			StartBeat: 1,
			Beats:     2,
			Target:    note,
		},
		{Phase: scores.Rest, StartBeat: 3, Beats: 1},
	}}
}

// faults are put into a simulated player one at a time; what must come out is
// that fault and no other.
var faults = []struct {
	name  string
	put   func(*synth.Player, music.MIDI)
	want  []ear.EventKind
	check func(t *testing.T, a ear.Analysis, says string)
}{
	{name: "none"},
	{
		name: "flat",
		put:  func(p *synth.Player, _ music.MIDI) { p.Offset = -31 },
		check: func(t *testing.T, a ear.Analysis, says string) {
			assert.InDelta(t, -31, float64(a.Notes[0].Centre), 0.5, says)
		},
	},
	{
		name: "drifting",
		put:  func(p *synth.Player, _ music.MIDI) { p.Drift = 8 },
		check: func(t *testing.T, a ear.Analysis, says string) {
			assert.InDelta(t, 8, a.Notes[0].Drift, 0.6, says)
		},
	},
	{
		name: "wavering",
		put:  func(p *synth.Player, _ music.MIDI) { p.WaverDepth, p.WaverHz = 30, 3 },
		want: []ear.EventKind{ear.Waver},
		check: func(t *testing.T, a ear.Analysis, says string) {
			assert.InDelta(t, 3, a.Notes[0].WaverHz, 0.3, says)
			assert.InDelta(t, 24, float64(a.Notes[0].Waver), 4, says) // four fifths of it is regular
		},
	},
	{
		name: "vibrato",
		put:  func(p *synth.Player, _ music.MIDI) { p.Vibrato = 30 },
		check: func(t *testing.T, a ear.Analysis, says string) {
			assert.True(t, a.Notes[0].Vibrato, says)
			assert.InDelta(t, 5.5, a.Notes[0].WaverHz, 0.3, says)
		},
	},
	{
		name: "gap of 80 ms",
		put:  func(p *synth.Player, _ music.MIDI) { p.Gaps = []synth.Gap{{At: 0.9, Length: 0.08}} },
		want: []ear.EventKind{ear.Gap},
	},
	{
		name: "gap of 300 ms",
		put:  func(p *synth.Player, _ music.MIDI) { p.Gaps = []synth.Gap{{At: 0.9, Length: 0.3}} },
		want: []ear.EventKind{ear.Gap},
		check: func(t *testing.T, a ear.Analysis, says string) {
			assert.InDelta(t, 0.3, float64(a.Events[0].Duration), 0.03, says)
			assert.InDelta(t, 1.9, float64(a.Events[0].At), 0.03, says)
		},
	},
	{
		name: "crack of 100 ms",
		put: func(p *synth.Player, m music.MIDI) {
			p.Cracks = []synth.Crack{{At: 0.9, Length: 0.1, Semitones: synth.NextPartial(p.Instrument, m)}}
		},
		want: []ear.EventKind{ear.Break},
		check: func(t *testing.T, a ear.Analysis, says string) {
			assert.InDelta(t, 0.1, float64(a.Events[0].Duration), 0.045, says)
			assert.True(t, a.Events[0].Returned, says)
		},
	},
	{
		name: "crack of 300 ms",
		put: func(p *synth.Player, m music.MIDI) {
			p.Cracks = []synth.Crack{{At: 0.9, Length: 0.3, Semitones: synth.NextPartial(p.Instrument, m)}}
		},
		want: []ear.EventKind{ear.Break},
		check: func(t *testing.T, a ear.Analysis, says string) {
			assert.InDelta(t, 0.3, float64(a.Events[0].Duration), 0.03, says)
			assert.InDelta(t, 0, float64(a.Notes[0].Centre), 1, says)
		},
	},
	{
		name: "late",
		put:  func(p *synth.Player, _ music.MIDI) { p.Late = 0.3 },
		want: []ear.EventKind{ear.LateStart},
		check: func(t *testing.T, a ear.Analysis, says string) {
			assert.InDelta(t, 0.3, float64(a.Notes[0].Response), 0.02, says)
		},
	},
	{name: "scooping", put: func(p *synth.Player, _ music.MIDI) { p.Scoop = -90 }, want: []ear.EventKind{ear.Scoop}},
	{name: "sagging", put: func(p *synth.Player, _ music.MIDI) { p.Sag = 60 }, want: []ear.EventKind{ear.Sag}},
	{
		name: "fading",
		put:  func(p *synth.Player, _ music.MIDI) { p.Fade = 10 },
		check: func(t *testing.T, a ear.Analysis, says string) {
			assert.InDelta(t, -5, a.Notes[0].Tail, 1, says) // 10 dB over two seconds
		},
	},
	{name: "breathy", put: func(p *synth.Player, _ music.MIDI) { p.Breath = -14 }},
}

// aboveTheEar is the first note above 2900 Hz, where the ear ends. A crack of a piccolo's
// high notes leads beyond it, and is heard as a gap.
const aboveTheEar music.MIDI = 102

// Every fault, over every instrument's beginner range.
func TestFaultInFaultOut(t *testing.T) {
	for _, i := range instrument.All() {
		t.Run(i.Key, func(t *testing.T) {
			t.Parallel()
			for note := i.Beginner.From; note <= i.Beginner.To; note += 11 {
				for _, f := range faults {
					cracked := note + music.MIDI(synth.NextPartial(i, note))
					if strings.HasPrefix(f.name, "crack") && cracked >= aboveTheEar {
						continue
					}
					says := fmt.Sprintf("%s, note %d, %s", i.Key, note, f.name)
					p := synth.Player{
						Instrument: i,
						Seed:       uint64(note),
						Room:       -68,
						Breath:     -42,
					}
					if f.put != nil {
						f.put(&p, note)
					}
					s := oneNote(note)
					sound, truth := p.Play(s, 48000)
					a := analyze(t, sound, i, s)
					if !assert.Equal(t, f.want, kinds(a), says) {
						continue
					}
					n := a.Notes[0]
					require.True(t, n.Played, says)
					assert.True(t, n.Trusted, says)
					assert.Empty(t, a.Recording.Faults, says)
					assert.InDelta(t, float64(truth[0].Onset), float64(n.Onset), 0.02, says)
					within := 0.02
					if f.name == "fading" {
						within = 0.03 // the last of it is soft
					}
					assert.InDelta(t, float64(truth[0].Release), float64(n.Release), within, says)
					if f.check != nil {
						f.check(t, a, says)
					}
				}
			}
		})
	}
}
