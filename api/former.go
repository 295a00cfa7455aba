package api

import (
	"net/http"
	"strings"
)

// formerPaths are addresses that were renamed in this version, with what they are called now.
// Each answers under its old name until the next version, so that a page or a program that
// was loaded before the upgrade goes on working.
var formerPaths = map[string]string{"/api/schools": "/api/protocols"}

// formerNames sends a request for a renamed address to where it is now.
func formerNames(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		for was, now := range formerPaths {
			if rest, ok := strings.CutPrefix(r.URL.Path, was); ok && (rest == "" || rest[0] == '/') {
				r.URL.Path = now + rest
			}
		}
		next.ServeHTTP(w, r)
	})
}
