// Package small writes and reads JSON (RFC 8259) as encoding/json does, letter for letter, in a
// fifth of its code: for the browser's copy of the core. It knows what the core's questions are
// made of. Not of them: bytes (base64), text marshalers, the tags "string" and "omitzero", and
// two fields of one name that are embedded equally deep.
package small

import (
	"errors"
	"reflect"
	"slices"
	"strings"
	"sync"
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
}

var (
	fieldsKnown = map[reflect.Type][]field{}
	fieldsLock  sync.Mutex
)

// fieldsOf lists the fields that are written of a struct, in order. One hides those of its name
// that are embedded deeper.
func fieldsOf(t reflect.Type) []field {
	fieldsLock.Lock()
	defer fieldsLock.Unlock()
	return listed(t)
}

func listed(t reflect.Type) []field {
	if known, ok := fieldsKnown[t]; ok {
		return known
	}
	var out []field
	for n := range t.NumField() {
		f := t.Field(n)
		tag := f.Tag.Get("json")
		name, options, _ := strings.Cut(tag, ",")
		switch {
		case tag == "-":
		case f.Anonymous && name == "" && f.Type.Kind() == reflect.Struct:
			for _, inner := range listed(f.Type) {
				inner.path = append([]int{n}, inner.path...)
				out = append(out, inner)
			}
		case f.IsExported():
			if name == "" {
				name = f.Name
			}
			out = append(out, field{name, []int{n}, options == "omitempty"})
		}
	}
	var seen []field
	for _, f := range out {
		hides := func(o field) bool { return o.name == f.name && len(o.path) < len(f.path) }
		if !slices.ContainsFunc(out, hides) {
			seen = append(seen, f)
		}
	}
	fieldsKnown[t] = seen
	return seen
}
