package engrave_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/engrave"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
)

const pageWidth = 110.

func systems(t *testing.T, key, kind string, set map[string]any) []engrave.System {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	s, err := exercise.New(kind, set).Score(exercise.Player{Instrument: i, Stage: 3}, exercise.StandardConventions())
	require.NoError(t, err)
	return engrave.Score(s, pageWidth)
}

func count(all []engrave.System, code rune) (n int) {
	for _, s := range all {
		for _, m := range s.Marks {
			if m.Kind == engrave.Glyph && m.Code == code {
				n++
			}
		}
	}
	return n
}

// Every kind on every instrument stays inside its line, and everything drawn
// stays inside the room that is told.
func TestNothingLeavesThePage(t *testing.T) {
	for _, k := range exercise.Catalogue() {
		for _, i := range instrument.All() {
			s, err := exercise.New(
				k.Key,
				nil,
			).Score(
				exercise.Player{Instrument: i, Stage: 3},
				exercise.StandardConventions(),
			)
			if err != nil {
				continue
			}
			for _, y := range engrave.Score(s, pageWidth) {
				assert.LessOrEqual(t, y.Width, pageWidth+0.5, "%s on %s", k.Key, i.Key)
				for _, m := range y.Marks {
					assert.GreaterOrEqual(t, m.X, -0.01)
					assert.LessOrEqual(t, m.X, pageWidth+1)
					assert.GreaterOrEqual(t, m.Y, -y.Above-0.8, "%s on %s", k.Key, i.Key)
					assert.LessOrEqual(t, m.Y, y.Below+0.8, "%s on %s", k.Key, i.Key)
				}
			}
		}
	}
}

func TestNotesStandWhereTheyAreRead(t *testing.T) {
	// Trumpet C4 on a ledger line under the treble staff, G4 on its second line.
	all := systems(t, "trumpet", "long-tone-counted", map[string]any{"notes": []int{0, 7}, "beats": 4})
	require.Len(t, all, 1)
	var heads []float64
	for _, m := range all[0].Marks {
		if m.Kind == engrave.Glyph && m.Code == '\uE0A2' {
			heads = append(heads, m.Y)
		}
	}
	assert.Equal(t, []float64{5, 3}, heads)
	// Tuba B♭1 hangs under the bass staff; its key has two flats.
	tuba := systems(t, "tuba", "long-tone-counted", map[string]any{"notes": []int{0}, "beats": 4})
	for _, m := range tuba[0].Marks {
		if m.Kind == engrave.Glyph && m.Code == '\uE0A2' {
			assert.InDelta(t, 6.5, m.Y, 1e-9, "under the second ledger line")
		}
	}
	assert.Equal(t, 2, count(tuba, '\uE260'))
	assert.Equal(t, 1, count(tuba, '\uE062'))
}

func TestLongNotesAreTiedAndSlursDrawn(t *testing.T) {
	arcs := func(all []engrave.System) (n int) {
		for _, s := range all {
			for _, m := range s.Marks {
				if m.Kind == engrave.Arc {
					n++
				}
			}
		}
		return n
	}
	assert.Equal(t, 1, arcs(systems(t, "flute", "long-tone-counted", map[string]any{"notes": []int{0}, "beats": 8})))
	assert.Equal(
		t,
		2,
		arcs(systems(t, "trombone", "slur-across-partials", map[string]any{"beats": 1})),
		"one for each time",
	)
}

func TestBreathingHasNothingToRead(t *testing.T) {
	assert.Empty(t, systems(t, "flute", "breath-pattern", nil))
	assert.Empty(t, systems(t, "flute", "set-up", nil))
}

// What is asked of loudness, tongue and ends stands on paper, too.
func TestPaperHasDynamicsAndManners(t *testing.T) {
	words := func(all []engrave.System) (out []string) {
		for _, s := range all {
			for _, m := range s.Marks {
				if m.Kind == engrave.Text {
					out = append(out, m.Words)
				}
			}
		}
		return out
	}
	swell := systems(t, "flute", "swell", nil)
	assert.Equal(t, 4, count(swell, '\uE520'), "pp at its beginning and at its end")
	starts := systems(t, "oboe", "starts-and-ends", map[string]any{"start": "breath"})
	assert.Contains(t, words(starts), "no tongue, taper")
	assert.Positive(t, count(starts, '\uE522'), "loud")
	short := systems(t, "flute", "excerpt", map[string]any{
		"melody": []map[string]any{{"degree": 0, "beats": 1, "mark": "staccato"}, {"degree": 0, "beats": 1}},
	})
	assert.Positive(t, count(short, '\uE4A2')+count(short, '\uE4A3'))
}
