// Command wait measures how long a player waits for the word on a take, in a real
// browser, against a server with the demo data:
//
//	go run ./benches/wait http://127.0.0.1:8080
package main

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"slices"
	"strings"
	"time"

	"github.com/chromedp/chromedp"

	"earlychorus/benches/figures"
	"earlychorus/e2e/browser"
	"earlychorus/server/demo"
)

// lengths are the seconds that takes should last; the day's step nearest to each is played.
var lengths = []float64{12, 30, 60}

// takes is how often each is played.
var takes = 20

const (
	// nearest opens the step whose take lasts about so long, and says how long.
	nearest = `(async (wanted) => {
		const long = () => Number(document.body.innerText.match(/by itself after (\d+) s/)?.[1] ?? 1e9)
		const pause = () => new Promise((r) => setTimeout(r, 400))
		let best = [1e9]
		for (const b of document.querySelectorAll('nav[aria-label^="Today"] button')) {
			b.click()
			await pause()
			if (Math.abs(long() - wanted) < Math.abs(best[0] - wanted)) best = [long(), b]
		}
		best[1].click()
		await pause()
		return String(best[0])
	})(%f)`
)

func main() {
	into := flag.String("o", "", "file to write the figures into; standard output otherwise")
	flag.IntVar(&takes, "takes", takes, "how often each length is played")
	longest := flag.Float64("longest", lengths[len(lengths)-1], "no length over so many seconds")
	drawing := flag.Bool("frames", false, "nothing but the frames a second, into the figures alone")
	flag.Parse()
	lengths = slices.DeleteFunc(lengths, func(l float64) bool { return l > *longest })
	base := "http://127.0.0.1:8080"
	if flag.NArg() > 0 {
		base = flag.Arg(0)
	}
	if err := measure(base, *into, *drawing); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

// measure lets a simulated player play live, and reads the page's own marks: when the take
// ended, when it was judged, and when the word was there.
func measure(base, into string, drawing bool) error {
	ctx, cancel := context.WithTimeout(context.Background(), 2*time.Hour)
	defer cancel()
	if err := assignLong(ctx, base); err != nil {
		return err
	}
	page, closeIt, err := browser.Start(ctx, browser.Options{Width: 390, Height: 844, Microphone: browser.Beeps})
	if err != nil {
		return err
	}
	defer closeIt()
	who := demo.SignIns()[5]
	err = chromedp.Do(
		page,
		browser.SignInPlayer(base, demo.ClassCode, who.Name, who.PIN),
		chromedp.Evaluate[chromedp.Void](
			`localStorage.setItem('sounds', JSON.stringify({ input: 'wavering' }))`,
		),
		opened(),
	)
	if err != nil {
		return err
	}
	drawn, err := frames(page)
	if err != nil {
		return err
	}
	if drawing {
		return figures.Put("frames", drawn)
	}
	var table strings.Builder
	var all []figures.Figure
	for _, wanted := range lengths {
		row, latest, err := lasting(page, wanted)
		if err != nil {
			return err
		}
		fmt.Print(row)
		table.WriteString(row)
		all = append(all, latest)
	}
	native, err := againstNative(page)
	if err != nil {
		return err
	}
	if into == "" {
		return nil
	}
	if err := os.WriteFile(into, []byte(head+table.String()), 0o644); err != nil {
		return err
	}
	if err := figures.Put("frames", drawn); err != nil {
		return err
	}
	return figures.Put("wait", append(all, native))
}

// opened opens the practice page anew, and gives it the time in which a player reads the step.
func opened() chromedp.Action[chromedp.Void] {
	return chromedp.Steps(
		chromedp.Reload(),
		chromedp.WaitVisible(`section[aria-label="Your step"]`),
		chromedp.Evaluate[chromedp.Void](watchesForWhole),
		chromedp.Sleep(5*time.Second),
	)
}

// watchesForWhole marks when the core is sent a whole take: it had not come in block by block.
const watchesForWhole = `(() => {
	const { postMessage } = Worker.prototype
	Worker.prototype.postMessage = function (message, ...more) {
		if (message.name === 'judge' && message.samples) performance.mark('take-sent-whole')
		return postMessage.call(this, message, ...more)
	}
})()`

// lasting lets the step that lasts about so long be played some times, on a page that was just
// opened: the first take has to be told as soon as the others.
func lasting(page context.Context, wanted float64) (row string, latest figures.Figure, err error) {
	if err = chromedp.Do(page, opened()); err != nil {
		return "", latest, err
	}
	long, err := chromedp.Run(
		page,
		chromedp.Evaluate[string](fmt.Sprintf(nearest, wanted), chromedp.EvalAwaitPromise),
	)
	if err != nil {
		return "", latest, err
	}
	var judgedAt, toldAt []float64
	for n := range takes {
		took, err := play(page)
		if err != nil {
			return "", latest, err
		}
		fmt.Fprintf(os.Stderr, "%s s, %d of %d: judged after %.0f ms, told after %.0f, sent whole %d times\n",
			long, n+1, takes, took.Judged, took.Told, took.Whole)
		judgedAt, toldAt = append(judgedAt, took.Judged), append(toldAt, took.Told)
	}
	slices.Sort(judgedAt)
	slices.Sort(toldAt)
	of := func(ms []float64) string {
		return fmt.Sprintf("%.0f | %.0f | %.0f | %.0f", ms[0], ms[takes/2], nineteen(ms), ms[takes-1])
	}
	row = fmt.Sprintf("| %s | %s | %s |\n", long, of(judgedAt), of(toldAt))
	return row, figures.AtMost(
		fmt.Sprintf("a take of %s s, 95 of a hundred (%d played)", long, takes),
		"%.0f ms",
		nineteen(toldAt),
		100,
	), nil
}

// nineteen is what nineteen of twenty stay within, of times in order (the nearest rank).
func nineteen(ms []float64) float64 { return ms[(19*len(ms)+19)/20-1] }

const head = `# From the end of a take to its word

Written by ` + "`go run ./benches/wait -o benches/WAIT.md`" + ` against the demo, in headless Chromium on the
server's machine, a simulated player in the microphone's place, each length on a page just opened. Milliseconds:
when the core had judged the take, and when the word stood on the page, of some takes the best, the middle, what 95
of a hundred stay within, and the worst.

| seconds | judged | | | | told | | | |
| ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |
`

// told waits for the page's mark that the word is there, and says when it was judged and told,
// in milliseconds from the take's end. The page itself waits: one that is asked every few
// milliseconds whether it has the word by now is slower to have it.
const told = `new Promise((told) => new PerformanceObserver((marks, watch) => {
	const at = (name) => performance.getEntriesByName(name)[0]?.startTime
	if (at('take-told') === undefined) return
	watch.disconnect()
	const since = (name) => at(name) - at('take-ended')
	const whole = performance.getEntriesByName('take-sent-whole').length
	setTimeout(() => told(JSON.stringify({ judged: since('take-judged'), told: since('take-told'), whole })), 500)
}).observe({ entryTypes: ['mark'] }))`

// wait is how long after a take's end it was judged and its word was there, in milliseconds,
// and how often the core was sent it whole.
type wait struct {
	Judged, Told float64
	Whole        int
}

// play lets the take be played once.
func play(page context.Context) (took wait, err error) {
	err = chromedp.Do(
		page,
		chromedp.WaitVisible(`button[data-key="r"]:not(:disabled)`),
		chromedp.Evaluate[chromedp.Void](`performance.clearMarks()`),
		browser.Press("Record"),
	)
	if err != nil {
		return took, err
	}
	text, err := chromedp.Run(page, chromedp.Evaluate[string](told, chromedp.EvalAwaitPromise))
	if err != nil {
		return took, err
	}
	if err := json.Unmarshal([]byte(text), &took); err != nil {
		return took, fmt.Errorf("the page's marks %s: %w", text, err)
	}
	return took, chromedp.Do(page, browser.Press("Again")) // the rest is waited for
}
