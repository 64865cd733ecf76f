package instrument

import "earlychorus/core/music"

// percussion plays along on a pad: no pitch is asked of it. Its one note is what its
// rhythms are written on, the middle line of the staff.
var percussion = Instrument{
	Key:         "percussion",
	Name:        "Percussion",
	Section:     "Percussion",
	Family:      Percussion,
	Clef:        Treble,
	FirstFive:   [5]music.MIDI{pad, pad, pad, pad, pad},
	Beginner:    Span{pad, pad},
	Tuning:      pad,
	MIDIProgram: 115, // wood block
	Aliases: []string{
		"percussion", "perc", "drum", "drums", "snare drum", "snare", "bell", "bells", "mallet", "mallets",
		"timpani", "drum set", "schlagzeug", "percussioni", "batterie",
	},
	chart: func(Instrument, music.MIDI) (string, bool) { return "", false },
}

// noneYet is for the weeks before instruments are chosen: such a player breathes, sits, claps
// rhythms and counts along.
var noneYet = Instrument{
	Key:         "none-yet",
	Name:        "No instrument yet",
	Section:     "No instrument yet",
	Family:      NoneYet,
	Clef:        Treble,
	FirstFive:   percussion.FirstFive,
	Beginner:    percussion.Beginner,
	Tuning:      pad,
	MIDIProgram: percussion.MIDIProgram,
	Aliases: []string{
		"none", "none yet", "no instrument", "no instrument yet", "not yet", "tbd", "tba", "undecided",
		"to be decided", "unknown", "n a",
	},
	chart: percussion.chart,
}

// pad is B4, the middle line.
const pad music.MIDI = 71
