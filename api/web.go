package api

import (
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"
)

// web serves the built front end: hashed files immutable and pre-compressed,
// every other address the page itself.
func web() http.HandlerFunc {
	home := "index.html"
	files, err := fs.Sub(webFiles, webFolder+"/dist")
	if _, missing := fs.Stat(webFiles, webFolder+"/dist/index.html"); missing != nil || err != nil {
		home = "placeholder.html"
		if files, err = fs.Sub(webFiles, webFolder); err != nil {
			panic(err)
		}
	}
	return func(w http.ResponseWriter, r *http.Request) {
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		switch {
		case strings.HasPrefix(name, "api/"):
			writeProblem(w, http.StatusNotFound, "There is nothing at this address.")
			return
		case r.Method != http.MethodGet && r.Method != http.MethodHead:
			writeProblem(w, http.StatusMethodNotAllowed, "Only reading is possible here.")
			return
		}
		b, err := fs.ReadFile(files, name)
		if err != nil && strings.HasPrefix(name, "assets/") {
			http.NotFound(w, r)
			return
		}
		h := w.Header()
		if err != nil || name == "." {
			name = home
			if b, err = fs.ReadFile(files, name); err != nil {
				http.NotFound(w, r)
				return
			}
		}
		if t := mime.TypeByExtension(path.Ext(name)); t != "" {
			h.Set("Content-Type", t)
		}
		h.Set("Cache-Control", "no-cache")
		if strings.HasPrefix(name, "assets/") {
			h.Set("Cache-Control", "public, max-age=31536000, immutable")
			h.Set("Vary", "Accept-Encoding")
			if br, err := fs.ReadFile(files, name+".br"); err == nil &&
				strings.Contains(r.Header.Get("Accept-Encoding"), "br") {
				h.Set("Content-Encoding", "br")
				b = br
			}
		}
		w.Write(b) //nolint:errcheck // the client went away
	}
}
