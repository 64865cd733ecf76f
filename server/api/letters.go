package api

import (
	"context"
	"errors"
	"net"
	"net/url"
	"time"

	"earlychorus/server/jobs"
	"earlychorus/server/mail"
	"earlychorus/server/password"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// write has a letter written, where letters can be sent and lead somewhere.
func (a *API) write(ctx context.Context, l jobs.SendLetter) error {
	site, ok := a.siteOfLetters(ctx)
	if !a.Mail || !ok {
		return nil
	}
	l.Site = site
	return a.Intake.Queue.AddNow(ctx, l)
}

// siteOfLetters is where a letter's links lead. A request says which host it asks, and
// anybody may say anything there: without a public address only this machine's own is believed.
func (a *API) siteOfLetters(ctx context.Context) (string, bool) {
	if a.Public != nil {
		return a.Public.String(), true
	}
	site := fromOf(ctx).site
	u, err := url.Parse(site)
	if err != nil {
		return "", false
	}
	ip := net.ParseIP(u.Hostname())
	return site, u.Hostname() == "localhost" || ip != nil && ip.IsLoopback()
}

type forgottenInput struct {
	Body struct {
		Email string `json:"email" maxLength:"200"`
	}
}

// forgotPassword has a letter sent to whoever has an account under an address. The answer is
// the same for everybody; asking often costs waits.
func (a *API) forgotPassword(ctx context.Context, in *forgottenInput) (*struct{}, error) {
	if _, ok := a.siteOfLetters(ctx); !a.Mail || !ok {
		return nil, problem.Of(problem.Missing, "No letters are sent from here. Ask your school’s administrator.", nil)
	}
	key := store.EmailKey(in.Body.Email)
	_, wait, err := a.guard().Nobody(ctx, "forgotten "+key, addressOf(ctx), a.Now())
	if err != nil {
		return nil, err
	}
	if wait > 0 {
		return nil, tooEarly(ctx, wait)
	}
	d, err := a.Store.DirectorByEmail(ctx, key)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	if err := a.write(ctx, jobs.SendLetter{Letter: jobs.LetterReset, Director: d.ID}); err != nil {
		return nil, err
	}
	who := store.Asker{Role: store.RoleDirector, Subject: d.ID}
	return nil, a.audit(ctx, store.Audited{Role: who.Role, Subject: &who.Subject, Action: "asked for a new password"})
}

type chooseInput struct {
	Body struct {
		Token    string `json:"token" maxLength:"100" doc:"of the letter's link"`
		Password string `json:"password" maxLength:"200"`
	}
}

// choosePassword changes a password by a letter's link, once. Whoever was signed in is out;
// one signs in with the new one, and with the device's code where one is asked for.
func (a *API) choosePassword(ctx context.Context, in *chooseInput) (*struct{}, error) {
	late := problem.Of(
		problem.Missing, "This link was used, or is older than an hour. Ask for a new letter.", nil,
	)
	d, err := a.Store.ResetFor(ctx, in.Body.Token, a.Now().Add(-mail.ResetHours*time.Hour))
	if errors.Is(err, store.ErrNotFound) {
		return nil, late
	}
	if err != nil {
		return nil, err
	}
	if err := password.Check(in.Body.Password, d.Name, d.Email); err != nil {
		return nil, err
	}
	hash, err := password.Hash(in.Body.Password)
	if err != nil {
		return nil, err
	}
	err = a.Store.UseReset(ctx, in.Body.Token, d.ID, hash)
	if errors.Is(err, store.ErrNotFound) {
		return nil, late
	}
	if err != nil {
		return nil, err
	}
	return nil, a.audit(ctx, store.Audited{Role: store.RoleDirector, Subject: &d.ID, Action: "chose a new password"})
}

type summaryInput struct {
	Body struct {
		Weekly bool `json:"weekly"`
	}
}

// wantSummary says whether the asker gets the weekly letter.
func (a *API) wantSummary(ctx context.Context, in *summaryInput) (*struct{}, error) {
	return nil, a.Store.WantsSummary(ctx, a.who(ctx).Subject, in.Body.Weekly)
}

// LetterView is a letter in the stand-in for a mail server.
type LetterView struct {
	ID      int64     `json:"id"`
	To      string    `json:"to"`
	Subject string    `json:"subject"`
	Body    string    `json:"body"`
	At      time.Time `json:"at"`
}

type mailboxOutput struct {
	Body struct {
		Letters []LetterView `json:"letters" nullable:"false"`
	}
}

// showMailbox shows what would have been sent, in the demo alone.
func (a *API) showMailbox(ctx context.Context, _ *struct{}) (*mailboxOutput, error) {
	if !a.Mailbox {
		return nil, store.ErrNotFound
	}
	letters, err := a.Store.Mailbox(ctx)
	out := &mailboxOutput{}
	out.Body.Letters = []LetterView{}
	for _, l := range letters {
		out.Body.Letters = append(out.Body.Letters, LetterView{
			ID:      l.ID,
			To:      l.Recipient,
			Subject: l.Subject,
			Body:    l.Body,
			At:      l.At,
		})
	}
	return out, err
}
