package small_test

import (
	"errors"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"math"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/fmt/small"
)

type (
	cents float64
	word  string
	count int
	spoke struct{}
)

func (spoke) String() string { return "it <says>" }

// format hides a format from vet, which would refuse what does not fit.
func format(s string) string { return s }

func TestFormatsAsGoDoes(t *testing.T) {
	broken := errors.New("broken \"here\"")
	for _, c := range []struct {
		format string
		args   []any
	}{
		{"", nil},
		{"100 %% of %s", []any{"it"}},
		{"%s %s %s", []any{word("F♯"), spoke{}, broken}},
		{"%q %q %q %q", []any{"a \"b\"\n", word("é\x00\u2028"), spoke{}, broken}},
		{"%v %v %v %v", []any{"a", word("b"), spoke{}, broken}},
		{"%v %v %v %v", []any{true, -3, uint8(7), nil}},
		{"%v %v %v", []any{[]int{1, 2}, []word{"a", "b"}, []cents{}}},
		{"%s", []any{[]string{"a", "b"}}},
		{"%d %d %d", []any{count(-12), uint16(3), int64(math.MinInt64)}},
		{"%02d:%02d %03d %02d", []any{1, 12, -4, 123}},
		{"%.0f %.1f %.2f %f", []any{2.5, cents(-0.05), float32(1.005), 3.0}},
		{"%.0f %.0f %.1f", []any{-0.4, math.Inf(1), math.NaN()}},
		{"♩ = %d, %s", []any{60, "♭"}},
	} {
		assert.Equal(t, fmt.Sprintf(format(c.format), c.args...), small.Sprintf(c.format, c.args...), c.format)
	}
}

func TestNumbersOfAnySizeAreAsGoWritesThem(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		x, digits := rapid.Float64().Draw(t, "x"), rapid.IntRange(0, 3).Draw(t, "digits")
		for _, f := range []string{"%v", "%." + strconv.Itoa(digits) + "f"} {
			assert.Equal(t, fmt.Sprintf(format(f), x), small.Sprintf(f, x))
			assert.Equal(t, fmt.Sprintf(format(f), float32(x)), small.Sprintf(f, float32(x)))
		}
	})
	for _, x := range []float64{0, 1e20, 1e21, 123456789, 1e-4, 9.9e-5} {
		assert.Equal(t, fmt.Sprint(x), small.Sprintf("%v", x))
	}
}

func TestErrorsAreWrapped(t *testing.T) {
	_, cause := strconv.Atoi("x")
	err := small.Errorf("ask %s: %w", "which", cause)
	require.EqualError(t, err, fmt.Errorf("ask %s: %w", "which", cause).Error())
	var within *strconv.NumError
	assert.ErrorAs(t, err, &within)
	broken := errors.New("broken")
	assert.Equal(t, cause, errors.Unwrap(small.Errorf("%w beside %v", cause, broken)), "the one that is wrapped")
	assert.NoError(t, errors.Unwrap(small.Errorf("ask %s: %v", "which", cause)), "said, not wrapped")
}

func TestWhatDoesNotFitIsMarked(t *testing.T) {
	for f, arg := range map[string]any{"%d": "a", "%x": 1, "%f": 1, "%s": 1, "%v": struct{}{}, "%": 1, "%.1": 1} {
		assert.Contains(t, small.Sprintf(f, arg), "%!", f)
	}
	assert.Contains(t, small.Sprintf("%d %d", 1), "(MISSING)")
}

var verbs = regexp.MustCompile(`%[^a-zA-Z%]*[a-zA-Z%]?`)

// Every format of the core that formats in a browser has only verbs that package small knows.
func TestTheCoresFormatsAreKnown(t *testing.T) {
	known, seen := regexp.MustCompile(`^%(s|d|v|q|w|f|%|0\dd|\.\df)$`), 0
	err := filepath.WalkDir("../..", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		source, err := os.ReadFile(path)
		require.NoError(t, err)
		if !strings.Contains(string(source), `"earlychorus/core/fmt"`) {
			return nil
		}
		file, err := parser.ParseFile(token.NewFileSet(), path, source, 0)
		require.NoError(t, err)
		ast.Inspect(file, func(n ast.Node) bool {
			text, ok := n.(*ast.BasicLit)
			if !ok || text.Kind != token.STRING {
				return true
			}
			// Formats are handed on, too: every text is looked at that has a verb.
			for _, verb := range verbs.FindAllString(text.Value, -1) {
				assert.Regexp(t, known, verb, "%s: %s", path, text.Value)
				seen++
			}
			return true
		})
		return nil
	})
	require.NoError(t, err)
	assert.Greater(t, seen, 200)
}
