package small

import (
	"bytes"
	"errors"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"unicode/utf16"
	"unicode/utf8"
)

// Unmarshal reads into what a pointer points to. Errors: no JSON, or not of that type.
func Unmarshal(data []byte, into any) error {
	v := reflect.ValueOf(into)
	if v.Kind() != reflect.Pointer || v.IsNil() {
		return errors.New("json: read into a pointer")
	}
	if err := check(data); err != nil {
		return err
	}
	d := document{data: data, shapes: shapes{}}
	return d.read(v.Elem())
}

// check says whether it is JSON, one value and nothing behind it.
func check(data []byte) error {
	d := document{data: data}
	if err := d.skip(0); err != nil {
		return err
	}
	if d.next() != 0 || d.at < len(data) {
		return d.wrong()
	}
	return nil
}

// document is JSON, read as far as at.
type document struct {
	data   []byte
	at     int
	shapes shapes
}

func (d *document) wrong() error {
	return errors.New("json: not JSON at letter " + strconv.Itoa(d.at))
}

func blank(c byte) bool { return c == ' ' || c == '\n' || c == '\r' || c == '\t' }

// next is the letter that comes, behind blanks; 0 at the end.
func (d *document) next() byte {
	for d.at < len(d.data) && blank(d.data[d.at]) {
		d.at++
	}
	if d.at == len(d.data) {
		return 0
	}
	return d.data[d.at]
}

// takes says whether that letter comes next, and goes behind it.
func (d *document) takes(c byte) bool {
	if d.next() != c {
		return false
	}
	d.at++
	return true
}

// skip goes behind a value, and says where it is none.
func (d *document) skip(depth int) error {
	if depth > deepest {
		return errDeep
	}
	switch c := d.next(); {
	case c == '{':
		return d.skipAll('}', func() error {
			if d.next() != '"' {
				return d.wrong()
			}
			if err := d.skipString(); err != nil {
				return err
			}
			if !d.takes(':') {
				return d.wrong()
			}
			return d.skip(depth + 1)
		})
	case c == '[':
		return d.skipAll(']', func() error { return d.skip(depth + 1) })
	case c == '"':
		return d.skipString()
	case c == '-' || digit(c):
		return d.skipNumber()
	}
	for _, word := range []string{"null", "true", "false"} {
		if bytes.HasPrefix(d.data[d.at:], []byte(word)) {
			d.at += len(word)
			return nil
		}
	}
	return d.wrong()
}

// skipAll goes behind what lies between a bracket and its end, one by one.
func (d *document) skipAll(end byte, one func() error) error {
	d.at++
	if d.takes(end) {
		return nil
	}
	for {
		if err := one(); err != nil {
			return err
		}
		if d.takes(end) {
			return nil
		}
		if !d.takes(',') {
			return d.wrong()
		}
	}
}

func (d *document) skipString() error {
	for d.at++; d.at < len(d.data); d.at++ {
		switch c := d.data[d.at]; {
		case c == '"':
			d.at++
			return nil
		case c < ' ':
			return d.wrong()
		case c == '\\':
			d.at++
			if err := d.checkEscape(); err != nil {
				return err
			}
		}
	}
	return d.wrong()
}

func (d *document) checkEscape() error {
	if d.at == len(d.data) || !strings.ContainsRune(`"\/bfnrtu`, rune(d.data[d.at])) {
		return d.wrong()
	}
	if d.data[d.at] == 'u' {
		if unit(d.data[d.at+1:]) < 0 {
			return d.wrong()
		}
		d.at += 4
	}
	return nil
}

func digit(c byte) bool { return '0' <= c && c <= '9' }

func (d *document) skipNumber() error {
	here := func() byte {
		if d.at == len(d.data) {
			return 0
		}
		return d.data[d.at]
	}
	digits := func() bool {
		from := d.at
		for digit(here()) {
			d.at++
		}
		return d.at > from
	}
	if here() == '-' {
		d.at++
	}
	if here() == '0' {
		d.at++
	} else if !digits() {
		return d.wrong()
	}
	if here() == '.' {
		if d.at++; !digits() {
			return d.wrong()
		}
	}
	if c := here(); c == 'e' || c == 'E' {
		d.at++
		if c := here(); c == '-' || c == '+' {
			d.at++
		}
		if !digits() {
			return d.wrong()
		}
	}
	return nil
}

// raw goes behind the next value, which is one, and returns it.
func (d *document) raw() []byte {
	d.next()
	from := d.at
	_ = d.skip(0) // it was checked
	return d.data[from:d.at]
}

// read reads the next value, which is one, into v.
func (d *document) read(v reflect.Value) error {
	c := d.next()
	if c != 'n' {
		for v.Kind() == reflect.Pointer {
			if v.IsNil() {
				v.Set(reflect.New(v.Type().Elem()))
			}
			v = v.Elem()
		}
	}
	if v.Kind() != reflect.Pointer && v.CanAddr() && reflect.PointerTo(v.Type()).Implements(reads) {
		return v.Addr().Interface().(reader).UnmarshalJSON(d.raw())
	}
	if v.Kind() == reflect.Interface && c != 'n' {
		return d.readAny(v)
	}
	switch c {
	case 'n':
		d.raw()
		switch v.Kind() {
		case reflect.Pointer, reflect.Interface, reflect.Map, reflect.Slice:
			v.SetZero()
		}
		return nil
	case 't', 'f':
		if v.Kind() != reflect.Bool {
			return d.misfit(v)
		}
		v.SetBool(d.raw()[0] == 't')
		return nil
	case '"':
		if v.Kind() != reflect.String {
			return d.misfit(v)
		}
		v.SetString(d.readString())
		return nil
	case '[':
		return d.readList(v)
	case '{':
		return d.readObject(v)
	}
	return d.readNumber(v)
}

