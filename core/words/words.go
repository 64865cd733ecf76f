// Package words holds the words of the trade as this program uses them, in code,
// in its API and on its screens.
package words

// Word is one of them.
type Word struct {
	Word    string `json:"word"`
	Meaning string `json:"meaning"`
}

// All lists the words in the alphabet's order.
func All() []Word {
	return []Word{
		{"break (register)", "The clarinet's crossing between its low and its upper register."},
		{
			"can't tell",
			"A verdict: the recording was at fault, or the pitch could not be followed. Never the player's fault.",
		},
		{
			"caution",
			"What is shown where work could hurt. It defers to the school's rules, a doctor or a licensed technician.",
		},
		{"class", "A group of players with a director, a code to sign in by, and conventions."},
		{"clean", "A verdict: every measure of the step's pass rule lies within its limit."},
		{"concert pitch", "What sounds. Written pitch is what the player reads."},
		{"contour", "The measured tracks of a take: pitch, whether it is voiced, level, tone, every 10 ms."},
		{"conventions", "The schools of teaching a class follows, and its tuning reference and names of notes."},
		{"crack", "An unwanted jump to another partial or register, short or lasting."},
		{"degree", "A note written once for the whole band: half steps from home."},
		{"director", "The teacher of a class."},
		{"event", "A named thing that happened in a take at a time: break, gap, scoop and others."},
		{"exercise", "A reusable recipe in concert pitch: a kind with its parameters."},
		{"fit", "To choose how much of each step is played so that a day stays inside every budget."},
		{
			"hard note",
			"A note that beginners on an instrument are not held to: judged one stage lower, counted as tried.",
		},
		{"home", "The note an instrument's first five begin from: concert B♭, but on the recorders."},
		{"ladder", "An ordered way into a hard note or skill."},
		{"model", "A director's own playing of a step, for players to hear, slower too, at the same pitch."},
		{"nearly", "A verdict: one measure is outside, by no more than half its limit; or only hard notes are."},
		{
			"new note",
			"A note given in a week: heard, fingered, played alone, then found from one that is known. New for that " +
				"week.",
		},
		{"not yet", "A verdict: more than that is outside."},
		{"note (measured)", "A stretch of a take at one pitch, with onset, release and its measures."},
		{"notes known", "What a section has learnt on its instrument. Patterns use these notes only."},
		{"partial", "One of the notes that a tube gives with one fingering; also a harmonic of a reed tube."},
		{"pass rule", "The measures a step is judged by, each with its limit."},
		{"plan", "A week of steps for a class."},
		{"player", "A student of a class."},
		{"ribbon", "The drawing of a take: pitch as a line through time, loudness as its width."},
		{"rung", "One step of a ladder."},
		{"score (of a step)", "The timed targets a step expands to for one instrument."},
		{"section", "A class's players of one instrument."},
		{"stage", "How far a player has come, 1 to 4, by school weeks from the first lesson."},
		{"step", "An exercise placed on days."},
		{
			"substitution",
			"A note put in another octave, or another note of the pattern, because the stage does not reach it; " +
				"always said.",
		},
		{"take", "One recording of one step by one player."},
		{
			"test",
			"A step due on a day: so many of its takes count, the best or the last; hard notes are held against " +
				"nobody.",
		},
		{"tip", "One piece of advice for the cause that decided a verdict."},
		{"tried", "What a hard note counts as when it does not come out: nothing is held against the player."},
		{"verdict", "Clean, nearly, not yet or can't tell, with the measure that decided it."},
		{"written pitch", "What the player reads. Concert pitch is what sounds."},
	}
}
