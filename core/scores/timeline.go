package scores

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
	Phase   Phase         `json:"phase" enum:"ready,breathe,hold,out,buzz,play,sing,finger,listen,free,strike,rest"`
	Active  bool          `json:"active" doc:"the player sounds or blows in it"`
	Beats   music.Beats   `json:"beats"`
	Text    string        `json:"text"`
	Segment int           `json:"segment" doc:"index into the score's segments"`
}

// Tone is a note that is sounded to the player, who listens or follows.
type Tone struct {
	At     music.Seconds `json:"at_s"`
	Length music.Seconds `json:"length_s"`
	Pitch  music.Hertz   `json:"pitch_hz"`
}

// Timeline is a score laid out in seconds from its first click: what a
// metronome and a recorder need.
type Timeline struct {
	Total  music.Seconds `json:"total_s"`
	Clicks []Click       `json:"clicks" nullable:"false"`
	Cues   []Cue         `json:"cues" nullable:"false"`
	Tones  []Tone        `json:"tones" nullable:"false" doc:"sounded where the player listens or follows"`
	Drone  music.Hertz   `json:"drone_hz,omitempty" doc:"the first note, in a low octave, to sound under the step when asked for"`
}

// lowestDrone is where the octave of drones begins: low enough to be under the
// tune, high enough for a small loudspeaker.
const lowestDrone music.Hertz = 110

// Timeline lays the score out in time.
func (s Score) Timeline() Timeline {
	t := Timeline{
		Total:  s.Seconds(),
		Clicks: []Click{},
		Cues:   []Cue{},
		Tones:  []Tone{},
	}
	if targets := s.Targets(); len(targets) > 0 {
		t.Drone = DroneFor(targets[0].Target.Frequency(s.A4Hz))
	}
	for n, seg := range s.Segments {
		from := s.TempoBPM.Seconds(seg.StartBeat)
		length := s.TempoBPM.Seconds(seg.Beats)
		t.Cues = append(t.Cues, Cue{
			From:    from,
			To:      from + length,
			Phase:   seg.Phase,
			Active:  seg.Phase.Active(),
			Beats:   seg.Beats,
			Text:    seg.Text,
			Segment: n,
		})
		if seg.Phase == Listen && seg.Target > 0 {
			t.Tones = append(t.Tones, Tone{from, length, seg.Target.Frequency(s.A4Hz)})
		}
		if seg.Leader > 0 {
			t.Tones = append(t.Tones, Tone{from, length, seg.Leader.Frequency(s.A4Hz)})
		}
		for beat := range int(seg.Beats) {
			at := seg.StartBeat + music.Beats(beat)
			t.Clicks = append(t.Clicks, Click{
				At:      s.TempoBPM.Seconds(at),
				Beat:    beat + 1,
				Audible: at < CountIn,
				Accent:  beat == 0,
			})
		}
	}
	return t
}

// DroneFor returns a pitch put into the octave of drones; 0 for none.
func DroneFor(f music.Hertz) music.Hertz {
	if f <= 0 {
		return 0
	}
	for f >= 2*lowestDrone {
		f /= 2
	}
	for f < lowestDrone {
		f *= 2
	}
	return f
}
