package music_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"earlychorus/core/music"
)

func ExampleBetween_flatA() {
	note, off := music.Nearest(435, 440) // an A played a little low
	fmt.Printf("note %d, %+.0f cents\n", note, off)
	// Output: note 69, -20 cents
}

func TestFrequency(t *testing.T) {
	// Equal temperament on ISO 16:1975, rounded as any handbook prints them.
	for _, c := range []struct {
		name string
		midi music.MIDI
		hz   float64
	}{
		{"tuning A", 69, 440},
		{"middle C", 60, 261.63},
		{"tuba B♭1", 34, 58.27},
		{"lowest tuba E1", 28, 41.20},
		{"piccolo-high C8", 108, 4186.01},
	} {
		assert.InDelta(t, c.hz, float64(c.midi.Frequency(440)), 0.005, c.name)
	}
}

// A span says by a division what Between says by a logarithm.
func TestASpanHoldsWhatLiesSoNear(t *testing.T) {
	for _, span := range []music.Cents{1, 30, 60, 1200} {
		for off := music.Cents(-2000); off <= 2000; off += 0.7 {
			to := off.Above(233)
			near := math.Abs(float64(music.Between(233, to))) <= float64(span)
			assert.Equal(t, near, music.Within(span).Holds(233, to), "%v of %v", off, span)
		}
	}
	assert.False(t, music.Within(30).Holds(0, 440), "silence is near nothing")
	assert.False(t, music.Within(30).Holds(440, 0))
}

func TestBetweenRefusesSilence(t *testing.T) {
	assert.True(t, math.IsNaN(float64(music.Between(0, 440))))
}

func TestSpellingInKeys(t *testing.T) {
	for _, c := range []struct {
		key  music.Key
		midi music.MIDI
		want string
	}{
		{-2, 58, "B♭3"}, // trombone in concert B♭
		{0, 60, "C4"},   // trumpet reads C
		{1, 67, "G4"},   // alto saxophone reads G for concert B♭
		{1, 66, "F♯4"},
		{-1, 65, "F4"}, // horn reads F
		{0, 70, "B♭4"}, // outside the key, in C: a flat
		{2, 68, "G♯4"}, // outside the key, in D: a sharp
		{-6, 71, "C♭5"},
		{-2, 59, "B3"},
	} {
		assert.Equal(t, c.want, c.key.Spell(c.midi).String())
	}
}

func TestSpellingKeepsTheNote(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := music.MIDI(rapid.IntRange(20, 110).Draw(t, "note"))
		k := music.Key(rapid.IntRange(-6, 6).Draw(t, "key"))
		assert.Equal(t, m, k.Spell(m).MIDI())
	})
}

func TestTransposedKey(t *testing.T) {
	for _, c := range []struct {
		name  string
		semis int
		want  music.Key
	}{
		{"trombone", 0, -2},
		{"B♭ clarinet", 2, 0},
		{"alto saxophone", 9, 1},
		{"horn in F", 7, -1},
		{"tenor saxophone, an octave and a tone", 14, 0},
		{"baritone saxophone", 21, 1},
		{"soprano recorder, an octave down", -12, -2},
	} {
		assert.Equal(t, c.want, music.ConcertBFlat.Transposed(c.semis), c.name)
	}
}

func TestBeats(t *testing.T) {
	assert.InDelta(t, 8, float64(music.Tempo(60).Seconds(8)), 1e-12)
	assert.InDelta(t, 6, float64(music.Tempo(80).Seconds(8)), 1e-12)
	assert.InDelta(t, 8, float64(music.Tempo(80).Beats(6)), 1e-12)
}

// The usual names (from memory).
func TestNamings(t *testing.T) {
	for _, c := range []struct {
		note                     music.Spelling
		english, german, romance string
	}{
		{music.Spelling{Step: "B", Alter: -1}, "B♭", "B", "si♭"},
		{music.Spelling{Step: "B"}, "B", "H", "si"},
		{music.Spelling{Step: "E", Alter: -1}, "E♭", "Es", "mi♭"},
		{music.Spelling{Step: "A", Alter: -1}, "A♭", "As", "la♭"},
		{music.Spelling{Step: "D", Alter: -1}, "D♭", "Des", "re♭"},
		{music.Spelling{Step: "F", Alter: 1}, "F♯", "Fis", "fa♯"},
		{music.Spelling{Step: "C"}, "C", "C", "do"},
	} {
		assert.Equal(
			t,
			[]string{c.english, c.german, c.romance},
			[]string{music.English.Name(c.note), music.German.Name(c.note), music.Romance.Name(c.note)},
		)
	}
	assert.Equal(t, "H3", music.German.WithOctave(music.Spelling{Step: "B", Octave: 3}))
}

func TestANoteIsCalledLowOrHighOnlyWhereItsNameIsThereTwice(t *testing.T) {
	c4, g4, c5, c6, c7 := music.Spelling{Step: "C", Octave: 4}, music.Spelling{Step: "G", Octave: 4},
		music.Spelling{Step: "C", Octave: 5}, music.Spelling{Step: "C", Octave: 6}, music.Spelling{Step: "C", Octave: 7}
	assert.Equal(t, map[music.Spelling]string{c4: "C", g4: "G"}, music.English.Calls([]music.Spelling{c4, g4, c4}))
	two := music.English.Calls([]music.Spelling{c5, g4, c4})
	assert.Equal(t, "low C, high C, G", two[c4]+", "+two[c5]+", "+two[g4])
	three := music.Romance.Calls([]music.Spelling{c5, c4, c6})
	assert.Equal(t, "low do, middle do, high do", three[c4]+", "+three[c5]+", "+three[c6])
	assert.Equal(t, "C7", music.English.Calls([]music.Spelling{c5, c4, c6, c7})[c7])
}
