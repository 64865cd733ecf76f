package contour_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/contour"
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// live hears a sound in blocks and returns its frames, and the longest time by
// which a frame's centre lay behind the sound when it came out.
func live(
	t *testing.T,
	e contour.Ear,
	samples []float64,
	rate, block int,
) (frames []contour.Frame, behind music.Seconds) {
	t.Helper()
	l, err := e.NewLive(rate)
	require.NoError(t, err)
	for at := 0; at < len(samples); at += block {
		end := min(len(samples), at+block)
		first, out := l.Hear(samples[at:end])
		require.Equal(t, len(frames), first)
		if len(out) > 0 {
			behind = max(behind, music.Seconds(float64(end)/float64(rate))-contour.Time(first))
		}
		frames = append(frames, out...)
	}
	return frames, behind
}

func TestLiveHearsWhatTheWholeTakeHears(t *testing.T) {
	for _, key := range []string{"flute", "clarinet", "trombone", "tuba"} {
		i, err := instrument.Get(key)
		require.NoError(t, err)
		score := scores.Score{TempoBPM: 60, A4Hz: 440, Segments: []scores.Segment{
			{
				Phase:     scores.Play,
				StartBeat: 1,
				Beats:     1.5,
				Target:    i.Home(),
			},
			{
				Phase:     scores.Play,
				StartBeat: 3,
				Beats:     1.5,
				Target:    i.Home() + 7,
			},
			{Phase: scores.Rest, StartBeat: 4.5, Beats: 0.5},
		}}
		sound, truths := synth.Player{
			Instrument: i,
			Offset:     -12,
			Room:       -65,
			Breath:     -40,
			Vibrato:    10,
		}.Play(score, 48000)
		frames, behind := live(t, ear.For(i), sound.Samples, 48000, 512)
		assert.Less(t, float64(behind), 0.05, key)
		wrong, voiced := 0, 0
		for n, f := range frames {
			at := contour.Time(n)
			sounding := false
			for _, truth := range truths {
				if at > truth.Onset+0.08 && at < truth.Release-0.1 {
					sounding = true
					voiced++
					if !(math.Abs(float64(music.Between(truth.At(at), f.Pitch))) < 15) {
						wrong++
					}
				}
			}
			if !sounding && f.Voiced() && (at < truths[0].Onset-0.05 || at > truths[1].Release+0.2) {
				wrong++
			}
		}
		assert.LessOrEqual(t, wrong, voiced/50, "%s: %d of %d", key, wrong, voiced)
	}
}

// However the sound is cut into blocks, the same is heard.
func TestLiveDoesNotDependOnBlocks(t *testing.T) {
	sound := sine(233.08, 1, 44100)
	a, _ := live(t, contour.OpenEar, sound.Samples, 44100, 128)
	b, _ := live(t, contour.OpenEar, sound.Samples, 44100, 4000)
	require.Equal(t, len(a), len(b))
	for n := range a {
		assert.InDelta(t, float64(a[n].Pitch), float64(b[n].Pitch), 1e-6)
		assert.InDelta(t, float64(a[n].Level), float64(b[n].Level), 1e-6)
	}
	_, err := contour.OpenEar.NewLive(8000)
	assert.ErrorIs(t, err, contour.ErrRate)
}
