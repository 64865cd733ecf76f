package api

import (
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"
)

// servePage answers the built interface. Addresses inside the application,
// which are no files, answer its page; files named after their contents may
// be kept for ever.
func servePage(web fs.FS) http.HandlerFunc {
	files := http.FileServerFS(web)
	return func(w http.ResponseWriter, r *http.Request) {
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		if info, err := fs.Stat(web, name); name == "" || err != nil || info.IsDir() {
			w.Header().Set("Cache-Control", "no-cache")
			http.ServeFileFS(w, r, web, "index.html")
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
