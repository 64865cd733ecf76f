package main

import (
	"bufio"
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/core/contour"
	"earlychorus/core/music"
)

// praatScript runs Praat's autocorrelation method with its own defaults but
// for the floor and the ceiling, and prints a line a frame.
const praatScript = `form Pitch
  sentence file
  real floor
  real ceiling
endform
Read from file: file$
To Pitch (ac): 0.01, floor, 15, "off", 0.03, 0.45, 0.01, 0.35, 0.14, ceiling
n = Get number of frames
for i to n
  t = Get time from frame number: i
  f = Get value in frame: i, "Hertz"
  appendInfoLine: t, " ", f
endfor
`

// praat is the accurate reference, told the instrument's range.
func praat(e contour.Ear, m audio.Mono) ([]music.Hertz, error) {
	return withFile(m, func(folder, file string) ([]music.Hertz, error) {
		script := filepath.Join(folder, "pitch.praat")
		if err := os.WriteFile(script, []byte(praatScript), 0o600); err != nil {
			return nil, err
		}
		out, err := exec.Command(
			"praat",
			"--run",
			script,
			file,
			fmt.Sprint(float64(e.Lowest)),
			fmt.Sprint(float64(e.Highest)),
		).
			Output()
		if err != nil {
			return nil, fmt.Errorf("praat: %w", err)
		}
		return frames(m, out), nil
	})
}

const (
	aubioWindow = 2048
	aubioHop    = 480 // 10 ms at 48 kHz
)

// aubio is the fast reference. What it prints at a time belongs to the window
// that ends there.
func aubio(_ contour.Ear, m audio.Mono) ([]music.Hertz, error) {
	return withFile(m, func(_, file string) ([]music.Hertz, error) {
		hop := aubioHop * m.Rate / 48000
		out, err := exec.Command(
			"aubiopitch",
			"-i",
			file,
			"-p",
			"yinfft",
			"-B",
			strconv.Itoa(aubioWindow),
			"-H",
			strconv.Itoa(hop),
			"-u",
			"freq",
		).
			Output()
		if err != nil {
			return nil, fmt.Errorf("aubiopitch: %w", err)
		}
		late := music.Seconds(aubioWindow/2-hop) / music.Seconds(m.Rate)
		heard := frames(m, out)
		shift := contour.Index(late)
		return append(heard[min(shift, len(heard)):], make([]music.Hertz, min(shift, len(heard)))...), nil
	})
}

func withFile(m audio.Mono, run func(folder, file string) ([]music.Hertz, error)) ([]music.Hertz, error) {
	folder, err := os.MkdirTemp("", "ear")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(folder) //nolint:errcheck // a temporary folder
	file := filepath.Join(folder, "take.wav")
	if err := os.WriteFile(file, wav.Encode(m), 0o600); err != nil {
		return nil, err
	}
	return run(folder, file)
}

// frames puts lines of "time pitch" on our grid: the nearest of their frames.
func frames(m audio.Mono, lines []byte) []music.Hertz {
	heard := make([]music.Hertz, int(m.Seconds()/float64(contour.Hop)))
	times := make([]float64, len(heard))
	for n := range times {
		times[n] = -1
	}
	scan := bufio.NewScanner(bytes.NewReader(lines))
	for scan.Scan() {
		parts := strings.Fields(scan.Text())
		if len(parts) < 2 {
			continue
		}
		t, _ := strconv.ParseFloat(parts[0], 64)
		f, err := strconv.ParseFloat(parts[1], 64)
		if err != nil {
			f = 0 // Praat's "--undefined--"
		}
		if n := contour.Index(music.Seconds(t)); n >= 0 && n < len(heard) {
			heard[n] = music.Hertz(f)
		}
	}
	return heard
}
