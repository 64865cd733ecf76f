package workers

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"net/url"
	"time"

	"github.com/riverqueue/river"

	"earlychorus/server/growth"
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
	if asked.Letter == jobs.LetterHome {
		return w.home(ctx, asked)
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

// mostWordsHome is how many comments go home in a letter.
const mostWordsHome = 3

// home is the letter about a child's week.
func (w *SendLetter) home(ctx context.Context, asked jobs.SendLetter) (mail.Letter, error) {
	monday, err := time.Parse(time.DateOnly, asked.Monday)
	if err != nil {
		return mail.Letter{}, river.JobCancel(err)
	}
	p, err := w.Store.Pass(ctx, asked.Pass)
	if err != nil {
		return mail.Letter{}, err
	}
	if p.Player == nil || p.Email == "" {
		return mail.Letter{}, store.ErrNotFound
	}
	sunday := monday.AddDate(0, 0, 6)
	grown, err := growth.Of(ctx, w.Store, p.Class, p.Player.ID, 1, sunday)
	if err != nil {
		return mail.Letter{}, err
	}
	held := 0.
	for _, week := range grown.Weeks {
		held = max(held, float64(week.BestHold))
	}
	words := []string{}
	for _, c := range grown.Comments {
		written, _ := time.Parse(time.RFC3339, c.WrittenAt) // as the view wrote it
		if c.Kind != "voice" && !written.Before(monday) && len(words) < mostWordsHome {
			words = append(words, c.Body)
		}
	}
	return mail.Home(p.Email, p.Player.FirstName, monday, len(grown.Days), held, words, asked.Site), nil
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
	letter := jobs.SendLetter{Monday: monday.AddDate(0, 0, -7).Format(time.DateOnly), Site: w.Public.String()}
	err := w.each(ctx, monday, w.Store.SummariesDue, w.Store.SummaryWritten, func(id string) jobs.SendLetter {
		l := letter
		l.Letter, l.Director = jobs.LetterSummary, id
		return l
	})
	if err != nil {
		return err
	}
	return w.each(ctx, monday, w.Store.LettersHomeDue, w.Store.LetterHomeWritten, func(id string) jobs.SendLetter {
		l := letter
		l.Letter, l.Pass = jobs.LetterHome, id
		return l
	})
}

// each queues a letter for everybody it is due for. Whoever notes it first queues it.
func (w *WriteSummaries) each(
	ctx context.Context,
	monday time.Time,
	due func(context.Context, time.Time, int) ([]string, error),
	written func(context.Context, string, time.Time) (bool, error),
	letter func(id string) jobs.SendLetter,
) error {
	for {
		ids, err := due(ctx, monday, summariesAtOnce)
		if err != nil || len(ids) == 0 {
			return err
		}
		for _, id := range ids {
			mine, err := written(ctx, id, monday)
			if err != nil {
				return err
			}
			if !mine {
				continue
			}
			if err := w.Queue.AddNow(ctx, letter(id)); err != nil {
				return err
			}
		}
	}
}
