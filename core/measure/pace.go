package measure

import "earlychorus/core/scores"

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
