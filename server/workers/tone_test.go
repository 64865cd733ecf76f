package workers_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/music"
	"earlychorus/core/synth"
	"earlychorus/core/tone"
	"earlychorus/server/growth"
	"earlychorus/server/intake"
	"earlychorus/server/store"
)

var (
	quiet    = synth.Room{Seed: 1, Noise: -70}
	bandHall = synth.Room{Seed: 1, Noise: -70, Hall: synth.Hall{Fall: 0.9}}
)

// playThrough hands a take in that was played some days ago through a microphone in a
// room, and has it heard.
func (b bench) playThrough(daysAgo int, through string, p synth.Player, room synth.Room) store.Take {
	b.t.Helper()
	now, err := b.store.Standing(b.t.Context(), b.band.Players[0])
	require.NoError(b.t, err)
	at := time.Now().AddDate(0, 0, -daysAgo)
	score, i, err := intake.Score(b.band.Step, now, b.band.Class.Day(at))
	require.NoError(b.t, err)
	p.Instrument = i
	p.Seed = uint64(daysAgo) + 1
	sound, _ := p.Play(score, 48000)
	h := intake.Upload{
		ID:          store.NewID(),
		Player:      b.band.Players[0],
		StepID:      b.band.Step.ID,
		StepVersion: 1,
		Source:      store.Microphone,
		At:          at,
		Through:     through,
	}
	_, err = b.intake.Sound(b.t.Context(), h, room.Record(sound))
	require.NoError(b.t, err)
	require.NoError(b.t, b.work(h.ID))
	t, err := b.store.Take(b.t.Context(), h.ID)
	require.NoError(b.t, err)
	return t
}

// A player's tone is compared with the player's own: breathier is heard, and another
// microphone or another room is no change of the player's.
func TestToneIsComparedWithThePlayersOwn(t *testing.T) {
	b := newBench(t, "TONE")
	usual := func(daysAgo int) synth.Player {
		return synth.Player{Breath: -34 - music.Decibels(daysAgo%3)}
	}
	for daysAgo := 9; daysAgo > 1; daysAgo-- {
		b.playThrough(daysAgo, "home", usual(daysAgo), quiet)
	}
	toneOf := func(taken store.Take) (why tone.Why, word string) {
		said, err := growth.ToneOf(t.Context(), b.store, taken)
		require.NoError(t, err)
		if len(said.Changes) > 0 {
			word = said.Changes[0].Word
		}
		return said.Why, word
	}
	why, word := toneOf(b.playThrough(1, "home", usual(1), quiet))
	assert.Empty(t, why)
	assert.Equal(t, "as usual", word)
	why, word = toneOf(b.playThrough(0, "home", synth.Player{Breath: -18}, quiet))
	assert.Empty(t, why)
	assert.Equal(t, "breathier", word)
	why, _ = toneOf(b.playThrough(0, "school", usual(0), quiet))
	assert.Equal(t, tone.OtherDevice, why)
	why, _ = toneOf(b.playThrough(0, "home", usual(0), bandHall))
	assert.Equal(t, tone.OtherRoom, why)

	class, day := b.band.Class, b.band.Class.Day(time.Now())
	page, err := growth.Of(t.Context(), b.store, class, b.band.Players[0].ID, 4, day)
	require.NoError(t, err)
	assert.NotEmpty(t, page.Tone.Says)
	section, err := growth.ToneOfSection(t.Context(), b.store, class, "Clarinets", day)
	require.NoError(t, err)
	require.NotEmpty(t, section.Players)
	assert.NotEmpty(t, section.Players[0].Tone.Says)
	_, err = growth.ToneOfSection(t.Context(), b.store, class, "Harps", day)
	assert.ErrorIs(t, err, store.ErrNotFound)
}
