package exercise

import (
	"fmt"
	"strings"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// LongToneCounted is the kind "long tone, counted": each note held for a
// number of beats, with a rest between. Check says what is out of range in
// words, so the tags set no bounds of their own.
type LongToneCounted struct {
	Notes     []Degree    `json:"notes" nullable:"false" doc:"1 to 6 notes in order, in semitones from the home note"`
	Beats     music.Beats `json:"beats" doc:"how long each note is held, 2 to 16"`
	RestBeats music.Beats `json:"rest_beats" doc:"rest between notes, 2 to 16"`
	TempoBPM  music.Tempo `json:"tempo_bpm" doc:"beats a minute, 40 to 160"`
}

// countIn is the clicks before the first note; the last two are for the breath.
const (
	countIn     music.Beats = 4
	breathBeats music.Beats = 2
)

// DefaultLongToneCounted is the step a new class begins with.
func DefaultLongToneCounted() LongToneCounted {
	return LongToneCounted{Notes: []Degree{0, 7}, Beats: 8, RestBeats: 8, TempoBPM: 60}
}

// ParameterError names the parameter of a step that cannot be used, and the
// remedy.
type ParameterError struct{ Field, Remedy string }

func (e ParameterError) Error() string { return e.Field + ": " + e.Remedy }

// Check returns a ParameterError for the first parameter out of range.
func (p LongToneCounted) Check() error {
	switch {
	case len(p.Notes) == 0 || len(p.Notes) > 6:
		return ParameterError{"notes", "choose one to six notes"}
	case p.Beats < 2 || p.Beats > 16 || p.Beats != music.Beats(int(p.Beats)):
		return ParameterError{"beats", "hold each note for 2 to 16 whole beats"}
	case p.RestBeats < 2 || p.RestBeats > 16 || p.RestBeats != music.Beats(int(p.RestBeats)):
		return ParameterError{"rest_beats", "rest for 2 to 16 whole beats"}
	case p.TempoBPM < music.SlowestTempo || p.TempoBPM > music.FastestTempo:
		return ParameterError{"tempo_bpm", fmt.Sprintf("choose a tempo from %.0f to %.0f", music.SlowestTempo, music.FastestTempo)}
	}
	for _, d := range p.Notes {
		if d < LowestDegree || d > HighestDegree {
			return ParameterError{"notes", "choose notes from a fourth below home to an octave above it"}
		}
	}
	if s := p.TempoBPM.Seconds(p.Beats); s > longestHold {
		return ParameterError{"beats", fmt.Sprintf("%.0f beats at %.0f last %.0f s; keep one breath within %.0f s", p.Beats, p.TempoBPM, s, longestHold)}
	}
	return nil
}

// longestHold caps one breath for young players.
const longestHold music.Seconds = 16

// Sentence says the step in concert pitch, as a director would.
func (p LongToneCounted) Sentence() string {
	names := make([]string, len(p.Notes))
	for n, d := range p.Notes {
		names[n] = d.ConcertName()
	}
	s := fmt.Sprintf("Long tone, counted: concert %s, %.0f beats each at %.0f", strings.Join(names, " then "), p.Beats, p.TempoBPM)
	if len(p.Notes) > 1 {
		s += fmt.Sprintf(", %.0f beats rest between", p.RestBeats)
	}
	return s
}

// Score works the step out for one instrument at one stage.
func (p LongToneCounted) Score(i instrument.Instrument, c Conventions, stage Stage) (Score, error) {
	if err := p.Check(); err != nil {
		return Score{}, err
	}
	s := Score{
		Kind: KindLongToneCounted, Title: p.Sentence(), Instrument: i.Key, TempoBPM: p.TempoBPM, A4Hz: c.A4, Stage: stage,
		Clef: string(i.Clef), KeyFifths: key(i), Limits: stage.Limits(), Notices: []string{}, Cautions: longToneCautions(),
	}
	if n := homeNotice(i); n != "" {
		s.Notices = append(s.Notices, n)
	}
	s.add(Segment{Phase: Ready, Beats: countIn - breathBeats, Text: "Sit tall, fingers ready."})
	for n, d := range p.Notes {
		if n > 0 {
			s.add(Segment{Phase: Rest, Beats: p.RestBeats - breathBeats, Text: "Rest. Lips loose."})
		}
		s.add(Segment{Phase: Breathe, Beats: breathBeats, Text: "Breathe in, low and relaxed."})
		s.addNote(place(d, i), i, c, p.Beats)
	}
	s.add(Segment{Phase: Rest, Beats: 1, Text: "Done."})
	return s, nil
}

// add appends a segment behind the last one; empty segments are left out.
func (s *Score) add(seg Segment) {
	if seg.Beats <= 0 {
		return
	}
	seg.StartBeat = s.Beats()
	s.Segments = append(s.Segments, seg)
	if seg.Phase == Rest {
		s.Load.RestSeconds += s.TempoBPM.Seconds(seg.Beats)
	}
}

func (s *Score) addNote(at placed, i instrument.Instrument, c Conventions, beats music.Beats) {
	written := s.KeyFifths.Spell(i.Written(at.note))
	seg := Segment{
		Phase: Play, Beats: beats, Target: at.note, Written: &written, WrittenName: written.String(),
		Concert: soundingKey(i).Spell(at.note).String(), Articulation: c.Start, Hard: i.IsHard(at.note),
	}
	if f, ok := i.Fingering(at.note); ok {
		seg.Fingering = &f
	}
	if at.notice != "" {
		s.Notices = append(s.Notices, at.notice)
	}
	s.add(seg)
	length := s.TempoBPM.Seconds(beats)
	s.Load.SoundSeconds += length
	if seg.Hard {
		s.Load.HardSeconds += length
	}
}

func longToneCautions() []string {
	return []string{
		"Light-headed, tingling or dizzy? Stop, sit down and breathe normally. If you have asthma or have been ill, do as your doctor says.",
		"Lips hurt or feel numb? Stop, and rest as long as you played.",
	}
}
