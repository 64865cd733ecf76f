package small_test

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"os"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/ask"
	"earlychorus/core/json/small"
	"earlychorus/core/plan"
)

// everything has all that the core's types have, and what JSON makes hard.
type everything struct {
	inner
	Whole   int8               `json:"whole"`
	Part    float64            `json:"part,omitempty"`
	Short   float32            `json:"short"`
	Word    string             `json:"word,omitempty"`
	Yes     bool               `json:"yes,omitempty"`
	Nothing *everything        `json:"nothing"`
	Left    *inner             `json:"left,omitempty"`
	List    []inner            `json:"list"`
	Few     []string           `json:"few,omitempty"`
	Fixed   [3]uint16          `json:"fixed"`
	Named   map[name]float64   `json:"named"`
	Counted map[int][]string   `json:"counted,omitempty"`
	Any     any                `json:"any"`
	Later   json.RawMessage    `json:"later,omitempty"`
	Days    plan.Days          `json:"days"`
	Deep    map[string][][]any `json:"deep"`
	Unsaid  string             `json:"-"`
	Plain   uint
}

type name string

type inner struct {
	A string `json:"a"`
	B int    `json:"b,omitempty"`
}

// types are those that a page and the core tell each other, and everything.
func types() []reflect.Type {
	out := []reflect.Type{reflect.TypeFor[everything]()}
	for _, q := range ask.Questions() {
		out = append(out, q.Request, q.Answer)
	}
	return out
}

