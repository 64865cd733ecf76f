package ask_test

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"os"
	"runtime"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/ask"
)

// judged is a take that a simulated player plays, and what the core answers of it. The page's
// tests hold the core in the browser to the same file (web/src/ear/judged.test.ts), so that
// device and server come to the same word to the last bit.
type judged struct {
	Instrument string         `json:"instrument"`
	Kind       string         `json:"kind"`
	Parameters map[string]any `json:"parameters"`
	StandIn    string         `json:"stand_in"`
	Said       string         `json:"said"`
	Answer     string         `json:"answer_sha256"` // of the whole answer, drawings and all
}

const judgedFile = "testdata/judged.json"

func TestTheBrowserJudgesAlike(t *testing.T) {
	if runtime.GOARCH != "amd64" {
		t.Skip("machines that multiply and add in one step round otherwise")
	}
	text, err := os.ReadFile(judgedFile)
	require.NoError(t, err)
	var takes []judged
	require.NoError(t, json.Unmarshal(text, &takes))
	for n, was := range takes {
		now := was
		now.Said, now.Answer = judgeAsTheBrowser(t, was)
		if os.Getenv("UPDATE") == "" {
			assert.Equal(t, was, now)
		}
		takes[n] = now
	}
	if os.Getenv("UPDATE") != "" {
		text, err := json.MarshalIndent(takes, "", "  ")
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(judgedFile, append(text, '\n'), 0o644))
	}
}

// judgeAsTheBrowser asks what the page's test asks, in the same words.
func judgeAsTheBrowser(t *testing.T, of judged) (said, hash string) {
	t.Helper()
	const rate = 48000
	conventions, err := os.ReadFile("testdata/conventions.json")
	require.NoError(t, err)
	var worked struct {
		Score json.RawMessage `json:"score"`
	}
	require.NoError(t, json.Unmarshal(put(t, "work", map[string]any{
		"setting": map[string]any{
			"instrument":  of.Instrument,
			"stage":       2,
			"conventions": json.RawMessage(conventions),
		},
		"step":  map[string]any{"kind": of.Kind, "parameters": of.Parameters},
		"tempo": 0,
	}, &ask.Sound{}), &worked))
	var sound ask.Sound
	put(t, "perform", map[string]any{
		"score":    worked.Score,
		"stand_in": of.StandIn,
		"seed":     1,
		"rate":     rate,
	}, &sound)
	for _, v := range sound.Out.Samples {
		sound.In = append(sound.In, float64(float32(v))) // as it passes through the browser's memory
	}
	answer := put(t, "judge", map[string]any{
		"score":       worked.Score,
		"start_s":     0,
		"free_start":  false,
		"recent_tips": []string{},
		"tips":        map[string]any{},
		"air":         "speed",
		"naming":      "english",
		"rate":        rate,
	}, &sound)
	var heard struct {
		Verdict struct {
			Result   string `json:"result"`
			Sentence string `json:"sentence"`
		} `json:"verdict"`
	}
	require.NoError(t, json.Unmarshal(answer, &heard))
	sum := sha256.Sum256(bytes.TrimSpace(answer))
	return heard.Verdict.Result + ": " + heard.Verdict.Sentence, hex.EncodeToString(sum[:])
}

func put(t *testing.T, name string, request any, sound *ask.Sound) []byte {
	t.Helper()
	text, err := json.Marshal(request)
	require.NoError(t, err)
	answer, err := ask.Answer(name, text, sound)
	require.NoError(t, err, name)
	return answer
}
