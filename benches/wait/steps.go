package main

import (
	"context"
	"fmt"

	"github.com/chromedp/chromedp"

	"earlychorus/e2e/browser"
	"earlychorus/server/demo"
)

// assign puts long tones on this week's plan that last as long as the lengths measured: the
// demo's own week has none that long. They stay there; the demo is made anew for each bench.
const assign = `(async (names) => {
	const [, id] = location.pathname.match(/class\/([^/]+)/)
	const sent = async (path, more) => {
		const answer = await fetch('/api/classes/' + id + path, more)
		if (!answer.ok) throw new Error(path + ': ' + answer.status + ' ' + (await answer.text()))
		return answer.json()
	}
	const day = new Date()
	day.setDate(day.getDate() - ((day.getDay() + 6) % 7))
	const path = '/plans/' + day.toLocaleDateString('sv')
	const { revision, name, items } = await sent(path)
	const added = Object.entries(names).filter(([called]) => !items.some((i) => i.called === called))
	if (added.length === 0) return true
	const days = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
	const steps = added.map(([called, parameters]) => ({
		key: crypto.randomUUID(), kind: 'long-tone-counted', called, parameters,
		times: 1, days, at: 'both', wanted: 3, pinned: true, for: [], why: '',
	}))
	await sent(path, {
		method: 'PUT',
		headers: { 'Content-Type': 'application/json' },
		body: JSON.stringify({ based_on_revision: revision, name, items: [...items, ...steps] }),
	})
	return true
})({
	'Half a minute': { beats: 8, notes: [0, 1] },
	'A whole minute': { beats: 7, notes: [0, 1, 2, 3] },
})`

// assignLong lets the demo's director assign what the lengths need.
func assignLong(ctx context.Context, base string) error {
	page, closeIt, err := browser.Start(ctx, browser.Options{Width: 1280, Height: 800})
	if err != nil {
		return err
	}
	defer closeIt()
	err = chromedp.Do(
		page,
		browser.SignInDirector(base, demo.DirectorEmail, demo.DirectorPassword),
		chromedp.Evaluate[chromedp.Void](assign, chromedp.EvalAwaitPromise),
	)
	if err != nil {
		return fmt.Errorf("the long steps are not on the plan: %w", err)
	}
	return nil
}
