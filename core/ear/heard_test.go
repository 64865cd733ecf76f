package ear_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// melody is notes of one length, one after the other, behind a beat of rest.
func melody(articulation scores.Articulation, beats music.Beats, notes ...music.MIDI) scores.Score {
	s := scores.Score{TempoBPM: 60, A4Hz: 440, Segments: []scores.Segment{{Phase: scores.Ready, Beats: 1}}}
	for n, m := range notes {
		seg := scores.Segment{
			Phase:        scores.Play,
			StartBeat:    s.Beats(),
			Beats:        beats,
			Target:       m,
			Articulation: articulation,
		}
		if n == 0 {
			seg.Articulation = scores.Tongued
		}
		s.Segments = append(s.Segments, seg)
	}
	s.Segments = append(s.Segments, scores.Segment{Phase: scores.Rest, StartBeat: s.Beats(), Beats: 1})
	return s
}

func get(t *testing.T, key string) instrument.Instrument {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	return i
}

func TestTonguedRepetitionsAreSeparateNotes(t *testing.T) {
	for _, key := range []string{"flute", "clarinet", "trumpet", "tuba"} {
		i := get(t, key)
		s := melody(scores.Tongued, 0.5, i.Home(), i.Home(), i.Home(), i.Home())
		sound, truth := synth.Player{Instrument: i, Room: -68}.Play(s, 48000)
		a := analyze(t, sound, i, s)
		assert.Empty(t, a.Events, key)
		require.Len(t, a.Notes, 4)
		for n, note := range a.Notes {
			require.True(t, note.Played, key)
			assert.InDelta(t, float64(truth[n].Onset), float64(note.Onset), 0.025, "%s, note %d", key, n)
		}
		// Without the score as well.
		alone, err := ear.Analyze(context.Background(), sound, ear.Question{Instrument: &i})
		require.NoError(t, err)
		assert.Len(t, alone.Notes, 4, key)
	}
}

func TestSlurIsOneBreathOfNotes(t *testing.T) {
	for _, key := range []string{"flute", "clarinet", "bassoon", "trombone"} {
		i := get(t, key)
		s := melody(scores.Slurred, 1, i.Home(), i.Home()+2, i.Home()+4, i.Home())
		sound, truth := synth.Player{Instrument: i, Room: -68, Offset: -9}.Play(s, 48000)
		a := analyze(t, sound, i, s)
		assert.Empty(t, a.Events, key)
		for n, note := range a.Notes {
			require.True(t, note.Played, key)
			assert.InDelta(t, -9, float64(note.Centre), 1.5, "%s, note %d", key, n)
			assert.InDelta(t, float64(truth[n].Onset), float64(note.Onset), 0.025, "%s, note %d", key, n)
			if n > 0 {
				assert.Equal(t, ear.BySlur, note.Start, key)
				assert.Less(t, float64(note.Change), 0.06, key)
			}
		}
	}
}

// A player who tongues where a slur is written is heard to.
func TestTongueInASlur(t *testing.T) {
	i := get(t, "trumpet")
	written := melody(scores.Slurred, 1, i.Home(), i.Home()+7)
	played := melody(scores.Tongued, 1, i.Home(), i.Home()+7)
	sound, _ := synth.Player{Instrument: i, Room: -68}.Play(played, 48000)
	a := analyze(t, sound, i, written)
	assert.NotEqual(t, ear.BySlur, a.Notes[1].Start)
}

// Notes played late, in order, are still the notes they are.
func TestLateNotesKeepTheirPlaces(t *testing.T) {
	i := get(t, "alto-sax")
	s := melody(scores.Tongued, 1, i.Home(), i.Home()+2, i.Home()+4, i.Home()+5, i.Home()+7)
	p := synth.Player{Instrument: i, Room: -68, NoteLates: []music.Seconds{0, 0.1, 0.25, 0.4, 0.5}}
	sound, _ := p.Play(s, 48000)
	a := analyze(t, sound, i, s)
	for n, note := range a.Notes {
		require.True(t, note.Played)
		assert.False(t, note.WrongNote, "note %d", n)
		assert.InDelta(t, float64(p.NoteLates[n]), float64(note.Response), 0.03, "note %d", n)
	}
}

func soundKinds(a ear.Analysis) map[ear.SoundKind]int {
	out := map[ear.SoundKind]int{}
	for _, s := range a.Sounds {
		out[s.Kind]++
	}
	return out
}

