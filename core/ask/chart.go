package ask

import (
	"earlychorus/core/chart"
	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/practice"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// ChartRequest is an instrument as it is built, in a class.
type ChartRequest struct {
	Instrument  string               `json:"instrument"`
	Variant     string               `json:"variant" doc:"how it is built; empty is the usual way"`
	Conventions exercise.Conventions `json:"conventions"`
}

// built returns the instrument as it is built. Errors: an unknown instrument or variant.
func (r ChartRequest) built() (instrument.Instrument, error) {
	i, err := instrument.Get(r.Instrument)
	if err != nil {
		return i, err
	}
	return i.As(r.Variant)
}

// Book is an instrument's book of fingerings, and how to listen to who plays from it.
type Book struct {
	chart.Chart
	Ear practice.EarRange `json:"ear" doc:"between which pitches to listen"`
}

func book(in ChartRequest, _ *Sound) (Book, error) {
	i, err := in.built()
	if err != nil {
		return Book{}, err
	}
	heard := ear.For(i)
	return Book{chart.Of(i, in.Conventions), practice.EarRange{Lowest: heard.Lowest, Highest: heard.Highest}}, nil
}

// WhichRequest is a pitch that an instrument plays.
type WhichRequest struct {
	ChartRequest
	Pitch music.Hertz `json:"pitch_hz"`
	Asked music.MIDI  `json:"asked_midi" doc:"the sounding note that was looked for; 0 is none"`
}

func which(in WhichRequest, _ *Sound) (chart.Found, error) {
	i, err := in.built()
	if err != nil {
		return chart.Found{}, err
	}
	return chart.Which(i, in.Conventions, in.Pitch, in.Asked), nil
}

// NoteRequest is one note of an instrument.
type NoteRequest struct {
	ChartRequest
	Note music.MIDI `json:"midi" doc:"the sounding note"`
	Rate int        `json:"rate" doc:"Hz"`
}

// noteTempo and noteBeats are how long a note of the book sounds: two seconds.
const (
	noteTempo music.Tempo = 60
	noteBeats music.Beats = 2
)

func note(in NoteRequest, sound *Sound) (Sounded, error) {
	i, err := in.built()
	if err != nil {
		return Sounded{}, err
	}
	sound.Out = synth.Reference(scores.Score{
		TempoBPM: noteTempo,
		A4Hz:     in.Conventions.A4,
		Segments: []scores.Segment{
			{
				Phase:        scores.Play,
				Beats:        noteBeats,
				Target:       in.Note,
				Articulation: scores.Tongued,
			},
			{Phase: scores.Rest, StartBeat: noteBeats, Beats: 0.25},
		},
	}, i, in.Rate)
	return Sounded{len(sound.Out.Samples)}, nil
}
