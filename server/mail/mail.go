// Package mail carries letters to people: through a school's own mail server, or into a
// mailbox that is looked at on a page, where there is none.
package mail

import (
	"context"
	"fmt"
	"net/url"
	"strconv"
	"time"

	gomail "github.com/wneessen/go-mail"

	"earlychorus/server/store"
)

// Letter is one mail, in plain text.
type Letter struct {
	To      string
	Subject string
	Body    string
}

// Carrier takes letters to where they are read.
type Carrier interface {
	Carry(ctx context.Context, l Letter) error
}

// SMTP carries letters through a mail server.
type SMTP struct {
	client *gomail.Client
	from   string
}

// The ports of mail from programs: with TLS from the first byte, and with STARTTLS
// (RFC 8314, RFC 6409).
const (
	portTLS      = 465
	portStartTLS = 587
)

const patience = 20 * time.Second

// Through returns a carrier through the server that a URL names:
// smtp://USER@HOST:587 begins with STARTTLS, smtps://USER@HOST begins with TLS. The password
// stands beside it, not in it: addresses are printed.
func Through(address, password, from string) (*SMTP, error) {
	u, err := url.Parse(address)
	if err != nil || u.Hostname() == "" || u.Scheme != "smtp" && u.Scheme != "smtps" {
		return nil, fmt.Errorf("write the mail server as smtp://user@mail.example.org:587, or smtps://…")
	}
	options := []gomail.Option{gomail.WithTimeout(patience)}
	port := portStartTLS
	if u.Scheme == "smtps" {
		port = portTLS
		options = append(options, gomail.WithSSL())
	}
	if u.Port() != "" {
		port, _ = strconv.Atoi(u.Port()) // url.Parse has seen that it is a number
	}
	options = append(options, gomail.WithPort(port))
	switch name := u.User.Username(); {
	case name != "":
		options = append(options,
			gomail.WithSMTPAuth(gomail.SMTPAuthAutoDiscover), gomail.WithUsername(name), gomail.WithPassword(password))
	case u.Scheme == "smtp":
		// A relay of the school's own, in its own net, may have no certificate.
		options = append(options, gomail.WithTLSPolicy(gomail.TLSOpportunistic))
	}
	client, err := gomail.NewClient(u.Hostname(), options...)
	if err != nil {
		return nil, err
	}
	s := &SMTP{client, from}
	_, err = s.message(Letter{To: from})
	return s, err
}

func (s *SMTP) message(l Letter) (*gomail.Msg, error) {
	m := gomail.NewMsg()
	if err := m.From(s.from); err != nil {
		return nil, fmt.Errorf("the address letters come from: %w", err)
	}
	if err := m.To(l.To); err != nil {
		return nil, fmt.Errorf("the address a letter goes to: %w", err)
	}
	m.Subject(l.Subject)
	m.SetBodyString(gomail.TypeTextPlain, l.Body)
	return m, nil
}

// Carry sends a letter.
func (s *SMTP) Carry(ctx context.Context, l Letter) error {
	m, err := s.message(l)
	if err != nil {
		return err
	}
	return s.client.DialAndSendWithContext(ctx, m)
}

// Mailbox is the stand-in for a mail server: letters lie in the database, and a page shows
// them.
type Mailbox struct {
	Store *store.Store
	Now   func() time.Time
}

// Carry puts a letter into the box.
func (m Mailbox) Carry(ctx context.Context, l Letter) error {
	return m.Store.PutInMailbox(ctx, store.MailboxLetter{
		Recipient: l.To,
		Subject:   l.Subject,
		Body:      l.Body,
		At:        m.Now().UTC(),
	})
}