func TestOtherSoundsAreReportedNotMeasured(t *testing.T) {
	i := get(t, "clarinet")
	s := scores.Score{TempoBPM: 60, A4Hz: 440, Segments: []scores.Segment{
		{Phase: scores.Ready, Beats: 4},
		{
			Phase:     scores.Play,
			StartBeat: 4,
			Beats:     3,
			Target:    58,
		},
		{Phase: scores.Rest, StartBeat: 7, Beats: 2},
	}}
	sound, _ := synth.Player{Instrument: i, Room: -68}.Play(s, 48000)
	clean := analyze(t, sound, i, s)
	assert.Empty(t, clean.Sounds)

	clicked := synth.Room{Clicks: []music.Seconds{0, 1, 2, 3, 4, 5, 6}}.Record(sound)
	a := analyze(t, clicked, i, s)
	assert.GreaterOrEqual(t, soundKinds(a)[ear.Click], 6, "the metronome")
	assert.Empty(t, a.Events)
	assert.InDelta(t, 0, float64(a.Notes[0].Centre), 1)

	talked := synth.Mixed(sound, sound)
	for n := range talked.Samples {
		talked.Samples[n] /= 2
	}
	synth.Speech(talked, 0.5, 3, -30, 7)
	a = analyze(t, talked, i, s)
	assert.GreaterOrEqual(t, soundKinds(a)[ear.Voice], 3, "%+v", a.Sounds)
	assert.Empty(t, a.Events)
	assert.InDelta(t, 4, float64(a.Notes[0].Onset), 0.03)

	other := scores.Score{TempoBPM: 60, A4Hz: 440, Segments: []scores.Segment{
		{
			Phase:     scores.Play,
			StartBeat: 0.5,
			Beats:     8,
			Target:    63,
		}, {Phase: scores.Rest, StartBeat: 8.5, Beats: 0.5},
	}}
	beside, _ := synth.Player{Instrument: i, Level: -35}.Play(other, 48000)
	a = analyze(t, synth.Mixed(sound, beside), i, s)
	assert.Positive(t, soundKinds(a)[ear.OtherPlayer])
	assert.NotEmpty(t, a.Notes[0].Distrust.Tone, "another player sounds with it: %+v", a.Sounds)
	assert.False(t, a.Notes[0].WrongNote)
	assert.InDelta(t, 0, float64(a.Notes[0].Centre), 3)
}

func TestChirpIsHeardOverTheNote(t *testing.T) {
	for _, key := range []string{"clarinet", "alto-sax", "tuba"} {
		i := get(t, key)
		s := oneNote(i.Home())
		sound, _ := synth.Player{
			Instrument: i,
			Room:       -68,
			Chirps:     []synth.Chirp{{At: 0.8, Length: 0.09}},
		}.Play(
			s,
			48000,
		)
		assert.Equal(t, []ear.EventKind{ear.Chirp}, kinds(analyze(t, sound, i, s)), key)
	}
}

func TestAirAlone(t *testing.T) {
	i := get(t, "trumpet")
	score := func(bursts int) scores.Score {
		return scores.Score{TempoBPM: 60, A4Hz: 440, Segments: []scores.Segment{
			{Phase: scores.Breathe, Beats: 4}, {
				Phase:     scores.Out,
				StartBeat: 4,
				Beats:     8,
				Bursts:    bursts,
			}, {Phase: scores.Rest, StartBeat: 12, Beats: 2},
		}}
	}
	for _, c := range []struct {
		name   string
		bursts int
		player synth.Player
		check  func(ear.Air)
	}{
		{"eight equal bursts", 8, synth.Player{}, func(a ear.Air) {
			assert.Equal(t, 8, a.Bursts)
			assert.Less(t, a.Unequal, 0.15)
		}},
		{"six instead of eight", 8, synth.Player{Bursts: -2}, func(a ear.Air) { assert.Equal(t, 6, a.Bursts) }},
		{"uneven bursts", 8, synth.Player{Uneven: 0.4}, func(a ear.Air) { assert.Greater(t, a.Unequal, 0.3) }},
		{"one stream", 0, synth.Player{}, func(a ear.Air) {
			assert.Equal(t, 1, a.Bursts)
			assert.InDelta(t, 8, float64(a.Length), 0.25)
			assert.Less(t, a.LevelSD, 1.2)
		}},
		{"an unsteady stream", 0, synth.Player{LevelWaver: 4}, func(a ear.Air) { assert.Greater(t, a.LevelSD, 2.) }},
		{
			"a short stream", 0,
			synth.Player{Held: 0.5},
			func(a ear.Air) { assert.InDelta(t, 4, float64(a.Length), 0.25) },
		},
	} {
		c.player.Instrument, c.player.Room = i, -68
		s := score(c.bursts)
		sound, _ := c.player.Play(s, 48000)
		a := analyze(t, sound, i, s)
		require.Len(t, a.Airs, 1, c.name)
		require.True(t, a.Airs[0].Heard, c.name)
		assert.InDelta(t, 0, float64(a.Airs[0].Response), 0.06, c.name)
		c.check(a.Airs[0])
	}
	silent, _ := synth.Player{Instrument: i, Room: -68}.Play(oneNote(58), 48000)
	assert.False(t, analyze(t, silent, i, score(8)).Airs[0].Heard)
}

