package main

import (
	"fmt"
	"io"
	"math"
	"runtime"
	"strings"
	"time"

	"earlychorus/benches/figures"
	"earlychorus/core/instrument"
)

func head(out io.Writer, part int) {
	fmt.Fprintf(
		out,
		"# The ear, measured\n\n%s, %s/%s, %d processors; half %d of the material.\n\n",
		time.Now().Format(time.DateOnly),
		runtime.GOOS,
		runtime.GOARCH,
		runtime.NumCPU(),
		part,
	)
	fmt.Fprintln(
		out,
		"| condition | listener | recall % | gross % | octave or partial % | within 25 c % | false % | median c | "+
			"95 % c | cracks found % | crack bias c |",
	)
	fmt.Fprintln(out, "| --- | --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |")
}

func row(out io.Writer, condition, listener string, t tally) {
	fmt.Fprintf(
		out,
		"| %s | %s | %s | %s | %s | %s | %s | %s | %s | %s | %s |\n",
		condition,
		listener,
		figure(
			share(t.heard, t.asked),
			2,
		),
		figure(share(t.gross, t.heard), 3),
		figure(share(t.octave, t.heard), 3),
		figure(share(t.within, t.asked), 2),
		figure(share(t.false_, t.rest), 2),
		figure(quantile(t.cents, 0.5), 3),
		figure(quantile(t.cents, 0.95), 2),
		figure(share(t.found, t.cracks), 1),
		figure(quantile(t.crackCents, 0.5), 2),
	)
}

// heardBest is how our own ear did under the conditions that goals are set for.
func heardBest(ours map[string]tally) []figures.Figure {
	var out []figures.Figure
	gross := func(condition string, goal float64) {
		if t, ok := ours[condition]; ok {
			out = append(out, figures.AtMost("gross errors, "+condition, "%.3f %%", share(t.gross, t.heard), goal))
		}
	}
	gross("clean", 0.02)
	for _, condition := range []string{"noise 10 dB", "echo", "clipped", "lossy"} {
		gross(condition, 0.02)
	}
	if t, ok := ours["noise 5 dB"]; ok {
		right := 100 - share(t.gross, t.heard)
		out = append(out, figures.AtLeast("right, noise 5 dB", "%.2f %%", right, 98))
	}
	if t, ok := ours["noise 10 dB"]; ok {
		cents := quantile(t.cents, 0.95)
		out = append(out, figures.AtMost("off by, noise 10 dB, 95th percentile", "%.2f cents", cents, 3.1))
	}
	return out
}

func figure(x float64, digits int) string {
	if math.IsNaN(x) {
		return ""
	}
	return fmt.Sprintf("%.*f", digits, x)
}

// byInstrument is how each listener did on each instrument, over all conditions.
type byInstrument struct {
	listeners int
	tallies   map[string][]tally
}

func newByInstrument(listeners int) byInstrument {
	return byInstrument{listeners, map[string][]tally{}}
}

func (b byInstrument) add(key string, listener int, t tally) {
	if b.tallies[key] == nil {
		b.tallies[key] = make([]tally, b.listeners)
	}
	b.tallies[key][listener].merge(t)
}

func (b byInstrument) print(out io.Writer, listeners []listener) {
	fmt.Fprint(
		out,
		"\n## By instrument\n\nOver all conditions above: gross errors in per cent, and within 25 cents.\n\n"+
			"| instrument |",
	)
	for _, l := range listeners {
		fmt.Fprintf(out, " %s |  |", l.name)
	}
	fmt.Fprint(out, "\n| --- |", strings.Repeat(" ---: | ---: |", len(listeners)), "\n")
	for _, i := range instrument.All() {
		if b.tallies[i.Key] == nil {
			continue
		}
		fmt.Fprintf(out, "| %s |", i.Key)
		for _, t := range b.tallies[i.Key] {
			fmt.Fprintf(out, " %s | %s |", figure(share(t.gross, t.heard), 3), figure(share(t.within, t.asked), 2))
		}
		fmt.Fprintln(out)
	}
}
