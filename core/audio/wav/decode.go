// Package wav reads and writes RIFF WAVE files. The chunk layout is that of
// Microsoft and IBM's "Multimedia Programming Interface and Data
// Specifications 1.0" (1991) and its WAVE_FORMAT_EXTENSIBLE addition.
package wav

import (
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"math"

	"earlychorus/core/audio"
)

// A FormatError reports that the input is not valid WAV.
type FormatError struct {
	Offset int64 // bytes from the start of the input
	Reason string
}

func (e FormatError) Error() string { return fmt.Sprintf("wav: %s at byte %d", e.Reason, e.Offset) }

// An UnsupportedError reports WAV that is valid but holds sound this reader
// does not decode.
type UnsupportedError struct{ Reason string }

func (e UnsupportedError) Error() string { return "wav: " + e.Reason }

// ErrTooLong reports a file longer than the caller allows.
var ErrTooLong = errors.New("wav: the recording is longer than allowed")

const (
	formatPCM        = 1
	formatFloat      = 3
	formatExtensible = 0xFFFE
	unknownSize      = 0xFFFFFFFF // written by programs that stream
)

type format struct {
	tag, channels, bits int
	rate                int
}

func (f format) frameBytes() int { return f.channels * f.bits / 8 }

// Decode reads a whole file and mixes its channels to one. It takes 8, 16, 24
// and 32-bit integers and 32 and 64-bit floats, any number of channels, any
// rate. maxSeconds bounds the length (ErrTooLong); 0 means no bound. Memory
// grows with what was really read or lies in a file, never with what a header claims.
func Decode(r io.Reader, maxSeconds float64) (audio.Mono, error) {
	var out audio.Mono
	d := &decoder{r: r}
	h, left, err := d.untilSound(maxSeconds)
	if err != nil {
		return out, err
	}
	out.Rate, out.Bits = h.rate, h.bits
	out.Samples = make([]float64, 0, min(left, max(setAside, d.there()/int64(h.frameBytes()))))
	err = d.samples(h, left, maxSeconds, func(mixed int, into func([]float64), left int64) {
		out.Samples = grown(out.Samples, mixed, left)
		got := len(out.Samples)
		out.Samples = out.Samples[:got+mixed]
		into(out.Samples[got:])
	})
	if err != nil {
		return audio.Mono{}, err
	}
	return out, nil
}

// Size is how much sound a file holds.
type Size struct {
	Rate   int // Hz
	Frames int
}

// Seconds returns how long it lasts.
func (s Size) Seconds() float64 { return float64(s.Frames) / float64(s.Rate) }

// Inspect reads a whole file as Decode does, with the same errors, and keeps none of
// its samples: what a file that is not listened to yet has to be known by.
func Inspect(r io.Reader, maxSeconds float64) (Size, error) {
	d := &decoder{r: r}
	h, left, err := d.untilSound(maxSeconds)
	if err != nil {
		return Size{}, err
	}
	out := Size{Rate: h.rate}
	err = d.samples(h, left, maxSeconds, func(mixed int, _ func([]float64), _ int64) { out.Frames += mixed })
	if err != nil {
		return Size{}, err
	}
	return out, nil
}

// untilSound reads up to the first sample. left is how many frames the header promises.
func (d *decoder) untilSound(maxSeconds float64) (h head, left int64, err error) {
	if _, err := d.header(); err != nil { // the RIFF size says nothing the chunks do not, and often lies
		return h, 0, err
	}
	for {
		id, size, err := d.chunk()
		if err != nil {
			return h, 0, err
		}
		switch id {
		case "fmt ":
			if h.format, err = d.format(size); err != nil {
				return h, 0, err
			}
		case "data":
			if h.rate == 0 {
				return h, 0, FormatError{d.at, "data chunk before the fmt chunk"}
			}
			h.open = size == unknownSize
			left = int64(size) / int64(h.frameBytes())
			if maxSeconds > 0 && !h.open && float64(left) > maxSeconds*float64(h.rate) {
				return h, 0, fmt.Errorf(
					"%w: the header says %.0f s, the limit is %.0f s",
					ErrTooLong,
					float64(left)/float64(h.rate),
					maxSeconds,
				)
			}
			return h, left, nil
		default:
			if err := d.skip(int64(size) + int64(size&1)); err != nil {
				return h, 0, err
			}
		}
	}
}

