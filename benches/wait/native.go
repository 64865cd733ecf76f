package main

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"time"

	"github.com/chromedp/chromedp"

	"earlychorus/benches/figures"
	"earlychorus/core/ask"
)

// A take is judged whole, in the browser and by the server's copy of the core: so many times
// until the engine has compiled what it runs, and so many times timed.
const (
	warmUps = 6
	timed   = 15
	rate    = 48_000
)

// setting and step are those of the take; its player wavers.
const (
	setting = `{"instrument": "trumpet", "stage": 2, "conventions": %s}`
	step    = `{"kind": "long-tone-counted", "parameters": {"beats": 7, "notes": [0, 1, 2]}}`
)

// opensCore opens a core of the page's own, in a worker as the page's, with a take to judge.
const opensCore = `(async (work, judge) => {
	const script = performance.getEntriesByType('resource').find((r) => r.name.includes('/listener.worker'))
	const core = new Worker(script.name, { type: 'module' })
	const ask = (name, request, samples) => new Promise((told, failed) => {
		core.onmessage = ({ data }) => (data.kind === 'answer' ? told(data) : failed(new Error(JSON.stringify(data))))
		core.postMessage({ kind: 'ask', id: 1, name, request, samples })
	})
	const { score } = JSON.parse((await ask('work', work)).answer)
	const { sound } = await ask('perform', { score, stand_in: 'wavering', seed: 1, rate: judge.rate })
	window.judgeOnce = async () => {
		const began = performance.now()
		await ask('judge', { ...judge, score }, sound)
		return performance.now() - began
	}
	return ''
})(%s, %s)`

// againstNative is how many times as long the browser's core takes as the server's, once warm:
// one by turns with the other, for what else the machine does slows both; the middle of the pairs.
func againstNative(page context.Context) (figures.Figure, error) {
	none := figures.Figure{}
	conventions, err := os.ReadFile("core/ask/testdata/conventions.json")
	if err != nil {
		return none, err
	}
	work := fmt.Appendf(nil, `{"setting": `+setting+`, "step": `+step+`, "tempo": 0}`, conventions)
	judge := map[string]any{
		"rate": rate, "start_s": 0, "free_start": false, "recent_tips": []string{}, "tips": map[string]string{},
		"air": "speed", "naming": "english",
	}
	about, err := json.Marshal(judge)
	if err != nil {
		return none, err
	}
	opens := fmt.Sprintf(opensCore, work, about)
	if _, err := chromedp.Run(page, chromedp.Evaluate[string](opens, chromedp.EvalAwaitPromise)); err != nil {
		return none, err
	}
	judgeNative, err := byTheServer(work, judge)
	if err != nil {
		return none, err
	}
	var times []float64
	for n := range warmUps + timed {
		browser, err := chromedp.Run(page, chromedp.Evaluate[float64](`judgeOnce()`, chromedp.EvalAwaitPromise))
		if err != nil {
			return none, err
		}
		native, err := judgeNative()
		if err != nil {
			return none, err
		}
		fmt.Fprintf(os.Stderr, "judged whole: %.0f ms in the browser, %.0f by the server's core\n", browser, native)
		if n >= warmUps {
			times = append(times, browser/native)
		}
	}
	slices.Sort(times)
	return figures.AtMost("a take judged whole, in the browser against native", "%.1f ×", times[timed/2], 2), nil
}

// byTheServer returns what judges the same with the core in this process, in milliseconds.
func byTheServer(work []byte, judge map[string]any) (func() (float64, error), error) {
	var sound ask.Sound
	answer, err := ask.Answer("work", work, &sound)
	if err != nil {
		return nil, err
	}
	var worked struct {
		Score json.RawMessage `json:"score"`
	}
	if err := json.Unmarshal(answer, &worked); err != nil {
		return nil, err
	}
	perform, err := json.Marshal(
		map[string]any{"score": worked.Score, "stand_in": "wavering", "seed": 1, "rate": rate},
	)
	if err != nil {
		return nil, err
	}
	if _, err := ask.Answer("perform", perform, &sound); err != nil {
		return nil, err
	}
	sound.In = sound.Out.Samples
	judge["score"] = worked.Score
	request, err := json.Marshal(judge)
	if err != nil {
		return nil, err
	}
	return func() (float64, error) {
		began := time.Now()
		_, err := ask.Answer("judge", request, &sound)
		return float64(time.Since(began).Microseconds()) / 1000, err
	}, nil
}
