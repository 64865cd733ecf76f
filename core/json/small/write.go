package small

import (
	"errors"
	"math"
	"reflect"
	"slices"
	"strconv"
	"unicode/utf8"
)

// Marshal writes a value. Errors: what JSON does not hold, as what is not a number.
func Marshal(v any) ([]byte, error) {
	b, err := shapes{}.appendValue(nil, reflect.ValueOf(v), 0)
	if err != nil {
		return nil, err
	}
	return b, nil
}

func (s shapes) appendValue(b []byte, v reflect.Value, depth int) ([]byte, error) {
	if !v.IsValid() {
		return append(b, "null"...), nil
	}
	if w, ok := writerOf(v); ok {
		return appendWritten(b, w)
	}
	return s.appendPlain(b, v, depth)
}

// appendPlain writes a value of a type that does not write itself.
func (s shapes) appendPlain(b []byte, v reflect.Value, depth int) ([]byte, error) {
	if depth > deepest {
		return b, errDeep
	}
	switch v.Kind() {
	case reflect.Bool:
		return strconv.AppendBool(b, v.Bool()), nil
	case reflect.Int, reflect.Int8, reflect.Int16, reflect.Int32, reflect.Int64:
		return strconv.AppendInt(b, v.Int(), 10), nil
	case reflect.Uint, reflect.Uint8, reflect.Uint16, reflect.Uint32, reflect.Uint64:
		return strconv.AppendUint(b, v.Uint(), 10), nil
	case reflect.Float32, reflect.Float64:
		return appendFloat(b, v.Float(), v.Type().Bits())
	case reflect.String:
		return appendString(b, v.String()), nil
	case reflect.Pointer, reflect.Interface:
		return s.appendValue(b, v.Elem(), depth+1)
	case reflect.Struct:
		return s.appendStruct(b, v, depth)
	case reflect.Map:
		return s.appendMap(b, v, depth)
	case reflect.Slice:
		if v.IsNil() {
			return append(b, "null"...), nil
		}
		return s.appendList(b, v, depth)
	case reflect.Array:
		return s.appendList(b, v, depth)
	}
	return b, errors.New("json: unsupported type: " + v.Type().String())
}

// writerOf returns what writes itself; a pointer to nothing does not.
func writerOf(v reflect.Value) (writer, bool) {
	if v.Kind() == reflect.Pointer && v.IsNil() {
		return nil, false
	}
	if v.Kind() != reflect.Interface && v.Type().Implements(writes) {
		return v.Interface().(writer), true
	}
	if v.CanAddr() && reflect.PointerTo(v.Type()).Implements(writes) {
		return v.Addr().Interface().(writer), true
	}
	return nil, false
}

// isPlain says that no value of a type writes itself; what an interface holds is asked by itself.
func isPlain(t reflect.Type) bool {
	return t.Kind() == reflect.Interface || !t.Implements(writes) && !reflect.PointerTo(t).Implements(writes)
}

func appendWritten(b []byte, w writer) ([]byte, error) {
	written, err := w.MarshalJSON()
	if err != nil {
		return b, err
	}
	if err := check(written); err != nil {
		return b, err
	}
	return appendCompact(b, written), nil
}

func (s shapes) appendStruct(b []byte, v reflect.Value, depth int) (_ []byte, err error) {
	b = append(b, '{')
	first := true
	for _, f := range s.of(v.Type()) {
		value := v.FieldByIndex(f.path)
		if f.omitEmpty && empty(value) {
			continue
		}
		if !first {
			b = append(b, ',')
		}
		first = false
		b = append(appendString(b, f.name), ':')
		add := s.appendValue
		if f.plain {
			add = s.appendPlain
		}
		if b, err = add(b, value, depth+1); err != nil {
			return b, err
		}
	}
	return append(b, '}'), nil
}

func empty(v reflect.Value) bool {
	switch v.Kind() {
	case reflect.Array, reflect.Map, reflect.Slice, reflect.String:
		return v.Len() == 0
	case reflect.Struct:
		return false
	}
	return v.IsZero()
}

