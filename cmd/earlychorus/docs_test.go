package main

import (
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/demo"
)

func TestTheDemosSignInsAreListed(t *testing.T) {
	out, err := run("demo", "--sign-ins")
	require.NoError(t, err)
	for _, s := range demo.SignIns() {
		assert.Contains(t, out, s.Name)
		assert.Contains(t, out, s.PIN)
	}
}

// Every page that is written from tables is written, and says so.
func TestThePagesAreWritten(t *testing.T) {
	folder := t.TempDir()
	_, err := run("docs", folder)
	require.NoError(t, err)
	pages, err := os.ReadDir(folder)
	require.NoError(t, err)
	assert.Len(t, pages, 7)
	for _, p := range pages {
		body, err := os.ReadFile(filepath.Join(folder, p.Name()))
		require.NoError(t, err)
		assert.True(t, strings.HasPrefix(string(body), writtenBy), p.Name())
		assert.Greater(t, len(body), 1500, p.Name())
	}
	out, err := run("openapi")
	require.NoError(t, err)
	var document map[string]any
	require.NoError(t, json.Unmarshal([]byte(out), &document))
	assert.Equal(t, "3.1.0", document["openapi"])
}
