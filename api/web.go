package api

import (
	"io"
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
		known := exists(files, name)
		if !known && strings.HasPrefix(name, "assets/") {
			http.NotFound(w, r)
			return
		}
		if !known || name == "." {
			name = home
		}
		h := w.Header()
		if t := mime.TypeByExtension(path.Ext(name)); t != "" {
			h.Set("Content-Type", t)
		}
		h.Set("Cache-Control", "no-cache")
		if strings.HasPrefix(name, "assets/") {
			h.Set("Cache-Control", "public, max-age=31536000, immutable")
			h.Set("Vary", "Accept-Encoding")
			if strings.Contains(r.Header.Get("Accept-Encoding"), "br") && exists(files, name+".br") {
				h.Set("Content-Encoding", "br")
				name += ".br"
			}
		}
		f, err := files.Open(name)
		if err != nil {
			http.NotFound(w, r)
			return
		}
		defer f.Close()
		io.Copy(w, f) //nolint:errcheck // the client went away
	}
}

func exists(files fs.FS, name string) bool {
	info, err := fs.Stat(files, name)
	return err == nil && !info.IsDir()
}
