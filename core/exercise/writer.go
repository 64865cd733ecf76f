package exercise

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// writer lays a score out, segment after segment.
type writer struct {
	s       scores.Score
	i       instrument.Instrument
	c       Conventions
	stage   scores.Stage
	player  Player
	pattern []Degree // the notes of the exercise, where a substitute may come from
	beyond  bool     // the director picked written notes, whatever the stage reaches
	hands   instrument.Hands
	unseen  bool             // nobody reads the score: no fingerings are drawn
	beside  []music.Spelling // notes that stand on the page with the score's: a ladder's
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
	w.s = scores.Score{
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
		Segments:   []scores.Segment{},
		Rules:      []scores.Rule{},
		Items:      []string{},
		Pictures:   []scores.Picture{},
		Notices:    []string{},
		Cautions:   cautionsFor(step, i),
		Ticked:     step.Kind.Ticked,
		Metered:    step.Kind.Metered,
		EarsFirst:  c.EarsFirst(),
	}
	return w
}

// finish returns the score, its load worked out.
func (w *writer) finish() scores.Score {
	if len(w.s.Targets()) > 0 {
		if n := homeNotice(w.i); n != "" {
			w.notice(n)
		}
	}
	w.s.Alternates = w.alternates()
	w.judgeJoins()
	w.s.Load = scores.LoadOf(w.s, w.i)
	w.markChanges()
	w.call()
	return w.s.Marked()
}

// alternates reports whether the step is another the next time through: a clarinet's low
// notes change hands, a tube's scale begins lower.
func (w *writer) alternates() bool {
	if w.s.Kind == tubeScale.Key {
		return true
	}
	if w.i.Family != instrument.Clarinets || w.c.ClarinetLow != instrument.AlternateLittle {
		return false
	}
	return slices.ContainsFunc(w.s.Segments, func(s scores.Segment) bool {
		return s.Fingering != nil && s.Written.MIDI() <= lowFSharp
	})
}

// judgeJoins has every line judged as it is to be joined, in a step that is judged at all.
func (w *writer) judgeJoins() {
	targets := w.s.Targets()
	follow := 0
	for n := 1; n < len(targets); n++ {
		if targets[n].Phase == scores.Play && scores.Follows(targets, n) && targets[n].Target != targets[n-1].Target {
			follow++
		}
	}
	if follow >= measure.FewestJoins && len(w.s.Rules) > 0 {
		w.judge(measure.Joins, 0)
	}
}

// call gives every note the name its player says, here and in what is said of it.
func (w *writer) call() {
	page := slices.Clone(w.beside)
	for _, seg := range w.s.Segments {
		if seg.Written != nil {
			page = append(page, *seg.Written)
		}
		if seg.GlideTo != 0 {
			page = append(page, w.s.KeyFifths.Spell(w.i.Written(seg.GlideTo)))
		}
	}
	calls := w.c.Naming.Calls(page)
	for n := range w.s.Segments {
		seg := &w.s.Segments[n]
		if seg.Written == nil || seg.WrittenName == "" {
			continue
		}
		seg.Called = calls[*seg.Written]
		if seg.Phase == scores.Strike {
			seg.Called = seg.WrittenName
		}
		if seg.GlideTo != 0 {
			goal := w.s.KeyFifths.Spell(w.i.Written(seg.GlideTo))
			seg.Goal = &scores.Goal{Written: goal, Called: calls[goal]}
			seg.Text = fmt.Sprintf("%s from %s to %s", seg.Text, seg.Called, seg.Goal.Called)
		}
		seg.Text = capital(strings.Replace(seg.Text, seg.WrittenName, seg.Called, 1))
	}
}

