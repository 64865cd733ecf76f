package outcome_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/benches/lessons/lesson"
	"earlychorus/core/audio"
	"earlychorus/core/ear"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
)

// stepOf is a step of a kind as a flute of our own plays it right.
func stepOf(t *testing.T, kind string) lesson.Lesson {
	t.Helper()
	all, err := lesson.All(0)
	require.NoError(t, err)
	n := slices.IndexFunc(all, func(l lesson.Lesson) bool {
		return l.Instrument.Key == "flute" && l.Step.Kind.Key == kind && l.Mistake == "" &&
			l.Source == lesson.OwnPlayers
	})
	require.GreaterOrEqual(t, n, 0)
	return all[n]
}

func player(l lesson.Lesson) synth.Player {
	return synth.Player{Instrument: l.Instrument, Breath: -44, Level: -24}
}

// What excuses a right take must not excuse a wrong one: who tongues a long tone on and on is
// no tone that ripples.
func TestALongToneTonguedOnAndOnIsTold(t *testing.T) {
	l := stepOf(t, "long-tone-counted")
	played := l.Score
	played.Segments = nil
	for _, s := range l.Score.Segments {
		if s.Phase != scores.Play {
			played.Segments = append(played.Segments, s)
			continue
		}
		for at := music.Beats(0); at < s.Beats; at += 0.5 {
			again := s
			again.StartBeat, again.Beats, again.Articulation = s.StartBeat+at, 0.5, scores.Tongued
			played.Segments = append(played.Segments, again)
		}
	}
	sound, _ := player(l).Play(played, 24000)
	heard, _ := heardIn(t, l, synth.Room{Noise: -66, Hall: synth.Hall{Fall: 0.3}}.Record(sound))
	tongued := slices.DeleteFunc(heard.Events, func(e ear.Event) bool { return e.Kind != ear.Tongue })
	assert.Greater(t, len(tongued), 4)
}

// Nor does our own count-in, heard from the loudspeaker: it is over before the notes end.
func TestAnEndIsJudgedThoughTheCountInWasHeard(t *testing.T) {
	l := stepOf(t, "starts-and-ends")
	sound, _ := player(l).Play(l.Score, 24000)
	room := synth.Room{Noise: -66, Hall: synth.Hall{Fall: 0.3}, Click: -18}
	for beat := music.Beats(0); beat < l.Score.Targets()[0].StartBeat; beat++ {
		room.Clicks = append(room.Clicks, l.Score.TempoBPM.Seconds(beat))
	}
	_, word := heardIn(t, l, room.Record(sound))
	ends := slices.DeleteFunc(word.Measures, func(r measure.Reading) bool { return r.Key != measure.Taper.Key })
	require.NotEmpty(t, ends)
	for _, r := range ends {
		assert.Empty(t, r.Trust, "note %d", r.Note)
	}
}

func heardIn(t *testing.T, l lesson.Lesson, sound audio.Mono) (ear.Analysis, verdict.Verdict) {
	t.Helper()
	heard, err := ear.Analyze(context.Background(), sound, ear.Question{Instrument: &l.Instrument, Score: &l.Score})
	require.NoError(t, err)
	word, err := verdict.Decide(verdict.Case{
		Case: measure.Case{Instrument: l.Instrument, Score: l.Score, Analysis: heard},
	})
	require.NoError(t, err)
	return heard, word
}
