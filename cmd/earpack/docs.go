package main

import (
	"bytes"
	"regexp"
)

// What a struct's tag says of a field to whoever reads the API's page; no program asks for it.
var fieldDoc = regexp.MustCompile(` doc:"(?:[^"\\\x00-\x1f]|\\.)*"`)

// forgetDocs blanks what is said of fields: blanks between a tag's keys mean nothing.
func (m memory) forgetDocs() {
	for _, at := range fieldDoc.FindAllIndex(m.bytes, -1) {
		copy(m.bytes[at[0]:at[1]], bytes.Repeat([]byte{' '}, at[1]-at[0]))
	}
}
