package verdict

import (
	"fmt"
	"math"

	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// each takes a measure of every played note of the phases.
func each(c Case, take func(playedNote) Measure, phases ...scores.Phase) (out []Measure) {
	for _, p := range c.played(phases...) {
		m := take(p)
		m.Note = p.n
		out = append(out, m)
	}
	return out
}

func tones(c Case, take func(playedNote) Measure) []Measure {
	return each(c, take, scores.Play, scores.Buzz)
}

func speaks(c Case, _ scores.Rule) (out []Measure) {
	for n, t := range c.Score.Targets() {
		m := Measure{
			Label:  "Sound",
			Note:   n,
			Text:   "speaks",
			Wanted: "the note speaks",
			Excess: perfect,
		}
		if !c.Analysis.Notes[n].Played && t.Phase != scores.Sing {
			m.Text, m.Excess, m.direction = "nothing sounded", hopeless, -1
		}
		out = append(out, m)
	}
	return out
}

// rightNote asks for the note on the instrument; lips and voice that only prepare
// it are not asked.
func rightNote(c Case, _ scores.Rule) (out []Measure) {
	prepares := len(c.played(scores.Play)) > 0
	for n, t := range c.Score.Targets() {
		note := c.Analysis.Notes[n]
		if !note.Played || t.Phase == scores.Sing || t.Phase == scores.Buzz && prepares {
			continue
		}
		m := Measure{
			Label:  "Note",
			Note:   n,
			Text:   "the right note",
			Wanted: t.WrittenName,
			Excess: perfect,
		}
		if c.wrong(n) {
			m.Value = float64(note.MIDI - t.Target)
			m.Excess, m.direction = hopeless, sign(m.Value)
			m.Text = "sounded " + Interval(int(m.Value))
		}
		out = append(out, m)
	}
	return out
}

func noBreak(c Case, r scores.Rule) []Measure {
	kinds := []ear.EventKind{ear.Break}
	if !c.asks(scores.Undertone) {
		kinds = append(kinds, ear.Undertone)
	}
	return tones(c, func(p playedNote) Measure {
		return longest(c, p, "Breaks", "no break", r.Limit, kinds...)
	})
}

func undertone(c Case, r scores.Rule) []Measure {
	return tones(c, func(p playedNote) Measure {
		return longest(c, p, "Undertone", "no lower note under it", r.Limit, ear.Undertone)
	})
}

func noGap(c Case, r scores.Rule) []Measure {
	return tones(c, func(p playedNote) Measure { return longest(c, p, "Gaps", "no gap", r.Limit, ear.Gap) })
}

// longest is the longest event of some kinds in a note.
func longest(c Case, p playedNote, label, wanted string, limit float64, kinds ...ear.EventKind) Measure {
	m := Measure{
		Label:  label,
		Limit:  limit,
		Text:   "none",
		Wanted: wanted,
	}
	count := 0
	for _, e := range eventsOf(c.Analysis, p.n) {
		for _, k := range kinds {
			if e.Kind != k || float64(e.Duration) < limit {
				continue
			}
			count++
			if float64(e.Duration) <= m.Value {
				continue
			}
			m.Value, m.direction = float64(e.Duration), sign(float64(e.Interval))
			m.Text = fmt.Sprintf("%.2f s", e.Duration)
			if e.Interval != 0 {
				m.Text = fmt.Sprintf("%.2f s %s", e.Duration, Interval(e.Interval))
			}
			if k == ear.Undertone {
				m.Cause = CauseUndertone
			}
		}
	}
	if count > 1 {
		m.Text = fmt.Sprintf("%d, the longest %s", count, m.Text)
	}
	m.Excess = touched(m.Value, limit)
	return m
}

// centre allows for what the tube itself does before the player is blamed.
func centre(c Case, r scores.Rule) []Measure {
	return tones(c, func(p playedNote) Measure {
		limit := easier(c, p, r.Limit, func(l scores.Limits) float64 { return float64(l.Centre) })
		value := float64(p.note.Centre)
		m := Measure{
			Label:     "Centre",
			Value:     value,
			Limit:     limit,
			Text:      FlatOrSharp(p.note.Centre),
			Wanted:    fmt.Sprintf("within ±%.0f cents", limit),
			Trust:     p.note.Distrust.Pitch,
			direction: sign(value),
		}
		if own := float64(c.Instrument.Tendency(p.target.Target)); own*value > 0 && math.Abs(own) >= leastAllowance {
			allowed := math.Min(math.Abs(own), limit)
			m.Excess = math.Max(perfect, (math.Abs(value)-allowed)/limit)
			m.Wanted += fmt.Sprintf(
				", and %.0f more: this note tends %s",
				allowed,
				map[bool]string{true: "sharp", false: "flat"}[own > 0],
			)
		}
		return m
	})
}

const leastAllowance = 5 // cents: less is nobody's matter

// easier is the limit a hard note is judged by: that of one stage before.
func easier(c Case, p playedNote, limit float64, of func(scores.Limits) float64) float64 {
	if !p.target.Hard {
		return limit
	}
	return math.Max(limit, of(c.Score.HardLimits))
}

func steadiness(c Case, r scores.Rule) []Measure {
	return tones(c, func(p playedNote) Measure {
		limit := easier(c, p, r.Limit, func(l scores.Limits) float64 { return float64(l.Waver) })
		return Measure{
			Label:     "Steadiness",
			Value:     float64(p.note.Steadiness),
			Limit:     limit,
			Text:      fmt.Sprintf("wavers ±%.0f cents", p.note.Steadiness),
			Wanted:    fmt.Sprintf("at most ±%.0f cents", limit),
			Trust:     p.note.Distrust.Pitch,
			direction: 1,
		}
	})
}

// ownCentre is how far a buzz strays from itself.
func ownCentre(c Case, r scores.Rule) (out []Measure) {
	for n, t := range c.Score.Targets() {
		note := c.Analysis.Notes[n]
		if !note.Played || t.Phase == scores.Sing {
			continue
		}
		strays := math.Max(float64(note.Steadiness), math.Abs(note.Drift)*float64(note.Sounding)/2)
		out = append(out, Measure{
			Label:     "Holds its own pitch",
			Note:      n,
			Value:     strays,
			Limit:     r.Limit,
			Text:      fmt.Sprintf("strays ±%.0f cents", strays),
			Wanted:    fmt.Sprintf("within ±%.0f cents of itself", r.Limit),
			Trust:     note.Distrust.Pitch,
			direction: 1,
		})
	}
	return out
}

func held(c Case, r scores.Rule) []Measure {
	return tones(c, func(p playedNote) Measure {
		beats, asked := c.Score.TempoBPM.Beats(p.note.Sounding), float64(p.target.Beats)
		allowed := math.Max((1-r.Limit)*asked, float64(c.Score.TempoBPM.Beats(startAndEnd)))
		return Measure{
			Label:     "Held",
			Value:     float64(beats),
			Limit:     asked - allowed,
			Text:      fmt.Sprintf("%.1f of %.0f beats", min(beats, p.target.Beats), p.target.Beats),
			Wanted:    fmt.Sprintf("at least %.1f beats", asked-allowed),
			Excess:    max(perfect, asked*(1-p.note.HeldRatio)/allowed),
			direction: -1,
		}
	})
}

// startAndEnd is what the start and the end of any note may take of its beats,
// however short they are.
const startAndEnd music.Seconds = 0.12

func holdTime(c Case, r scores.Rule) []Measure {
	return tones(c, func(p playedNote) Measure {
		held := float64(p.note.Sounding)
		return Measure{
			Label:     "Held",
			Value:     held,
			Limit:     r.Limit,
			Text:      fmt.Sprintf("held %.1f s", held),
			Wanted:    fmt.Sprintf("at least %.1f s", r.Limit),
			Excess:    atLeast(held, r.Limit),
			direction: -1,
		}
	})
}

func drift(c Case, r scores.Rule) []Measure {
	return tones(c, func(p playedNote) Measure {
		return Measure{
			Label:     "Drift",
			Value:     p.note.Drift,
			Limit:     r.Limit,
			Text:      drifts(p.note.Drift),
			Wanted:    fmt.Sprintf("at most %.0f cents a second", r.Limit),
			Trust:     p.note.Distrust.Pitch,
			direction: sign(p.note.Drift),
		}
	})
}

func drifts(perSecond float64) string {
	switch {
	case perSecond > 0.5:
		return fmt.Sprintf("rises %.0f cents a second", perSecond)
	case perSecond < -0.5:
		return fmt.Sprintf("sinks %.0f cents a second", -perSecond)
	}
	return "stays level"
}

// response is not measured in a recording made without our click.
func response(c Case, r scores.Rule) []Measure {
	if c.FreeStart {
		return nil
	}
	return beatsOf(c, r, "Start", tones)
}

func timing(c Case, r scores.Rule) []Measure {
	return beatsOf(
		c,
		r,
		"On the beat",
		func(c Case, take func(playedNote) Measure) []Measure { return each(c, take, scores.Play) },
	)
}

func beatsOf(c Case, r scores.Rule, label string, walk func(Case, func(playedNote) Measure) []Measure) []Measure {
	return walk(c, func(p playedNote) Measure {
		return Measure{
			Label:     label,
			Value:     float64(p.note.Response),
			Limit:     r.Limit,
			Text:      lateOrEarly(p.note.Response),
			Wanted:    "within " + milliseconds(music.Seconds(r.Limit)),
			Trust:     p.note.Distrust.Time,
			direction: sign(float64(p.note.Response)),
		}
	})
}

func scoop(c Case, r scores.Rule) []Measure {
	return tones(c, func(p playedNote) Measure {
		text := "starts at its pitch"
		if s := float64(p.note.Scoop); math.Abs(s) > r.Limit/3 {
			text = fmt.Sprintf(
				"starts %.0f cents %s",
				math.Abs(s),
				map[bool]string{true: "too high", false: "too low"}[s > 0],
			)
		}
		return Measure{
			Label:     "First moment",
			Value:     float64(p.note.Scoop),
			Limit:     r.Limit,
			Text:      text,
			Wanted:    fmt.Sprintf("within %.0f cents of the note", r.Limit),
			Trust:     p.note.Distrust.Pitch,
			direction: sign(float64(p.note.Scoop)),
		}
	})
}

func taper(c Case, r scores.Rule) []Measure {
	return tones(c, func(p playedNote) Measure {
		return Measure{
			Label:     "Taper",
			Value:     float64(p.note.Decay),
			Limit:     r.Limit,
			Text:      "fades in " + milliseconds(p.note.Decay),
			Wanted:    "at least " + milliseconds(music.Seconds(r.Limit)),
			Excess:    atLeast(float64(p.note.Decay), r.Limit),
			Trust:     p.note.Distrust.Level,
			direction: -1,
		}
	})
}

func endBend(c Case, r scores.Rule) []Measure {
	return tones(c, func(p playedNote) Measure {
		falls := math.Max(0, -float64(p.note.EndBend))
		return Measure{
			Label:     "Pitch at the end",
			Value:     falls,
			Limit:     r.Limit,
			Text:      fmt.Sprintf("falls %.0f cents", falls),
			Wanted:    fmt.Sprintf("falls %.0f cents at most", r.Limit),
			Excess:    max(perfect, falls/r.Limit),
			Trust:     p.note.Distrust.Pitch,
			direction: 1,
		}
	})
}

// change is how long it took to come from the note before, where nothing lies
// between.
func change(c Case, r scores.Rule) []Measure {
	targets := c.Score.Targets()
	var out []Measure
	for _, m := range tones(c, func(p playedNote) Measure {
		limit := easier(c, p, r.Limit, func(l scores.Limits) float64 { return float64(l.ChangeTime) })
		return Measure{
			Label:     "Change",
			Value:     float64(p.note.Change),
			Limit:     limit,
			Text:      "took " + milliseconds(p.note.Change),
			Wanted:    "at most " + milliseconds(music.Seconds(limit)),
			Excess:    max(perfect, float64(p.note.Change)/limit),
			direction: 1,
		}
	}) {
		if follows(targets, m.Note) {
			out = append(out, m)
		}
	}
	return out
}

// follows reports whether nothing lies between a target and the one before.
func follows(targets []scores.Segment, n int) bool {
	return n > 0 && targets[n].StartBeat <= targets[n-1].StartBeat+targets[n-1].Beats+0.001
}

func landing(c Case, r scores.Rule) []Measure {
	return landed(c, func(p playedNote) Measure {
		return Measure{
			Label:     "Landing",
			Value:     float64(p.note.Centre),
			Limit:     r.Limit,
			Text:      FlatOrSharp(p.note.Centre),
			Wanted:    fmt.Sprintf("within ±%.0f cents", r.Limit),
			Trust:     p.note.Distrust.Pitch,
			direction: sign(float64(p.note.Centre)),
		}
	})
}

func settle(c Case, r scores.Rule) []Measure {
	return landed(c, func(p playedNote) Measure {
		return Measure{
			Label:     "Settles",
			Value:     float64(p.note.Settle),
			Limit:     r.Limit,
			Text:      "in " + milliseconds(p.note.Settle),
			Wanted:    "within " + milliseconds(music.Seconds(r.Limit)),
			Excess:    max(perfect, float64(p.note.Settle)/r.Limit),
			Trust:     p.note.Distrust.Pitch,
			direction: 1,
		}
	})
}

// landed measures the notes that another one leads to.
func landed(c Case, take func(playedNote) Measure) (out []Measure) {
	targets := c.Score.Targets()
	for _, m := range tones(c, take) {
		if follows(targets, m.Note) {
			out = append(out, m)
		}
	}
	return out
}

func noTongue(c Case, _ scores.Rule) (out []Measure) {
	for _, p := range c.played(scores.Play, scores.Buzz) {
		if p.target.Articulation != scores.Slurred {
			continue
		}
		touches := 0
		if p.note.Start == "tongue" || p.note.Start == "silence" {
			touches++
		}
		for _, e := range eventsOf(c.Analysis, p.n) {
			if e.Kind == ear.Tongue {
				touches++
			}
		}
		m := Measure{
			Label:     "Slur",
			Note:      p.n,
			Value:     float64(touches),
			Text:      "slurred",
			Wanted:    "the tongue stays out",
			Excess:    countOf(touches),
			direction: 1,
		}
		if touches > 0 {
			m.Text = "tongued again"
		}
		out = append(out, m)
	}
	return out
}

func sung(c Case, r scores.Rule) (out []Measure) {
	for n, t := range c.Score.Targets() {
		if t.Phase != scores.Sing {
			continue
		}
		note := c.Analysis.Notes[n]
		m := Measure{
			Label:     "Sung",
			Note:      n,
			Value:     float64(note.Centre),
			Limit:     r.Limit,
			Text:      "sung " + FlatOrSharp(note.Centre),
			Wanted:    fmt.Sprintf("within ±%.0f cents, in any octave", r.Limit),
			Trust:     note.Distrust.Pitch,
			direction: sign(float64(note.Centre)),
		}
		if !note.Played {
			m.Text, m.Excess, m.direction, m.Trust = "not sung", hopeless, -1, ""
		}
		out = append(out, m)
	}
	return out
}

func deadSpot(c Case, r scores.Rule) []Measure {
	return slides(c, func(s ear.Slide) Measure {
		return Measure{
			Label:     "Dead spot",
			Value:     float64(s.DeadSpot),
			Limit:     r.Limit,
			Text:      "silent for " + milliseconds(s.DeadSpot),
			Wanted:    "at most " + milliseconds(music.Seconds(r.Limit)),
			Excess:    max(perfect, float64(s.DeadSpot)/r.Limit),
			direction: 1,
		}
	})
}

func travel(c Case, r scores.Rule) []Measure {
	return slides(c, func(s ear.Slide) Measure {
		return Measure{
			Label:     "Slides",
			Value:     s.Travel,
			Limit:     r.Limit,
			Text:      fmt.Sprintf("%.0f %% of the way", 100*s.Travel),
			Wanted:    fmt.Sprintf("at least %.0f %%", 100*r.Limit),
			Excess:    atLeast(s.Travel, r.Limit),
			direction: -1,
		}
	})
}

// slides measures sliding notes, which have no single right note.
func slides(c Case, of func(ear.Slide) Measure) (out []Measure) {
	for n, note := range c.Analysis.Notes {
		if note.Played && note.Slide != nil {
			m := of(*note.Slide)
			m.Note = n
			out = append(out, m)
		}
	}
	return out
}

func pulseRate(c Case, r scores.Rule) []Measure {
	var out []Measure
	for _, p := range c.played(scores.Play) {
		if p.note.Pulse == nil {
			continue
		}
		off := p.note.Pulse.Rate/p.note.Pulse.Asked - 1
		m := Measure{
			Label:     "Pulses",
			Note:      p.n,
			Value:     off,
			Limit:     r.Limit,
			Text:      fmt.Sprintf("%.1f a second", p.note.Pulse.Rate),
			Wanted:    fmt.Sprintf("%.1f a second, within %.0f %%", p.note.Pulse.Asked, 100*r.Limit),
			Trust:     p.note.Distrust.Level,
			direction: sign(off),
		}
		if p.note.Pulse.Rate == 0 {
			m.Text, m.Excess, m.direction = "no pulses heard", hopeless, -1
		}
		out = append(out, m)
	}
	return out
}

// shown are the measures of tones that inform without being judged in this
// step.
func shown(c Case) (out []Measure) {
	add := func(n int, key scores.MeasureKey, label string, value float64, text string) {
		if !c.asks(key) {
			out = append(out, Measure{
				Key:    key,
				Label:  label,
				Note:   n,
				Value:  value,
				Text:   text,
				Within: true,
			})
		}
	}
	for _, p := range c.played(scores.Play) {
		add(p.n, scores.Centre, "Centre", float64(p.note.Centre), FlatOrSharp(p.note.Centre))
		add(p.n, scores.Drift, "Drift", p.note.Drift, drifts(p.note.Drift))
		add(p.n, "level", "Loudness", p.note.LevelSD, fmt.Sprintf("varies %.1f dB", p.note.LevelSD))
		if !c.FreeStart {
			add(p.n, scores.Response, "Start", float64(p.note.Response), lateOrEarly(p.note.Response))
		}
	}
	return out
}

func (c Case) asks(key scores.MeasureKey) bool {
	for _, r := range c.Score.Rules {
		if r.Measure == key {
			return true
		}
	}
	return false
}

func sign(x float64) int {
	switch {
	case x < 0:
		return -1
	case x > 0:
		return 1
	}
	return 0
}

// Register is where in an instrument's beginner range a note lies.
type Register string

const (
	LowRegister  Register = "low"
	MidRegister  Register = "middle"
	HighRegister Register = "high"
)

// RegisterOf returns the third of the beginner range that a sounding note lies
// in.
func RegisterOf(i instrument.Instrument, m music.MIDI) Register {
	switch third := (i.Beginner.To - i.Beginner.From) / 3; {
	case m < i.Beginner.From+third:
		return LowRegister
	case m > i.Beginner.To-third:
		return HighRegister
	}
	return MidRegister
}
