// Command ear measures the ear against two reference tools on the same files
// in one run, and writes a table. ./bench runs it.
package main

import (
	"bytes"
	"context"
	"flag"
	"fmt"
	"io"
	"os"
	"strings"
	"sync"

	"earlychorus/benches/figures"
	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// listener is one way of hearing pitch: a frame each contour.Hop, 0 for none.
type listener struct {
	name string
	hear func(contour.Ear, audio.Mono) ([]music.Hertz, error)
}

var (
	ours = listener{"early chorus", func(e contour.Ear, m audio.Mono) ([]music.Hertz, error) { return track(e, m) }}
	open = listener{
		"without instrument",
		func(_ contour.Ear, m audio.Mono) ([]music.Hertz, error) { return track(contour.OpenEar, m) },
	}
)

func track(e contour.Ear, m audio.Mono) ([]music.Hertz, error) {
	c, err := e.Track(context.Background(), m)
	out := make([]music.Hertz, len(c.Frames))
	for n, f := range c.Frames {
		out[n] = f.Pitch
	}
	return out, err
}

func main() {
	part := flag.Int("part", 0, "half of the notes: 0 for working on the ear, 1 for the last look")
	only := flag.String("only", "", "conditions whose name contains this")
	key := flag.String("instrument", "", "this instrument only")
	alone := flag.Bool("alone", false, "our ear only, told the instrument")
	detail := flag.Bool("detail", false, "a row for each instrument too")
	into := flag.String("o", "", "file to write the tables into as well")
	program := flag.String("program", "", "built cmd/ear, for speed as whole processes")
	flag.Parse()
	var report bytes.Buffer
	out := io.MultiWriter(os.Stdout, &report)
	listeners := []listener{ours, open, {"praat", praat}, {"aubio yinfft", aubio}}
	if *alone {
		listeners = listeners[:1]
	}
	head(out, *part)
	instruments := newByInstrument(len(listeners))
	ours := map[string]tally{} // by condition
	for _, c := range conditions() {
		if !strings.Contains(c.name, *only) {
			continue
		}
		tallies, err := c.run(listeners, *key, *part, *detail, out, instruments)
		if err != nil {
			fmt.Fprintln(os.Stderr, "ear:", err)
			os.Exit(1)
		}
		for n, l := range listeners {
			row(out, c.name, l.name, tallies[n])
		}
		ours[c.name] = tallies[0]
	}
	instruments.print(out, listeners)
	var quick []figures.Figure
	if *program != "" {
		var err error
		if quick, err = speed(out, *program); err != nil {
			fmt.Fprintln(os.Stderr, "ear:", err)
			os.Exit(1)
		}
	}
	if *into != "" {
		err := os.WriteFile(*into, report.Bytes(), 0o644)
		if err == nil {
			err = figures.Put("ear", append(heardBest(ours), quick...))
		}
		if err != nil {
			fmt.Fprintln(os.Stderr, "ear:", err)
			os.Exit(1)
		}
	}
}

// atOnce is how many instruments are played and heard at the same time.
const atOnce = 2

// run plays every instrument under the condition to every listener.
func (c condition) run(
	listeners []listener,
	key string,
	part int,
	detail bool,
	out io.Writer,
	instruments byInstrument,
) ([]tally, error) {
	all := make([]tally, len(listeners))
	var lock sync.Mutex
	var wait sync.WaitGroup
	var failed error
	tokens := make(chan struct{}, atOnce)
	for _, i := range instrument.All() {
		if key != "" && i.Key != key || !c.fits(i) {
			continue
		}
		tokens <- struct{}{}
		wait.Go(func() {
			defer func() { <-tokens }()
			s, err := c.make(i, part)
			for n, l := range listeners {
				var heard []music.Hertz
				if err == nil {
					heard, err = l.hear(ear.For(i), s.sound)
				}
				var t tally
				t.add(s, heard)
				lock.Lock()
				if detail {
					row(out, c.name+", "+i.Key, l.name, t)
				}
				all[n].merge(t)
				instruments.add(i.Key, n, t)
				if err != nil && failed == nil {
					failed = fmt.Errorf("%s, %s: %w", c.name, i.Key, err)
				}
				lock.Unlock()
			}
		})
	}
	wait.Wait()
	return all, failed
}