func (s shapes) appendMap(b []byte, v reflect.Value, depth int) (_ []byte, err error) {
	if v.IsNil() {
		return append(b, "null"...), nil
	}
	values := make(map[string]reflect.Value, v.Len())
	keys := make([]string, 0, v.Len())
	for each := v.MapRange(); each.Next(); {
		key, err := keyOf(each.Key())
		if err != nil {
			return b, err
		}
		values[key] = each.Value()
		keys = append(keys, key)
	}
	slices.Sort(keys)
	b = append(b, '{')
	for n, key := range keys {
		if n > 0 {
			b = append(b, ',')
		}
		b = append(appendString(b, key), ':')
		if b, err = s.appendValue(b, values[key], depth+1); err != nil {
			return b, err
		}
	}
	return append(b, '}'), nil
}

func keyOf(v reflect.Value) (string, error) {
	switch {
	case v.Kind() == reflect.String:
		return v.String(), nil
	case v.CanInt():
		return strconv.FormatInt(v.Int(), 10), nil
	}
	return "", errors.New("json: unsupported type of a key: " + v.Type().String())
}

func (s shapes) appendList(b []byte, v reflect.Value, depth int) (_ []byte, err error) {
	if v.Kind() == reflect.Slice && v.Type().Elem().Kind() == reflect.Uint8 {
		return b, errors.New("json: unsupported type: " + v.Type().String())
	}
	add := s.appendValue
	if isPlain(v.Type().Elem()) {
		add = s.appendPlain
	}
	b = append(b, '[')
	for n := range v.Len() {
		if n > 0 {
			b = append(b, ',')
		}
		if b, err = add(b, v.Index(n), depth+1); err != nil {
			return b, err
		}
	}
	return append(b, ']'), nil
}

// appendFloat writes a number as ECMAScript does (ECMA-262, Number::toString), as encoding/json
// does too: whole up to 1e21, and down to 1e-6.
func appendFloat(b []byte, x float64, bits int) ([]byte, error) {
	if math.IsInf(x, 0) || math.IsNaN(x) {
		return b, errors.New("json: unsupported value: " + strconv.FormatFloat(x, 'g', -1, bits))
	}
	size, format := math.Abs(x), byte('f')
	if size != 0 && (bits == 64 && (size < 1e-6 || size >= 1e21) ||
		bits == 32 && (float32(size) < 1e-6 || float32(size) >= 1e21)) {
		format = 'e'
	}
	b = strconv.AppendFloat(b, x, format, -1, bits)
	if n := len(b); format == 'e' && n >= 4 && b[n-4] == 'e' && (b[n-3] == '-' || b[n-3] == '+') && b[n-2] == '0' {
		b[n-2] = b[n-1] // e-09 is e-9
		b = b[:n-1]
	}
	return b, nil
}

const hexadecimal = "0123456789abcdef"

// appendString writes a string that may stand in a page, too: without <, > and &.
func appendString(b []byte, s string) []byte {
	b = append(b, '"')
	from := 0
	for at := 0; at < len(s); {
		r, size := utf8.DecodeRuneInString(s[at:])
		if escape := escaped(r, size); escape != "" {
			b = append(append(b, s[from:at]...), escape...)
			from = at + size
		}
		at += size
	}
	return append(append(b, s[from:]...), '"')
}

// escaped is how a letter is written that may not stand as it is.
func escaped(r rune, size int) string {
	switch r {
	case '"', '\\':
		return `\` + string(r)
	case '\b':
		return `\b`
	case '\f':
		return `\f`
	case '\n':
		return `\n`
	case '\r':
		return `\r`
	case '\t':
		return `\t`
	case '<', '>', '&', '\u2028', '\u2029':
	case utf8.RuneError:
		if size != 1 {
			return ""
		}
	default:
		if r >= ' ' {
			return ""
		}
	}
	return `\u` + string([]byte{
		hexadecimal[r>>12&15], hexadecimal[r>>8&15], hexadecimal[r>>4&15], hexadecimal[r&15],
	})
}

// appendCompact writes what was written before, without blanks, and so that it may stand in a page.
func appendCompact(b, written []byte) []byte {
	within := false
	for at := 0; at < len(written); {
		c := written[at]
		r, size := utf8.DecodeRune(written[at:])
		switch {
		case within && c == '\\':
			b = append(b, written[at:at+2]...)
			size = 2
		case within && (c == '<' || c == '>' || c == '&' || r == '\u2028' || r == '\u2029'):
			b = append(b, escaped(r, size)...)
		case !within && blank(c):
		default:
			if c == '"' {
				within = !within
			}
			b = append(b, written[at:at+size]...)
		}
		at += size
	}
	return b
}
