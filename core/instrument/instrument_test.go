package instrument_test

import (
	"slices"
	"strings"
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
		{"clarinet", 55, "T 123 | 123"},
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
		f, ok := i.Fingering(c.written-music.MIDI(i.Transposition), instrument.UsualHands())
		assert.True(t, ok, "%s %d", c.key, c.written)
		assert.Equal(t, c.want, f.Text, "%s %d", c.key, c.written)
	}
}

func TestEuphoniumC(t *testing.T) {
	hands := instrument.UsualHands()
	three := get(t, "euphonium")
	f, _ := three.Fingering(48, hands)
	assert.Equal(t, "1-3", f.Text)
	assert.Empty(t, f.Alternates, "no fourth valve, no fourth finger")
	four, err := three.As("4-valve")
	require.NoError(t, err)
	f, _ = four.Fingering(48, hands)
	assert.Equal(t, "1-3", f.Text)
	assert.Equal(t, []string{"4"}, f.Alternates)
	hands.EuphoniumC = "4"
	f, _ = four.Fingering(48, hands)
	assert.Equal(t, "4", f.Text)
	_, err = get(t, "flute").As("4-valve")
	assert.ErrorContains(t, err, `no Flute "4-valve"`)
}

// A double horn's sides: written C5 is open on both, written G4 is open in F and first
// valve in B♭ (common practice, no published source).
func TestAHornHasTwoSides(t *testing.T) {
	f := get(t, "horn")
	flat, err := f.As("b-flat-side")
	require.NoError(t, err)
	for sounding, want := range map[music.MIDI][2]string{65: {"open", "open"}, 60: {"open", "1"}, 58: {"1", "open"}} {
		for n, i := range []instrument.Instrument{f, flat} {
			got, ok := i.Fingering(sounding, instrument.UsualHands())
			require.True(t, ok)
			assert.Equal(t, want[n], got.Text, "%d", sounding)
		}
	}
	back, err := flat.As("")
	require.NoError(t, err)
	got, _ := back.Fingering(60, instrument.UsualHands())
	assert.Equal(t, "open", got.Text, "back on the F side")
}

// The schools of the clarinet's fingers (common practice, no published source).
func TestClarinetSchools(t *testing.T) {
	i := get(t, "clarinet")
	text := func(written music.MIDI, h instrument.Hands) string {
		f, ok := i.Fingering(written-2, h)
		require.True(t, ok)
		return f.Text
	}
	side := instrument.Hands{ClarinetChromatic: "side", ClarinetLow: "alternate", Chromatic: true}
	fork := side
	fork.ClarinetChromatic = "fork-up"
	down := fork
	down.Falling = true
	for written, want := range map[music.MIDI][3]string{
		59: {"T 123 | 1 cross B", "T 123 | 1 cross B", "T 123 | 1 cross B"},
		63: {"T 12 | side E♭", "T 12 cross E♭", "T 12 | side E♭"},
		66: {"T | two side keys", "1", "T | two side keys"},
	} {
		assert.Equal(t, want, [3]string{text(written, side), text(written, fork), text(written, down)}, "%d", written)
	}
	assert.Equal(t, "1", text(66, instrument.UsualHands()), "outside a chromatic pattern")
	assert.Equal(t, "T 123 | 2", text(59, instrument.UsualHands()))
	f, _ := i.Fingering(63-2, instrument.UsualHands())
	assert.Equal(t, []string{"T 12 cross E♭", "T 1 | 1"}, f.Alternates)
	for _, m := range []music.MIDI{59, 63} {
		f, _ := i.Fingering(m-2, fork)
		for _, way := range append([]string{f.Text}, f.Alternates...) {
			assert.NotContains(t, way, "1 3", "opening a vent lowers no note")
		}
	}
}

// The little fingers take turns on low E, F and F♯, from the side that the class begins
// with: left, right, left, or right, left, right (common practice, no published source).
func TestLittleFingersTakeTurns(t *testing.T) {
	i := get(t, "clarinet")
	sides := func(h instrument.Hands) (out string) {
		for written := music.MIDI(52); written <= 54; written++ {
			f, ok := i.Fingering(written-2, h)
			require.True(t, ok)
			out += f.Text[len(f.Text)-6:][:1]
			assert.NotEqual(t, f.Text, f.Alternates[0])
		}
		return strings.NewReplacer("(", "l", "r", "r").Replace(out)
	}
	h := instrument.UsualHands()
	h.ClarinetLow = instrument.LeftLittle
	assert.Equal(t, "lrl", sides(h))
	h.ClarinetLow = instrument.RightLittle
	assert.Equal(t, "rlr", sides(h))
	h.ClarinetLow = instrument.AlternateLittle
	assert.Equal(t, "lrl", sides(h))
	h.Repeat = 1
	assert.Equal(t, "rlr", sides(h), "the next time from the other side")
}

