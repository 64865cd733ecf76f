package ribbon_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ribbon"
	"earlychorus/core/synth"
)

func draw(t *testing.T, p synth.Player, points int) ribbon.Ribbon {
	t.Helper()
	i, err := instrument.Get("clarinet")
	require.NoError(t, err)
	s, err := exercise.New(
		exercise.KindLongToneCounted,
		map[string]any{"notes": []int{0}, "beats": 8, "rest_beats": 4, "tempo_bpm": 120},
	).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	p.Instrument, p.Room = i, -70
	sound, _ := p.Play(s, 48000)
	a, err := ear.Analyze(context.Background(), sound, ear.Question{Instrument: &i, Score: &s})
	require.NoError(t, err)
	return ribbon.Draw(a, s, i, points)
}

func TestFlatToneLiesBelowTheMiddle(t *testing.T) {
	r := draw(t, synth.Player{Offset: -18}, 96)
	require.Len(t, r.Strokes, 1)
	st := r.Strokes[0]
	assert.InDelta(t, -18, st.Cents[len(st.Cents)/2], 0.5)
	assert.Less(t, len(st.Cents), 100)
	assert.Greater(t, st.Weight[len(st.Weight)/2], 80)
	assert.Less(t, st.Weight[0], 60, "the attack is thin")
	assert.Len(t, r.Beats, 9+1, "a click on every beat in view")
	assert.Equal(t, "C: in tune, held 8 of 8 beats.", r.Text)
}

func TestGapIsLeftWhite(t *testing.T) {
	r := draw(t, synth.Player{Gaps: []synth.Gap{{At: 1, Length: 0.3}}}, 400)
	require.Len(t, r.Strokes, 2)
	assert.InDelta(t, 0.3, float64(r.Strokes[1].From-r.Strokes[0].To), 0.03)
	require.Len(t, r.Gaps, 1)
	assert.Contains(t, r.Text, "in beat 3") // one second in, at 120, is the end of beat 2
}

func TestJumpIsDrawnApartWithItsNote(t *testing.T) {
	r := draw(t, synth.Player{Cracks: []synth.Crack{{At: 1, Length: 0.3, Semitones: 19}}}, 400)
	require.Len(t, r.Jumps, 1)
	assert.True(t, r.Jumps[0].Above)
	assert.Equal(t, "up to G", r.Jumps[0].Label) // from written C4
	for _, st := range r.Strokes {
		for _, c := range st.Cents {
			assert.Less(t, c, 100.)
		}
	}
}

// What came in a note's place stands at the note, in the drawing and in its words: here a
// clarinet's low note goes on where the upper was asked.
func TestANoteThatStayedDownIsToldAtItsPlace(t *testing.T) {
	i, err := instrument.Get("clarinet")
	require.NoError(t, err)
	s, err := exercise.New("register-pair", nil).Score(
		exercise.Player{Instrument: i, Stage: 3},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	player, ok := synth.Perform("stays", s, i, 1)
	require.True(t, ok)
	sound, _ := player.Play(48000)
	a, err := ear.Analyze(context.Background(), sound, ear.Question{Instrument: &i, Score: &s})
	require.NoError(t, err)
	r := ribbon.Draw(a, s, i, 400)
	n := slices.IndexFunc(r.Tracks, func(t ribbon.Track) bool { return t.Became != "" })
	require.Positive(t, n)
	stayed := "stayed on " + r.Tracks[n-1].Called
	assert.Equal(t, stayed, r.Tracks[n].Became)
	assert.Contains(t, r.Text, r.Tracks[n].Called+": "+stayed)
	at := slices.IndexFunc(r.Jumps, func(j ribbon.Jump) bool { return j.Label == stayed })
	require.GreaterOrEqual(t, at, 0, "drawn apart, in the time of the note that did not come")
	assert.InDelta(t, float64(r.Tracks[n].From), float64(r.Jumps[at].From), 0.01)
	for _, st := range r.Strokes {
		assert.False(t, st.From < r.Tracks[n].To-0.2 && st.To > r.Tracks[n].From+0.2, "no ink on its line")
	}
	assert.NotRegexp(t, `[0-9]+ cents|[A-G][♭♯]?[0-9]`, r.Text)
}
