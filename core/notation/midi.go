package notation

import (
	"bytes"
	"encoding/binary"
	"io"
	"math"
	"slices"

	"earlychorus/core/bars"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// A Standard MIDI File 1.0 (MIDI Association, RP-001): format 1, a track for
// tempo and words, one for the instrument, one for the clicks of the count-in.
// No MIDI library for Go can be had from the module proxy without another host,
// so the few messages needed are written here; the tests read them back with two
// independent readers.

const (
	ticksPerBeat = 480
	partChannel  = 0
	leadChannel  = 1 // who leads a canon
	clickChannel = 9 // General MIDI's percussion
	clickHigh    = 76
	clickLow     = 77 // wood blocks
	bendRange    = 12 // semitones either way
)

// WriteMIDI writes a sheet as a Standard MIDI File, sounding pitch, each step as
// often as it is played. Errors are the writer's, or instrument.UnknownError.
func WriteMIDI(out io.Writer, s Sheet) error {
	i, err := s.of()
	if err != nil {
		return err
	}
	words, part, clicks := &track{}, &track{}, &track{}
	words.meta(0, 0x03, []byte(s.Title))
	words.meta(0, 0x58, []byte{bars.BeatsPerBar, 2, 24, 8})
	part.meta(0, 0x03, []byte(s.Player))
	part.add(0, 0xC0|partChannel, byte(i.MIDIProgram))
	part.add(0, 0xC0|leadChannel, byte(i.MIDIProgram))
	// Pitch bends reach an octave, for slides (registered parameter 0).
	for _, c := range [][2]byte{{101, 0}, {100, 0}, {6, bendRange}, {38, 0}} {
		part.add(0, 0xB0|partChannel, c[0], c[1])
	}
	clicks.meta(0, 0x03, []byte("Click"))
	at := 0
	for _, step := range s.Steps {
		for range max(1, step.Times) {
			words.tempo(at, step.Score.TempoBPM)
			words.meta(at, 0x59, []byte{byte(int8(step.Score.KeyFifths)), 0})
			words.meta(at, 0x06, []byte(step.Heading))
			part.play(at, step.Score)
			clicks.click(at, step.Score)
			for _, seg := range step.Score.Segments {
				words.meta(at+ticks(seg.StartBeat), 0x05, []byte(seg.Text))
			}
			at += ticks(step.Score.Beats())
		}
	}
	var file bytes.Buffer
	file.WriteString("MThd")
	_ = binary.Write(&file, binary.BigEndian, []uint16{0, 6, 1, 3, ticksPerBeat}) // a buffer does not fail
	for _, t := range []*track{words, part, clicks} {
		t.write(&file, at)
	}
	_, err = out.Write(file.Bytes())
	return err
}

func ticks(b music.Beats) int { return int(math.Round(float64(b) * ticksPerBeat)) }

// velocity of a written dynamic; mezzoforte where none is written.
func velocity(d scores.Dynamic) byte { return byte(80 + 15*d.Step()) }

type track struct{ events []event }

type event struct {
	at    int
	order int // at one moment: ends before beginnings
	data  []byte
}

func (t *track) add(at int, data ...byte) {
	t.events = append(t.events, event{at: at, order: 1, data: data})
}

func (t *track) meta(at int, kind byte, data []byte) {
	e := append([]byte{0xFF, kind}, variable(len(data))...)
	t.events = append(t.events, event{at: at, data: append(e, data...)})
}

func (t *track) tempo(at int, bpm music.Tempo) {
	us := uint32(math.Round(60e6 / float64(bpm)))
	t.meta(at, 0x51, []byte{byte(us >> 16), byte(us >> 8), byte(us)})
}

// play writes what sounds: slurred notes touch, tongued ones leave a little air.
func (t *track) play(at int, s scores.Score) {
	for n, seg := range s.Segments {
		if seg.Phase == scores.Strike {
			t.strike(at + ticks(seg.StartBeat))
		}
		if !seg.Phase.Sounds() && seg.Phase != scores.Listen {
			continue
		}
		from, length := at+ticks(seg.StartBeat), ticks(seg.Beats)
		joined := n+1 < len(s.Segments) && s.Segments[n+1].Articulation == scores.Slurred
		switch {
		case seg.Mark == scores.Staccato:
			length /= 2
		case !joined:
			length = max(length/2, length-ticksPerBeat/16)
		}
		t.loudness(from, length, seg)
		t.add(from, 0x90|partChannel, byte(seg.Target), struck(seg))
		if seg.Leader > 0 {
			t.add(from, 0x90|leadChannel, byte(seg.Leader), velocity(seg.Dynamic))
			t.events = append(
				t.events,
				event{at: from + length, data: []byte{0x80 | leadChannel, byte(seg.Leader), 64}},
			)
		}
		if seg.GlideTo != 0 {
			t.glide(from, length, int(seg.GlideTo-seg.Target))
		}
		t.events = append(t.events, event{at: from + length, data: []byte{0x80 | partChannel, byte(seg.Target), 64}})
	}
}

const (
	fullExpression = 110
	rampSteps      = 24
)

// strike sounds General MIDI's acoustic snare.
func (t *track) strike(at int) {
	t.add(at, 0x90|clickChannel, snare, 90)
	t.events = append(t.events, event{at: at + ticksPerBeat/8, data: []byte{0x80 | clickChannel, snare, 64}})
}

const snare = 38

// struck is how hard a note begins: an accent a step louder than written.
func struck(seg scores.Segment) byte {
	if seg.Mark == scores.Accent {
		return min(127, velocity(seg.Dynamic)+accented)
	}
	return velocity(seg.Dynamic)
}

const accented = 15

// loudness moves the expression controller where a note grows, fades, is pushed by the air
// or tapers away.
func (t *track) loudness(from, length int, seg scores.Segment) {
	switch {
	case seg.Pulses > 0:
		t.pulses(from, length, seg.Pulses)
		return
	case seg.DynamicTo == "":
		t.add(from, 0xB0|partChannel, 11, fullExpression)
		if seg.Ending == scores.Taper {
			t.taper(from + length)
		}
		return
	}
	ratio := float64(velocity(seg.DynamicTo)) / float64(velocity(seg.Dynamic))
	for k := range rampSteps + 1 {
		share := float64(k) / rampSteps
		level := math.Min(127, fullExpression*(1+share*(ratio-1)))
		t.add(from+length*k/rampSteps, 0xB0|partChannel, 11, byte(level))
	}
}

// pulses pushes the loudness up and lets it sink so many times a beat, never to nothing.
func (t *track) pulses(from, length, pulses int) {
	step := ticksPerBeat / (pulses * pulseSteps)
	for k := 0; k*step < length; k++ {
		depth := (1 - math.Cos(2*math.Pi*float64(k)/pulseSteps)) / 2 // loudest at the push
		t.add(from+k*step, 0xB0|partChannel, 11, byte(math.Round(fullExpression*(1-pulseDepth*depth))))
	}
}

// taper lets the loudness sink to nothing over the end of a note.
func (t *track) taper(end int) {
	for k := range taperSteps + 1 {
		at := end - ticksPerBeat/2 + ticksPerBeat/2*k/taperSteps
		t.add(at, 0xB0|partChannel, 11, byte(fullExpression*(taperSteps-k)/taperSteps))
	}
}

const (
	pulseSteps = 8   // of the loudness to a push
	pulseDepth = 0.5 // of the loudness
	taperSteps = 12
)

// glide bends the pitch evenly to another note.
func (t *track) glide(from, length, semitones int) {
	semitones = min(bendRange, max(-bendRange, semitones))
	for k := range 8*rampSteps + 1 {
		bend := 8192 + 8191*semitones*k/(bendRange*8*rampSteps)
		t.add(from+(length-1)*k/(8*rampSteps), 0xE0|partChannel, byte(bend&0x7F), byte(bend>>7))
	}
	t.events = append(t.events, event{at: from + length, order: 1, data: []byte{0xE0 | partChannel, 0, 64}})
}

func (t *track) click(at int, s scores.Score) {
	for _, c := range s.Timeline().Clicks {
		if !c.Audible {
			continue
		}
		from := at + ticks(s.TempoBPM.Beats(c.At))
		key := byte(clickLow)
		if c.Accent {
			key = clickHigh
		}
		t.add(from, 0x90|clickChannel, key, 90)
		t.events = append(t.events, event{at: from + ticksPerBeat/8, data: []byte{0x80 | clickChannel, key, 64}})
	}
}

func (t *track) write(out *bytes.Buffer, end int) {
	slices.SortStableFunc(t.events, func(a, b event) int {
		if a.at != b.at {
			return a.at - b.at
		}
		return a.order - b.order
	})
	var body bytes.Buffer
	before := 0
	for _, e := range t.events {
		body.Write(variable(e.at - before))
		body.Write(e.data)
		before = e.at
	}
	body.Write(variable(max(0, end-before)))
	body.Write([]byte{0xFF, 0x2F, 0})
	out.WriteString("MTrk")
	_ = binary.Write(out, binary.BigEndian, uint32(body.Len()))
	out.Write(body.Bytes())
}

// variable is a number in MIDI's variable length: seven bits a byte, the last
// without its top bit.
func variable(n int) []byte {
	out := []byte{byte(n & 0x7F)}
	for n >>= 7; n > 0; n >>= 7 {
		out = append([]byte{byte(n&0x7F) | 0x80}, out...)
	}
	return out
}
