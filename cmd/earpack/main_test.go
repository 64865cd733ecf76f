package main

import (
	"encoding/binary"
	"os"
	"os/exec"
	"path/filepath"
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

// What this compiler builds is packed: should its tables change, this says so first. That the
// packed ear hears as the server does is tested in web/src/ear.
func TestTheCompilersModuleIsPacked(t *testing.T) {
	dir := t.TempDir()
	source, built := filepath.Join(dir, "main.go"), filepath.Join(dir, "built.wasm")
	require.NoError(t, os.WriteFile(source, []byte("package main\n\nfunc main() { println(1) }\n"), 0o600))
	build := exec.CommandContext(t.Context(), "go", "build", "-ldflags=-s -w", "-o", built, source)
	build.Env = append(os.Environ(), "GOOS=wasip1", "GOARCH=wasm", "CGO_ENABLED=0")
	said, err := build.CombinedOutput()
	require.NoError(t, err, "%s", said)
	module, err := os.ReadFile(built)
	require.NoError(t, err)

	packed, err := pack(module)
	require.NoError(t, err)
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