// head is what stands before the samples.
type head struct {
	format

	open bool // its length was left open by a writer that streamed
}

type decoder struct {
	r  io.Reader
	at int64
}

// there is how many bytes of a file are left to read; 0 for what cannot tell.
func (d *decoder) there() int64 {
	file, ok := d.r.(io.Seeker)
	if !ok {
		return 0
	}
	here, err := file.Seek(0, io.SeekCurrent)
	if err != nil {
		return 0
	}
	end, err := file.Seek(0, io.SeekEnd)
	if err != nil {
		return 0
	}
	if _, err := file.Seek(here, io.SeekStart); err != nil {
		return 0 // reading on says what is wrong
	}
	return end - here
}

// read fills b or explains where the file ends.
func (d *decoder) read(b []byte, what string) error {
	n, err := io.ReadFull(d.r, b)
	d.at += int64(n)
	if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		return FormatError{d.at, "the file ends inside " + what}
	}
	return err
}

func (d *decoder) header() (riffSize uint32, err error) {
	var b [12]byte
	if err := d.read(b[:], "its header"); err != nil {
		return 0, err
	}
	if string(b[0:4]) != "RIFF" || string(b[8:12]) != "WAVE" {
		return 0, FormatError{0, "no RIFF WAVE header: this is not a WAV file,"}
	}
	return binary.LittleEndian.Uint32(b[4:]), nil
}

func (d *decoder) chunk() (id string, size uint32, err error) {
	var b [8]byte
	if err := d.read(b[:], "the chunks before any sound"); err != nil {
		return "", 0, err
	}
	return string(b[:4]), binary.LittleEndian.Uint32(b[4:]), nil
}

func (d *decoder) skip(n int64) error {
	got, err := io.CopyN(io.Discard, d.r, n)
	d.at += got
	if errors.Is(err, io.EOF) {
		return FormatError{d.at, "the file ends inside a chunk"}
	}
	return err
}

const largestFormatChunk = 1 << 10

func (d *decoder) format(size uint32) (format, error) {
	if size < 16 || size > largestFormatChunk {
		return format{}, FormatError{d.at, fmt.Sprintf("fmt chunk of %d bytes", size)}
	}
	b := make([]byte, size+size&1)
	if err := d.read(b, "the fmt chunk"); err != nil {
		return format{}, err
	}
	le := binary.LittleEndian
	f := format{
		tag:      int(le.Uint16(b)),
		channels: int(le.Uint16(b[2:])),
		rate:     int(le.Uint32(b[4:])),
		bits:     int(le.Uint16(b[14:])),
	}
	if f.tag == formatExtensible && size >= 26 {
		f.tag = int(le.Uint16(b[24:])) // the first two bytes of the sub-format's GUID
	}
	return f, f.check(d.at)
}

func (f format) check(at int64) error {
	if f.channels == 0 || f.rate <= 0 {
		return FormatError{at, fmt.Sprintf("%d channels at %d Hz in the fmt chunk", f.channels, f.rate)}
	}
	switch {
	case f.tag == formatPCM && (f.bits == 8 || f.bits == 16 || f.bits == 24 || f.bits == 32):
	case f.tag == formatFloat && (f.bits == 32 || f.bits == 64):
	default:
		return UnsupportedError{
			fmt.Sprintf(
				"sound format %d with %d bits is not supported: save as PCM (8, 16, 24 or 32 bits) or float",
				f.tag,
				f.bits,
			),
		}
	}
	return nil
}

