package main

import (
	"encoding/binary"
	"fmt"
	"slices"
)

// Instructions that shape a function, and those that jumps are made of. WebAssembly core
// specification 2.0, sections 5.4.1 and 5.4.7.
const (
	opUnreachable = 0x00
	opBlock       = 0x02
	opLoop        = 0x03
	opIf          = 0x04
	opEnd         = 0x0b
	opBr          = 0x0c
	opBrIf        = 0x0d
	opBrTable     = 0x0e
	opReturn      = 0x0f
	opGet         = 0x20
	opSet         = 0x21
	opConst       = 0x41

	noResult = 0x40
)

// instruction is one of a function's, with the first number that it carries.
type instruction struct {
	op    byte
	value int
	whole []byte
}

// instructionOf reads the instruction that code begins with.
func instructionOf(code []byte) (instruction, error) {
	if len(code) == 0 {
		return instruction{}, errCut
	}
	in := instruction{op: code[0]}
	size, err := in.read(code[1:])
	if err != nil {
		return in, err
	}
	if 1+size > len(code) {
		return in, errCut
	}
	in.whole = code[:1+size]
	return in, nil
}

// read sets the instruction's first number and returns how many bytes follow its first one.
func (in *instruction) read(rest []byte) (int, error) {
	switch op := in.op; {
	case op == opBlock, op == opLoop, op == opIf, op == 0x3f, op == 0x40: // memory.size, memory.grow
		return 1, nil
	case op == opConst:
		v, n := varint(rest)
		in.value = v
		return n, nil
	case op == 0x42: // i64.const
		return numbers(rest, 1), nil
	case op == 0x43: // f32.const
		return 4, nil
	case op == 0x44: // f64.const
		return 8, nil
	case op == opBrTable:
		count, n := binary.Uvarint(rest)
		if n <= 0 || count > uint64(len(rest)) {
			return 0, errCut
		}
		return numbers(rest, int(count)+2), nil
	case op == opBr, op == opBrIf, op == 0x10, op >= opGet && op <= 0x24: // call; locals, globals
		return in.numbers(rest, 1), nil
	case op == 0x11, op >= 0x28 && op <= 0x3e: // call_indirect; loads and stores
		return in.numbers(rest, 2), nil
	case op <= 0x01, op == 0x05, op == opEnd, op == opReturn, op == 0x1a, op == 0x1b, op >= 0x45 && op <= 0xc4:
		return 0, nil // nop, else, drop, select, arithmetic
	case op == 0xfc:
		return in.wide(rest)
	}
	return 0, fmt.Errorf("instruction %#x is not one the compiler wrote so far", in.op)
}

// wide reads an instruction of two numbers: conversions, and what fills and copies memory.
func (in *instruction) wide(rest []byte) (int, error) {
	kind, _ := binary.Uvarint(rest)
	switch {
	case kind <= 7:
		return in.numbers(rest, 1), nil
	case kind == 10: // memory.copy
		return in.numbers(rest, 3), nil
	case kind == 11: // memory.fill
		return in.numbers(rest, 2), nil
	}
	return 0, fmt.Errorf("instruction 0xfc %d is not one the compiler wrote so far", kind)
}

func (in *instruction) numbers(rest []byte, count int) int {
	v, _ := binary.Uvarint(rest)
	in.value = int(v)
	return numbers(rest, count)
}

// numbers returns how many bytes so many numbers take, each up to the first byte below 128.
func numbers(rest []byte, count int) (size int) {
	for range count {
		last := slices.IndexFunc(rest[min(size, len(rest)):], func(b byte) bool { return b < 0x80 })
		if last < 0 {
			return len(rest) + 1
		}
		size += last + 1
	}
	return size
}
