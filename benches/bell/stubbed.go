package main

import (
	"bytes"
	"context"
	"log/slog"
	"time"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"

	"earlychorus/core/audio/wav"
	"earlychorus/core/contour/packed"
	"earlychorus/core/outcome"
	"earlychorus/core/progress"
	"earlychorus/core/scores"
	"earlychorus/server/jobs"
	"earlychorus/server/store"
	"earlychorus/server/workers"
)

// stubbed saves the same analysis for each take, without listening: what the queue, the
// intake and the database do is real, and the ear, which more machines would do, costs
// nothing.
type stubbed struct {
	river.WorkerDefaults[jobs.AnalyzeTake]

	store *store.Store
	same  store.Analysis
	cut   progress.Cut
}

// listened makes what will be saved of one take that was listened to.
func (b signedIn) listened(ctx context.Context, s *store.Store) (*stubbed, error) {
	file, err := b.file(ctx, s, b.short, 0)
	if err != nil {
		return nil, err
	}
	sound, err := wav.Decode(bytes.NewReader(file), longestTake)
	if err != nil {
		return nil, err
	}
	score, err := b.score(ctx, s, b.short, 0)
	if err != nil {
		return nil, err
	}
	came, err := outcome.Of(ctx, sound, outcome.Request{Score: score})
	if err != nil {
		return nil, err
	}
	drawing, err := came.Draw(score, workers.SmallRibbon)
	if err != nil {
		return nil, err
	}
	return &stubbed{
		store: s,
		same: store.Analysis{
			Version:  workers.Version,
			Result:   came.Verdict.Result,
			TipKey:   came.Verdict.TipKey,
			Measured: came.Analysis,
			Verdict:  came.Verdict,
			Ribbon:   drawing,
			Contour:  packed.Pack(came.Analysis.Contour),
		},
		cut: progress.CutOf(came.Analysis, came.Verdict.Decided()),
	}, nil
}

// Work saves it for one take, with a row for each note as the real one has.
func (w *stubbed) Work(ctx context.Context, job *river.Job[jobs.AnalyzeTake]) error {
	t, err := w.store.Take(ctx, job.Args.TakeID)
	if err != nil {
		return err
	}
	a := w.same
	a.TakeID, a.CreatedAt = t.ID, time.Now().UTC()
	var notes []store.TakeNote
	for n, target := range t.Score.Targets() {
		if target.Phase == scores.Play {
			notes = append(notes, store.TakeNote{
				TakeID:   t.ID,
				Number:   n,
				PlayerID: t.PlayerID,
				Day:      t.Day,
				Sounding: int(target.Target),
				Good:     true,
				Trusted:  true,
			})
		}
	}
	return w.store.SaveAnalysis(ctx, a, notes, w.cut)
}

// stubbedAtOnce is how many takes are saved at once, as by the workers of a few machines.
const stubbedAtOnce = 8

// start works the queue until the result is called.
func (w *stubbed) start(ctx context.Context) (stop func(), err error) {
	all := river.NewWorkers()
	river.AddWorker(all, w)
	client, err := river.NewClient(riverdatabasesql.New(w.store.SQL()), &river.Config{
		Workers:           all,
		FetchPollInterval: lookEvery,
		FetchCooldown:     lookEvery,
		Logger:            slog.New(slog.DiscardHandler),
		Queues:            map[string]river.QueueConfig{river.QueueDefault: {MaxWorkers: stubbedAtOnce}},
	})
	if err != nil {
		return nil, err
	}
	if err := client.Start(ctx); err != nil {
		return nil, err
	}
	return func() { _ = client.StopAndCancel(context.WithoutCancel(ctx)) }, nil
}

const longestTake = 60 // seconds
