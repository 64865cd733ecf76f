// Package postgres runs a private PostgreSQL server (Debian's package) as a
// child of this process, on loopback, with its files in one folder. Nothing
// of it outlives the process, and a killed process leaves nothing that stops
// the next one.
package postgres

import (
	"bytes"
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strings"
	"sync"
	"syscall"
	"time"
)

// Server is a running PostgreSQL.
type Server struct {
	DSN string // how to connect to its database "earlychorus"

	cluster   cluster
	throwaway bool
	port      int

	mu      sync.Mutex
	cmd     *exec.Cmd
	exited  chan struct{} // closed when the child is gone; then
	why     error         // says how it ended
	stopped chan struct{} // closed when it is to stay down
	watched chan struct{} // closed when nobody will start it again
}

// Options say how a server is run.
type Options struct {
	Folder    string // where its files live; made when missing
	Throwaway bool   // for tests: quick, and not safe against a power cut
}

const (
	superuser    = "earlychorus"
	databaseName = "earlychorus"
	startTimeout = 30 * time.Second
	bindAttempts = 5
)

// Start prepares the folder if it is new and starts the server. It returns
// once connections are answered.
func Start(ctx context.Context, o Options) (*Server, error) {
	account, err := serverAccount()
	if err != nil {
		return nil, err
	}
	folder, err := filepath.Abs(o.Folder)
	if err != nil {
		return nil, err
	}
	folder = account.reachable(folder)
	c := cluster{
		account: account,
		data:    filepath.Join(folder, "cluster"),
		secret:  filepath.Join(folder, "password"),
	}
	if c.programs, err = findPrograms(debian, c.data); err != nil {
		return nil, err
	}
	if err := c.prepare(o.Throwaway); err != nil {
		return nil, err
	}
	for attempt := 1; ; attempt++ {
		s, err := c.start(ctx, o.Throwaway)
		if err == nil {
			go s.watch()
			return s, nil
		}
		if attempt == bindAttempts || !errors.Is(err, errBind) {
			return nil, err
		}
	}
}

// cluster is a data folder and who may run it.
type cluster struct {
	programs, data, secret string
	account                account
}

// command runs one of the server's programs with an environment of its own: a PGPORT
// of whoever starts us would send it elsewhere.
func (c cluster) command(program string, args ...string) *exec.Cmd {
	cmd := exec.Command(filepath.Join(c.programs, program), args...)
	cmd.Dir = "/"
	cmd.Env = []string{"LC_ALL=C", "PATH=/usr/bin:/bin"}
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: c.account.credential}
	return cmd
}

// prepare makes the cluster unless it is there already. A half-made one, from
// a run killed in the middle, is made again.
func (c cluster) prepare(throwaway bool) error {
	done := filepath.Join(filepath.Dir(c.data), "prepared")
	if _, err := os.Stat(done); err == nil {
		return nil
	}
	if err := os.RemoveAll(c.data); err != nil {
		return fmt.Errorf("postgres: %w", err)
	}
	if err := os.MkdirAll(filepath.Dir(c.data), 0o755); err != nil {
		return fmt.Errorf("postgres: %w", err)
	}
	if err := os.WriteFile(c.secret, []byte(rand.Text()), 0o600); err != nil {
		return fmt.Errorf("postgres: %w", err)
	}
	if err := c.account.own(filepath.Dir(c.data), c.secret); err != nil {
		return err
	}
	args := []string{
		"--pgdata=" + c.data, "--username=" + superuser, "--pwfile=" + c.secret,
		"--auth=scram-sha-256", "--encoding=UTF8", "--locale=C.UTF-8",
	}
	if throwaway {
		args = append(args, "--no-sync")
	}
	if out, err := c.command("initdb", args...).CombinedOutput(); err != nil {
		return fmt.Errorf("postgres: initdb: %w: %s", err, bytes.TrimSpace(out))
	}
	return os.WriteFile(done, nil, 0o644)
}

// errBind says that somebody else was quicker to the port; another one is tried.
var errBind = errors.New("postgres: the port was taken")

// start runs the server on loopback with a password that is a file beside its data.
// A throwaway one does not wait for the disk.
func (c cluster) start(ctx context.Context, throwaway bool) (*Server, error) {
	password, err := os.ReadFile(c.secret)
	if err != nil {
		return nil, fmt.Errorf("postgres: %w", err)
	}
	port, err := freePort()
	if err != nil {
		return nil, err
	}
	s := &Server{
		DSN:       dsnOf(string(password), fmt.Sprint(port)),
		cluster:   c,
		throwaway: throwaway,
		port:      port,
		stopped:   make(chan struct{}),
		watched:   make(chan struct{}),
	}
	if err := s.up(ctx); err != nil {
		return nil, err
	}
	return s, ensureDatabase(ctx, s.DSN)
}

// logs is how many logs are kept: the last, which says why it died, is not the newest.
const logs = 4

