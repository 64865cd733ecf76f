// Command district measures how fast a full district's pages answer at the server:
//
//	bin/earlychorus seed-district --folder /tmp/district
//	go run ./benches/district /tmp/district
//	go run ./benches/district /tmp/district plans # how the database answers each page's questions
package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"path/filepath"
	"slices"
	"time"

	"earlychorus/benches/figures"
	"earlychorus/server/app"
	"earlychorus/server/district"
	"earlychorus/server/postgres"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

const (
	asks    = 100
	warmUps = 10
)

func main() {
	folder := "district"
	if len(os.Args) > 1 {
		folder = os.Args[1]
	}
	if err := measure(folder, len(os.Args) > 2 && os.Args[2] == "plans"); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func measure(folder string, explain bool) error {
	ctx := context.Background()
	server, err := postgres.Start(ctx, postgres.Options{Folder: folder})
	if err != nil {
		return err
	}
	defer server.Stop()
	dsn := server.DSN
	if explain {
		dsn = explained(dsn)
	}
	s, err := store.Open(dsn)
	if err != nil {
		return err
	}
	defer s.Close() //nolint:errcheck // ending
	if err := s.Migrate(ctx); err != nil {
		return err
	}
	sounds, err := os.MkdirTemp("", "district")
	if err != nil {
		return err
	}
	defer os.RemoveAll(sounds) //nolint:errcheck // ending
	kept, err := recordings.InFolder(filepath.Join(sounds, "recordings"))
	if err != nil {
		return err
	}
	answers, err := app.Serve(app.Parts{Store: s, Recordings: kept, Now: time.Now})
	if err != nil {
		return err
	}
	defer answers.Stop()
	handler, stop := answers.Handler(nil)
	defer stop()
	web := httptest.NewTLSServer(handler)
	defer web.Close()
	jar, err := cookiejar.New(nil)
	if err != nil {
		return err
	}
	v := visitor{base: web.URL + "/api", client: &http.Client{Transport: web.Client().Transport, Jar: jar}}
	if err := v.signIn(); err != nil {
		return err
	}
	if err := count(ctx, s); err != nil {
		return err
	}
	for n := range district.Year.Classes { // ladders are worked out once, when somebody asks
		if _, err := s.LaddersOfClass(ctx, store.Class{ID: district.ClassID(n)}); err != nil {
			return err
		}
	}
	if explain {
		return v.explain(folder)
	}
	return v.all(s)
}

func count(ctx context.Context, s *store.Store) error {
	var takes, notes, perTake float64
	var size string
	for q, to := range map[string]any{
		"SELECT reltuples FROM pg_class WHERE relname = 'take'":                        &takes,
		"SELECT reltuples FROM pg_class WHERE relname = 'take_note'":                   &notes,
		"SELECT avg(length(contour)) FROM (SELECT contour FROM analysis LIMIT 5000) c": &perTake,
		"SELECT pg_size_pretty(pg_database_size(current_database()))":                  &size,
	} {
		if err := s.SQL().QueryRowContext(ctx, q).Scan(to); err != nil {
			return err
		}
	}
	fmt.Printf(
		"%.1f million takes, %.1f million notes, %s; a contour takes %.0f bytes\n\n",
		takes/1e6,
		notes/1e6,
		size,
		perTake,
	)
	return nil
}

type visitor struct {
	base   string
	client *http.Client
}

func (v visitor) signIn() error {
	body, err := json.Marshal(map[string]string{"email": district.Email, "password": district.Password})
	if err != nil {
		return err
	}
	res, err := v.client.Post(v.base+"/sign-in/director", "application/json", bytes.NewReader(body))
	if err != nil {
		return err
	}
	defer res.Body.Close() //nolint:errcheck // read only
	if res.StatusCode != http.StatusOK {
		return fmt.Errorf("sign-in: %s", res.Status)
	}
	return nil
}

// page is one that is measured: each asking is of another class.
type page struct {
	name string
	path func() string
}

func pages() []page {
	chance := rand.New(rand.NewPCG(1, 2))
	class := func() int { return chance.IntN(district.Year.Classes) }
	lastDay := time.Now().UTC()
	for lastDay.Weekday() == time.Saturday || lastDay.Weekday() == time.Sunday {
		lastDay = lastDay.AddDate(0, 0, -1)
	}
	return []page{
		{"Today", func() string {
			return "/classes/" + district.ClassID(class()) + "/today?day=" + lastDay.Format(time.DateOnly)
		}},
		{"Listen, chosen anew", func() string {
			return "/classes/" + district.ClassID(class()) + "/listening?minutes=5&afresh=true"
		}},
		{"Listen, gone on with", func() string { return "/classes/" + district.ClassID(0) + "/listening" }},
		{
			"Section, a fortnight",
			func() string { return "/classes/" + district.ClassID(class()) + "/sections/Clarinets?days=14" },
		},
		{
			"Section, a year",
			func() string { return "/classes/" + district.ClassID(class()) + "/sections/Clarinets?days=370" },
		},
		{"Player, twelve weeks", func() string {
			c := class()
			return "/classes/" + district.ClassID(c) + "/players/" + district.Year.PlayerID(
				c,
				chance.IntN(district.Year.Players),
			) + "/growth"
		}},
		{"Section's tone", func() string {
			return "/classes/" + district.ClassID(class()) + "/sections/Clarinets/tone"
		}},
		{"Page for home, printed", func() string {
			c := class()
			return "/classes/" + district.ClassID(c) + "/players/" + district.Year.PlayerID(
				c,
				chance.IntN(district.Year.Players),
			) + "/report.pdf"
		}},
		{"Plan", func() string {
			return "/classes/" + district.ClassID(class()) + "/plans/" + store.Monday(lastDay).Format(time.DateOnly)
		}},
		// Last, for a test is no column of Today.
		{"Tests", func() string { return "/classes/" + district.ClassID(class()) + "/tests" }},
	}
}

// makeTests has one step of each class's newest week be a test, so that there is something to
// count.
func makeTests(ctx context.Context, s *store.Store) error {
	_, err := s.SQL().ExecContext(ctx, `UPDATE step SET test = json_build_object(
			'due', to_char(last_day, 'YYYY-MM-DD'), 'takes', 3, 'counts', 'best')
		WHERE id IN (SELECT DISTINCT ON (class_id) id FROM step ORDER BY class_id, last_day DESC, position)`)
	return err
}

// open asks for a page and returns its size in bytes.
func (v visitor) open(path string) (int, error) {
	res, err := v.client.Get(v.base + path)
	if err != nil {
		return 0, err
	}
	defer res.Body.Close() //nolint:errcheck // read to its end
	if res.StatusCode != http.StatusOK {
		return 0, fmt.Errorf("%s: %s", path, res.Status)
	}
	got, err := io.Copy(io.Discard, res.Body)
	return int(got), err
}

// explain prints how each page's questions are answered, once everything is warm.
func (v visitor) explain(folder string) error {
	for _, p := range pages() {
		for range warmUps {
			if _, err := v.open(p.path()); err != nil {
				return err
			}
		}
		from, err := os.Stat(filepath.Join(folder, "log"))
		if err != nil {
			return err
		}
		if _, err := v.open(p.path()); err != nil {
			return err
		}
		if err := plans(folder, p.name, from.Size()); err != nil {
			return err
		}
	}
	return nil
}

func (v visitor) all(s *store.Store) error {
	var all []figures.Figure
	fmt.Println("| page | p50 ms | p95 ms | worst ms | kB |")
	fmt.Println("| --- | ---: | ---: | ---: | ---: |")
	for _, p := range pages() {
		if p.name == "Tests" {
			if err := makeTests(context.Background(), s); err != nil {
				return err
			}
		}
		var took []float64
		size := 0
		for n := range asks + warmUps {
			path := p.path()
			began := time.Now()
			got, err := v.open(path)
			if err != nil {
				return err
			}
			if n >= warmUps {
				took = append(took, float64(time.Since(began).Microseconds())/1000)
				size += got
			}
		}
		slices.Sort(took)
		fmt.Printf(
			"| %s | %.1f | %.1f | %.1f | %d |\n",
			p.name,
			took[len(took)/2],
			took[len(took)*95/100],
			took[len(took)-1],
			size/asks/1000,
		)
		all = append(all, figures.AtMost(p.name+", 95th percentile", "%.0f ms", took[len(took)*95/100], 50))
	}
	return figures.Put("district", all)
}
