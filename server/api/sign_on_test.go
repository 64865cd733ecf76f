package api_test

import (
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/api"
	"earlychorus/server/standin"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// accounts is a school's provider at an address of its own, and its people.
func accounts(t *testing.T, people ...standin.Person) (issuer string) {
	t.Helper()
	p, err := standin.NewProvider("", people...)
	require.NoError(t, err)
	server := httptest.NewServer(p)
	t.Cleanup(server.Close)
	return server.URL
}

// withProvider is a server at which a provider on this machine may be named.
func withProvider(t *testing.T) *testServer {
	h := newServer(t)
	var err error
	h.web.Provider, err = standin.NewProvider(api.StandInProvider)
	require.NoError(t, err)
	handler, stop := h.web.Handler(nil)
	t.Cleanup(stop)
	h.Config.Handler = handler
	return h
}

// until is a visitor's browser, which stops where it is told.
func (v visitor) until(stop func(*http.Request) bool) *http.Client {
	client := *v.client
	client.CheckRedirect = func(r *http.Request, _ []*http.Request) error {
		if stop(r) {
			return http.ErrUseLastResponse
		}
		return nil
	}
	return &client
}

// through signs on as the n-th person of the provider, as a browser does, and returns where it
// came out.
func (v visitor) through(school, person string) string {
	v.t.Helper()
	client := v.until(func(r *http.Request) bool {
		return !strings.HasPrefix(r.URL.Path, "/api/") && r.URL.Path != "/authorize"
	})
	res, err := client.Get(v.base + "/sign-on/" + school)
	require.NoError(v.t, err)
	require.NoError(v.t, res.Body.Close())
	require.Equal(v.t, "/authorize", res.Request.URL.Path)
	res, err = client.PostForm(res.Request.URL.String(), url.Values{"person": {person}})
	require.NoError(v.t, err)
	require.NoError(v.t, res.Body.Close())
	at, err := res.Location()
	require.NoError(v.t, err, res.Request.URL)
	return at.RequestURI()
}

// A school's people sign on with the accounts they have: directors by address, players by their
// number on the list.
func TestSigningOnWithASchoolsAccounts(t *testing.T) {
	h := withProvider(t)
	b := storetest.NewBand(t, h.store, "SIGNON")
	_, err := h.store.SQL().Exec("UPDATE player SET external_id = 'P1' WHERE id = $1", b.Players[0].ID)
	require.NoError(t, err)
	issuer := accounts(t,
		standin.Person{Name: "The director", Email: strings.ToUpper(b.Director.Email)},
		standin.Person{Name: "Ada", Email: "ada@signon.example", RosterID: "P1"},
		standin.Person{Name: "A stranger", Email: "who@signon.example", RosterID: "P7"},
		standin.Person{Name: "From elsewhere", Email: "director@elsewhere.example"},
	)
	director := h.director(t, b)
	at := "/schools/" + b.Class.SchoolID + "/sign-on"
	settings := map[string]any{
		"issuer": issuer, "client_id": "ec", "client_secret": "s", "domains": []string{"@signon.example"},
		"roster_claim": "student_id",
	}
	var page api.SchoolPage
	director.want(200, "PUT", at, settings, &page)
	require.NotNil(t, page.SignOn)
	assert.Equal(t, api.SignOnView{
		Issuer:      issuer,
		ClientID:    "ec",
		Domains:     []string{"signon.example"},
		RosterClaim: "student_id",
	}, *page.SignOn)
	assert.Equal(t, h.URL+"/api/sign-on/callback", page.Redirect)
	var beginning api.Beginning
	h.visitor(t).want(200, "GET", "/beginning", nil, &beginning)
	assert.Contains(t, beginning.SignOn, api.SchoolName{ID: b.Class.SchoolID, Name: b.Class.School.Name})

	me := func(v visitor) (me api.Me) { v.want(200, "GET", "/me", nil, &me); return me }
	v := h.visitor(t)
	assert.Equal(t, "/", v.through(b.Class.SchoolID, "0"))
	assert.Equal(t, "director", me(v).Role)
	v.want(200, "GET", "/classes/"+b.Class.ID+"/set-up", nil, nil)
	v = h.visitor(t)
	assert.Equal(t, "/", v.through(b.Class.SchoolID, "1"))
	assert.Equal(t, b.Players[0].ID, me(v).ID)
	for person, why := range map[string]string{"2": "unknown", "3": "domain", "nobody": "refused"} {
		v = h.visitor(t)
		assert.Equal(t, "/sign-in?problem="+why, v.through(b.Class.SchoolID, person))
		assert.Equal(t, "nobody", me(v).Role)
	}

	// Who left the list is turned away, whatever the provider says.
	director.want(200, "DELETE", "/classes/"+b.Class.ID+"/roster/"+b.Players[0].ID, nil, nil)
	assert.Equal(t, "/sign-in?problem=unknown", h.visitor(t).through(b.Class.SchoolID, "1"))
	page = api.SchoolPage{}
	director.want(200, "DELETE", at, nil, &page)
	assert.Nil(t, page.SignOn)
}

// A child in two classes says which.
func TestSigningOnIntoOneOfTwoClasses(t *testing.T) {
	h := withProvider(t)
	b := storetest.NewBand(t, h.store, "TWICE")
	_, err := h.store.SQL().Exec("UPDATE player SET external_id = 'P1' WHERE id = $1", b.Players[0].ID)
	require.NoError(t, err)
	h.director(t, b).want(200, "POST", "/classes", map[string]any{
		"name": "The second", "like": b.Class.ID, "keep": []string{b.Players[0].ID},
	}, nil)
	issuer := accounts(t, standin.Person{Name: "Ada", Email: "ada@twice.example", RosterID: "P1"})
	require.NoError(t, h.store.SaveSignOn(t.Context(), store.SignOn{
		SchoolID:    b.Class.SchoolID,
		Issuer:      issuer,
		ClientID:    "ec",
		RosterClaim: "student_id",
	}))
	v := h.visitor(t)
	assert.Equal(t, "/which-class", v.through(b.Class.SchoolID, "0"))
	var choices struct {
		Classes []api.ClassToEnter `json:"classes"`
	}
	v.want(200, "GET", "/sign-on/choices", nil, &choices)
	require.Len(t, choices.Classes, 2)
	v.want(401, "GET", "/practice", nil, nil)
	other := storetest.NewBand(t, h.store, "OTHERS")
	v.want(404, "POST", "/sign-on/choices", map[string]string{"player": other.Players[0].ID}, nil)
	v.want(200, "POST", "/sign-on/choices", map[string]string{"player": choices.Classes[1].Player}, nil)
	v.want(200, "GET", "/practice", nil, nil)
	v.want(404, "POST", "/sign-on/choices", map[string]string{"player": choices.Classes[0].Player}, nil)
}

// A sign-in that another browser began lets nobody in.
func TestASignOnIsOneBrowsers(t *testing.T) {
	h := withProvider(t)
	b := storetest.NewBand(t, h.store, "FLOW")
	issuer := accounts(t, standin.Person{Name: "The director", Email: b.Director.Email})
	require.NoError(t, h.store.SaveSignOn(t.Context(), store.SignOn{
		SchoolID:    b.Class.SchoolID,
		Issuer:      issuer,
		ClientID:    "ec",
		RosterClaim: "sub",
	}))
	thief, victim := h.visitor(t), h.visitor(t)
	client := thief.until(func(r *http.Request) bool { return strings.HasSuffix(r.URL.Path, "/callback") })
	res, err := client.Get(thief.base + "/sign-on/" + b.Class.SchoolID)
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	res, err = client.PostForm(res.Request.URL.String(), url.Values{"person": {"0"}})
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	back, err := res.Location()
	require.NoError(t, err)
	res, err = victim.until(func(*http.Request) bool { return true }).Get(back.String())
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	assert.Equal(t, "/sign-in?problem=late", res.Header.Get("Location"))
	var me api.Me
	victim.want(200, "GET", "/me", nil, &me)
	assert.Equal(t, "nobody", me.Role)
}

// What cannot be a provider is said by the field, and the server asks nothing of its own net.
func TestAProviderThatIsNoneIsRefused(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "NONE")
	director := h.director(t, b)
	there := "https://accounts.example"
	for field, settings := range map[string]map[string]any{
		"issuer":        {"issuer": "http://127.0.0.1:1", "client_id": "a", "client_secret": "s"},
		"client_secret": {"issuer": there, "client_id": "a"},
		"domains":       {"issuer": there, "client_id": "a", "domains": []string{"no domain"}},
		"roster_claim":  {"issuer": there, "client_id": "a", "roster_claim": "a b"},
	} {
		for key, usual := range map[string]any{"domains": []string{}, "roster_claim": "", "client_secret": ""} {
			if _, set := settings[key]; !set {
				settings[key] = usual
			}
		}
		res, said := director.ask("PUT", "/schools/"+b.Class.SchoolID+"/sign-on", settings)
		assert.Equal(t, 422, res.StatusCode, field)
		assert.Contains(t, string(said), field)
	}
}
