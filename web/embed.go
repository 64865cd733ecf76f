// Package web carries the built interface inside the binary. `npm run build`
// fills dist; without it there is only the API.
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Built returns the built interface; ok is false when it was not built.
func Built() (files fs.FS, ok bool) {
	files, err := fs.Sub(dist, "dist")
	if err != nil {
		return nil, false
	}
	_, err = fs.Stat(files, "index.html")
	return files, err == nil
}
