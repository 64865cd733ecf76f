package ear

import (
	"slices"

	"earlychorus/core/explain"
	"earlychorus/core/music"
)

// hiddenBy is the doubt from which on the tongue is hardly heard: the room rings over it.
const hiddenBy = 0.5

// partUnheard parts a note on the beats where the tongue was not heard, if elsewhere it was
// hardly heard either: of what a room hides nothing can be told. ok is false where there is
// nothing of it.
func (l *listening) partUnheard(plateaus []plateau, story explain.Story) (out []plateau, ok bool) {
	targets := l.Score.Targets()
	out = slices.Clone(plateaus)
	late := music.Seconds(0) // of the note before that has a start of its own
	for n, a := range story.Accounts {
		if a.Kind.Sounded() {
			late = a.Late
		}
		asked := music.Between(standardPitch, targets[n].Target.Frequency(l.Score.A4Hz))
		if a.Kind != explain.NotTongued || !hardlyHeard(plateaus, asked) {
			continue
		}
		beat := l.Start + l.Score.TempoBPM.Seconds(targets[n].StartBeat) + late
		k := slices.IndexFunc(out, func(p plateau) bool {
			return p.Onset+longEnough/2 < beat && beat < p.Release-longEnough/2
		})
		if near := startsAbout(out, beat); k < 0 && near >= 0 {
			out[near].doubt, ok = 0, true // it was parted there, however softly
		}
		if k >= 0 {
			first, rest := out[k].cut(beat, beat, ByTongue)
			rest.doubt = 1
			out, ok = slices.Replace(out, k, k+1, first, rest), true
		}
	}
	return out, ok
}

// startsAbout is which plateau is parted by the tongue about a moment; -1 for none.
func startsAbout(plateaus []plateau, at music.Seconds) int {
	return slices.IndexFunc(plateaus, func(p plateau) bool {
		return p.starts == ByTongue && p.Onset > at-longEnough/2 && p.Onset < at+longEnough/2
	})
}

// hardlyHeard reports whether the tongue parted notes of a pitch, and none of them clearly.
func hardlyHeard(plateaus []plateau, pitch music.Cents) bool {
	least, heard := 1., false
	for _, p := range plateaus {
		if p.starts == ByTongue && near(p.pitch, pitch) {
			least, heard = min(least, p.doubt), true
		}
	}
	return heard && least > hiddenBy
}
