package synth

import (
	"math/rand/v2"

	"earlychorus/core/audio"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// breathEvery is how many beats of a tune are played in one breath.
const breathEvery music.Beats = 8

// invent plays a tune of one's own: the first five notes, by step or by skip,
// home at the end.
func (p Player) invent(sound audio.Mono, score scores.Score, free scores.Segment, chance *rand.Rand) {
	at, end := free.StartBeat, free.StartBeat+free.Beats
	degree := 0
	for at < end {
		seg := scores.Segment{
			Phase:        scores.Play,
			StartBeat:    at,
			Beats:        min(music.Beats(1+chance.IntN(2)), end-at),
			Target:       p.Instrument.FirstFive[degree],
			Articulation: scores.Tongued,
		}
		if end-at <= 2 {
			seg.Beats, seg.Target = end-at, p.Instrument.Home()
		}
		next := at + seg.Beats
		if int(next/breathEvery) != int(at/breathEvery) && seg.Beats > 1 {
			seg.Beats -= 0.5 // a breath
		}
		p.phrase(sound, score, []scores.Segment{seg}, chance)
		at = next
		degree = min(len(p.Instrument.FirstFive)-1, max(0, degree+chance.IntN(5)-2))
	}
}
