package verdict

import (
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// clean takes are told what to enjoy.
var clean = []Tip{
	{"clean-listen", "Clean. Listen back once and remember how it felt."},
	{"clean-soft", "Clean. Try it again a little softer, just as steady."},
}

// advices is the book of tips, special cases before general ones. Directors may
// put their own words in place of any. The advice is common practice, no
// published source.
var advices = []Advice{
	{
		Key:   "recording",
		Cause: CauseRecording,
		Text:  "Sit an arm's length from the microphone, choose a quiet corner and record again.",
	},
	{
		Key:   "wrong-instrument",
		Cause: CauseWrongInstrument,
		Text:  "Every note is off by the same step. Check that your own instrument and its own sheet are set.",
	},
	{Key: "not-done", Cause: CauseNotDone, Text: "Go down the list once more and tick what is left."},

	// The wrong note.
	{
		Key:       "brass-too-high",
		Cause:     CauseWrongNote,
		Family:    instrument.Brass,
		Direction: 1,
		Text:      "You landed on a higher partial. Relax, drop the jaw a little and use {slower}.",
	},
	{
		Key:       "brass-too-low",
		Cause:     CauseWrongNote,
		Family:    instrument.Brass,
		Direction: -1,
		Text:      "You landed on a lower partial. Firm the corners of your mouth and use {faster}.",
	},
	{
		Key:       "clarinet-low",
		Cause:     CauseWrongNote,
		Family:    instrument.Clarinets,
		Direction: -1,
		Text:      "The upper note stayed low. Roll the thumb so that the register key opens while the hole stays covered.",
	},
	{
		Key:       "clarinet-high",
		Cause:     CauseWrongNote,
		Family:    instrument.Clarinets,
		Direction: 1,
		Text:      "The note went up. Take the thumb off the register key and check that every finger seals its hole.",
	},
	{
		Key:       "sax-high",
		Cause:     CauseWrongNote,
		Family:    instrument.Saxophones,
		Direction: 1,
		Text:      "It jumped up an octave. Check the octave key is up, open the throat and use {slower}.",
	},
	{
		Key:       "sax-low",
		Cause:     CauseWrongNote,
		Family:    instrument.Saxophones,
		Direction: -1,
		Text:      "It stayed an octave down. Press the octave key with the thumb, and keep the mouth as it is.",
	},
	{
		Key:       "flute-high",
		Cause:     CauseWrongNote,
		Family:    instrument.Flutes,
		Direction: 1,
		Text:      "It went up an octave. Make the lip opening a little larger and aim the air lower, with {slower}.",
	},
	{
		Key:       "flute-low",
		Cause:     CauseWrongNote,
		Family:    instrument.Flutes,
		Direction: -1,
		Text:      "It stayed an octave down. Make the lip opening smaller, aim across the hole and use {faster}.",
	},
	{
		Key:       "reed-high",
		Cause:     CauseWrongNote,
		Family:    instrument.DoubleReeds,
		Direction: 1,
		Text:      "The note flew up. That is too much air for a low note: relax, drop the jaw and use {slower}.",
	},
	{
		Key:       "reed-low",
		Cause:     CauseWrongNote,
		Family:    instrument.DoubleReeds,
		Direction: -1,
		Text:      "It stayed low. Check the half hole or the octave key, and firm the corners a little.",
	},
	{
		Key:       "recorder-high",
		Cause:     CauseWrongNote,
		Family:    instrument.Recorders,
		Direction: 1,
		Text:      "It squeaked up. Blow gently and cover the thumb hole fully.",
	},
	{
		Key:       "recorder-low",
		Cause:     CauseWrongNote,
		Family:    instrument.Recorders,
		Direction: -1,
		Text:      "It stayed low. Open the thumb hole only a crack, by bending the thumb.",
	},
	{
		Key:   "wrong-note",
		Cause: CauseWrongNote,
		Text:  "Look at the fingering, hear the note once, sing it, then play it.",
	},

	// The note jumps away, or another sounds with it.
	{
		Key:    "brass-break",
		Cause:  CauseBreak,
		Family: instrument.Brass,
		Text:   "Use {even} and keep the corners still: the note jumps when the air does.",
	},
	{
		Key:       "sax-jump-up",
		Cause:     CauseBreak,
		Family:    instrument.Saxophones,
		Register:  LowRegister,
		Direction: 1,
		Text:      "The low note jumped up. Open the throat, think \"oh\", and check that every hole is covered.",
	},
	{
		Key:      "sax-growl",
		Cause:    CauseBreak,
		Family:   instrument.Saxophones,
		Register: HighRegister,
		Text:     "The high note growls. Take a little less mouthpiece and keep the chin easy.",
	},
	{
		Key:       "clarinet-break",
		Cause:     CauseBreak,
		Family:    instrument.Clarinets,
		Direction: 1,
		Text:      "Check that every finger seals its hole: a small leak sends the note up a twelfth.",
	},
	{
		Key:       "bassoon-fly",
		Cause:     CauseBreak,
		Only:      []string{"bassoon"},
		Register:  LowRegister,
		Direction: 1,
		Text:      "The low note flew up. Too much air: drop the jaw, relax and use {slower}.",
	},
	{
		Key:       "flute-break",
		Cause:     CauseBreak,
		Family:    instrument.Flutes,
		Direction: 1,
		Text:      "It jumped up. Keep the lips still and aim the air a little lower.",
	},
	{
		Key:       "recorder-break",
		Cause:     CauseBreak,
		Family:    instrument.Recorders,
		Direction: 1,
		Text:      "It jumped up: blow more gently, and press the pads of the fingers flat over the holes.",
	},
	{
		Key:   "break",
		Cause: CauseBreak,
		Text:  "Cover the holes fully and use {even}; start softly and let the note settle.",
	},

	{
		Key:    "clarinet-undertone",
		Cause:  CauseUndertone,
		Family: instrument.Clarinets,
		Text:   "A lower note sounds under the start. Keep the air and the mouth as for the low note, and press the register key fully.",
	},
	{
		Key:    "brass-undertone",
		Cause:  CauseUndertone,
		Family: instrument.Brass,
		Text:   "A lower partial sounds first. Hear the note before you start, and set the corners for it.",
	},
	{
		Key:   "undertone",
		Cause: CauseUndertone,
		Text:  "A lower note sounds with it. Use {faster} from the very start and keep the mouth as it is.",
	},

	// Nothing sounds, or it stops.
	{
		Key:      "tuba-low",
		Cause:    CauseNoResponse,
		Only:     []string{"tuba"},
		Register: LowRegister,
		Text:     "Low notes need time. Loosen the lips, drop the jaw and fill the tuba with {slower}.",
	},
	{
		Key:    "brass-no-sound",
		Cause:  CauseNoResponse,
		Family: instrument.Brass,
		Text:   "Buzz the note on the mouthpiece for four beats, rest, then play it.",
	},
	{
		Key:    "flute-no-sound",
		Cause:  CauseNoResponse,
		Family: instrument.Flutes,
		Text:   "Find the sound on the headjoint first: roll it a little until it speaks.",
	},
	{
		Key:    "reed-no-sound",
		Cause:  CauseNoResponse,
		Family: instrument.DoubleReeds,
		Text:   "Wet the reed, sound it alone for a moment, then put it back and try again.",
	},
	{
		Key:    "single-reed-no-sound",
		Cause:  CauseNoResponse,
		Family: instrument.Clarinets,
		Text:   "Check that the reed sits straight, and that the lower lip is firm and flat under it.",
	},
	{
		Key:    "sax-no-sound",
		Cause:  CauseNoResponse,
		Family: instrument.Saxophones,
		Text:   "Sound the mouthpiece with the neck first, then the whole instrument; start with the air, not the tongue.",
	},
	{
		Key:   "no-sound",
		Cause: CauseNoResponse,
		Text:  "Breathe on the beat before, let the air go first and the tongue only open the door.",
	},

	{
		Key:   "buzz-gap",
		Cause: CauseGap,
		Group: scores.Buzzing,
		Text:  "The buzz stopped. Blow air through the lips first, then bring them together without stopping the air.",
	},
	{
		Key:    "brass-gap",
		Cause:  CauseGap,
		Family: instrument.Brass,
		Text:   "The buzz stopped. Keep the lips together and let the air carry on, as if you blew through the note.",
	},
	{Key: "gap", Cause: CauseGap, Text: "The air stopped. Take a low, full breath and spread it over all the beats."},

	// Buzzing.
	{
		Key:   "slide",
		Cause: CauseSlide,
		Text:  "Slide more slowly and keep the air going through the place where it stops. Sing the slide first.",
	},
	{
		Key:   "plateaus",
		Cause: CausePlateaus,
		Text:  "Rest on every degree until the tube holds it. Play the scale on the instrument first, then find each note again.",
	},
	{
		Key:   "apart",
		Cause: CauseApart,
		Text:  "Put the two further apart: firm corners and {faster} for high, loose lips and {slower} for low.",
	},
	{
		Key:       "not-sung",
		Cause:     CauseSung,
		Direction: -1,
		Text:      "Hear the note twice, hum it, then sing it out. Any octave will do.",
	},
	{
		Key:   "sung",
		Cause: CauseSung,
		Text:  "Listen again and slide your voice until it melts into the note, then sing it straight.",
	},

	{
		Key:       "brass-landing-high",
		Cause:     CauseLanding,
		Family:    instrument.Brass,
		Direction: 1,
		Text:      "You land above the note. Hear it first and go there with {slower}.",
	},
	{
		Key:       "brass-landing-low",
		Cause:     CauseLanding,
		Family:    instrument.Brass,
		Direction: -1,
		Text:      "You land below the note. Hear it first, set the corners a moment before, and use {faster}.",
	},
	{
		Key:   "landing",
		Cause: CauseLanding,
		Text:  "Hear the far note before you leave the first one. Move the fingers fast and keep the air the same.",
	},

	// Where the pitch lies, and how it holds.
	{
		Key:       "flute-flat",
		Cause:     CauseCentre,
		Family:    instrument.Flutes,
		Direction: -1,
		Text:      "Flat: raise the air a little and hold it up from below; check how far you roll in.",
	},
	{
		Key:       "flute-sharp",
		Cause:     CauseCentre,
		Family:    instrument.Flutes,
		Direction: 1,
		Text:      "Sharp: aim the air lower and relax the lips.",
	},
	{
		Key:       "brass-flat",
		Cause:     CauseCentre,
		Family:    instrument.Brass,
		Direction: -1,
		Text:      "Flat: firm corners and {faster}. If it stays flat when you are warm, push the tuning slide in a little.",
	},
	{
		Key:       "brass-sharp",
		Cause:     CauseCentre,
		Family:    instrument.Brass,
		Direction: 1,
		Text:      "Sharp: relax and let the jaw drop a little. If it stays sharp when you are warm, pull the tuning slide out a little.",
	},
	{
		Key:       "recorder-flat",
		Cause:     CauseCentre,
		Family:    instrument.Recorders,
		Direction: -1,
		Text:      "Flat: a little more air, always even. Warm the head in your hand first.",
	},
	{
		Key:       "recorder-sharp",
		Cause:     CauseCentre,
		Family:    instrument.Recorders,
		Direction: 1,
		Text:      "Sharp: blow more gently, as if warming your hands.",
	},
	{
		Key:       "clarinet-throat",
		Cause:     CauseCentre,
		Family:    instrument.Clarinets,
		Register:  MidRegister,
		Direction: 1,
		Text:      "Sharp in the middle: open the throat, and put some fingers down to shade the note.",
	},
	{
		Key:       "flat",
		Cause:     CauseCentre,
		Direction: -1,
		Text:      "Flat: hold the air up from below and keep the corners firm. Warm the instrument first.",
	},
	{
		Key:       "sharp",
		Cause:     CauseCentre,
		Direction: 1,
		Text:      "Sharp: relax the jaw and use {slower}. If it stays sharp, pull out a little.",
	},
	{
		Key:   "centre",
		Cause: CauseCentre,
		Text:  "Hear the note, sing it, then play it and let it settle into the same place.",
	},

	{
		Key:   "buzz-strays",
		Cause: CauseSteadiness,
		Group: scores.Buzzing,
		Text:  "Pick one pitch and stay on it: think of one line drawn by the lips.",
	},
	{
		Key:   "waver",
		Cause: CauseSteadiness,
		Text:  "Blow a long straight line: {even} from the first beat to the last. Watch the ribbon lie flat.",
	},
	{
		Key:   "waver-soft",
		Cause: CauseSteadiness,
		Text:  "Play it a little louder and shorter, quite still; then stretch it beat by beat.",
	},

	{
		Key:       "sinks",
		Cause:     CauseDrift,
		Direction: -1,
		Text:      "It sinks as the air runs out. Use a bigger breath and keep blowing to the very end.",
	},
	{
		Key:       "rises",
		Cause:     CauseDrift,
		Direction: 1,
		Text:      "It climbs. Keep the lips from tightening: let the air do the work.",
	},
	{Key: "drift", Cause: CauseDrift, Text: "Keep the ribbon level: {even}, and the mouth quite still."},

	{
		Key:   "held",
		Cause: CauseHeld,
		Text:  "Breathe in for two full beats and start a little softer. One beat more than yesterday is progress.",
	},
	{Key: "held-spend", Cause: CauseHeld, Text: "Spend less air at the start: most of it is for the last beats."},

	{
		Key:       "scoop-up",
		Cause:     CauseScoop,
		Direction: -1,
		Text:      "The start slides up. Set the mouth for the note before the air goes, and hear it first.",
	},
	{
		Key:       "scoop-down",
		Cause:     CauseScoop,
		Direction: 1,
		Text:      "The start is pinched. Let the air begin the note and the tongue only touch lightly.",
	},
	{Key: "scoop", Cause: CauseScoop, Text: "Begin on the pitch: mouth ready, note in your ear, then air."},

	{
		Key:       "ending-sinks",
		Cause:     CauseEnding,
		Direction: 1,
		Text:      "The end falls. Keep blowing while it fades; the mouth does not open.",
	},
	{
		Key:       "ending-cut",
		Cause:     CauseEnding,
		Direction: -1,
		Text:      "It stops short. Let the air get smaller and smaller; the tongue stays out of it.",
	},
	{Key: "ending", Cause: CauseEnding, Text: "Let the air taper away, like a line that thins to nothing."},

	// When it comes.
	{
		Key:       "early",
		Cause:     CauseLate,
		Direction: -1,
		Text:      "You start before the beat. Breathe in on the beat before, and let the air turn round on the click.",
	},
	{
		Key:       "late-buzz",
		Cause:     CauseLate,
		Group:     scores.Buzzing,
		Direction: 1,
		Text:      "The buzz comes late. Lips nearly touching, corners firm, and the air all at once.",
	},
	{
		Key:       "late",
		Cause:     CauseLate,
		Direction: 1,
		Text:      "It speaks late. Have the breath ready one beat before, and let the air go on the click.",
	},
	{Key: "start", Cause: CauseLate, Text: "Breathe in time: in on the beat before, out on the click."},

	{
		Key:    "brass-change",
		Cause:  CauseChange,
		Family: instrument.Brass,
		Text:   "The change takes too long. Keep the air going and move valves or slide at once, late rather than slowly.",
	},
	{
		Key:   "change",
		Cause: CauseChange,
		Text:  "The change takes too long. Finger it silently ten times, all fingers at once, then play it.",
	},
	{Key: "change-air", Cause: CauseChange, Text: "Keep blowing through the change, as if it were one long note."},

	{
		Key:       "timing-early",
		Cause:     CauseTiming,
		Direction: -1,
		Text:      "You come before the beat. Tap your foot and say the rhythm aloud first.",
	},
	{
		Key:       "timing-late",
		Cause:     CauseTiming,
		Direction: 1,
		Text:      "You come after the beat. Tongue on the click, with the air already there.",
	},
	{Key: "timing", Cause: CauseTiming, Text: "Clap the rhythm with the click, then play it on one note."},

	{
		Key:       "rushing",
		Cause:     CauseTempo,
		Direction: 1,
		Text:      "You speed up. Fit the last note of each beat in late, and listen to the click between.",
	},
	{
		Key:       "dragging",
		Cause:     CauseTempo,
		Direction: -1,
		Text:      "You slow down. Breathe less often, and think ahead one note.",
	},
	{Key: "tempo", Cause: CauseTempo, Text: "Play it once with the click, once without, and compare."},

	{
		Key:   "evenness",
		Cause: CauseEvenness,
		Text:  "Some notes are shorter. Make the short ones long and the long ones short for one turn, then play it even.",
	},
	{
		Key:   "evenness-slow",
		Cause: CauseEvenness,
		Text:  "Take the tempo down until every note has the same room, then come up two clicks at a time.",
	},

	{
		Key:   "tongue",
		Cause: CauseTongue,
		Text:  "The tongue touched in the slur. Say \"tah-ah-ah\": one \"t\" for the whole line.",
	},

	// How loud.
	{
		Key:   "swell",
		Cause: CauseSwell,
		Text:  "Make soft softer: begin with almost nothing, and keep the most for the middle.",
	},
	{
		Key:       "loud-sharp",
		Cause:     CausePitchShift,
		Direction: 1,
		Text:      "It climbs when loud. Drop the jaw a little as you grow, and open the throat.",
	},
	{
		Key:       "loud-flat",
		Cause:     CausePitchShift,
		Direction: -1,
		Text:      "It falls when loud. Keep the corners firm as you grow.",
	},
	{Key: "pitch-shift", Cause: CausePitchShift, Text: "Grow with the air alone, and watch the ribbon stay level."},

	// Air.
	{
		Key:       "pulse-slow",
		Cause:     CausePulse,
		Direction: -1,
		Text:      "Too few pushes. Say \"hoo-hoo-hoo\" with the click first, then put it into the note.",
	},
	{
		Key:       "pulse-fast",
		Cause:     CausePulse,
		Direction: 1,
		Text:      "Too many pushes. Count them aloud with the click first.",
	},
	{Key: "pulse", Cause: CausePulse, Text: "Push from below, not from the throat, and never let the air turn back."},
	{
		Key:       "bursts-few",
		Cause:     CauseBursts,
		Direction: -1,
		Text:      "Count the bursts on your fingers, and save air for the last ones.",
	},
	{
		Key:       "bursts-many",
		Cause:     CauseBursts,
		Direction: 1,
		Text:      "Blow in one line, without a stop: keep the throat open.",
	},
	{Key: "bursts", Cause: CauseBursts, Text: "Hold a hand before your mouth and count what you feel."},
	{
		Key:   "air-even",
		Cause: CauseAirEven,
		Text:  "Make the last burst as strong as the first: start with a little less.",
	},
	{
		Key:       "air-short",
		Cause:     CauseAirLength,
		Direction: -1,
		Text:      "The air ran out. Start smaller and spread it over all the beats.",
	},
	{
		Key:       "air-long",
		Cause:     CauseAirLength,
		Direction: 1,
		Text:      "Stop on the count and wait, throat open.",
	},
	{Key: "air-length", Cause: CauseAirLength, Text: "Count aloud once through, then breathe to the same count."},
	{
		Key:   "meter-delay",
		Cause: CauseMeterDelay,
		Text:  "The ball comes up late. Turn the breath round without a stop: in, and out at once.",
	},
	{
		Key:   "meter-steady",
		Cause: CauseMeterSteady,
		Text:  "The ball dances. Blow a little less, with {even}, until it stands still.",
	},
}
