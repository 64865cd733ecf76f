// Package walk walks through the program in the browsers that Chromium's protocol does not
// drive: Firefox, and WebKit, which is what every browser on a tablet of one maker is.
package walk

import (
	"context"
	"fmt"
	"strings"
	"time"
)

// Options say what kind of machine a browser runs on.
type Options struct {
	Folder string // for the profile; the caller removes it
	Sound  string // address of a sound server, as PULSE_SERVER; "" is a machine without sound
}

// driver is what a browser does by hand.
type driver interface {
	// Size makes the page as wide and high as a device's.
	Size(ctx context.Context, width, height int) error
	// Go opens an address.
	Go(ctx context.Context, address string) error
	// Says evaluates an expression, which may be a promise, to a string.
	Says(ctx context.Context, expression string) (string, error)
	// Click presses what an expression finds.
	Click(ctx context.Context, found string) error
	// Keys presses the keys of some letters.
	Keys(ctx context.Context, text string) error
}

// Page is one page in a browser of its own.
type Page struct{ driver }

// Until waits for an expression to be true.
func (p Page) Until(ctx context.Context, expression string) error {
	for {
		said, err := p.Says(ctx, "Boolean("+expression+")")
		if err != nil {
			return err
		}
		if said == "true" {
			return nil
		}
		select {
		case <-ctx.Done():
			return fmt.Errorf("walk: %s: %w", expression, ctx.Err())
		case <-time.After(100 * time.Millisecond):
		}
	}
}

// See waits for words on the page.
func (p Page) See(ctx context.Context, words string) error {
	return p.Until(ctx, fmt.Sprintf("document.body.innerText.includes(%q)", words))
}

// pressed finds the first button, link or summary in sight with some words.
const pressed = `[...document.querySelectorAll('button, a, summary')].find((e) =>
	(e.textContent.includes(%[1]q) || e.getAttribute('aria-label') === %[1]q) &&
	e.getClientRects().length > 0 && !e.disabled)`

// Press presses the button, link or summary with these words, once it can be.
func (p Page) Press(ctx context.Context, words string) error {
	found := fmt.Sprintf(pressed, words)
	if err := p.Until(ctx, found); err != nil {
		return err
	}
	return p.Click(ctx, found)
}

// Type writes into the field with this label.
func (p Page) Type(ctx context.Context, label, text string) error {
	field := fmt.Sprintf(
		"[...document.querySelectorAll('label')].find((l) => l.textContent.includes(%q))?.control",
		label,
	)
	if err := p.Until(ctx, field); err != nil {
		return err
	}
	if _, err := p.Says(ctx, field+".focus()"); err != nil {
		return err
	}
	return p.Keys(ctx, text)
}

// keysOf is how both protocols write keys that are pressed one after the other.
func keysOf(text string) []map[string]any {
	var keys []map[string]string
	for _, letter := range strings.Split(text, "") {
		keys = append(keys, map[string]string{"type": "keyDown", "value": letter},
			map[string]string{"type": "keyUp", "value": letter})
	}
	return []map[string]any{{"type": "key", "id": "keyboard", "actions": keys}}
}
