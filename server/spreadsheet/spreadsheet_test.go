package spreadsheet_test

import (
	"encoding/csv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/server/spreadsheet"
)

func written(t require.TestingT, cells ...string) []string {
	var b strings.Builder
	w := spreadsheet.NewWriter(&b)
	require.NoError(t, w.Write(cells))
	w.Flush()
	line, err := csv.NewReader(strings.NewReader(b.String())).Read()
	require.NoError(t, err)
	return line
}

func TestFormulasAreWordsAndNumbersStayNumbers(t *testing.T) {
	for cell, want := range map[string]string{
		"=1+1": "'=1+1", "@SUM(A1)": "'@SUM(A1)",
		"+49 30 cmd": "'+49 30 cmd", "-my lip hurts": "'-my lip hurts", "\t=1": "'\t=1",
		"-12.5": "-12.5", "+3": "+3", "-1e-3": "-1e-3", "": "", "B♭4": "B♭4", "a = b": "a = b", "'quoted'": "'quoted'",
	} {
		assert.Equal(t, []string{"x", want}, written(t, "x", cell))
	}
}

// Whatever somebody writes, no cell begins as a formula does, nothing else is
// changed, and the line that was given stays as it was.
func TestNothingElseIsChanged(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		given := rapid.SliceOfN(rapid.StringMatching(`[=+\-@\ta-z0-9. ]{0,6}`), 2, 5).Draw(t, "cells")
		before := append([]string(nil), given...)
		got := written(t, given...)
		assert.Equal(t, before, given)
		require.Len(t, got, len(given))
		for n, cell := range got {
			assert.Equal(t, given[n], strings.TrimPrefix(cell, "'"))
		}
	})
}
