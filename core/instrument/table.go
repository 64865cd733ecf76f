package instrument

import "earlychorus/core/music"

// top stands for "and everything above" in the hard notes.
const top = music.MIDI(127)

func up(home music.MIDI) [5]music.MIDI {
	return [5]music.MIDI{home, home + 2, home + 4, home + 5, home + 7}
}

// valveVariants are the low brass's: the fourth valve stands for 1-3.
var valveVariants = []Variant{{"", "three valves", 3}, {"4-valve", "four valves", 4}}

// table lists the instruments in score order. Ranges and first notes are
// common practice, no published source; transpositions are any
// orchestration handbook's (from memory).
var table = []Instrument{
	{
		Key: "soprano-recorder", Name: "Soprano recorder", Section: "Soprano recorders", Family: Recorders, Clef: Treble,
		Transposition: -12, FirstFive: up(79), Beginner: Span{72, 98},
		Tuning:   79,
		Register: "thumb pinch", Overblow: 12, Hard: []Span{{0, 73}, {93, top}},
	},
	{
		Key: "alto-recorder", Name: "Alto recorder", Section: "Alto recorders", Family: Recorders, Clef: Treble,
		FirstFive: up(72), Beginner: Span{65, 91},
		Tuning:   72,
		Register: "thumb pinch", Overblow: 12, Hard: []Span{{0, 66}, {86, top}},
	},
	{
		Key: "flute", Name: "Flute", Section: "Flutes", Family: Flutes, Clef: Treble,
		FirstFive: up(70), Beginner: Span{62, 86},
		Tuning:   70,
		Register: "overblow, octave", Overblow: 12, Hard: []Span{{0, 64}, {84, top}},
	},
	{
		Key: "oboe", Name: "Oboe", Section: "Oboes", Family: DoubleReeds, Clef: Treble,
		FirstFive: up(70), Beginner: Span{60, 81},
		Tuning:   69,
		Register: "half hole, octave keys", Overblow: 12, Hard: []Span{{0, 61}},
	},
	{
		Key: "clarinet", Name: "B♭ clarinet", Section: "Clarinets", Family: Clarinets, Clef: Treble,
		Transposition: 2, FirstFive: up(58), Beginner: Span{50, 82},
		Tuning:   65,
		Register: "register key, twelfth", Overblow: 19, Hard: []Span{{0, 53}, {69, 72}},
	},
	{
		Key: "bass-clarinet", Name: "Bass clarinet", Section: "Bass clarinets", Family: Clarinets, Clef: Treble,
		Transposition: 14, FirstFive: up(46), Beginner: Span{37, 65},
		Tuning:   53,
		Register: "register key, twelfth", Overblow: 19, Hard: []Span{{57, 60}},
	},
	{
		Key: "bassoon", Name: "Bassoon", Section: "Bassoons", Family: DoubleReeds, Clef: Bass,
		FirstFive: up(46), Beginner: Span{34, 65},
		Tuning:   53,
		Register: "half hole, flick keys", Overblow: 12, Hard: []Span{{0, 40}},
	},
	{
		Key: "alto-sax", Name: "Alto saxophone", Section: "Alto saxophones", Family: Saxophones, Clef: Treble,
		Transposition: 9, FirstFive: up(58), Beginner: Span{49, 80},
		Tuning:   65,
		Register: "octave key", Overblow: 12, Hard: []Span{{0, 53}},
	},
	{
		Key: "tenor-sax", Name: "Tenor saxophone", Section: "Tenor saxophones", Family: Saxophones, Clef: Treble,
		Transposition: 14, FirstFive: up(58), Beginner: Span{44, 75},
		Tuning:   65,
		Register: "octave key", Overblow: 12, Hard: []Span{{0, 48}},
	},
	{
		Key: "bari-sax", Name: "Baritone saxophone", Section: "Baritone saxophones", Family: Saxophones, Clef: Treble,
		Transposition: 21, FirstFive: up(46), Beginner: Span{36, 68},
		Tuning:   53,
		Register: "octave key", Overblow: 12, Hard: []Span{{0, 41}},
	},
	{
		Key: "trumpet", Name: "Trumpet or cornet", Section: "Trumpets", Family: Brass, Clef: Treble,
		Transposition: 2, FirstFive: up(58), Beginner: Span{52, 77},
		Tuning:   58,
		Register: "partials", Hard: []Span{{0, 54}, {72, top}},
		tube: &tube{fundamental: 46, valves: 3},
	},
	{
		Key: "horn", Name: "Horn in F", Section: "Horns", Family: Brass, Clef: Treble,
		Transposition: 7, FirstFive: up(58), Beginner: Span{48, 72},
		Tuning:   65,
		Register: "partials, close together", Hard: []Span{{67, top}},
		tube: &tube{fundamental: 29, valves: 3},
	},
	{
		Key: "trombone", Name: "Trombone", Section: "Trombones", Family: Brass, Clef: Bass,
		FirstFive: up(46), Beginner: Span{40, 65},
		Tuning:   53,
		Register: "partials, slide", Hard: []Span{{0, 44}, {47, 48}},
		tube: &tube{fundamental: 34},
	},
	{
		Key: "euphonium", Name: "Euphonium or baritone, bass clef", Section: "Euphoniums", Family: Brass, Clef: Bass,
		FirstFive: up(46), Beginner: Span{40, 65},
		Tuning:   53,
		Register: "partials", Hard: []Span{{0, 43}},
		Variants: valveVariants,
		tube:     &tube{fundamental: 34, valves: 3},
	},
	{
		Key: "euphonium-tc", Name: "Euphonium or baritone, treble clef", Section: "Euphoniums", Family: Brass, Clef: Treble,
		Transposition: 14, FirstFive: up(46), Beginner: Span{40, 65},
		Tuning:   53,
		Register: "partials", Hard: []Span{{0, 43}},
		Variants: valveVariants,
		tube:     &tube{fundamental: 34, valves: 3},
	},
	{
		Key: "tuba", Name: "Tuba in BB♭", Section: "Tubas", Family: Brass, Clef: Bass,
		FirstFive: up(34), Beginner: Span{29, 53},
		Tuning:   46,
		Register: "partials", Hard: []Span{{0, 32}},
		Variants: valveVariants,
		tube:     &tube{fundamental: 22, valves: 3},
	},
}