// What beginners' charts say and a first version had wrong (from memory).
func TestChartsCorrected(t *testing.T) {
	for _, c := range []struct {
		key     string
		written music.MIDI
		want    string
	}{
		{"oboe", 65, "123 | 12 F"},
		{"oboe", 77, "I 123 | 12 F"},
		{"alto-sax", 58, "123 low B♭ | 123 low C"},
		{"alto-sax", 59, "123 low B | 123 low C"},
		{"alto-sax", 61, "123 low C♯ | 123 low C"},
		{"alto-sax", 70, "12 | side B♭"},
		{"bassoon", 54, "W ½123 | thumb F♯ 123 F"},
		{"bassoon", 55, "W ½123 | 123"},
	} {
		i := get(t, c.key)
		f, ok := i.Fingering(c.written-music.MIDI(i.Transposition), instrument.UsualHands())
		require.True(t, ok)
		assert.Equal(t, c.want, f.Text, "%s %d", c.key, c.written)
	}
	low, _ := get(t, "alto-sax").Fingering(58-9, instrument.UsualHands())
	var left []string
	for _, m := range low.Diagram.Marks {
		if m.Shape == "key" && m.Y < 60 {
			left = append(left, m.Label)
		}
	}
	assert.Equal(t, []string{"low B♭"}, left, "the left little finger's, and drawn there")
	bassoon, _ := get(t, "bassoon").Fingering(55, instrument.UsualHands())
	assert.Equal(t, "half", bassoon.Diagram.Marks[0].State, "the first finger's half hole")
	flat, _ := get(t, "alto-sax").Fingering(82-9, instrument.UsualHands())
	assert.Equal(t, []string{"Oct 1 bis", "Oct 1 | 1"}, flat.Alternates)
}

// Trombone positions going up from B♭2 (common practice, no published source).
func TestTrombonePositions(t *testing.T) {
	want := []string{"1", "7", "6", "5", "4", "3", "2", "1", "5", "4", "3", "2", "1"}
	for n, position := range want {
		f, ok := get(t, "trombone").Fingering(music.MIDI(46+n), instrument.UsualHands())
		require.True(t, ok)
		assert.Equal(t, "position "+position, f.Text, "MIDI %d", 46+n)
	}
}

func TestFirstFiveHaveFingeringsAndLieInRange(t *testing.T) {
	for _, i := range instrument.All() {
		for _, m := range i.FirstFive {
			_, ok := i.Fingering(m, instrument.UsualHands())
			assert.True(t, ok, "%s %d", i.Key, m)
			assert.True(t, i.Beginner.Contains(m), "%s %d", i.Key, m)
		}
	}
}

// Every note of every range has a fingering, but for those that we are not certain of:
// there the player is sent to the chart.
func TestEveryNoteHasAFingering(t *testing.T) {
	uncertain := map[string][]int{ // written
		"soprano-recorder": {85}, "alto-recorder": {90}, "bassoon": {61, 62, 63, 64, 65},
	}
	for _, i := range instrument.All() {
		var missing []int
		for m := i.Beginner.From; m <= i.Beginner.To; m++ {
			if _, ok := i.Fingering(m, instrument.UsualHands()); !ok {
				missing = append(missing, int(i.Written(m)))
			}
		}
		assert.Equal(t, uncertain[i.Key], missing, i.Key)
	}
}

// What the band's rarer instruments read for concert B♭ (common practice, no published
// source): each sounds where its family does, moved by its own key.
func TestRarerInstrumentsReadTheirOwnKeys(t *testing.T) {
	for _, c := range []struct {
		key      string
		sounding music.MIDI
		written  string
	}{
		{"piccolo", 82, "B♭4"},
		{"english-horn", 58, "F4"},
		{"eb-clarinet", 58, "G3"},
		{"alto-clarinet", 46, "G3"},
		{"soprano-sax", 70, "C5"},
		{"mellophone", 58, "F4"},
	} {
		i := get(t, c.key)
		assert.Equal(t, c.sounding, i.Home(), c.key)
		reads := music.ConcertBFlat.Transposed(i.Transposition).Spell(i.Written(i.Home()))
		assert.Equal(t, c.written, reads.String(), c.key)
	}
	open, ok := get(t, "mellophone").Fingering(65, instrument.UsualHands())
	require.True(t, ok)
	assert.Equal(t, "open", open.Text, "written C5: the third partial of F, half as long as a horn")
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
}

