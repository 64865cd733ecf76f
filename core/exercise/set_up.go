package exercise

import (
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Set-up check: sitting, feet, hold, hands, the mouth in a mirror; ticked.
var setUp = Kind{
	Key:    "set-up",
	Name:   "Set-up check",
	Group:  scores.SettingUp,
	Ticked: true,
	Why:    "Half a minute here saves five later.",
	Parts:  []Param{onOff("mirror", "With a mirror", true)},
	Says:   func(Values) string { return "sit, feet, hold, hands, mouth" },
	Lay: func(w *writer, v Values) {
		const each music.Beats = 6
		w.tick(scores.PictureSit, "Sit tall at the front of the chair", scores.Ready, each)
		w.tick(scores.PictureFeet, "Both feet flat on the floor", scores.Ready, each)
		w.tick(scores.PictureShoulders, "Shoulders low, elbows free", scores.Ready, each)
		w.tick(scores.PictureHold, holds[w.i.Family], scores.Ready, each)
		if v.on("mirror") {
			w.tick(scores.PictureMouth, mouths[w.i.Family], scores.Ready, each)
		}
		w.judge(measure.TickedItems, 0)
	},
}

// Common practice, no published source.
var holds = map[instrument.Family]string{
	instrument.Flutes:      "Flute level, weight on the left first finger and the right thumb",
	instrument.DoubleReeds: "Fingers curved, their pads over the keys; strap or hook taking the weight",
	instrument.Clarinets:   "Right thumb under its rest, fingers curved over the holes",
	instrument.Saxophones:  "Strap so high that the mouthpiece comes to you",
	instrument.Brass:       "Left hand carries, right hand plays; bell away from the stand",
	instrument.Recorders:   "Left hand on top, fingers flat over the holes",
}

var mouths = map[instrument.Family]string{
	instrument.Flutes:      "In the mirror: a small, even opening in the middle of the lips",
	instrument.DoubleReeds: "In the mirror: lips round the reed like a drawn bag, chin flat",
	instrument.Clarinets:   "In the mirror: chin flat, corners firm, teeth on top of the mouthpiece",
	instrument.Saxophones:  "In the mirror: corners in, chin easy, teeth on top of the mouthpiece",
	instrument.Brass:       "In the mirror: corners firm, middle loose, mouthpiece in the centre",
	instrument.Recorders:   "In the mirror: lips soft round the tip, teeth apart",
}
