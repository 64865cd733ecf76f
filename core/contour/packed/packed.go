// Package packed keeps contours in few bytes, for storing.
package packed

import (
	"bytes"
	"compress/flate"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"math"

	"earlychorus/core/contour"
	"earlychorus/core/music"
)

// A packed contour is a version byte and a flate stream of four planes, each
// holding the difference of a frame from the one before: pitch in eighths of
// a cent above 27.5 Hz plus one (0: none), split into a low and a high byte;
// level in half decibels below full scale; confidence in 255ths. A minute of
// playing packs to a few kilobytes.
const (
	version      = 1
	base         = music.Hertz(27.5)
	stepsPerCent = 8
	longestTake  = 1 << 20 // frames; refuses a lying blob before memory is taken
)

// ErrFormat reports bytes that are not a packed contour.
var ErrFormat = errors.New("packed: not a packed contour")

// Pack returns the frames in few bytes, rounded to an eighth of a cent and
// half a decibel.
func Pack(c contour.Contour) []byte {
	n := len(c.Frames)
	planes := make([]byte, 4*n)
	for k, f := range c.Frames {
		var pitch uint16
		if f.Voiced() {
			pitch = uint16(1 + max(0, min(65534, math.Round(stepsPerCent*float64(music.Between(base, f.Pitch))))))
		}
		planes[k], planes[n+k] = byte(pitch), byte(pitch>>8)
		planes[2*n+k] = byte(max(0, min(255, math.Round(-2*float64(f.Level)))))
		planes[3*n+k] = byte(math.Round(255 * f.Confidence))
	}
	difference(planes)
	out := bytes.NewBuffer([]byte{version})
	_ = binary.Write(out, binary.LittleEndian, uint32(n)) // a Buffer does not fail
	w, _ := flate.NewWriter(out, flate.BestCompression)   // nor does a known level
	_, _ = w.Write(planes)
	_ = w.Close()
	return out.Bytes()
}

func difference(b []byte) {
	for k := len(b) - 1; k > 0; k-- {
		b[k] -= b[k-1]
	}
}

// Unpack restores what Pack made, or returns ErrFormat.
func Unpack(b []byte) (contour.Contour, error) {
	if len(b) < 5 || b[0] != version {
		return contour.Contour{}, ErrFormat
	}
	n := int(binary.LittleEndian.Uint32(b[1:]))
	if n > longestTake {
		return contour.Contour{}, ErrFormat
	}
	planes, err := io.ReadAll(io.LimitReader(flate.NewReader(bytes.NewReader(b[5:])), int64(4*n)+1))
	if err != nil || len(planes) != 4*n {
		return contour.Contour{}, fmt.Errorf("%w: %d of %d bytes", ErrFormat, len(planes), 4*n)
	}
	for k := 1; k < len(planes); k++ {
		planes[k] += planes[k-1]
	}
	c := contour.Contour{Frames: make([]contour.Frame, n)}
	for k := range c.Frames {
		f := contour.Frame{Level: music.Decibels(planes[2*n+k]) / -2, Confidence: float64(planes[3*n+k]) / 255}
		if pitch := uint16(planes[k]) | uint16(planes[n+k])<<8; pitch > 0 {
			f.Pitch = music.Cents(float64(pitch-1) / stepsPerCent).Above(base)
		}
		c.Frames[k] = f
	}
	return c, nil
}
