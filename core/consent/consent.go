// Package consent says what a player's home has agreed to, and what may then be done. A school's
// own law and policy say whether a home has to be asked at all.
package consent

import "strings"

// Purpose is what a home is asked about.
type Purpose string

const (
	Recording Purpose = "recording" // takes are sent to the school, and heard by the director
	Keeping   Purpose = "keeping"   // recordings are kept after they were listened to
	Showing   Purpose = "showing"   // recordings are played to the class
)

// Asked is a purpose in words.
type Asked struct {
	Key  Purpose `json:"key" enum:"recording,keeping,showing"`
	Name string  `json:"name"`
	Says string  `json:"says" doc:"what is agreed to"`
}

// Purposes lists what a home is asked about.
func Purposes() []Asked {
	return []Asked{
		{
			Recording,
			"Recording",
			"Takes go to the school, and the director hears them. Without it the player practices, " +
				"and nothing leaves the device.",
		},
		{
			Keeping,
			"Keeping",
			"Recordings are kept for as long as the class keeps them. Without it a recording is deleted " +
				"once it was listened to; what was measured stays.",
		},
		{Showing, "Playing in class", "Recordings may be played to the class."},
	}
}

// May is what may be done with a player's takes.
type May struct {
	Record bool `json:"record"`
	Keep   bool `json:"keep"`
	Show   bool `json:"show"`
}

// Of returns what may be done by what a home has said. Where it has not been asked yet, that
// depends on whether the school asks for consent. What is not recorded is neither kept nor shown.
func Of(said map[Purpose]bool, needed bool) May {
	given := func(p Purpose) bool {
		g, asked := said[p]
		return g || !asked && !needed
	}
	record := given(Recording)
	return May{Record: record, Keep: record && given(Keeping), Show: record && given(Showing)}
}

// words are how lists say yes and no.
var words = map[string]bool{
	"yes": true, "y": true, "true": true, "1": true, "x": true, "ja": true, "oui": true, "si": true, "sí": true,
	"given": true, "✓": true,
	"no": false, "n": false, "false": false, "0": false, "nein": false, "non": false, "refused": false,
}

// Read reads a cell of a list; ok is false for one that says neither.
func Read(cell string) (given, ok bool) {
	given, ok = words[strings.ToLower(strings.TrimSpace(cell))]
	return given, ok
}