// capital writes the first letter of a sentence large.
func capital(s string) string {
	first, size := utf8.DecodeRuneInString(s)
	if size == 0 {
		return s
	}
	return string(unicode.ToUpper(first)) + s[size:]
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
func (w *writer) judge(m measure.Measure, limit float64) {
	w.s.Rules = append(w.s.Rules, m.Within(limit))
}

// judgeTone adds what every held tone is judged by.
func (w *writer) judgeTone() { w.s.Rules = append(w.s.Rules, measure.ToneRules(w.s.Limits)...) }

// breathBeats are the last beats of the count-in, for the breath.
const (
	breathBeats music.Beats = 2
)

// countIn begins a score.
func (w *writer) countIn(text string) {
	w.add(scores.Segment{Phase: scores.Ready, Beats: scores.CountIn - breathBeats, Text: text})
}

func (w *writer) breathe() {
	w.add(scores.Segment{Phase: scores.Breathe, Beats: breathBeats, Text: breathText})
}

const (
	breathText = "Breathe in, low and relaxed."
	readyText  = "Sit tall, fingers ready."
)

// rest adds a rest whose last two beats are for the next breath.
func (w *writer) rest(beats music.Beats, text string) {
	if beats > breathBeats {
		w.add(scores.Segment{Phase: scores.Rest, Beats: beats - breathBeats, Text: text})
	}
	w.breathe()
}

func (w *writer) end() { w.add(scores.Segment{Phase: scores.Rest, Beats: 1, Text: "Done."}) }

// add appends a segment behind the last one; empty segments are left out.
func (w *writer) add(seg scores.Segment) {
	if seg.Beats <= 0 {
		return
	}
	seg.StartBeat = w.s.Beats()
	w.s.Segments = append(w.s.Segments, seg)
}

// tone adds a degree, put where the instrument and the stage reach.
func (w *writer) tone(d Degree, beats music.Beats, set ...func(*scores.Segment)) {
	at := w.place(d)
	if at.notice != "" {
		w.notice(at.notice)
	}
	w.at(at.note, beats, set...)
}

// at adds a sounding note as it is.
func (w *writer) at(note music.MIDI, beats music.Beats, set ...func(*scores.Segment)) {
	written := w.s.KeyFifths.Spell(w.i.Written(note))
	seg := scores.Segment{
		Phase:        scores.Play,
		Beats:        beats,
		Target:       note,
		Written:      &written,
		Accidental:   w.s.KeyFifths.Accidental(written),
		WrittenName:  w.c.Naming.WithOctave(written),
		Concert:      w.c.Naming.WithOctave(SoundingKey(w.i).Spell(note)),
		Articulation: w.c.Start,
		Hard:         w.c.IsHard(w.i, note),
		New:          slices.Contains(w.player.New, note),
	}
	for _, f := range set {
		f(&seg)
	}
	switch seg.Phase {
	case scores.Play, scores.Finger:
		if f, ok := w.fingering(note); ok {
			seg.Fingering = &f
		}
	}
	if seg.Text == "" {
		seg.Text = phaseVerbs[seg.Phase] + " " + seg.WrittenName
	}
	w.add(seg)
}

func (w *writer) fingering(note music.MIDI) (instrument.Fingering, bool) {
	if w.unseen {
		return instrument.Fingering{}, false
	}
	return w.i.Fingering(note, w.hands)
}

var phaseVerbs = map[scores.Phase]string{
	scores.Play:   "Play",
	scores.Buzz:   "Buzz",
	scores.Sing:   "Sing",
	scores.Finger: "Finger",
}

func as(p scores.Phase) func(*scores.Segment) { return func(s *scores.Segment) { s.Phase = p } }
func slurred(s *scores.Segment)               { s.Articulation = scores.Slurred }
func starting(a scores.Articulation) func(*scores.Segment) {
	return func(s *scores.Segment) { s.Articulation = a }
}
func saying(text string) func(*scores.Segment) { return func(s *scores.Segment) { s.Text = text } }
func loud(from, to scores.Dynamic) func(*scores.Segment) {
	return func(s *scores.Segment) {
		s.Dynamic = from
		if to != from {
			s.DynamicTo = to
		}
	}
}

func glidingTo(note music.MIDI) func(*scores.Segment) {
	return func(s *scores.Segment) { s.GlideTo = note }
}

// slurIf slurs all but the first of a phrase.
func slurIf(n int) func(*scores.Segment) {
	return func(s *scores.Segment) {
		if n > 0 {
			s.Articulation = scores.Slurred
		}
	}
}

// tick adds something to tick with its picture, and the beats it takes.
func (w *writer) tick(picture scores.Picture, text string, phase scores.Phase, beats music.Beats) {
	w.s.Items, w.s.Pictures = append(w.s.Items, text), append(w.s.Pictures, picture)
	w.add(scores.Segment{Phase: phase, Beats: beats, Text: text})
}
