package tone

import (
	"math"
	"slices"

	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Why is why a tone cannot be compared; "" where it can.
type Why string

const (
	Unheard       Why = "unheard"        // no note whose tone can be relied on
	TooFew        Why = "too-few"        // earlier takes of these notes
	UnknownDevice Why = "unknown-device" // it is not known what the take came through
	OtherDevice   Why = "other-device"   // the earlier ones came through another microphone
	OtherRoom     Why = "other-room"     // or from another room
	OtherLoudness Why = "other-loudness" // or were louder or softer
)

// Sure is how sure a difference is.
type Sure string

const (
	AsUsual Sure = ""       // within the player's usual spread
	Likely  Sure = "likely" // seldom by chance
	Certain Sure = "sure"   // hardly ever by chance
)

// Change is one quality of a take against the player's own earlier takes.
type Change struct {
	Quality Quality `json:"quality" enum:"clearness,brightness,fullness"`
	Spreads float64 `json:"spreads" doc:"in the usual spread of these notes: above 0 clearer, brighter, fuller"`
	Beyond  int     `json:"beyond" doc:"of the earlier takes, how many this one is clearer (breathier, and so on) than"`
	Sure    Sure    `json:"sure,omitempty" enum:"likely,sure"`
}

// Comparison is a take's tone against the player's own of the last weeks.
type Comparison struct {
	Why     Why      `json:"why_not,omitempty" enum:"unheard,too-few,unknown-device,other-device,other-room,other-loudness"`
	Against int      `json:"against" doc:"earlier takes it was compared with, or that there were of these notes"`
	Changes []Change `json:"changes" nullable:"false"`
}

const (
	// Weeks is how far back the usual spread is looked for: a term's beginner changes.
	Weeks = 4
	// Fewest earlier takes that make a usual spread.
	Fewest = 6
	// A spread from so few takes is itself a guess, so the bounds are wide: three takes in a
	// hundred by chance, and one in two hundred (own trials, TestChanceIsSeldomAChange).
	likely = 2.2
	sure   = 3.2
	// beyondOfLikely is the share of earlier takes that have to lie on the other side.
	beyondOfLikely = 0.9
)

// madToDeviation makes a median absolute deviation a standard deviation.
const madToDeviation = 1.4826

// Compare sets the notes of one take beside a player's earlier ones, which may be of
// any notes, microphones and rooms: what cannot be compared is left out.
func Compare(now, before []Heard) Comparison {
	if len(now) == 0 {
		return Comparison{Why: Unheard, Changes: []Change{}}
	}
	if now[0].Through == "" {
		return Comparison{Why: UnknownDevice, Changes: []Change{}}
	}
	earlier, why, seen := comparable(now, before)
	if len(earlier) < Fewest {
		return Comparison{Why: why, Against: max(seen, len(earlier)), Changes: []Change{}}
	}
	out := Comparison{Against: len(earlier), Changes: []Change{}}
	for _, q := range Qualities() {
		out.Changes = append(out.Changes, changeOf(q, now, earlier))
	}
	return out
}

// comparable returns the earlier notes that can be compared by take, and where those are
// too few, why, and how many takes of these notes there were.
func comparable(now, before []Heard) (takes map[string][]pair, why Why, seen int) {
	takes = map[string][]pair{}
	reasons := map[Why]map[string]bool{}
	all := map[string]bool{}
	for _, b := range before {
		at := slices.IndexFunc(now, func(n Heard) bool { return n.Note == b.Note })
		if at < 0 || b.Take == now[at].Take {
			continue
		}
		all[b.Take] = true
		reason := now[at].unlike(b)
		if reason == "" {
			takes[b.Take] = append(takes[b.Take], pair{now[at], b})
			continue
		}
		if reasons[reason] == nil {
			reasons[reason] = map[string]bool{}
		}
		reasons[reason][b.Take] = true
	}
	// What kept most takes out, where they would have been enough.
	why = TooFew
	most := Fewest - 1
	for _, reason := range []Why{OtherDevice, OtherRoom, OtherLoudness} {
		if n := len(reasons[reason]); n > most {
			why, most = reason, n
		}
	}
	return takes, why, len(all)
}

// pair is a note of this take and the same note of an earlier one.
type pair struct{ now, before Heard }

func changeOf(q Quality, now []Heard, earlier map[string][]pair) Change {
	out := Change{Quality: q}
	usual := map[music.MIDI][]float64{}
	above, below := 0, 0
	for _, pairs := range earlier {
		var gaps []float64
		for _, p := range pairs {
			gaps = append(gaps, p.now.Colour.of(q)-p.before.Colour.of(q))
			usual[p.now.Note] = append(usual[p.now.Note], p.before.Colour.of(q))
		}
		switch gap := dsp.Median(gaps); {
		case gap > 0:
			above++
		case gap < 0:
			below++
		}
	}
	var spreads []float64
	for _, n := range now {
		if values := usual[n.Note]; len(values) >= Fewest {
			spreads = append(spreads, inSpreads(q, n.Colour.of(q), values))
		}
	}
	if len(spreads) == 0 {
		return out // many takes, each of other notes: nothing to hold any of them against
	}
	out.Spreads = dsp.Median(spreads)
	out.Beyond = above
	if out.Spreads < 0 {
		out.Beyond = below
	}
	far := math.Abs(out.Spreads)
	if float64(out.Beyond) < beyondOfLikely*float64(len(earlier)) {
		return out
	}
	switch {
	case far >= sure:
		out.Sure = Certain
	case far >= likely:
		out.Sure = Likely
	}
	return out
}

// inSpreads is how far a value lies from the middle of others, in their spread.
func inSpreads(q Quality, x float64, of []float64) float64 {
	middle := dsp.Median(of)
	gaps := make([]float64, len(of))
	for k, v := range of {
		gaps[k] = math.Abs(v - middle)
	}
	return (x - middle) / max(alike[q], madToDeviation*dsp.Median(gaps))
}
