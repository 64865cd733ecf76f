package main

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
)

// The compiler's table of functions (Go 1.20 and on: runtime/symtab.go, pcHeader and
// moduledata, and runtime/runtime2.go, _func). Of each function it says by instruction how
// deep the stack is and what lives on it: the runtime needs that. It also says what a panic's
// trace prints: names, files, lines, what was inlined where, what was passed. Of what it does
// not know a trace says "?".
var tableMagic = []byte{0xf1, 0xff, 0xff, 0xff, 0, 0, 1, 8}

// Words of the table's header behind the magic number, of 8 bytes, and of the module's own
// description.
const (
	headFunctions = 0
	headNames     = 3
	headUnits     = 4 // each with its files
	headTables    = 6
	headDescribed = 7
	headFields    = 8

	moduleLookup = 19 // findfunctab; it follows the facts
	moduleFacts  = 40 // gofunc
	moduleFields = 41
)

// Places in the description of a function, in bytes. Behind it come the tables by
// instruction and then the facts of the whole function, 4 bytes each.
const (
	name        = 4
	stackTable  = 16
	fileTable   = 20
	lineTable   = 24
	tableCount  = 28
	unit        = 32
	firstLine   = 36
	factCount   = 43
	description = 44
)

// What a trace alone reads (internal/abi/symtab.go: PCDATA and FUNCDATA), or what stops a
// goroutine between any two instructions, which is not done in WebAssembly.
var (
	tracedTables = []int{0, 2, 3}    // where it may stop; what is inlined; which arguments live
	tracedFacts  = []int{3, 5, 6, 7} // what is inlined; the arguments; which live; what is wrapped
)

// Functions that the runtime knows by their names: its own, and two stubs of reflection
// (isSystemGoroutine in runtime/traceback.go, argMapInternal in runtime/stkframe.go).
var namesAsked = []string{"runtime.", "reflect.makeFuncStub", "reflect.methodValueCall"}

const (
	noTable = 0
	noFact  = 0xffffffff
)

var errTable = errors.New("the table of functions is not the one that is known: see cmd/earpack/traces.go")

// functions is the table in a module's memory.
type functions struct {
	table []byte // from its magic number to the end of memory
	head  [headFields]int
	facts []byte
}

func functionsOf(m memory) (t functions, err error) {
	at := bytes.Index(m.bytes, tableMagic)
	if at < 0 || bytes.Contains(m.bytes[at+1:], tableMagic) {
		return t, errTable
	}
	t.table = m.bytes[at:]
	for n := range t.head {
		t.head[n] = int(binary.LittleEndian.Uint64(t.table[len(tableMagic)+8*n:]))
	}
	ascending := slices.IsSorted(t.head[headNames:])
	if !ascending || t.head[headNames] <= 0 || t.head[headDescribed] >= len(t.table) {
		return t, errTable
	}
	// The module's description begins with where the table and its names are.
	begins := binary.LittleEndian.AppendUint64(nil, uint64(m.start+at))
	begins = binary.LittleEndian.AppendUint64(begins, uint64(m.start+at+t.head[headNames]))
	module := bytes.Index(m.bytes, begins)
	if module < 0 || module+8*moduleFields > len(m.bytes) {
		return t, errTable
	}
	place := func(field int) int { return int(binary.LittleEndian.Uint64(m.bytes[module+8*field:])) - m.start }
	if place(moduleFacts) < at || place(moduleLookup) < place(moduleFacts) || place(moduleLookup) > len(m.bytes) {
		return t, errTable
	}
	t.facts = m.bytes[place(moduleFacts):place(moduleLookup)]
	return t, nil
}

func (t functions) word(at int) int { return int(binary.LittleEndian.Uint32(t.table[at:])) }

func (t functions) set(at, to int) { binary.LittleEndian.PutUint32(t.table[at:], uint32(to)) }

// each calls f with where every function is described.
func (t functions) each(f func(at int)) {
	described := t.head[headDescribed]
	for n := range t.head[headFunctions] {
		f(described + t.word(described+8*n+4))
	}
}

// forgetTraces takes out of the table of functions what only the trace of a panic reads.
func (m memory) forgetTraces() error {
	t, err := functionsOf(m)
	if err != nil {
		return err
	}
	t.forgetNames()
	t.forgetFacts()
	return t.forgetTables()
}

// forgetNames takes out the names of functions and of files.
func (t functions) forgetNames() {
	names := t.table[t.head[headNames]:t.head[headUnits]]
	left := []byte{0}
	places := make([]int, len(namesAsked))
	for n, asked := range namesAsked {
		places[n] = len(left)
		left = append(append(left, asked...), 0)
	}
	t.each(func(at int) {
		called, _, _ := bytes.Cut(names[t.word(at+name):], []byte{0})
		to := 0
		for n, asked := range namesAsked {
			if strings.HasPrefix(string(called), asked) {
				to = places[n]
			}
		}
		t.set(at+name, to)
		t.set(at+unit, 0)
		t.set(at+firstLine, 0)
	})
	clear(t.table[t.head[headNames]:t.head[headTables]])
	copy(names, left)
}

// forgetTables takes out the traced tables by instruction. Functions share tables.
func (t functions) forgetTables() error {
	needed, traced := map[int]bool{}, map[int]bool{}
	t.each(func(at int) {
		forget := func(at int) {
			traced[t.word(at)] = true
			t.set(at, noTable)
		}
		needed[t.word(at+stackTable)] = true
		forget(at + fileTable)
		forget(at + lineTable)
		for n := range t.word(at + tableCount) {
			if slices.Contains(tracedTables, n) {
				forget(at + description + 4*n)
			} else {
				needed[t.word(at+description+4*n)] = true
			}
		}
	})
	for offset := range traced {
		if offset == noTable || needed[offset] {
			continue
		}
		from := t.head[headTables] + offset
		length := lengthOf(t.table[from:t.head[headDescribed]])
		if length < 0 {
			return fmt.Errorf("%w: a table by instruction has no end", errTable)
		}
		clear(t.table[from : from+length])
	}
	return nil
}

// forgetFacts takes out the traced facts. Each ends where the next begins, whosever that is.
func (t functions) forgetFacts() {
	facts := map[int]bool{} // by where they begin: whether one is needed
	t.each(func(at int) {
		from := at + description + 4*t.word(at+tableCount)
		for n := range int(t.table[at+factCount]) {
			offset := t.word(from + 4*n)
			if offset == noFact {
				continue
			}
			traced := slices.Contains(tracedFacts, n)
			facts[offset] = facts[offset] || !traced
			if traced {
				t.set(from+4*n, noFact)
			}
		}
	})
	begins := slices.Sorted(maps.Keys(facts))
	for n, offset := range begins[:max(0, len(begins)-1)] {
		if !facts[offset] {
			clear(t.facts[offset:begins[n+1]])
		}
	}
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
