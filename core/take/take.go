// Package take turns the contour of a recording into what a teacher talks
// about: notes, events and measures, each with whether it can be trusted.
package take

import (
	"context"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Version names the rules below; analyses keep the version they were made with.
const Version = 1

// Question is what is asked of a recording: who played, and what was to be
// played. Without a score notes and events are still found.
type Question struct {
	Instrument *instrument.Instrument
	Score      *exercise.Score
	A4         music.Hertz // used without a score
	Alignment  Alignment
}

// Alignment says where a score's first click lies in the recording.
type Alignment struct {
	// FirstNote lines the score's first note up with the first note heard, for
	// recordings made without our click; response is then not measured.
	FirstNote bool
	// Start is the moment of the first click, unless FirstNote.
	Start music.Seconds
}

// Analysis is everything heard in one recording.
type Analysis struct {
	Version    int             `json:"version"`
	Instrument string          `json:"instrument,omitempty"`
	Seconds    music.Seconds   `json:"duration_s"`
	Start      music.Seconds   `json:"score_start_s" doc:"where the score's first click lies in the recording"`
	Recording  Recording       `json:"recording"`
	Notes      []Note          `json:"notes" nullable:"false"`
	Events     []Event         `json:"events" nullable:"false"`
	Contour    contour.Contour `json:"-"`
}

// Analyze listens to a recording. ctx stops it early with its error; the
// other error is contour.ErrRate.
func Analyze(ctx context.Context, sound audio.Mono, q Question) (Analysis, error) {
	ear := contour.OpenEar
	if q.Instrument != nil {
		ear = contour.EarFor(*q.Instrument)
	}
	c, err := ear.Track(ctx, sound)
	if err != nil {
		return Analysis{}, err
	}
	a := Analysis{
		Version: Version, Seconds: music.Seconds(sound.Seconds()), Contour: c, Start: q.Alignment.Start,
		Notes: []Note{}, Events: []Event{},
	}
	if q.Instrument != nil {
		a.Instrument = q.Instrument.Key
	}
	a.Recording = listenToRecording(sound, c)
	plateaus := findPlateaus(c, contour.NewEnvelope(sound))
	if q.Score == nil {
		a.describe(groupByEar(plateaus, q), q)
		return a, nil
	}
	if q.Alignment.FirstNote && len(plateaus) > 0 && len(q.Score.Targets()) > 0 {
		first := q.Score.TempoBPM.Seconds(q.Score.Targets()[0].StartBeat)
		a.Start = plateaus[firstLong(plateaus)].Onset - first
	}
	a.describe(groupByScore(plateaus, *q.Score, a.Start), q)
	a.Recording.addFaultOfLength(a.Seconds, a.Start+q.Score.Seconds())
	return a, nil
}

// describe measures each group as one note and names what happened in it.
func (a *Analysis) describe(groups []group, q Question) {
	for _, g := range groups {
		n := a.measure(g, q)
		a.Events = append(a.Events, g.events(len(a.Notes), n, q)...)
		a.Notes = append(a.Notes, n)
	}
}
