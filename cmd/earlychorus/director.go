package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"net/mail"
	"os"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"earlychorus/server/classcode"
	"earlychorus/server/password"
	"earlychorus/server/store"
)

func directorCommand() *cobra.Command {
	c := &cobra.Command{
		Use:   "director",
		Short: "Add directors, give one a new password, name administrators, list them, take one out",
	}
	c.AddCommand(directorAddCommand(), directorResetCommand(), directorAdministerCommand(),
		directorListCommand(), directorRemoveCommand())
	return c
}

// secret is where a password comes from: a file, or one that the program makes.
type secret struct{ file string }

func (s *secret) flags(c *cobra.Command) {
	c.Flags().StringVar(&s.file, "password-file", "",
		"file whose first line is the password, - for standard input; without it one is made and shown once")
}

// read returns the password and whether it was made here. about is what anybody knows of
// its owner.
func (s *secret) read(in io.Reader, about ...string) (word string, made bool, err error) {
	if s.file == "" {
		return strings.ToLower(strings.ReplaceAll(classcode.New(), "-", " ")), true, nil
	}
	if s.file != "-" {
		file, err := os.Open(s.file)
		if err != nil {
			return "", false, err
		}
		defer file.Close() //nolint:errcheck // read only
		in = file
	}
	line, err := bufio.NewReader(in).ReadString('\n')
	if err != nil && !errors.Is(err, io.EOF) {
		return "", false, err
	}
	word = strings.TrimRight(line, "\r\n")
	return word, false, password.Check(word, about...)
}

func directorAddCommand() *cobra.Command {
	var w where
	var from secret
	var school string
	var administrator bool
	c := &cobra.Command{
		Use:   "add NAME EMAIL",
		Short: "Add a director, or an administrator, to a school",
		Args:  cobra.ExactArgs(2),
		RunE: func(c *cobra.Command, args []string) error {
			name, email := strings.TrimSpace(args[0]), store.EmailKey(args[1])
			if _, err := mail.ParseAddress(email); err != nil || name == "" {
				return fmt.Errorf(
					"say a name and an email address: earlychorus director add \"Odile Farrow\" odile@island.example",
				)
			}
			word, made, err := from.read(c.InOrStdin(), name, email)
			if err != nil {
				return err
			}
			hash, err := password.Hash(word)
			if err != nil {
				return err
			}
			return beside(c.Context(), w, func(ctx context.Context, s *store.Store) error {
				of, err := theSchool(ctx, s, school)
				if err != nil {
					return err
				}
				if _, err := s.DirectorByEmail(ctx, email); !errors.Is(err, store.ErrNotFound) {
					return errors.Join(err, fmt.Errorf("%s has an account already", email))
				}
				d := store.Director{
					ID:           store.NewID(),
					Name:         name,
					Email:        email,
					PasswordHash: hash,
				}
				if err := s.AddPerson(ctx, of.ID, d, administrator); err != nil {
					return err
				}
				tellPassword(c, fmt.Sprintf("%s is a director of %s", name, of.Name), word, made)
				return nil
			})
		},
	}
	w.flags(c)
	from.flags(c)
	c.Flags().StringVar(&school, "school", "", "the school's name; the only one where there is one")
	c.Flags().BoolVar(&administrator, "administrator", false, "they administer the school, too")
	return c
}

// tellPassword shows a password that was made here, once.
func tellPassword(c *cobra.Command, what, word string, made bool) {
	if !made {
		fmt.Fprintf(c.OutOrStdout(), "%s.\n", what)
		return
	}
	fmt.Fprintf(c.OutOrStdout(), "%s. The password, shown this once: %s\n", what, word)
	fmt.Fprintln(c.OutOrStdout(), "Change it under \"My sign-in\" after the first sign-in.")
}

// theSchool is the school of a name, or the only one.
func theSchool(ctx context.Context, s *store.Store, name string) (store.School, error) {
	schools, err := s.SchoolsNamed(ctx, name)
	switch {
	case err != nil:
		return store.School{}, err
	case len(schools) == 0:
		return store.School{}, fmt.Errorf("there is no such school: make it with \"earlychorus school create\"")
	case len(schools) > 1:
		return store.School{}, fmt.Errorf("--school: there are several; name one (\"earlychorus school list\")")
	}
	return schools[0], nil
}

