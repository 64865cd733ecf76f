package exercise

import (
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Set-up check: sitting, feet, hold, hands, the mouth in a mirror; ticked.
var setUp = Kind{
	Key:       "set-up",
	Name:      "Set-up check",
	Group:     scores.SettingUp,
	Ticked:    true,
	Unpitched: true,
	Why:       "Half a minute here saves five later.",
	Parts:     []Param{onOff("mirror", "With a mirror", true)},
	Says:      func(Values) string { return "sit, feet, hold, hands, mouth" },
	Lay: func(w *writer, v Values) {
		const each music.Beats = 6
		w.tick(scores.PictureSit, "Sit tall at the front of the chair", scores.Ready, each)
		w.tick(scores.PictureFeet, "Both feet flat on the floor", scores.Ready, each)
		w.tick(scores.PictureShoulders, "Shoulders low, elbows free", scores.Ready, each)
		w.tick(scores.PictureHold, holdOf(w.i), scores.Ready, each)
		if v.on("mirror") && w.i.IsPitched() {
			w.tick(scores.PictureMouth, mouths[w.i.Family], scores.Ready, each)
		}
		w.judge(measure.TickedItems, 0)
	},
}

// holdOf is how an instrument is held: its own way, or its family's.
func holdOf(i instrument.Instrument) string {
	if own, ok := ownHolds[i.Key]; ok {
		return own
	}
	return holds[i.Family]
}

// Common practice, no published source.
var holds = map[instrument.Family]string{
	instrument.Flutes:      "Hold it level. It rests on your left first finger and your right thumb",
	instrument.DoubleReeds: "Right thumb under its rest, fingers curved, their pads over the keys",
	instrument.Clarinets:   "Right thumb under its rest, fingers curved over the holes",
	instrument.Saxophones:  "Strap so high that the mouthpiece comes to you; right thumb under its hook",
	instrument.Brass:       "Left hand carries, right hand plays; bell away from the stand",
	instrument.NoneYet:     "Hands loose in your lap",
	instrument.Percussion:  "Stand balanced; sticks held loosely, thumbs flat; the pad just below your belt",
	instrument.Recorders:   "Left hand on top, fingers flat over the holes, right thumb under the fourth finger",
}

// ownHolds are those that are not like their family.
var ownHolds = map[string]string{
	"bassoon":       "Sit on the seat strap so that the reed comes to you; left hand high, right hand at the hip",
	"english-horn":  "On its strap, reed coming to you; right thumb under its rest, fingers curved",
	"bass-clarinet": "On its peg or strap, mouthpiece coming to you; fingers curved, no weight on the thumb",
	"alto-clarinet": "On its strap, mouthpiece coming to you; fingers curved, no weight on the thumb",
	"trombone":      "Left hand carries it all; right hand moves the slide with two fingers and the thumb",
	"horn":          "Left hand on the valves, right hand in the bell; bell beside you, not into you",
	"euphonium":     "Across the lap, upright, mouthpiece coming to you; left arm round it, right hand on the valves",
	"euphonium-tc":  "Across the lap, upright, mouthpiece coming to you; left arm round it, right hand on the valves",
	"tuba":          "On its rest or the chair, so high that the mouthpiece comes to you; right hand on the valves",
}

var mouths = map[instrument.Family]string{
	instrument.Flutes:      "In the mirror: a small, even opening in the middle of the lips",
	instrument.DoubleReeds: "In the mirror: lips round the reed like a drawn bag, chin flat",
	instrument.Clarinets:   "In the mirror: chin flat, corners firm, teeth on top of the mouthpiece",
	instrument.Saxophones:  "In the mirror: corners in, chin easy, teeth on top of the mouthpiece",
	instrument.Brass:       "In the mirror: corners firm, middle loose, mouthpiece in the centre",
	instrument.Recorders:   "In the mirror: lips soft round the tip, teeth apart",
}
