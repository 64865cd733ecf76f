package verdict

import (
	"fmt"
	"math"

	"earlychorus/core/exercise"
	"earlychorus/core/music"
	"earlychorus/core/take"
)

// Cause is why a take is not clean, ranked from what must be mended first.
type Cause string

const (
	CauseWrongNote  Cause = "wrong-note"
	CauseBreak      Cause = "break"
	CauseNoResponse Cause = "no-response"
	CauseGap        Cause = "gap"
	CauseCentre     Cause = "centre"
	CauseSteadiness Cause = "steadiness"
	CauseHeld       Cause = "held"
	CauseRecording  Cause = "recording"
)

// Measure is one number of one note against its limit.
type Measure struct {
	Cause  Cause   `json:"cause"`
	Label  string  `json:"label" doc:"the measure's name on screen"`
	Note   int     `json:"note" doc:"index of the target"`
	Value  float64 `json:"value"`
	Limit  float64 `json:"limit" doc:"largest distance from perfect; meaningless unless judged"`
	Text   string  `json:"text" doc:"the value in words: \"18 cents flat\""`
	Wanted string  `json:"wanted" doc:"the limit in words"`
	Judged bool    `json:"judged" doc:"false: shown, but not part of this step's pass rule"`
	Within bool    `json:"within"`
	Excess float64 `json:"excess" doc:"the value in limits: above 1 is outside"`
	Tried  bool    `json:"tried" doc:"on a hard note: counted as tried, not held against the player"`
	Trust  string  `json:"distrust,omitempty" doc:"why the number cannot be relied on"`
}

// measures returns every measure of target n.
func measures(n int, target exercise.Segment, note take.Note, events []take.Event, s exercise.Score, freeStart bool) []Measure {
	limits := s.Limits
	if target.Hard {
		easier := s.Stage.Easier().Limits()
		limits.Centre, limits.Waver = max(limits.Centre, easier.Centre), max(limits.Waver, easier.Waver)
	}
	var out []Measure
	add := func(m Measure) {
		m.Note, m.Judged, m.Tried, m.Trust = n, true, target.Hard, note.WhyNot
		if m.Excess == 0 && m.Limit > 0 {
			m.Excess = math.Abs(m.Value) / m.Limit
		}
		m.Within = m.Excess <= 1
		out = append(out, m)
	}
	if !note.Played {
		add(Measure{Cause: CauseNoResponse, Label: "Sound", Text: "nothing sounded", Wanted: "the note speaks", Excess: 10})
		return out
	}
	add(rightNote(note, target))
	if note.WrongNote {
		return out
	}
	add(longest(CauseBreak, "Breaks", "no break", events, limits.Break, take.Break, take.Undertone))
	add(longest(CauseGap, "Gaps", "no gap", events, limits.Gap, take.Gap))
	add(Measure{
		Cause: CauseCentre, Label: "Centre", Value: float64(note.Centre), Limit: float64(limits.Centre),
		Text: FlatOrSharp(note.Centre), Wanted: fmt.Sprintf("within ±%.0f cents", limits.Centre),
	})
	add(Measure{
		Cause: CauseSteadiness, Label: "Steadiness", Value: float64(note.Steadiness), Limit: float64(limits.Waver),
		Text: fmt.Sprintf("wavers ±%.0f cents", note.Steadiness), Wanted: fmt.Sprintf("at most ±%.0f cents", limits.Waver),
	})
	beats := s.TempoBPM.Beats(note.Sounding)
	add(Measure{
		Cause: CauseHeld, Label: "Held", Value: float64(beats), Limit: limits.HeldRatio * float64(target.Beats),
		Text:   fmt.Sprintf("%.1f of %.0f beats", min(beats, target.Beats), target.Beats),
		Wanted: fmt.Sprintf("at least %.1f beats", limits.HeldRatio*float64(target.Beats)),
		Excess: max(0.01, (1-note.HeldRatio)/(1-limits.HeldRatio)),
	})
	return append(out, shown(n, note, freeStart)...)
}

// shown are the measures that inform without being judged in this kind.
func shown(n int, note take.Note, freeStart bool) []Measure {
	out := []Measure{
		{Label: "Drift", Value: note.Drift, Text: fmt.Sprintf("%+.1f cents a second", note.Drift)},
		{Label: "Loudness", Value: note.LevelSD, Text: fmt.Sprintf("varies %.1f dB", note.LevelSD)},
	}
	if !freeStart {
		out = append(out, Measure{Label: "Start", Value: float64(note.Response), Text: lateOrEarly(note.Response)})
	}
	for k := range out {
		out[k].Note, out[k].Within = n, true
	}
	return out
}

func rightNote(note take.Note, target exercise.Segment) Measure {
	m := Measure{Cause: CauseWrongNote, Label: "Note", Text: "the right note", Wanted: target.WrittenName, Excess: 0.01}
	if note.WrongNote {
		m.Value = float64(note.MIDI - target.Target)
		m.Excess = 10
		m.Text = fmt.Sprintf("sounded %s", Interval(int(m.Value)))
	}
	return m
}

func longest(c Cause, label, wanted string, events []take.Event, limit music.Seconds, kinds ...take.EventKind) Measure {
	m := Measure{Cause: c, Label: label, Limit: float64(limit), Text: "none", Wanted: wanted, Excess: 0.01}
	count := 0
	for _, e := range events {
		for _, k := range kinds {
			if e.Kind != k || e.Duration < limit {
				continue
			}
			count++
			if float64(e.Duration) > m.Value {
				m.Value = float64(e.Duration)
				m.Text = fmt.Sprintf("%.2f s", e.Duration)
				if c == CauseBreak {
					m.Text = fmt.Sprintf("%.2f s %s", e.Duration, Interval(e.Interval))
				}
				// A limit just touched is over it: there should be no gap at all.
				m.Excess = max(1.01, m.Value/m.Limit)
			}
		}
	}
	if count > 1 {
		m.Text = fmt.Sprintf("%d, the longest %s", count, m.Text)
	}
	return m
}

// FlatOrSharp says a distance in cents: "18 cents flat".
func FlatOrSharp(c music.Cents) string {
	n := math.Round(float64(c))
	switch {
	case n < 0:
		return fmt.Sprintf("%.0f %s flat", -n, plural(-n, "cent"))
	case n > 0:
		return fmt.Sprintf("%.0f %s sharp", n, plural(n, "cent"))
	}
	return "in tune"
}

func plural(n float64, word string) string {
	if n == 1 {
		return word
	}
	return word + "s"
}

func lateOrEarly(s music.Seconds) string {
	ms := math.Round(float64(s) * 1000)
	if ms < 0 {
		return fmt.Sprintf("%.0f ms early", -ms)
	}
	return fmt.Sprintf("%.0f ms after the beat", ms)
}

var intervalNames = map[int]string{
	1: "a half step", 2: "a whole step", 3: "a minor third", 4: "a major third", 5: "a fourth", 6: "a tritone",
	7: "a fifth", 12: "an octave", 19: "a twelfth", 24: "two octaves",
}

// Interval says how far another note lies: "an octave up".
func Interval(semitones int) string {
	direction := "up"
	if semitones < 0 {
		direction, semitones = "down", -semitones
	}
	name, ok := intervalNames[semitones]
	if !ok {
		name = fmt.Sprintf("%d half steps", semitones)
	}
	return name + " " + direction
}
