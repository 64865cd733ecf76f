package ask

import (
	"slices"

	"earlychorus/core/audio"
	"earlychorus/core/instrument"
	"earlychorus/core/json"
	"earlychorus/core/music"
	"earlychorus/core/outcome"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// RehearseRequest is a score that will be played.
type RehearseRequest struct {
	Score scores.Score `json:"score"`
	Rate  int          `json:"rate" doc:"of the sound that will come in, Hz"`
}

// rehearsedNotes is how many notes of a score are rehearsed, and rehearsedSeconds about how
// long: with a second note there is all that a take has, and more only takes longer. What is
// done at the end alone is done rehearsedEnds times over, for an engine that looks for what
// runs often.
const (
	rehearsedNotes                 = 2
	rehearsedSeconds music.Seconds = 8
	rehearsedEnds                  = 6
)

// rehearse lets the beginning of a score be played as it should be, and listens to it and
// judges it as the take that will come. Nothing is told of it: an engine compiles well only
// what has run, and the first take's word is to come as soon as the others'.
func rehearse(in RehearseRequest, _ *Sound) (Opened, error) {
	i, err := instrument.Get(in.Score.Instrument)
	if err != nil {
		return Opened{}, err
	}
	s := beginning(in.Score)
	t, err := outcome.Open(outcome.Request{Score: s}, in.Rate)
	if err != nil {
		return Opened{}, err
	}
	t.Expect(s.Seconds() + afterScore)
	for second := range slices.Chunk(synth.Reference(s, i, in.Rate).Samples, in.Rate) {
		t.Hear(second)
		t.Ahead(audio.Patient{})
	}
	for range rehearsedEnds {
		heard, err := judge(JudgeRequest{Taken: true, Rate: in.Rate}, &Sound{Take: t})
		if err != nil {
			return Opened{}, err
		}
		if _, err := json.Marshal(heard); err != nil {
			return Opened{}, err
		}
	}
	return Opened{}, nil
}

// beginning is a score as far as it is rehearsed.
func beginning(s scores.Score) scores.Score {
	notes := 0
	for n, segment := range s.Segments {
		if notes == rehearsedNotes || (n > 0 && s.TempoBPM.Seconds(segment.StartBeat) > rehearsedSeconds) {
			s.Segments = s.Segments[:n]
			break
		}
		if segment.Phase.Sounds() {
			notes++
		}
	}
	return s
}
