package main

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio/flac"
	"earlychorus/core/audio/wav"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/synth"
)

func run(args ...string) (string, error) {
	var out bytes.Buffer
	root := rootCommand()
	root.SetOut(&out)
	root.SetErr(&out)
	root.SetArgs(args)
	err := root.Execute()
	return out.String(), err
}

// takesOnDisk makes a folder with a long tone of a clarinet, in tune as WAV and 30
// cents flat as FLAC, something that is no sound, and the score that was played.
func takesOnDisk(t *testing.T) (folder, score string) {
	t.Helper()
	folder = t.TempDir()
	i, err := instrument.Get("clarinet")
	require.NoError(t, err)
	s, err := exercise.New(
		exercise.KindLongToneCounted,
		map[string]any{"notes": []int{0}, "beats": 4, "tempo_bpm": 90},
	).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	inTune, _ := synth.Player{Instrument: i}.Play(s, 44100)
	flat, _ := synth.Player{Instrument: i, Offset: -30}.Play(s, 44100)
	packed, err := flac.Encode(flat)
	require.NoError(t, err)
	body, err := json.Marshal(s)
	require.NoError(t, err)
	for name, file := range map[string][]byte{
		"a/in tune.wav": wav.Encode(inTune), "b/flat.FLAC": packed, "b/broken.wav": []byte("no sound"),
		"b/notes.txt": []byte("left alone"), "score.json": body,
	} {
		require.NoError(t, os.MkdirAll(filepath.Dir(filepath.Join(folder, name)), 0o700))
		require.NoError(t, os.WriteFile(filepath.Join(folder, name), file, 0o600))
	}
	return folder, filepath.Join(folder, "score.json")
}

func TestPitchIsPrintedEveryTenMilliseconds(t *testing.T) {
	folder, _ := takesOnDisk(t)
	out, err := run("pitch", filepath.Join(folder, "a", "in tune.wav"), "--instrument", "clarinet")
	require.NoError(t, err)
	rows, err := csv.NewReader(strings.NewReader(out)).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, []string{"time_s", "f0_hz", "confidence", "level_db"}, rows[0])
	first, err := strconv.ParseFloat(rows[1][0], 64)
	require.NoError(t, err)
	second, err := strconv.ParseFloat(rows[2][0], 64)
	require.NoError(t, err)
	assert.InDelta(t, 0.01, second-first, 1e-9)
	voiced := 0
	for _, r := range rows[1:] {
		if f, err := strconv.ParseFloat(r[1], 64); err == nil && f > 0 {
			voiced++
			assert.InDelta(t, 233.08, f, 1.5, "concert B♭3 at 440")
		}
	}
	assert.InDelta(t, 267, voiced, 15, "four beats at 90")
	_, err = run("pitch", filepath.Join(folder, "score.json"))
	assert.Error(t, err)
	_, err = run("pitch", filepath.Join(folder, "none.wav"))
	assert.ErrorIs(t, err, os.ErrNotExist)
}

func TestATakeIsAnalysedAndJudged(t *testing.T) {
	folder, score := takesOnDisk(t)
	out, err := run("analyze", filepath.Join(folder, "b", "flat.FLAC"), "--instrument", "clarinet", "--score", score)
	require.NoError(t, err)
	var heard struct {
		Notes []struct {
			Centre float64 `json:"centre_cents"`
			MIDI   int     `json:"midi"`
		} `json:"notes"`
		Verdict struct {
			Result string `json:"result"`
		} `json:"verdict"`
	}
	require.NoError(t, json.Unmarshal([]byte(out), &heard))
	require.Len(t, heard.Notes, 1)
	assert.InDelta(t, -30, heard.Notes[0].Centre, 0.5)
	assert.Equal(t, "nearly", heard.Verdict.Result)
	out, err = run("analyze", filepath.Join(folder, "a", "in tune.wav"), "--instrument", "clarinet")
	require.NoError(t, err)
	assert.NotContains(t, out, `"verdict"`, "without a score nothing is judged")
}

func TestAFolderIsAnalysedFileByFile(t *testing.T) {
	folder, _ := takesOnDisk(t)
	out, err := run("analyze", folder, "--instrument", "clarinet", "--format", "csv")
	require.NoError(t, err)
	out = out[strings.Index(out, "file,"):] // how far it is comes first
	rows, err := csv.NewReader(strings.NewReader(out)).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 4)
	assert.Equal(t, filepath.Join("a", "in tune.wav"), rows[1][0])
	assert.Equal(t, filepath.Join("b", "broken.wav"), rows[2][0])
	assert.Contains(t, rows[2][9], "ends inside its header", "a broken file says so, and stops nothing")
	assert.Equal(t, "58", rows[3][2])
	table, err := run("analyze", folder)
	require.NoError(t, err)
	assert.Contains(t, table, "steadiness_cents")
	_, err = run("analyze", t.TempDir())
	assert.ErrorContains(t, err, "no WAV or FLAC file")
}

