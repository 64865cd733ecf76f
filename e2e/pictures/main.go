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
}

func director(base string) []step {
	return []step{
		chromedp.Navigate(base + "/sign-in"), browser.Press("I direct"),
		browser.Type("Email", demo.DirectorEmail), browser.Type("Password", demo.DirectorPassword),
		chromedp.Click(`form button[type=submit]`), browser.See("Ferry Bell Winds"), browser.See("Barnaby Quill"),
	}
}

func player(n int) func(base string) []step {
	who := demo.SignIns()[n]
	return func(base string) []step {
		return []step{
			chromedp.Navigate(base + "/sign-in"), browser.Type("Class code", demo.ClassCode), browser.Press("Find my class"),
			browser.Press(who.Name), browser.Type("Your PIN", who.PIN), browser.Press("Start"), chromedp.WaitVisible(`section[aria-label="Your step"]`),
		}
	}
}

func then(way func(string) []step, more ...step) func(string) []step {
	return func(base string) []step { return append(way(base), more...) }
}

var pictures = []picture{
	{"sign-in", 1280, 800, false, func(base string) []step { return []step{chromedp.Navigate(base + "/sign-in"), browser.See("I play")} }},
	{"today", 1280, 800, false, director},
	{"today-dark", 1280, 800, true, director},
	{"take", 1280, 800, false, then(director, chromedp.Click(`a[data-player="Maro Quenby"]`), browser.See("Measures"))},
	{"change-step", 1280, 800, false, then(director, browser.Press("Change the step"), browser.See("What each instrument reads"))},
	{"practice-phone", 390, 844, false, player(5)},
	{"practice", 1280, 800, false, player(31)},
	{"recording-phone", 390, 844, false, then(player(5), browser.Press("Record"), browser.See("Play C4"))},
	{"outcome-phone", 390, 844, false, then(player(20), browser.Press("No microphone?"), browser.Press("Player who cracks"), browser.See("Again"))},
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
	page, closeIt, err := browser.Start(ctx, browser.Options{Width: p.width, Height: p.height, Dark: p.dark, Microphone: browser.Beeps})
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