func TestSlidingBuzz(t *testing.T) {
	i := get(t, "trombone")
	s := scores.Score{TempoBPM: 60, A4Hz: 440, Segments: []scores.Segment{
		{Phase: scores.Ready, Beats: 1},
		{
			Phase:     scores.Buzz,
			StartBeat: 1,
			Beats:     4,
			Target:    53,
			GlideTo:   46,
		},
		{Phase: scores.Rest, StartBeat: 5, Beats: 1},
	}}
	sound, _ := synth.Player{Instrument: i, Room: -68, Breath: -20}.Play(s, 48000)
	slide := analyze(t, sound, i, s).Notes[0].Slide
	require.NotNil(t, slide)
	assert.InDelta(t, 1, slide.Travel, 0.1)
	assert.Less(t, float64(slide.DeadSpot), 0.05)
	assert.Less(t, float64(slide.Back), 30.)

	sound, _ = synth.Player{
		Instrument: i,
		Room:       -68,
		Breath:     -20,
		Gaps:       []synth.Gap{{At: 2, Length: 0.2}},
	}.Play(s, 48000)
	slide = analyze(t, sound, i, s).Notes[0].Slide
	assert.InDelta(t, 0.2, float64(slide.DeadSpot), 0.05)
}

func TestSungInAnyOctave(t *testing.T) {
	i := get(t, "tuba")
	s := oneNote(34)
	s.Segments[1].Phase = scores.Sing
	for octaves := 2; octaves <= 3; octaves++ {
		sound, _ := synth.Player{
			Instrument: i,
			Room:       -68,
			SingsUp:    octaves,
			Offset:     20,
			Jitter:     3,
		}.Play(s, 48000)
		n := analyze(t, sound, i, s).Notes[0]
		assert.False(t, n.WrongNote)
		assert.InDelta(t, 20, float64(n.Centre), 4)
		assert.Equal(t, music.MIDI(34+12*octaves), n.MIDI)
	}
}

func TestToneIsComparedWithItself(t *testing.T) {
	for _, key := range []string{"flute", "clarinet", "trumpet"} {
		i := get(t, key)
		s := oneNote(i.Home())
		hear := func(p synth.Player, dynamic scores.Dynamic) ear.Note {
			p.Instrument, p.Room = i, -75
			s.Segments[1].Dynamic = dynamic
			sound, _ := p.Play(s, 48000)
			return analyze(t, sound, i, s).Notes[0]
		}
		plain := hear(synth.Player{Breath: -40}, "mf")
		assert.Less(
			t,
			float64(hear(synth.Player{Breath: -15}, "mf").Tone.Clearness),
			float64(plain.Tone.Clearness)-10,
			"%s: breathier",
			key,
		)
		loud, soft := hear(synth.Player{Breath: -40}, "ff"), hear(synth.Player{Breath: -40}, "pp")
		assert.Greater(t, loud.Tone.Brightness, soft.Tone.Brightness, "%s: louder is brighter", key)
		assert.InDelta(t, 20, float64(loud.Level-soft.Level), 3, key)
	}
	odd := func(key string) float64 {
		i := get(t, key)
		s := oneNote(i.Home())
		sound, _ := synth.Player{Instrument: i, Room: -75}.Play(s, 48000)
		return float64(analyze(t, sound, i, s).Notes[0].Tone.OddEven)
	}
	assert.Greater(t, odd("clarinet"), odd("alto-sax")+10, "the clarinet's odd harmonics")
}

func TestSwellGoesWithItsBeats(t *testing.T) {
	i := get(t, "euphonium")
	s := scores.Score{TempoBPM: 60, A4Hz: 440, Segments: []scores.Segment{{Phase: scores.Ready, Beats: 1}}}
	for n, d := range [][2]scores.Dynamic{{"pp", "pp"}, {"pp", "ff"}, {"ff", "ff"}, {"ff", "pp"}, {"pp", "pp"}} {
		seg := scores.Segment{
			Phase:        scores.Play,
			StartBeat:    s.Beats(),
			Beats:        2,
			Target:       46,
			Dynamic:      d[0],
			DynamicTo:    d[1],
			Articulation: scores.Slurred,
		}
		if n == 0 {
			seg.Articulation = scores.Tongued
		}
		s.Segments = append(s.Segments, seg)
	}
	s.Segments = append(s.Segments, scores.Segment{Phase: scores.Rest, StartBeat: s.Beats(), Beats: 1})
	sound, _ := synth.Player{Instrument: i, Room: -75, WithLevel: 20}.Play(s, 48000)
	a := analyze(t, sound, i, s)
	require.Len(t, a.Notes, 5)
	assert.Greater(t, float64(a.Notes[2].Level-a.Notes[0].Level), 15.)
	assert.Greater(t, float64(a.Notes[1].LevelTo-a.Notes[1].LevelFrom), 8.)
	assert.Less(t, float64(a.Notes[3].LevelTo-a.Notes[3].LevelFrom), -8.)
	assert.InDelta(t, 10, a.Notes[1].WithLevel, 3, "20 cents over 20 dB")
}

