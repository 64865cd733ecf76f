package instrument_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

func get(t *testing.T, key string) instrument.Instrument {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	return i
}

func TestUnknownInstrumentNamesTheKeys(t *testing.T) {
	_, err := instrument.Get("kazoo")
	assert.ErrorContains(t, err, `"kazoo"`)
	assert.ErrorContains(t, err, "alto-sax")
}

// What each instrument reads for its home note (orchestration handbooks'
// transpositions, from memory).
func TestWrittenHomeNote(t *testing.T) {
	for key, want := range map[string]string{
		"flute": "B♭4", "oboe": "B♭4", "clarinet": "C4", "bass-clarinet": "C4", "bassoon": "B♭2",
		"alto-sax": "G4", "tenor-sax": "C5", "bari-sax": "G4", "trumpet": "C4", "horn": "F4",
		"trombone": "B♭2", "euphonium": "B♭2", "euphonium-tc": "C4", "tuba": "B♭1",
		"soprano-recorder": "G4", "alto-recorder": "C5",
	} {
		i := get(t, key)
		written := music.ConcertBFlat.Transposed(i.Transposition).Spell(i.Written(i.Home()))
		assert.Equal(t, want, written.String(), key)
	}
}

// Common practice, no published source.
func TestFingerings(t *testing.T) {
	for _, c := range []struct {
		key     string
		written music.MIDI
		want    string
	}{
		{"clarinet", 52, "T 123 | 123 + E"},
		{"clarinet", 71, "R T 123 | 123 + E"}, // E3 → B4, a twelfth up
		{"clarinet", 77, "R T 123 | 1"},       // B♭3 → F5
		{"alto-sax", 71, "1"},
		{"alto-sax", 69, "12"},
		{"alto-sax", 67, "123"},
		{"alto-sax", 65, "123 | 1"},
		{"tenor-sax", 64, "123 | 12"},
		{"bari-sax", 62, "123 | 123"},
		{"bassoon", 53, "W"},
		{"bassoon", 48, "W 123"},
		{"bassoon", 46, "W 123 | thumb B♭ 12"},
		{"euphonium", 53, "open"},
		{"euphonium", 51, "1"},
		{"euphonium", 50, "1-2"},
		{"euphonium", 48, "1-3"},
		{"euphonium", 46, "open"},
		{"tuba", 33, "2"},
		{"tuba", 31, "1-2"},
		{"tuba", 29, "1-3"},
		{"trumpet", 60, "open"},
		{"horn", 65, "1"},
		{"soprano-recorder", 67, "T 123"},
	} {
		i := get(t, c.key)
		f, ok := i.Fingering(c.written - music.MIDI(i.Transposition))
		assert.True(t, ok, "%s %d", c.key, c.written)
		assert.Equal(t, c.want, f.Text, "%s %d", c.key, c.written)
	}
}

func TestEuphoniumFourthValveIsOffered(t *testing.T) {
	f, _ := get(t, "euphonium").Fingering(48)
	assert.Equal(t, []string{"4"}, f.Alternates)
}

// Trombone positions going up from B♭2 (common practice, no published source).
func TestTrombonePositions(t *testing.T) {
	want := []string{"1", "7", "6", "5", "4", "3", "2", "1", "5", "4", "3", "2", "1"}
	for n, position := range want {
		f, ok := get(t, "trombone").Fingering(music.MIDI(46 + n))
		require.True(t, ok)
		assert.Equal(t, "position "+position, f.Text, "MIDI %d", 46+n)
	}
}

func TestFirstFiveHaveFingeringsAndLieInRange(t *testing.T) {
	for _, i := range instrument.All() {
		for _, m := range i.FirstFive {
			_, ok := i.Fingering(m)
			assert.True(t, ok, "%s %d", i.Key, m)
			assert.True(t, i.Beginner.Contains(m), "%s %d", i.Key, m)
		}
	}
}

// Acoustics sums worked by hand: 3rd partial +2, 5th −14, 7th −31 cents.
func TestPartialsDepartFromTemperament(t *testing.T) {
	partials := get(t, "trombone").Partials(46)
	for number, want := range map[int]float64{3: 2, 5: -14, 7: -31} {
		p := partials[number-1]
		assert.Equal(t, number, p.Number)
		assert.InDelta(t, want, float64(p.Off), 0.5)
	}
	assert.Equal(t, music.MIDI(53), partials[2].Note) // open F3
}

func TestClarinetGivesOddPartials(t *testing.T) {
	p := get(t, "clarinet").Partials(50) // written E3
	assert.Equal(t, music.MIDI(69), p[1].Note, "the register key leads to written B4, a twelfth up")
	assert.Equal(t, p, get(t, "clarinet").Partials(69), "both notes share one fingering's series")
}

// Saxophone overtones on low written B♭3: B♭4, F5, B♭5, D6 (common practice).
func TestSaxophoneOvertones(t *testing.T) {
	i := get(t, "alto-sax")
	var written []music.MIDI
	for _, p := range i.Partials(49)[1:5] {
		written = append(written, i.Written(p.Note))
	}
	assert.Equal(t, []music.MIDI{70, 77, 82, 86}, written)
}

// Worked by hand from the tube lengths.
func TestTubePhysics(t *testing.T) {
	for combination, want := range map[string]float64{"12": 10.6, "23": 15.5, "13": 30.3, "123": 53.6} {
		assert.InDelta(t, want, float64(instrument.ValveSharpness(combination)), 0.05, combination)
	}
	for n, want := range []float64{8.2, 16.8, 26.0, 35.7, 46.0, 57.0} {
		assert.InDelta(t, want, 100*instrument.SlideTravel(n+2, 2.75), 0.05, "position %d", n+2)
	}
	assert.InDelta(t, 2.95, float64(instrument.Warming(20)), 0.005)
}
