package main

import (
	"cmp"
	"maps"
	"slices"
)

// loop is a run of stretches, first to last, that one of them leads back to the first of. It
// is entered at its head alone, which the compiler likes to lay out last.
type loop struct{ first, last, head int }

func (l loop) has(n int) bool { return l.first <= n && n <= l.last }

// node is a stretch, or a loop of nodes.
type node struct {
	stretch int // of a loop: its head
	loop    []node
}

// leadsTo are the stretches that one may lead to.
func (f *layout) leadsTo(n int) (to []int) {
	s := f.stretches[n]
	for _, p := range s.parts {
		if p.ends == jumping {
			to = append(to, p.to)
		}
	}
	if s.falls && n+1 < len(f.stretches) {
		to = append(to, n+1)
	}
	return to
}

// resumed says whether a function may be entered at a stretch: at its start, after a call that
// it was left at, and at a call, for what is deferred is run so after a panic.
func (f *layout) resumed(n int) bool {
	return n == 0 || f.stretches[n-1].calls || f.stretches[n].calls
}

// loops are those that can be written as such, the inner ones first: entered at one stretch,
// resumed at none within, and every jump in them leads ahead or to their head.
func (f *layout) loops() (out []loop) {
	ends := map[int]int{} // of what is led back to, the last stretch to do so
	for n := range f.stretches {
		for _, to := range f.leadsTo(n) {
			if to <= n {
				ends[to] = max(ends[to], n)
			}
		}
	}
	var all []loop
	for first, last := range ends {
		all = append(all, loop{first: first, last: last})
	}
	slices.SortFunc(all, func(a, b loop) int {
		return cmp.Or(cmp.Compare(a.last-a.first, b.last-b.first), cmp.Compare(a.first, b.first))
	})
	for _, l := range all {
		if head, one := f.entered(l); one {
			l.head = head
			if l.apart(out) && f.turns(l, out) {
				out = append(out, l)
			}
		}
	}
	return out
}

// entered returns the stretch a loop is entered at; false when there is not just one.
func (f *layout) entered(l loop) (int, bool) {
	at := map[int]bool{}
	for n := range f.stretches {
		if l.has(n) {
			if f.resumed(n) {
				at[n] = true
			}
			continue
		}
		for _, to := range f.leadsTo(n) {
			if l.has(to) {
				at[to] = true
			}
		}
	}
	if len(at) != 1 {
		return 0, false
	}
	return slices.Collect(maps.Keys(at))[0], true
}

// apart says that each of others lies within a loop or beside it.
func (l loop) apart(others []loop) bool {
	for _, o := range others {
		if l.has(o.first) != l.has(o.last) || o.has(l.first) && o.has(l.last) {
			return false
		}
	}
	return true
}

// turns says whether each jump within a loop leads ahead, in the order it is written in, or to
// its head. The loops within are given.
func (f *layout) turns(l loop, within []loop) bool {
	place := map[int]int{}
	var put func(n node, at int)
	put = func(n node, at int) {
		if n.loop == nil {
			place[n.stretch] = at
		}
		for _, m := range n.loop {
			put(m, at)
		}
	}
	nodes := l.nodes(within)
	for at, n := range nodes {
		put(n, at)
	}
	for n := l.first; n <= l.last; n++ {
		for _, to := range f.leadsTo(n) {
			inner := nodes[place[n]].loop != nil && place[to] == place[n]
			if l.has(to) && to != l.head && !inner && place[to] <= place[n] {
				return false
			}
		}
	}
	return true
}

// nodes are a loop's, from its head on.
func (l loop) nodes(within []loop) []node {
	nodes := nodesOf(l.first, l.last, within)
	head := slices.IndexFunc(nodes, func(n node) bool { return n.stretch == l.head })
	if head < 0 { // it is entered in the middle of a loop within, which is then not entered at one place
		return nodes
	}
	return slices.Concat(nodes[head:], nodes[:head])
}

// ordered are all stretches as nodes.
func (f *layout) ordered(loops []loop) []node { return nodesOf(0, len(f.stretches)-1, loops) }

// nodesOf are the stretches first to last in nodes, those of a loop in one.
func nodesOf(first, last int, loops []loop) (out []node) {
	for n := first; n <= last; n++ {
		outer := -1
		for k, l := range loops { // the inner ones come first
			if l.first == n && l.last <= last {
				outer = k
			}
		}
		if outer < 0 {
			out = append(out, node{stretch: n})
			continue
		}
		l := loops[outer]
		out = append(out, node{stretch: l.head, loop: l.nodes(loops[:outer])})
		n = l.last
	}
	return out
}
