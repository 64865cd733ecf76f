// Command demo measures how soon the demo is there: it starts the program in an empty folder
// and looks at the board as its director does, until every take was listened to.
//
//	go build -o bin/earlychorus ./cmd/earlychorus && go run ./benches/demo FOLDER
package main

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"regexp"
	"strings"
	"sync/atomic"
	"syscall"
	"time"

	"earlychorus/benches/figures"
	"earlychorus/server/demo"
)

func main() {
	if len(os.Args) != 2 {
		fmt.Fprintln(os.Stderr, "demo: name a folder that is not there yet")
		os.Exit(2)
	}
	if err := measure(os.Args[1]); err != nil {
		fmt.Fprintln(os.Stderr, "demo:", err)
		os.Exit(1)
	}
}

const (
	longest = 10 * time.Minute
	pause   = 500 * time.Millisecond
)

func measure(folder string) error {
	ctx, cancel := context.WithTimeout(context.Background(), longest)
	defer cancel()
	cmd := exec.CommandContext(ctx, "bin/earlychorus", "serve", "--port", "18080", "--data", folder)
	out, err := cmd.StdoutPipe()
	if err != nil {
		return err
	}
	began := time.Now()
	if err := cmd.Start(); err != nil {
		return err
	}
	defer func() {
		_ = cmd.Process.Signal(syscall.SIGTERM)
		_ = cmd.Wait()
	}()
	base, filled := follow(out)
	v := visitor{base: <-base}
	if v.base == "" {
		return errors.New("the program did not say where it serves")
	}
	served := time.Since(began)
	if err := v.signIn(); err != nil {
		return err
	}
	full, most := time.Duration(0), 0
	for !filled.Load() {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		done, err := v.done()
		if err != nil {
			return err
		}
		if done > most {
			full, most = time.Since(began)-served, done
		}
		time.Sleep(pause)
	}
	all := time.Since(began) - served
	fmt.Printf("served after %.1f s; today's board full after %.0f s, everything after %.0f s\n",
		served.Seconds(), full.Seconds(), all.Seconds())
	return figures.Put("demo", []figures.Figure{
		figures.Plain("first page, in an empty folder", "%.1f s", served.Seconds()),
		figures.AtMost("from there: today's board full", "%.0f s", full.Seconds(), 45),
		figures.AtMost("everything listened to", "%.0f s", all.Seconds(), 120),
	})
}

// progress is what the program prints while it fills the demo.
var progress = regexp.MustCompile(`Demo: (\d+) of (\d+)`)

// follow reads what the program prints: where it serves, and when the demo is filled.
func follow(out io.Reader) (base <-chan string, filled *atomic.Bool) {
	told, done := make(chan string, 1), &atomic.Bool{}
	go func() {
		defer close(told)
		lines := bufio.NewScanner(out)
		lines.Split(atEnds)
		for lines.Scan() {
			if _, address, ok := strings.Cut(lines.Text(), "is at "); ok {
				told <- strings.TrimSpace(address)
			}
			if m := progress.FindStringSubmatch(lines.Text()); m != nil && m[1] == m[2] {
				done.Store(true)
			}
		}
	}()
	return told, done
}

// atEnds splits at ends of lines and where a line is written over.
func atEnds(data []byte, atEOF bool) (advance int, token []byte, err error) {
	if n := bytes.IndexAny(data, "\r\n"); n >= 0 {
		return n + 1, data[:n], nil
	}
	if atEOF && len(data) > 0 {
		return len(data), data, nil
	}
	return 0, nil, nil
}

// visitor is the demo's director.
type visitor struct {
	base    string
	class   string
	session *http.Cookie
}

func (v *visitor) signIn() error {
	who, err := json.Marshal(map[string]string{"email": demo.DirectorEmail, "password": demo.DirectorPassword})
	if err != nil {
		return err
	}
	res, err := http.Post(v.base+"/api/sign-in/director", "application/json", bytes.NewReader(who))
	if err != nil {
		return err
	}
	defer res.Body.Close() //nolint:errcheck // read whole
	for _, c := range res.Cookies() {
		if c.Name == "__Host-earlychorus" {
			v.session = c
		}
	}
	if v.session == nil {
		return fmt.Errorf("signing in: %s", res.Status)
	}
	v.class = demo.ClassID()
	return nil
}

// done counts the cells of today's board that have a result.
func (v *visitor) done() (int, error) {
	req, err := http.NewRequest("GET", v.base+"/api/classes/"+v.class+"/today", nil)
	if err != nil {
		return 0, err
	}
	req.AddCookie(v.session)
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return 0, err
	}
	defer res.Body.Close() //nolint:errcheck // read whole
	board, err := io.ReadAll(res.Body)
	return bytes.Count(board, []byte(`"state":"done"`)), err
}
