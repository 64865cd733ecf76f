package main

import (
	"bytes"
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
	program := filepath.Join("testdata", "leaning", "main.go")
	build := exec.CommandContext(t.Context(), "go", "build", "-ldflags=-s -w", "-o", in("built.wasm"), program)
	build.Env = append(os.Environ(), "GOOS=wasip1", "GOARCH=wasm", "CGO_ENABLED=0")
	said, err := build.CombinedOutput()
	require.NoError(t, err, "%s", said)
	require.NoError(t, run(in("built.wasm"), in("packed.wasm")))

	for _, name := range []string{"built.wasm", "packed.wasm"} {
		node := exec.CommandContext(t.Context(), "node", "--no-warnings", "--input-type=module", "-e", runner, in(name))
		said, err := node.CombinedOutput()
		require.NoError(t, err, "%s", said)
		want := `2894 2 {"said":"runtime error: index out of range [0] with length 0; \u003cnil\u003e, later"} <nil> ` +
			`216 303 -501 39 0 17680`
		assert.Equal(t, want, strings.TrimSpace(string(said)), name)
	}

	packed, err := os.ReadFile(in("packed.wasm"))
	require.NoError(t, err)
	assert.False(t, bytes.Contains(packed, []byte("main.notCaught")), "nobody reads a trace")
	assert.False(t, bytes.Contains(packed, []byte("or two")), "nor what a field is")
	built, err := os.ReadFile(in("built.wasm"))
	require.NoError(t, err)
	assert.Less(t, float64(byTable(t, packed)), 0.15*float64(byTable(t, built)), "most jumps are direct")
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
	assert.True(t, bytes.Equal(packed, again), "nothing is left to forget")
}

// byTable counts the jumps of a module that go by a table.
func byTable(t *testing.T, module []byte) (count int) {
	sections, err := sectionsOf(module)
	require.NoError(t, err)
	for _, s := range sections {
		if s.id != codeSection {
			continue
		}
		functions, n := binary.Uvarint(s.content)
		for rest := s.content[n:]; functions > 0; functions-- {
			length, n := binary.Uvarint(rest)
			count += jumpsByTable(t, rest[n:n+int(length)])
			rest = rest[n+int(length):]
		}
	}
	return count
}

func jumpsByTable(t *testing.T, code []byte) (count int) {
	r := reader{code: code}
	require.NoError(t, r.locals())
	var before, last instruction
	for r.at < len(code) {
		in := r.next()
		require.NoError(t, r.err)
		if in.op == opBr && setsNext(before, last) {
			count++
		}
		before, last = last, in
	}
	return count
}
