package explain_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/explain"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// note is a sound of a story: from and to in beats, and which note.
type note struct {
	from, to music.Beats
	midi     music.MIDI
}

const tempo music.Tempo = 60

// line is a score of notes of two beats each in one breath.
func line(articulation scores.Articulation, notes ...music.MIDI) scores.Score {
	return lineOf(2, articulation, notes...)
}

func lineOf(beats music.Beats, articulation scores.Articulation, notes ...music.MIDI) scores.Score {
	s := scores.Score{TempoBPM: tempo, A4Hz: 440}
	for n, m := range notes {
		seg := scores.Segment{
			Phase:     scores.Play,
			StartBeat: 4 + beats*music.Beats(n),
			Beats:     beats,
			Target:    m,
		}
		if n > 0 {
			seg.Articulation = articulation
		}
		s.Segments = append(s.Segments, seg)
	}
	return s
}

func solve(t *testing.T, key string, s scores.Score, notes ...note) explain.Story {
	i, err := instrument.Get(key)
	require.NoError(t, err)
	var sounds []explain.Sound
	for n, p := range notes {
		sounds = append(sounds, explain.Sound{
			Onset:   tempo.Seconds(p.from),
			Release: tempo.Seconds(p.to),
			Pitch:   music.Between(music.StandardA4, p.midi.Frequency(440)),
			Level:   -20,
			Tongued: n > 0 && p.from == notes[n-1].to,
		})
	}
	return explain.Solve(sounds, explain.Part{Instrument: &i, Score: s})
}

func kinds(s explain.Story) (out []explain.Kind) {
	for _, a := range s.Accounts {
		out = append(out, a.Kind)
	}
	return out
}

// A clarinet's low F goes on where the C a twelfth above was asked.
func TestTheLowNoteGoesOn(t *testing.T) {
	s := line(scores.Slurred, 51, 70)
	got := solve(t, "clarinet", s, note{4, 8, 51})
	assert.Equal(t, []explain.Kind{explain.Played, explain.HeldOver}, kinds(got))
	assert.Equal(t, music.MIDI(51), got.Accounts[1].Came, "the note that came is named")
	assert.Equal(t, 1, got.Accounts[1].Partial, "and that it is the fingering's own lower register")
}

func TestAnotherPartialIsNotAnotherFingering(t *testing.T) {
	// Trombone: F3 asked in first position, B♭3 above it came; E3 is another position.
	up := solve(t, "trombone", line(scores.Tongued, 53), note{4, 6, 58})
	assert.Equal(t, explain.OtherPartial, up.Accounts[0].Kind)
	assert.Equal(t, music.MIDI(58), up.Accounts[0].Came)
	beside := solve(t, "trombone", line(scores.Tongued, 53), note{4, 6, 52})
	assert.Equal(t, explain.OtherFingering, beside.Accounts[0].Kind)
}

// The note before is not held over where the sound went somewhere else, though it comes
// back at the very end: what sounded there is a wrong finger.
func TestAVisitHoldsNoNoteOver(t *testing.T) {
	s := lineOf(4, scores.Slurred, 79, 79, 79)
	got := solve(t, "soprano-recorder", s,
		note{4, 8, 79}, note{8.01, 11.95, 80}, note{11.96, 12.15, 79}, note{12.3, 16, 79})
	assert.Equal(t, []explain.Kind{explain.Played, explain.OtherFingering, explain.Played}, kinds(got))
	assert.Equal(t, music.MIDI(80), got.Accounts[1].Came)
}

// A note left out without a hole does not make every later note wrong.
func TestANoteLeftOut(t *testing.T) {
	s := line(scores.Tongued, 58, 60, 62, 63, 65)
	got := solve(t, "trumpet", s, note{4, 6, 58}, note{6, 8, 60}, note{8, 10, 63}, note{10, 12, 65})
	assert.Equal(t, []explain.Kind{
		explain.Played, explain.Played, explain.LeftOut, explain.Played, explain.Played,
	}, kinds(got))
	assert.Equal(t, []int{0, 1, 3, 4}, got.Owners)
}

func TestOneSoundForFourNotesIsNotTongued(t *testing.T) {
	got := solve(t, "flute", line(scores.Tongued, 70, 70, 70, 70), note{4, 12, 70})
	assert.Equal(t, []explain.Kind{
		explain.Played, explain.NotTongued, explain.NotTongued, explain.NotTongued,
	}, kinds(got))
}

