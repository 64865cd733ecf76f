// Package browser drives Debian's headless Chromium as a person would.
package browser

import (
	"context"
	"fmt"
	"os/exec"
	"time"

	"github.com/chromedp/cdproto/cdp"
	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
)

// Options say what kind of browser is wanted.
type Options struct {
	Width, Height int
	Microphone    string // WAV file that a fake microphone plays once, or Beeps; "" refuses the microphone
	Dark          bool
}

// Beeps is the sound a fake microphone makes by itself.
const Beeps = "beeps"

// Start opens a browser with one empty page. Close stops it.
func Start(ctx context.Context, o Options) (page context.Context, closeIt func(), err error) {
	path, err := installed()
	if err != nil {
		return nil, nil, err
	}
	flags := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(path),
		chromedp.WindowSize(o.Width, o.Height),
		chromedp.Flag("disable-quic", true),
		chromedp.Flag("disable-component-update", true),
		chromedp.Flag("disable-gpu", true),
		chromedp.Flag("autoplay-policy", "no-user-gesture-required"),
		chromedp.Flag("lang", "en-GB"),
	)
	if o.Dark {
		flags = append(flags, chromedp.Flag("blink-settings", "preferredColorScheme=0"))
	}
	flags = append(flags, chromedp.Flag("use-fake-device-for-media-stream", true)) // the machine has none
	switch o.Microphone {
	case "":
		flags = append(flags, chromedp.Flag("use-fake-ui-for-media-stream", "deny"))
	case Beeps:
		flags = append(flags, chromedp.Flag("use-fake-ui-for-media-stream", true))
	default:
		flags = append(flags,
			chromedp.Flag("use-fake-ui-for-media-stream", true),
			chromedp.Flag("use-file-for-fake-audio-capture", o.Microphone+"%noloop"),
		)
	}
	alloc, cancelAlloc := chromedp.NewExecAllocator(ctx, flags...)
	page, cancelPage := chromedp.NewContext(alloc)
	closeIt = func() { cancelPage(); cancelAlloc() }
	return page, closeIt, chromedp.Do(
		page,
		chromedp.EmulateViewport(int64(o.Width), int64(o.Height)),
		chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
			_, err := cdp.Call(ctx, t, cdppage.AddScriptToEvaluateOnNewDocument,
				cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: notesRefusals})
			return err
		}),
	)
}

// installed is Debian's Chromium: the one that is made to have no window, a third cheaper to
// run, or the whole of it.
func installed() (path string, err error) {
	for _, name := range []string{"chromium-headless-shell", "chromium"} {
		if path, err = exec.LookPath(name); err == nil {
			return path, nil
		}
	}
	return "", fmt.Errorf("browser: it is not installed (Debian: apt-get install chromium-headless-shell): %w", err)
}

// notesRefusals notes what the page's own policy refused: a style or a script of ours
// that it does not let in.
const notesRefusals = `window.refusedByPolicy = []; document.addEventListener('securitypolicyviolation',
	(e) => window.refusedByPolicy.push(e.violatedDirective + ' ' + e.blockedURI + ' ' + e.sourceFile))`

// Refused is what the page's policy refused since it was opened; "" for nothing.
func Refused() chromedp.Action[string] {
	return chromedp.Evaluate[string]("(window.refusedByPolicy ?? []).join(' ; ')")
}

// often is how often a page is asked whether it shows a thing: the driver's own way, two hundred
// times a second, searches all of a page each time.
var often = chromedp.RetryInterval(40 * time.Millisecond)

// Shown waits until a CSS selector or an XPath finds something that can be seen.
func Shown(selector string) chromedp.Action[chromedp.Void] {
	return chromedp.WaitVisible(selector, often)
}

// Gone waits until it finds nothing.
func Gone(selector string) chromedp.Action[chromedp.Void] {
	return chromedp.WaitNotPresent(selector, often)
}

func field(label string) string {
	return fmt.Sprintf("//*[@id=//label[contains(normalize-space(.), %q)]/@for]", label)
}

// Type writes into the empty field with this label.
func Type(label, text string) chromedp.Action[chromedp.Void] {
	return chromedp.SendKeys(field(label), text, often)
}

