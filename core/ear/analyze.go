// Package ear turns the contour of a recording into what a teacher talks
// about: notes, events and measures, each with whether it can be trusted.
package ear

import (
	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/explain"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Version names the rules below; analyses keep the version they were made with.
const Version = 7

// Question is what is asked of a recording: who played, and what was to be
// played. Without a score notes and events are still found.
type Question struct {
	Instrument *instrument.Instrument
	Score      *scores.Score
	A4         music.Hertz // used without a score
	Alignment  Alignment
	// Explain finds the story behind what was heard; nil is explain.Solve. The benches
	// compare others with it.
	Explain func([]explain.Sound, explain.Part) explain.Story
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
	Strokes    []Stroke      `json:"strokes,omitempty" doc:"one for each stroke of the score"`
	Extra      int           `json:"extra_strokes,omitempty" doc:"struck beside them"`
	explain.Explanation
	Sounds  []Sound         `json:"sounds" doc:"what else was heard: clicks, voices, other players" nullable:"false"`
	Blown   bool            `json:"blown" doc:"air was heard where nothing of the score sounded"`
	Contour contour.Contour `json:"-"`
}

// Analyze listens to a recording. asker stops it early with its error; the
// other error is contour.ErrRate.
func Analyze(asker audio.Asker, sound audio.Mono, q Question) (Analysis, error) {
	t, err := Open(q, sound.Rate)
	if err != nil {
		return Analysis{}, err
	}
	t.Hear(sound.Samples)
	return t.Finish(asker, q.Alignment)
}

// analyze hears notes, events and measures out of what a take's contour is.
func (l *listening) analyze() Analysis {
	if l.Question.Instrument != nil {
		l.Analysis.Instrument = l.Question.Instrument.Key
	}
	if l.Score == nil || l.Score.IsFree() {
		plateaus := l.withLevels(l.findPlateaus(tongueDip))
		groups, strays := groupByEar(plateaus, l.a4())
		l.describe(groups, strays)
		if l.Score != nil {
			l.Recording.addFaultOfLength(l.Seconds, l.Start+l.Score.Seconds())
		}
		return l.Analysis
	}
	plateaus := l.findPlateaus(deepDip)
	if l.Alignment.FirstNote {
		l.Start = l.startByEar(plateaus)
	}
	for _, better := range []func([]plateau) (contour.Contour, bool){l.withoutOthersBeside, l.withNotesAsked} {
		if c, ok := better(plateaus); ok {
			l.contour, l.Analysis.Contour = c, c
			plateaus = l.findPlateaus(deepDip)
		}
	}
	plateaus = l.ripplesJoined(plateaus)
	groups, strays := l.groupByScore(l.withLevels(l.withoutRing(l.turnBack(l.cutForScore(l.cutFromOthers(plateaus))))))
	l.describe(groups, strays)
	l.hearAirs()
	l.hearStrokes()
	l.Blown = !l.nobody && l.airInSilence()
	if !l.letGo() {
		l.Recording.addFaultOfLength(l.Seconds, l.Start+l.Score.Seconds())
	}
	return l.Analysis
}

// startByEar is where a score's first beat lies in a recording made without our
// click: its first sound is the score's first, be it a note or air.
func (l *listening) startByEar(plateaus []plateau) music.Seconds {
	for _, seg := range l.Score.Segments {
		at := l.Score.TempoBPM.Seconds(seg.StartBeat)
		switch {
		case seg.Phase == scores.Out:
			return l.firstAir() - at
		case seg.Phase.Sounds() && len(plateaus) > 0:
			return plateaus[firstLong(plateaus)].Onset - at
		case seg.Phase.Sounds():
			return l.Start
		}
	}
	return l.Start
}

// letGo reports whether a recording of a note held as long as it goes ends after the
// player let go of it: it is shorter than the step, and nothing is missing.
func (l *listening) letGo() bool {
	if !l.Score.Growing || len(l.Notes) == 0 {
		return false
	}
	last := l.Notes[len(l.Notes)-1]
	return last.Played && last.Release < l.Seconds-afterRelease
}

// afterRelease is how much silence shows that a note was let go of.
const afterRelease music.Seconds = 0.3

// listening is an analysis being made.
type listening struct {
	Question
	Analysis
	sound    audio.Mono
	contour  contour.Contour
	fine     contour.Envelope
	bright   contour.Envelope // of the upper harmonics
	take     *Take
	loudness contour.Loudness
	clicking func() bool // whether a metronome clicks in it, found out once
	nobody   bool        // who is heard speaks, and nobody plays
	quietest music.Decibels
	quietOf  *contour.Frame // the first of the contour whose quietest it is
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
	l.hearRing()
	sortEvents(l.Events)
}
