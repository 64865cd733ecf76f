package walk

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"time"
)

// webDriver is a page in a WebKit of its own, driven by W3C WebDriver
// (https://www.w3.org/TR/webdriver2/).
type webDriver struct{ session string }

// browsers is where Debian keeps WebKitGTK's own small browser.
const browsers = "/usr/lib/*/webkit2gtk-*/MiniBrowser"

// ErrNoWebKit reports that WebKit, its driver or a screen for it is not installed.
var ErrNoWebKit = errors.New("walk: WebKit is not installed (Debian: apt-get install webkit2gtk-driver xvfb)")

// WebKit opens a WebKitGTK with one empty page, on a screen that nobody sees. It is stopped
// with ctx.
func WebKit(ctx context.Context, o Options) (Page, error) {
	found, err := filepath.Glob(browsers)
	if err != nil || len(found) == 0 {
		return Page{}, ErrNoWebKit
	}
	display, err := screen(ctx)
	if err != nil {
		return Page{}, err
	}
	port, err := freePort(ctx)
	if err != nil {
		return Page{}, err
	}
	run := exec.CommandContext(ctx, "WebKitWebDriver", fmt.Sprintf("--port=%d", port))
	run.Env = append(os.Environ(), "DISPLAY="+display, "HOME="+o.Folder, "XDG_RUNTIME_DIR="+o.Folder,
		"GDK_BACKEND=x11", "WEBKIT_DISABLE_COMPOSITING_MODE=1", "NO_AT_BRIDGE=1")
	if o.Sound != "" {
		run.Env = append(run.Env, "PULSE_SERVER="+o.Sound)
	}
	if err := run.Start(); err != nil {
		return Page{}, errors.Join(ErrNoWebKit, err)
	}
	go func() { _ = run.Wait() }() // stopped with ctx
	driver, err := begin(ctx, fmt.Sprintf("http://127.0.0.1:%d", port), found[0])
	return Page{driver}, err
}

// screen starts a display in memory, and returns its name.
func screen(ctx context.Context) (string, error) {
	said, its, err := os.Pipe()
	if err != nil {
		return "", err
	}
	defer said.Close() //nolint:errcheck // read to its line
	run := exec.CommandContext(ctx, "Xvfb", "-displayfd", "3", "-screen", "0", "1280x1000x24", "-nolisten", "tcp")
	run.ExtraFiles = []*os.File{its}
	err = run.Start()
	_ = its.Close()
	if err != nil {
		return "", errors.Join(ErrNoWebKit, err)
	}
	go func() { _ = run.Wait() }() // stopped with ctx
	number, err := bufio.NewReader(said).ReadString('\n')
	return ":" + strings.TrimSpace(number), err
}

// freePort is a port nobody listens on.
func freePort(ctx context.Context) (int, error) {
	var listen net.ListenConfig
	l, err := listen.Listen(ctx, "tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer l.Close() //nolint:errcheck // its number is all that is wanted
	return l.Addr().(*net.TCPAddr).Port, nil
}

// begin opens a session as soon as the driver listens.
func begin(ctx context.Context, address, binary string) (*webDriver, error) {
	wanted := map[string]any{"capabilities": map[string]any{"alwaysMatch": map[string]any{
		"acceptInsecureCerts":      true, // the test's own
		"webkitgtk:browserOptions": map[string]any{"binary": binary, "args": []string{"--automation"}},
	}}}
	var came struct {
		SessionID string `json:"sessionId"`
	}
	for since := time.Now(); ; time.Sleep(100 * time.Millisecond) {
		err := call(ctx, http.MethodPost, address+"/session", wanted, &came)
		if err == nil {
			return &webDriver{address + "/session/" + came.SessionID}, nil
		}
		if time.Since(since) > patience {
			return nil, err
		}
	}
}

// call sends one command and reads its value.
func call(ctx context.Context, method, address string, body, value any) error {
	raw, err := json.Marshal(body)
	if err != nil {
		return err
	}
	request, err := http.NewRequestWithContext(ctx, method, address, bytes.NewReader(raw))
	if err != nil {
		return err
	}
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		return err
	}
	defer response.Body.Close() //nolint:errcheck // read whole
	var said struct {
		Value json.RawMessage `json:"value"`
	}
	if err := json.NewDecoder(response.Body).Decode(&said); err != nil {
		return err
	}
	if response.StatusCode != http.StatusOK {
		return fmt.Errorf("walk: webkit: %s", said.Value)
	}
	if value == nil {
		return nil
	}
	return json.Unmarshal(said.Value, value)
}

// Size makes the window as large as a device's; its own bars take a little of it.
func (w *webDriver) Size(ctx context.Context, width, height int) error {
	return call(ctx, http.MethodPost, w.session+"/window/rect", map[string]int{"width": width, "height": height}, nil)
}

// Go opens an address.
func (w *webDriver) Go(ctx context.Context, address string) error {
	return call(ctx, http.MethodPost, w.session+"/url", map[string]string{"url": address}, nil)
}

// Says evaluates an expression, which may be a promise, to a string.
func (w *webDriver) Says(ctx context.Context, expression string) (said string, err error) {
	err = call(ctx, http.MethodPost, w.session+"/execute/async", map[string]any{
		"script": "const done = arguments[arguments.length - 1];" +
			"(async () => String(" + expression + "))().then(done, (e) => done('error: ' + e))",
		"args": []any{},
	}, &said)
	return said, err
}

// elementKey is how WebDriver marks an element in an answer (11, Elements).
const elementKey = "element-6066-11e4-a52e-4f735466cecf"

// Click presses what an expression finds, as a hand would: sound may start.
func (w *webDriver) Click(ctx context.Context, found string) error {
	var element map[string]string
	if err := call(ctx, http.MethodPost, w.session+"/execute/sync", map[string]any{
		"script": "const e = " + found + "; e.scrollIntoView({ block: 'center' }); return e",
		"args":   []any{},
	}, &element); err != nil {
		return err
	}
	return call(ctx, http.MethodPost, w.session+"/element/"+element[elementKey]+"/click", map[string]any{}, nil)
}

// Keys presses the keys of some letters.
func (w *webDriver) Keys(ctx context.Context, text string) error {
	return call(ctx, http.MethodPost, w.session+"/actions", map[string]any{"actions": keysOf(text)}, nil)
}
