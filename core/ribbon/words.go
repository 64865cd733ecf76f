package ribbon

import (
	"math"
	"strings"

	"earlychorus/core/ear"
	"earlychorus/core/explain"
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/say"
	"earlychorus/core/scores"
)

// calls is what the notes of a take are called: those asked for, and those that came.
type calls struct {
	key     music.Key
	written func(music.MIDI) music.MIDI
	names   map[music.Spelling]string
}

// callsOf names the notes of a take as its player says them.
func callsOf(a ear.Analysis, s scores.Score, i instrument.Instrument) calls {
	c := calls{key: s.KeyFifths, written: i.Written}
	var page []music.Spelling
	put := func(m music.MIDI) {
		if m > 0 {
			page = append(page, c.spell(m))
		}
	}
	for _, t := range s.Targets() {
		put(t.Target)
	}
	for _, account := range a.Accounts {
		put(account.Came)
	}
	for _, e := range a.Events {
		put(e.To)
	}
	c.names = music.English.Calls(page)
	if naming := namingOf(s); naming != "" {
		c.names = naming.Calls(page)
	}
	for _, t := range s.Targets() { // as the page called them before they were played
		if t.Called != "" {
			c.names[c.spell(t.Target)] = t.Called
		}
	}
	return c
}

// namingOf is how a score's notes are named: the naming under which they have the names
// that stand in it.
func namingOf(s scores.Score) music.Naming {
	for _, naming := range music.Namings() {
		all := true
		for _, t := range s.Targets() {
			all = all && (t.Written == nil || naming.WithOctave(*t.Written) == t.WrittenName)
		}
		if all {
			return naming
		}
	}
	return ""
}

func (c calls) spell(m music.MIDI) music.Spelling { return c.key.Spell(c.written(m)) }

func (c calls) of(m music.MIDI) string { return c.names[c.spell(m)] }

// jump says where the pitch went: "up to high G".
func (c calls) jump(e ear.Event) string {
	if e.Interval > 0 {
		return "up to " + c.of(e.To)
	}
	return "down to " + c.of(e.To)
}

// became says what became of target n, where it did not come as asked.
func (c calls) became(a ear.Analysis, n int) string {
	if n >= len(a.Accounts) {
		return ""
	}
	account := a.Accounts[n]
	switch account.Kind {
	case explain.HeldOver:
		return "stayed on " + c.of(account.Came)
	case explain.OtherPartial, explain.OtherFingering, explain.OtherNote:
		return c.of(account.Came) + " came"
	case explain.NotTongued:
		return "not tongued again"
	case explain.LeftOut:
		return "left out"
	case explain.NeverCame, explain.CutOff:
		return "did not come"
	}
	return ""
}

// describe says the drawing in words, for who hears it.
func describe(a ear.Analysis, s scores.Score, c calls) string {
	var parts []string
	for n, t := range s.Targets() {
		name := c.of(t.Target)
		if became := c.became(a, n); became != "" {
			parts = append(parts, name+": "+became)
			continue
		}
		note := a.Notes[n]
		if !note.Played {
			parts = append(parts, name+": did not come")
			continue
		}
		words := []string{
			say.InTune(note.Centre, s.Limits.Centre),
			fmt.Sprintf("held %s of %.0f beats", say.Halves(min(s.TempoBPM.Beats(note.Sounding), t.Beats)), t.Beats),
		}
		for _, e := range a.Events {
			if e.Note == n {
				words = append(words, c.event(e, s.TempoBPM.Beats(e.At-a.Start)-t.StartBeat+1+onTheLine))
			}
		}
		parts = append(parts, name+": "+strings.Join(words, ", "))
	}
	return strings.Join(parts, ". ") + "."
}

// event says what happened in a note; beat is where in it, from 1.
func (c calls) event(e ear.Event, beat music.Beats) string {
	where := fmt.Sprintf(" in beat %.0f", max(1, math.Floor(float64(beat))))
	switch e.Kind {
	case ear.Gap:
		return "a gap" + where
	case ear.Break:
		return "cracked " + c.jump(e) + where
	case ear.Undertone:
		return "began with " + c.of(e.To)
	case ear.WrongNote:
		return c.of(e.To) + " came"
	case ear.Chirp:
		return "a squeak" + where
	case ear.Tongue:
		return "the tongue touched it" + where
	case ear.LateStart:
		return "came late"
	case ear.Scoop:
		return "began off its pitch"
	case ear.Sag:
		return "sank at the end"
	}
	return "wobbled"
}
