// Package health tells whoever watches the program whether it lives, whether it can do
// its work, and how much of it there is.
package health

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"

	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// Watch is what is watched.
type Watch struct {
	Store      *store.Store
	Recordings *recordings.Store

	registry *prometheus.Registry
	requests *prometheus.HistogramVec
}

// New begins to count.
func New(s *store.Store, kept *recordings.Store) *Watch {
	w := &Watch{
		Store:      s,
		Recordings: kept,
		registry:   prometheus.NewRegistry(),
		requests: prometheus.NewHistogramVec(prometheus.HistogramOpts{
			Name:    "earlychorus_request_seconds",
			Help:    "Time to answer a request, by route and status.",
			Buckets: []float64{0.005, 0.02, 0.05, 0.1, 0.3, 1, 3, 10, 60},
		}, []string{"method", "route", "status"}),
	}
	w.registry.MustRegister(
		w.requests,
		waiting{s},
		collectors.NewGoCollector(),
		collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}),
		collectors.NewDBStatsCollector(s.SQL(), "earlychorus"),
	)
	return w
}

// Request counts an answered request; route is its pattern, never its numbers.
func (w *Watch) Request(method, route string, status int, took time.Duration) {
	w.requests.WithLabelValues(method, route, fmt.Sprint(status)).Observe(took.Seconds())
}

// askTime is how long a thing may take to say that it is there.
const askTime = 2 * time.Second

// Ready reports whether the database, its schema and the recordings are as they must
// be. An error says what is missing.
func (w *Watch) Ready(ctx context.Context) error {
	ctx, cancel := context.WithTimeout(ctx, askTime)
	defer cancel()
	if err := w.Store.Ready(ctx); err != nil {
		return err
	}
	if err := w.Store.OwnRecordings(ctx, w.Recordings); err != nil {
		return fmt.Errorf("the recordings: %w", err)
	}
	return nil
}

// Handler answers /healthz, /readyz and /metrics: for an address that the public does
// not reach.
func (w *Watch) Handler() http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("GET /healthz", Alive)
	mux.HandleFunc("GET /readyz", w.ServeReady)
	mux.Handle("GET /metrics", promhttp.HandlerFor(w.registry, promhttp.HandlerOpts{}))
	return mux
}

// Alive answers as long as anything does.
func Alive(rw http.ResponseWriter, _ *http.Request) {
	rw.Header().Set("Cache-Control", "no-store")
	_, _ = fmt.Fprintln(rw, "alive") // the asker may be gone
}

// ServeReady answers 200, or 503 with what is missing.
func (w *Watch) ServeReady(rw http.ResponseWriter, r *http.Request) {
	rw.Header().Set("Cache-Control", "no-store")
	if err := w.Ready(r.Context()); err != nil {
		http.Error(rw, "not ready", http.StatusServiceUnavailable)
		return
	}
	_, _ = fmt.Fprintln(rw, "ready")
}

// waiting is asked of the database whenever somebody looks.
type waiting struct{ store *store.Store }

var (
	takesWaiting = prometheus.NewDesc("earlychorus_takes_waiting", "Takes nobody has listened to yet.", nil, nil)
	oldestWaits  = prometheus.NewDesc(
		"earlychorus_oldest_take_waiting_seconds", "How long the oldest of them has waited.", nil, nil,
	)
	takesFailed = prometheus.NewDesc(
		"earlychorus_takes_failed_today", "Takes of the last day that could not be listened to.", nil, nil,
	)
)

// Describe names what is asked.
func (waiting) Describe(out chan<- *prometheus.Desc) {
	out <- takesWaiting
	out <- oldestWaits
	out <- takesFailed
}

// Collect asks it.
func (w waiting) Collect(out chan<- prometheus.Metric) {
	ctx, cancel := context.WithTimeout(context.Background(), askTime)
	defer cancel()
	is, err := w.store.WaitingTakes(ctx)
	if err != nil {
		out <- prometheus.NewInvalidMetric(takesWaiting, err)
		return
	}
	out <- prometheus.MustNewConstMetric(takesWaiting, prometheus.GaugeValue, float64(is.Takes))
	out <- prometheus.MustNewConstMetric(oldestWaits, prometheus.GaugeValue, is.Oldest)
	out <- prometheus.MustNewConstMetric(takesFailed, prometheus.GaugeValue, float64(is.Failed))
}
