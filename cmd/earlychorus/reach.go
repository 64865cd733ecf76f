package main

import (
	"fmt"
	"net/url"
	"os"
	"strings"

	"github.com/spf13/cobra"

	"earlychorus/server/api"
	"earlychorus/server/demo"
	"earlychorus/server/mail"
	"earlychorus/server/standin"
)

// smtpPassword is where the mail server's password is looked for: not among the flags, which
// every process of the machine can read.
const smtpPassword = "EARLYCHORUS_SMTP_PASSWORD"

// reach is where people reach the program, how its letters reach them, and where its backups go.
type reach struct {
	public, smtp, from string
	backup             string
	keep               int
}

func (o *reach) flags(c *cobra.Command) {
	f := c.Flags()
	f.StringVar(
		&o.public,
		"public-url",
		"",
		"where people reach it, such as https://band.example.org: for cards, links and letters, behind a proxy",
	)
	f.StringVar(
		&o.smtp,
		"smtp",
		"",
		"mail server for letters, as smtp://user@mail.example.org:587 or smtps://…; its password is in "+smtpPassword,
	)
	f.StringVar(&o.from, "mail-from", "", "address that letters come from")
	f.StringVar(
		&o.backup,
		"backup",
		"",
		"folder, or URL as of --recordings, that a backup goes to at three every night; the same for every process",
	)
	f.IntVar(&o.keep, "backup-keep", 14, "how many nightly backups are kept")
}

// apply tells both halves of a run.
func (o reach) apply(r *running) error {
	if o.public != "" {
		u, err := url.Parse(strings.TrimRight(o.public, "/"))
		if err != nil || u.Scheme != "https" && u.Scheme != "http" || u.Host == "" || u.Path != "" {
			return fmt.Errorf("--public-url: write it as https://band.example.org")
		}
		r.parts.Public = u
	}
	if err := o.nightly(r); err != nil || o.smtp == "" {
		return err
	}
	if o.from == "" {
		return fmt.Errorf("--mail-from: letters need an address they come from")
	}
	post, err := mail.Through(o.smtp, os.Getenv(smtpPassword), o.from)
	if err != nil {
		return fmt.Errorf("--smtp or --mail-from: %w", err)
	}
	r.parts.Post = post
	return nil
}

// nightly opens the place of the nightly backups.
func (o reach) nightly(r *running) error {
	if o.backup == "" {
		return nil
	}
	if o.keep < 1 {
		return fmt.Errorf("--backup-keep: keep at least one")
	}
	to, err := place(o.backup)
	if err != nil {
		return fmt.Errorf("--backup: %w", err)
	}
	r.onClose(func() { _ = to.Close() })
	r.parts.BackupTo, r.parts.BackupKeep = to, o.keep
	return nil
}

// simulate puts a stand-in in the place of each outside service: for the demo.
func (r *running) simulate() (err error) {
	if r.parts.Post == nil {
		r.parts.Post = mail.Mailbox{Store: r.parts.Store, Now: r.parts.Now}
		r.parts.Mailbox = true
	}
	r.parts.Provider, err = standin.NewProvider(api.StandInProvider, demo.Accounts()...)
	return err
}
