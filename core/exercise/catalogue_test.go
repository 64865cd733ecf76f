package exercise_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// The cautions' caps (common practice, no published source).
const (
	longestHeldBreath = music.Seconds(8)
	mostRounds        = 12
	longestBuzzing    = music.Seconds(60)
	longestSound      = music.Seconds(45)
	buzzReach         = music.MIDI(2)
	tubeReach         = music.MIDI(8) // A2 down to A1 on the tube, an octave higher on the trumpet's
)

// allWays lists the instruments, and each way they are built.
func allWays() (out []instrument.Instrument) {
	for _, i := range instrument.Band() {
		out = append(out, i)
		for _, v := range i.Variants {
			built, err := i.As(v.Key)
			if err != nil {
				panic(err)
			}
			out = append(out, built)
		}
	}
	return out
}

// drawn returns a step of a kind with any parameters its ranges allow.
func drawn(t *rapid.T, k *exercise.Kind) (exercise.Step, error) {
	given := map[string]any{}
	for _, p := range k.Parts {
		switch p.Type {
		case exercise.Number:
			steps := int((p.Max-p.Min)/p.Step + 0.5)
			given[p.Key] = p.Min + p.Step*float64(rapid.IntRange(0, steps).Draw(t, p.Key))
		case exercise.Choice:
			given[p.Key] = rapid.SampledFrom(p.Options).Draw(t, p.Key).Key
		case exercise.Switch:
			given[p.Key] = rapid.Bool().Draw(t, p.Key)
		case exercise.NoteList:
			given[p.Key] = rapid.SliceOfN(
				rapid.IntRange(int(exercise.LowestDegree), int(exercise.HighestDegree)),
				1,
				int(p.Max),
			).
				Draw(t, p.Key)
		case exercise.Melody:
			given[p.Key] = rapid.SliceOfN(rapid.Custom(func(t *rapid.T) exercise.Note {
				return exercise.Note{
					Degree: exercise.Degree(
						rapid.IntRange(-5, 12).Draw(t, "degree"),
					),
					Beats: music.Beats(rapid.IntRange(1, 4).Draw(t, "beats")),
					Rest:  rapid.Bool().Draw(t, "rest"),
				}
			}), 1, 24).Draw(t, p.Key)
		case exercise.Written:
			given[p.Key] = rapid.SliceOfN(
				rapid.SampledFrom([]string{"E3", "F♯3", "B♭2", "C4", "G4", "B4", "C5", "A5", "D6"}), 0, int(p.Max)).
				Draw(t, p.Key)
		}
	}
	raw, err := json.Marshal(given)
	if err != nil {
		panic(err)
	}
	return exercise.Parse(k.Key, raw)
}

// widest is the widest step between two notes that follow one another, in half steps, of
// kinds whose lines are never broken: an arpeggio's fourth, a minor scale's wide second.
var widest = map[string]music.MIDI{
	"five-note-walk":   2,
	"growing-walk":     2,
	"neighbour-return": 3,
	"scale":            5,
	"chromatic-loop":   1,
	"long-tone-chain":  2,
}

// unbroken checks that no line is broken across octaves.
func unbroken(t require.TestingT, s scores.Score, where string) {
	most, isLine := widest[s.Kind]
	if !isLine {
		return
	}
	targets := s.Targets()
	for n := 1; n < len(targets); n++ {
		if s.Kind != "long-tone-chain" && !scores.Follows(targets, n) {
			continue
		}
		by := targets[n].Target - targets[n-1].Target
		require.LessOrEqual(t, max(by, -by), most, "%s: note %d", where, n)
	}
}

// Whatever one answer a director changes, the program's own rules allow it.
func TestEveryAnswerAloneIsAllowed(t *testing.T) {
	for _, k := range exercise.Catalogue() {
		for _, p := range k.Parts {
			for _, answer := range answersTo(p) {
				raw, err := json.Marshal(set{p.Key: answer})
				require.NoError(t, err)
				step, err := exercise.Parse(k.Key, raw)
				require.NoError(t, err, "%s: %s %v", k.Key, p.Key, answer)
				assert.NotEmpty(t, step.Sentence())
				for n, i := range instrument.All() {
					stage := scores.Stage(n%4 + 1)
					layAndCheck(t, step, exercise.Player{Instrument: i, Stage: stage}, exercise.StandardConventions())
				}
			}
		}
	}
}

// answersTo lists the answers a choice or a switch may have.
func answersTo(p exercise.Param) (out []any) {
	for _, o := range p.Options {
		out = append(out, o.Key)
	}
	if p.Type == exercise.Switch {
		return []any{true, false}
	}
	return out
}

