package api

import (
	"context"
	"errors"
	"log/slog"
	"net"
	"net/http"
	"net/url"
	"regexp"
	"slices"
	"strings"

	"github.com/go-chi/chi/v5"

	"earlychorus/server/problem"
	"earlychorus/server/signon"
	"earlychorus/server/store"
)

// flowCookie is carried to the provider and back. It is Lax, for the provider's page is another
// site: the session's own cookie, which is Strict, does not come along.
const flowCookie = "__Host-sign-on"

// choicesKey is, of a session, whom its owner may go on as.
const choicesKey = "choices"

func (a *API) signOnSettings(o store.SignOn, site string) signon.Settings {
	return signon.Settings{
		Issuer:       o.Issuer,
		ClientID:     o.ClientID,
		ClientSecret: o.ClientSecret,
		Domains:      o.Domains,
		RosterClaim:  o.RosterClaim,
		Redirect:     site + callbackPath,
	}
}

const callbackPath = "/api/sign-on/callback"

// beginSignOn sends the browser to a school's provider.
func (a *API) beginSignOn(w http.ResponseWriter, r *http.Request) error {
	o, err := a.Store.SignOnOf(r.Context(), chi.URLParam(r, "school"))
	if err != nil {
		return err
	}
	to, flow, err := a.desk.Begin(r.Context(), o.SchoolID, a.signOnSettings(o, a.address(r)), a.Now())
	if err != nil {
		slog.Warn("a school's provider did not answer", "school", o.SchoolID, "error", err)
		http.Redirect(w, r, "/sign-in?problem=provider", http.StatusSeeOther)
		return nil
	}
	http.SetCookie(w, cookieOfFlow(flow.Pack(), int(signon.Patience.Seconds())))
	http.Redirect(w, r, to, http.StatusSeeOther)
	return nil
}

func cookieOfFlow(value string, seconds int) *http.Cookie {
	return &http.Cookie{
		Name:     flowCookie,
		Value:    value,
		Path:     "/",
		MaxAge:   seconds,
		HttpOnly: true,
		Secure:   true,
		SameSite: http.SameSiteLaxMode,
	}
}

// finishSignOn is where the provider sends the browser back to. What went wrong is said by the
// sign-in page.
func (a *API) finishSignOn(w http.ResponseWriter, r *http.Request) error {
	http.SetCookie(w, cookieOfFlow("", -1))
	to, err := a.signedOn(r)
	if err != nil {
		return err
	}
	http.Redirect(w, r, to, http.StatusSeeOther)
	return nil
}

// signedOn lets somebody in, and says where they go on.
func (a *API) signedOn(r *http.Request) (string, error) {
	ctx, q := r.Context(), r.URL.Query()
	var flow signon.Flow
	if c, err := r.Cookie(flowCookie); err == nil {
		flow = signon.Unpack(c.Value)
	}
	o, err := a.Store.SignOnOf(ctx, flow.School)
	if errors.Is(err, store.ErrNotFound) {
		return "/sign-in?problem=late", nil
	}
	if err != nil {
		return "", err
	}
	who, err := a.desk.Finish(ctx, a.signOnSettings(o, a.address(r)), flow, q.Get("state"), q.Get("code"), a.Now())
	switch {
	case errors.Is(err, signon.ErrLate):
		return "/sign-in?problem=late", nil
	case errors.Is(err, signon.ErrDomain):
		return "/sign-in?problem=domain", a.turnedAwayQuietly(ctx)
	case err != nil:
		slog.Warn("somebody was not signed on", "school", o.SchoolID, "error", err)
		return "/sign-in?problem=refused", a.turnedAwayQuietly(ctx)
	}
	return a.enter(ctx, o.SchoolID, who)
}

func (a *API) turnedAwayQuietly(ctx context.Context) error {
	return a.audit(ctx, store.Audited{Action: "failed to sign in"})
}

// enter finds whom the school's list knows: a director by address, a player by number. Who is in
// several classes is asked which.
func (a *API) enter(ctx context.Context, schoolID string, who signon.Identity) (string, error) {
	if who.Email != "" {
		d, err := a.Store.DirectorOfSchool(ctx, schoolID, who.Email)
		if err == nil {
			return "/", a.begins(ctx, store.Asker{Role: store.RoleDirector, Subject: d.ID}, false)
		}
		if !errors.Is(err, store.ErrNotFound) {
			return "", err
		}
	}
	players, err := a.Store.PlayersOfSchool(ctx, schoolID, who.RosterID)
	switch {
	case err != nil:
		return "", err
	case len(players) == 0:
		return "/sign-in?problem=unknown", a.turnedAwayQuietly(ctx)
	case len(players) == 1:
		return "/", a.begins(ctx, store.Asker{Role: store.RolePlayer, Subject: players[0].ID}, false)
	}
	ids := make([]string, len(players))
	for n, p := range players {
		ids[n] = p.ID
	}
	if err := a.sessions.RenewToken(ctx); err != nil {
		return "", err
	}
	a.sessions.Put(ctx, choicesKey, strings.Join(ids, " "))
	return "/which-class", nil
}

// ClassToEnter is a class that somebody who signed on plays in.
type ClassToEnter struct {
	Player     string `json:"player"`
	Class      string `json:"class"`
	Instrument string `json:"instrument"`
}

type choicesOutput struct {
	Body struct {
		Classes []ClassToEnter `json:"classes" nullable:"false"`
	}
}

