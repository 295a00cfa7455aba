package e2e

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// opening is a page that is opened, and by what it is known to be there; and what else is timed on the way,
// by how it is known and what is said of it.
type opening struct {
	name, path, there string
	limit             float64 // times the blank page
	warm, signedIn    bool
	also, said        string
}

// rounds of which the fastest counts: a machine that others share only ever adds to a time.
const rounds = 4

// TestBenchOpenings prints how long pages take to open on a cheap tablet, beside a page of the same
// framework with nothing on it.
func TestBenchOpenings(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" {
		t.Skip("run by make bench")
	}
	blank := httptest.NewServer(blankPage())
	t.Cleanup(blank.Close)
	s := startServer(t)
	p := signedIn(t, s.addr, demo.Logins[0])
	client := ownClient(p, "Opening")
	visit := "/visits/" + booked(p, client, time.Now())
	const body = "svg[data-view=back] path"
	p.MustNavigate(p.base + visit)
	p.see("button", "Undo")
	p.sent()
	all := []opening{
		{"a blank page", "/", "[data-blank]", 0, false, false, "", ""},
		{"the sign-in form", "/", "input[name=email]", 1.5, false, false, "form button:enabled", "its button works"},
		{"the day list", "/", "[data-day-visit]", 2.5, false, true, "", ""},
		{"a visit from a warm cache", visit, ".panel button", 4, true, true, body, "its body is drawn"},
		{"a visit, cold", visit, ".panel button", 8, false, true, body, "its body is drawn"},
	}
	took, others := map[string][]float64{}, map[string][]float64{}
	for range rounds {
		for i, o := range all {
			to := s.addr
			if i == 0 {
				to = strings.TrimPrefix(blank.URL, "http://")
			}
			ready, other := opensIn(p, o, slowLine(t, to))
			took[o.name], others[o.name] = append(took[o.name], ready), append(others[o.name], other)
		}
	}
	base := slices.Min(took[all[0].name])
	t.Logf("a blank page: %.0f ms", base)
	for _, o := range all[1:] {
		ms := slices.Min(took[o.name])
		t.Logf("%s: %.0f ms, %.2f × the blank page (limit %.1f)", o.name, ms, ms/base, o.limit)
		if o.also != "" {
			other := slices.Min(others[o.name])
			t.Logf("  %s after %.0f ms, %.2f × the blank page", o.said, other, other/base)
		}
	}
}

// opensIn opens a page on a device of its own, which is as slow as a cheap tablet, and gives the
// milliseconds from the first byte that is asked for until what makes it ready is painted, and until
// what else is timed is there (0 where nothing is).
func opensIn(of *page, o opening, addr string) (ready, other float64) {
	t := of.t
	t.Helper()
	l := chromium(t.TempDir())
	b := rod.New().ControlURL(l.MustLaunch()).MustConnect().Sleeper(patient)
	defer l.Kill()
	defer b.Close()
	if o.signedIn {
		c := sessions[demo.Logins[0].Email]
		require.NoError(t, b.SetCookies([]*proto.NetworkCookieParam{{
			Name: c.Name, Value: c.Value, URL: "http://" + addr, HTTPOnly: true,
			SameSite: proto.NetworkCookieSameSiteStrict,
		}}))
	}
	p := b.MustPage()
	p.MustSetViewport(1280, 800, 1, false)
	if o.signedIn {
		knownDevice(of, p)
	}
	if o.warm {
		// The first fetches, the second is served from what the service worker keeps, as on any later day. What
		// the browser keeps of compiled scripts is not used by the headless one, however often it is loaded.
		for range 2 {
			p.MustNavigate("http://" + addr + o.path)
			p.MustElement(o.there)
			time.Sleep(3 * time.Second)
		}
		p.MustNavigate("about:blank")
	}
	p.MustEvalOnNewDocument(fmt.Sprintf(`new MutationObserver((_, seen) => {
		const [there, also] = [%q, %q];
		if (also && document.querySelector(also)) globalThis.otherMS ??= performance.now();
		if (document.querySelector(there) && !globalThis.seen) {
			globalThis.seen = true;
			requestAnimationFrame(() => setTimeout(() => { globalThis.thereMS = performance.now(); }));
		}
		if (globalThis.seen && (!also || globalThis.otherMS)) seen.disconnect();
	}).observe(document, { childList: true, subtree: true, attributes: true });`, o.there, o.also))
	release := squeezed(l.PID())
	defer release()
	p.MustNavigate("http://" + addr + o.path)
	p.MustWait(fmt.Sprintf(`() => globalThis.thereMS !== undefined && (!%q || !!globalThis.otherMS)`, o.also))
	ms := p.MustEval(`() => [thereMS, globalThis.otherMS ?? 0]`).Arr()
	return ms[0].Num(), ms[1].Num()
}

// knownDevice makes a page's device one on which somebody has signed in before, as most are.
func knownDevice(of *page, p *rod.Page) {
	me := string(of.call(http.MethodGet, "/api/session", nil))
	p.MustEvalOnNewDocument(fmt.Sprintf(
		`localStorage.setItem("mokren.me", JSON.stringify({ me: %s, keptMS: Date.now() }))`, me,
	))
}

// blankPage serves what make bench has built, as the program serves its own.
func blankPage() http.Handler {
	dist := filepath.Join("..", ".mokren", "blank")
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		name := filepath.Join(dist, filepath.Clean("/"+r.URL.Path))
		if strings.HasSuffix(name, ".js") {
			w.Header().Set("Content-Type", "text/javascript")
			w.Header().Set("Content-Encoding", "br")
			name += ".br"
		}
		http.ServeFile(w, r, name)
	})
}
