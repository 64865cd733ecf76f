package roster_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/roster"
)

// A sheet in words of the school's own is told once, and understood from then on.
func TestASchoolTeachesItsLists(t *testing.T) {
	const sheet = "Kid,Toots,Locker\n" +
		"\"Ashdown, Wren\",Blown thing,12\n\"Lee, Dov\",Cl. zwo,13\n\"Moss, Iva\",Cl. zwo,14\n"
	l, err := roster.Read([]byte(sheet), roster.How{})
	require.NoError(t, err)
	assert.Empty(t, l.Rows, "nothing says which column has the names")
	require.Len(t, l.Columns, 3)
	assert.Equal(t, []string{"Ashdown, Wren", "Lee, Dov", "Moss, Iva"}, l.Columns[0].Samples)

	by := roster.How{Meanings: []string{"name", "instrument", roster.NotUsed}}
	l, err = roster.Read([]byte(sheet), by)
	require.NoError(t, err)
	require.Equal(
		t,
		[]string{"Wren|Ashdown| !instrument", "Dov|Lee| !instrument", "Iva|Moss| !instrument"},
		short(l.Rows),
	)
	l.Rows[0].Instrument = "horn"
	l.Rows[1].Instrument, l.Rows[2].Instrument = "clarinet", "clarinet"
	taught := roster.Taught{}.Learn(l.Columns, l.Rows)
	assert.Equal(t, map[string]string{"kid": "name", "toots": "instrument"}, taught.Columns)
	again, err := roster.Read([]byte(sheet), roster.How{Taught: taught})
	require.NoError(t, err)
	assert.Equal(t, []string{"Wren|Ashdown|horn", "Dov|Lee|clarinet", "Iva|Moss|clarinet"}, short(again.Rows))
	assert.Equal(t, taught, taught.Learn(again.Columns, again.Rows), "nothing new is learnt from what was understood")

	// Two children of one word and two instruments: the word means neither.
	l.Rows[2].Instrument = "bass-clarinet"
	assert.Equal(t, map[string]roster.Played{"blown thing": {Instrument: "horn"}},
		roster.Taught{}.Learn(l.Columns, l.Rows).Words)

	// A column that is left out stays so; a list without headings teaches no columns.
	l, err = roster.Read([]byte("Name,Instrument,Level\nA B,Tuba,2\n"), roster.How{
		Meanings: []string{"", "", roster.NotUsed},
	})
	require.NoError(t, err)
	assert.Zero(t, l.Rows[0].Stage)
	taught = roster.Taught{}.Learn(l.Columns, l.Rows)
	assert.Equal(t, map[string]string{"level": roster.NotUsed}, taught.Columns)
	l, err = roster.Read([]byte("Moss,Iva,Cl. zwo\n"), roster.How{
		Headings: roster.HeadingsNo,
		Meanings: []string{"last", "first", "instrument"},
	})
	require.NoError(t, err)
	assert.Equal(t, []string{"Iva|Moss| !instrument"}, short(l.Rows))
	assert.Empty(t, roster.Taught{}.Learn(l.Columns, l.Rows).Columns)
}

// Who plays nothing yet is a player, too.
func TestNoInstrumentYet(t *testing.T) {
	for _, word := range []string{"none", "TBD", "undecided", "no instrument yet", "No instrument"} {
		key, _ := roster.InstrumentOf(word)
		assert.Equal(t, "none-yet", key, word)
	}
}
