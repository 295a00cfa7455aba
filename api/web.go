package api

import (
	"crypto/sha256"
	"encoding/base64"
	"io"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"regexp"
	"strings"
)

// web serves the built front end: hashed files immutable and pre-compressed,
// every other address the page itself. Who comes to the bare address without a session gets the page
// that begins with the sign-in form.
func web(sessionCookie string) http.HandlerFunc {
	home, signIn := "index.html", "signin.html"
	files, err := fs.Sub(webFiles, webFolder+"/dist")
	if _, missing := fs.Stat(webFiles, webFolder+"/dist/index.html"); missing != nil || err != nil {
		home, signIn = "placeholder.html", "placeholder.html"
		if files, err = fs.Sub(webFiles, webFolder); err != nil {
			panic(err)
		}
	}
	own := "script-src 'self'" + hashes(files, signIn)
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
		h := w.Header()
		if name == "" {
			h.Set("Vary", "Cookie")
			if _, none := r.Cookie(sessionCookie); none != nil {
				name = signIn
			}
		}
		if !known && name != signIn {
			name = home
		}
		if name == signIn {
			h.Set(policyHeader, strings.Replace(h.Get(policyHeader), "script-src 'self'", own, 1))
		}
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

var inlineScript = regexp.MustCompile(`<script>([^<]*)</script>`)

// hashes are what a policy calls the scripts that stand in a page itself.
func hashes(files fs.FS, name string) (all string) {
	page, err := fs.ReadFile(files, name)
	if err != nil {
		panic(err)
	}
	for _, script := range inlineScript.FindAllSubmatch(page, -1) {
		sum := sha256.Sum256(script[1])
		all += " 'sha256-" + base64.StdEncoding.EncodeToString(sum[:]) + "'"
	}
	return all
}

func exists(files fs.FS, name string) bool {
	info, err := fs.Stat(files, name)
	return err == nil && !info.IsDir()
}
