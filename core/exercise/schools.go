package exercise

import (
	"slices"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// The questions on which teachers differ, each with a type for its answers. What
// is usual (common practice, no published source) is the first answer of its
// question in Schools.
type (
	// Beginning is where a warm-up begins.
	Beginning string
	// LongToneLength is how long a long tone is.
	LongToneLength string
	// LongToneTempo is the tempo of counted long tones, or OwnTempo.
	LongToneTempo string
	// TunerView is whether the pitch is in view while one plays.
	TunerView string
	// BuzzPlace is what brass players buzz on.
	BuzzPlace string
	// BuzzMove is how a buzz goes from one note to the next.
	BuzzMove string
	// NoteEnd is how a note ends.
	NoteEnd string
	// AirPicture is the picture in which tips speak of air.
	AirPicture string
	// SingFirst is whether a note is sung before it is played.
	SingFirst string
	// TuningNote is the class's tuning note.
	TuningNote string
	// HardNotes is what a note marked as hard counts.
	HardNotes string
)

const (
	LowFirst     Beginning = "low"
	HighFirst    Beginning = "high"
	EasiestFirst Beginning = "easiest"

	CountedBeats      LongToneLength = "counted"
	AsLongAsBeautiful LongToneLength = "longest"
	SecondsANote      LongToneLength = "seconds"

	OwnTempo LongToneTempo = "own"

	TunerShown TunerView = "shown"
	EarsFirst  TunerView = "hidden"

	BuzzOnMouthpiece BuzzPlace = "mouthpiece"
	BuzzOnTube       BuzzPlace = "tube"
	BuzzNone         BuzzPlace = "none"

	SlideMove    BuzzMove = "slide"
	StraightMove BuzzMove = "straight"

	TaperedEnd NoteEnd = "taper"
	MarkedEnd  NoteEnd = "marked"

	AirSpeed  AirPicture = "speed"
	AirWarmth AirPicture = "warmth"
	AirWidth  AirPicture = "width"
	AirVowels AirPicture = "vowels"

	SingThenPlay SingFirst = "sing"
	PlayAtOnce   SingFirst = "play"

	OwnTuningNote TuningNote = "own"

	CountedAsTried HardNotes = "tried"
	GradedAlike    HardNotes = "graded"
)

// School is a question on which teachers differ.
type School struct {
	Key      string   `json:"key"`
	Question string   `json:"question"`
	Options  []Option `json:"options" nullable:"false" doc:"the first is the default"`

	get func(Conventions) string
	set func(*Conventions, string)
}

// question is a school whose answer is kept in one field of Conventions.
func question[T ~string](key, text string, field func(*Conventions) *T, options ...Option) School {
	return School{
		Key:      key,
		Question: text,
		Options:  options,
		get:      func(c Conventions) string { return string(*field(&c)) },
		set:      func(c *Conventions, answer string) { *field(c) = T(answer) },
	}
}

// option is an answer of a type of its own.
func option[T ~string](key T, name string) Option { return Option{string(key), name} }

// Schools lists the questions and their answers, the usual one first (common
// practice, no published source). A new question is a field of Conventions, a
// type for its answers and a row here.
func Schools() []School {
	return []School{
		question("begin", "Where to begin", func(c *Conventions) *Beginning { return &c.Begin },
			option(LowFirst, "low and relaxed first"),
			option(HighFirst, "high notes while the lip is fresh, low ones after"),
			option(EasiestFirst, "from the easiest note outward")),
		question("long_tone", "How long is a long tone", func(c *Conventions) *LongToneLength { return &c.LongTone },
			option(CountedBeats, "counted beats with a metronome"),
			option(AsLongAsBeautiful, "as long as it stays beautiful, against one's own best"),
			option(SecondsANote, "a set number of seconds a note")),
		question(
			"long_tempo",
			"Tempo of counted long tones",
			func(c *Conventions) *LongToneTempo { return &c.LongTempo },
			Option{"80", "80"},
			Option{"60", "60"},
			option(OwnTempo, "the player's own"),
		),
		question("tuner", "A tuner in view", func(c *Conventions) *TunerView { return &c.Tuner },
			option(TunerShown, "from the start"),
			option(EarsFirst, "ears first: hidden until the take is over")),
		question("buzz_on", "Buzzing on", func(c *Conventions) *BuzzPlace { return &c.BuzzOn },
			option(BuzzOnMouthpiece, "the mouthpiece"),
			option(BuzzOnTube, "the slide tube or lead pipe"),
			option(BuzzNone, "nothing: listen to the sound only")),
		question("buzz_move", "Moving a buzz", func(c *Conventions) *BuzzMove { return &c.BuzzMove },
			option(SlideMove, "slide between notes until the ear is sure"),
			option(StraightMove, "straight to the note at once")),
		question("start", "Start of a note", func(c *Conventions) *scores.Articulation { return &c.Start },
			option(scores.Tongued, "tongued"),
			option(scores.BreathStart, "breath start for part of the work")),
		question("end", "End of a note", func(c *Conventions) *NoteEnd { return &c.End },
			option(TaperedEnd, "air tapers, no tongue"),
			option(MarkedEnd, "as the director marks it")),
		question("air", "Pictures for air", func(c *Conventions) *AirPicture { return &c.Air },
			option(AirSpeed, "fast and slow"),
			option(AirWarmth, "cool and far, warm and near"),
			option(AirWidth, "a wide or a narrow stream at one speed"),
			option(AirVowels, "vowel shapes: ee, ah, oh")),
		question("euphonium_c", "Euphonium's C in the staff",
			func(c *Conventions) *instrument.EuphoniumC { return &c.EuphoniumC },
			option(instrument.CWithOneAndThree, "1-3"),
			option(instrument.CWithFour, "4, where there is a fourth valve")),
		question("clarinet_chromatic", "Clarinet's chromatic E♭ and F♯",
			func(c *Conventions) *instrument.ClarinetChromatic { return &c.ClarinetRun },
			option(instrument.SideKeys, "side keys both ways"),
			option(instrument.ForkGoingUp, "fork and first finger going up, side keys coming down")),
		question("clarinet_low", "Clarinet's low start",
			func(c *Conventions) *instrument.ClarinetLow { return &c.ClarinetLow },
			option(instrument.AlternateLittle, "begins left, then right, with every repeat"),
			option(instrument.LeftLittle, "begins with the left little finger"),
			option(instrument.RightLittle, "begins with the right little finger")),
		question("sing_first", "Singing first", func(c *Conventions) *SingFirst { return &c.SingFirst },
			option(SingThenPlay, "sing while fingering silently, then play"),
			option(PlayAtOnce, "play at once")),
		question("tuning_note", "Tuning note", func(c *Conventions) *TuningNote { return &c.TuningNote },
			Option{"Bb", "concert B♭"},
			Option{"A", "concert A"},
			Option{"F", "concert F"},
			Option{"C", "concert C"},
			option(OwnTuningNote, "one for each instrument")),
		question("hard_notes", "Hard notes", func(c *Conventions) *HardNotes { return &c.HardNotes },
			option(CountedAsTried, "counted as tried, never held against the player"),
			option(GradedAlike, "graded like the rest")),
	}
}

// StandardConventions are the usual answers, at A = 440 Hz.
func StandardConventions() Conventions {
	c := Conventions{
		A4:        music.StandardA4,
		Naming:    music.English,
		TempoGive: 20,
		LongBeats: 8,
	}
	for _, s := range Schools() {
		s.set(&c, s.Options[0].Key)
	}
	return c
}

// Get returns the answer to a school's question; "" for an unknown one.
func (c Conventions) Get(school string) string {
	for _, s := range Schools() {
		if s.Key == school {
			return s.get(c)
		}
	}
	return ""
}

// Set answers a question. Errors: ParameterError.
func (c *Conventions) Set(school, answer string) error {
	for _, s := range Schools() {
		if s.Key != school {
			continue
		}
		if !slices.ContainsFunc(s.Options, func(o Option) bool { return o.Key == answer }) {
			return ParameterError{school, "choose one of the answers to: " + s.Question}
		}
		s.set(c, answer)
		return nil
	}
	return ParameterError{school, "there is no such question"}
}
