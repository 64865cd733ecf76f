package instrument_test

import (
	"fmt"
	"strings"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// The band's first five notes from concert B♭, on a trumpet: read C to G, and
// fingered as every method prints them.
func ExampleInstrument_Fingering_trumpetFirstFive() {
	trumpet, _ := instrument.Get("trumpet")
	for _, sounding := range []music.MIDI{58, 60, 62, 63, 65} { // B♭3 C4 D4 E♭4 F4
		f, _ := trumpet.Fingering(sounding, instrument.UsualHands())
		fmt.Println(music.Key(0).Spell(trumpet.Written(sounding)), f.Text)
	}
	// Output:
	// C4 open
	// D4 1-3
	// E4 1-2
	// F4 1
	// G4 open
}

// The register key lifts a clarinet by a twelfth: low G to the D above the staff's
// middle, B♭ concert as written.
func ExampleInstrument_RegisterPair_clarinet() {
	clarinet, _ := instrument.Get("clarinet")
	low := music.MIDI(53) // sounding F3, written G3
	upper, _ := clarinet.RegisterPair(low)
	c := music.Key(0)
	fmt.Println(c.Spell(clarinet.Written(low)), "to", c.Spell(clarinet.Written(upper)))
	// Output:
	// G3 to D5
}

// What a trumpet plays with no valve down: the bugle's notes.
func ExampleInstrument_OpenNotes_trumpet() {
	trumpet, _ := instrument.Get("trumpet")
	for _, m := range trumpet.OpenNotes() {
		fmt.Print(music.Key(0).Spell(trumpet.Written(m)), " ")
	}
	// Output:
	// C4 G4 C5 E5 G5
}

// Low D on a trumpet, first and third valve, runs sharp; a player lets a slide out.
func ExampleInstrument_TendencyAdvice_trumpetLowD() {
	trumpet, _ := instrument.Get("trumpet")
	lowD := music.MIDI(60) // sounding C4, written D4
	tendency, advice, _ := strings.Cut(trumpet.TendencyAdvice(lowD), ": ")
	fmt.Println(tendency)
	fmt.Println(advice)
	// Output:
	// This note tends sharp by 32 cents
	// let it down with a relaxed lip, or move the slide of the third or first valve out a little.
}

// A flute that plays its tuning note twenty cents flat pushes the headjoint in.
func ExampleInstrument_TuningAdvice_flatFlute() {
	flute, _ := instrument.Get("flute")
	fmt.Println(flute.TuningAdvice(70, -20, 440))
	// Output:
	// Move the headjoint in by about 4 mm, then check again.
}
