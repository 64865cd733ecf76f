package main

import (
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"

	"earlychorus/benches/figures"
	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

const (
	speedRuns    = 15
	speedSeconds = 60
)

// speed times whole processes on one core over the same minute of playing, in
// turn, and prints the best of each as times real time and as a ratio.
func speed(out io.Writer, program string) ([]figures.Figure, error) {
	folder, err := os.MkdirTemp("", "ear")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(folder) //nolint:errcheck // a temporary folder
	file, script := filepath.Join(folder, "minute.wav"), filepath.Join(folder, "pitch.praat")
	i, err := instrument.Get("clarinet")
	if err != nil {
		return nil, err
	}
	e := ear.For(i)
	if err := os.WriteFile(script, []byte(praatScript), 0o600); err != nil {
		return nil, err
	}
	if err := os.WriteFile(file, wav.Encode(minute(i)), 0o600); err != nil {
		return nil, err
	}
	commands := []struct {
		name string
		args []string
	}{
		{"early chorus", []string{program, "pitch", "--instrument", i.Key, file}},
		{"without instrument", []string{program, "pitch", file}},
		{"with tone, notes and events", []string{program, "analyze", "--instrument", i.Key, file}},
		{"aubio yinfft", []string{"aubiopitch", "-i", file, "-p", "yinfft", "-B", "2048", "-H", "480", "-u", "freq"}},
		{
			"praat",
			[]string{"praat", "--run", script, file, fmt.Sprint(float64(e.Lowest)), fmt.Sprint(float64(e.Highest))},
		},
	}
	best := make([]float64, len(commands))
	for range speedRuns {
		for n, c := range commands {
			cmd := exec.Command("taskset", append([]string{"-c", "0"}, c.args...)...)
			cmd.Env = append(os.Environ(), "GOMAXPROCS=1")
			if err := cmd.Run(); err != nil {
				return nil, fmt.Errorf("%s: %w", c.name, err)
			}
			// The processor's time and not the clock's, which a shared machine stops for others.
			took := cmd.ProcessState.UserTime() + cmd.ProcessState.SystemTime()
			if best[n] == 0 || took.Seconds() < best[n] {
				best[n] = took.Seconds()
			}
		}
	}
	fmt.Fprintf(
		out,
		"\n## Speed\n\nWhole processes on one core, %d s of playing, the processor's time, best of %d in turn.\n\n"+
			"| listener | × real time | against aubio |\n| --- | ---: | ---: |\n",
		speedSeconds,
		speedRuns,
	)
	for n, c := range commands {
		fmt.Fprintf(out, "| %s | %.0f | %.2f |\n", c.name, speedSeconds/best[n], best[3]/best[n])
	}
	return []figures.Figure{
		figures.AtLeast("speed, the whole process on one core", "%.0f × real time", speedSeconds/best[0], 350),
		figures.Plain("against aubio yinfft and praat", "%.2f and %.2f × as quick", best[3]/best[0], best[4]/best[0]),
	}, nil
}

// minute is a minute of an instrument playing long tones with rests between.
func minute(i instrument.Instrument) audio.Mono {
	score := scores.Score{TempoBPM: 60, A4Hz: 440}
	for at := music.Beats(1); at < speedSeconds-4; at += 4 {
		score.Segments = append(score.Segments, scores.Segment{
			Phase:     scores.Play,
			StartBeat: at,
			Beats:     3,
			Target:    i.Home() + music.MIDI(int(at)/4%12),
		})
	}
	score.Segments = append(score.Segments, scores.Segment{Phase: scores.Rest, StartBeat: speedSeconds})
	sound, _ := synth.Player{
		Instrument: i,
		Breath:     -40,
		Room:       -65,
		Jitter:     2,
		WaverDepth: 5,
	}.Play(score, 48000)
	return sound
}
