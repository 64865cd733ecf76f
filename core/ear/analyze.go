// Package ear turns the contour of a recording into what a teacher talks
// about: notes, events and measures, each with whether it can be trusted.
package ear

import (
	"context"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/explain"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Version names the rules below; analyses keep the version they were made with.
const Version = 2

// Question is what is asked of a recording: who played, and what was to be
// played. Without a score notes and events are still found.
type Question struct {
	Instrument *instrument.Instrument
	Score      *scores.Score
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
	Version    int           `json:"version"`
	Instrument string        `json:"instrument,omitempty"`
	Seconds    music.Seconds `json:"duration_s"`
	Start      music.Seconds `json:"score_start_s" doc:"where the score's first click lies in the recording"`
	Recording  Recording     `json:"recording"`
	Notes      []Note        `json:"notes" nullable:"false"`
	Events     []Event       `json:"events" nullable:"false"`
	Airs       []Air         `json:"airs" doc:"one for each segment of air alone in the score" nullable:"false"`
	explain.Explanation
	Sounds  []Sound         `json:"sounds" doc:"what else was heard: clicks, voices, other players" nullable:"false"`
	Blown   bool            `json:"blown" doc:"air was heard where nothing of the score sounded"`
	Contour contour.Contour `json:"-"`
}

// Analyze listens to a recording. ctx stops it early with its error; the
// other error is contour.ErrRate.
func Analyze(ctx context.Context, sound audio.Mono, q Question) (Analysis, error) {
	c, err := listenerFor(q).Track(ctx, sound)
	if err != nil {
		return Analysis{}, err
	}
	l := &listening{
		Question: q,
		sound:    sound,
		contour:  c,
		fine:     contour.NewEnvelope(sound),
		tone:     contour.NewToneEar(sound),
		loudness: contour.NewLoudness(sound),
		Analysis: Analysis{
			Version:     Version,
			Seconds:     music.Seconds(sound.Seconds()),
			Contour:     c,
			Start:       q.Alignment.Start,
			Notes:       []Note{},
			Events:      []Event{},
			Airs:        []Air{},
			Explanation: explain.Explanation{Accounts: []explain.Account{}},
			Sounds:      []Sound{},
		},
	}
	if q.Instrument != nil {
		l.Analysis.Instrument = q.Instrument.Key
	}
	l.Recording = listenToRecording(sound, c)
	if q.Score == nil || q.Score.IsFree() {
		plateaus := l.withLevels(findPlateaus(c, l.fine, tongueDip))
		groups, strays := groupByEar(plateaus, l.a4())
		l.describe(groups, strays)
		if q.Score != nil {
			l.Recording.addFaultOfLength(l.Seconds, l.Start+q.Score.Seconds())
		}
		return l.Analysis, nil
	}
	plateaus := findPlateaus(c, l.fine, deepDip)
	if q.Alignment.FirstNote && len(plateaus) > 0 && len(q.Score.Targets()) > 0 {
		first := q.Score.TempoBPM.Seconds(q.Score.Targets()[0].StartBeat)
		l.Start = plateaus[firstLong(plateaus)].Onset - first
	}
	groups, strays := l.groupByScore(l.withLevels(l.cutForScore(plateaus)))
	l.describe(groups, strays)
	l.hearAirs()
	l.Blown = l.airInSilence()
	l.Recording.addFaultOfLength(l.Seconds, l.Start+q.Score.Seconds())
	return l.Analysis, nil
}

// listening is an analysis being made.
type listening struct {
	Question
	Analysis
	sound    audio.Mono
	contour  contour.Contour
	fine     contour.Envelope
	tone     contour.ToneEar
	loudness contour.Loudness
}

// a4 is the tuning reference in force.
func (q Question) a4() music.Hertz {
	switch {
	case q.Score != nil && q.Score.A4Hz > 0:
		return q.Score.A4Hz
	case q.A4 > 0:
		return q.A4
	}
	return music.StandardA4
}

// describe measures each group as one note and names what happened in it.
func (l *listening) describe(groups []group, strays []plateau) {
	for index, g := range groups {
		l.Notes = append(l.Notes, l.measure(g))
		l.Events = append(l.Events, l.eventsOf(g, index)...)
	}
	l.addSqueaks(groups)
	l.listenForOthers(groups, strays)
	for n := range l.Notes {
		l.Notes[n].judgeTrust(l.Recording, l.Sounds)
	}
	sortEvents(l.Events)
}
