package say_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/explain"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

func teller(t *testing.T, key string) say.Teller {
	i, err := instrument.Get(key)
	require.NoError(t, err)
	return say.Teller{Instrument: i, Hands: instrument.UsualHands()}
}

func decidedBy(m measure.Reading) verdict.Verdict {
	return verdict.Verdict{
		Version:  verdict.Version,
		Result:   verdict.NotYet,
		Deciding: &m,
		Causes:   []measure.Cause{m.Cause},
	}
}

// The commonest fault of all: the low note goes on. The sentence names both notes as
// the player reads them, and says nothing of reeds.
func TestTheNoteThatCameIsNamed(t *testing.T) {
	stays := decidedBy(measure.Reading{
		Key:     measure.RightNote.Key,
		Cause:   measure.CauseRegisterLow,
		Note:    1,
		Target:  70,
		Came:    51,
		Account: explain.HeldOver,
	})
	c := teller(t, "clarinet")
	assert.Equal(t, "Stayed on F3. C5 did not come.", c.Sentence(stays))
	assert.Equal(t, "C5 stayed on F3", c.Short(stays))
	c.Naming = music.Romance
	assert.Equal(t, "Stayed on fa3. do5 did not come.", c.Sentence(stays), "in the class's own names")
}

// Sentences begin with a capital, also where they begin with where a note lies.
func TestSentencesBeginWithACapital(t *testing.T) {
	bassoon := teller(t, "bassoon")
	stays := decidedBy(measure.Reading{
		Key:     measure.RightNote.Key,
		Cause:   measure.CauseRegisterLow,
		Note:    1,
		Target:  57,
		Came:    45,
		Account: explain.HeldOver,
	})
	assert.Equal(t, "Stayed on low A. High A did not come.", bassoon.ToPlayer(scores.Score{}, stays).Sentence(stays))
	stays.Deciding.Account = explain.OtherPartial
	assert.Equal(t, "Low A came instead of high A.", bassoon.ToPlayer(scores.Score{}, stays).Sentence(stays))
}

// A wrong finger is told by the finger.
func TestAWrongFingerIsMended(t *testing.T) {
	for _, c := range []struct {
		key         string
		asked, came music.MIDI
		says        string
	}{
		{"trumpet", 60, 61, "Use valves 1 and 3."},
		{"trombone", 50, 51, "Move to position 4."},
		{"alto-sax", 54, 53, "Add the E♭ key."},
		{"clarinet", 60, 61, "Let go of the side E♭ key."},
	} {
		v := decidedBy(measure.Reading{Cause: measure.CauseFingering, Target: c.asked, Came: c.came})
		v.TipKey = "wrong-finger"
		assert.Contains(t, teller(t, c.key).Tip(v).Text, strings.TrimSuffix(c.says, "."), c.key)
	}
}

// Every cause has a sentence and a few words of its own, every measure a name, a value
// and a limit, whatever the numbers are; nothing is left unsaid.
func TestEverythingHasWords(t *testing.T) {
	flute := teller(t, "flute")
	for _, cause := range measure.Causes() {
		for _, way := range []int{measure.Low, measure.High} {
			v := decidedBy(measure.Reading{
				Cause:  cause,
				Target: 70,
				Came:   72,
				Value:  1,
				Of:     2,
				Way:    way,
			})
			switch cause {
			case measure.CauseRecording, measure.CauseNobody:
				v.Result, v.Why = verdict.CantTell, verdict.WhyNobody
			}
			sentence := flute.Sentence(v)
			assert.NotEmpty(t, sentence, cause)
			assert.NotContains(t, sentence, "%!", cause)
			assert.LessOrEqual(t, len(strings.Fields(sentence)), 14, "%s: %s", cause, sentence)
			assert.NotContains(t, sentence, "cents", "%s: numbers a child cannot picture", cause)
			assert.NotEmpty(t, flute.Short(v), cause)
			assert.LessOrEqual(t, len([]rune(flute.Short(v))), 32, "%s: %s", cause, flute.Short(v))
		}
	}
	for _, m := range measure.All() {
		for _, value := range []float64{-40, 0, 0.3, 40} {
			r := flute.Reading(measure.Reading{
				Key:    m.Key,
				Note:   0,
				Target: 70,
				Value:  value,
				Limit:  1,
				Of:     2,
			})
			assert.NotEmpty(t, r.Label, m.Key)
			assert.NotEmpty(t, r.Text, m.Key)
			assert.NotContains(t, r.Text+r.Wanted, "%!", m.Key)
		}
	}
	for _, why := range []verdict.Why{
		verdict.WhySilent, verdict.WhyNobody, verdict.WhyCut, verdict.WhyNoisy, verdict.WhyUnsure,
	} {
		v := verdict.Verdict{Result: verdict.CantTell, Why: why}
		assert.NotEmpty(t, flute.Sentence(v), why)
		assert.NotEmpty(t, flute.Short(v), why)
	}
}

// A verdict is kept without a word in it: what is said today is said of old takes too.
func TestAVerdictKeepsNoWords(t *testing.T) {
	v := decidedBy(measure.Reading{
		Key:    measure.NoGap.Key,
		Cause:  measure.CauseGap,
		Target: 70,
		Value:  0.3,
	})
	kept, err := json.Marshal(v)
	require.NoError(t, err)
	for _, word := range []string{"stopped", "gap of", "sentence", "short", "text", "wanted"} {
		assert.NotContains(t, string(kept), word)
	}
	var again verdict.Verdict
	require.NoError(t, json.Unmarshal(kept, &again))
	assert.Equal(t, teller(t, "flute").Sentence(v), teller(t, "flute").Sentence(again))
}

// What was judged before words were made at the edge keeps the ones it was given.
func TestOldVerdictsKeepTheirWords(t *testing.T) {
	var old verdict.Verdict
	require.NoError(t, json.Unmarshal([]byte(`{"version":2,"result":"nearly","short":"C4 gap of 0.30 s",
		"sentence":"C4: the sound stopped, 0.30 s.","tip":{"key":"gap","text":"Blow."},
		"deciding":{"key":"gap","cause":"gap","label":"Gaps","note":0,"value":0.3,"limit":0.06,"text":"0.30 s"},
		"measures":[],"causes":["gap"]}`), &old))
	said := teller(t, "trumpet").Verdict(old)
	assert.Equal(t, "C4: the sound stopped, 0.30 s.", said.Sentence)
	assert.Equal(t, "C4 gap of 0.30 s", said.Short)
	assert.Equal(t, scores.MeasureKey("gap"), said.Deciding.Key)
	assert.Equal(t, say.Tip{Key: "gap", Text: "Blow."}, said.Tip)
	assert.Equal(t, "Gaps", said.Deciding.Label, "what lacks today's numbers is not said anew")
	assert.Equal(t, "0.30 s", said.Deciding.Text)
	raw, err := json.Marshal(said)
	require.NoError(t, err)
	assert.Contains(t, string(raw), `"text":"0.30 s"`)
}
