// Package classcode makes the codes that players open their class with: four short words,
// which a child types, and which nobody finds by trying.
package classcode

import (
	"crypto/rand"
	"math/big"
	"slices"
	"strings"
	"sync"
	"unicode"

	"github.com/sethvargo/go-diceware/diceware"
)

const (
	words    = 4
	shortest = 3 // letters of a word
	longest  = 5
)

// unkind words are none to give a child.
var unkind = []string{
	"blunt", "groin", "grope", "hate", "keg", "pagan", "perky", "slain", "slimy", "smog", "snort", "stoke", "thong",
}

// list is the words there are: those of the Electronic Frontier Foundation's long list
// of 2016, which was cleared of offence and of words that sound alike, as far as a
// beginner types them without a mistake. There are more than 1,024, so that four make 40
// bits and more.
var list = sync.OnceValue(func() (out []string) {
	from := diceware.WordListEffLarge()
	for roll := 11111; roll <= 66666; roll++ {
		w := from.WordAt(roll)
		plain := strings.IndexFunc(w, func(r rune) bool { return r < 'a' || r > 'z' }) < 0
		if plain && len(w) >= shortest && len(w) <= longest && !slices.Contains(unkind, w) {
			out = append(out, strings.ToUpper(w))
		}
	}
	return out
})

// Words returns how many words a code is drawn from.
func Words() int { return len(list()) }

// New makes a code, such as APRON-BOAT-KELP-SUGAR.
func New() string {
	out := make([]string, words)
	for n := range out {
		k, _ := rand.Int(rand.Reader, big.NewInt(int64(len(list())))) // does not fail
		out[n] = list()[k.Int64()]
	}
	return strings.Join(out, "-")
}

// Key is a code as it is looked up: blanks, hyphens and small letters are no codes of
// their own.
func Key(typed string) string {
	return strings.Map(func(r rune) rune {
		if r = unicode.ToUpper(r); r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' {
			return r
		}
		return -1
	}, typed)
}

// IsStrong reports whether a code is one of New's, and not from when codes were short.
func IsStrong(code string) bool { return strings.Count(code, "-") == words-1 }
