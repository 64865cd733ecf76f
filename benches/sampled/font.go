// Package sampled plays sampled real instruments, for checks that owe nothing to
// our own synthesiser: two sets of recordings from Debian's packages, played by
// fluidsynth. All are installed by ./test and ./bench.
package sampled

import (
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Font is a set of recorded instruments.
type Font struct {
	Name string // of Debian's package
	path string
	// unsampled are the instruments whose General MIDI program is the sound of
	// another one.
	unsampled []string
	// faulty names, for an instrument, what no take of its recordings is right in.
	faulty map[string][]scores.MeasureKey
	// aahs is the program of a singing voice.
	aahs int
}

// unsampled have no program of their own in General MIDI.
var unsampled = []string{"eb-clarinet", "alto-clarinet", "bass-clarinet", "mellophone", "euphonium", "euphonium-tc"}

// The two sets. They come from different people and rooms.
var (
	TimGM = Font{
		Name:      "timgm6mb-soundfont",
		path:      "/usr/share/sounds/sf2/TimGM6mb.sf2",
		unsampled: unsampled,
		faulty: map[string][]scores.MeasureKey{
			// Its loops die away by 14 dB in eight seconds.
			"oboe": {measure.LevelEnds.Key, measure.Level.Key, measure.SwellRange.Key},
			// A vibrato of 12 cents either way.
			"tenor-sax": {measure.Steadiness.Key},
		},
		aahs: 52,
	}
	Csound = Font{
		Name:      "csound-soundfont",
		path:      "/usr/share/sounds/sf2/sf_GMbank.sf2",
		unsampled: unsampled,
		aahs:      52,
	}
)

// Fonts lists the sets.
func Fonts() []Font { return []Font{TimGM, Csound} }

// Known reports whether an instrument has a sample of its own.
func (f Font) Known(key string) bool {
	_, err := instrument.Get(key)
	return err == nil && !slices.Contains(f.unsampled, key)
}

// Fair reports whether an instrument's recordings can be right in what a step is judged
// by, as they were measured themselves.
func (f Font) Fair(key string, rules []scores.Rule) bool {
	return !slices.ContainsFunc(rules, func(r scores.Rule) bool { return slices.Contains(f.faulty[key], r.Measure) })
}

// play renders a Standard MIDI File without reverb or chorus.
func (f Font) play(midi []byte, rate int) (audio.Mono, error) {
	// Where the file is missing fluidsynth plays another font without a word.
	if _, err := os.Stat(f.path); err != nil {
		return audio.Mono{}, fmt.Errorf("the sampled instruments are missing: install %s (%w)", f.Name, err)
	}
	folder, err := os.MkdirTemp("", "sampled")
	if err != nil {
		return audio.Mono{}, err
	}
	defer os.RemoveAll(folder) //nolint:errcheck // a temporary folder
	in, out := filepath.Join(folder, "notes.mid"), filepath.Join(folder, "notes.wav")
	if err := os.WriteFile(in, midi, 0o600); err != nil {
		return audio.Mono{}, err
	}
	// Of the font only the notes that are played are loaded.
	quick := []string{"-ni", "-q", "-o", "synth.dynamic-sample-loading=1", "-R", "0", "-C", "0"}
	arguments := append(quick, "-r", fmt.Sprint(rate), "-g", "0.6", "-F", out, f.path, in)
	said, err := exec.Command("fluidsynth", arguments...).CombinedOutput()
	if err != nil {
		return audio.Mono{}, fmt.Errorf("fluidsynth: %w: %s", err, said)
	}
	file, err := os.ReadFile(out)
	if err != nil {
		return audio.Mono{}, err
	}
	return wav.Decode(bytes.NewReader(file), 0)
}
