package measure

import (
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// RightNote is whether the note that sounds is the one asked for.
var RightNote = Measure{
	Key:     "right-note",
	Meaning: "it is the note asked for; in the first weeks, no other partial is nearer",
	Take:    rightNote,
	Fault:   &wrongNote,
}

// CauseWrongNote names another note than the one asked for.
const CauseWrongNote Cause = "wrong-note"

// wrongNote is another note than the one asked for, and what helps.
var wrongNote = Fault{
	Cause: CauseWrongNote,
	Rank:  whichNote + 0,
	Tips: []Advice{
		{
			Key:  "brass-too-high",
			When: When{Family: instrument.Brass, Direction: High},
			Text: "You landed on a higher partial. Relax, drop the jaw a little and use {slower}.",
		},
		{
			Key:  "brass-too-low",
			When: When{Family: instrument.Brass, Direction: Low},
			Text: "You landed on a lower partial. Firm the corners of your mouth and use {faster}.",
		},
		{
			Key:  "clarinet-low",
			When: When{Family: instrument.Clarinets, Direction: Low},
			Text: "The upper note stayed low. Roll the thumb so that the register key opens while the hole stays " +
				"covered.",
		},
		{
			Key:  "clarinet-high",
			When: When{Family: instrument.Clarinets, Direction: High},
			Text: "The note went up. Take the thumb off the register key and check that every finger seals its hole.",
		},
		{
			Key:  "sax-high",
			When: When{Family: instrument.Saxophones, Direction: High},
			Text: "It jumped up an octave. Check the octave key is up, open the throat and use {slower}.",
		},
		{
			Key:  "sax-low",
			When: When{Family: instrument.Saxophones, Direction: Low},
			Text: "It stayed an octave down. Press the octave key with the thumb, and keep the mouth as it is.",
		},
		{
			Key:  "flute-high",
			When: When{Family: instrument.Flutes, Direction: High},
			Text: "It went up an octave. Make the lip opening a little larger and aim the air lower, with {slower}.",
		},
		{
			Key:  "flute-low",
			When: When{Family: instrument.Flutes, Direction: Low},
			Text: "It stayed an octave down. Make the lip opening smaller, aim across the hole and use {faster}.",
		},
		{
			Key:  "reed-high",
			When: When{Family: instrument.DoubleReeds, Direction: High},
			Text: "The note flew up. That is too much air for a low note: relax, drop the jaw and use {slower}.",
		},
		{
			Key:  "reed-low",
			When: When{Family: instrument.DoubleReeds, Direction: Low},
			Text: "It stayed low. Check the half hole or the octave key, and firm the corners a little.",
		},
		{
			Key:  "recorder-high",
			When: When{Family: instrument.Recorders, Direction: High},
			Text: "It squeaked up. Blow gently and cover the thumb hole fully.",
		},
		{
			Key:  "recorder-low",
			When: When{Family: instrument.Recorders, Direction: Low},
			Text: "It stayed low. Open the thumb hole only a crack, by bending the thumb.",
		},
		{Key: "wrong-note", Text: "Look at the fingering, hear the note once, sing it, then play it."},
	},
}

// rightNote asks for the note on the instrument; lips and voice that only prepare
// it are not asked.
func rightNote(c Case, _ float64) (out []Reading) {
	prepares := len(c.played(scores.Play)) > 0
	for n, t := range c.Score.Targets() {
		note := c.Analysis.Notes[n]
		if !note.Played || t.Phase == scores.Sing || t.Phase == scores.Buzz && prepares {
			continue
		}
		m := Reading{
			Label:  "Note",
			Note:   n,
			Text:   "the right note",
			Wanted: t.WrittenName,
			Excess: perfect,
		}
		if c.wrong(n) {
			m.Value = float64(note.MIDI - t.Target)
			m.Excess, m.Direction = hopeless, sign(m.Value)
			m.Text = "sounded " + Interval(int(m.Value))
		}
		out = append(out, m)
	}
	return out
}
