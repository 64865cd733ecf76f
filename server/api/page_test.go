package api

import (
	"io/fs"
	"net/http/httptest"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// built is as much of a built page as matters.
var built = fstest.MapFS{
	"index.html":            {Data: []byte("<!doctype html><title>Early Chorus</title>")},
	"assets/app-1a2b.js":    {Data: []byte("console.log('whole')")},
	"assets/app-1a2b.js.br": {Data: []byte("squeezed")},
	"ear.wasm":              {Data: []byte("\x00asm")},
	"ear.wasm.br":           {Data: []byte("squeezed ear")},
	"icon.svg":              {Data: []byte("<svg/>")},
	"manifest.webmanifest":  {Data: []byte(`{"name":"Early Chorus"}`)},
}

func TestThePageAndItsFiles(t *testing.T) {
	for _, c := range []struct {
		path, accepts                 string
		body, kind, encoding, keeping string
	}{
		{"/", "gzip, br", "<!doctype html>", "text/html", "", "no-cache"},
		{
			"/class/c/plan/2026-11-23", "", "<!doctype html>", "text/html", "", "no-cache",
		}, // an address of the application's
		{"/assets", "", "<!doctype html>", "text/html", "", "no-cache"}, // no list of files
		{"/assets/app-1a2b.js", "gzip, br", "squeezed", "text/javascript", "br", "immutable"},
		{"/assets/app-1a2b.js", "gzip", "console.log", "text/javascript", "", "immutable"},
		{
			"/ear.wasm", "br", "squeezed ear", "application/wasm", "br", "no-cache",
		}, // the page of today wants the ear of today
		{"/icon.svg", "br", "<svg/>", "image/svg+xml", "", "no-cache"},
		{"/manifest.webmanifest", "br", "Early Chorus", "application/manifest+json", "", "no-cache"},
	} {
		ask := httptest.NewRequest("GET", "http://school.example/", nil)
		ask.URL.Path = c.path
		ask.Header.Set("Accept-Encoding", c.accepts)
		got := httptest.NewRecorder()
		servePage(built)(got, ask)
		assert.Equal(t, 200, got.Code, c.path)
		assert.Contains(t, got.Body.String(), c.body, c.path)
		assert.Contains(t, got.Header().Get("Content-Type"), c.kind, c.path)
		assert.Equal(t, c.encoding, got.Header().Get("Content-Encoding"), c.path)
		assert.Contains(t, got.Header().Get("Cache-Control"), c.keeping, c.path)
		if c.encoding != "" {
			assert.Contains(t, got.Header().Get("Vary"), "Accept-Encoding", c.path)
		}
	}
}

// What climbs out of the page's folder is refused.
func TestNothingOutsideThePageIsAnswered(t *testing.T) {
	ask := httptest.NewRequest("GET", "/", nil)
	ask.URL.Path = "/../../etc/passwd"
	got := httptest.NewRecorder()
	servePage(built)(got, ask)
	page, err := fs.ReadFile(built, "index.html")
	require.NoError(t, err)
	assert.Equal(t, string(page), got.Body.String(), "as for every address of the page's own")
}

// No page of ours may load from, send to, or be framed by another host.
func TestThePageKeepsToItself(t *testing.T) {
	got := httptest.NewRecorder()
	(&API{}).securityHeaders(servePage(built)).ServeHTTP(got, httptest.NewRequest("GET", "/", nil))
	policy := got.Header().Get("Content-Security-Policy")
	assert.Contains(t, policy, "default-src 'self'")
	assert.Contains(t, policy, "frame-ancestors 'none'")
	assert.NotContains(t, policy, "http:")
	assert.NotContains(t, policy, "https:")
	assert.Equal(t, "nosniff", got.Header().Get("X-Content-Type-Options"))
}
