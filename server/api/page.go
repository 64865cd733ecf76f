package api

import (
	"bytes"
	"crypto/rand"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"
	"time"
)

// servePage answers the built interface. Addresses inside the application,
// which are no files, answer its page; files named after their contents may
// be kept for ever.
func servePage(web fs.FS) http.HandlerFunc {
	_ = mime.AddExtensionType(".webmanifest", "application/manifest+json") // no table of Go's has it
	files := http.FileServerFS(web)
	page, _ := fs.ReadFile(web, pageFile) // none: there is no page to answer
	return func(w http.ResponseWriter, r *http.Request) {
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		if info, err := fs.Stat(web, name); name == "" || name == pageFile || err != nil || info.IsDir() {
			answerPage(w, r, page)
			return
		}
		if strings.HasPrefix(name, "assets/") {
			w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			w.Header().Set("Cache-Control", "no-cache") // the page of today wants the ear of today
		}
		if _, err := fs.Stat(
			web,
			name+squeezed,
		); err == nil &&
			strings.Contains(r.Header.Get("Accept-Encoding"), "br") {
			serveSqueezed(w, r, web, name)
			return
		}
		files.ServeHTTP(w, r)
	}
}

const (
	pageFile = "index.html"
	// nonceMark stands in the page where its nonce goes.
	nonceMark = "STYLE-NONCE"
)

// answerPage answers the page with a nonce of its own: the styles that it makes while it
// runs bear it, and no others are let in.
func answerPage(w http.ResponseWriter, r *http.Request, page []byte) {
	nonce := rand.Text()
	h := w.Header()
	h.Set("Content-Security-Policy", strings.Join(append(contentPolicy, "style-src 'self' 'nonce-"+nonce+"'"), "; "))
	h.Set("Cache-Control", "no-cache")
	h.Set("Content-Type", "text/html; charset=utf-8")
	http.ServeContent(
		w,
		r,
		pageFile,
		time.Time{},
		bytes.NewReader(bytes.ReplaceAll(page, []byte(nonceMark), []byte(nonce))),
	)
}

// squeezed is the end of a file's name that was compressed when the page was built.
const squeezed = ".br"

// serveSqueezed gives a file as it was compressed when the program was built. The
// type is by the name without its ending, and caches must tell the two apart.
func serveSqueezed(w http.ResponseWriter, r *http.Request, web fs.FS, name string) {
	w.Header().Set("Content-Encoding", "br")
	w.Header().Set("Content-Type", mime.TypeByExtension(path.Ext(name)))
	w.Header().Add("Vary", "Accept-Encoding")
	http.ServeFileFS(w, r, web, name+squeezed)
}