// Every note of every beginner range has a fingering and a drawing of it, but
// for a few high notes whose fingerings differ too much from maker to maker.
func TestFingeringsCoverTheBeginnerRange(t *testing.T) {
	differ := map[string][]music.MIDI{"bassoon": {61, 62, 63, 64, 65}, "soprano-recorder": {97}, "alto-recorder": {90}}
	for _, i := range instrument.All() {
		for m := i.Beginner.From; m <= i.Beginner.To; m++ {
			f, ok := i.Fingering(m, instrument.UsualHands())
			if slices.Contains(differ[i.Key], m) {
				assert.False(t, ok, "%s %d", i.Key, m)
				continue
			}
			if assert.True(t, ok, "%s %d", i.Key, m) {
				assert.NotEmpty(t, f.Diagram.Marks, "%s %s", i.Key, f.Text)
			}
			for _, mark := range f.Diagram.Marks {
				assert.True(
					t,
					mark.X > 0 && mark.X < f.Diagram.Width && mark.Y > 0 && mark.Y < f.Diagram.Height,
					"%s %s: %+v",
					i.Key,
					f.Text,
					mark,
				)
			}
		}
	}
}

func states(d instrument.Diagram, shape string) (out []string) {
	for _, m := range d.Marks {
		if m.Shape == shape {
			out = append(out, m.State)
		}
	}
	return out
}

func TestDiagramsShowTheFingering(t *testing.T) {
	diagram := func(key string, written music.MIDI) instrument.Diagram {
		i := get(t, key)
		f, ok := i.Fingering(written-music.MIDI(i.Transposition), instrument.UsualHands())
		require.True(t, ok)
		return f.Diagram
	}
	const o, c, h = "open", "closed", "half"
	assert.Equal(t, []string{c, o, c}, states(diagram("trumpet", 62), "valve"), "written D: 1-3")
	assert.Equal(
		t,
		[]string{c, c, c, c, o, o, o},
		states(diagram("clarinet", 60), "hole"),
		"written C: thumb and three fingers",
	)
	assert.Equal(
		t,
		[]string{c, c, c, c, o, o},
		states(diagram("alto-sax", 65), "hole"),
		"written F: 123 | 1, no thumb hole",
	)
	assert.Equal(t, []string{h, c, c, c, c, c}, states(diagram("oboe", 74), "hole"), "half hole")
	assert.Len(t, states(diagram("soprano-recorder", 60), "hole"), 8)
	assert.Equal(t, h, states(diagram("soprano-recorder", 76), "hole")[0], "pinched thumb")
	assert.Len(t, states(diagram("trombone", 47), "stop"), 6, "and the hand on the seventh")
	keys := diagram("clarinet", 70)
	assert.Contains(t, keys.Marks, instrument.Mark{
		Finger: "left first finger",
		Shape:  "key",
		State:  "closed",
		X:      60,
		Y:      14,
		Size:   5,
		Label:  "A key",
	})
}

// A note's own tendency: the partial's place and the valves' missing length.
func TestTendencies(t *testing.T) {
	trumpet := get(t, "trumpet")
	assert.InDelta(
		t,
		-13.7,
		float64(trumpet.Tendency(74)),
		0.1,
		"written E5, fifth partial, open",
	) // 1200·log₂5 = 2786.3
	assert.InDelta(t, 30.3+2, float64(trumpet.Tendency(60)), 0.1, "written D4: third partial with 1-3")
	assert.InDelta(t, 2, float64(trumpet.Tendency(65)), 0.1)
	assert.Contains(t, trumpet.TendencyAdvice(60), "sharp by 32 cents")
	assert.Empty(t, trumpet.TendencyAdvice(58))
	assert.Zero(t, get(t, "flute").Tendency(70))
	assert.Contains(t, get(t, "trombone").TendencyAdvice(62), "flat by 14 cents")
}

// Worked by hand: at 27 °C sound goes 347.3 m/s. A flute's A4 (440 Hz) is a tube
// of 0.3946 m; 20 cents sharp asks for 1.16 % more, 4.6 mm. A clarinet's
// concert F4 is 0.2486 m, so 2.9 mm. A trombone's F3 on the third partial is a
// whole tube of 2.984 m, so 34.7 mm more of it: 17.3 mm of slide.
func TestMillimetresToMove(t *testing.T) {
	assert.InDelta(t, 347.3, instrument.SpeedOfSound(27), 0.05)
	for _, c := range []struct {
		key  string
		note music.MIDI
		want float64
		part string
	}{
		{"flute", 69, 4.6, "headjoint"},
		{"flute", 81, 4.6, "headjoint"}, // an octave up on the same tube
		{"clarinet", 65, 2.9, "barrel"},
		{"clarinet", 72, 5.8, "barrel"}, // a twelfth over concert F3: c/4f is 0.4973 m
		{"trombone", 53, 17.3, "main tuning slide"},
	} {
		move := get(t, c.key).MoveToTune(c.note, 20, 440, 27)
		assert.Equal(t, c.part, move.Part)
		assert.InDelta(t, c.want, move.Millimetres, 0.1, c.key)
		assert.Negative(t, get(t, c.key).MoveToTune(c.note, -20, 440, 27).Millimetres, "flat: push in")
	}
}

