package exercise

import (
	"slices"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// writer lays a score out, segment after segment.
type writer struct {
	s       Score
	i       instrument.Instrument
	c       Conventions
	stage   Stage
	player  Player
	pattern []Degree // the notes of the exercise, where a substitute may come from
	hands   instrument.Hands
}

func newWriter(step Step, p Player, c Conventions) *writer {
	i := p.Instrument
	w := &writer{
		i:      i,
		c:      c,
		stage:  p.Stage,
		player: p,
		hands:  c.Hands(p.Repeat),
	}
	w.s = Score{
		Kind:       step.Kind.Key,
		Title:      step.Sentence(),
		Instrument: i.Key,
		TempoBPM:   60,
		A4Hz:       c.A4,
		Stage:      p.Stage,
		Clef:       string(i.Clef),
		KeyFifths:  WrittenKey(i),
		Limits:     c.LimitsOf(p.Stage),
		HardLimits: c.LimitsOf(p.Stage.Easier()),
		Segments:   []Segment{},
		Rules:      []Rule{},
		Items:      []string{},
		Pictures:   []Picture{},
		Notices:    []string{},
		Cautions:   cautionsFor(step.Kind, i, p.Stage),
		Ticked:     step.Kind.Ticked,
		Metered:    step.Kind.Metered,
		EarsFirst:  c.EarsFirst(),
	}
	return w
}

// finish returns the score, its load worked out.
func (w *writer) finish() Score {
	if len(w.s.Targets()) > 0 {
		if n := homeNotice(w.i); n != "" {
			w.notice(n)
		}
	}
	w.s.Load = LoadOf(w.s, w.i)
	w.markChanges()
	return w.s
}

// markChanges says at each fingering which fingers move to it.
func (w *writer) markChanges() {
	var before *instrument.Fingering
	for n := range w.s.Segments {
		f := w.s.Segments[n].Fingering
		if f == nil {
			continue
		}
		if before != nil {
			w.s.Segments[n].Changes = f.Diagram.ChangesFrom(before.Diagram)
		}
		before = f
	}
}

func (w *writer) notice(said string) {
	if !slices.Contains(w.s.Notices, said) {
		w.s.Notices = append(w.s.Notices, said)
	}
}

// judge adds a measure to the step's pass rule.
func (w *writer) judge(m MeasureKey, limit float64) { w.s.Rules = append(w.s.Rules, Rule{m, limit}) }

// judgeTone adds what every held tone is judged by.
func (w *writer) judgeTone() { w.s.Rules = append(w.s.Rules, w.s.Limits.ToneRules()...) }

// breathBeats are the last beats of the count-in, for the breath.
const (
		breathBeats music.Beats = 2
)

// countIn begins a score.
func (w *writer) countIn(text string) {
	w.add(Segment{Phase: Ready, Beats: CountIn - breathBeats, Text: text})
}

func (w *writer) breathe() { w.add(Segment{Phase: Breathe, Beats: breathBeats, Text: breathText}) }

const (
	breathText = "Breathe in, low and relaxed."
	readyText  = "Sit tall, fingers ready."
)

// rest adds a rest whose last two beats are for the next breath.
func (w *writer) rest(beats music.Beats, text string) {
	if beats > breathBeats {
		w.add(Segment{Phase: Rest, Beats: beats - breathBeats, Text: text})
	}
	w.breathe()
}

func (w *writer) end() { w.add(Segment{Phase: Rest, Beats: 1, Text: "Done."}) }

// add appends a segment behind the last one; empty segments are left out.
func (w *writer) add(seg Segment) {
	if seg.Beats <= 0 {
		return
	}
	seg.StartBeat = w.s.Beats()
	w.s.Segments = append(w.s.Segments, seg)
}

// tone adds a degree, put where the instrument and the stage reach.
func (w *writer) tone(d Degree, beats music.Beats, set ...func(*Segment)) {
	at := w.place(d)
	if at.notice != "" {
		w.notice(at.notice)
	}
	w.at(at.note, beats, set...)
}

// at adds a sounding note as it is.
func (w *writer) at(note music.MIDI, beats music.Beats, set ...func(*Segment)) {
	written := w.s.KeyFifths.Spell(w.i.Written(note))
	seg := Segment{
		Phase:        Play,
		Beats:        beats,
		Target:       note,
		Written:      &written,
		WrittenName:  w.c.Naming.WithOctave(written),
		Concert:      w.c.Naming.WithOctave(SoundingKey(w.i).Spell(note)),
		Articulation: w.c.Start,
		Hard:         w.c.IsHard(w.i, note),
	}
	for _, f := range set {
		f(&seg)
	}
	switch seg.Phase {
	case Play, Finger:
		if f, ok := w.i.Fingering(note, w.hands); ok {
			seg.Fingering = &f
		}
	}
	if seg.Text == "" {
		seg.Text = phaseVerbs[seg.Phase] + " " + seg.WrittenName
	}
	w.add(seg)
}

var phaseVerbs = map[Phase]string{
	Play:   "Play",
	Buzz:   "Buzz",
	Sing:   "Sing",
	Finger: "Finger",
}

func as(p Phase) func(*Segment)              { return func(s *Segment) { s.Phase = p } }
func slurred(s *Segment)                     { s.Articulation = Slurred }
func starting(a Articulation) func(*Segment) { return func(s *Segment) { s.Articulation = a } }
func saying(text string) func(*Segment)      { return func(s *Segment) { s.Text = text } }
func loud(from, to Dynamic) func(*Segment) {
	return func(s *Segment) {
		s.Dynamic = from
		if to != from {
			s.DynamicTo = to
		}
	}
}

func glidingTo(note music.MIDI) func(*Segment) { return func(s *Segment) { s.GlideTo = note } }

// slurIf slurs all but the first of a phrase.
func slurIf(n int) func(*Segment) {
	return func(s *Segment) {
		if n > 0 {
			s.Articulation = Slurred
		}
	}
}

// tick adds something to tick with its picture, and the beats it takes.
func (w *writer) tick(picture Picture, text string, phase Phase, beats music.Beats) {
	w.s.Items, w.s.Pictures = append(w.s.Items, text), append(w.s.Pictures, picture)
	w.add(Segment{Phase: phase, Beats: beats, Text: text})
}
