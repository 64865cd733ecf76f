package measure

// The causes of another note that the fingers make.
const (
	CauseFingering Cause = "fingering" // a wrong or missing finger, valve or position
	CauseHeldOver  Cause = "held-over" // the note before goes on
)

// wrongFingering is a note one finger, valve or position beside the one asked, and
// what helps.
var wrongFingering = Fault{
	Cause: CauseFingering,
	Rank:  whichNote + 4,
	Tips: []Advice{
		{Key: "wrong-finger", Text: "{mend}. Play the note alone, then in its place."},
		{Key: "finger-silently", Text: "Move the fingers ten times without sound. Then play it slow."},
	},
}

// heldOver is a note that goes on where another was asked, and what helps.
var heldOver = Fault{
	Cause: CauseHeldOver,
	Rank:  whichNote + 5,
	Tips: []Advice{
		{Key: "held-over", Text: "Say the names of the notes to the click, then finger them, then play."},
		{Key: "held-over-move", Text: "All fingers move on the beat: play the two notes alone, back and forth."},
	},
}