// Written E3→B4, F3→C5, G3→D5, A3→E5, B♭3→F5 (common practice).
func TestRegisterPairs(t *testing.T) {
	i := get(t, "clarinet")
	for low, high := range map[music.MIDI]music.MIDI{52: 71, 53: 72, 55: 74, 57: 76, 58: 77} {
		upper, ok := i.RegisterPair(low - 2)
		assert.True(t, ok)
		assert.Equal(t, high-2, upper)
	}
	upper, ok := get(t, "alto-sax").RegisterPair(62 - 9)
	assert.True(t, ok)
	assert.Equal(t, music.MIDI(74-9), upper)
	_, ok = get(t, "trumpet").RegisterPair(58)
	assert.False(t, ok)
}

func TestOpenNotesAndOvertones(t *testing.T) {
	// A beginner's trombone or euphonium: B♭2, F3, B♭3 (common practice).
	assert.Equal(t, []music.MIDI{46, 53, 58, 62, 65}, get(t, "trombone").OpenNotes())
	i := get(t, "alto-sax")
	fingered, overtones := i.Overtones()
	assert.Equal(t, music.MIDI(58), i.Written(fingered))
	assert.Equal(t, []music.MIDI{61, 68, 73, 77}, overtones) // written B♭4 F5 B♭5 D6
}

func TestTuningAdviceIsSaidInMillimetres(t *testing.T) {
	assert.Equal(
		t,
		"Move the main tuning slide out by about 17 mm, then check again.",
		get(t, "trombone").TuningAdvice(53, 20, 440),
	)
	assert.Equal(
		t,
		"Move the headjoint in by about 5 mm, then check again.",
		get(t, "flute").TuningAdvice(69, -20, 440),
	)
	assert.Empty(t, get(t, "flute").TuningAdvice(69, 2, 440), "less than a millimetre is nobody's matter")
}

// No part is moved farther than it goes, and what is not moved to tune is left alone
// (common practice, no published source).
func TestNothingIsPulledApartToTune(t *testing.T) {
	for key, most := range map[string]string{
		"clarinet": "4", "flute": "10", "alto-sax": "12", "trumpet": "25", "horn": "15", "trombone": "35", "tuba": "50",
	} {
		i := get(t, key)
		advice := i.TuningAdvice(i.Tuning, 100, 440)
		assert.Contains(t, advice, "by about "+most+" mm, no farther.", key)
		assert.Contains(t, advice, "ask", key)
	}
	for _, key := range []string{"oboe", "bassoon"} {
		i := get(t, key)
		assert.Contains(t, i.TuningAdvice(i.Tuning, 30, 440), "ask", key)
		assert.NotContains(t, i.TuningAdvice(i.Tuning, 30, 440), "mm", key)
	}
	for _, i := range instrument.All() {
		assert.Equal(t, i.Tunes == "", i.TunesElse != "", i.Key)
		assert.Equal(t, i.Tunes != "", i.TunesMost > 0, i.Key)
	}
}

// A fourth valve stands for 1-3 and leaves nothing to meet; only a trumpet's player moves
// valve slides while playing.
func TestWhatATendencyIsMetWith(t *testing.T) {
	three := get(t, "euphonium")
	four, err := three.As("4-valve")
	require.NoError(t, err)
	assert.InDelta(t, 30.3+2, float64(three.Tendency(48)), 0.1, "C3: third partial with 1-3")
	assert.InDelta(t, 30.3+2, float64(four.Tendency(48)), 0.1, "so fingered there, too")
	assert.InDelta(t, 2, float64(four.TendencyOf(48, "4")), 0.1)
	assert.Contains(t, get(t, "trumpet").TendencyAdvice(60), "third or first valve")
	for _, key := range []string{"horn", "euphonium", "tuba"} {
		i := get(t, key)
		for m := i.Beginner.From; m <= i.Beginner.To; m++ {
			assert.NotContains(t, i.TendencyAdvice(m), "first valve", key)
		}
	}
}

// A screen reader says a fingering in words.
func TestFingeringsAreSpoken(t *testing.T) {
	for _, c := range []struct {
		key   string
		note  music.MIDI
		words string
	}{
		{"clarinet", 50, "T 123, right hand 123 and E (left)"},
		{"trumpet", 53, "1 3"},
		{"oboe", 76, "I 123, right hand 12"},
		{"soprano-recorder", 93, "half T 12"},
	} {
		f, ok := instrumentOf(t, c.key).Fingering(c.note, instrument.UsualHands())
		require.True(t, ok, c.key)
		assert.Equal(t, c.words, f.Spoken, "%s: %s", c.key, f.Text)
	}
}

func instrumentOf(t *testing.T, key string) instrument.Instrument {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	return i
}
