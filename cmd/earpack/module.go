package main

import (
	"cmp"
	"encoding/binary"
	"errors"
	"slices"
)

// A module is a preamble and sections: a number, a length, a content. WebAssembly core
// specification 2.0, section 5.5.
const (
	preamble    = 8
	dataSection = 11
)

type section struct {
	id      byte
	content []byte
	whole   []byte // with its number and length
}

var errCut = errors.New("the module is cut off, or is none")

func sectionsOf(module []byte) (out []section, err error) {
	if len(module) < preamble || string(module[:4]) != "\x00asm" {
		return nil, errCut
	}
	for at := preamble; at < len(module); {
		length, n := binary.Uvarint(module[at+1:])
		from := at + 1 + n
		if n <= 0 || uint64(len(module)-from) < length {
			return nil, errCut
		}
		end := from + int(length)
		out = append(out, section{module[at], module[from:end], module[at:end]})
		at = end
	}
	return out, nil
}

// memory is what lies in a module's memory when it is opened, from a start on.
type memory struct {
	start int
	bytes []byte
}

// Pieces of data, as the compiler writes them: of memory 0, at a constant place.
const (
	ofMemory = 0x00
	constant = 0x41
	end      = 0x0b
)

// piece is some bytes and where they belong.
type piece struct {
	at    int
	bytes []byte
}

// memoryOf puts the pieces of a data section where they belong.
func memoryOf(content []byte) (m memory, err error) {
	pieces, err := piecesOf(content)
	if err != nil || len(pieces) == 0 {
		return m, err
	}
	m.start = slices.MinFunc(pieces, func(a, b piece) int { return cmp.Compare(a.at, b.at) }).at
	for _, p := range pieces {
		from := p.at - m.start
		if more := from + len(p.bytes) - len(m.bytes); more > 0 {
			m.bytes = append(m.bytes, make([]byte, more)...)
		}
		copy(m.bytes[from:], p.bytes)
	}
	return m, nil
}

func piecesOf(content []byte) (out []piece, err error) {
	count, n := binary.Uvarint(content)
	if n <= 0 {
		return nil, errCut
	}
	content = content[n:]
	for range count {
		if len(content) < 2 || content[0] != ofMemory || content[1] != constant {
			return nil, errors.New("a piece of data is not at a constant place in memory 0")
		}
		at, n := varint(content[2:])
		if n <= 0 || len(content) < 3+n || content[2+n] != end {
			return nil, errCut
		}
		content = content[3+n:]
		length, n := binary.Uvarint(content)
		if n <= 0 || uint64(len(content)-n) < length {
			return nil, errCut
		}
		out = append(out, piece{at, content[n : n+int(length)]})
		content = content[n+int(length):]
	}
	return out, nil
}

// gap is how many zeros are worth a new piece: fewer are compressed away.
const gap = 4096

// section writes memory as a data section, in pieces between long runs of zeros.
func (m memory) section() []byte {
	var pieces []byte
	count := uint64(0)
	for from := 0; from < len(m.bytes); {
		to, zeros := from, 0
		for n := from; n < len(m.bytes) && zeros < gap; n++ {
			if zeros++; m.bytes[n] != 0 {
				to, zeros = n+1, 0
			}
		}
		if to > from {
			pieces = appendVarint(append(pieces, ofMemory, constant), m.start+from)
			pieces = binary.AppendUvarint(append(pieces, end), uint64(to-from))
			pieces = append(pieces, m.bytes[from:to]...)
			count++
		}
		for from = to; from < len(m.bytes) && m.bytes[from] == 0; {
			from++
		}
	}
	content := append(binary.AppendUvarint(nil, count), pieces...)
	return append(binary.AppendUvarint([]byte{dataSection}, uint64(len(content))), content...)
}

// varint reads a signed number, seven bits a byte (LEB128, which encoding/binary has only
// without a sign).
func varint(b []byte) (v, n int) {
	for shift := 0; n < len(b) && shift < 63; shift += 7 {
		now := b[n]
		n++
		v |= int(now&0x7f) << shift
		if now&0x80 == 0 {
			if now&0x40 != 0 {
				v -= 1 << (shift + 7)
			}
			return v, n
		}
	}
	return 0, 0
}

func appendVarint(b []byte, v int) []byte {
	for {
		now := byte(v & 0x7f)
		v >>= 7
		if v == 0 && now&0x40 == 0 || v == -1 && now&0x40 != 0 {
			return append(b, now)
		}
		b = append(b, now|0x80)
	}
}
