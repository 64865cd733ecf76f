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

	"earlychorus/benches/figures"
	"earlychorus/server/postgres"
	"earlychorus/server/store"
)

func main() {
	b := bell{}
	flag.StringVar(&b.program, "program", "bin/earlychorus", "the program")
	flag.StringVar(&b.out, "o", "", "where to write the figures; standard output otherwise")
	flag.IntVar(&b.players, "players", 70, "how many of a band hand a take in")
	flag.IntVar(&b.bands, "bands", 1, "how many bands do; of several nobody listens to the takes")
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
	players      int // of a band
	bands        int
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
	if b.bands > 1 {
		return b.many(ctx, s, db.DSN, folder)
	}
	bands, server, err := b.begin(ctx, s, db.DSN, folder)
	if err != nil {
		return err
	}
	defer server.stop()
	came, err := ring(ctx, s, server, bands, b.within)
	if err != nil {
		return err
	}
	long, err := bands[0].longTakes(ctx, s, server)
	if err != nil {
		return err
	}
	return b.write(came, long)
}

// begin makes the schools, starts the program and signs everybody in.
func (b bell) begin(
	ctx context.Context, s *store.Store, dsn, folder string, more ...string,
) (bands []signedIn, at *server, err error) {
	var schools []school
	for n := range b.bands {
		class, err := newSchool(ctx, s, n, b.players)
		if err != nil {
			return nil, nil, err
		}
		schools = append(schools, class)
	}
	if at, err = serve(ctx, b.program, dsn, folder, more...); err != nil {
		return nil, nil, err
	}
	for _, class := range schools {
		everybody, err := signIn(at.base, class)
		if err != nil {
			at.stop()
			return nil, nil, err
		}
		bands = append(bands, everybody)
	}
	return bands, at, nil
}

// many rings for several bands at once, with the listening stubbed: what is left is the
// intake, the queue and the database.
func (b bell) many(ctx context.Context, s *store.Store, dsn, folder string) error {
	bands, server, err := b.begin(ctx, s, dsn, folder, "--no-worker")
	if err != nil {
		return err
	}
	defer server.stop()
	stub, err := bands[0].listened(ctx, s)
	if err != nil {
		return err
	}
	stop, err := stub.start(ctx)
	if err != nil {
		return err
	}
	defer stop()
	came, err := ring(ctx, s, server, bands, b.within)
	if err != nil {
		return err
	}
	return b.writeMany(came)
}

// writeMany says what several bands came to.
func (b bell) writeMany(r ringing) error {
	var t strings.Builder
	fmt.Fprintf(&t, `# Ten bells at once

Written by `+"`go run ./benches/bell -bands %d -o benches/BELLS.md`"+`: %d bands, %d takes of %.1f s
handed in within %.0f s, on %d cores, which also play the players and the workers. The listening is stubbed:
each take is given the same analysis, which is saved as a real one is. CPU is that of the program and of
PostgreSQL together; PostgreSQL waits for the disk.

| | measured |
| --- | --- |
| takes a second, handed in | %.0f |
| CPU for a take, without listening | %.3f s (program %.3f, PostgreSQL %.3f) |
| acknowledged, median and 95th percentile | %.0f and %.0f ms |
| saved as judged behind that, median and 95th percentile | %.1f and %.1f s |
| the board meanwhile, 95th percentile of %d | %.0f ms |
| memory, at most | %d MB |
| refused | %d |
`,
		b.bands, b.bands, r.takes, r.seconds, b.within.Seconds(), runtime.NumCPU(),
		float64(r.takes)/b.within.Seconds(),
		r.cpu.program/float64(r.takes)+r.cpu.database/float64(r.takes),
		r.cpu.program/float64(r.takes), r.cpu.database/float64(r.takes),
		ms(at(r.acknowledged, 0.5)), ms(at(r.acknowledged, 0.95)),
		at(r.judged, 0.5).Seconds(), at(r.judged, 0.95).Seconds(),
		len(r.board), ms(at(r.board, 0.95)), r.memory>>20, r.refused,
	)
	return b.put("bells", t.String(), []figures.Figure{
		figures.Plain("takes a second", "%.0f", float64(r.takes)/b.within.Seconds()),
		figures.Plain("CPU for a take, without listening", "%.3f s",
			(r.cpu.program+r.cpu.database)/float64(r.takes)),
		figures.Plain("acknowledged, median and 95th percentile", "%.0f and %.0f ms",
			ms(at(r.acknowledged, 0.5)), ms(at(r.acknowledged, 0.95))),
		figures.Plain("saved behind that, median and 95th percentile", "%.1f and %.1f s",
			at(r.judged, 0.5).Seconds(), at(r.judged, 0.95).Seconds()),
		figures.AtMost("refused", "%.0f", float64(r.refused), 0),
	})
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
	p95 := at(r.acknowledged, 0.95)
	return b.put("bell", t.String(), []figures.Figure{
		figures.AtMost("CPU for a take", "%.3f s", (r.cpu.program+r.cpu.database)/float64(r.takes), 0.12),
		figures.AtMost("acknowledged, median", "%.0f ms", ms(at(r.acknowledged, 0.5)), 100),
		figures.AtMost("acknowledged, 95th percentile", "%.0f ms", ms(p95), 300),
		figures.AtMost("judged, median", "%.1f s", at(r.judged, 0.5).Seconds(), 2),
		figures.AtMost("judged, 95th percentile", "%.1f s", at(r.judged, 0.95).Seconds(), 4),
		figures.AtMost("the board meanwhile, 95th percentile", "%.0f ms", ms(at(r.board, 0.95)), 100),
		figures.AtMost("memory", "%.0f MB", float64(r.memory>>20), 300),
		figures.AtMost(fmt.Sprintf("four takes of %.0f s at once: memory", long.seconds), "%.0f MB",
			float64(long.memory>>20), 300),
	})
}

// put writes a page where it belongs, and its figures among the others.
func (b bell) put(name, page string, all []figures.Figure) error {
	if b.out == "" {
		fmt.Print(page)
		return nil
	}
	if err := os.WriteFile(b.out, []byte(page), 0o644); err != nil {
		return err
	}
	return figures.Put(name, all)
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
