package exercise

import (
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Assembly: putting the instrument together, or away, part by part in the order that
// spares what is delicate; ticked.
var assembly = Kind{
	Key:    "assembly",
	Name:   "Together and away",
	Group:  scores.SettingUp,
	Ticked: true,
	Why:    "Most repairs begin at the case. In the right order nothing bends.",
	Parts: []Param{
		choice("way", "Which way", "together", Option{"together", "put together"}, Option{"away", "put away"}),
	},
	Says: func(v Values) string {
		return map[string]string{"together": "put together", "away": "put away"}[v.choice("way")]
	},
	Lay: func(w *writer, v Values) {
		parts := together(w.i)
		if v.choice("way") == "away" {
			parts = away(w.i)
		}
		for _, p := range parts {
			w.tick(p.picture, p.text, scores.Ready, 8)
		}
		w.judge(measure.TickedItems, 0)
	},
}

// part is one thing to do, with what is drawn beside it.
type part struct {
	picture scores.Picture
	text    string
}

// together lists how an instrument is put together (common practice, no published source):
// which part goes to which, where it is held, which way it turns and what is delicate.
func together(i instrument.Instrument) []part {
	out := []part{{scores.PictureCase, "Lay the case flat, the right side up, on the floor or a table; sit down to it"}}
	if own, ok := ownTogether[i.Key]; ok {
		return append(out, own...)
	}
	return append(out, familiesTogether[i.Family]...)
}

// The reed goes on last, and comes off first.
var (
	wetReed = part{scores.PictureReed, "Wet the reed in your mouth while you put the rest together"}
	reedOn  = part{
		scores.PictureReed,
		"Ligature first, then slide the reed in behind it, its tip level; touch only its sides",
	}
	soakReed    = part{scores.PictureWater, "Soak the reed in a bit of water. Three minutes will do"}
	mouthpiece  = part{scores.PictureMouthpiece, "Set the mouthpiece in with a small turn; never push, never knock it"}
	lineUpSmall = "; hold it where there are no keys, and turn a little to and fro"
)

var familiesTogether = map[instrument.Family][]part{
	instrument.Flutes: {
		{scores.PictureJoin, "Headjoint into the body: hold the body at its plain end" + lineUpSmall},
		{scores.PictureLineUp, "Turn it until the mouth hole is in line with the row of keys"},
		{scores.PictureJoin, "Footjoint onto the body" + lineUpSmall},
		{scores.PictureLineUp, "Its rod points to the middle of the last key of the body"},
	},
	instrument.Clarinets: {
		wetReed,
		{scores.PictureJoin, "Bell onto the lower joint; hold it low, away from the long keys, and turn gently"},
		{
			scores.PictureJoin,
			"Upper joint onto the lower: press the upper joint's rings so that its bridge key lifts, turn gently",
		},
		{scores.PictureLineUp, "The two halves of the bridge key are in line; let the rings go"},
		{scores.PictureJoin, "Barrel on, wider end down. Then the mouthpiece, its flat side over the thumb hole"},
		reedOn,
	},
	instrument.Saxophones: {
		{scores.PictureStrap, "Strap round your neck before you lift anything"},
		wetReed,
		{
			scores.PictureMouthpiece,
			"Mouthpiece onto the cork of the neck; hold the neck at its bend, off the octave key",
		},
		reedOn,
		{scores.PictureLift, "Lift the body by its bell, two hands, and hook it to the strap"},
		{scores.PictureJoin, "Loosen the neck's screw. Turn the neck in; do not bend the ring. Tighten it a little"},
	},
	instrument.DoubleReeds: {
		soakReed,
		{scores.PictureJoin, "Bell onto the lower joint; where there is a bridge, lift it"},
		{scores.PictureJoin, "Upper joint onto the lower: hold both where there are few keys, small turns, no rocking"},
		{scores.PictureLineUp, "The bridge keys are in line, none on top of another"},
		{scores.PictureReed, "Reed in last, all the way, held by its cork"},
	},
	instrument.Brass: {
		{scores.PictureLift, "Lift it out with both hands, by its body, not by a slide or a valve"},
		mouthpiece,
		{scores.PictureOil, "Move each valve: is it free? If not, a few drops of oil before you play"},
		{scores.PictureAsk, "Never force a part that sticks: bring it to your director"},
	},
	instrument.Recorders: {
		{scores.PictureJoin, "Foot and head onto the middle, each with a small turn, never rocked"},
		{scores.PictureLineUp, "The window is in line with the holes; turn the foot to where your little finger falls"},
	},
}

// ownTogether are those that are not like their family.
var ownTogether = map[string][]part{
	"piccolo": {
		{scores.PictureJoin, "Headjoint into the body" + lineUpSmall},
		{scores.PictureLineUp, "Turn it until the mouth hole is in line with the row of keys"},
	},
	"alto-clarinet": lowClarinet,
	"bass-clarinet": lowClarinet,
	"english-horn": {
		soakReed,
		{scores.PictureStrap, "Strap on, if you use one"},
		{scores.PictureJoin, "Bell onto the lower joint, its key lifted"},
		{scores.PictureJoin, "Upper joint onto the lower: small turns, bridge keys in line"},
		{scores.PictureJoin, "Crook in last, held at its thick end, then the reed"},
	},
	"bassoon": {
		soakReed,
		{scores.PictureStrap, "Seat strap across the chair, its hook to the right"},
		{
			scores.PictureJoin,
			"Wing joint into the small hole of the boot, with small turns. Its curve goes round the large hole",
		},
		{scores.PictureJoin, "Long joint into the larger hole, beside it; lock the two together where there is a lock"},
		{scores.PictureJoin, "Bell on top; press its key so that the pad is lifted over the joint"},
		{scores.PictureLift, "Two hands: lift it to the seat strap"},
		{
			scores.PictureReed,
			"Crook in with two hands, held at its thick end. Keep clear of the whisper key. Then the reed",
		},
	},
	"trombone": {
		{scores.PictureSlide, "Lock the slide before you lift it. Stand its end on your shoe, not on the floor"},
		{scores.PictureJoin, "Hold slide and bell like an L. Turn the nut until it is snug"},
		mouthpiece,
		{scores.PictureLift, "Hold it by its braces, left hand; unlock only when you are ready to play"},
	},
	"horn": {
		{scores.PictureLift, "Lift it out with both hands, by its round tubes, never by a slide"},
		{scores.PictureJoin, "A bell that comes off: lay it on flat, turn it lightly, and back if it catches"},
		mouthpiece,
		{scores.PictureOil, "Move each lever: is it free? If not, tell your director"},
	},
}

var lowClarinet = []part{
	wetReed,
	{scores.PictureJoin, "Where it has two joints: lower into upper, bridge keys lifted and in line, small turns"},
	{scores.PictureJoin, "Bell on, its key lifted; then the neck, turned in straight"},
	{scores.PictureStrap, "Peg out, or strap on, before it is in front of you"},
	{scores.PictureMouthpiece, "Mouthpiece onto the neck, flat side toward you"},
	reedOn,
}

// away lists how it goes back (common practice, no published source).
func away(i instrument.Instrument) (out []part) {
	add := func(on bool, picture scores.Picture, text string) {
		if on {
			out = append(out, part{picture, text})
		}
	}
	brass := i.Family == instrument.Brass
	slide, single := i.Key == "trombone", i.Family == instrument.Clarinets || i.Family == instrument.Saxophones
	double := i.Family == instrument.DoubleReeds
	add(single, scores.PictureReed, "Reed off first: wipe it and lay it flat in its guard")
	add(double, scores.PictureReed, "Reed out first: blow it dry, then into a case that lets air in")
	add(brass, scores.PictureWater, "Empty the water: every key open, blow without buzzing")
	add(slide, scores.PictureSlide, "Lock the slide")
	add(
		brass,
		scores.PictureMouthpiece,
		"Take the mouthpiece out with a small turn; if it sticks, ask, never pull hard",
	)
	add(!brass, scores.PictureJoin, "Take it apart in the order opposite to putting it together, with small turns")
	add(!brass, scores.PictureDry, "Draw the cloth through each part, from the wide end, till it comes out dry")
	add(brass, scores.PictureDry, "Wipe off finger marks with a soft cloth")
	add(
		true,
		scores.PictureCase,
		"Each part in its own bed; nothing that presses on keys or slides in the lid; close the latches",
	)
	return out
}
