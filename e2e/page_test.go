package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"runtime/debug"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// page is a tab with helpers that speak of what is on it.
type page struct {
	*rod.Page
	t    testing.TB
	base string
	// session is what it has signed in with, once it is known; see cookie.
	session *http.Cookie
	// inRealTime lets the seconds of a hold pass, also where its clock could be stepped.
	inRealTime bool
}

// openPage opens a tab at a path, as somebody who comes for the first time.
func openPage(t testing.TB, addr, path string) *page {
	t.Helper()
	p := newTab(t, addr)
	withoutWorker(p)
	p.MustNavigate(p.base + path)
	return p
}

// signedIn is a tab in which one of the demo's people has signed in; it shows nothing yet.
func signedIn(t testing.TB, addr string, l demo.Login) *page {
	t.Helper()
	p := installed(t, addr, l)
	withoutWorker(p)
	return p
}

// installed is signedIn with the service worker, which keeps the program on the device.
// Its installation costs a second, so that only tests of what it does have it.
func installed(t testing.TB, addr string, l demo.Login) *page {
	t.Helper()
	p := newTab(t, addr)
	p.session = sessions[l.Email]
	require.NoError(t, p.Browser().SetCookies([]*proto.NetworkCookieParam{{
		Name: p.session.Name, Value: p.session.Value, URL: p.base, HTTPOnly: true,
		SameSite: proto.NetworkCookieSameSiteStrict,
	}}))
	return p
}

func withoutWorker(p *page) {
	p.MustEvalOnNewDocument(`delete Navigator.prototype.serviceWorker`)
}

// newTab opens an empty tab in a browser context of its own.
func newTab(t testing.TB, addr string) *page {
	t.Helper()
	// A tab that Chromium does not open is this test's failure, not every test's wait.
	life, end := context.WithCancel(context.Background())
	late := time.AfterFunc(stepLimit, end)
	ctx, err := browser.Context(life).Incognito()
	require.NoError(t, err)
	raw, err := ctx.Page(proto.TargetCreateTarget{})
	require.NoError(t, err)
	late.Stop()
	// What hangs fails this test alone, and the stack says where it hung.
	p := raw.Timeout(testLimit).WithPanic(func(v any) { t.Helper(); t.Fatalf("%v\n%s", v, debug.Stack()) })
	t.Cleanup(func() {
		if t.Failed() {
			if b, err := raw.Timeout(10*time.Second).Screenshot(false, nil); err == nil {
				os.WriteFile(filepath.Join(os.TempDir(), "mokren-"+strings.ReplaceAll(t.Name(), "/", "-")+".png"), b,
					0o644) //nolint:errcheck // a help, no more
			}
		}
		// With its pages, workers and stores. A page's own Close waits without end for a tab
		// that hangs, and holds up every other test's next tab meanwhile.
		ctx.Timeout(20 * time.Second).Close() //nolint:errcheck // the browser goes in the end
		end()
	})
	p.MustSetViewport(1280, 800, 1, false)
	return &page{Page: p, t: t, base: "http://" + addr}
}

// signIn does so by the form.
func (p *page) signIn(l demo.Login) {
	p.t.Helper()
	p.MustElement(`input[name=email]`).MustInput(l.Email)
	p.MustElement(`input[name=password]`).MustInput(l.Password)
	p.MustElementR("button", "^Sign in$").MustClick()
	p.MustElementR("button", "Sign out")
	p.session = nil
}

// cookie is what the page has signed in with.
func (p *page) cookie() *http.Cookie {
	p.t.Helper()
	if p.session != nil {
		return p.session
	}
	for _, c := range p.MustCookies() {
		if c.Name == sessionCookie {
			p.session = &http.Cookie{Name: c.Name, Value: c.Value}
		}
	}
	require.NotNil(p.t, p.session, "nobody has signed in")
	return p.session
}

// travel goes to another page of the program as a link does, without loading it anew.
func (p *page) travel(path string) {
	p.t.Helper()
	p.MustEval(`(to) => { history.pushState({}, "", to); dispatchEvent(new PopStateEvent("popstate")); }`, path)
}