// bytesAtOnce bounds the scratch memory of a read (one frame has to fit, whatever it
// claims to be), and setAside what is taken for samples before any were read.
const (
	bytesAtOnce = 1 << 17
	setAside    = 1 << 17
)

// samples reads the data chunk and gives it away block by block: how many frames were
// read, how to have them mixed, and how many are left with these. A chunk shorter than
// its header says is a truncated file, except where the size was left open.
func (d *decoder) samples(
	h head, left int64, maxSeconds float64, take func(frames int, into func([]float64), left int64),
) error {
	frame := h.frameBytes()
	framesAtOnce := max(1, int64(bytesAtOnce/frame))
	buf := make([]byte, min(left, framesAtOnce)*int64(frame))
	mix := h.mixer()
	read := 0
	for left > 0 {
		want := int(min(framesAtOnce, left)) * frame
		n, err := io.ReadFull(d.r, buf[:want])
		d.at += int64(n)
		if n > 0 {
			take(n/frame, func(out []float64) { mix(out, buf[:n-n%frame]) }, left)
			read += n / frame
			left -= int64(n / frame)
		}
		if maxSeconds > 0 && float64(read) > maxSeconds*float64(h.rate) {
			return fmt.Errorf("%w: the limit is %.0f s", ErrTooLong, maxSeconds)
		}
		if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
			if h.open {
				break
			}
			return FormatError{
				d.at,
				fmt.Sprintf("the sound is cut short: the header promises %d more frames", left),
			}
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// grown returns x with room for more samples: twice what was really read, or
// all that is left where that is less.
func grown(x []float64, more int, left int64) []float64 {
	if cap(x)-len(x) >= more {
		return x
	}
	return append(make([]float64, 0, max(len(x)+more, min(2*len(x), len(x)+int(left)))), x...)
}

// mixer returns how the bytes of whole frames become the mean of their
// channels. One channel of 16 bits, which nearly all takes are, goes straight.
func (f format) mixer() func(out []float64, b []byte) {
	if f.tag == formatPCM && f.bits == 16 && f.channels == 1 {
		return func(out []float64, b []byte) {
			for n := range out {
				out[n] = float64(int16(uint16(b[2*n])|uint16(b[2*n+1])<<8)) / (1 << 15)
			}
		}
	}
	width, read := f.bits/8, f.reader()
	return func(out []float64, b []byte) {
		for n := range out {
			var sum float64
			for range f.channels {
				sum += read(b)
				b = b[width:]
			}
			out[n] = sum / float64(f.channels)
		}
	}
}

// reader returns how one sample becomes a number in ±1. Floats that are not
// numbers count as silence.
func (f format) reader() func([]byte) float64 {
	le := binary.LittleEndian
	switch {
	case f.tag == formatFloat && f.bits == 32:
		return func(b []byte) float64 { return finite(float64(math.Float32frombits(le.Uint32(b)))) }
	case f.tag == formatFloat:
		return func(b []byte) float64 { return finite(math.Float64frombits(le.Uint64(b))) }
	case f.bits == 8:
		return func(b []byte) float64 { return (float64(b[0]) - 128) / 128 } // 8-bit WAV is unsigned
	case f.bits == 16:
		return func(b []byte) float64 { return float64(int16(le.Uint16(b))) / (1 << 15) }
	case f.bits == 24:
		return func(b []byte) float64 {
			return float64(int32(b[0])<<8|int32(b[1])<<16|int32(b[2])<<24) / (1 << 31)
		}
	}
	return func(b []byte) float64 { return float64(int32(le.Uint32(b))) / (1 << 31) }
}

// loudest bounds float samples, which may lie far outside full scale.
const loudest = 1e3

func finite(x float64) float64 {
	if math.IsNaN(x) {
		return 0
	}
	return max(-loudest, min(loudest, x))
}
