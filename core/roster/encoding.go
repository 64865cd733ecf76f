package roster

import (
	"bytes"
	"unicode"
	"unicode/utf8"

	"golang.org/x/text/encoding"
	"golang.org/x/text/encoding/charmap"
	utf "golang.org/x/text/encoding/unicode"
)

// inUTF8 reads a text in whichever way spreadsheets save theirs: UTF-8, UTF-16
// with its mark, Windows (code page 1252) or Mac OS Roman. The last two have no
// mark: the one that makes the better words is taken.
func inUTF8(file []byte) []byte {
	switch {
	case bytes.HasPrefix(file, []byte("\xEF\xBB\xBF")):
		return file[3:]
	case bytes.HasPrefix(file, []byte("\xFF\xFE")), bytes.HasPrefix(file, []byte("\xFE\xFF")):
		return decoded(utf.UTF16(utf.LittleEndian, utf.ExpectBOM), file)
	case utf8.Valid(file):
		return file
	}
	windows, mac := decoded(charmap.Windows1252, file), decoded(charmap.Macintosh, file)
	if oddities(mac) < oddities(windows) {
		return mac
	}
	return windows
}

// decoded reads a file in an encoding; what has no meaning in it becomes U+FFFD.
func decoded(e encoding.Encoding, file []byte) []byte {
	out, err := e.NewDecoder().Bytes(file)
	if err != nil {
		return bytes.ToValidUTF8(file, []byte("\uFFFD"))
	}
	return out
}

// oddities counts what no name or heading has, as a text read in the wrong encoding
// does: signs of no language, and capitals inside a word after a small letter. In
// ASCII both encodings are the same, so only other letters tell.
func oddities(text []byte) (count int) {
	before := ' '
	for _, r := range string(text) {
		switch {
		case r < utf8.RuneSelf:
		case r == '’' || r == '‘' || r == '“' || r == '”' || r == '–' || r == '—':
		case !unicode.IsLetter(r):
			count++
		case unicode.IsUpper(r) && unicode.IsLetter(before):
			count++
		}
		before = r
	}
	return count
}
