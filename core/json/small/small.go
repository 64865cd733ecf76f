// Package small writes and reads JSON (RFC 8259) as encoding/json does, letter for letter, in a
// fifth of its code: for the browser's copy of the core. It knows what the core's questions are
// made of. Not of them: bytes (base64), text marshalers, the tags "string" and "omitzero",
// embedded pointers, and two fields of one name that are embedded equally deep.
package small

import (
	"errors"
	"reflect"
	"slices"
	"strings"
)

// RawMessage is JSON that is read later, or was written before.
type RawMessage []byte

// MarshalJSON returns it as it is.
func (m RawMessage) MarshalJSON() ([]byte, error) {
	if m == nil {
		return []byte("null"), nil
	}
	return m, nil
}

// UnmarshalJSON keeps a copy.
func (m *RawMessage) UnmarshalJSON(data []byte) error {
	*m = append((*m)[:0], data...)
	return nil
}

// What writes and reads itself, as encoding/json has it.
type (
	writer interface{ MarshalJSON() ([]byte, error) }
	reader interface{ UnmarshalJSON(data []byte) error }
)

var (
	writes = reflect.TypeFor[writer]()
	reads  = reflect.TypeFor[reader]()
)

// deepest is how far values may lie in each other; encoding/json has the same.
const deepest = 10_000

var errDeep = errors.New("json: values lie too deep in each other")

// field is a field of a struct, or of one embedded in it.
type field struct {
	name      string
	path      []int
	omitEmpty bool
	plain     bool // it does not write itself
}

// shapes are the fields of the structs that were met.
type shapes map[reflect.Type][]field

// of lists the fields that are written of a struct, in order. One hides those of its name that
// are embedded deeper.
func (s shapes) of(t reflect.Type) []field {
	if known, ok := s[t]; ok {
		return known
	}
	var all, seen []field
	for n := range t.NumField() {
		f := t.Field(n)
		tag := f.Tag.Get("json")
		name, options, _ := strings.Cut(tag, ",")
		switch {
		case tag == "-":
		case f.Anonymous && name == "" && f.Type.Kind() == reflect.Struct:
			for _, inner := range s.of(f.Type) {
				inner.path = append([]int{n}, inner.path...)
				all = append(all, inner)
			}
		case f.IsExported():
			if name == "" {
				name = f.Name
			}
			all = append(all, field{name, []int{n}, options == "omitempty", isPlain(f.Type)})
		}
	}
	for _, f := range all {
		hides := func(o field) bool { return o.name == f.name && len(o.path) < len(f.path) }
		if !slices.ContainsFunc(all, hides) {
			seen = append(seen, f)
		}
	}
	s[t] = seen
	return seen
}
