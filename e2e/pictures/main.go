// Command pictures takes docs/screenshots from a server with the demo data:
//
//	go run ./e2e/pictures http://127.0.0.1:8080 [NAME ...]
package main

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"earlychorus/e2e/browser"
	"earlychorus/server/demo"
)

type step = chromedp.Action[chromedp.Void]

// picture is one view and the way to it.
type picture struct {
	name          string
	width, height int
	dark          bool
	way           func(base string) []step
	plays         string // instrument of a simulated player at the microphone
}

func director(base string) []step {
	return []step{browser.SignInDirector(base, demo.DirectorEmail, demo.DirectorPassword)}
}

func player(n int) func(base string) []step {
	who := demo.SignIns()[n]
	return func(base string) []step { return []step{browser.SignInPlayer(base, demo.ClassCode, who.Name, who.PIN)} }
}

// press sends a clicker's key so many times: on to a step, and its start.
func press(times int) step {
	var steps []step
	for range times {
		steps = append(steps, chromedp.KeyEvent(kb.PageDown), chromedp.Sleep(300*time.Millisecond))
	}
	return chromedp.Steps(steps...)
}

func then(way func(string) []step, more ...step) func(string) []step {
	return func(base string) []step { return append(way(base), more...) }
}

var pictures = []picture{
	{
		name:   "sign-in",
		width:  1280,
		height: 800,
		way:    func(base string) []step { return []step{chromedp.Navigate(base + "/sign-in"), browser.See("I play")} },
	},
	{
		name:   "today",
		width:  1280,
		height: 800,
		way:    director,
	},
	{
		name:   "today-dark",
		width:  1280,
		height: 800,
		dark:   true,
		way:    director,
	},
	{
		name:   "take",
		width:  1280,
		height: 800,
		way: then(
			director,
			chromedp.ScrollIntoView(`//a[normalize-space(.)="Maro Quenby"]`), // its cells are drawn once it is near
			chromedp.Click(`a[data-player="Maro Quenby"]`),
			browser.See("Measures"),
		),
	},
	{
		name:   "listen",
		width:  1280,
		height: 800,
		way: then(
			director,
			browser.Press("Listen"),
			browser.See("Play again"),
			chromedp.Sleep(1500*time.Millisecond),
		),
	},
	{
		name:   "section",
		width:  1280,
		height: 800,
		way: then(
			director,
			chromedp.Click(`//a[contains(@href, "/section/") and contains(., "larinet")]`),
			browser.See("Comes out"),
		),
	},
	{
		name:   "player",
		width:  1280,
		height: 800,
		way:    then(director, chromedp.Click(`//th//a[.="Pim Sandover"]`), browser.See("Longest hold")),
	},
	{
		name:   "plan",
		width:  1280,
		height: 800,
		way: then(
			director,
			browser.Press("Plan"),
			browser.See("Everything is saved"),
			browser.Press("concert B♭ then F"),
			chromedp.Sleep(2*time.Second),
			// Pressing scrolled to the step; the week and its bar belong in the picture.
			chromedp.Evaluate[chromedp.Void]("scrollTo(0, 0)"),
		),
	},
	{
		name:   "class",
		width:  1280,
		height: 800,
		way:    then(director, browser.Press("Class"), browser.See("Sign-in cards")),
	},
	{
		name:   "conventions",
		width:  1280,
		height: 800,
		way: then(
			director,
			browser.Press("Class"),
			browser.Press("Teaching choices"),
			browser.See("Example"),
			chromedp.Sleep(time.Second),
		),
	},
	{
		name:   "front",
		width:  1280,
		height: 800,
		way: then(director, browser.Press("Plan"), browser.Press("Play it with the class"), browser.See("Set-up check"),
			press(4), chromedp.Sleep(6*time.Second)),
	},
	{
		name:   "practice-phone",
		width:  390,
		height: 844,
		way:    player(5),
	},
	{
		name:   "practice",
		width:  1280,
		height: 800,
		way:    player(31),
	},
	{
		name:   "ladder-phone",
		width:  390,
		height: 844,
		way: then(
			player(5),
			chromedp.Click(`//button[@data-step][contains(., "Ladder")]`),
			browser.See("pass this rung"),
		),
	},
	{
		name:   "recording-phone",
		width:  390,
		height: 844,
		plays:  "clarinet",
		way: then(
			player(5),
			browser.Press("Record"),
			browser.Press("Not now"),
			browser.See("Play C"),
			chromedp.Sleep(3*time.Second),
		),
	},
	{
		name:   "care-phone",
		width:  390,
		height: 844,
		way: then(
			player(20),
			chromedp.Click(`//button[@data-step][contains(., "Care")]`),
			browser.See("Wipe it dry"),
		),
	},
	{
		name:   "which-note-phone",
		width:  390,
		height: 844,
		way: then(
			player(27),
			browser.Press("Which note?"),
			browser.Press("Let a simulated player play"),
			browser.See("Stop listening"),
			chromedp.Sleep(6*time.Second),
		),
	},
	{
		name:   "outcome-phone",
		width:  390,
		height: 844,
		way: then(
			player(20),
			browser.Press("No microphone?"),
			browser.Press("Player who cracks"),
			browser.See("Again"),
		),
	},
}

func main() {
	base := "http://127.0.0.1:8080"
	if len(os.Args) > 1 {
		base = os.Args[1]
	}
	for _, p := range pictures {
		if len(os.Args) > 2 && !slices.Contains(os.Args[2:], p.name) {
			continue
		}
		if err := p.take(base); err != nil {
			fmt.Fprintf(os.Stderr, "%s: %v\n", p.name, err)
			os.Exit(1)
		}
		fmt.Println(p.name)
	}
}

const settle = 700 * time.Millisecond // fonts and notation arrive late

func (p picture) take(base string) error {
	ctx, cancel := context.WithTimeout(context.Background(), time.Minute)
	defer cancel()
	o := browser.Options{
		Width:      p.width,
		Height:     p.height,
		Dark:       p.dark,
		Microphone: browser.Beeps,
	}
	if p.plays != "" {
		name, err := browser.Player(p.plays)
		if err != nil {
			return err
		}
		defer os.Remove(name) //nolint:errcheck // a temporary file
		o.Microphone = name
	}
	page, closeIt, err := browser.Start(ctx, o)
	if err != nil {
		return err
	}
	defer closeIt()
	if err := chromedp.Do(page, append(p.way(base), chromedp.Sleep(settle))...); err != nil {
		return err
	}
	png, err := chromedp.Run(page, chromedp.CaptureScreenshot())
	if err != nil {
		return err
	}
	folder := os.Getenv("PICTURES")
	if folder == "" {
		folder = "docs/screenshots"
	}
	return os.WriteFile(filepath.Join(folder, p.name+".png"), png, 0o644)
}