var (
	words = []string{
		"", "a", `"`, `\`, "<b> & </b>", "é♯\u2028", "\x00\x1f\x7f", "\xff\xc0", "\b\f\n\r\t", "😀", "null",
	}
	numbers = []float64{0, 1, -1, 0.1, 1e-6, 9.99e-7, 1e21, 1e20, 123456.789, -1e-9, 5e-324, math.MaxFloat64, 16777217}
	laters  = []string{`null`, `[1, 2 ,3]`, ` {"a" : "<\u0026>" , "b":[ ]}`, `"é <"`, `-0.5e+3`}
)

func pick[T any](r *rand.Rand, from []T) T { return from[r.IntN(len(from))] }

// fill fills a value by chance.
func fill(r *rand.Rand, v reflect.Value, depth int) {
	switch {
	case v.Type() == reflect.TypeFor[json.RawMessage]():
		v.SetBytes([]byte(pick(r, laters)))
		return
	case r.IntN(5) == 0 || depth > 5:
		return // as it is: nothing
	}
	switch v.Kind() {
	case reflect.Bool:
		v.SetBool(true)
	case reflect.Int, reflect.Int8, reflect.Int16, reflect.Int32, reflect.Int64:
		v.SetInt(r.Int64() >> (r.IntN(v.Type().Bits()) + 64 - v.Type().Bits()))
	case reflect.Uint, reflect.Uint8, reflect.Uint16, reflect.Uint32, reflect.Uint64:
		v.SetUint(r.Uint64() >> (r.IntN(v.Type().Bits()) + 64 - v.Type().Bits()))
	case reflect.Float64:
		v.SetFloat(pick(r, numbers))
	case reflect.Float32:
		v.SetFloat(float64(r.Float32()) * pick(r, []float64{1, 1e-7, 1e25, -3}))
	case reflect.String:
		v.SetString(pick(r, words))
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		fill(r, v.Elem(), depth+1)
	case reflect.Struct:
		for n := range v.NumField() {
			if v.Field(n).CanSet() {
				fill(r, v.Field(n), depth+1)
			}
		}
	case reflect.Array, reflect.Slice:
		if v.Kind() == reflect.Slice {
			v.Set(reflect.MakeSlice(v.Type(), r.IntN(4), 4))
		}
		for n := range v.Len() {
			fill(r, v.Index(n), depth+1)
		}
	case reflect.Map:
		v.Set(reflect.MakeMap(v.Type()))
		for range r.IntN(4) {
			key, value := reflect.New(v.Type().Key()).Elem(), reflect.New(v.Type().Elem()).Elem()
			fill(r, key, depth+1)
			fill(r, value, depth+1)
			v.SetMapIndex(key, value)
		}
	case reflect.Interface:
		v.Set(reflect.ValueOf(pick(r, []any{true, 1.5, "<", []any{nil, "a"}, map[string]any{"b": 1.0, "a": []any{}}})))
	}
}

// drawn calls f with a value of every type, filled by chance time and again.
func drawn(f func(r *rand.Rand, v reflect.Value)) {
	r := rand.New(rand.NewPCG(1, 2))
	for _, of := range types() {
		for range 100 {
			v := reflect.New(of)
			fill(r, v.Elem(), 0)
			f(r, v)
		}
	}
}

func TestWritesAsEncodingJSONDoes(t *testing.T) {
	drawn(func(_ *rand.Rand, v reflect.Value) {
		for _, value := range []any{v.Interface(), v.Elem().Interface()} {
			want, err := json.Marshal(value)
			got, errGot := small.Marshal(value)
			require.Equal(t, err == nil, errGot == nil, "%T: %v, %v", value, err, errGot)
			if err == nil {
				require.Equal(t, string(want), string(got), "%T", value)
			}
		}
	})
}

// What was written is read, in blanks, with what nobody asked for, and with a letter changed
// here or there; where it is still JSON of that type the same is read, and else it is refused.
func TestReadsAsEncodingJSONDoes(t *testing.T) {
	refused, read := 0, 0
	drawn(func(r *rand.Rand, v reflect.Value) {
		text, err := json.Marshal(v.Interface())
		if err != nil {
			return
		}
		spaced, err := json.MarshalIndent(v.Interface(), " ", "\t")
		require.NoError(t, err)
		more := strings.Replace(string(text), "{", `{ "nobody asked" : [ {"é\ud83d\ude00\ud800\u00e9": null} ], `, 1)
		for _, given := range []string{string(text), string(spaced), more, changed(r, text), changed(r, text)} {
			want, got := reflect.New(v.Type().Elem()), reflect.New(v.Type().Elem())
			err := json.Unmarshal([]byte(given), want.Interface())
			errGot := small.Unmarshal([]byte(given), got.Interface())
			require.Equal(t, err == nil, errGot == nil, "%s\n%v\n%v", given, err, errGot)
			if err != nil {
				refused++
				continue
			}
			read++
			require.Equal(t, want.Interface(), got.Interface(), given)
		}
	})
	assert.Greater(t, refused, 1000)
	assert.Greater(t, read, 5000)
}

// changed is a text with a letter lost, changed or doubled, or without its end.
func changed(r *rand.Rand, text []byte) string {
	out := append([]byte(nil), text...)
	n := r.IntN(len(out))
	switch r.IntN(4) {
	case 0:
		out = append(out[:n], out[n+1:]...)
	case 1:
		out[n] = pick(r, []byte("\"\\{}[],:0-+.eE5nut \x01\xff"))
	case 2:
		out = append(out[:n+1], out[n:]...)
	case 3:
		out = out[:n]
	}
	return string(out)
}

// The examples of RFC 8259, section 13, and what sections 2 to 8 allow and forbid.
func TestTextsOfTheStandard(t *testing.T) {
	for _, text := range []string{
		`{"Image": {"Width": 800, "Height": 600, "Title": "View from 15th Floor", "Thumbnail": {"Url":
			"http://www.example.com/image/481989943", "Height": 125, "Width": 100}, "Animated" : false,
			"IDs": [116, 943, 234, 38793]}}`,
		`[{"precision": "zip", "Latitude": 37.7668, "Longitude": -122.3959, "Zip": "94107", "Country": "US"}]`,
		`"Hello world!"`, `42`, `true`, ` null `, `"\uD834\uDD1E"`, `"\ud834"`, `"\ud834\u0041"`, `"\u00e9\/\b"`,
		`-0`, `1E400`, `-0.0e-0`, `[]`, `{}`, "\"\xff\"", `{"a":1,"a":2}`,
		"", " ", "{", "[1,]", `{"a":1,}`, `{"a"}`, `{a:1}`, `{1:2}`, `[1 2]`, `1 2`, `01`, `+1`, `.5`, `5.`, `1e`, `-`,
		`"`, `"\x"`, `"\u12g4"`, `"\u12"`, "\"\n\"", `nul`, `truex`, `NaN`, `'a'`, `]`, `"\`, "\ufeff1",
	} {
		var want, got any
		err, errGot := json.Unmarshal([]byte(text), &want), small.Unmarshal([]byte(text), &got)
		assert.Equal(t, err == nil, errGot == nil, "%s: %v, %v", text, err, errGot)
		if err == nil {
			assert.Equal(t, want, got, text)
		}
	}
}

// Values that lie too deep are refused as encoding/json does; a page cannot overflow the stack.
func TestDepthHasAnEnd(t *testing.T) {
	for _, deep := range []int{9_000, 11_000, 5_000_000} {
		text := []byte(strings.Repeat("[", deep) + strings.Repeat("]", deep))
		var want, got any
		assert.Equal(t, json.Unmarshal(text, &want) == nil, small.Unmarshal(text, &got) == nil, "%d", deep)
	}
	type ring struct{ Next *ring }
	round := &ring{}
	round.Next = round
	_, err := small.Marshal(round)
	assert.Error(t, err)
}

func TestWhatJSONDoesNotHoldIsRefused(t *testing.T) {
	for _, v := range []any{math.NaN(), math.Inf(-1), []byte("a"), make(chan int), func() {}, map[float64]int{1: 1}} {
		_, err := small.Marshal(v)
		assert.Error(t, err, "%T", v)
	}
	assert.Error(t, small.Unmarshal([]byte("1"), 1), "into no pointer")
	assert.Error(t, small.Unmarshal([]byte("1"), (*int)(nil)))
	var kept json.RawMessage
	require.NoError(t, small.Unmarshal([]byte(` [1, 2] `), &kept))
	assert.Equal(t, `[1, 2]`, string(kept))
	var own small.RawMessage
	require.NoError(t, small.Unmarshal([]byte(` [1, 2] `), &own))
	written, err := small.Marshal(map[string]any{"own": own, "none": small.RawMessage(nil)})
	require.NoError(t, err)
	assert.JSONEq(t, `{"none":null,"own":[1,2]}`, string(written))
}

// BenchmarkSmall reads and writes what a page is told of a step, beside encoding/json.
func BenchmarkSmall(b *testing.B) {
	text, err := os.ReadFile("../../ask/testdata/conventions.json")
	require.NoError(b, err)
	var told any
	require.NoError(b, json.Unmarshal(text, &told))
	text, err = json.Marshal(told)
	require.NoError(b, err)
	for _, with := range []struct {
		name      string
		marshal   func(any) ([]byte, error)
		unmarshal func([]byte, any) error
	}{{"small", small.Marshal, small.Unmarshal}, {"encoding", json.Marshal, json.Unmarshal}} {
		b.Run("read/"+with.name, func(b *testing.B) {
			for b.Loop() {
				var into any
				_ = with.unmarshal(text, &into)
			}
		})
		b.Run("write/"+with.name, func(b *testing.B) {
			for b.Loop() {
				_, _ = with.marshal(told)
			}
		})
	}
}
