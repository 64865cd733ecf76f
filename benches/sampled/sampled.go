// Package sampled renders notes of sampled real instruments, for checks that
// owe nothing to our own synthesiser: Debian's timgm6mb-soundfont played by
// fluidsynth. Both are installed by ./test and ./bench.
package sampled

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// SoundFont is where Debian's package puts it.
const SoundFont = "/usr/share/sounds/sf2/TimGM6mb.sf2"

// unsampled are the instruments whose General MIDI program is the sound of
// another one.
var unsampled = []string{"bass-clarinet", "euphonium", "euphonium-tc"}

// Known reports whether an instrument has a sample.
func Known(key string) bool {
	_, err := instrument.Get(key)
	return err == nil && !slices.Contains(unsampled, key)
}

// Note is when a note is held, and which.
type Note struct {
	From, To music.Seconds
	MIDI     music.MIDI
}

// Render plays the notes on an instrument's sample at 48 kHz, without reverb
// or chorus, and a second of silence behind.
func Render(key string, notes []Note) (audio.Mono, error) {
	i, err := instrument.Get(key)
	if err != nil {
		return audio.Mono{}, err
	}
	// Where the file is missing fluidsynth plays another font without a word.
	if _, err := os.Stat(SoundFont); err != nil {
		return audio.Mono{}, fmt.Errorf("the sampled instruments are missing: install timgm6mb-soundfont (%w)", err)
	}
	folder, err := os.MkdirTemp("", "sampled")
	if err != nil {
		return audio.Mono{}, err
	}
	defer os.RemoveAll(folder) //nolint:errcheck // a temporary folder
	in, out := filepath.Join(folder, "notes.mid"), filepath.Join(folder, "notes.wav")
	if err := os.WriteFile(in, midiFile(i.MIDIProgram, notes), 0o600); err != nil {
		return audio.Mono{}, err
	}
	said, err := exec.Command(
		"fluidsynth",
		"-ni",
		"-q",
		"-R",
		"0",
		"-C",
		"0",
		"-r",
		"48000",
		"-g",
		"0.6",
		"-F",
		out,
		SoundFont,
		in,
	).
		CombinedOutput()
	if err != nil {
		return audio.Mono{}, fmt.Errorf("fluidsynth: %w: %s", err, said)
	}
	file, err := os.ReadFile(out)
	if err != nil {
		return audio.Mono{}, err
	}
	return wav.Decode(bytes.NewReader(file), 0)
}

// ticksASecond with the file's tempo of one quarter a second.
const ticksASecond = 960

// midiFile is a Standard MIDI File of format 0 with one track.
func midiFile(program int, notes []Note) []byte {
	track := []byte{0, 0xFF, 0x51, 3, 0x0F, 0x42, 0x40, 0, 0xC0, byte(program)} // 1,000,000 µs a quarter
	now := 0
	add := func(at music.Seconds, message ...byte) {
		tick := int(float64(at) * ticksASecond)
		track = append(track, variable(tick-now)...)
		track = append(track, message...)
		now = tick
	}
	last := music.Seconds(0)
	for _, n := range notes {
		add(n.From, 0x90, byte(n.MIDI), 90)
		add(n.To, 0x80, byte(n.MIDI), 0)
		last = n.To
	}
	add(last+1, 0xFF, 0x2F, 0)
	var b bytes.Buffer
	b.WriteString("MThd\x00\x00\x00\x06\x00\x00\x00\x01")
	_ = binary.Write(&b, binary.BigEndian, uint16(ticksASecond)) // a Buffer does not fail
	b.WriteString("MTrk")
	_ = binary.Write(&b, binary.BigEndian, uint32(len(track)))
	b.Write(track)
	return b.Bytes()
}

// variable is a MIDI variable-length quantity.
func variable(n int) []byte {
	out := []byte{byte(n & 0x7F)}
	for n >>= 7; n > 0; n >>= 7 {
		out = append([]byte{byte(n&0x7F) | 0x80}, out...)
	}
	return out
}
