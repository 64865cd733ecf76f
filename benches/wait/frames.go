package main

import (
	"context"
	"encoding/json"
	"fmt"
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

// frames records a take on a processor as it is, and on a slowed one, and counts.
func frames(page context.Context) ([]figures.Figure, error) {
	if _, err := chromedp.Run(
		page,
		chromedp.Evaluate[string](fmt.Sprintf(nearest, 12.), chromedp.EvalAwaitPromise),
	); err != nil {
		return nil, err
	}
	var all []figures.Figure
	for _, by := range slowed {
		err := chromedp.Do(
			page,
			chromedp.WaitVisible(`button[data-key="r"]:not(:disabled)`),
			browser.Press("Record"),
			chromedp.WaitVisible(`[data-recording]`),
		)
		if err != nil {
			return nil, err
		}
		if err := slow(page, by); err != nil {
			return nil, err
		}
		told, err := chromedp.Run(page, chromedp.Evaluate[string](count, chromedp.EvalAwaitPromise))
		if err != nil {
			return nil, err
		}
		if err := slow(page, 1); err != nil {
			return nil, err
		}
		var d drawnFrames
		if err := json.Unmarshal([]byte(told), &d); err != nil {
			return nil, err
		}
		name := "frames a second"
		if by > 1 {
			name += fmt.Sprintf(", on a processor %.0f times as slow", by)
		}
		fmt.Printf("%s: %.1f, %.1f %% late\n", name, d.Second, d.Late)
		all = append(all, figures.AtLeast(name, "%.0f", d.Second, 59))
		err = chromedp.Do(
			page,
			chromedp.WaitVisible("[data-verdict]"),
			chromedp.Sleep(time.Second),
			browser.Press("Again"),
		)
		if err != nil {
			return nil, err
		}
	}
	return all, nil
}

func slow(page context.Context, by float64) error {
	_, err := chromedp.Run(page, func(ctx context.Context, t *chromedp.Target) (chromedp.Void, error) {
		_, err := cdp.Call(ctx, t, emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: by})
		return chromedp.Void{}, err
	})
	return err
}
