package roster_test

import (
	"archive/zip"
	"bytes"
	"errors"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/instrument"
	"earlychorus/core/roster"
)

func read(t *testing.T, file string) roster.List {
	t.Helper()
	l, err := roster.Read([]byte(file), roster.How{})
	require.NoError(t, err)
	return l
}

func short(rows []roster.Row) (out []string) {
	for _, r := range rows {
		s := r.FirstName + "|" + r.LastName + "|" + r.Instrument
		if r.Variant != "" {
			s += "|" + r.Variant
		}
		for _, p := range r.Problems {
			s += " !" + p.Field
		}
		out = append(out, s)
	}
	return out
}

func TestListsAsPeopleHaveThem(t *testing.T) {
	for name, c := range map[string]struct {
		file string
		want []string
	}{
		"plain": {
			"First name,Last name,Instrument\nWren,Ashdown,Flute\nIvo,Pellerin,Bb Clarinet\n",
			[]string{"Wren|Ashdown|flute", "Ivo|Pellerin|clarinet"},
		},
		"another order": {
			"Instrument;Surname;Given name\nFrench Horn;Grebe;Sunniva\n", []string{"Sunniva|Grebe|horn"},
		},
		"tabs, one name": {
			"Student\tSection\nAshdown, Wren\tflutes\nTeo Marrable\tClarinet 2\n",
			[]string{"Wren|Ashdown|flute", "Teo|Marrable|clarinet"},
		},
		"a mark in front": {
			"\xEF\xBB\xBFName,Instrument\nPetra Longstrand,Euphonium (4-valve)\n",
			[]string{"Petra|Longstrand|euphonium|4-valve"},
		},
		"no headings": {
			"Kit,Barrowby,Alto Sax\nDov,Lee,alto saxophone\n",
			[]string{"Kit|Barrowby|alto-sax", "Dov|Lee|alto-sax"},
		},
		"empty lines": {"Name,Instrument\n\nHal Merriden,Tpt\n,,\n", []string{"Hal|Merriden|trumpet"}},
		"unknown": {
			"Name,Instrument\nHal Merriden,Kazoo\n,Tuba\n",
			[]string{"Hal|Merriden| !instrument", "||tuba !first"},
		},
		"twice": {"Name,Instrument\nHal M,Tuba\nhal m,Horn\n", []string{"Hal|M|tuba", "hal|m|horn !row"}},
		"quotes inside": {
			"Name,Instrument\n\"Longstrand, Petra\",\"Baritone, TC\"\n",
			[]string{"Petra|Longstrand|euphonium-tc"},
		},
		"older spread": {"Name,Instrument\nZo\xEB Lee,Oboe\n", []string{"Zoë|Lee|oboe"}},
		"more than needed": {
			"Grade,First,Shirt,Last,Instr.\n5,Bram,M,Hollowell,1st Horn\n", []string{"Bram|Hollowell|horn"},
		},
	} {
		assert.Equal(t, c.want, short(read(t, c.file).Rows), name)
	}
}

func TestProblemsNameTheirRemedy(t *testing.T) {
	l := read(t, "Name,Instrument,Stage\nHal Merriden,Kazoo,9\n")
	require.Len(t, l.Rows[0].Problems, 2)
	assert.Equal(t, `"Kazoo" is not known here: choose an instrument`, l.Rows[0].Problems[0].Remedy)
	assert.Contains(t, l.Rows[0].Problems[1].Remedy, "1 to 4")
	assert.Equal(t, 2, l.Rows[0].Line)
	assert.Equal(
		t,
		[]roster.Column{
			{
				Name:    "Name",
				Meaning: "name",
				Headed:  true,
				Samples: []string{"Hal Merriden"},
			},
			{
				Name:    "Instrument",
				Meaning: "instrument",
				Headed:  true,
				Samples: []string{"Kazoo"},
			},
			{
				Name:    "Stage",
				Meaning: "stage",
				Headed:  true,
				Samples: []string{"9"},
			},
		},
		l.Columns,
	)
	fixed := l.Rows[0]
	fixed.Instrument, fixed.Stage = "tuba", 2
	assert.Empty(t, fixed.Check().Problems)
}

func TestFilesThatCannotBeReadSaySo(t *testing.T) {
	for name, c := range map[string]struct{ file, says string }{
		"empty":    {"  \n", "empty"},
		"headings": {"Name,Instrument\n", "no players"},
		"zip":      {"PK\x03\x04nonsense", "broken"},
		"large":    {strings.Repeat("x", 3<<20), "2 MB"},
		"many":     {"Name,Instrument\n" + strings.Repeat("A,Tuba\n", 600), "more than 500"},
	} {
		_, err := roster.Read([]byte(c.file), roster.How{})
		var said roster.ReadError
		require.True(t, errors.As(err, &said), name)
		assert.Contains(t, said.Error(), c.says, name)
	}
}

