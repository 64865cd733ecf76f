//go:build wasip1

package main

import (
	"context"
	"encoding/json"
	"fmt"
	"unsafe"

	"earlychorus/core/audio"
	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/music"
	"earlychorus/core/outcome"
	"earlychorus/core/practice"
	"earlychorus/core/ribbon"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
)

// What takes more than numbers is asked in JSON: the page writes a question,
// names it, and reads the answer or, after a negative length, the error.
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

// reply returns where the answer of the last ask is.
//
//go:wasmexport reply
func reply() unsafe.Pointer { return unsafe.Pointer(unsafe.SliceData(answer)) }

// asks are the questions by number; the page counts the same way.
var asks = []func() (any, error){judge, work, climb, before, perform, reference, check}

// ask answers the question with the given number and returns the answer's
// length, or minus the length of what is wrong with it.
//
//go:wasmexport ask
func ask(which int32) int32 {
	out, err := asks[which]()
	if err == nil {
		answer, err = json.Marshal(out)
	}
	if err != nil {
		answer = []byte(err.Error())
		return -int32(len(answer))
	}
	return int32(len(answer))
}

func read[T any]() (in T, err error) { return in, json.Unmarshal(question, &in) }

// heard is what the page shows of a take: no more than it draws.
type heard struct {
	Verdict   verdict.Verdict `json:"verdict"`
	Ribbon    ribbon.Ribbon   `json:"ribbon"`
	Small     ribbon.Ribbon   `json:"small"`
	Tuning    string          `json:"tuning,omitempty"`
	Recording ear.Recording   `json:"recording"`
	Longest   music.Seconds   `json:"longest_s"`
}

const (
	wide  = 600 // points across a phone
	small = 96
)

// judge listens to the take in the room.
func judge() (any, error) {
	in, err := read[struct {
		outcome.Request
		Rate int `json:"rate"`
	}]()
	if err != nil {
		return nil, err
	}
	came, err := outcome.Of(context.Background(), audio.Mono{Rate: in.Rate, Samples: samples()}, in.Request)
	if err != nil {
		return nil, err
	}
	out := heard{
		Verdict:   came.Verdict,
		Tuning:    came.Tuning,
		Recording: came.Analysis.Recording,
		Longest:   came.Longest(),
	}
	if out.Ribbon, err = came.Draw(in.Score, wide); err != nil {
		return nil, err
	}
	out.Small, err = came.Draw(in.Score, small)
	return out, err
}

// work works a step out at a tempo.
func work() (any, error) {
	in, err := read[struct {
		Setting practice.Setting `json:"setting"`
		Step    exercise.Step    `json:"step"`
		Tempo   music.Tempo      `json:"tempo"`
	}]()
	if err != nil {
		return nil, err
	}
	return practice.Work(in.Setting, in.Step, in.Tempo)
}

// climb leads a ladder on.
func climb() (any, error) {
	in, err := read[struct {
		Setting practice.Setting `json:"setting"`
		Ladder  practice.Ladder  `json:"ladder"`
		Entry   ladder.Entry     `json:"entry"`
	}]()
	if err != nil {
		return nil, err
	}
	who, err := in.Setting.Player()
	if err != nil {
		return nil, err
	}
	next, _ := practice.Climb(in.Ladder, who.Instrument, in.Entry)
	return next, nil
}

// before says how long to rest.
func before() (any, error) {
	in, err := read[struct {
		Next  scores.Score     `json:"next"`
		Today []practice.Doing `json:"today"`
	}]()
	if err != nil {
		return nil, err
	}
	return practice.Before(in.Next, in.Today), nil
}

// perform lets a simulated player play a score into the room.
func perform() (any, error) {
	in, err := read[struct {
		Score   scores.Score `json:"score"`
		StandIn string       `json:"stand_in"`
		Seed    uint64       `json:"seed"`
		Rate    int          `json:"rate"`
	}]()
	if err != nil {
		return nil, err
	}
	i, err := instrument.Get(in.Score.Instrument)
	if err != nil {
		return nil, err
	}
	p, ok := synth.NewStandIn(in.StandIn, i, synth.FirstNote(in.Score, i), in.Seed)
	if !ok {
		return nil, fmt.Errorf("there is no simulated player %q", in.StandIn)
	}
	played, _ := p.Play(in.Score, in.Rate)
	return fill(played), nil
}

// reference sounds a score into the room.
func reference() (any, error) {
	in, err := read[struct {
		Score scores.Score `json:"score"`
		Rate  int          `json:"rate"`
	}]()
	if err != nil {
		return nil, err
	}
	i, err := instrument.Get(in.Score.Instrument)
	if err != nil {
		return nil, err
	}
	return fill(synth.Reference(in.Score, i, in.Rate)), nil
}

// check listens to a microphone's check in the room.
func check() (any, error) {
	in, err := read[struct {
		Rate int `json:"rate"`
	}]()
	if err != nil {
		return nil, err
	}
	return ear.CheckMicrophone(context.Background(), audio.Mono{Rate: in.Rate, Samples: samples()})
}

// fill puts sound where the page reads it.
func fill(m audio.Mono) int {
	room(int32(len(m.Samples)))
	for n, v := range m.Samples {
		sound[n] = float32(v)
	}
	return len(sound)
}
