package say

import (
	"math"

	"earlychorus/core/ear"
	"earlychorus/core/explain"
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Reading says a reading's value and its limit in a director's words.
func (t Teller) Reading(m measure.Reading) Spoken {
	out := Spoken{Reading: m, Unsure: doubts[m.Trust]}
	if m.OldText != "" {
		out.Label, out.Text, out.Wanted = m.OldLabel, m.OldText, m.OldWanted
		return out
	}
	r := told{m, t}
	if of, ok := readings[m.Key]; ok {
		out.Label, out.Text, out.Wanted = of.label, of.value(r), of.limit(r)
	}
	if m.Cause == measure.CauseWrongInstrument {
		out.Label, out.Text, out.Wanted = "Part", "every note "+Interval(int(m.Value)), "as written"
	}
	return out
}

// spoken is how a measure is said.
type spoken struct {
	label        string
	value, limit func(told) string
}

func value(format string) func(told) string {
	return func(r told) string { return fmt.Sprintf(format, r.Value) }
}

func limit(format string) func(told) string {
	return func(r told) string { return fmt.Sprintf(format, r.Limit) }
}

func percent(format string, of func(told) float64) func(told) string {
	return func(r told) string { return fmt.Sprintf(format, 100*of(r)) }
}

func valueOf(r told) float64 { return r.Value }
func limitOf(r told) float64 { return r.Limit }

func tune(r told) string   { return FlatOrSharp(music.Cents(r.Value)) }
func onBeat(r told) string { return lateOrEarly(r.Value) }
func within(r told) string { return "within " + milliseconds(r.Limit) }
func atMost(r told) string { return "at most " + milliseconds(r.Limit) }

var readings = map[scores.MeasureKey]spoken{
	measure.Speaks.Key:     {"Sound", speaks, fixed("the note sounds")},
	measure.RightNote.Key:  {"Note", rightNote, told.note},
	measure.NoBreak.Key:    {"Cracks", events, fixed("no cracks")},
	measure.NoChirp.Key:    {"Squeaks", counted("none"), fixed("none")},
	measure.NoGap.Key:      {"Gaps", events, fixed("no gap")},
	measure.Undertone.Key:  {"Lower note first", events, fixed("none")},
	measure.Centre.Key:     {"In tune", tune, centred},
	measure.Landing.Key:    {"Landing", tune, limit("within ±%.0f cents")},
	measure.Steadiness.Key: {"Steadiness", value("wobbles ±%.0f cents"), limit("at most ±%.0f cents")},
	measure.OwnCentre.Key: {
		"Holds its own pitch", value("strays ±%.0f cents"), limit("within ±%.0f cents of itself"),
	},
	measure.Held.Key:      {"Held", held, limit("at least %.1f beats")},
	measure.HoldTime.Key:  {"Held", value("%.1f s"), limit("at least %.1f s")},
	measure.Drift.Key:     {"Drift", drifts, limit("at most %.0f cents a second")},
	measure.PitchEnds.Key: {"From start to end", sinks, limit("within %.0f cents")},
	measure.Level.Key:     {"Loudness", value("varies %.1f dB"), fixed("")},
	measure.LevelEnds.Key: {"Loudness to the end", fades, limit("within %.0f dB")},
	measure.Response.Key:  {"Start", onBeat, within},
	measure.Timing.Key:    {"On the beat", onBeat, within},
	measure.Scoop.Key:     {"First moment", scoops, limit("within %.0f cents of the note")},
	measure.Settle.Key: {
		"Settles", func(r told) string { return "in " + milliseconds(r.Value) }, within,
	},
	measure.Change.Key: {
		"Change", func(r told) string { return "took " + milliseconds(r.Value) }, atMost,
	},
	measure.Taper.Key: {
		"Taper", func(r told) string { return "fades in " + milliseconds(r.Value) }, leastTime,
	},
	measure.EndBend.Key: {
		"Pitch at the end", value("falls %.0f cents"), limit("falls %.0f cents at most"),
	},
	measure.Pace.Key:       {"Tempo", pace, limit("within %.0f %%")},
	measure.TempoDrift.Key: {"Keeps its tempo", drift, limit("within %.0f %% over the phrase")},
	measure.Strokes.Key: {
		"Strokes",
		func(r told) string { return fmt.Sprintf("%.0f of %.0f", r.Value, r.Of) },
		fixed("all of them, none beside"),
	},
	measure.StrokeTiming.Key: {"On the beat", onBeat, within},
	measure.Evenness.Key: {
		"Evenness",
		func(r told) string { return percent("lengths spread by %.0f %%", valueOf)(r) + begun(r) },
		percent("at most %.0f %%", limitOf),
	},
	measure.NoTongue.Key: {"Slur", tongued, fixed("the tongue stays out")},
	measure.Begins.Key: {
		"Begins", func(r told) string { return "half as loud in " + milliseconds(r.Value) }, fixed("as asked"),
	},
	measure.Joins.Key:      {"Note to note", value("dips by %.0f dB"), fixed("tongued, or slurred, as asked")},
	measure.Contrast.Key:   {"Soft and loud", value("%.0f dB apart"), limit("at least %.0f dB")},
	measure.SwellRange.Key: {"Soft to loud", value("%.0f dB"), limit("at least %.0f dB")},
	measure.SwellOrder.Key: {"Shape", shape, fixed("soft, growing, loud, fading, soft")},
	measure.PitchShift.Key: {"Pitch with loudness", withLoud, limit("within %.0f cents")},
	measure.DeadSpot.Key: {
		"Silent spot", func(r told) string { return "silent for " + milliseconds(r.Value) }, atMost,
	},
	measure.Travel.Key: {
		"Slides", percent("%.0f %% of the way", valueOf), percent("at least %.0f %%", limitOf),
	},
	measure.Plateaus.Key:  {"Degrees", found, fixed("every degree")},
	measure.HighAbove.Key: {"High above low", apart, limit("at least %.0f cents")},
	measure.PulseRate.Key: {"Pulses", pulses, pulsesAsked},
	measure.Sung.Key:      {"Sung", sung, limit("within ±%.0f cents, in any octave")},
	measure.Lines.Key:     {"Lines", lines, fixed("every line")},
	measure.AirBursts.Key: {"Air", inRound(air), airAsked},
	measure.AirEven.Key: {
		"Even bursts", inRound(percent("strength spread by %.0f %%", valueOf)), percent("at most %.0f %%", limitOf),
	},
	measure.AirLength.Key: {
		"Out",
		inRound(value("%.1f beats")),
		func(r told) string { return fmt.Sprintf("%.0f beats, give or take half a beat", r.Of) },
	},
	measure.MeterDelay.Key: {
		"Ball up", inBlow(func(r told) string { return "up in " + milliseconds(r.Value) }), within,
	},
	measure.MeterSteady.Key: {
		"Ball still", inBlow(percent("dances by %.0f %%", valueOf)), percent("at most %.0f %%", limitOf),
	},
	measure.TickedItems.Key: {
		"Done", func(r told) string { return fmt.Sprintf("%.0f of %.0f", r.Of-r.Value, r.Of) }, fixed("all of them"),
	},
}

func speaks(r told) string {
	switch {
	case !r.Absent:
		return "sounds"
	case r.Account == explain.NotTongued:
		return "not tongued: the note before went on"
	case r.Account == explain.HeldOver:
		return "the note before went on"
	case r.Account == explain.LeftOut:
		return "left out"
	case r.Account == explain.CutOff:
		return "nothing sounded from here on"
	}
	return "nothing sounded"
}

func rightNote(r told) string {
	if r.Came == 0 {
		return "the right note"
	}
	return fmt.Sprintf("%s, %s", r.came(), Interval(int(r.Value)))
}

func events(r told) string {
	if r.Value == 0 {
		return "none"
	}
	out := fmt.Sprintf("%.2f s", r.Value)
	if r.Came > 0 && r.Came != r.Target {
		out += " to " + r.came()
	}
	if r.Count > 1 {
		out = fmt.Sprintf("%d, the longest %s", r.Count, out)
	}
	return out
}

func counted(none string) func(told) string {
	return func(r told) string {
		if r.Value == 0 {
			return none
		}
		return fmt.Sprintf("%.0f", r.Value)
	}
}

func centred(r told) string {
	out := fmt.Sprintf("within ±%.0f cents", r.Limit)
	if r.Of != 0 {
		tends := "flat"
		if r.Of > 0 {
			tends = "sharp"
		}
		out += fmt.Sprintf(", and %.0f more: this note tends %s", math.Abs(r.Of), tends)
	}
	return out
}

func held(r told) string { return fmt.Sprintf("%.1f of %.0f beats", math.Min(r.Value, r.Of), r.Of) }

func leastTime(r told) string { return "at least " + milliseconds(r.Limit) }

// moves says a signed number by its direction, and nothing for one that hardly is.
func moves(r told, least float64, low, high, none string) string {
	switch {
	case r.Value <= -least:
		return fmt.Sprintf(low, -r.Value)
	case r.Value >= least:
		return fmt.Sprintf(high, r.Value)
	}
	return none
}

func drifts(r told) string {
	return moves(r, 0.5, "sinks %.0f cents a second", "rises %.0f cents a second", "stays level")
}

func sinks(r told) string { return moves(r, 1, "sank %.0f cents", "climbed %.0f cents", "stays level") }

func fades(r told) string { return moves(r, 1, "faded by %.0f dB", "grew by %.0f dB", "stays even") }

func pace(r told) string {
	return moves(r, 1, "%.0f %% slower", "%.0f %% faster", "the tempo asked for")
}

func drift(r told) string {
	return moves(r, 1, "slows down by %.0f %%", "speeds up by %.0f %%", "keeps its tempo")
}

func scoops(r told) string {
	return moves(r, r.Limit/3, "starts %.0f cents too low", "starts %.0f cents too high", "starts at its pitch")
}

func withLoud(r told) string {
	return moves(r, 1, "falls %.0f cents when loud", "rises %.0f cents when loud", "stays where it is")
}

func tongued(r told) string {
	if r.Value > 0 {
		return "tongued again"
	}
	return "slurred"
}

func shape(r told) string {
	return [...]string{
		"grows and fades where it should", "does not begin softer", "does not grow", "does not fade",
		"does not end softer",
	}[max(0, min(4, r.Count))]
}

func found(r told) string { return fmt.Sprintf("%.0f of %.0f found", r.Of-r.Value, r.Of) }

func apart(r told) string {
	if r.Value < 0 {
		return "the low one is higher"
	}
	return fmt.Sprintf("%.0f cents apart", r.Value)
}

func pulses(r told) string {
	if r.Absent {
		return "no pulses heard"
	}
	return fmt.Sprintf("%.1f a second", r.Of*(1+r.Value))
}

func pulsesAsked(r told) string {
	return fmt.Sprintf("%.1f a second, within %.0f %%", r.Of, 100*r.Limit)
}

func sung(r told) string {
	switch {
	case r.Absent:
		return "not sung"
	case r.Cause == measure.CausePlayedInstead:
		return "played, not sung"
	}
	return "sung " + FlatOrSharp(music.Cents(r.Value))
}

func lines(r told) string {
	if r.Value == 0 {
		return "all there"
	}
	return "the line " + lineNames[int(r.Value)] + " is missing"
}

func air(r told) string {
	switch {
	case r.Absent:
		return "no air heard"
	case r.Of > 0:
		return fmt.Sprintf("%.0f bursts", r.Value)
	case r.Value > 1:
		return fmt.Sprintf("stopped %.0f times", r.Value-1)
	}
	return "one stream"
}

func airAsked(r told) string {
	if r.Of == 0 {
		return "one stream without a stop"
	}
	return fmt.Sprintf("%.0f bursts", r.Of)
}

// inRound says which of several rounds of breath is spoken of.
func inRound(says func(told) string) func(told) string {
	return func(r told) string {
		if r.Count == 0 {
			return says(r)
		}
		return fmt.Sprintf("round %d: %s", r.Count, says(r))
	}
}

func inBlow(says func(told) string) func(told) string {
	return func(r told) string {
		if r.Absent {
			return fmt.Sprintf("blow %d: no air in the meter", r.Count)
		}
		return fmt.Sprintf("blow %d: %s", r.Count, says(r))
	}
}

// Doubt says why something cannot be relied on; "" where it can.
func Doubt(d ear.Doubt) string { return doubts[d] }