// conventions draws a class's schools.
func conventions(t *rapid.T) exercise.Conventions {
	c := exercise.StandardConventions()
	for _, s := range exercise.Schools() {
		answer := rapid.SampledFrom(s.Options).Draw(t, s.Key).Key
		if err := c.Set(s.Key, answer); err != nil {
			panic(err)
		}
	}
	return c
}

// Every kind on every instrument, at every stage: playable notes, right written
// pitch, right length, and never above the cautions' caps.
func TestEveryKindOnEveryInstrumentAtEveryStage(t *testing.T) {
	for _, k := range exercise.Catalogue() {
		step := exercise.New(k.Key, nil)
		for _, i := range allWays() {
			for stage := scores.Stage(1); stage <= 4; stage++ {
				layAndCheck(t, step, exercise.Player{Instrument: i, Stage: stage}, exercise.StandardConventions())
			}
		}
	}
}

// And with any parameters the ranges allow, and any schools.
func TestEveryKindWithAnyParameters(t *testing.T) {
	for _, k := range exercise.Catalogue() {
		t.Run(k.Key, func(t *testing.T) {
			rapid.Check(t, func(t *rapid.T) {
				step, err := drawn(t, k)
				if err != nil {
					var said exercise.ParameterError
					require.ErrorAs(t, err, &said, "what a kind refuses, it refuses in words")
					return
				}
				p := exercise.Player{
					Stage:  scores.Stage(rapid.IntRange(1, 4).Draw(t, "stage")),
					Repeat: rapid.IntRange(0, 3).Draw(t, "repeat"),
				}
				c := conventions(t)
				for range 5 {
					p.Instrument = rapid.SampledFrom(allWays()).Draw(t, "instrument")
					layAndCheck(t, step, p, c)
				}
			})
		})
	}
}

func layAndCheck(t require.TestingT, step exercise.Step, p exercise.Player, c exercise.Conventions) {
	s, err := step.Score(p, c)
	if !step.Suits(p.Instrument) {
		require.ErrorIs(t, err, exercise.ErrNotFor)
		return
	}
	require.NoError(t, err)
	wholesome(t, s, p.Instrument)
}

func wholesome(t require.TestingT, s scores.Score, i instrument.Instrument) {
	where := fmt.Sprintf("%s on %s at stage %d", s.Title, i.Key, s.Stage)
	var at music.Beats
	var held music.Seconds
	for _, seg := range s.Segments {
		require.Equal(t, at, seg.StartBeat, where)
		require.Positive(t, float64(seg.Beats), where)
		require.NotEmpty(t, seg.Text, "%s: %s says what to do", where, seg.Phase)
		at += seg.Beats
		if seg.Phase == scores.Hold {
			held = max(held, s.TempoBPM.Seconds(seg.Beats))
		}
		if seg.Target == 0 {
			continue
		}
		reach := music.MIDI(0)
		if seg.Phase == scores.Buzz {
			reach = buzzReach
		}
		if s.Kind == "tube-buzz-scale" {
			reach = tubeReach
		}
		require.GreaterOrEqual(t, seg.Target, i.Beginner.From-reach, where)
		require.LessOrEqual(t, seg.Target, i.Beginner.To+reach, where)
		require.Equal(t, i.Written(seg.Target), seg.Written.MIDI(), where)
		require.LessOrEqual(t, max(seg.Written.Alter, -seg.Written.Alter), 1, "%s: no double accidentals", where)
		if seg.Phase == scores.Play || seg.Phase == scores.Finger {
			_, charted := i.Fingering(seg.Target, instrument.UsualHands())
			require.Equal(t, charted, seg.Fingering != nil, "%s: a fingering wherever the chart has one", where)
		}
	}
	unbroken(t, s, where)
	require.InDelta(t, float64(s.TempoBPM.Seconds(at)), float64(s.Seconds()), 1e-9, where)
	line := s.Timeline()
	require.Len(t, line.Cues, len(s.Segments))
	require.InDelta(t, float64(s.Seconds()), float64(line.Total), 1e-9)

	require.LessOrEqual(t, held, longestHeldBreath, where)
	require.LessOrEqual(t, s.Load.Rounds, mostRounds, where)
	require.LessOrEqual(t, s.Load.BuzzSeconds, longestBuzzing, where)
	require.LessOrEqual(t, s.LongestBreath(), longestSound, where)

	asked := len(s.Targets()) > 0
	require.True(
		t,
		asked || s.Ticked || s.Metered || len(s.Rules) > 0 || s.Kind == exercise.KindMakeATune,
		"%s: there is something to be told",
		where,
	)
	if s.Ticked {
		require.NotEmpty(t, s.Items, where)
		require.Len(t, s.Pictures, len(s.Items), where)
	}
}

