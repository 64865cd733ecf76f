package main

import (
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
)

// lossy sends the sound through an MP3 of 48 kbit/s and back (lame, Debian's).
// The codec's delay is taken off by lame itself.
func lossy(m audio.Mono) (audio.Mono, error) {
	folder, err := os.MkdirTemp("", "ear")
	if err != nil {
		return m, err
	}
	defer os.RemoveAll(folder) //nolint:errcheck // a temporary folder
	in, mp3, out := filepath.Join(folder, "in.wav"), filepath.Join(folder, "x.mp3"), filepath.Join(folder, "out.wav")
	if err := os.WriteFile(in, wav.Encode(m), 0o600); err != nil {
		return m, err
	}
	for _, args := range [][]string{{"--quiet", "-b", "48", in, mp3}, {"--quiet", "--decode", mp3, out}} {
		if said, err := exec.Command("lame", args...).CombinedOutput(); err != nil {
			return m, fmt.Errorf("lame: %w: %s", err, said)
		}
	}
	file, err := os.ReadFile(out)
	if err != nil {
		return m, err
	}
	back, err := wav.Decode(bytes.NewReader(file), 0)
	return back, err
}
