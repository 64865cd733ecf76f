package words_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/words"
)

func TestWordsStandInOrderAndOnce(t *testing.T) {
	var all []string
	for _, w := range words.All() {
		all = append(all, strings.ToLower(w.Word))
		assert.True(t, strings.HasSuffix(w.Meaning, "."), w.Word)
	}
	assert.True(t, slices.IsSorted(all))
	assert.Len(t, slices.Compact(all), len(words.All()))
}