// What each kind lays out with its defaults, by instrument (written notes,
// worked by hand from the table of kinds and the transpositions).
func TestWhatTheKindsLayOut(t *testing.T) {
	type want struct {
		instrument string
		kind       string
		set        set
		notes      []string
	}
	for _, w := range []want{
		// F3–B♭2–F3 (common practice, no published source).
		{"trombone", "slur-across-partials", nil, []string{"F3", "B♭2", "F3", "F3", "B♭2", "F3"}},
		{
			"trombone", "slur-across-partials",
			set{"over": "three", "upside_down": false, "repeats": 1},
			[]string{"B♭2", "F3", "B♭3", "F3", "B♭2"},
		},
		// E3→B4, F3→C5, G3→D5: the register key gives a twelfth (common practice).
		{
			"clarinet", "register-pair",
			set{"pairs": 6},
			[]string{"C4", "G5", "B♭3", "F5", "A3", "E5", "G3", "D5", "F3", "C5", "E3", "B4"},
		},
		{"flute", "register-pair", set{"pairs": 3}, []string{"B♭4", "B♭5", "A4", "A5", "G4", "G5"}},
		// B♭4, F5, B♭5, D6 on low B♭3 (common practice).
		{"alto-sax", "overtones", set{"to": 5}, []string{"B♭4", "F5", "B♭5", "D6"}},
		{
			"trumpet", "five-note-walk",
			set{"way": "both"},
			[]string{"C4", "D4", "E4", "F4", "G4", "F4", "E4", "D4", "C4"},
		},
		{"alto-sax", "five-note-walk", set{"way": "up"}, []string{"G4", "A4", "B4", "C5", "D5"}},
		// Degrees 1, 3, 5, 8.
		{"euphonium", "scale", set{"form": "arpeggio", "way": "up"}, []string{"B♭2", "D3", "F3", "B♭3"}},
		{
			"flute", "neighbour-return",
			set{"neighbour": "both", "repeats": 1},
			[]string{"B♭4", "C5", "B♭4", "A4", "B♭4"},
		},
		{"horn", "wide-leap", set{"repeats": 1}, []string{"F4", "C5", "F4"}},
		{"oboe", "rhythm-on-a-note", nil, []string{"B♭4", "B♭4", "B♭4", "B♭4", "B♭4", "B♭4", "B♭4"}},
		{"tuba", "tuning-note", nil, []string{"B♭1"}},
		{"alto-sax", "ladder", set{"rung": 1}, []string{"G4", "F♯4", "G4"}},
		{"alto-sax", "ladder", set{"rung": 2}, []string{"G4", "F♯4"}},
		{"alto-sax", "ladder", set{"rung": 3}, []string{"F♯4"}},
		{"bassoon", "ladder", set{"ladder": "bassoon-low", "rung": 4}, []string{"E2", "D2"}},
		{"tuba", "ladder", set{"ladder": "tuba-low", "rung": 1}, []string{"B♭1", "A1", "B♭1"}},
		{"clarinet", "ladder", set{"ladder": "clarinet-break", "rung": 4}, []string{"G3", "D5", "G3"}},
		// F–E♭–F, then F–E♭–D–E♭–F.
		{
			"trombone", "growing-walk",
			set{"to": 3},
			[]string{"F3", "E♭3", "F3", "F3", "E♭3", "D3", "E♭3", "F3"},
		},
		{"trumpet", "growing-walk", set{"to": 2, "from": "home"}, []string{"C4", "D4", "C4"}},
		// Written notes of one section, anywhere in its range.
		{"clarinet", "long-tone-counted", set{"written": []string{"E3", "F#3"}}, []string{"E3", "F♯3"}},
		{"alto-recorder", "swell", set{"written": []string{"F4"}}, []string{"F4", "F4", "F4", "F4", "F4"}},
		{"tenor-sax", "long-tone-longest", set{"written": []string{"D4", "C4"}}, []string{"D4", "C4"}},
		{"bassoon", "long-tone-counted", set{"written": []string{"Bb1"}}, []string{"B♭1"}},
		{"clarinet", "long-tone-chain", set{"written": []string{"E3", "G3"}}, []string{"E3", "F3", "F♯3", "G3"}},
		{"clarinet", "register-pair", set{"written": []string{"A3", "E3"}}, []string{"A3", "E5", "E3", "B4"}},
		{"flute", "register-pair", set{"pairs": 1, "how": "upper"}, []string{"B♭5"}},
		{"flute", "register-pair", set{"pairs": 1, "how": "down"}, []string{"B♭4", "B♭5", "B♭4"}},
		{
			"clarinet", "register-pair",
			set{"how": "climb"},
			[]string{"C4", "G5", "A5", "B5", "C6"},
		},
		{
			"alto-sax", "overtones",
			set{"from": "real", "way": "both"},
			[]string{"B♭4", "B♭4", "F5", "F5", "B♭4", "B♭4"},
		},
		{
			"euphonium", "scale",
			set{"form": "mixed"},
			[]string{"B♭2", "D3", "F3", "B♭3", "A3", "G3", "F3", "E♭3", "D3", "C3", "B♭2"},
		},
		{
			"trumpet", "scale",
			set{"mode": "harmonic", "way": "up"},
			[]string{"C4", "D4", "E♭4", "F4", "G4", "A♭4", "B4", "C5"},
		},
		{
			"clarinet", "chromatic-loop",
			set{"half": "low", "way": "up", "loops": 1},
			[]string{"E3", "F3", "F♯3", "G3", "A♭3", "A3", "B♭3", "B3", "C4"},
		},
		{
			"clarinet", "chromatic-loop",
			set{"half": "throat", "way": "down", "loops": 1},
			[]string{"B♭4", "A4", "A♭4", "G4", "F♯4", "F4", "E4"},
		},
		{
			"clarinet", "chromatic-loop",
			set{"written": []string{"B3", "C4"}, "loops": 1},
			[]string{"B3", "C4", "B3"},
		},
		{"trombone", "air-pulses", set{"on": "arpeggio"}, []string{"B♭2", "D3", "F3", "B♭3", "F3", "D3", "B♭2"}},
		{
			"oboe", "rhythm-on-a-note",
			set{"notes": []int{2, 4, 7}, "each": "turn"},
			[]string{"C5", "D5", "D5", "F5", "F5", "F5", "F5"},
		},
		{"trumpet", "ladder", set{"ladder": "open-two"}, []string{"C4", "G4", "C4"}},
		{"bassoon", "ladder", set{"ladder": "bassoon-low", "written": []string{"D2"}}, []string{"D2", "C2", "D2"}},
		// D♭3 down an octave (common practice).
		{"trombone", "tube-buzz-scale", nil, []string{"D♭3", "C3", "B♭2", "A♭2", "G♭2", "F2", "E♭2", "D♭2"}},
		{"tuba", "tube-buzz-scale", nil, []string{"D♭3", "C3", "B♭2", "A♭2", "G♭2", "F2", "E♭2", "D♭2"}},
	} {
		s := layFor(
			t,
			exercise.Player{Instrument: named(t, w.instrument), Stage: 4},
			exercise.New(w.kind, w.set),
			exercise.StandardConventions(),
		)
		assert.Equal(t, w.notes, names(s), "%s on %s", w.kind, w.instrument)
	}
}