func zipped(t *testing.T, files map[string]string) []byte {
	t.Helper()
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for name, text := range files {
		w, err := z.Create(name)
		require.NoError(t, err)
		_, err = w.Write([]byte(text))
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return out.Bytes()
}

// OneRoster 1.2's CSV binding (1EdTech; columns from memory).
func TestOneRoster(t *testing.T) {
	const users = "sourcedId,status,enabledUser,givenName,familyName,preferredGivenName\n" +
		"u1,active,true,Wren,Ashdown,\nu2,active,true,Ivo,Pellerin,Ivi\nu3,active,true,Odile,Farrow,\n" +
		"u4,tobedeleted,true,Gone,Away,\nu5,active,true,Other,Class,\n"
	files := map[string]string{
		"users.csv": users,
		"roles.csv": "sourcedId,userSourcedId,roleType,role\nr1,u1,primary,student\nr2,u2,primary,student\n" +
			"r3,u3,primary,teacher\nr4,u4,primary,student\nr5,u5,primary,student\n",
		"enrollments.csv": "sourcedId,classSourcedId,userSourcedId,role\ne1,c1,u1,student\ne2,c1,u2,student\n" +
			"e3,c1,u3,teacher\ne4,c1,u4,student\n",
		"classes.csv": "sourcedId,title\nc1,Beginning Winds\nc2,Choir\n",
	}
	l, err := roster.Read(zipped(t, files), roster.How{})
	require.NoError(t, err)
	assert.Equal(t, "oneroster", l.Format)
	assert.Equal(
		t,
		[]string{"Wren|Ashdown| !instrument", "Ivi|Pellerin| !instrument", "Gone|Away| !instrument"},
		short(l.Rows),
	)
	assert.Equal(t, "u1", l.Rows[0].ExternalID)
	assert.True(t, l.Whole, "who is not on it has left")
	assert.False(t, l.Rows[0].Leaves)
	assert.True(t, l.Rows[2].Leaves)

	files["enrollments.csv"] += "e5,c2,u5,student\n"
	l, err = roster.Read(zipped(t, files), roster.How{})
	require.NoError(t, err)
	assert.Empty(t, l.Rows, "one of them has to be chosen")
	assert.Equal(t, []roster.Choice{{"c1", "Beginning Winds", 3}, {"c2", "Choir", 1}}, l.Classes)
	l, err = roster.Read(zipped(t, files), roster.How{ClassID: "c2"})
	require.NoError(t, err)
	assert.Equal(t, []string{"Other|Class| !instrument"}, short(l.Rows))

	alone, err := roster.Read([]byte(users), roster.How{})
	require.NoError(t, err)
	assert.Len(t, alone.Rows, 5, "users.csv by itself")
	assert.False(t, alone.Whole)
	_, err = roster.Read(zipped(t, map[string]string{"a.csv": "x"}), roster.How{})
	assert.ErrorContains(t, err, "no users.csv")
}

func TestEveryInstrumentIsKnownByItsOwnName(t *testing.T) {
	for _, i := range instrument.All() {
		key, _ := roster.InstrumentOf(i.Key)
		assert.Equal(t, i.Key, key)
	}
	for word, want := range map[string]string{
		"B♭ Clarinet": "clarinet", "2nd Trumpet": "trumpet", "Trombones": "trombone", "bari. sax": "bari-sax",
		"Horn in F": "horn", "Theremin": "",
	} {
		key, _ := roster.InstrumentOf(word)
		assert.Equal(t, want, key, word)
	}
}

func FuzzRead(f *testing.F) {
	f.Add([]byte("Name,Instrument\nHal Merriden,Tpt\n"))
	f.Add([]byte("PK\x03\x04"))
	f.Fuzz(func(t *testing.T, file []byte) {
		l, err := roster.Read(file, roster.How{})
		if err == nil {
			require.NotEmpty(t, l.Rows)
			require.LessOrEqual(t, len(l.Rows), roster.MostRows)
		}
	})
}

// Excel's "CSV" is Windows' code page 1252, on a Mac long Mac OS Roman; "Unicode
// text" is UTF-16. (Bytes from the code pages' published tables.)
func TestNamesInEveryEncodingThatSpreadsheetsSave(t *testing.T) {
	want := []string{"Siobhán|O’Brien|flute", "Anežka|Šimek|clarinet", "René|Müller|tuba", "Łukasz|Ødegård|horn"}
	const text = "First,Last,Instrument\nSiobhán,O’Brien,Flute\nAnežka,Šimek,Clarinet\nRené,Müller,Tuba\n" +
		"Łukasz,Ødegård,Horn\n"
	assert.Equal(t, want, short(read(t, text).Rows))
	assert.Equal(t, want, short(read(t, "\xEF\xBB\xBF"+text).Rows), "with a mark")

	utf16 := []byte{0xFF, 0xFE}
	for _, r := range text { // all within the basic plane
		utf16 = append(utf16, byte(r), byte(r>>8))
	}
	assert.Equal(t, want, short(read(t, string(utf16)).Rows), "UTF-16")

	// ’ 92, Š 8A, ž 9E, é E9, ü FC, á E1, å E5, Ø D8
	windows := "First,Last,Instrument\nSiobh\xE1n,O\x92Brien,Flute\nAne\x9Eka,\x8Aimek,Clarinet\n" +
		"Ren\xE9,M\xFCller,Tuba\n"
	assert.Equal(t, want[:3], short(read(t, windows).Rows), "Windows-1252")
	assert.Equal(t, []string{"Pat|O’Brien|flute"}, short(read(t, "First,Last,Instrument\nPat,O\x92Brien,Flute\n").Rows))
	assert.Equal(t, []string{"Kim|Šimek|flute"}, short(read(t, "First,Last,Instrument\nKim,\x8Aimek,Flute\n").Rows))

	// ’ D5, é 8E, ü 9F, á 87
	mac := "First,Last,Instrument\nSiobh\x87n,O\xD5Brien,Flute\nRen\x8E,M\x9Fller,Tuba\n"
	assert.Equal(t, []string{want[0], want[2]}, short(read(t, mac).Rows), "Mac OS Roman")
	assert.Equal(t, []string{"Pat|O’Brien|flute"}, short(read(t, "First,Last,Instrument\nPat,O\xD5Brien,Flute\n").Rows))
}
