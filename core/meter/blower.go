package meter

import (
	"math"
	"math/rand/v2"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Blower is a simulated player at a simulated meter.
type Blower struct {
	Seed     uint64
	Delay    music.Seconds // from the breath to the ball's top; 0 means 0.15 s
	Waver    float64       // how far the ball dances, as a share of its height
	Over     float64       // how far it jumps beyond, as a share
	Learning float64       // share of the delay lost from one blow to the next
	Misses   int           // blows, from the last, that are not made at all
}

const (
	simulatedStep  = music.Seconds(0.02)
	simulatedStand = 0.6
	danceHz        = 2.3
)

// Blow returns the trace of a score.
func (b Blower) Blow(s scores.Score) Trace {
	chance := rand.New(rand.NewPCG(b.Seed, 0xA1B))
	t := Trace{Step: simulatedStep, Height: make([]float64, int(s.Seconds()/simulatedStep))}
	delay := b.Delay
	if delay == 0 {
		delay = 0.15
	}
	var outs []scores.Segment
	for _, seg := range s.Segments {
		if seg.Phase == scores.Out {
			outs = append(outs, seg)
		}
	}
	for _, seg := range outs[:max(0, len(outs)-b.Misses)] {
		from, length := s.TempoBPM.Seconds(seg.StartBeat), s.TempoBPM.Seconds(seg.Beats)
		for n := t.index(from); n < t.index(from+length); n++ {
			since := float64(t.time(n) - from)
			rise := math.Min(1, (since+float64(simulatedStep))/float64(delay))
			over := b.Over * math.Exp(-max(0, since-float64(delay))/0.1)
			t.Height[n] = simulatedStand*rise*(1+over+b.Waver*math.Sin(2*math.Pi*danceHz*since)) +
				0.002*chance.NormFloat64()
		}
		delay *= music.Seconds(1 - b.Learning)
	}
	return t
}

// Choice is a simulated blower offered to anyone without a meter.
type Choice struct {
	Key   string `json:"key"`
	Label string `json:"label"`
}

// StandIns lists them.
func StandIns() []Choice {
	return []Choice{{"prompt", "Prompt and still"}, {"late", "Late, and learning"}, {"dancing", "A dancing ball"}}
}

// NewStandIn returns the blower with the given key; ok is false for an unknown
// one.
func NewStandIn(key string, seed uint64) (b Blower, ok bool) {
	b = Blower{Seed: seed}
	switch key {
	case "prompt":
	case "late":
		b.Delay, b.Learning = 0.55, 0.2
	case "dancing":
		b.Waver = 0.45
	default:
		return Blower{}, false
	}
	return b, true
}
