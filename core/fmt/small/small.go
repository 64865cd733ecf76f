// Package small formats text as Go's fmt does, letter for letter, for what the core says: %s, %d,
// %v, %q, %w, digits behind the point as in %.1f, leading zeros as in %02d, and %%. Go's fmt
// reads, scans, prints to files and shows whatever there is; a browser would load all of it.
package small

import (
	"reflect"
	"strconv"
	"strings"
)

// Sprintf formats. A verb that is not known, or does not fit what is given, is written with %!
// before it.
func Sprintf(format string, args ...any) string {
	said, _ := formatted(format, args)
	return said
}

// formatted formats, and returns the error that %w says.
func formatted(format string, args []any) (said string, within error) {
	var b []byte
	for {
		text, rest, found := strings.Cut(format, "%")
		b = append(b, text...)
		if !found {
			return string(b), within
		}
		v, rest := read(rest)
		format = rest
		if v.letter == '%' {
			b = append(b, '%')
			continue
		}
		if len(args) == 0 {
			return string(append(b, "%!"+string(v.letter)+"(MISSING)"...)), within
		}
		if err, ok := args[0].(error); ok && v.letter == 'w' {
			within = err
		}
		b = v.append(b, args[0])
		args = args[1:]
	}
}

// wrapped is an error that says more than the one within it.
type wrapped struct {
	said   string
	within error
}

func (w wrapped) Error() string { return w.said }

func (w wrapped) Unwrap() error { return w.within }

// Errorf returns an error that says what Sprintf does, and wraps the error that %w says.
func Errorf(format string, args ...any) error {
	said, within := formatted(format, args)
	return wrapped{said, within}
}

// verb is how one value is written: by its letter, filled with zeros to so many digits, with so
// many behind the point.
type verb struct {
	letter byte
	zeros  int
	digits int
}

// usualDigits is how many are written behind the point where a format does not say.
const usualDigits = 6

// read reads a verb behind its %: zeros as in 02d, digits as in .1f.
func read(format string) (v verb, rest string) {
	v.digits = usualDigits
	into := &v.zeros
	for n := range len(format) {
		switch c := format[n]; {
		case c == '.':
			v.digits, into = 0, &v.digits
		case '0' <= c && c <= '9':
			*into = 10**into + int(c-'0')
		default:
			v.letter = c
			return v, format[n+1:]
		}
	}
	v.letter = '!'
	return v, ""
}

func (v verb) append(b []byte, value any) []byte {
	r := reflect.ValueOf(value)
	switch v.letter {
	case 's', 'v', 'w', 'q':
		said, says := saidBy(value)
		if !says && r.Kind() == reflect.String {
			said, says = r.String(), true
		}
		if says && v.letter == 'q' {
			return strconv.AppendQuote(b, said)
		}
		if says {
			return append(b, said...)
		}
		if v.letter == 'v' {
			return appendPlain(b, r)
		}
		if r.Kind() == reflect.Slice {
			return v.appendList(b, r)
		}
	case 'd':
		if r.CanInt() || r.CanUint() {
			return v.appendWhole(b, r)
		}
	case 'f':
		if r.CanFloat() {
			return strconv.AppendFloat(b, r.Float(), 'f', v.digits, r.Type().Bits())
		}
	}
	return append(b, "%!"+string(v.letter)...)
}

// saidBy is what a value says of itself.
func saidBy(value any) (string, bool) {
	switch value := value.(type) {
	case error:
		return value.Error(), true
	case interface{ String() string }:
		return value.String(), true
	}
	return "", false
}

func (v verb) appendWhole(b []byte, r reflect.Value) []byte {
	var digits string
	if r.CanInt() {
		digits = strconv.FormatInt(r.Int(), 10)
	} else {
		digits = strconv.FormatUint(r.Uint(), 10)
	}
	digits, negative := strings.CutPrefix(digits, "-")
	zeros := v.zeros - len(digits)
	if negative {
		b = append(b, '-')
		zeros--
	}
	return append(append(b, strings.Repeat("0", max(0, zeros))...), digits...)
}

// appendPlain writes a value that says nothing of itself.
func appendPlain(b []byte, r reflect.Value) []byte {
	switch {
	case r.CanInt() || r.CanUint():
		return verb{}.appendWhole(b, r)
	case r.CanFloat():
		return strconv.AppendFloat(b, r.Float(), 'g', -1, r.Type().Bits())
	case r.Kind() == reflect.Bool:
		return strconv.AppendBool(b, r.Bool())
	case r.Kind() == reflect.Slice:
		return verb{letter: 'v'}.appendList(b, r)
	case !r.IsValid():
		return append(b, "<nil>"...)
	}
	return append(b, "%!v"...)
}

func (v verb) appendList(b []byte, r reflect.Value) []byte {
	b = append(b, '[')
	for n := range r.Len() {
		if n > 0 {
			b = append(b, ' ')
		}
		b = v.append(b, r.Index(n).Interface())
	}
	return append(b, ']')
}
