package wav_test

import (
	"bytes"
	"encoding/binary"
	"math"
	"runtime"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
)

// file builds a WAV by hand, chunk by chunk, so the reader is checked against
// the layout and not against our own writer.
func file(tag, channels, rate, bits int, data []byte) []byte {
	le := binary.LittleEndian
	b := []byte("RIFF\x00\x00\x00\x00WAVE")
	b = append(b, "LIST\x03\x00\x00\x00abc\x00"...) // an odd chunk with its padding byte
	b = append(b, "fmt \x10\x00\x00\x00"...)
	b = le.AppendUint16(b, uint16(tag))
	b = le.AppendUint16(b, uint16(channels))
	b = le.AppendUint32(b, uint32(rate))
	b = le.AppendUint32(b, uint32(rate*channels*bits/8))
	b = le.AppendUint16(b, uint16(channels*bits/8))
	b = le.AppendUint16(b, uint16(bits))
	b = append(b, "data"...)
	b = le.AppendUint32(b, uint32(len(data)))
	return append(b, data...)
}

func TestDecodeEverySampleFormat(t *testing.T) {
	float := binary.LittleEndian.AppendUint32(nil, math.Float32bits(-0.5))
	for _, c := range []struct {
		name      string
		tag, bits int
		data      []byte
	}{
		{"8-bit, unsigned", 1, 8, []byte{64}},
		{"16-bit", 1, 16, []byte{0x00, 0xC0}},
		{"24-bit", 1, 24, []byte{0, 0x00, 0xC0}},
		{"32-bit", 1, 32, []byte{0, 0, 0x00, 0xC0}},
		{"float", 3, 32, float},
		{"double", 3, 64, binary.LittleEndian.AppendUint64(nil, math.Float64bits(-0.5))},
	} {
		m, err := wav.Decode(bytes.NewReader(file(c.tag, 1, 44100, c.bits, c.data)), 0)
		require.NoError(t, err, c.name)
		assert.Equal(t, []float64{-0.5}, m.Samples, c.name)
		assert.Equal(t, 44100, m.Rate)
	}
}

func TestChannelsAreMixed(t *testing.T) {
	m, err := wav.Decode(bytes.NewReader(file(1, 2, 96000, 16, []byte{0x00, 0x40, 0x00, 0x00})), 0)
	require.NoError(t, err)
	assert.Equal(t, []float64{0.25}, m.Samples)
}

func TestRefusals(t *testing.T) {
	good := file(1, 1, 48000, 16, make([]byte, 200))
	twoGB := bytes.Clone(good[:len(good)-190])
	binary.LittleEndian.PutUint32(twoGB[len(twoGB)-14:], 2_000_000_000)
	for _, c := range []struct {
		name string
		in   []byte
		want string
	}{
		{"empty", nil, "ends inside its header"},
		{"not audio", []byte("%PDF-1.7 and a great deal more"), "not a WAV file"},
		{"truncated", good[:len(good)-50], "cut short"},
		{"a 2 GB header on a small file", twoGB, "cut short"},
		{"compressed", file(85, 1, 48000, 16, nil), "format 85"},
		{"no channels", file(1, 0, 48000, 16, nil), "0 channels"},
	} {
		_, err := wav.Decode(bytes.NewReader(c.in), 0)
		assert.ErrorContains(t, err, c.want, c.name)
	}
}

func TestTooLongIsRefusedFromTheHeader(t *testing.T) {
	_, err := wav.Decode(bytes.NewReader(file(1, 1, 100, 8, make([]byte, 1100))), 10)
	assert.ErrorIs(t, err, wav.ErrTooLong)
}

// A header that claims thousands of channels and gigabytes of sound gets memory for what
// was really read.
func TestMemoryIsNotClaimedByAHeader(t *testing.T) {
	in := []byte("RIFF0000WAVEfmt \x10\x00\x00\x00\x03\x00\x03\xff\xff000000000@\x00data\x00\x00\xff\xff000000")
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	_, err := wav.Decode(bytes.NewReader(in), 60)
	runtime.ReadMemStats(&after)
	require.Error(t, err)
	assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(4<<20))
}

func FuzzDecode(f *testing.F) {
	f.Add(wav.Encode(audio.Mono{Rate: 44100, Samples: []float64{0, 0.5, -1}}))
	f.Add([]byte("RIFF\xff\xff\xff\x7fWAVEdata\xff\xff\xff\x7f"))
	f.Add(file(3, 3, 16000, 32, make([]byte, 48)))
	f.Fuzz(func(t *testing.T, in []byte) {
		first, err := wav.Decode(bytes.NewReader(in), 60)
		if err != nil {
			return
		}
		if len(first.Samples) > len(in) {
			t.Fatalf("%d samples out of %d bytes", len(first.Samples), len(in))
		}
		again, err := wav.Decode(bytes.NewReader(wav.Encode(first)), 0)
		if err != nil || len(again.Samples) != len(first.Samples) {
			t.Fatalf("round trip: %v", err)
		}
	})
}
