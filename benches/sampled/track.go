package sampled

import (
	"bytes"
	"encoding/binary"
	"slices"

	"earlychorus/core/music"
)

// track is the messages of a Standard MIDI File of format 0.
type track []message

type message struct {
	at    music.Seconds
	bytes []byte
}

func (t *track) add(at music.Seconds, bytes ...byte) {
	*t = append(*t, message{max(0, at), bytes})
}

// ticksASecond with the file's tempo of one quarter a second.
const ticksASecond = 960

// file returns the track as a file that lasts until end.
func (t track) file(end music.Seconds) []byte {
	slices.SortStableFunc(t, func(a, b message) int {
		switch {
		case a.at < b.at:
			return -1
		case a.at > b.at:
			return 1
		}
		return 0
	})
	body := []byte{0, 0xFF, 0x51, 3, 0x0F, 0x42, 0x40} // 1,000,000 µs a quarter
	now := 0
	for _, m := range append(t, message{end, []byte{0xFF, 0x2F, 0}}) {
		tick := int(float64(m.at) * ticksASecond)
		body = append(append(body, variable(tick-now)...), m.bytes...)
		now = tick
	}
	var b bytes.Buffer
	b.WriteString("MThd\x00\x00\x00\x06\x00\x00\x00\x01")
	_ = binary.Write(&b, binary.BigEndian, uint16(ticksASecond)) // a Buffer does not fail
	b.WriteString("MTrk")
	_ = binary.Write(&b, binary.BigEndian, uint32(len(body)))
	b.Write(body)
	return b.Bytes()
}

// variable is a MIDI variable-length quantity.
func variable(n int) []byte {
	out := []byte{byte(n & 0x7F)}
	for n >>= 7; n > 0; n >>= 7 {
		out = append([]byte{byte(n&0x7F) | 0x80}, out...)
	}
	return out
}