// newLog opens a fresh log beside the data, and keeps the ones before it.
func (c cluster) newLog() (*os.File, error) {
	name := filepath.Join(filepath.Dir(c.data), "log")
	for n := logs - 1; n > 0; n-- {
		from := name
		if n > 1 {
			from = fmt.Sprintf("%s.%d", name, n-1)
		}
		_ = os.Rename(from, fmt.Sprintf("%s.%d", name, n)) // there may be none yet
	}
	return os.OpenFile(name, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
}

// up starts the child, always at the same port, and waits until it answers.
func (s *Server) up(ctx context.Context) error {
	log, err := s.cluster.newLog()
	if err != nil {
		return fmt.Errorf("postgres: %w", err)
	}
	defer log.Close() //nolint:errcheck // the child holds its own copy
	args := []string{
		"-D", s.cluster.data, "-p", fmt.Sprint(s.port), "-c", "listen_addresses=127.0.0.1",
		"-c", "unix_socket_directories=", "-c", "timezone=UTC", "-c", "max_connections=60",
	}
	if s.throwaway {
		args = append(args, "-c", "fsync=off", "-c", "synchronous_commit=off", "-c", "full_page_writes=off")
	}
	s.mu.Lock()
	s.cmd = s.cluster.command("postgres", args...)
	s.cmd.Stdout, s.cmd.Stderr = log, log
	s.exited = make(chan struct{})
	s.mu.Unlock()
	if err := s.run(); err != nil {
		return err
	}
	if err := s.waitReady(ctx, s.cluster.data, log.Name()); err != nil {
		s.down()
		return err
	}
	return nil
}

// comeBack is how long to wait before it is started again, and most of it when that
// failed before.
const (
	comeBack     = 200 * time.Millisecond
	mostComeBack = 10 * time.Second
)

// watch starts the server again whenever it dies, until Stop. Whoever is connected finds
// it at the same address.
func (s *Server) watch() {
	defer close(s.watched)
	for pause := comeBack; ; {
		select {
		case <-s.stopped:
			return
		case <-s.exited:
			slog.Error("the database died and is started again", "error", s.why)
		}
		for {
			select {
			case <-s.stopped:
				return
			case <-time.After(pause):
			}
			err := s.up(context.Background())
			if err == nil {
				pause = comeBack
				break
			}
			pause = min(2*pause, mostComeBack)
			slog.Error("the database does not start", "error", err, "again in", pause)
		}
	}
}

// run starts the child on a thread of its own: Linux sends the death signal
// when the thread that started the child ends, so that thread must stay.
func (s *Server) run() error {
	s.cmd.SysProcAttr.Pdeathsig = syscall.SIGINT // a fast, clean shutdown
	s.cmd.SysProcAttr.Setpgid = true             // Ctrl-C is for us; we stop it in order
	started, cmd, exited := make(chan error, 1), s.cmd, s.exited
	go func() {
		runtime.LockOSThread()
		err := cmd.Start()
		started <- err
		if err == nil {
			s.why = cmd.Wait()
			close(exited)
		}
	}()
	if err := <-started; err != nil {
		return fmt.Errorf("postgres: %w", err)
	}
	return nil
}

// waitReady watches postmaster.pid, whose eighth line says when connections
// are answered. A predecessor that is still shutting down is waited for.
func (s *Server) waitReady(ctx context.Context, data, logFile string) error {
	deadline := time.Now().Add(startTimeout)
	for time.Now().Before(deadline) {
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-s.exited:
			said, _ := os.ReadFile(logFile)
			if strings.Contains(string(said), "could not bind") {
				return errBind
			}
			if stillStopping(string(said)) {
				time.Sleep(time.Second)
				return errBind // try again
			}
			return fmt.Errorf("postgres: it stopped at once: %w: %s", s.why, bytes.TrimSpace(said))
		case <-time.After(20 * time.Millisecond):
		}
		pid, err := os.ReadFile(filepath.Join(data, "postmaster.pid"))
		lines := strings.Split(string(pid), "\n")
		if err == nil && len(lines) >= 8 && strings.TrimSpace(lines[0]) == fmt.Sprint(s.cmd.Process.Pid) &&
			strings.TrimSpace(lines[7]) == "ready" {
			return nil
		}
	}
	return errors.New("postgres: not ready after 30 s; its log is " + logFile)
}

// stillStopping reports whether the log says that a server before this one, or
// the children of one that was killed, have not gone yet.
func stillStopping(said string) bool {
	return strings.Contains(said, "postmaster.pid") && strings.Contains(said, "already exists") ||
		strings.Contains(said, "pre-existing shared memory block")
}

// stopTimeout is how long a clean shutdown may take.
const stopTimeout = 4 * time.Second

// Stop shuts the server down cleanly and waits for it.
func (s *Server) Stop() {
	close(s.stopped)
	<-s.watched // it may just be coming back
	s.down()
}

// down ends the child; killed, it recovers from its log the next time.
func (s *Server) down() {
	s.mu.Lock()
	defer s.mu.Unlock()
	_ = s.cmd.Process.Signal(syscall.SIGINT) // it may be gone already
	select {
	case <-s.exited:
	case <-time.After(stopTimeout):
		_ = s.cmd.Process.Kill()
		<-s.exited
	}
}

// freePort is free when it is asked for; between here and the server's start
// somebody may take it, see errBind.
func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, fmt.Errorf("postgres: no free port: %w", err)
	}
	port := l.Addr().(*net.TCPAddr).Port
	return port, l.Close()
}
