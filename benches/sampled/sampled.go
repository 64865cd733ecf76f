package sampled

import (
	"earlychorus/core/audio"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Note is when a note is held, and which.
type Note struct {
	From, To music.Seconds
	MIDI     music.MIDI
}

// Render plays the notes on an instrument's sample at 48 kHz, and a second of
// silence behind.
func (f Font) Render(key string, notes []Note) (audio.Mono, error) {
	i, err := instrument.Get(key)
	if err != nil {
		return audio.Mono{}, err
	}
	var t track
	t.add(0, 0xC0, byte(i.MIDIProgram))
	last := music.Seconds(0)
	for _, n := range notes {
		t.add(n.From, 0x90, byte(n.MIDI), 90)
		t.add(n.To, 0x80, byte(n.MIDI), 0)
		last = n.To
	}
	return f.play(t.file(last+1), 48000)
}