func TestWrongQuestionsAreAnsweredWithTheRemedy(t *testing.T) {
	folder, _ := takesOnDisk(t)
	file := filepath.Join(folder, "a", "in tune.wav")
	empty := filepath.Join(folder, "empty.json")
	require.NoError(t, os.WriteFile(empty, []byte("{}"), 0o600))
	for _, c := range []struct {
		args []string
		says string
	}{
		{[]string{"analyze", file, "--format", "braille"}, "table, csv or json"},
		{[]string{"analyze", file, "--a4", "500"}, "430 to 450 Hz"},
		{[]string{"analyze", file, "--instrument", "kazoo"}, "the keys are [soprano-recorder"},
		{[]string{"analyze", file, "--instrument", "clarinet", "--score", file}, "not a score"},
		{[]string{"analyze", file, "--instrument", "clarinet", "--score", empty}, "tempo_bpm"},
		{[]string{"pitch", file, "--instrument", "kazoo"}, "the keys are [soprano-recorder"},
	} {
		_, err := run(c.args...)
		assert.ErrorContains(t, err, c.says, c.args)
	}
}

// printed is what a test reads of analyze --score.
type printed struct {
	Accounts []struct {
		Kind string `json:"kind"`
		Came int    `json:"came_midi"`
	} `json:"accounts"`
	Verdict struct {
		Result   string `json:"result"`
		Sentence string `json:"sentence"`
		Tip      struct {
			Key  string `json:"key"`
			Text string `json:"text"`
		} `json:"tip"`
		Deciding struct {
			Cause string `json:"cause"`
			Text  string `json:"text"`
		} `json:"deciding"`
	} `json:"verdict"`
}

// analyzed lays a step out for an instrument, lets a player play it and gives the
// sound, from a moment on, to the command.
func analyzed(
	t *testing.T, key, kind string, set map[string]any, mistake string, from float64, flags ...string,
) printed {
	i, err := instrument.Get(key)
	require.NoError(t, err)
	s, err := exercise.New(kind, set).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	playing := synth.Playing{Score: s, Player: synth.Player{Instrument: i, Room: -70}}
	if m, ok := synth.MistakeOf(mistake); ok {
		at := m.At(s, i)
		require.NotEmpty(t, at)
		playing = m.Apply(playing.Player, s, at[0])
	}
	sound, _ := playing.Play(44100)
	sound.Samples = sound.Samples[int(from*44100):]
	folder := t.TempDir()
	body, err := json.Marshal(s)
	require.NoError(t, err)
	file, score := filepath.Join(folder, "take.wav"), filepath.Join(folder, "score.json")
	require.NoError(t, os.WriteFile(file, wav.Encode(sound), 0o600))
	require.NoError(t, os.WriteFile(score, body, 0o600))
	out, err := run(append([]string{"analyze", file, "--score", score}, flags...)...)
	require.NoError(t, err)
	var got printed
	require.NoError(t, json.Unmarshal([]byte(out), &got))
	return got
}

// The words a player reads stand beside the keys, and every target has its account.
func TestTheAccountOfEveryTargetIsPrintedWithItsWords(t *testing.T) {
	got := analyzed(t, "clarinet", "register-pair", map[string]any{"pairs": 1}, "stays", 0)
	require.Len(t, got.Accounts, 2)
	assert.Equal(t, "played", got.Accounts[0].Kind)
	assert.Equal(t, "held-over", got.Accounts[1].Kind)
	assert.Equal(t, "register-low", got.Verdict.Deciding.Cause)
	assert.Regexp(t, `^Stayed on \S+\. \S+ did not come\.$`, got.Verdict.Sentence)
	assert.Equal(t, "clarinet-low", got.Verdict.Tip.Key)
	assert.NotEmpty(t, got.Verdict.Tip.Text)
}

// Every kind is accepted, also one that asks for nothing but air, and recordings that
// were not made to our count-in.
func TestEveryKindIsAcceptedAlsoWithoutOurCountIn(t *testing.T) {
	breath := map[string]any{"rounds": 2}
	assert.Equal(t, "clean", analyzed(t, "flute", "breath-pattern", breath, "", 0).Verdict.Result)
	cut := analyzed(t, "flute", "breath-pattern", breath, "", 3.2, "--from-first-note")
	assert.Equal(t, "clean", cut.Verdict.Result, cut.Verdict.Sentence)
	walk := analyzed(t, "trumpet", "five-note-walk", nil, "", 1.7, "--from-first-note")
	assert.Equal(t, "clean", walk.Verdict.Result, walk.Verdict.Sentence)
	assert.Equal(t, "clean", analyzed(t, "horn", "make-a-tune", nil, "", 0).Verdict.Result)
}
