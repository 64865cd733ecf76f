package plan_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/plan"
)

func three() []plan.Item {
	return []plan.Item{item("a", "swell", nil), item("b", "scale", nil), item("c", "echo", nil)}
}

func TestTwoPeoplesChangesComeTogether(t *testing.T) {
	theirs, mine := three(), three()
	theirs[0].Times = 2
	mine = append(mine[:1], mine[2:]...) // b taken away
	mine = append(mine, item("d", "care", nil))
	merged, conflicts := plan.Merge(three(), theirs, mine)
	assert.Empty(t, conflicts)
	assert.Equal(t, []string{"a", "c", "d"}, keys(merged))
	assert.Equal(t, 2, merged[0].Times)
}

func TestOneItemChangedTwiceIsAConflict(t *testing.T) {
	theirs, mine := three(), three()
	theirs[1].Times, mine[1].Times = 2, 3
	mine[0].Pinned = true
	merged, conflicts := plan.Merge(three(), theirs, mine)
	require.Len(t, conflicts, 1)
	assert.Equal(t, "b", conflicts[0].Key)
	assert.Equal(t, 3, conflicts[0].Mine.Times)
	assert.Equal(t, 2, merged[1].Times, "theirs stands until somebody decides")
	assert.True(t, merged[0].Pinned)

	theirs = append(three()[:1], three()[2])
	_, conflicts = plan.Merge(three(), theirs, mine)
	require.Len(t, conflicts, 1, "taken away by them, changed by me")
	assert.Nil(t, conflicts[0].Theirs)
}

func TestOrderIsWhoeversMoved(t *testing.T) {
	mine := []plan.Item{three()[2], three()[0], three()[1]}
	theirs := append(three(), item("d", "care", nil))
	merged, conflicts := plan.Merge(three(), theirs, mine)
	assert.Empty(t, conflicts)
	assert.Equal(t, []string{"c", "d", "a", "b"}, keys(merged), "what they added stands behind what it stood behind")
	merged, _ = plan.Merge(three(), mine, three())
	assert.Equal(t, []string{"c", "a", "b"}, keys(merged))
}

// Nothing one person did alone is ever lost, and nothing comes from nowhere.
func TestMergeLosesNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		base := []plan.Item{}
		for n := range rapid.IntRange(0, 5).Draw(t, "items") {
			base = append(base, item(fmt.Sprint(n), "swell", nil))
		}
		edit := func(who string) []plan.Item {
			out := []plan.Item{}
			for _, i := range base {
				switch rapid.SampledFrom([]string{"keep", "keep", "change", "drop"}).Draw(t, who+i.Key) {
				case "change":
					i.Times = rapid.IntRange(2, 4).Draw(t, who+"times")
				case "drop":
					continue
				}
				out = append(out, i)
			}
			if rapid.Bool().Draw(t, who+"adds") {
				out = append(out, item(who, "echo", nil))
			}
			return out
		}
		theirs, mine := edit("theirs"), edit("mine")
		merged, conflicts := plan.Merge(base, theirs, mine)
		disputed := map[string]bool{}
		for _, c := range conflicts {
			disputed[c.Key] = true
		}
		find := func(list []plan.Item, key string) (plan.Item, bool) {
			for _, i := range list {
				if i.Key == key {
					return i, true
				}
			}
			return plan.Item{}, false
		}
		for _, list := range [][]plan.Item{mine, theirs} {
			for _, i := range list {
				was, there := find(base, i.Key)
				if disputed[i.Key] || there && was.Times == i.Times {
					continue
				}
				got, ok := find(merged, i.Key)
				require.True(t, ok, "what somebody added or changed is there")
				require.Equal(t, i.Times, got.Times)
			}
		}
		require.Equal(t, len(merged), len(unique(keys(merged))))
		alone, none := plan.Merge(base, base, mine)
		require.Empty(t, none)
		require.ElementsMatch(t, keys(mine), keys(alone), "nobody else: mine as it is")
	})
}

func unique(keys []string) map[string]bool {
	out := map[string]bool{}
	for _, k := range keys {
		out[k] = true
	}
	return out
}

func TestChangesAreSaidInAFewWords(t *testing.T) {
	to := three()
	to[0].Times = 2
	assert.Equal(t, "changed Swell. ", plan.Changes(three(), to))
	assert.Equal(t, "added Swell, Scale or arpeggio, others. ", plan.Changes(nil, three()))
	assert.Equal(t, "took away Echo. ", plan.Changes(three(), three()[:2]))
	assert.Equal(t, "moved steps", plan.Changes(three(), []plan.Item{three()[1], three()[0], three()[2]}))
	assert.Equal(t, "nothing", plan.Changes(three(), three()))
}
