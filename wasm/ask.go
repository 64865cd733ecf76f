//go:build wasip1

package main

import (
	"unsafe"

	"earlychorus/core/ask"
)

// What takes more than numbers is asked in JSON: the page writes the question's
// name and the request behind it, and reads the answer or, after a negative
// length, the error. The questions are core/ask's.
var (
	question []byte
	answer   []byte
)

// letters makes room for a question of so many bytes and returns where.
//
//go:wasmexport letters
func letters(bytes int32) unsafe.Pointer {
	question = make([]byte, bytes)
	return unsafe.Pointer(unsafe.SliceData(question))
}

// reply returns where the answer of the last put is.
//
//go:wasmexport reply
func reply() unsafe.Pointer { return unsafe.Pointer(unsafe.SliceData(answer)) }

// put answers the question whose name is the first so many letters and returns
// the answer's length, or minus the length of what is wrong with it.
//
//go:wasmexport put
func put(name int32) int32 {
	about := ask.Sound{In: samples(), Take: take}
	var err error
	answer, err = ask.Answer(string(question[:name]), question[name:], &about)
	take = about.Take
	if err != nil {
		answer = []byte(err.Error())
		return -int32(len(answer))
	}
	if len(about.Out.Samples) > 0 {
		fill(about.Out.Samples)
	}
	return int32(len(answer))
}

// fill puts sound where the page reads it.
func fill(samples []float64) {
	buffer(int32(len(samples)))
	for n, v := range samples {
		sound[n] = float32(v)
	}
}
