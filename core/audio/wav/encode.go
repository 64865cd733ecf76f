package wav

import (
	"bytes"
	"encoding/binary"

	"earlychorus/core/audio"
)

// Encode writes the sound as a 16-bit file, or a 24-bit one when its source
// had more than 16 bits. Samples outside ±1 are clipped.
func Encode(m audio.Mono) []byte {
	bits := 16
	if m.Bits > 16 {
		bits = 24
	}
	width := bits / 8
	size := len(m.Samples) * width
	pad := size & 1
	var b bytes.Buffer
	b.Grow(44 + size + pad)
	le := binary.LittleEndian
	b.WriteString("RIFF")
	b.Write(le.AppendUint32(nil, uint32(36+size+pad)))
	b.WriteString("WAVEfmt ")
	b.Write(le.AppendUint32(nil, 16))
	b.Write(le.AppendUint16(nil, formatPCM))
	b.Write(le.AppendUint16(nil, 1))
	b.Write(le.AppendUint32(nil, uint32(m.Rate)))
	b.Write(le.AppendUint32(nil, uint32(m.Rate*width)))
	b.Write(le.AppendUint16(nil, uint16(width)))
	b.Write(le.AppendUint16(nil, uint16(bits)))
	b.WriteString("data")
	b.Write(le.AppendUint32(nil, uint32(size)))
	for _, x := range m.Samples {
		v := audio.Quantise(x, bits)
		b.WriteByte(byte(v))
		b.WriteByte(byte(v >> 8))
		if width == 3 {
			b.WriteByte(byte(v >> 16))
		}
	}
	b.Write(make([]byte, pad))
	return b.Bytes()
}
