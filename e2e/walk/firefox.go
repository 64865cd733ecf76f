package walk

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"time"

	"github.com/coder/websocket"
	"github.com/coder/websocket/wsjson"
)

// bidi is a page in a Firefox of its own, driven by WebDriver BiDi
// (https://www.w3.org/TR/webdriver-bidi/).
type bidi struct {
	conn    *websocket.Conn
	context string
	asked   int
}

// preferences keep the browser to this machine, and give it a microphone that sounds by
// itself and is allowed without a question.
const preferences = `
user_pref("media.navigator.streams.fake", true);
user_pref("media.navigator.permission.disabled", true);
user_pref("media.autoplay.default", 0);
user_pref("network.proxy.type", 1);
user_pref("network.proxy.http", "127.0.0.1");
user_pref("network.proxy.http_port", 9);
user_pref("network.proxy.ssl", "127.0.0.1");
user_pref("network.proxy.ssl_port", 9);
user_pref("network.captive-portal-service.enabled", false);
user_pref("network.connectivity-service.enabled", false);
user_pref("app.update.enabled", false);
user_pref("datareporting.policy.dataSubmissionEnabled", false);
user_pref("toolkit.telemetry.enabled", false);
user_pref("browser.shell.checkDefaultBrowser", false);
user_pref("browser.startup.page", 0);
`

// patience is how long a browser may take to start.
const patience = 2 * time.Minute

// Firefox opens a Firefox with one empty page. It is stopped with ctx.
func Firefox(ctx context.Context, o Options) (Page, error) {
	path, err := exec.LookPath("firefox-esr")
	if err != nil {
		return Page{}, fmt.Errorf("walk: firefox-esr is not installed (Debian: apt-get install firefox-esr): %w", err)
	}
	if err := os.WriteFile(filepath.Join(o.Folder, "user.js"), []byte(preferences), 0o600); err != nil {
		return Page{}, err
	}
	run := exec.CommandContext(
		ctx,
		path,
		"--headless",
		"--no-remote",
		"--profile",
		o.Folder,
		"--remote-debugging-port=0",
		"about:blank",
	)
	run.Env = append(os.Environ(), "MOZ_HEADLESS=1", "HOME="+o.Folder)
	if o.Sound != "" {
		run.Env = append(run.Env, "PULSE_SERVER="+o.Sound)
	}
	if err := run.Start(); err != nil {
		return Page{}, err
	}
	go func() { _ = run.Wait() }() // stopped with ctx
	driver, err := connect(ctx, filepath.Join(o.Folder, "WebDriverBiDiServer.json"))
	return Page{driver}, err
}

// connect waits for the browser to say where it listens, and opens a session.
func connect(ctx context.Context, file string) (*bidi, error) {
	var at struct {
		Host string `json:"ws_host"`
		Port int    `json:"ws_port"`
	}
	for since := time.Now(); ; time.Sleep(50 * time.Millisecond) {
		said, err := os.ReadFile(file)
		if err == nil && json.Unmarshal(said, &at) == nil {
			break
		}
		if time.Since(since) > patience {
			return nil, fmt.Errorf("walk: firefox: it did not start within %v", patience)
		}
	}
	conn, _, err := websocket.Dial(ctx, fmt.Sprintf("ws://%s:%d/session", at.Host, at.Port), nil)
	if err != nil {
		return nil, err
	}
	conn.SetReadLimit(64 << 20)
	p := &bidi{conn: conn}
	if _, err := p.ask(ctx, "session.new", map[string]any{"capabilities": map[string]any{}}); err != nil {
		return nil, err
	}
	var opened struct{ Context string }
	made, err := p.ask(ctx, "browsingContext.create", map[string]any{"type": "tab"})
	if err != nil {
		return nil, err
	}
	if err := json.Unmarshal(made, &opened); err != nil {
		return nil, err
	}
	p.context = opened.Context
	return p, nil
}

// ask sends a command and waits for its answer; events between are passed over.
func (p *bidi) ask(ctx context.Context, method string, params any) (json.RawMessage, error) {
	p.asked++
	command := map[string]any{"id": p.asked, "method": method, "params": params}
	if err := wsjson.Write(ctx, p.conn, command); err != nil {
		return nil, err
	}
	for {
		var said struct {
			ID      int             `json:"id"`
			Result  json.RawMessage `json:"result"`
			Error   string          `json:"error"`
			Message string          `json:"message"`
		}
		if err := wsjson.Read(ctx, p.conn, &said); err != nil {
			return nil, err
		}
		switch {
		case said.ID != p.asked:
			continue
		case said.Error != "":
			return nil, fmt.Errorf("walk: firefox: %s: %s: %s", method, said.Error, said.Message)
		}
		return said.Result, nil
	}
}

// Size makes the page as wide and high as a device's.
func (p *bidi) Size(ctx context.Context, width, height int) error {
	_, err := p.ask(ctx, "browsingContext.setViewport", map[string]any{
		"context": p.context, "viewport": map[string]int{"width": width, "height": height},
	})
	return err
}

// Go opens an address.
func (p *bidi) Go(ctx context.Context, address string) error {
	_, err := p.ask(ctx, "browsingContext.navigate", map[string]any{
		"context": p.context, "url": address, "wait": "complete",
	})
	return err
}

// Says evaluates an expression, which may be a promise, to a string.
func (p *bidi) Says(ctx context.Context, expression string) (string, error) {
	said, err := p.ask(ctx, "script.evaluate", map[string]any{
		"expression":   "(async () => String(" + expression + "))()",
		"target":       map[string]string{"context": p.context},
		"awaitPromise": true,
		// As if a hand had pressed: sound may start.
		"userActivation": true,
	})
	if err != nil {
		return "", err
	}
	var came struct {
		Result struct {
			Value string `json:"value"`
		} `json:"result"`
		Exception struct {
			Text string `json:"text"`
		} `json:"exceptionDetails"`
	}
	if err := json.Unmarshal(said, &came); err != nil {
		return "", err
	}
	if came.Exception.Text != "" {
		return "", errors.New("walk: firefox: " + came.Exception.Text)
	}
	return came.Result.Value, nil
}

// Click presses what an expression finds.
func (p *bidi) Click(ctx context.Context, found string) error {
	_, err := p.Says(ctx, found+".click()")
	return err
}

// Keys presses the keys of some letters.
func (p *bidi) Keys(ctx context.Context, text string) error {
	_, err := p.ask(ctx, "input.performActions", map[string]any{"context": p.context, "actions": keysOf(text)})
	return err
}