// listChoices says in which classes somebody who signed on plays.
func (a *API) listChoices(ctx context.Context, _ *struct{}) (*choicesOutput, error) {
	out := &choicesOutput{}
	out.Body.Classes = []ClassToEnter{}
	for _, id := range a.choices(ctx) {
		p, err := a.Store.Player(ctx, id)
		if err != nil {
			return nil, err
		}
		i, err := p.Plays()
		if err != nil {
			return nil, err
		}
		out.Body.Classes = append(out.Body.Classes, ClassToEnter{p.ID, p.Class.Name, i.Name})
	}
	return out, nil
}

func (a *API) choices(ctx context.Context) []string {
	return strings.Fields(a.sessions.GetString(ctx, choicesKey))
}

type choiceInput struct {
	Body struct {
		Player string `json:"player" format:"uuid"`
	}
}

// chooseClass goes on as one of those the provider named.
func (a *API) chooseClass(ctx context.Context, in *choiceInput) (*meOutput, error) {
	if !slices.Contains(a.choices(ctx), in.Body.Player) {
		return nil, store.ErrNotFound
	}
	p, err := a.Store.Player(ctx, in.Body.Player)
	if err != nil {
		return nil, err
	}
	a.sessions.Remove(ctx, choicesKey)
	if err := a.begins(ctx, store.Asker{Role: store.RolePlayer, Subject: p.ID}, false); err != nil {
		return nil, err
	}
	return &meOutput{Body: meOfPlayer(p)}, nil
}

// SignOnView is a school's arrangement with its provider; the secret is not told again.
type SignOnView struct {
	Issuer      string   `json:"issuer"`
	ClientID    string   `json:"client_id"`
	Domains     []string `json:"domains" nullable:"false"`
	RosterClaim string   `json:"roster_claim"`
}

type signOnInput struct {
	SchoolPath
	Body struct {
		Issuer       string   `json:"issuer" maxLength:"300"`
		ClientID     string   `json:"client_id" minLength:"1" maxLength:"300"`
		ClientSecret string   `json:"client_secret" maxLength:"500" doc:"empty keeps the one that is there"`
		Domains      []string `json:"domains" nullable:"false" maxItems:"20" doc:"of addresses that are let in; none: any"`
		RosterClaim  string   `json:"roster_claim" maxLength:"60" doc:"that says a player's number on the school's list"`
	}
}

var (
	domainShape = regexp.MustCompile(`^[a-z0-9-]+(\.[a-z0-9-]+)+$`)
	claimShape  = regexp.MustCompile(`^[A-Za-z0-9_:./-]+$`)
)

// saveSignOn sets how a school's people sign on. The provider is asked at once: a mistyped
// address is found now, and not by a class at the bell.
func (a *API) saveSignOn(ctx context.Context, in *signOnInput) (*schoolOutput, error) {
	school, err := a.Store.SchoolFor(ctx, a.who(ctx), in.School)
	if err != nil {
		return nil, err
	}
	b := in.Body
	o := store.SignOn{
		SchoolID:     school.ID,
		Issuer:       strings.TrimSpace(b.Issuer),
		ClientID:     strings.TrimSpace(b.ClientID),
		ClientSecret: strings.TrimSpace(b.ClientSecret),
		RosterClaim:  strings.TrimSpace(b.RosterClaim),
	}
	if o.RosterClaim == "" {
		o.RosterClaim = "sub"
	}
	if !claimShape.MatchString(o.RosterClaim) {
		return nil, problem.Input("roster_claim", "write the claim’s name, such as sub or student_id")
	}
	for _, d := range b.Domains {
		d = strings.ToLower(strings.TrimPrefix(strings.TrimSpace(d), "@"))
		if d != "" && !domainShape.MatchString(d) {
			return nil, problem.Input("domains", "write domains such as quillmarsh.example")
		}
		if d != "" {
			o.Domains = append(o.Domains, d)
		}
	}
	if o.ClientSecret == "" {
		before, err := a.Store.SignOnOf(ctx, school.ID)
		if errors.Is(err, store.ErrNotFound) || err == nil && before.Issuer != o.Issuer {
			return nil, problem.Input("client_secret", "write the secret that the provider gave you")
		}
		if err != nil {
			return nil, err
		}
		o.ClientSecret = before.ClientSecret
	}
	if !a.mayAsk(o.Issuer) {
		return nil, problem.Input("issuer", "write the provider’s address, beginning with https://")
	}
	if _, err := a.desk.Meet(ctx, o.Issuer); err != nil {
		slog.Warn("a provider that was named did not answer as one", "issuer", o.Issuer, "error", err)
		return nil, problem.Input(
			"issuer",
			"no provider answers there as OpenID Connect has it; look at the address again",
		)
	}
	if err := a.Store.SaveSignOn(ctx, o); err != nil {
		return nil, err
	}
	return a.showSchool(ctx, &in.SchoolPath)
}

// mayAsk keeps administrators from having the server ask its own network: by HTTPS, and only
// the stand-in on the machine itself.
func (a *API) mayAsk(issuer string) bool {
	u, err := url.Parse(issuer)
	if err != nil || u.Hostname() == "" || u.User != nil {
		return false
	}
	ip := net.ParseIP(u.Hostname())
	inside := u.Hostname() == "localhost" || ip != nil && (ip.IsLoopback() || ip.IsPrivate() || ip.IsLinkLocalUnicast())
	if a.Provider != nil {
		return true
	}
	return u.Scheme == "https" && !inside
}

// endSignOn ends it; passwords and cards go on.
func (a *API) endSignOn(ctx context.Context, in *SchoolPath) (*schoolOutput, error) {
	school, err := a.Store.SchoolFor(ctx, a.who(ctx), in.School)
	if err == nil {
		err = a.Store.EndSignOn(ctx, school.ID)
	}
	if err != nil {
		return nil, err
	}
	return a.showSchool(ctx, in)
}
