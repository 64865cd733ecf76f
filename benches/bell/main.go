// Command bell measures the minute in which a lesson begins: seventy players hand in a
// take of about thirteen seconds each within ten seconds, and the director looks at the
// board meanwhile. Then four of the longest takes at once, for memory. The real program
// serves, on a PostgreSQL of its own that waits for the disk:
//
//	go build -o bin/earlychorus ./cmd/earlychorus && go run ./benches/bell -o benches/BELL.md
package main

import (
	"context"
	"flag"
	"fmt"
	"os"
	"os/signal"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"time"

	"earlychorus/server/postgres"
	"earlychorus/server/store"
)

func main() {
	b := bell{}
	flag.StringVar(&b.program, "program", "bin/earlychorus", "the program")
	flag.StringVar(&b.out, "o", "", "where to write the figures; standard output otherwise")
	flag.IntVar(&b.players, "players", 70, "how many hand a take in")
	flag.DurationVar(&b.within, "within", 10*time.Second, "in which time they do")
	flag.Parse()
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt)
	defer stop()
	if err := b.run(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "bell:", err)
		os.Exit(1)
	}
}

// bell is a measurement.
type bell struct {
	program, out string
	players      int
	within       time.Duration
}

func (b bell) run(ctx context.Context) error {
	folder, err := os.MkdirTemp("", "earlychorus-bell")
	if err != nil {
		return err
	}
	defer os.RemoveAll(folder) //nolint:errcheck // a temporary folder
	if err := os.Chmod(folder, 0o755); err != nil {
		return err
	}
	db, err := postgres.Start(ctx, postgres.Options{Folder: filepath.Join(folder, "postgres")})
	if err != nil {
		return err
	}
	defer db.Stop()
	s, err := store.Open(db.DSN)
	if err != nil {
		return err
	}
	defer s.Close() //nolint:errcheck // ending
	if err := s.Migrate(ctx); err != nil {
		return err
	}
	class, err := newSchool(ctx, s, b.players)
	if err != nil {
		return err
	}
	server, err := serve(ctx, b.program, db.DSN, folder)
	if err != nil {
		return err
	}
	defer server.stop()
	everybody, err := signIn(server.base, class)
	if err != nil {
		return err
	}
	ring, err := everybody.ring(ctx, s, server, b.within)
	if err != nil {
		return err
	}
	long, err := everybody.longTakes(ctx, s, server)
	if err != nil {
		return err
	}
	return b.write(ring, long)
}

// write puts the figures beside their goals.
func (b bell) write(r ringing, long longest) error {
	var t strings.Builder
	fmt.Fprintf(&t, `# The bell

Written by `+"`go run ./benches/bell -o benches/BELL.md`"+`: %d takes of %.1f s handed in within %.0f s, on %d cores.
CPU is that of the program and of PostgreSQL together; PostgreSQL waits for the disk.

| | measured | goal |
| --- | --- | --- |
| CPU for a take | %.3f s (program %.3f, PostgreSQL %.3f) | 0.12 s |
| acknowledged, median and 95th percentile | %.0f and %.0f ms | 100 and 300 ms |
| judged, median and 95th percentile | %.1f and %.1f s | 2 and 4 s |
| the board meanwhile, 95th percentile of %d | %.0f ms | 100 ms |
| memory, at most | %d MB | 300 MB |
| four takes of %.0f s at once: memory, at most | %d MB | 300 MB |
| refused | %d | 0 |
`,
		r.takes, r.seconds, b.within.Seconds(), runtime.NumCPU(),
		r.cpu.program/float64(r.takes)+r.cpu.database/float64(r.takes),
		r.cpu.program/float64(r.takes), r.cpu.database/float64(r.takes),
		ms(at(r.acknowledged, 0.5)), ms(at(r.acknowledged, 0.95)),
		at(r.judged, 0.5).Seconds(), at(r.judged, 0.95).Seconds(),
		len(r.board), ms(at(r.board, 0.95)),
		r.memory>>20, long.seconds, long.memory>>20, r.refused,
	)
	if b.out == "" {
		fmt.Print(t.String())
		return nil
	}
	return os.WriteFile(b.out, []byte(t.String()), 0o644)
}

// at returns a percentile.
func at(times []time.Duration, share float64) time.Duration {
	if len(times) == 0 {
		return 0
	}
	sorted := slices.Sorted(slices.Values(times))
	return sorted[min(int(share*float64(len(sorted))), len(sorted)-1)]
}

func ms(d time.Duration) float64 { return float64(d) / float64(time.Millisecond) }