func TestKindsThatAreNotForAnInstrumentSaySo(t *testing.T) {
	for kind, key := range map[string]string{
		"buzz-at-once": "flute", "overtones": "clarinet", "slur-across-partials": "oboe",
		"register-pair": "tuba",
	} {
		_, err := exercise.New(
			kind,
			nil,
		).Score(
			exercise.Player{Instrument: named(t, key), Stage: 2},
			exercise.StandardConventions(),
		)
		assert.ErrorIs(t, err, exercise.ErrNotFor, kind)
	}
}

func TestASwellGrowsAndFades(t *testing.T) {
	s := lay(t, "oboe", exercise.New("swell", nil))
	var way []string
	for _, seg := range s.Targets() {
		way = append(way, string(seg.Dynamic)+">"+string(seg.DynamicTo))
	}
	assert.Equal(t, []string{"pp>", "pp>ff", "ff>", "ff>pp", "pp>"}, way)
	assert.InDelta(t, 20, float64(s.LongestBreath()), 1e-9, "five stretches of four beats at 60")
}

func TestFingersAloneOpenAPattern(t *testing.T) {
	s := lay(t, "clarinet", exercise.New("five-note-walk", set{"way": "up", "fingers_first": true}))
	var phases []scores.Phase
	for _, seg := range s.Segments {
		phases = append(phases, seg.Phase)
	}
	assert.Equal(t, []scores.Phase{
		"ready",
		"finger",
		"finger",
		"finger",
		"finger",
		"finger",
		"breathe",
		"play",
		"play",
		"play",
		"play",
		"play",
		"rest",
	}, phases)
}
