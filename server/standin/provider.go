// Package standin plays the outside services that a school has and the demo has not.
package standin

import (
	"crypto/rand"
	"crypto/rsa"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/base64"
	"encoding/json"
	"html/template"
	"net/http"
	"net/url"
	"sync"
	"time"

	"github.com/go-jose/go-jose/v4"
	"github.com/go-jose/go-jose/v4/jwt"
)

// Person is somebody with an account at the stand-in.
type Person struct {
	Name     string
	Email    string
	RosterID string
}

// Provider is a small OpenID Connect provider: it asks who somebody is and believes it. It is
// never for a real school.
type Provider struct {
	people []Person
	at     string // its path
	key    *rsa.PrivateKey

	mu    sync.Mutex
	codes map[string]asked
}

// asked is a code that was given out and not yet taken.
type asked struct {
	person    Person
	client    string
	redirect  string
	nonce     string
	challenge string
}

const (
	keyBits  = 2048
	keyID    = "stand-in"
	goodFor  = 5 * time.Minute
	mostLeft = 100 // codes nobody came for
)

// NewProvider makes one for some people, under a path of its server.
func NewProvider(at string, people ...Person) (*Provider, error) {
	key, err := rsa.GenerateKey(rand.Reader, keyBits)
	p := &Provider{codes: map[string]asked{}}
	p.people, p.at, p.key = people, at, key
	return p, err
}

// issuer is where it was asked.
func (p *Provider) issuer(r *http.Request) string {
	scheme := "http"
	if r.TLS != nil {
		scheme = "https"
	}
	return scheme + "://" + r.Host + p.at
}

// ServeHTTP answers as OpenID Connect Core 1.0 and Discovery 1.0 have it.
func (p *Provider) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	switch r.URL.Path[len(p.at):] {
	case "/.well-known/openid-configuration":
		at := p.issuer(r)
		answer(w, map[string]any{
			"issuer":                                at,
			"authorization_endpoint":                at + "/authorize",
			"token_endpoint":                        at + "/token",
			"jwks_uri":                              at + "/keys",
			"response_types_supported":              []string{"code"},
			"subject_types_supported":               []string{"public"},
			"id_token_signing_alg_values_supported": []string{"RS256"},
		})
	case "/keys":
		answer(w, jose.JSONWebKeySet{Keys: []jose.JSONWebKey{{
			Key:       p.key.Public(),
			KeyID:     keyID,
			Algorithm: "RS256",
			Use:       "sig",
		}}})
	case "/authorize":
		p.authorize(w, r)
	case "/token":
		p.token(w, r)
	default:
		http.NotFound(w, r)
	}
}

var chooser = template.Must(template.New("").Parse(`<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>A school’s accounts (stand-in)</title>
<h1>A school’s accounts</h1>
<p>A stand-in for the demo: choose who you are.</p>
<form method="post">{{range $n, $p := .}}
<p><button name="person" value="{{$n}}">{{$p.Name}}</button> {{$p.Email}}</p>{{end}}
<p><button name="person" value="nobody">Nobody: leave</button></p>
</form></html>`))

// authorize asks who somebody is, and sends them back with a code.
func (p *Provider) authorize(w http.ResponseWriter, r *http.Request) {
	q := r.URL.Query()
	back, err := url.Parse(q.Get("redirect_uri"))
	if err != nil || back.Host == "" {
		http.Error(w, "redirect_uri: say where to go back to", http.StatusBadRequest)
		return
	}
	if r.Method != http.MethodPost {
		w.Header().Set("Content-Type", "text/html; charset=utf-8")
		_ = chooser.Execute(w, p.people) // the browser may be gone
		return
	}
	answers := url.Values{"state": {q.Get("state")}}
	n := -1
	for k := range p.people {
		if r.PostFormValue("person") == indexWord(k) {
			n = k
		}
	}
	if n < 0 {
		answers.Set("error", "access_denied")
	} else {
		code := rand.Text()
		p.mu.Lock()
		if len(p.codes) >= mostLeft {
			p.codes = map[string]asked{}
		}
		p.codes[code] = asked{
			person:    p.people[n],
			client:    q.Get("client_id"),
			redirect:  q.Get("redirect_uri"),
			nonce:     q.Get("nonce"),
			challenge: q.Get("code_challenge"),
		}
		p.mu.Unlock()
		answers.Set("code", code)
	}
	back.RawQuery = answers.Encode()
	http.Redirect(w, r, back.String(), http.StatusSeeOther)
}

func indexWord(n int) string { b, _ := json.Marshal(n); return string(b) }

// token takes a code, once, from whoever asked for it.
func (p *Provider) token(w http.ResponseWriter, r *http.Request) {
	code := r.PostFormValue("code")
	p.mu.Lock()
	a, ok := p.codes[code]
	delete(p.codes, code)
	p.mu.Unlock()
	client, _, basic := r.BasicAuth()
	if !basic {
		client = r.PostFormValue("client_id")
	}
	sum := sha256.Sum256([]byte(r.PostFormValue("code_verifier")))
	verifier := base64.RawURLEncoding.EncodeToString(sum[:])
	if !ok || client != a.client || r.PostFormValue("redirect_uri") != a.redirect ||
		subtle.ConstantTimeCompare([]byte(verifier), []byte(a.challenge)) != 1 {
		w.WriteHeader(http.StatusBadRequest)
		answer(w, map[string]string{"error": "invalid_grant"})
		return
	}
	signer, err := jose.NewSigner(
		jose.SigningKey{Algorithm: jose.RS256, Key: p.key},
		(&jose.SignerOptions{}).WithHeader("kid", keyID),
	)
	if err != nil {
		http.Error(w, err.Error(), http.StatusInternalServerError)
		return
	}
	now := time.Now()
	raw, err := jwt.Signed(signer).Claims(map[string]any{
		"iss":            p.issuer(r),
		"sub":            a.person.Email,
		"aud":            a.client,
		"iat":            now.Unix(),
		"exp":            now.Add(goodFor).Unix(),
		"nonce":          a.nonce,
		"email":          a.person.Email,
		"email_verified": true,
		"name":           a.person.Name,
		"student_id":     a.person.RosterID,
	}).Serialize()
	if err != nil {
		http.Error(w, err.Error(), http.StatusInternalServerError)
		return
	}
	answer(w, map[string]any{
		"access_token": rand.Text(),
		"token_type":   "Bearer",
		"expires_in":   int(goodFor.Seconds()),
		"id_token":     raw,
	})
}

func answer(w http.ResponseWriter, what any) {
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(what) // the asker may be gone
}
