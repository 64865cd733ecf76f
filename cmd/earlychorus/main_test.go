package main

import (
	"bytes"
	"encoding/json"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/notation"
	"earlychorus/core/plan"
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

func TestTheDaysSheetInEveryFormat(t *testing.T) {
	text, err := run("sheet", "--plan", "demo", "--instrument", "clarinet")
	require.NoError(t, err)
	assert.Contains(t, text, "C4 8 [T 123]")

	raw, err := run(
		"sheet",
		"--instrument",
		"euphonium",
		"--variant",
		"4-valve",
		"--day",
		"Friday",
		"--at",
		"home",
		"--format",
		"json",
	)
	require.NoError(t, err)
	var s notation.Sheet
	require.NoError(t, json.Unmarshal([]byte(raw), &s))
	assert.Equal(t, "euphonium", s.Instrument)
	assert.NotEmpty(t, s.Steps)

	xml, err := run("sheet", "--instrument", "tuba", "--format", "musicxml")
	require.NoError(t, err)
	assert.Contains(t, xml, `<score-partwise version="4.0">`)

	name := filepath.Join(t.TempDir(), "day.mid")
	said, err := run("sheet", "--instrument", "horn", "--format", "midi", "--out", name)
	require.NoError(t, err)
	assert.Empty(t, said)
	file, err := os.ReadFile(name)
	require.NoError(t, err)
	assert.Equal(t, "MThd", string(file[:4]))
}

func TestAPlanFromAFile(t *testing.T) {
	name := filepath.Join(t.TempDir(), "plan.json")
	p := plan.Plan{Name: "Ours", Items: []plan.Item{{
		Key:    "a",
		Step:   exercise.New("scale", nil),
		Times:  2,
		Days:   plan.On(1),
		At:     plan.Both,
		Wanted: 2,
	}}}
	raw, err := json.Marshal(p)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(name, raw, 0o600))
	text, err := run("sheet", "--plan", name, "--instrument", "flute", "--day", "tuesday")
	require.NoError(t, err)
	assert.Contains(t, text, "Ours, Tuesday")
	assert.Contains(t, text, "2 times")

	require.NoError(t, os.WriteFile(name, []byte(`{"items":[{"key":"a","step":{"kind":"warble"}}]}`), 0o600))
	_, err = run("sheet", "--plan", name, "--instrument", "flute")
	assert.ErrorContains(t, err, "the kinds are set-up")
}

func TestWhatIsUnknownListsWhatIsKnown(t *testing.T) {
	for _, c := range []struct {
		args []string
		says string
	}{
		{[]string{"sheet", "--instrument", "kazoo"}, "choose one of soprano-recorder"},
		{[]string{"sheet"}, "--instrument: choose one of"},
		{[]string{"sheet", "--instrument", "tuba", "--variant", "9-valve"}, "variant"},
		{[]string{"sheet", "--instrument", "tuba", "--day", "someday"}, "monday, tuesday"},
		{[]string{"sheet", "--instrument", "tuba", "--at", "sea"}, "class or home"},
		{[]string{"sheet", "--instrument", "tuba", "--stage", "9"}, "1 to 4"},
		{[]string{"sheet", "--instrument", "tuba", "--format", "braille"}, "text, musicxml, midi or json"},
		{[]string{"catalogue", "warble"}, "the kinds are set-up, assembly"},
		{[]string{"catalogue", "--format", "braille"}, "text or json"},
	} {
		_, err := run(c.args...)
		assert.ErrorContains(t, err, c.says, c.args)
	}
}

func TestTheCatalogueIsListed(t *testing.T) {
	text, err := run("catalogue")
	require.NoError(t, err)
	for _, k := range exercise.Catalogue() {
		assert.Contains(t, text, "("+k.Key+")")
	}
	one, err := run("catalogue", "swell", "--format", "json")
	require.NoError(t, err)
	var kinds []exercise.Kind
	require.NoError(t, json.Unmarshal([]byte(one), &kinds))
	require.Len(t, kinds, 1)
	assert.Equal(t, 4., kinds[0].Parts[2].Default)
	assert.Equal(t, "2 to 4 beats, by 1; 4", kinds[0].Parts[2].Range())
}
