//go:build wasip1

// Command wasm is the core's ear for the browser: this page of glue, and the
// same packages the server hears with. It is built as a reactor: the page calls
// _initialize once, then the functions below. Sound and frames pass through
// linear memory; the page makes its view of it afresh after every call. ask.go has
// what is asked in JSON: verdicts, scores, ladders, rests.
package main

import (
	"runtime"
	"unsafe"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/ear"
	"earlychorus/core/music"
)

func main() {}

var (
	sound  []float32 // what the page writes
	frames []float32 // what it reads: lay says what a frame holds
	live   *contour.Live
	take   *ear.Take   // what comes in, as a take; nil where nobody judges it
	target music.Hertz // what pitches are measured against; 0 for nothing
)

// buffer makes room for so many samples and returns where.
//
//go:wasmexport buffer
func buffer(samples int32) unsafe.Pointer {
	if cap(sound) < int(samples) {
		sound = make([]float32, samples)
	}
	sound = sound[:samples]
	return unsafe.Pointer(unsafe.SliceData(sound))
}

// results returns where the frames of the last call are.
//
//go:wasmexport results
func results() unsafe.Pointer { return unsafe.Pointer(unsafe.SliceData(frames)) }

// open begins to listen between two pitches, live; 0 when the rate is one the
// ear does not hear at.
//
//go:wasmexport open
func open(lowest, highest float64, rate int32) int32 {
	l, err := contour.Ear{Lowest: music.Hertz(lowest), Highest: music.Hertz(highest)}.NewLive(int(rate))
	if err != nil {
		return 0
	}
	live = l
	return 1
}

// aim sets the note that pitches are measured against from now on; 0 for none.
//
//go:wasmexport aim
func aim(midi int32, a4 float64) {
	target = 0
	if midi > 0 {
		target = music.MIDI(midi).Frequency(music.Hertz(a4))
	}
}

// hear takes the samples in the buffer and returns how many frames are decided
// with them.
//
//go:wasmexport hear
func hear() int32 {
	if live == nil {
		return 0
	}
	block := samples()
	_, heard := live.Hear(block)
	if take != nil {
		take.Hear(block)
	}
	return lay(heard)
}

// ahead works out what can be known of the take by now. It is called where nothing
// else waits.
//
//go:wasmexport ahead
func ahead() {
	defer func() {
		if recover() != nil {
			take = nil // the take is listened to whole, at its end
		}
	}()
	if take != nil {
		take.Ahead(audio.Patient{})
	}
}

// sweep sweeps up what lies about, just before the end of a take: its word does not wait
// for that.
//
//go:wasmexport sweep
func sweep() { runtime.GC() }

func samples() []float64 {
	out := make([]float64, len(sound))
	for n, v := range sound {
		out[n] = float64(v)
	}
	return out
}

// lay lays frames out for the page, four numbers each: pitch (Hz, 0 for none),
// cents from the target (0 without one), confidence (0 to 1), level (dB).
func lay(heard []contour.Frame) int32 {
	frames = frames[:0]
	for _, f := range heard {
		var off music.Cents
		if f.Voiced() && target > 0 {
			off = music.Between(target, f.Pitch)
		}
		frames = append(frames, float32(f.Pitch), float32(off), float32(f.Confidence), float32(f.Level))
	}
	return int32(len(heard))
}
