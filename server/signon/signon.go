// Package signon lets people in who showed a school's own provider who they are: OpenID
// Connect 1.0, the code flow with PKCE (RFC 7636). It knows no HTTP of ours and no database.
package signon

import (
	"context"
	"crypto/rand"
	"encoding/base64"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/coreos/go-oidc/v3/oidc"
	"golang.org/x/oauth2"
)

// Settings are a school's arrangement with its provider.
type Settings struct {
	Issuer       string
	ClientID     string
	ClientSecret string
	Domains      []string // of addresses that are let in; none: any
	RosterClaim  string   // that says a player's number on the school's list
	Redirect     string   // where the provider sends people back to
}

// Flow is one sign-in under way: what the browser carries to the provider and back. It is for
// the browser that began it alone.
type Flow struct {
	School   string    `json:"school"`
	State    string    `json:"state"`
	Nonce    string    `json:"nonce"`
	Verifier string    `json:"verifier"`
	Began    time.Time `json:"began"`
}

// Patience is how long a sign-in may be under way.
const Patience = 10 * time.Minute

// Identity is whom the provider named.
type Identity struct {
	Email    string // "" where none was told, or none that counts
	RosterID string
}

// Why somebody was not let in.
var (
	ErrLate    = errors.New("the sign-in took too long, or was begun in another browser")
	ErrRefused = errors.New("the provider did not let them in")
	ErrDomain  = errors.New("the address is of no domain that is let in")
)

// Desk speaks with providers. What it learns of one it keeps for an hour.
type Desk struct {
	mu    sync.Mutex
	known map[string]met
}

type met struct {
	provider *oidc.Provider
	at       time.Time
}

const (
	keptFor  = time.Hour
	answered = 10 * time.Second // by a provider
	mostMet  = 200
)

var client = &http.Client{Timeout: answered}

// Meet asks a provider how it is spoken with; an error is its answer, or that there was none.
func (d *Desk) Meet(ctx context.Context, issuer string) (*oidc.Provider, error) {
	d.mu.Lock()
	m, ok := d.known[issuer]
	d.mu.Unlock()
	if ok && time.Since(m.at) < keptFor {
		return m.provider, nil
	}
	// The provider's keys are asked for later, too: not only while this request lasts.
	p, err := oidc.NewProvider(oidc.ClientContext(context.WithoutCancel(ctx), client), issuer)
	if err != nil {
		return nil, err
	}
	d.mu.Lock()
	defer d.mu.Unlock()
	if d.known == nil || len(d.known) >= mostMet {
		d.known = map[string]met{}
	}
	d.known[issuer] = met{p, time.Now()}
	return p, nil
}

// Begin returns where to send the browser, and what it carries.
func (d *Desk) Begin(ctx context.Context, school string, s Settings, now time.Time) (string, Flow, error) {
	p, err := d.Meet(ctx, s.Issuer)
	if err != nil {
		return "", Flow{}, err
	}
	f := Flow{
		School:   school,
		State:    rand.Text(),
		Nonce:    rand.Text(),
		Verifier: oauth2.GenerateVerifier(),
		Began:    now,
	}
	return s.config(p).AuthCodeURL(f.State, oidc.Nonce(f.Nonce), oauth2.S256ChallengeOption(f.Verifier)), f, nil
}

func (s Settings) config(p *oidc.Provider) *oauth2.Config {
	return &oauth2.Config{
		ClientID:     s.ClientID,
		ClientSecret: s.ClientSecret,
		Endpoint:     p.Endpoint(),
		RedirectURL:  s.Redirect,
		Scopes:       []string{oidc.ScopeOpenID, "email", "profile"},
	}
}

// Finish reads what the browser brought back.
func (d *Desk) Finish(ctx context.Context, s Settings, f Flow, state, code string, now time.Time) (Identity, error) {
	if f.State == "" || state != f.State || now.Sub(f.Began) > Patience {
		return Identity{}, ErrLate
	}
	if code == "" {
		return Identity{}, ErrRefused
	}
	p, err := d.Meet(ctx, s.Issuer)
	if err != nil {
		return Identity{}, err
	}
	token, err := s.config(p).Exchange(oidc.ClientContext(ctx, client), code, oauth2.VerifierOption(f.Verifier))
	if err != nil {
		return Identity{}, fmt.Errorf("%w: %w", ErrRefused, err)
	}
	raw, _ := token.Extra("id_token").(string)
	said, err := p.Verifier(&oidc.Config{ClientID: s.ClientID}).Verify(ctx, raw)
	if err != nil {
		return Identity{}, fmt.Errorf("%w: %w", ErrRefused, err)
	}
	if said.Nonce != f.Nonce {
		return Identity{}, ErrLate
	}
	claims := map[string]any{}
	if err := said.Claims(&claims); err != nil {
		return Identity{}, fmt.Errorf("%w: %w", ErrRefused, err)
	}
	return s.identity(claims)
}

// identity reads claims. An address that the provider calls unverified counts for nothing; one
// of which it says nothing counts where the school names the domains that are its own.
func (s Settings) identity(claims map[string]any) (Identity, error) {
	out := Identity{RosterID: text(claims[s.RosterClaim])}
	email := strings.ToLower(strings.TrimSpace(text(claims["email"])))
	_, domain, _ := strings.Cut(email, "@")
	if len(s.Domains) > 0 && email != "" && !slices.Contains(s.Domains, domain) {
		return Identity{}, ErrDomain
	}
	verified, told := claims["email_verified"]
	if told && isTrue(verified) || !told && len(s.Domains) > 0 {
		out.Email = email
	}
	return out, nil
}

// isTrue reads a claim that some providers write as a word.
func isTrue(claim any) bool { return claim == true || claim == "true" }

// text reads a claim that some providers write as a number.
func text(claim any) string {
	switch v := claim.(type) {
	case string:
		return v
	case float64:
		return fmt.Sprintf("%.0f", v)
	}
	return ""
}

// Pack writes a flow for a cookie.
func (f Flow) Pack() string {
	b, _ := json.Marshal(f) // of plain fields
	return base64.RawURLEncoding.EncodeToString(b)
}

// Unpack reads one; anything else is the zero flow, which nothing is finished with.
func Unpack(cookie string) (f Flow) {
	b, err := base64.RawURLEncoding.DecodeString(cookie)
	if err != nil || json.Unmarshal(b, &f) != nil {
		return Flow{}
	}
	return f
}
