package browser

import (
	"os"

	"earlychorus/core/audio/wav"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// Player writes what a fake microphone plays: a simulated player who is a little
// flat and wavers, on the demo's step. The caller removes the file.
func Player(key string) (string, error) {
	i, err := instrument.Get(key)
	if err != nil {
		return "", err
	}
	score := scores.Score{TempoBPM: 60, A4Hz: 440, Segments: []scores.Segment{
		// The first click comes about 0.7 s after the microphone opens, the note
		// four clicks later.
		{Phase: scores.Ready, Beats: 4.8},
		{
			Phase:     scores.Play,
			StartBeat: 4.8,
			Beats:     8,
			Target:    i.Home(),
		},
		{Phase: scores.Rest, StartBeat: 12.8, Beats: 20},
	}}
	p := synth.Player{
		Instrument: i,
		Offset:     -8,
		WaverDepth: 9,
		WaverHz:    2.5,
		Jitter:     3,
		LevelWaver: 3,
		Breath:     -30,
		Room:       -65,
	}
	sound, _ := p.Play(score, 48000)
	file, err := os.CreateTemp("", "player-*.wav")
	if err != nil {
		return "", err
	}
	defer file.Close() //nolint:errcheck // written below
	_, err = file.Write(wav.Encode(sound))
	return file.Name(), err
}