// call asks the server as whoever has signed in on the page.
func (p *page) call(method, path string, body any) []byte {
	p.t.Helper()
	raw, err := json.Marshal(body)
	require.NoError(p.t, err)
	req, err := http.NewRequestWithContext(p.t.Context(), method, p.base+path, bytes.NewReader(raw))
	require.NoError(p.t, err)
	req.Header.Set("Content-Type", "application/json")
	req.AddCookie(p.cookie())
	res, err := http.DefaultClient.Do(req)
	require.NoError(p.t, err)
	defer res.Body.Close()
	text, err := io.ReadAll(res.Body)
	require.NoError(p.t, err)
	require.Less(p.t, res.StatusCode, 300, "%s %s: %s", method, path, text)
	require.NotContains(p.t, string(text), `"refused"`, "%s %s", method, path)
	return text
}

func (p *page) press(keys ...input.Key) {
	p.t.Helper()
	require.NoError(p.t, p.Keyboard.Type(keys...))
}

// see waits for text somewhere in an element.
func (p *page) see(selector, pattern string) *rod.Element {
	p.t.Helper()
	e, err := p.ElementR(selector, pattern)
	for tries := 0; err != nil && tries < 5 && strings.Contains(err.Error(), "navigated or closed"); tries++ {
		e, err = p.ElementR(selector, pattern) // it was asked in the moment of going to another page
	}
	require.NoError(p.t, err, "%s with %q is not on the page: %.600s", selector, pattern, p.text())
	return e
}

func (p *page) text() string {
	if e, err := p.Timeout(10 * time.Second).Element("body"); err == nil {
		s, _ := e.Text()
		return s
	}
	return ""
}

// click presses what has this text.
func (p *page) click(selector, pattern string) {
	p.t.Helper()
	p.tap(p.see(selector, pattern))
}

// tap presses an element. Something above it may come or go between the look and the press, which moves it
// away: then it is pressed again, as who has missed a button does. What counts is where the press came down:
// on it, or on one that has taken its place and says the same.
func (p *page) tap(e *rod.Element) {
	p.t.Helper()
	for range 3 {
		// Of an element that is gone nothing is known: it is pressed, or the press says why it cannot be.
		e.Eval(`() => {
			globalThis.missed = false;
			const [kind, says] = [this.tagName, this.textContent];
			addEventListener("pointerdown", ({ target }) => {
				const there = target.closest?.(kind);
				globalThis.missed = this.isConnected && !this.contains(target) && there?.textContent !== says;
			}, { capture: true, once: true });
		}`) //nolint:errcheck // as above
		require.NoError(p.t, e.Click(proto.InputMouseButtonLeft, 1))
		missed, err := p.Eval(`() => !!globalThis.missed`)
		if err != nil || !missed.Value.Bool() { // a page that was left has no answer
			return
		}
	}
	require.Fail(p.t, "it moves away", e.String())
}

// beginHold begins a hold by graded stages at the first point.
func beginHold(p *page) {
	p.t.Helper()
	beginBy(p, "Graded stages")
}

// beginBy chooses a protocol, a contact and a position at the first point and
// begins.
func beginBy(p *page, protocol string) {
	p.t.Helper()
	field := p.MustElementX(`(//*[@data-point-id])[1]//button[contains(@class, "field")]`)
	if !strings.HasPrefix(field.MustText(), protocol) {
		field.MustClick()
		p.tap(p.MustElementX(`//*[@role="option"][starts-with(., "` + protocol + `")]`))
	}
	for _, label := range []string{"Contact", "Client is"} {
		p.MustElementX(`(//*[@data-choices]//*[@role="radiogroup"][@aria-label="` + label + `"]//button)[1]`).
			MustClick()
	}
	p.click("button", "Begin the hold|Repeat")
}

// sent waits until the outbox is empty.
func (p *page) sent() {
	p.t.Helper()
	frames(p) // the page draws what waits once a frame
	_, err := p.Element(`[data-sent=true]`)
	require.NoError(p.t, err, "the outbox did not empty: %.300s", p.text())
}

func (p *page) shot(name string) {
	p.t.Helper()
	b, err := p.Screenshot(false, &proto.PageCaptureScreenshot{Format: proto.PageCaptureScreenshotFormatPng})
	require.NoError(p.t, err)
	require.NoError(p.t, os.WriteFile(name, b, 0o644))
}

func demoClient(i int) string { return fmt.Sprintf("0190a000-0000-7000-8000-0000000001%02x", i) }

func clientPath(i int) string { return "/clients/" + demoClient(i) }
