// Command wait measures how long a player waits for the word on a take, in a real
// browser, against a server with the demo data:
//
//	go run ./benches/wait http://127.0.0.1:8080
package main

import (
	"context"
	"fmt"
	"os"
	"slices"
	"time"

	"github.com/chromedp/chromedp"

	"earlychorus/e2e/browser"
	"earlychorus/server/demo"
)

const (
	takes = 5
	// about is how long the take should be; the day's step nearest to it is played.
	about = `(async () => {
		const long = () => Number(document.body.innerText.match(/by itself after (\d+) s/)?.[1] ?? 1e9)
		const pause = () => new Promise((r) => setTimeout(r, 400))
		let best = [1e9]
		for (const b of document.querySelectorAll('nav[aria-label^="Today"] button')) {
			b.click()
			await pause()
			if (Math.abs(long() - 12) < Math.abs(best[0] - 12)) best = [long(), b]
		}
		best[1].click()
		await pause()
		return String(best[0])
	})()`
)

func main() {
	base := "http://127.0.0.1:8080"
	if len(os.Args) > 1 {
		base = os.Args[1]
	}
	if err := measure(base); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

// measure lets a simulated player play the long tone live, and reads the page's
// own marks: when the take ended, and when the word was there.
func measure(base string) error {
	ctx, cancel := context.WithTimeout(context.Background(), 3*time.Minute)
	defer cancel()
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
		chromedp.Reload(),
		chromedp.WaitVisible(`section[aria-label="Your step"]`),
	)
	if err != nil {
		return err
	}
	long, err := chromedp.Run(page, chromedp.Evaluate[string](about, chromedp.EvalAwaitPromise))
	if err != nil {
		return err
	}
	var waits []float64
	for range takes {
		err := chromedp.Do(
			page,
			chromedp.WaitVisible(`button[data-key="r"]:not(:disabled)`),
			chromedp.Evaluate[chromedp.Void](`performance.clearMarks()`),
			browser.Press("Record"),
			chromedp.WaitVisible(`[data-recording]`),
			chromedp.WaitVisible("[data-verdict]"),
			chromedp.Sleep(300*time.Millisecond),
		)
		if err != nil {
			return err
		}
		wait, err := since(page, "take-judged")
		if err != nil {
			return err
		}
		judged, err := since(page, "take-judged")
		if err != nil {
			return err
		}
		fmt.Printf("judged after %.0f ms, told after %.0f ms\n", judged, wait)
		waits = append(waits, wait)
		if err := chromedp.Do(page, browser.Press("Again")); err != nil { // the rest is waited for
			return err
		}
	}
	slices.Sort(waits)
	fmt.Printf("from the end of a take of %s s to the word on it, %d takes: ", long, takes)
	fmt.Printf("%.0f ms at best, %.0f ms median, %.0f ms at worst\n", waits[0], waits[takes/2], waits[takes-1])
	return nil
}

// since returns how long after the end of the take the page set a mark, in
// milliseconds.
func since(page context.Context, mark string) (float64, error) {
	return chromedp.Run(page, chromedp.Evaluate[float64](fmt.Sprintf(
		`performance.getEntriesByName(%q)[0].startTime -
			performance.getEntriesByName('take-ended')[0].startTime`, mark)))
}
