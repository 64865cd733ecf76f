package print_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/print"
)

// One emoji in one name must not keep a class from its cards.
func TestANameWithAnEmojiPrints(t *testing.T) {
	var out bytes.Buffer
	cards := []print.Card{
		{Name: "Wren 🎺 Ashdown", Instrument: "Trumpet", PIN: "123456"},
		{Name: "שרה", Instrument: "Flute", PIN: "123456"},
		{Name: "李明\u0007", Instrument: "Flute", PIN: "123456"},
	}
	require.NoError(t, print.Cards(&out, "First 👩🏽‍🎤 Winds", "A-B-C-D", "https://band.example", cards))
	assert.True(t, bytes.HasPrefix(out.Bytes(), []byte("%PDF")))
}