func (d *document) misfit(v reflect.Value) error {
	return errors.New("json: " + string(d.raw()) + " is no " + v.Type().String())
}

// readAny reads what nobody said the type of.
func (d *document) readAny(v reflect.Value) error {
	if v.NumMethod() > 0 {
		return d.misfit(v)
	}
	var of reflect.Type
	switch d.next() {
	case '"':
		of = reflect.TypeFor[string]()
	case 't', 'f':
		of = reflect.TypeFor[bool]()
	case '[':
		of = reflect.TypeFor[[]any]()
	case '{':
		of = reflect.TypeFor[map[string]any]()
	default:
		of = reflect.TypeFor[float64]()
	}
	value := reflect.New(of).Elem()
	if err := d.read(value); err != nil {
		return err
	}
	v.Set(value)
	return nil
}

func (d *document) readNumber(v reflect.Value) error {
	written := string(d.raw())
	misfit := errors.New("json: " + written + " is no " + v.Type().String())
	switch {
	case v.CanInt():
		n, err := strconv.ParseInt(written, 10, 64)
		if err != nil || v.OverflowInt(n) {
			return misfit
		}
		v.SetInt(n)
	case v.CanUint():
		n, err := strconv.ParseUint(written, 10, 64)
		if err != nil || v.OverflowUint(n) {
			return misfit
		}
		v.SetUint(n)
	case v.CanFloat():
		x, err := strconv.ParseFloat(written, v.Type().Bits())
		if err != nil {
			return misfit
		}
		v.SetFloat(x)
	default:
		return misfit
	}
	return nil
}

func (d *document) readList(v reflect.Value) error {
	list := v.Kind() == reflect.Slice
	if !list && v.Kind() != reflect.Array {
		return d.misfit(v)
	}
	if list {
		v.Set(reflect.MakeSlice(v.Type(), 0, 0))
	}
	n := 0
	err := d.skipAll(']', func() error {
		if list {
			v.Grow(1)
			v.SetLen(n + 1)
		} else if n == v.Len() {
			d.raw() // there is no room for it
			return nil
		}
		v.Index(n).SetZero()
		n++
		return d.read(v.Index(n - 1))
	})
	for ; !list && n < v.Len(); n++ {
		v.Index(n).SetZero()
	}
	return err
}

func (d *document) readObject(v reflect.Value) error {
	switch v.Kind() {
	case reflect.Struct:
		fields := d.shapes.of(v.Type())
		return d.readPairs(func(key string) error {
			f := slices.IndexFunc(fields, func(f field) bool { return f.name == key })
			if f < 0 {
				f = slices.IndexFunc(fields, func(f field) bool { return strings.EqualFold(f.name, key) })
			}
			if f < 0 {
				d.raw()
				return nil
			}
			return d.read(v.FieldByIndex(fields[f].path))
		})
	case reflect.Map:
		if v.IsNil() {
			v.Set(reflect.MakeMap(v.Type()))
		}
		return d.readPairs(func(written string) error {
			key := reflect.New(v.Type().Key()).Elem()
			switch {
			case key.Kind() == reflect.String:
				key.SetString(written)
			case key.CanInt():
				n, err := strconv.ParseInt(written, 10, 64)
				if err != nil || key.OverflowInt(n) {
					return d.misfit(v)
				}
				key.SetInt(n)
			default:
				return d.misfit(v)
			}
			value := reflect.New(v.Type().Elem()).Elem()
			if err := d.read(value); err != nil {
				return err
			}
			v.SetMapIndex(key, value)
			return nil
		})
	}
	return d.misfit(v)
}

// readPairs calls one with each key of an object, for it to read the value.
func (d *document) readPairs(one func(key string) error) error {
	return d.skipAll('}', func() error {
		d.next()
		key := d.readString()
		d.takes(':')
		return one(key)
	})
}

// readString reads the next string, which is one. What is not UTF-8 in it is replaced.
func (d *document) readString() string {
	raw := d.raw()
	raw = raw[1 : len(raw)-1]
	if bytes.IndexByte(raw, '\\') < 0 && utf8.Valid(raw) {
		return string(raw)
	}
	out := make([]byte, 0, len(raw))
	for at := 0; at < len(raw); {
		if raw[at] != '\\' {
			r, size := utf8.DecodeRune(raw[at:])
			out = utf8.AppendRune(out, r)
			at += size
			continue
		}
		escape := raw[at+1]
		at += 2
		if escape != 'u' {
			if n := strings.IndexByte("bfnrt", escape); n >= 0 {
				escape = "\b\f\n\r\t"[n]
			}
			out = append(out, escape)
			continue
		}
		r := unit(raw[at:])
		at += 4
		if utf16.IsSurrogate(r) {
			second := rune(-1)
			if bytes.HasPrefix(raw[at:], []byte(`\u`)) {
				second = unit(raw[at+2:])
			}
			if r = utf16.DecodeRune(r, second); r != utf8.RuneError {
				at += 6
			}
		}
		out = utf8.AppendRune(out, r)
	}
	return string(out)
}

// unit reads the four digits of an escape; -1 where there are not four.
func unit(digits []byte) rune {
	if len(digits) < 4 {
		return -1
	}
	n, err := strconv.ParseUint(string(digits[:4]), 16, 16)
	if err != nil {
		return -1
	}
	return rune(n)
}
