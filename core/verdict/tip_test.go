package verdict_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// Every cause a verdict can name has a tip, whoever plays, wherever the note
// lies, whichever way it is off, in every school of words.
func TestEveryCauseHasATip(t *testing.T) {
	for _, cause := range measure.Causes() {
		for _, i := range instrument.All() {
			for _, register := range []measure.Register{
				"", measure.LowRegister, measure.MidRegister, measure.HighRegister,
			} {
				for direction := -1; direction <= 1; direction++ {
					for _, air := range append(airPictures(t), "") {
						s := verdict.Situation{
							Instrument: i,
							Chapter:    scores.LongTones,
							Register:   register,
							Direction:  direction,
						}
						tips := verdict.Book(nil).Answers(cause, s)
						require.NotEmpty(t, tips, "%s on %s, %s, %d", cause, i.Key, register, direction)
						said := say.Teller{Instrument: i, Air: air}.Advice(tips[0])
						assert.NotContains(t, said.Text, "{", "no picture is left unsaid")
					}
				}
			}
		}
	}
}

// Every measure a kind is judged by comes from a cause that has a tip.
func TestEveryRuleHasItsCause(t *testing.T) {
	for _, k := range exercise.Catalogue() {
		for _, i := range instrument.All() {
			s, err := exercise.New(
				k.Key,
				nil,
			).Score(
				exercise.Player{Instrument: i, Stage: 2},
				exercise.StandardConventions(),
			)
			if err != nil {
				continue
			}
			for _, r := range s.Rules {
				_, err := measure.Get(r.Measure)
				assert.NoError(t, err, "%s is judged by %s", k.Key, r.Measure)
			}
		}
	}
}

func TestTipsSpeakInTheClassesPicture(t *testing.T) {
	trumpet, err := instrument.Get("trumpet")
	require.NoError(t, err)
	said := map[string]bool{}
	for _, air := range airPictures(t) {
		tip := verdict.Book(nil).Answers(measure.CausePartial, verdict.Situation{
			Instrument: trumpet,
			Direction:  1,
		})[0]
		assert.Equal(t, "brass-too-high", tip.Key)
		said[say.Teller{Instrument: trumpet, Air: air}.Advice(tip).Text] = true
	}
	assert.Len(t, said, len(airPictures(t)), "each school of words says it in words of its own")
}

func TestTheParticularComesBeforeTheGeneral(t *testing.T) {
	for _, c := range []struct {
		key       string
		cause     measure.Cause
		register  measure.Register
		direction int
		want      string
	}{
		{"alto-sax", measure.CauseBreak, measure.LowRegister, 1, "sax-jump-up"},
		{"alto-sax", measure.CauseBreak, measure.HighRegister, 1, "sax-growl"},
		{"bassoon", measure.CauseBreak, measure.LowRegister, 1, "bassoon-jump"},
		{"oboe", measure.CauseBreak, measure.LowRegister, 1, "break"},
		{"tuba", measure.CauseNoResponse, measure.LowRegister, -1, "tuba-low"},
		{"tuba", measure.CauseNoResponse, measure.HighRegister, -1, "brass-no-sound"},
		{"clarinet", measure.CauseUndertone, measure.HighRegister, -1, "clarinet-undertone"},
	} {
		i, err := instrument.Get(c.key)
		require.NoError(t, err)
		got := verdict.Book(nil).Answers(
			c.cause,
			verdict.Situation{Instrument: i, Register: c.register, Direction: c.direction},
		)
		assert.Equal(t, c.want, got[0].Key, c.key)
	}
}

func TestDirectorsPutTheirOwnWords(t *testing.T) {
	oboe, err := instrument.Get("oboe")
	require.NoError(t, err)
	book := verdict.Book{"flat": "Lift it.", "centre": ""}
	tips := book.Answers(measure.CauseCentre, verdict.Situation{Instrument: oboe, Direction: -1})
	require.Len(t, tips, 1, "a tip without words is never given")
	assert.Equal(t, say.Tip{Key: "flat", Text: "Lift it."}, say.Teller{Instrument: oboe, Tips: book}.Advice(tips[0]))
	assert.Empty(t, book.Unknown())
	assert.Equal(t, []string{"flatt"}, verdict.Book{"flatt": "x"}.Unknown())
	raw, err := json.Marshal(book.Advices())
	require.NoError(t, err)
	assert.Contains(t, string(raw), "Lift it.")
}

// Plain words: short sentences that a twelve-year-old reads aloud.
func TestTipsAreShortAndTheirKeysAreTheirOwn(t *testing.T) {
	seen := map[string]bool{}
	for _, a := range verdict.Book(nil).Advices() {
		assert.False(t, seen[a.Key], a.Key)
		seen[a.Key] = true
		assert.LessOrEqual(t, len(strings.Fields(a.Text)), 30, a.Key)
		assert.True(t, strings.HasSuffix(a.Text, ".") || strings.HasSuffix(a.Text, "?"), a.Key)
	}
}

// airPictures are the answers to the class's question of pictures for air.
func airPictures(t *testing.T) (out []exercise.AirPicture) {
	t.Helper()
	for _, s := range exercise.Schools() {
		if s.Key == "air" {
			for _, o := range s.Options {
				out = append(out, exercise.AirPicture(o.Key))
			}
		}
	}
	require.NotEmpty(t, out)
	return out
}
