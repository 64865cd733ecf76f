package ear

import (
	"slices"
	"sync"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/explain"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Take is a take being listened to as it comes in, block by block. What is heard at its
// end does not depend on where the blocks were cut, nor on how often Ahead was called.
type Take struct {
	q        Question
	heard    *contour.Take
	residues contour.Kept[residueAsked, residue]
	levels   contour.Kept[levelsAsked, []music.Decibels]
	swings   contour.Kept[swingsAsked, swings]
	bodies   contour.Kept[bodyAsked, body]
	jumps    contour.Kept[int, jump] // of notes, by the frame they settle at
}

// Open begins to listen to a take; where it begins may be told at its end. Errors:
// contour.ErrRate.
func Open(q Question, rate int) (*Take, error) {
	t, err := listenerFor(q).Open(rate)
	if err != nil {
		return nil, err
	}
	return &Take{q: q, heard: t}, nil
}

// Expect says how long the take will be, where that is known: it may be longer.
func (t *Take) Expect(length music.Seconds) { t.heard.Expect(length) }

// Hear takes the next samples in, which must not be changed afterwards.
func (t *Take) Hear(samples []float64) { t.heard.Hear(samples) }

// Score is what was to be played; nil without one. It must not be changed.
func (t *Take) Score() *scores.Score { return t.q.Score }

// Seconds is how much came in so far.
func (t *Take) Seconds() music.Seconds { return music.Seconds(t.heard.Sound().Seconds()) }

// Ahead works out what can be known by now and keeps what costs much, so that Finish,
// which asks nearly the same, is soon done. It is to be called while nothing else waits.
// asker stops it early.
func (t *Take) Ahead(asker audio.Asker) {
	c, err := t.heard.Track(asker)
	if err != nil || len(c.Frames) == 0 {
		return
	}
	l := t.listening(c)
	l.Score = t.scoreSoFar(contour.Time(len(c.Frames)))
	l.analyze()
}

// scoreSoFar is the score as far as it was to be played by a moment: of what is still to
// come nothing can be missing.
func (t *Take) scoreSoFar(until music.Seconds) *scores.Score {
	if t.q.Score == nil || t.q.Alignment.FirstNote {
		return t.q.Score
	}
	s := *t.q.Score
	later := slices.IndexFunc(s.Segments, func(seg scores.Segment) bool {
		return t.q.Alignment.Start+s.TempoBPM.Seconds(seg.StartBeat) > until
	})
	if later >= 0 {
		s.Segments = s.Segments[:later]
	}
	return &s
}

// Finish says what was heard when the last block has come in. Errors: asker's.
func (t *Take) Finish(asker audio.Asker, at Alignment) (Analysis, error) {
	t.heard.End()
	c, err := t.heard.Track(asker)
	if err != nil {
		return Analysis{}, err
	}
	t.q.Alignment = at
	return t.listening(c).analyze(), nil
}

// turn begins a new asking of what is kept.
func (t *Take) turn() {
	t.heard.Turn()
	t.residues.Turn()
	t.levels.Turn()
	t.swings.Turn()
	t.bodies.Turn()
	t.jumps.Turn()
}

// listening prepares an analysis of what came in.
func (t *Take) listening(c contour.Contour) *listening {
	t.turn()
	sound := t.heard.Sound()
	l := &listening{
		Question: t.q,
		sound:    sound,
		contour:  c,
		fine:     t.heard.Envelope(),
		bright:   t.heard.Bright(),
		take:     t,
		loudness: t.heard.Loudness(),
		Analysis: Analysis{
			Version:     Version,
			Seconds:     music.Seconds(sound.Seconds()),
			Contour:     c,
			Start:       t.q.Alignment.Start,
			Recording:   listenToRecording(t.heard.ClippedRatio(), c),
			Notes:       []Note{},
			Events:      []Event{},
			Airs:        []Air{},
			Explanation: explain.Explanation{Accounts: []explain.Account{}},
			Sounds:      []Sound{},
		},
	}
	l.clicking = sync.OnceValue(l.hasMetronome)
	return l
}
