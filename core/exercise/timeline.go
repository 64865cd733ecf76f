package exercise

import "earlychorus/core/music"

// Click is one beat of a score in time.
type Click struct {
	At      music.Seconds `json:"at_s"`
	Beat    int           `json:"beat" doc:"1 is the first beat of its segment"`
	Audible bool          `json:"audible" doc:"clicks sound in the count-in only, so that none is recorded over a note"`
	Accent  bool          `json:"accent"`
}

// Cue is a segment in time.
type Cue struct {
	From    music.Seconds `json:"from_s"`
	To      music.Seconds `json:"to_s"`
	Phase   Phase         `json:"phase" enum:"ready,breathe,hold,out,buzz,play,sing,finger,listen,free,rest"`
	Beats   music.Beats   `json:"beats"`
	Text    string        `json:"text"`
	Segment int           `json:"segment" doc:"index into the score's segments"`
}

// Timeline is a score laid out in seconds from its first click: what a
// metronome and a recorder need.
type Timeline struct {
	Total  music.Seconds `json:"total_s"`
	Clicks []Click       `json:"clicks" nullable:"false"`
	Cues   []Cue         `json:"cues" nullable:"false"`
}

// Timeline lays the score out in time.
func (s Score) Timeline() Timeline {
	t := Timeline{Total: s.Seconds(), Clicks: []Click{}, Cues: []Cue{}}
	for n, seg := range s.Segments {
		from := s.TempoBPM.Seconds(seg.StartBeat)
		text := seg.Text
		t.Cues = append(t.Cues, Cue{from, from + s.TempoBPM.Seconds(seg.Beats), seg.Phase, seg.Beats, text, n})
		for beat := range int(seg.Beats) {
			at := seg.StartBeat + music.Beats(beat)
			t.Clicks = append(t.Clicks, Click{
				At: s.TempoBPM.Seconds(at), Beat: beat + 1, Audible: at < countIn, Accent: beat == 0,
			})
		}
	}
	return t
}
