package e2e

import (
	"bufio"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// built is the real binary, made once for all tests.
var built = sync.OnceValues(func() (string, error) {
	folder, err := os.MkdirTemp("", "earlychorus-e2e")
	if err != nil {
		return "", err
	}
	binary := filepath.Join(folder, "earlychorus")
	out, err := exec.Command("go", "build", "-o", binary, "../cmd/earlychorus").CombinedOutput()
	if err != nil {
		return string(out), err
	}
	return binary, nil
})

func binary(t *testing.T) string {
	t.Helper()
	name, err := built()
	require.NoError(t, err, name)
	return name
}

// process is one of the real program's, as an administrator starts it.
type process struct {
	t    *testing.T
	args []string
	env  []string
	cmd  *exec.Cmd
	base string      // where it serves; "" for one that does not
	said chan string // what it prints after it is ready
	done chan struct{}
	ends error  // how it ended, once done is closed
	log  string // the file of what it logs
}

// begin starts a process and waits until it says that it is ready.
func begin(t *testing.T, env []string, args ...string) *process {
	t.Helper()
	p := &process{
		t:    t,
		args: args,
		env:  env,
		log:  filepath.Join(t.TempDir(), "log"),
	}
	t.Cleanup(func() {
		if t.Failed() {
			lines := strings.Split(p.logged(), "\n")
			t.Logf("the last that %v logged:\n%s", args, strings.Join(lines[max(0, len(lines)-mostLogged):], "\n"))
		}
	})
	p.start()
	t.Cleanup(p.kill)
	return p
}

const mostLogged = 40 // lines

// logged is what it has logged so far, through all its starts.
func (p *process) logged() string {
	said, _ := os.ReadFile(p.log) // there is none before it starts
	return string(said)
}

func (p *process) start() {
	p.t.Helper()
	p.cmd = exec.Command(binary(p.t), p.args...)
	p.cmd.Env = append(os.Environ(), p.env...)
	log, err := os.OpenFile(p.log, os.O_CREATE|os.O_APPEND|os.O_WRONLY, 0o600)
	require.NoError(p.t, err)
	defer log.Close() //nolint:errcheck // the process has its own
	p.cmd.Stderr = log
	out, err := p.cmd.StdoutPipe()
	require.NoError(p.t, err)
	require.NoError(p.t, p.cmd.Start())
	ready := make(chan string, 1)
	p.said = make(chan string, 100)
	p.done = make(chan struct{})
	go func() {
		lines := bufio.NewScanner(out)
		for lines.Scan() {
			if _, address, ok := strings.Cut(lines.Text(), "is at "); ok {
				ready <- address
			}
			if strings.HasPrefix(lines.Text(), "Listening to takes") {
				ready <- ""
			}
			select {
			case p.said <- lines.Text():
			default: // nobody reads it, and there is much
			}
		}
		p.ends = p.cmd.Wait()
		close(p.done)
	}()
	select {
	case p.base = <-ready:
	case <-p.done:
		p.t.Fatalf("%v ended before it was ready: %v", p.args, p.ends)
	case <-time.After(longestStep):
		p.t.Fatalf("%v did not say that it is ready", p.args)
	}
}

// says waits for a line with some words in it, and returns the line.
func (p *process) says(words string) string {
	p.t.Helper()
	late := time.After(longestStep)
	for {
		select {
		case line := <-p.said:
			if strings.Contains(line, words) {
				return line
			}
		case <-late:
			p.t.Fatalf("%v did not say %q", p.args, words)
		}
	}
}

// kill ends it as a power cut would.
func (p *process) kill() {
	_ = p.cmd.Process.Signal(syscall.SIGKILL) // it may be gone
	<-p.done
}

// stop asks it to end, and returns how it ended.
func (p *process) stop() error {
	p.t.Helper()
	require.NoError(p.t, p.cmd.Process.Signal(syscall.SIGTERM))
	<-p.done
	return p.ends
}

// command runs one of the program's commands to its end.
func command(t *testing.T, env []string, args ...string) (said string, err error) {
	t.Helper()
	cmd := exec.Command(binary(t), args...)
	cmd.Env = append(os.Environ(), env...)
	out, err := cmd.CombinedOutput()
	return string(out), err
}
