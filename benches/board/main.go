// Command board measures how much script time the browser needs for a board of 70
// players and 8 steps with a ribbon in every cell, against a server with the demo
// data, whose answer is multiplied in the page:
//
//	go run ./benches/board http://127.0.0.1:8080
package main

import (
	"context"
	"fmt"
	"os"
	"slices"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"

	"earlychorus/e2e/browser"
	"earlychorus/server/demo"
)

const draws = 7

// inflate makes 70 players and 8 steps of whatever the server answers, every cell
// with the ribbon of one that has one, and marks when React may begin and when the
// page was drawn.
const inflate = `(() => {
	const real = window.fetch
	window.longest = 0
	new PerformanceObserver((list) => {
		for (const e of list.getEntries()) window.longest = Math.max(window.longest, e.duration)
	}).observe({ type: 'longtask' })
	window.fetch = async (asked, more) => {
		const answer = await real(asked, more)
		if (!/\/today/.test(asked.url ?? asked)) return answer
		const today = await answer.json()
		const cell = today.sections.flatMap((s) => s.players).flatMap((p) => p.cells).find((c) => c.ribbon)
		const step = today.steps[0]
		today.steps = Array.from({ length: 8 }, (_, n) => ({ ...step, id: step.id.slice(0, -1) + n }))
		const player = (s, n) => ({ id: 's' + s + 'p' + n, name: 'Player ' + s + ' ' + n, instrument: 'Flute', cells: today.steps.map((_, k) => ({ ...cell, take_id: cell.take_id.slice(0, -3) + (100 + n) })) })
		today.sections = Array.from({ length: 10 }, (_, s) => ({ name: 'Section ' + s, played: 7, players: Array.from({ length: 7 }, (_, n) => player(s, n)) }))
		return new Response(JSON.stringify(today), { headers: { 'Content-Type': 'application/json' } })
	}
})()`

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

func measure(base string) error {
	ctx, cancel := context.WithTimeout(context.Background(), 2*time.Minute)
	defer cancel()
	tab, closeIt, err := browser.Start(ctx, browser.Options{Width: 1280, Height: 800})
	if err != nil {
		return err
	}
	defer closeIt()
	err = chromedp.Do(tab,
		chromedp.Navigate(base+"/sign-in"), browser.Press("I direct"),
		browser.Type("Email", demo.DirectorEmail), browser.Type("Password", demo.DirectorPassword), chromedp.Click(`form button[type=submit]`), browser.See("Ferry Bell Winds"),
	)
	if err != nil {
		return err
	}
	before := func(ctx context.Context, t *chromedp.Target) (chromedp.Void, error) {
		_, err := cdp.Call(ctx, t, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: inflate})
		return chromedp.Void{}, err
	}
	if _, err := chromedp.Run(tab, before); err != nil {
		return err
	}
	var took []float64
	for range draws {
		err := chromedp.Do(tab,
			chromedp.Reload(), browser.See("Section 9"), chromedp.Sleep(700*time.Millisecond),
		)
		if err != nil {
			return err
		}
		ms, err := chromedp.Run(tab, chromedp.Evaluate[float64](drawing))
		if err != nil {
			return err
		}
		took = append(took, ms)
	}
	slices.Sort(took)
	fmt.Printf("a board of 70 players and 8 steps, %d times: %.0f ms at best, %.0f ms median, %.0f ms at worst: the longest task\n", draws, took[0], took[draws/2], took[draws-1])
	return nil
}

// drawing is the longest time the page did not let go of its thread since the
// answer was there: React's work, and the layout that goes with it.
const drawing = `window.longest`
