// Command board measures what the browser needs to draw a board of 70 players and 8
// steps with a ribbon in every cell, coming from another page: script time, style
// and layout, and the longest task. It asks a server with the demo data, whose
// answer is multiplied in the page (the time for that is taken off again):
//
//	go run ./benches/board http://127.0.0.1:8080
package main

import (
	"context"
	"flag"
	"fmt"
	"os"
	"slices"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/performance"
	"github.com/chromedp/chromedp"

	"earlychorus/benches/figures"
	"earlychorus/e2e/browser"
	"earlychorus/server/demo"
)

const draws = 7

// inflate makes 70 players and 8 steps of whatever the server answers, every cell
// with the ribbon of one that has one. It does so once and keeps the answer: what that
// leaves behind is not the board's to sweep up.
const inflate = `(() => {
	const real = window.fetch
	window.longest = 0
	new PerformanceObserver((list) => {
		for (const e of list.getEntries()) window.longest = Math.max(window.longest, e.duration)
	}).observe({ type: 'longtask' })
	window.fetch = async (asked, more) => {
		const answer = await real(asked, more)
		if (!/\/today/.test(asked.url ?? asked)) return answer
		const began = performance.now()
		const done = () => {
			window.inflating = (window.inflating ?? 0) + performance.now() - began
		}
		const asJSON = { headers: { 'Content-Type': 'application/json' } }
		const kept = sessionStorage.getItem('board')
		if (kept) {
			const large = new Response(kept, asJSON)
			done()
			return large
		}
		const today = await answer.json()
		const cell = today.sections.flatMap((s) => s.players).flatMap((p) => p.cells).find((c) => c.ribbon)
		const step = today.steps[0]
		today.steps = Array.from({ length: 8 }, (_, n) => ({ ...step, id: step.id.slice(0, -1) + n }))
		const player = (s, n) => ({ id: 's' + s + 'p' + n, name: 'Player ' + s + ' ' + n, instrument: 'Flute',
			cells: today.steps.map((_, k) => ({ ...cell, take_id: cell.take_id.slice(0, -3) + (100 + n) })) })
		today.sections = Array.from({ length: 10 }, (_, s) => ({
			name: 'Section ' + s, played: 7, players: Array.from({ length: 7 }, (_, n) => player(s, n)) }))
		sessionStorage.setItem('board', JSON.stringify(today))
		const large = new Response(JSON.stringify(today), asJSON)
		done()
		return large
	}
})()`

func main() {
	keep := flag.Bool("keep", false, "put the figures on benches/RESULTS.md")
	flag.Parse()
	base := "http://127.0.0.1:8080"
	if flag.NArg() > 0 {
		base = flag.Arg(0)
	}
	if err := measure(base, *keep); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func measure(base string, keep bool) error {
	ctx, cancel := context.WithTimeout(context.Background(), 4*time.Minute)
	defer cancel()
	tab, closeIt, err := browser.Start(ctx, browser.Options{Width: 1280, Height: 800})
	if err != nil {
		return err
	}
	defer closeIt()
	err = chromedp.Do(tab, browser.SignInDirector(base, demo.DirectorEmail, demo.DirectorPassword))
	if err != nil {
		return err
	}
	before := func(ctx context.Context, t *chromedp.Target) (chromedp.Void, error) {
		_, err := cdp.Call(
			ctx,
			t,
			page.AddScriptToEvaluateOnNewDocument,
			page.AddScriptToEvaluateOnNewDocumentParams{Source: inflate},
		)
		return chromedp.Void{}, err
	}
	if _, err := chromedp.Run(tab, before); err != nil {
		return err
	}
	var script, layout, longest []float64
	for n := range draws + 1 {
		d, err := draw(tab)
		if err != nil {
			return err
		}
		if n == 0 {
			continue // it made the large answer
		}
		script, layout, longest = append(script, d.script), append(layout, d.layout), append(longest, d.longest)
	}
	fmt.Printf("a board of 70 players and 8 steps, drawn %d times; ms at best, in the middle, at worst\n", draws)
	for _, of := range []struct {
		what string
		took []float64
	}{{"script", script}, {"style and layout", layout}, {"longest task", longest}} {
		slices.Sort(of.took)
		fmt.Printf("%-17s %4.0f %4.0f %4.0f\n", of.what, of.took[0], of.took[draws/2], of.took[draws-1])
	}
	if !keep {
		return nil
	}
	return figures.Put("board", []figures.Figure{
		figures.AtMost("script, in the middle of seven draws", "%.0f ms", script[draws/2], 100),
		figures.AtMost("script, at worst", "%.0f ms", script[draws-1], 100),
		figures.Plain("style and layout, middle and worst", "%.0f and %.0f ms", layout[draws/2], layout[draws-1]),
	})
}

// drawn is what one drawing of the board took, in milliseconds.
type drawn struct{ script, layout, longest float64 }

// draw opens the board from another page.
func draw(tab context.Context) (d drawn, err error) {
	err = chromedp.Do(
		tab,
		browser.Press("Plan"),
		chromedp.Sleep(time.Second),
		chromedp.Reload(),
		browser.See("minutes"),
		chromedp.Sleep(1500*time.Millisecond),
	)
	if err != nil {
		return d, err
	}
	before, err := spentIn(tab)
	if err != nil {
		return d, err
	}
	if err := chromedp.Do(tab, browser.Press("Today"), chromedp.Sleep(2*time.Second)); err != nil {
		return d, err
	}
	after, err := spentIn(tab)
	if err != nil {
		return d, err
	}
	if d.longest, err = chromedp.Run(tab, chromedp.Evaluate[float64]("window.longest")); err != nil {
		return d, err
	}
	ours, err := chromedp.Run(tab, chromedp.Evaluate[float64]("window.inflating"))
	if err != nil {
		return d, err
	}
	spent := func(what string) float64 { return after[what] - before[what] }
	d.script = spent("ScriptDuration") - ours
	d.layout = spent("LayoutDuration") + spent("RecalcStyleDuration")
	return d, chromedp.Do(tab, browser.See("Section 9")) // it was the large board
}

// spentIn returns the browser's own count of what its thread did so far, in
// milliseconds.
func spentIn(tab context.Context) (map[string]float64, error) {
	return chromedp.Run(tab, func(ctx context.Context, t *chromedp.Target) (map[string]float64, error) {
		if _, err := cdp.Call(ctx, t, performance.Enable, performance.EnableParams{}); err != nil {
			return nil, err
		}
		got, err := cdp.Call(ctx, t, performance.GetMetrics, cdp.Empty{})
		out := map[string]float64{}
		for _, m := range got.Metrics {
			out[m.Name] = 1000 * m.Value
		}
		return out, err
	})
}
