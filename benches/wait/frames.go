package main

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"

	"earlychorus/benches/figures"
	"earlychorus/e2e/browser"
)

// drawnFrames is how often the page was drawn while a take was recorded.
type drawnFrames struct {
	Second float64 // frames a second
	Late   float64 // of a hundred, those that came more than a frame late
}

// count watches the page's frames for five seconds. A frame is late when another would
// have fitted in before it.
const count = `new Promise((told) => {
	const at = []
	const look = (t) => {
		at.push(t)
		if (t - at[0] < 5000) return requestAnimationFrame(look)
		const gaps = at.slice(1).map((t, n) => t - at[n])
		told(JSON.stringify({
			Second: (1000 * gaps.length) / (at.at(-1) - at[0]),
			Late: (100 * gaps.filter((g) => g > 33).length) / gaps.length,
		}))
	}
	requestAnimationFrame(look)
})`

// slowed is by how much the processor is slowed down, for a phone's sake.
var slowed = []float64{1, 4}

// framesTimes is how often frames are counted; what is told is the middle.
const framesTimes = 3

// frames records takes on a processor as it is, and on a slowed one, by turns, and counts.
func frames(page context.Context) ([]figures.Figure, error) {
	if _, err := chromedp.Run(
		page,
		chromedp.Evaluate[string](fmt.Sprintf(nearest, 12.), chromedp.EvalAwaitPromise),
	); err != nil {
		return nil, err
	}
	counted := map[float64][]drawnFrames{}
	for range framesTimes {
		for _, by := range slowed {
			drawn, err := drawnOn(page, by)
			if err != nil {
				return nil, err
			}
			fmt.Fprintf(os.Stderr, "%.0f times as slow: %.1f frames a second, %.1f %% late\n",
				by, drawn.Second, drawn.Late)
			counted[by] = append(counted[by], drawn)
		}
	}
	var all []figures.Figure
	for _, by := range slowed {
		slices.SortFunc(counted[by], func(a, b drawnFrames) int { return cmp.Compare(a.Second, b.Second) })
		middle := counted[by][framesTimes/2]
		name := "frames a second"
		if by > 1 {
			name += fmt.Sprintf(", on a processor %.0f times as slow", by)
		}
		fmt.Printf("%s: %.1f, %.1f %% late\n", name, middle.Second, middle.Late)
		all = append(all, figures.AtLeast(name, "%.0f", middle.Second, 59))
	}
	return all, nil
}

// drawnOn counts the frames while a take is recorded on a processor that is slowed down.
func drawnOn(page context.Context, by float64) (drawn drawnFrames, err error) {
	err = chromedp.Do(
		page,
		chromedp.WaitVisible(`button[data-key="r"]:not(:disabled)`),
		browser.Press("Record"),
		chromedp.WaitVisible(`[data-recording]`),
	)
	if err != nil {
		return drawn, err
	}
	if err := slow(page, by); err != nil {
		return drawn, err
	}
	told, err := chromedp.Run(page, chromedp.Evaluate[string](count, chromedp.EvalAwaitPromise))
	if err != nil {
		return drawn, err
	}
	if err := slow(page, 1); err != nil {
		return drawn, err
	}
	if err := json.Unmarshal([]byte(told), &drawn); err != nil {
		return drawn, err
	}
	return drawn, chromedp.Do(
		page,
		chromedp.WaitVisible("[data-verdict]"),
		chromedp.Sleep(time.Second),
		browser.Press("Again"),
	)
}

func slow(page context.Context, by float64) error {
	_, err := chromedp.Run(page, func(ctx context.Context, t *chromedp.Target) (chromedp.Void, error) {
		_, err := cdp.Call(ctx, t, emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: by})
		return chromedp.Void{}, err
	})
	return err
}
