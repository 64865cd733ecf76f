package say

import (
	"maps"
	"slices"

	"earlychorus/core/ear"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/verdict"
)

// Lines is everything this package can say to the player of an instrument, on an example:
// each cause both ways, each reason why a take cannot be told, the tips that answer no
// fault. It is for whoever reads all the words through.
func (t Teller) Lines() []string {
	asked, came := t.Instrument.FirstFive[0], t.Instrument.FirstFive[1]
	t.called = map[music.MIDI]string{asked: bare(t, asked), came: bare(t, came)}
	var out []string
	for _, cause := range slices.Sorted(maps.Keys(sentences)) {
		for _, way := range []int{-1, 1} {
			r := measure.Reading{
				Cause:  cause,
				Note:   0,
				Target: asked,
				Came:   came,
				Way:    way,
				Value:  float64(way) * 3,
				Of:     8,
				Count:  2,
			}
			out = append(out, sentences[cause](told{r, t}))
		}
	}
	for _, why := range []verdict.Why{verdict.WhySilent, verdict.WhyNobody, verdict.WhyCut, verdict.WhyNoisy} {
		out = append(out, t.whyNot(verdict.Verdict{Why: why}))
	}
	for _, doubt := range slices.Sorted(maps.Keys(doubts)) {
		out = append(out, t.whyNot(verdict.Verdict{
			Why:      verdict.WhyUnsure,
			Deciding: &measure.Reading{Target: asked, Trust: ear.Doubt(doubt)},
		}))
	}
	for _, key := range slices.Sorted(maps.Keys(ownTips)) {
		out = append(out, ownTips[key])
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// bare is a note's name without its octave.
func bare(t Teller, m music.MIDI) string {
	return t.naming().Name(t.spell(m))
}
