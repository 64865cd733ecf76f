package verdict

import (
	"fmt"
	"math"

	"earlychorus/core/dsp"
	"earlychorus/core/ear"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// whole is a measure of the step rather than of one of its notes.
func whole(m Measure) []Measure {
	m.Note = WholeStep
	return []Measure{m}
}

// pace is how much longer than written each note of a run lasts, 1 being exact,
// and when it began. Only notes that follow one another have a pace.
func pace(c Case) (at, ratio []float64) {
	targets := c.Score.Targets()
	for n := 1; n < len(targets); n++ {
		before, now := c.Analysis.Notes[n-1], c.Analysis.Notes[n]
		if !follows(targets, n) || !before.Played || !now.Played || targets[n].Phase == scores.Sing {
			continue
		}
		asked := float64(c.Score.TempoBPM.Seconds(targets[n].StartBeat - targets[n-1].StartBeat))
		at = append(at, float64(before.Onset))
		ratio = append(ratio, float64(now.Onset-before.Onset)/asked)
	}
	return at, ratio
}

const fewestForPace = 4

// tempoDrift is the slope of the notes' lengths over the step, per cent.
func tempoDrift(c Case, r scores.Rule) []Measure {
	at, ratio := pace(c)
	if len(at) < fewestForPace {
		return nil
	}
	percent := -100 * dsp.TheilSen(at, ratio) * (at[len(at)-1] - at[0])
	text := "keeps its tempo"
	if math.Abs(percent) >= 1 {
		text = fmt.Sprintf(
			"%s by %.0f %%",
			map[bool]string{true: "speeds up", false: "slows down"}[percent > 0],
			math.Abs(percent),
		)
	}
	return whole(Measure{
		Label:     "Tempo",
		Value:     percent,
		Limit:     r.Limit,
		Text:      text,
		Wanted:    fmt.Sprintf("within %.0f %% over the step", r.Limit),
		direction: sign(percent),
	})
}

// evenness is the spread of the notes' lengths.
func evenness(c Case, r scores.Rule) []Measure {
	_, ratio := pace(c)
	if len(ratio) < fewestForPace {
		return nil
	}
	var mean, squares float64
	for _, x := range ratio {
		mean += x / float64(len(ratio))
	}
	for _, x := range ratio {
		squares += (x - mean) * (x - mean) / float64(len(ratio))
	}
	spread := math.Sqrt(squares) / mean
	return whole(Measure{
		Label:     "Evenness",
		Value:     spread,
		Limit:     r.Limit,
		Text:      fmt.Sprintf("lengths spread by %.0f %%", 100*spread),
		Wanted:    fmt.Sprintf("at most %.0f %%", 100*r.Limit),
		Excess:    max(perfect, spread/r.Limit),
		direction: 1,
	})
}

// stretches are a swell's five: very soft, growing, very loud, fading, very soft.
const stretches = 5

// swellOf returns a swell's notes; ok is false when one did not sound or its
// loudness cannot be relied on, which is then told by other measures.
func swellOf(c Case) (notes []ear.Note, distrust string, ok bool) {
	if len(c.Analysis.Notes) != stretches {
		return nil, "", false
	}
	for _, n := range c.Analysis.Notes {
		if !n.Played {
			return nil, "", false
		}
		distrust = n.Distrust.Level
	}
	return c.Analysis.Notes, distrust, true
}

func swellRange(c Case, r scores.Rule) []Measure {
	n, distrust, ok := swellOf(c)
	if !ok {
		return nil
	}
	db := float64(n[2].Level - (n[0].Level+n[4].Level)/2)
	return whole(Measure{
		Label:     "Soft to loud",
		Value:     db,
		Limit:     r.Limit,
		Text:      fmt.Sprintf("%.0f dB", db),
		Wanted:    fmt.Sprintf("at least %.0f dB", r.Limit),
		Excess:    atLeast(db, r.Limit),
		Trust:     distrust,
		direction: -1,
	})
}

func swellOrder(c Case, _ scores.Rule) []Measure {
	n, distrust, ok := swellOf(c)
	if !ok {
		return nil
	}
	wrong := ""
	count := 0
	for _, s := range []struct {
		right bool
		says  string
	}{
		{n[0].Level < n[2].Level, "does not begin softer"},
		{n[1].LevelTo > n[1].LevelFrom, "does not grow"},
		{n[3].LevelTo < n[3].LevelFrom, "does not fade"},
		{n[4].Level < n[2].Level, "does not end softer"},
	} {
		if !s.right {
			count++
			wrong = s.says
		}
	}
	m := Measure{
		Label:     "Shape",
		Value:     float64(count),
		Text:      "grows and fades where it should",
		Wanted:    "soft, growing, loud, fading, soft",
		Excess:    countOf(count),
		Trust:     distrust,
		direction: -1,
	}
	if count > 0 {
		m.Text = wrong
	}
	return whole(m)
}

func pitchShift(c Case, r scores.Rule) []Measure {
	n, _, ok := swellOf(c)
	if !ok {
		return nil
	}
	shift := n[2].Centre - (n[0].Centre+n[4].Centre)/2
	text := "stays where it is"
	if math.Abs(float64(shift)) >= 1 {
		text = fmt.Sprintf(
			"%s %.0f cents when loud",
			map[bool]string{true: "rises", false: "falls"}[shift > 0],
			math.Abs(float64(shift)),
		)
	}
	return whole(Measure{
		Label:     "Pitch with loudness",
		Value:     float64(shift),
		Limit:     r.Limit,
		Text:      text,
		Wanted:    fmt.Sprintf("within %.0f cents", r.Limit),
		Trust:     n[2].Distrust.Pitch,
		direction: sign(float64(shift)),
	})
}

// plateaus counts the degrees of a scale that were not found.
func plateaus(c Case, _ scores.Rule) []Measure {
	missing, all := 0, len(c.Score.Targets())
	for n := range all {
		if !c.Analysis.Notes[n].Played || c.wrong(n) {
			missing++
		}
	}
	return whole(Measure{
		Label:     "Degrees",
		Value:     float64(missing),
		Text:      fmt.Sprintf("%d of %d found", all-missing, all),
		Wanted:    "every degree",
		Excess:    countOf(missing),
		direction: -1,
	})
}

// highAbove is how far the high sound lies above the low one.
func highAbove(c Case, r scores.Rule) []Measure {
	targets := c.Score.Targets()
	low, high := 0, 0
	for n := range targets {
		if !c.Analysis.Notes[n].Played {
			return nil // told by the note that did not speak
		}
		if targets[n].Target < targets[low].Target {
			low = n
		}
		if targets[n].Target > targets[high].Target {
			high = n
		}
	}
	cents := float64(music.Between(c.Analysis.Notes[low].F0, c.Analysis.Notes[high].F0))
	m := Measure{
		Label:     "High above low",
		Value:     cents,
		Limit:     r.Limit,
		Text:      fmt.Sprintf("%.0f cents apart", cents),
		Wanted:    fmt.Sprintf("at least %.0f cents", r.Limit),
		Excess:    atLeast(cents, r.Limit),
		direction: -1,
	}
	if cents < 0 {
		m.Text = "the low one is higher"
	}
	return whole(m)
}

// wrongInstrument finds the take whose every note lies off by the same interval,
// where the tube itself would not lead: another instrument is set, or another's
// fingering chart was read.
func wrongInstrument(c Case) (Measure, bool) {
	shift, count := 0, 0
	notes := map[music.MIDI]bool{}
	for n, t := range c.Score.Targets() {
		note := c.Analysis.Notes[n]
		if t.Phase != scores.Play {
			return Measure{}, false
		}
		if !note.Played {
			continue
		}
		off := int(note.MIDI - t.Target)
		if off%12 == 0 || count > 0 && off != shift || c.onItsTube(t.Target, note.MIDI) {
			return Measure{}, false
		}
		shift, count = off, count+1
		notes[t.Target] = true
	}
	if len(notes) < 2 {
		return Measure{}, false
	}
	return Measure{
		Key:       scores.RightNote,
		Cause:     CauseWrongInstrument,
		Label:     "Instrument",
		Note:      WholeStep,
		Value:     float64(shift),
		Judged:    true,
		Excess:    hopeless,
		Text:      "every note sounded " + Interval(shift),
		Wanted:    "the notes of this instrument",
		direction: sign(float64(shift)),
	}, true
}

// onItsTube reports whether a note is one that the fingering of another gives.
func (c Case) onItsTube(target, note music.MIDI) bool {
	for _, p := range c.Instrument.Partials(target) {
		if p.Note == note {
			return true
		}
	}
	return false
}