// Replace writes over whatever stands in the field with this label.
func Replace(label, text string) chromedp.Action[chromedp.Void] {
	choose := fmt.Sprintf(
		`[...document.querySelectorAll('label')].find((l) => l.textContent.includes(%q)).control.select()`,
		label,
	)
	return chromedp.Steps(chromedp.Evaluate[chromedp.Void](choose), chromedp.SendKeys(field(label), text, often))
}

// Press clicks the button, link, tab or summary with these words on it.
func Press(words string) chromedp.Action[chromedp.Void] {
	path := fmt.Sprintf(
		"//*[self::button or self::a or self::summary][contains(normalize-space(.), %q) or @aria-label=%q]",
		words,
		words,
	)
	return Click(path)
}

// Click clicks what a CSS selector or an XPath finds first, once it is away from the bars at
// the page's edges and lies still: what is still being laid out would be missed.
func Click(selector string) chromedp.Action[chromedp.Void] {
	return chromedp.Steps(
		Shown(selector),
		chromedp.Evaluate[chromedp.Void](fmt.Sprintf(toMiddleAndStill, selector), chromedp.EvalAwaitPromise),
		chromedp.Click(selector, often),
	)
}

// Resize makes the page so large and waits until it has been laid out and drawn anew.
func Resize(width, height int64) chromedp.Action[chromedp.Void] {
	return chromedp.Steps(
		chromedp.EmulateViewport(width, height),
		Until(fmt.Sprintf("innerWidth === %d", width)),
		Drawn(),
	)
}

// Drawn waits until the page has drawn what it knows by now.
func Drawn() chromedp.Action[chromedp.Void] {
	return chromedp.Evaluate[chromedp.Void](twoFrames, chromedp.EvalAwaitPromise)
}

const twoFrames = `(async () => {
	for (let n = 0; n < 2; n++) await new Promise((r) => requestAnimationFrame(r))
})()`

const toMiddleAndStill = `(async () => {
	const selector = %q
	const found = () => /^[(/]/.test(selector)
		? document.evaluate(selector, document, null, XPathResult.FIRST_ORDERED_NODE_TYPE).singleNodeValue
		: document.querySelector(selector)
	found()?.scrollIntoView({ block: 'center' })
	const place = () => { const r = found()?.getBoundingClientRect(); return r && [r.x, r.y].join() }
	for (let still = 0, last = place(), tries = 0; still < 3 && tries < 60; tries++) {
		await new Promise((r) => setTimeout(r, 20))
		const now = place()
		still = now === last ? still + 1 : 0
		last = now
	}
})()`

// See waits until the page shows these words; a drawing's title, which is only
// read aloud, does not count, nor does a choice that is folded away.
func See(words string) chromedp.Action[chromedp.Void] {
	says := fmt.Sprintf(
		"local-name() != 'title' and local-name() != 'option' and contains(normalize-space(.), %q)",
		words,
	)
	return Shown(fmt.Sprintf("//body//*[%s][not(*[%s])]", says, says))
}

// Until waits until an expression is true on the page that stands; it may await.
func Until(expression string) chromedp.Action[chromedp.Void] {
	return chromedp.Poll[chromedp.Void](
		"(async () => ("+expression+"))()",
		chromedp.WithPollingInterval(50*time.Millisecond),
		chromedp.WithPollingTimeout(0), // whoever asks knows how long to wait
	)
}

// Note begins to note every text that the page shows, for what stands there for a second only:
// whoever asks now and then may miss it.
const Note = `(() => {
	window.noted = new Set()
	new MutationObserver((all) => {
		for (const { target } of all) {
			const on = target.nodeType === Node.TEXT_NODE ? target.parentElement : target
			window.noted.add((on?.textContent ?? '').slice(0, 400))
		}
	}).observe(document.body, { subtree: true, childList: true, characterData: true })
	return true
})()`

// Noted is an expression: these words have been shown since Note, or are.
func Noted(words string) string {
	return fmt.Sprintf("[...window.noted, document.body.innerText].some((text) => text.includes(%q))", words)
}

// Choose opens the list with this label and takes the choice with these words.
func Choose(label, words string) chromedp.Action[chromedp.Void] {
	list := fmt.Sprintf("//button[@role='combobox' and @aria-label=%q]", label)
	choice := fmt.Sprintf("//*[@role='option'][contains(normalize-space(.), %q)]", words)
	return chromedp.Steps(
		Click(list),
		Click(choice),
	)
}
