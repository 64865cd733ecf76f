package consent_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/consent"
)

type said = map[consent.Purpose]bool

func TestWhatMayBeDone(t *testing.T) {
	all := consent.May{Record: true, Keep: true, Show: true}
	for name, c := range map[string]struct {
		said   said
		needed bool
		may    consent.May
	}{
		"nobody asks":           {nil, false, all},
		"asked for, not given":  {nil, true, consent.May{}},
		"given":                 {said{"recording": true, "keeping": true, "showing": true}, true, all},
		"recording alone":       {said{"recording": true}, true, consent.May{Record: true}},
		"refused, unasked":      {said{"recording": false}, false, consent.May{}},
		"not to be kept":        {said{"keeping": false}, false, consent.May{Record: true, Show: true}},
		"kept but not recorded": {said{"keeping": true, "showing": true}, true, consent.May{}},
	} {
		assert.Equal(t, c.may, consent.Of(c.said, c.needed), name)
	}
}

func TestListsSayYesAndNo(t *testing.T) {
	for cell, want := range map[string]bool{"Yes": true, " x ": true, "NEIN": false, "0": false, "sí": true} {
		got, ok := consent.Read(cell)
		assert.True(t, ok, cell)
		assert.Equal(t, want, got, cell)
	}
	_, ok := consent.Read("perhaps")
	assert.False(t, ok)
	assert.Len(t, consent.Purposes(), 3)
}
