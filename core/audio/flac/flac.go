// Package flac stores recordings without loss at about half the size of WAV.
// The format (RFC 9639) is mewkiz/flac's work; this is the door to it.
package flac

import (
	"bytes"
	"errors"
	"fmt"
	"io"

	"github.com/mewkiz/flac"
	"github.com/mewkiz/flac/frame"
	"github.com/mewkiz/flac/meta"

	"earlychorus/core/audio"
)

// blockSize is the samples a frame; 4096 is what RFC 9639 streams commonly use.
const blockSize = 4096

// Encode writes the sound with 16 bits a sample, or 24 when its source had
// more than 16.
func Encode(m audio.Mono) ([]byte, error) {
	bits := 16
	if m.Bits > 16 {
		bits = 24
	}
	var out bytes.Buffer
	enc, err := flac.NewEncoder(&out, &meta.StreamInfo{
		BlockSizeMin:  blockSize,
		BlockSizeMax:  blockSize,
		SampleRate:    uint32(m.Rate),
		NChannels:     1,
		BitsPerSample: uint8(bits),
		NSamples:      uint64(len(m.Samples)),
	})
	if err != nil {
		return nil, fmt.Errorf("flac: %w", err)
	}
	for from := 0; from < len(m.Samples); from += blockSize {
		block := m.Samples[from:min(from+blockSize, len(m.Samples))]
		if err := enc.WriteFrame(newFrame(block, m.Rate, bits)); err != nil {
			return nil, fmt.Errorf("flac: %w", err)
		}
	}
	if err := enc.Close(); err != nil {
		return nil, fmt.Errorf("flac: %w", err)
	}
	return out.Bytes(), nil
}

func newFrame(block []float64, rate, bits int) *frame.Frame {
	samples := make([]int32, len(block))
	for n, x := range block {
		samples[n] = audio.Quantise(x, bits)
	}
	return &frame.Frame{
		Header: frame.Header{
			HasFixedBlockSize: true,
			BlockSize:         uint16(len(block)),
			SampleRate:        uint32(rate),
			Channels:          frame.ChannelsMono,
			BitsPerSample:     uint8(bits),
		},
		// Verbatim asks the encoder's own analysis to choose the predictor.
		Subframes: []*frame.Subframe{{
			SubHeader: frame.SubHeader{Pred: frame.PredVerbatim}, Samples: samples, NSamples: len(samples),
		}},
	}
}

// ErrTooLong reports a stream longer than the caller allows.
var ErrTooLong = errors.New("flac: the recording is longer than allowed")

// Decode reads a whole stream and mixes its channels to one. maxSeconds bounds
// its length (ErrTooLong); 0 means no bound. Silence takes next to no bytes in
// FLAC, so a small file may hold hours: a file from outside needs a bound.
// Memory grows with what was really read, never with what a header claims.
func Decode(r io.Reader, maxSeconds float64) (m audio.Mono, err error) {
	stream, err := flac.New(r)
	if err != nil {
		return audio.Mono{}, fmt.Errorf("flac: %w", err)
	}
	m = audio.Mono{Rate: int(stream.Info.SampleRate), Bits: int(stream.Info.BitsPerSample)}
	if m.Rate == 0 || m.Bits == 0 {
		return audio.Mono{}, errors.New("flac: the header gives no rate or no resolution")
	}
	full := float64(int64(1) << (m.Bits - 1))
	for {
		if maxSeconds > 0 && m.Seconds() > maxSeconds {
			return audio.Mono{}, fmt.Errorf("%w: the limit is %.0f s", ErrTooLong, maxSeconds)
		}
		f, err := stream.ParseNext()
		if errors.Is(err, io.EOF) {
			return m, nil
		}
		if err != nil {
			return audio.Mono{}, fmt.Errorf("flac: %w", err)
		}
		if len(f.Subframes) == 0 {
			continue
		}
		for n := range f.Subframes[0].Samples {
			var sum float64
			for _, channel := range f.Subframes {
				sum += float64(channel.Samples[n])
			}
			m.Samples = append(m.Samples, sum/full/float64(len(f.Subframes)))
		}
	}
}