// A whole part read from another sheet is one account for the step.
func TestAWholePartIsShifted(t *testing.T) {
	s := line(scores.Tongued, 58, 60, 62, 63, 65)
	got := solve(t, "trumpet", s,
		note{4, 6, 56}, note{6, 8, 58}, note{8, 10, 60}, note{10, 12, 61}, note{12, 14, 63})
	assert.Equal(t, music.MIDI(-2), got.Shift)
	assert.NotContains(t, kinds(got), explain.OtherFingering)
	// Up and down by half steps: most of what sounds is asked for somewhere else.
	var loop []note
	var asked []music.MIDI
	for n := range 34 { // a loop of seventeen notes, twice
		m := music.MIDI(63 - max(n%17-8, 8-n%17))
		at := 4 + music.Beats(n)/2
		asked, loop = append(asked, m), append(loop, note{at, at + 0.5, m - 2})
	}
	assert.Equal(t, music.MIDI(-2), solve(t, "clarinet", lineOf(0.5, scores.Slurred, asked...), loop...).Shift)
	one := solve(t, "trumpet", s,
		note{4, 6, 58}, note{6, 8, 59}, note{8, 10, 62}, note{10, 12, 63}, note{12, 14, 65})
	assert.Zero(t, one.Shift)
	assert.Equal(t, explain.OtherFingering, one.Accounts[1].Kind, "one wrong finger is not a wrong sheet")
}

// The same walk at another tempo is the same walk.
func TestAnotherTempoIsNotOtherNotes(t *testing.T) {
	s := line(scores.Tongued, 58, 60, 62, 63, 65)
	var notes []note
	for n, m := range []music.MIDI{58, 60, 62, 63, 65} {
		at := 4 + music.Beats(1.6*float64(n))
		notes = append(notes, note{at, at + 1.6, m})
	}
	for n, a := range solve(t, "trumpet", s, notes...).Accounts {
		assert.Equal(t, explain.Played, a.Kind)
		assert.InDelta(t, -0.4*float64(n), float64(a.Late), 1e-9)
	}
}

func TestACutOffTakeAndANoteThatNeverCame(t *testing.T) {
	s := line(scores.Tongued, 58, 60, 62)
	assert.Equal(t, []explain.Kind{explain.Played, explain.CutOff, explain.CutOff},
		kinds(solve(t, "trumpet", s, note{4, 6, 58})))
	assert.Equal(t, []explain.Kind{explain.Played, explain.NeverCame, explain.Played},
		kinds(solve(t, "trumpet", s, note{4, 6, 58}, note{8, 10, 62})))
}

// Whatever sounds, every target gets one account, and no sound two targets.
func TestEveryTargetGetsOneAccount(t *testing.T) {
	i, err := instrument.Get("horn")
	require.NoError(t, err)
	rapid.Check(t, func(t *rapid.T) {
		s := line(rapid.SampledFrom([]scores.Articulation{scores.Tongued, scores.Slurred}).Draw(t, "how"),
			rapid.SliceOfN(rapid.Custom(func(t *rapid.T) music.MIDI {
				return music.MIDI(rapid.IntRange(48, 72).Draw(t, "note"))
			}), 1, 8).Draw(t, "notes")...)
		var sounds []explain.Sound
		at := 0.
		for range rapid.IntRange(0, 20).Draw(t, "sounds") {
			at += rapid.Float64Range(0, 2).Draw(t, "rest")
			length := rapid.Float64Range(0.01, 4).Draw(t, "length")
			sounds = append(sounds, explain.Sound{
				Onset:   music.Seconds(at),
				Release: music.Seconds(at + length),
				Pitch:   music.Cents(rapid.Float64Range(-3000, 1500).Draw(t, "pitch")),
				Level:   music.Decibels(rapid.Float64Range(-60, -5).Draw(t, "level")),
			})
			at += length
		}
		got := explain.Solve(sounds, explain.Part{Instrument: &i, Score: s})
		assert.Len(t, got.Accounts, len(s.Targets()))
		assert.Len(t, got.Owners, len(sounds))
		last := -1
		for _, owner := range got.Owners {
			if owner >= 0 {
				assert.GreaterOrEqual(t, owner, last, "sounds keep their order")
				assert.True(t, got.Accounts[owner].Kind.Sounded())
				last = owner
			}
		}
		for _, a := range got.Accounts {
			assert.Contains(t, explain.Kinds(), a.Kind)
		}
	})
}