func TestAirBeforeATone(t *testing.T) {
	i := get(t, "flute")
	s := oneNote(72)
	sound, _ := synth.Player{Instrument: i, Room: -68, AirLead: 0.25}.Play(s, 48000)
	n := analyze(t, sound, i, s).Notes[0]
	assert.InDelta(t, 0.25, float64(n.Air), 0.05)
	assert.InDelta(t, 0, float64(n.Response), 0.03)
}

func TestGainThatRidesIsNotBelieved(t *testing.T) {
	i, s := step(t, "trumpet", 0, 7, 0)
	sound, _ := synth.Player{Instrument: i}.Play(s, 48000)
	a := analyze(t, synth.Room{Noise: -60, Device: synth.Device{Riding: true}}.Record(sound), i, s)
	assert.Contains(t, a.Recording.Faults, ear.GainRiding)
	assert.NotEmpty(t, a.Notes[0].Distrust.Level)
	assert.True(t, a.Notes[0].Trusted, "the pitch is still good")
}

// An echo lengthens no note.
func TestEchoIsTheRooms(t *testing.T) {
	i := get(t, "oboe")
	s := oneNote(72)
	sound, truth := synth.Player{Instrument: i, Room: -70}.Play(s, 48000)
	n := analyze(t, synth.Room{Echo: 0.8}.Record(sound), i, s).Notes[0]
	assert.InDelta(t, float64(truth[0].Release), float64(n.Release), 0.05)
}

func TestPulsesOfAirAreCounted(t *testing.T) {
	for _, key := range []string{"flute", "trumpet", "tuba", "bassoon"} {
		i := get(t, key)
		for _, pulses := range []int{1, 2, 4} {
			s := melody(scores.Tongued, 8, i.Home())
			s.Segments[1].Pulses = pulses
			sound, _ := synth.Player{Instrument: i, Room: -70, Jitter: 2}.Play(s, 48000)
			p := analyze(t, sound, i, s).Notes[0].Pulse
			require.NotNil(t, p)
			assert.InDelta(t, float64(pulses), p.Rate, 0.05*float64(pulses), key)
			assert.InDelta(t, 6, p.Depth, 2.5, key)

			slow, _ := synth.Player{Instrument: i, Room: -70, Pulsing: 0.8}.Play(s, 48000)
			assert.InDelta(
				t,
				0.8*float64(pulses),
				analyze(t, slow, i, s).Notes[0].Pulse.Rate,
				0.05*float64(pulses),
				key,
			)
		}
		s := melody(scores.Tongued, 8, i.Home())
		s.Segments[1].Pulses = 2
		even, _ := synth.Player{Instrument: i, Room: -70, Flatten: 1}.Play(s, 48000)
		assert.Zero(t, analyze(t, even, i, s).Notes[0].Pulse.Rate, "an even tone has none")
	}
}

// Mains that hum just where a tuba plays are none of its notes, before them or between.
func TestAHumIsNoNote(t *testing.T) {
	i := get(t, "tuba")
	s := melody(scores.Tongued, 2, 34, 34)
	s.Segments[0].Beats = 4
	for n := range s.Segments[1:] {
		s.Segments[1+n].StartBeat += 3
		s.Segments[1+n].Articulation = scores.BreathStart
	}
	s.Segments[2].StartBeat += 2 // a rest, so that the first note ends
	s.Segments[3].StartBeat += 2
	dry, truth := synth.Player{Instrument: i, Level: -24, Room: -68}.Play(s, 24000)
	laptop := synth.Device{LowCut: 90, HighCut: 11000}
	humming := synth.Room{
		Seed:   1,
		Noise:  -52,
		Hum:    -58,
		HumHz:  60,
		Device: laptop,
	}.Record(dry)
	a := analyze(t, humming, i, s)
	require.Len(t, a.Notes, 2)
	for n, note := range a.Notes {
		assert.True(t, note.Played)
		assert.InDelta(t, float64(truth[n].Onset), float64(note.Onset), 0.1, "note %d", n)
		assert.InDelta(t, float64(truth[n].Release), float64(note.Release), 0.2, "note %d", n)
	}
}
