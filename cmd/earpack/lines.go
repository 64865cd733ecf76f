package main

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
)

// The compiler's table of functions (Go 1.20 and on: runtime/symtab.go, pcHeader, and
// runtime/runtime2.go, _func). For each there are tables by instruction: how deep the stack
// is, what lives on it, and which line of which file it is from. The runtime needs the
// first two; of a line it does not know it says "?" in the trace of a panic.
var tableMagic = []byte{0xf1, 0xff, 0xff, 0xff, 0, 0, 1, 8}

// Places of a table's header, in 8 bytes each behind the magic number, and of a function's
// description, in bytes.
const (
	headFunctions = 0
	headTables    = 6
	headDescribed = 7
	headFields    = 8

	stackTable  = 16
	fileTable   = 20
	lineTable   = 24
	tableCount  = 28
	firstLine   = 36
	description = 44
)

var errTable = errors.New("the table of functions is not the one that is known: see cmd/earpack/lines.go")

// forgetLines takes the files and lines of instructions out of the table of functions.
func (m memory) forgetLines() error {
	at := bytes.Index(m.bytes, tableMagic)
	if at < 0 || bytes.Contains(m.bytes[at+1:], tableMagic) {
		return errTable
	}
	table := m.bytes[at:]
	head := make([]int, headFields)
	for n := range head {
		head[n] = int(binary.LittleEndian.Uint64(table[len(tableMagic)+8*n:]))
	}
	tables, described := head[headTables], head[headDescribed]
	if tables <= 0 || described <= tables || described >= len(table) {
		return errTable
	}
	word := func(at int) int { return int(binary.LittleEndian.Uint32(table[at:])) }
	needed, lines := map[int]bool{}, map[int]bool{}
	for f := range head[headFunctions] {
		at := described + word(described+8*f+4)
		needed[word(at+stackTable)] = true
		for n := range word(at + tableCount) {
			needed[word(at+description+4*n)] = true
		}
		for _, field := range []int{fileTable, lineTable} {
			lines[word(at+field)] = true
			clear(table[at+field : at+field+4])
		}
		clear(table[at+firstLine : at+firstLine+4])
	}
	for offset := range lines {
		from := tables + offset
		if offset == 0 || needed[offset] {
			continue
		}
		length := lengthOf(table[from:described])
		if length < 0 {
			return fmt.Errorf("%w: a table of lines has no end", errTable)
		}
		clear(table[from : from+length])
	}
	return nil
}

// lengthOf is how long a table by instruction is: pairs of differences, to one that is 0;
// -1 where it has no end.
func lengthOf(table []byte) (length int) {
	for first := true; ; first = false {
		by, n := binary.Uvarint(table[length:])
		if n <= 0 {
			return -1
		}
		if length += n; by == 0 && !first {
			return length
		}
		if _, n = binary.Uvarint(table[length:]); n <= 0 {
			return -1
		}
		length += n
	}
}
