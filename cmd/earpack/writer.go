package main

import (
	"encoding/binary"
	"errors"
	"slices"
)

// writer writes a function's nodes anew: once with every node in reach of jumps, and then with
// those that were jumped to.
type writer struct {
	layout
	order  []node
	next   map[int]int // of each stretch, the one written behind it
	reach  func(n int) bool
	jumped map[int]bool // to a node ahead
	sought map[int]bool // by the table
	scopes []scope
	out    []byte
}

// scope is a structure that what is being written lies in.
type scope struct {
	op    byte
	leads int // where a branch to it leads: a stretch, or one of what follows
}

const (
	nowhere = -1 - iota // to where nothing leads
	outside             // out of the function, to be resumed
	toTable
)

var errAstray = errors.New("a jump leads where there is no way to")

func (w *writer) write() ([]byte, error) {
	flat := flattened(w.order)
	w.next = map[int]int{}
	for k, n := range flat {
		w.next[n] = len(w.stretches)
		if k+1 < len(flat) {
			w.next[n] = flat[k+1]
		}
	}
	w.reach = func(int) bool { return true }
	w.jumped, w.sought = map[int]bool{}, map[int]bool{}
	if err := w.function(true, true); err != nil {
		return nil, err
	}
	jumped, sought := w.jumped, w.sought
	entered := func(n int) bool { return sought[n] || w.resumed(n) }
	tabled := false
	for n := 1; n < len(w.stretches); n++ {
		tabled = tabled || entered(n)
	}
	w.reach = func(n int) bool { return jumped[n] || tabled && entered(n) }
	err := w.function(tabled, len(sought) > 0)
	return w.out, err
}

func flattened(nodes []node) (out []int) {
	for _, n := range nodes {
		if n.loop != nil {
			out = append(out, flattened(n.loop)...)
			continue
		}
		out = append(out, n.stretch)
	}
	return out
}

// function writes all of it, with a table where it needs one, in a loop where that is jumped to.
func (w *writer) function(tabled, again bool) error {
	w.out, w.scopes = slices.Clone(w.before), nil
	if w.leaves {
		w.open(opBlock, outside)
	}
	if tabled {
		w.open(opBlock, nowhere)
	}
	if again {
		w.open(opLoop, toTable)
	}
	if err := w.sequence(w.order, tabled); err != nil {
		return err
	}
	if again {
		w.close()
	}
	if tabled {
		w.close()
	}
	w.out = append(w.out, w.after...)
	return nil
}

func (w *writer) open(op byte, leads int) {
	w.out = append(w.out, op, noResult)
	w.scopes = append(w.scopes, scope{op, leads})
}

func (w *writer) close() {
	w.out = append(w.out, opEnd)
	w.scopes = w.scopes[:len(w.scopes)-1]
}

// sequence writes nodes one behind the other, each behind a block that is left to jump there.
func (w *writer) sequence(nodes []node, tabled bool) error {
	inReach := func(k int) bool { return (k > 0 || tabled) && w.reach(nodes[k].stretch) }
	for k := len(nodes) - 1; k >= 0; k-- {
		if inReach(k) {
			w.open(opBlock, nodes[k].stretch)
		}
	}
	if tabled {
		w.lookUp()
	}
	for k, n := range nodes {
		if inReach(k) {
			w.close()
		}
		if n.loop == nil {
			if err := w.stretch(n.stretch); err != nil {
				return err
			}
			continue
		}
		w.open(opLoop, n.stretch)
		if err := w.sequence(n.loop, false); err != nil {
			return err
		}
		w.close()
	}
	return nil
}

// lookUp writes the table: it leads to what is in reach, and else nowhere.
func (w *writer) lookUp() {
	var depths []int
	for _, n := range w.table {
		depth, there := w.depthOf(n)
		if !there || !w.sought[n] && !w.resumed(n) {
			depth, _ = w.depthOf(nowhere)
		}
		depths = append(depths, depth)
	}
	rest := depths[len(depths)-1]
	count := len(depths) - 1
	for count > 0 && depths[count-1] == rest {
		count--
	}
	w.out = binary.AppendUvarint(append(w.out, opGet, 0, opBrTable), uint64(count))
	for _, depth := range append(depths[:count:count], rest) {
		w.out = binary.AppendUvarint(w.out, uint64(depth))
	}
}

// stretch writes a stretch, and a jump to what it leads on to where another stands behind it.
func (w *writer) stretch(n int) error {
	s := w.stretches[n]
	for _, p := range s.parts {
		w.out = append(w.out, p.code...)
		switch p.ends {
		case leaving:
			depth, _ := w.depthOf(outside)
			w.branch(p.op, depth+p.inside)
		case jumping:
			if err := w.jump(p); err != nil {
				return err
			}
		}
	}
	switch {
	case !s.falls || w.next[n] == n+1:
		return nil
	case n+1 == len(w.stretches):
		w.out = append(w.out, opUnreachable)
		return nil
	}
	if !w.direct(n+1, 0) {
		return errAstray
	}
	return nil
}

// jump writes a direct jump where there is a way, and else one by the table.
func (w *writer) jump(p part) error {
	if w.direct(p.to, p.inside) {
		return nil
	}
	depth, there := w.depthOf(toTable)
	if !there {
		return errAstray
	}
	w.sought[p.to] = true
	w.out = append(appendVarint(append(w.out, opConst), p.number), opSet, 0)
	w.branch(opBr, depth+p.inside)
	return nil
}

// direct writes a direct jump to a stretch, if there is a way from within so many structures.
func (w *writer) direct(to, inside int) bool {
	depth, there := w.depthOf(to)
	if !there {
		return false
	}
	if w.scopes[len(w.scopes)-1-depth].op == opBlock {
		w.jumped[to] = true
	}
	w.branch(opBr, depth+inside)
	return true
}

func (w *writer) branch(op byte, depth int) {
	w.out = binary.AppendUvarint(append(w.out, op), uint64(depth))
}

// depthOf is how many structures further out that one is which leads somewhere.
func (w *writer) depthOf(leads int) (int, bool) {
	for k := len(w.scopes) - 1; k >= 0; k-- {
		if w.scopes[k].leads == leads {
			return len(w.scopes) - 1 - k, true
		}
	}
	return 0, false
}
