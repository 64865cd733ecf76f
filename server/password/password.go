// Package password says which passwords directors and administrators may have, and hashes
// them.
package password

import (
	"strings"
	"unicode/utf8"

	"github.com/trustelem/zxcvbn"
	"golang.org/x/crypto/bcrypt"

	"earlychorus/server/problem"
)

const (
	shortest = 12 // letters
	longest  = 72 // bytes: bcrypt reads no more
	// guessable is the strength, 0 to 4, below which a password is found by trying what others
	// use: zxcvbn's lists of common passwords, names and words, and rows of keys.
	guessable = 3
)

// Check refuses a password that is too short or that is guessed, with what to do; about is
// what anybody knows of its owner: name, email, school.
func Check(secret string, about ...string) error {
	switch {
	case utf8.RuneCountInString(secret) < shortest:
		return problem.Input(
			"password",
			"take at least 12 letters: four words that have nothing to do with each other do well",
		)
	case len(secret) > longest:
		return problem.Input("password", "take at most 72 letters")
	case utf8.RuneCountInString(without(secret, parts(about))) < unknown,
		zxcvbn.PasswordStrength(secret, parts(about)).Score < guessable:
		return problem.Input("password", "this one is easily guessed: take words or letters that nobody else would")
	}
	return nil
}

// unknown is how many letters a password has that are no part of what anybody knows.
const unknown = 8

// without is a password without what is known of its owner.
func without(secret string, known []string) string {
	secret = strings.ToLower(secret)
	for _, k := range known {
		if utf8.RuneCountInString(k) > 2 {
			secret = strings.ReplaceAll(secret, k, "")
		}
	}
	return secret
}

// parts are the words of what is known.
func parts(about []string) (out []string) {
	for _, text := range about {
		out = append(out, strings.FieldsFunc(strings.ToLower(text), isBetween)...)
	}
	return out
}

func isBetween(r rune) bool { return r == ' ' || r == '@' || r == '.' || r == '-' }

// Hash returns what is kept of a password.
func Hash(secret string) (string, error) {
	hash, err := bcrypt.GenerateFromPassword([]byte(secret), bcrypt.DefaultCost)
	return string(hash), err
}
