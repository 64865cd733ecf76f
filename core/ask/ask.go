// Package ask is what a page may ask of the core in JSON: each question by its
// name, with the types of its request and of its answer. The browser's copy of
// the core answers them, and the page's own types are written from these
// (scripts/api), so neither side keeps a list of the other.
package ask

import (
	"reflect"

	"earlychorus/core/audio"
	"earlychorus/core/ear"
	"earlychorus/core/fmt"
	"earlychorus/core/json"
)

// Sound is the sound that a question is about, or that answers it.
type Sound struct {
	In   []float64  // what the page recorded; nil where it sent none
	Out  audio.Mono // what the answer sounds, of a question that sounds
	Take *ear.Take  // what is listened to as it comes in, from question to question
}

// Question is one thing that may be asked.
type Question struct {
	Name    string
	Doc     string
	Request reflect.Type
	Answer  reflect.Type
	Sounds  bool // the answer is heard: it fills the buffer

	answer func(request []byte, sound *Sound) (any, error)
}

// question makes a Question of a function. Req and Ans say how both are written.
func question[Req, Ans any](name, doc string, f func(Req, *Sound) (Ans, error)) Question {
	return Question{
		Name:    name,
		Doc:     doc,
		Request: reflect.TypeFor[Req](),
		Answer:  reflect.TypeFor[Ans](),
		answer: func(request []byte, sound *Sound) (any, error) {
			var in Req
			if err := json.Unmarshal(request, &in); err != nil {
				return nil, fmt.Errorf("ask %s: %w", name, err)
			}
			return f(in, sound)
		},
	}
}

// sounding is a question whose answer is heard.
func sounding(q Question) Question {
	q.Sounds = true
	return q
}

// Questions lists everything that may be asked. A new question is a function with
// its two types, and a row here.
func Questions() []Question {
	return []Question{
		question("take", "Begins to listen to a take that comes in block by block.", take),
		question("rehearse", "Listens to the beginning of a score, so that an engine has compiled the ear.", rehearse),
		question("judge", "Judges the take that came in, or the one in the buffer.", judge),
		question("work", "Works a step out at a tempo; 0 is the step's own.", work),
		question("part", "Narrows a step to some of its notes, or to its fingers.", part),
		question("climb", "Leads a ladder on after a take of a rung.", climb),
		question("step-back", "Leads a ladder back a rung, as its player chose.", stepBack),
		question("blow", "Lets a simulated player blow into a simulated air meter.", blow),
		question("hold", "Says how long to rest before a step.", hold),
		question("chart", "Lists every note of an instrument with every way to finger it.", book),
		question("which", "Says which note a pitch is to the player of an instrument.", which),
		sounding(question("note", "Sounds one note of an instrument into the buffer.", note)),
		question("check", "Listens to the microphone's check in the buffer.", check),
		sounding(question("perform", "Lets a simulated player play a score into the buffer.", perform)),
		sounding(question("reference", "Sounds a score into the buffer as it should be.", reference)),
	}
}

// An UnknownError reports a question that nobody answers.
type UnknownError struct{ Name string }

func (e UnknownError) Error() string { return fmt.Sprintf("ask: there is no question %q", e.Name) }

// Answer answers a question in JSON. Errors: UnknownError; what is wrong with the
// request; what the core says of it. A fault of the core itself is an error too:
// one take that it cannot make sense of is not the end of the ear.
func Answer(name string, request []byte, sound *Sound) (answer []byte, err error) {
	defer func() {
		if fault := recover(); fault != nil {
			answer, err = nil, fmt.Errorf("ask %s: the core failed: %v", name, fault)
		}
	}()
	for _, q := range Questions() {
		if q.Name != name {
			continue
		}
		out, err := q.answer(request, sound)
		if err != nil {
			return nil, err
		}
		return json.Marshal(out)
	}
	return nil, UnknownError{name}
}
