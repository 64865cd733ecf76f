package main

import (
	"fmt"
	"io"
	"math"
	"runtime"
	"time"
)

func head(out io.Writer, part int) {
	fmt.Fprintf(out, "# The ear, measured\n\n%s, %s/%s, %d processors; half %d of the material.\n\n", time.Now().Format(time.DateOnly), runtime.GOOS, runtime.GOARCH, runtime.NumCPU(), part)
	fmt.Fprintln(out, "| condition | listener | recall % | gross % | octave or partial % | within 25 c % | false % | median c | 95 % c | cracks found % | crack bias c |")
	fmt.Fprintln(out, "| --- | --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |")
}

func row(out io.Writer, condition, listener string, t tally) {
	fmt.Fprintf(out, "| %s | %s | %s | %s | %s | %s | %s | %s | %s | %s | %s |\n", condition, listener,
		figure(share(t.heard, t.asked), 2), figure(share(t.gross, t.heard), 3), figure(share(t.octave, t.heard), 3), figure(share(t.within, t.asked), 2),
		figure(share(t.false_, t.rest), 2), figure(quantile(t.cents, 0.5), 3), figure(quantile(t.cents, 0.95), 2),
		figure(share(t.found, t.cracks), 1), figure(quantile(t.crackCents, 0.5), 2))
}

func figure(x float64, digits int) string {
	if math.IsNaN(x) {
		return ""
	}
	return fmt.Sprintf("%.*f", digits, x)
}
