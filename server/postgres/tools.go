package postgres

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"net"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
)

// Dump writes a database as pg_dump's own format, as of a snapshot that a transaction
// has exported.
func Dump(ctx context.Context, dsn, snapshot string, to io.Writer) error {
	return tool(
		ctx,
		dsn,
		nil,
		to,
		"pg_dump",
		"--format=custom",
		"--no-owner",
		"--no-privileges",
		"--snapshot="+snapshot,
	)
}

// Load reads what Dump wrote into an empty database.
func Load(ctx context.Context, dsn string, from io.Reader) error {
	return tool(
		ctx, dsn, from, nil, "pg_restore", "--no-owner", "--no-privileges", "--exit-on-error", "--single-transaction",
		"--dbname=",
	)
}

// tool runs one of PostgreSQL's programs on a database. Its password goes by the
// environment, which other people of the machine cannot list.
func tool(ctx context.Context, dsn string, in io.Reader, out io.Writer, program string, args ...string) error {
	programs, err := findPrograms(debian, "")
	if err != nil {
		return err
	}
	c, err := pgx.ParseConfig(dsn)
	if err != nil {
		return fmt.Errorf("postgres: %w", err)
	}
	for n, arg := range args {
		if arg == "--dbname=" {
			args[n] += c.Database
		}
	}
	cmd := exec.CommandContext(ctx, filepath.Join(programs, program), args...)
	cmd.Env = []string{
		"LC_ALL=C", "PATH=/usr/bin:/bin", "PGHOST=" + c.Host, fmt.Sprintf("PGPORT=%d", c.Port),
		"PGUSER=" + c.User, "PGPASSWORD=" + c.Password, "PGDATABASE=" + c.Database,
	}
	if u, err := url.Parse(dsn); err == nil && u.Query().Has("sslmode") {
		cmd.Env = append(cmd.Env, "PGSSLMODE="+u.Query().Get("sslmode"))
	}
	var said bytes.Buffer
	cmd.Stdin, cmd.Stdout, cmd.Stderr = in, out, &said
	if err := cmd.Run(); err != nil {
		return fmt.Errorf("postgres: %s: %w: %s", program, err, bytes.TrimSpace(said.Bytes()))
	}
	return nil
}

// Running returns how to connect to the server that another process runs in a folder;
// ok is false when none runs.
func Running(folder string) (dsn string, ok bool) {
	account, err := serverAccount()
	if err != nil {
		return "", false
	}
	if folder, err = filepath.Abs(folder); err != nil {
		return "", false
	}
	folder = account.reachable(folder)
	password, err := os.ReadFile(filepath.Join(folder, "password"))
	if err != nil {
		return "", false
	}
	pid, err := os.ReadFile(filepath.Join(folder, "cluster", "postmaster.pid"))
	lines := strings.Split(string(pid), "\n")
	if err != nil || len(lines) < 8 || strings.TrimSpace(lines[7]) != "ready" {
		return "", false
	}
	// A killed one leaves its file behind.
	port := strings.TrimSpace(lines[3])
	line, err := net.DialTimeout("tcp", "127.0.0.1:"+port, time.Second)
	if err != nil {
		return "", false
	}
	return dsnOf(string(password), port), line.Close() == nil
}

// dsnOf is how to connect to a private server.
func dsnOf(password, port string) string {
	return fmt.Sprintf(
		"postgres://%s:%s@127.0.0.1:%s/%s?sslmode=disable", superuser, password, port, databaseName,
	)
}
