package main

import (
	"encoding/binary"
	"slices"
)

const codeSection = 10

// straightened is a code section in which functions jump where they mean to.
//
// The compiler lays a function out as stretches of code, in a loop of blocks that a table at
// its head leads into. To jump, be it back to the head of a loop or ahead over one branch of an
// "if", a function sets a number and begins that outer loop anew. An engine makes a search in
// a table of every such jump, at every turn of every loop, and cannot keep in registers what a
// loop works with. Here jumps ahead leave the block that ends where they lead, and loops that
// nothing resumes in the middle of are loops. The table stays for what a function is resumed
// at, after a call.
func straightened(content []byte) ([]byte, error) {
	count, n := binary.Uvarint(content)
	if n <= 0 {
		return nil, errCut
	}
	out := slices.Clone(content[:n])
	content = content[n:]
	for range count {
		length, n := binary.Uvarint(content)
		if n <= 0 || uint64(len(content)-n) < length {
			return nil, errCut
		}
		code, err := jumpsDirectly(content[n : n+int(length)])
		if err != nil {
			return nil, err
		}
		out = append(binary.AppendUvarint(out, uint64(len(code))), code...)
		content = content[n+int(length):]
	}
	return out, nil
}

// jumpsDirectly is a function's code with direct jumps; as it came where it is laid out otherwise.
func jumpsDirectly(code []byte) ([]byte, error) {
	f, as, err := layoutOf(code)
	if err != nil || !as {
		return code, err
	}
	w := writer{layout: f, order: f.ordered(f.loops())}
	return w.write()
}

// layout is a function as the compiler lays it out: what comes before, a block around all when
// it may be left in the middle to be resumed, the loop, the table, the stretches, and the rest.
type layout struct {
	before    []byte
	leaves    bool
	table     []int // by what is set before a jump: the stretch it leads to; last of all where the rest leads
	stretches []stretch
	after     []byte // from where no stretch leads on, which is never reached
}

// stretch is code that is entered at its start alone.
type stretch struct {
	parts []part
	falls bool // its end leads on to the next
	calls bool // it may be left at a call; the next is then where the function is resumed
}

// part is code, and what it ends with.
type part struct {
	code   []byte
	ends   ending
	op     byte // of leaving: always, or if
	inside int  // within how many structures of the stretch's own
	number int  // that a jump sets
	to     int  // the stretch it leads to
}

type ending int

const (
	onward ending = iota
	jumping
	leaving
)

// layoutOf reads a function; false when it is laid out otherwise, as a few written by hand are,
// and those that never jump.
func layoutOf(code []byte) (f layout, as bool, err error) {
	r := reader{code: code}
	if err := r.locals(); err != nil {
		return f, false, err
	}
	from, err := r.until(opBlock, opLoop)
	if err != nil || from < 0 {
		return f, false, err
	}
	f.before = code[:from]
	if r.last.op == opBlock {
		f.leaves = true
		r.next()
	}
	if r.last.op != opLoop {
		return f, false, r.err
	}
	blocks := 0
	for r.next(); r.last.op == opBlock; r.next() {
		blocks++
	}
	if blocks == 0 || r.last.op != opGet || r.last.value != 0 || r.next().op != opBrTable {
		return f, false, r.err
	}
	f.table = tableOf(r.last.whole)
	if r.next().op != opEnd || slices.Max(f.table) >= blocks {
		return f, false, r.err
	}
	for n := range blocks {
		s, as := f.stretchAt(&r, blocks-1-n)
		if !as || r.err != nil {
			return f, false, r.err
		}
		f.stretches = append(f.stretches, s)
	}
	f.after = code[r.at:]
	return f, true, r.err
}

// stretchAt reads a stretch that so many blocks are still open around; then come the loop and
// what is left. False when it branches otherwise than by the table.
func (f *layout) stretchAt(r *reader, around int) (s stretch, as bool) {
	from, inside := r.at, 0
	var before, last instruction // the two that were read last
	cut := func(to int) []byte { code := r.code[from:to]; from = r.at; return code }
	for r.err == nil {
		began := r.at
		in := r.next()
		switch in.op {
		case opBlock, opLoop, opIf:
			inside++
		case opEnd:
			if inside == 0 {
				s.parts = append(s.parts, part{code: cut(began)})
				s.falls = last.op != opBr && last.op != opReturn && last.op != opUnreachable
				return s, true
			}
			inside--
		case opBrTable:
			return s, false
		case opBr, opBrIf:
			switch beyond := in.value - inside; {
			case beyond < 0: // a structure of its own
			case beyond == around && in.op == opBr && setsNext(before, last):
				p := part{code: cut(began - len(before.whole) - len(last.whole)), ends: jumping, inside: inside}
				p.number = before.value
				p.to = f.table[min(p.number, len(f.table)-1)]
				s.parts = append(s.parts, p)
			case beyond == around+1 && f.leaves:
				p := part{code: cut(began), ends: leaving, inside: inside}
				p.op = in.op
				s.parts = append(s.parts, p)
				s.calls = s.calls || inside == 0
			default:
				return s, false
			}
		}
		before, last = last, in
	}
	return s, false
}

// setsNext says whether two instructions set what the table at a function's head reads.
func setsNext(a, b instruction) bool { return a.op == opConst && b.op == opSet && b.value == 0 }

// tableOf are the numbers of a branch by table.
func tableOf(whole []byte) (out []int) {
	rest := whole[1:]
	count, n := binary.Uvarint(rest)
	for range count + 1 {
		rest = rest[n:]
		var to uint64
		to, n = binary.Uvarint(rest)
		out = append(out, int(to))
	}
	return out
}

// reader reads a function's instructions one by one.
type reader struct {
	code []byte
	at   int
	last instruction
	err  error
}

func (r *reader) next() instruction {
	if r.err == nil {
		r.last, r.err = instructionOf(r.code[r.at:])
		r.at += len(r.last.whole)
	}
	if r.err != nil {
		r.last = instruction{}
	}
	return r.last
}

// locals passes over what a function declares.
func (r *reader) locals() error {
	kinds, n := binary.Uvarint(r.code)
	if n <= 0 {
		return errCut
	}
	r.at = n
	for range kinds {
		_, n := binary.Uvarint(r.code[r.at:])
		if n <= 0 || r.at+n >= len(r.code) {
			return errCut
		}
		r.at += n + 1
	}
	return nil
}

// until reads the first of some instructions and returns its place; -1 when there is none.
func (r *reader) until(ops ...byte) (int, error) {
	for r.at < len(r.code) {
		at := r.at
		if in := r.next(); r.err != nil || slices.Contains(ops, in.op) {
			return at, r.err
		}
	}
	return -1, nil
}