func directorResetCommand() *cobra.Command {
	var from secret
	c := ofAccount(func(c *cobra.Command, s *store.Store, d store.Director) error {
		word, made, err := from.read(c.InOrStdin(), d.Name, d.Email)
		if err != nil {
			return err
		}
		hash, err := password.Hash(word)
		if err != nil {
			return err
		}
		if err := s.RenewPassword(c.Context(), d.ID, hash); err != nil {
			return err
		}
		if err := s.EndSessionsOf(c.Context(), store.RoleDirector, d.ID); err != nil {
			return err
		}
		if err := auditLine(c.Context(), s, d, "was given a new password on the command line"); err != nil {
			return err
		}
		tellPassword(c, fmt.Sprintf("%s has a new password, and is signed out everywhere", d.Name), word, made)
		return nil
	})
	c.Use = "reset EMAIL"
	c.Short = "Give a director a new password, and end all their sessions"
	from.flags(c)
	return c
}

func directorAdministerCommand() *cobra.Command {
	var school string
	var end bool
	c := ofAccount(func(c *cobra.Command, s *store.Store, d store.Director) error {
		of, err := theSchool(c.Context(), s, school)
		if err != nil {
			return err
		}
		if err := s.SetAdministers(c.Context(), of.ID, d.ID, !end); err != nil {
			if errors.Is(err, store.ErrNotFound) {
				return fmt.Errorf(
					"%s is not of %s: a director of a class there can invite them to it",
					d.Email,
					of.Name,
				)
			}
			return err
		}
		said := "administers"
		if end {
			said = "no longer administers"
		}
		if err := auditLine(c.Context(), s, d, said+" a school, by the command line"); err != nil {
			return err
		}
		fmt.Fprintf(c.OutOrStdout(), "%s %s %s.\n", d.Name, said, of.Name)
		return nil
	})
	c.Use = "administer EMAIL"
	c.Short = "Let a director administer their school, or end it"
	c.Flags().StringVar(&school, "school", "", "the school's name; the only one where there is one")
	c.Flags().BoolVar(&end, "end", false, "they no longer administer it")
	return c
}

// ofAccount is a command about the account of an email address.
func ofAccount(do func(*cobra.Command, *store.Store, store.Director) error) *cobra.Command {
	var w where
	c := &cobra.Command{
		Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			return beside(c.Context(), w, func(ctx context.Context, s *store.Store) error {
				d, err := s.DirectorByEmail(ctx, store.EmailKey(args[0]))
				if errors.Is(err, store.ErrNotFound) {
					return fmt.Errorf("nobody signs in with %s", args[0])
				}
				if err != nil {
					return err
				}
				return do(c, s, d)
			})
		},
	}
	w.flags(c)
	return c
}

func auditLine(ctx context.Context, s *store.Store, d store.Director, action string) error {
	return s.Audit(ctx, store.Audited{
		At:      time.Now().UTC(),
		Role:    store.RoleDirector,
		Subject: &d.ID,
		Action:  action,
	})
}

func directorListCommand() *cobra.Command {
	var w where
	var school string
	c := &cobra.Command{
		Use:   "list",
		Short: "List a school's directors",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			return beside(c.Context(), w, func(ctx context.Context, s *store.Store) error {
				of, err := theSchool(ctx, s, school)
				if err != nil {
					return err
				}
				return listPeople(ctx, c, s, of.ID)
			})
		},
	}
	w.flags(c)
	c.Flags().StringVar(&school, "school", "", "the school's name; the only one where there is one")
	return c
}

func directorRemoveCommand() *cobra.Command {
	c := ofAccount(func(c *cobra.Command, s *store.Store, d store.Director) error {
		if err := s.EndSessionsOf(c.Context(), store.RoleDirector, d.ID); err != nil {
			return err
		}
		if err := s.RemoveAccount(c.Context(), d.ID); err != nil {
			return err
		}
		fmt.Fprintf(c.OutOrStdout(), "%s is taken out.\n", d.Name)
		return nil
	})
	c.Use = "remove EMAIL"
	c.Short = "Take a director out for good; their classes need somebody else first"
	return c
}
