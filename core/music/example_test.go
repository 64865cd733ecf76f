package music_test

import (
	"fmt"

	"earlychorus/core/music"
)

// The same two notes in the three namings that bands use: a German B is everybody
// else's B flat.
func ExampleNaming_Name() {
	flat, natural := music.Key(-2).Spell(70), music.Key(0).Spell(71)
	for _, n := range music.Namings() {
		fmt.Println(n, n.Name(flat), n.Name(natural))
	}
	// Output:
	// english B♭ B
	// german B H
	// romance si♭ si
}

// Eight beats at ♩ = 60 are eight seconds; at ♩ = 80 they are six.
func ExampleTempo_Seconds() {
	fmt.Println(music.Tempo(60).Seconds(8), music.Tempo(80).Seconds(8))
	// Output:
	// 8 6
}
