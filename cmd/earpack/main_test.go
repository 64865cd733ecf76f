package main

import (
	"encoding/binary"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// dataOf is a data section of pieces, each at its place.
func dataOf(pieces ...piece) []byte {
	out := binary.AppendUvarint(nil, uint64(len(pieces)))
	for _, p := range pieces {
		out = append(appendVarint(append(out, ofMemory, constant), p.at), end)
		out = append(binary.AppendUvarint(out, uint64(len(p.bytes))), p.bytes...)
	}
	return out
}

func TestPiecesComeWhereTheyBelong(t *testing.T) {
	far := 70_007 + gap
	m, err := memoryOf(dataOf(
		piece{70_000, []byte{1, 2}}, piece{far, []byte{9}}, piece{70_005, []byte{0, 3}},
	))
	require.NoError(t, err)
	assert.Equal(t, 70_000, m.start)
	assert.Equal(t, []byte{1, 2, 0, 0, 0, 0, 3}, m.bytes[:7])

	sections, err := sectionsOf(append([]byte("\x00asm\x01\x00\x00\x00"), m.section()...))
	require.NoError(t, err)
	pieces, err := piecesOf(sections[0].content)
	require.NoError(t, err)
	assert.Equal(t, []piece{{70_000, []byte{1, 2, 0, 0, 0, 0, 3}}, {far, []byte{9}}}, pieces, "short gaps are filled")
}

func TestSignedNumbers(t *testing.T) {
	for _, v := range []int{0, 1, 63, 64, -1, -64, -65, 70_000, 1 << 31} {
		b := appendVarint(nil, v)
		got, n := varint(b)
		assert.Equal(t, v, got)
		assert.Len(t, b, n)
	}
}

func TestWhatIsNoModuleIsRefused(t *testing.T) {
	for _, m := range []string{"", "\x00asm", "\x00asm\x01\x00\x00\x00\x0b\xff\x01", "<html>"} {
		_, err := pack([]byte(m))
		assert.ErrorIs(t, err, errCut, "%q", m)
	}
	_, err := pack(append([]byte("\x00asm\x01\x00\x00\x00"), memory{0, []byte("no table here")}.section()...))
	assert.ErrorIs(t, err, errTable)
}

// A program that does what leans on the table of functions: its stack grows and is searched
// for what lives, by calls through reflection too; a panic is caught behind a wrapper and by
// what is called within what is deferred, where it must not be; fields are found by their tags.
const program = `package main

import (
	"encoding/json"
	"fmt"
	"reflect"
	"runtime"
)

type kept struct {
	Said string ` + "`json:\"said\" doc:\"a \\\"word\\\" or two\"`" + `
}

type catcher struct{ caught *string }

func (c catcher) catch() {
	if fault := recover(); fault != nil {
		*c.caught = fmt.Sprint(fault)
	}
}

func deep(n int, words []*string) int {
	word := fmt.Sprint(n)
	words = append(words[:len(words):len(words)], &word)
	if n == 0 {
		runtime.GC()
		total := 0
		for _, w := range words {
			total += len(*w)
		}
		return total
	}
	in := []reflect.Value{reflect.ValueOf(n - 1), reflect.ValueOf(words)}
	return int(reflect.ValueOf(deep).Call(in)[0].Int())
}

func caught() (said string) {
	defer interface{ catch() }(catcher{&said}).catch()
	var none []int
	return fmt.Sprint(none[len(said)])
}

func notCaught() (said string) {
	defer func() { said = fmt.Sprint(said, recover()) }()
	defer func() { func() { said = fmt.Sprint(recover(), ", ") }() }()
	panic("later")
}

func main() {
	done := make(chan int)
	go func() { done <- deep(1000, nil) }()
	said, err := json.Marshal(kept{Said: caught() + "; " + notCaught()})
	method := reflect.MakeFunc(reflect.TypeOf(deep), func(in []reflect.Value) []reflect.Value {
		runtime.GC()
		return []reflect.Value{reflect.ValueOf(len(in))}
	}).Interface().(func(int, []*string) int)
	fmt.Println(<-done, method(0, nil), string(said), err)
}
`

// runner runs a module for WASI in node.
const runner = `
import { readFileSync } from 'node:fs'
import { WASI } from 'node:wasi'
const wasi = new WASI({ version: 'preview1' })
const { instance } = await WebAssembly.instantiate(readFileSync(process.argv[1]), wasi.getImportObject())
wasi.start(instance)
`

// What this compiler builds is packed, and runs: should its tables change, this says so first.
// That the packed ear hears as the server does is tested in web/src/ear.
func TestTheCompilersModuleIsPackedAndRuns(t *testing.T) {
	dir := t.TempDir()
	in := func(name string) string { return filepath.Join(dir, name) }
	require.NoError(t, os.WriteFile(in("main.go"), []byte(program), 0o600))
	build := exec.CommandContext(t.Context(), "go", "build", "-ldflags=-s -w", "-o", in("built.wasm"), in("main.go"))
	build.Env = append(os.Environ(), "GOOS=wasip1", "GOARCH=wasm", "CGO_ENABLED=0")
	said, err := build.CombinedOutput()
	require.NoError(t, err, "%s", said)
	require.NoError(t, run(in("built.wasm"), in("packed.wasm")))

	for _, name := range []string{"built.wasm", "packed.wasm"} {
		node := exec.CommandContext(t.Context(), "node", "--no-warnings", "--input-type=module", "-e", runner, in(name))
		said, err := node.CombinedOutput()
		require.NoError(t, err, "%s", said)
		want := `2894 2 {"said":"runtime error: index out of range [0] with length 0; \u003cnil\u003e, later"} <nil>`
		assert.Equal(t, want, strings.TrimSpace(string(said)), name)
	}

	packed, err := os.ReadFile(in("packed.wasm"))
	require.NoError(t, err)
	assert.NotContains(t, string(packed), "main.notCaught", "nobody reads a trace")
	assert.NotContains(t, string(packed), "or two", "nor what a field is")
	sections, err := sectionsOf(packed)
	require.NoError(t, err)
	for _, s := range sections {
		if s.id == dataSection {
			pieces, err := piecesOf(s.content)
			require.NoError(t, err)
			assert.Less(t, len(pieces), 100)
		}
	}
	again, err := pack(packed)
	require.NoError(t, err)
	assert.Equal(t, packed, again, "nothing is left to forget")
}
