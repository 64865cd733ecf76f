package main

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
)

// server is the program at work.
type server struct {
	cmd      *exec.Cmd
	base     string
	postgres string // the folder of its cluster
}

// serve starts the program and waits until it serves.
func serve(ctx context.Context, program, dsn, folder string, more ...string) (*server, error) {
	asked := append([]string{
		"serve",
		"--no-demo",
		"--port",
		"18070",
		"--database",
		dsn,
		"--data",
		filepath.Join(folder, "data"),
	}, more...)
	cmd := exec.CommandContext(ctx, program, asked...)
	cmd.Stderr = os.Stderr
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	if err := cmd.Start(); err != nil {
		return nil, err
	}
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		if _, address, ok := strings.Cut(lines.Text(), "is at "); ok {
			go func() { _, _ = io.Copy(io.Discard, out) }()
			return &server{cmd, address, filepath.Join(folder, "postgres", "cluster")}, nil
		}
	}
	return nil, fmt.Errorf("the program did not say where it serves")
}

func (s *server) stop() {
	_ = s.cmd.Process.Signal(syscall.SIGTERM)
	_ = s.cmd.Wait()
}

// cpu is seconds of processors.
type cpu struct{ program, database float64 }

func (c cpu) since(before cpu) cpu {
	return cpu{c.program - before.program, c.database - before.database}
}

// cpuNow reads how much was used: the program's, and that of PostgreSQL's processes,
// those that have ended since included.
func (s *server) cpuNow() cpu {
	var out cpu
	out.program = used(s.cmd.Process.Pid, false)
	raw, _ := os.ReadFile(filepath.Join(s.postgres, "postmaster.pid"))
	postmaster, _ := strconv.Atoi(strings.TrimSpace(strings.SplitN(string(raw), "\n", 2)[0]))
	out.database = used(postmaster, true)
	children, _ := filepath.Glob("/proc/[0-9]*/stat")
	for _, file := range children {
		pid, _ := strconv.Atoi(strings.Split(file, "/")[2])
		if fields := stat(pid); len(fields) > 1 && fields[1] == strconv.Itoa(postmaster) {
			out.database += used(pid, false)
		}
	}
	return out
}

const ticks = 100 // of a second, which Linux counts in

// used reads a process's seconds, with or without those of its children that ended.
func used(pid int, children bool) float64 {
	fields := stat(pid)
	if len(fields) < 15 {
		return 0
	}
	last := 13
	if children {
		last = 15
	}
	sum := 0.0
	for _, field := range fields[11:last] {
		n, _ := strconv.ParseFloat(field, 64)
		sum += n
	}
	return sum / ticks
}

// stat reads what Linux says of a process, from its state on (proc_pid_stat(5)).
func stat(pid int) []string {
	raw, err := os.ReadFile(fmt.Sprintf("/proc/%d/stat", pid))
	if err != nil {
		return nil
	}
	_, after, _ := strings.Cut(string(raw), ") ")
	return strings.Fields(after)
}

// memory reads the most that the program ever had, in bytes.
func (s *server) memory() int64 {
	raw, _ := os.ReadFile(fmt.Sprintf("/proc/%d/status", s.cmd.Process.Pid))
	for line := range strings.Lines(string(raw)) {
		if rest, ok := strings.CutPrefix(line, "VmHWM:"); ok {
			kb, _ := strconv.ParseInt(strings.Fields(rest)[0], 10, 64)
			return kb << 10
		}
	}
	return 0
}
