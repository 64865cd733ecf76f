package workers

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"net/url"
	"time"

	"github.com/riverqueue/river"

	"earlychorus/server/jobs"
	"earlychorus/server/mail"
	"earlychorus/server/store"
)

// SendLetter writes a letter and takes it to the post. The secret of a reset is made here, so
// that the queue's rows hold none.
type SendLetter struct {
	river.WorkerDefaults[jobs.SendLetter]

	Store *store.Store
	Post  mail.Carrier // nil: the school has none, and nothing is asked for
	Now   func() time.Time
}

// Work sends one letter. A letter to somebody who is gone is not written.
func (w *SendLetter) Work(ctx context.Context, job *river.Job[jobs.SendLetter]) error {
	if w.Post == nil {
		return river.JobCancel(errors.New("no mail server is set"))
	}
	l, err := w.letter(ctx, job.Args)
	if errors.Is(err, store.ErrNotFound) {
		return river.JobCancel(err)
	}
	if err != nil {
		return err
	}
	return w.Post.Carry(ctx, l)
}

func (w *SendLetter) letter(ctx context.Context, asked jobs.SendLetter) (mail.Letter, error) {
	if asked.Letter == jobs.LetterInvitation {
		class, err := w.Store.Class(ctx, asked.Class)
		if err != nil {
			return mail.Letter{}, err
		}
		by, err := w.Store.Director(ctx, asked.Director)
		return mail.Invitation(asked.Email, by.Name, class.Name, class.School.Name, asked.Site), err
	}
	d, err := w.Store.Director(ctx, asked.Director)
	if err != nil {
		return mail.Letter{}, err
	}
	switch asked.Letter {
	case jobs.LetterReset:
		token := rand.Text() // 128 bits and more
		if err := w.Store.AllowReset(ctx, d.ID, token, w.Now()); err != nil {
			return mail.Letter{}, err
		}
		// Behind the #, which no server's log sees.
		return mail.Reset(d.Email, d.Name, asked.Site+"/new-password#"+token), nil
	case jobs.LetterSummary:
		monday, err := time.Parse(time.DateOnly, asked.Monday)
		if err != nil {
			return mail.Letter{}, river.JobCancel(err)
		}
		weeks, err := w.Store.WeekOfClasses(ctx, d.ID, monday)
		classes := make([]mail.ClassWeek, len(weeks))
		for n, c := range weeks {
			classes[n] = mail.ClassWeek(c)
		}
		return mail.Summary(d.Email, d.Name, monday, classes, asked.Site), err
	}
	return mail.Letter{}, river.JobCancel(fmt.Errorf("no such letter: %s", asked.Letter))
}

// WriteSummaries asks for the weekly letters that are due.
type WriteSummaries struct {
	river.WorkerDefaults[jobs.WriteSummaries]

	Store  *store.Store
	Queue  *jobs.Queue
	Public *url.URL // where people reach the program; nil: no letter could lead there
	Now    func() time.Time
}

const (
	summariesEvery  = time.Hour
	summariesAtOnce = 500
)

// Work queues each due letter once: on Monday, of the week before. Several at once, or again,
// are harmless.
func (w *WriteSummaries) Work(ctx context.Context, _ *river.Job[jobs.WriteSummaries]) error {
	if w.Public == nil {
		return nil
	}
	monday := store.Monday(w.Now().UTC().Truncate(24 * time.Hour))
	for {
		due, err := w.Store.SummariesDue(ctx, monday, summariesAtOnce)
		if err != nil || len(due) == 0 {
			return err
		}
		for _, id := range due {
			mine, err := w.Store.SummaryWritten(ctx, id, monday)
			if err != nil {
				return err
			}
			if !mine {
				continue
			}
			err = w.Queue.AddNow(ctx, jobs.SendLetter{
				Letter:   jobs.LetterSummary,
				Director: id,
				Monday:   monday.AddDate(0, 0, -7).Format(time.DateOnly),
				Site:     w.Public.String(),
			})
			if err != nil {
				return err
			}
		}
	}
}
