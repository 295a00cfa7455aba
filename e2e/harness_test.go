// Package e2e drives the real interface in headless Chromium against the real
// program and PostgreSQL.
package e2e

import (
	"bufio"
	"cmp"
	"context"
	"fmt"
	"io"
	"log"
	"net"
	"net/http/httptest"
	"os"
	"os/exec"
	"path/filepath"
	"runtime/debug"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/proto"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"mokren/demo"
	"mokren/devices/algometer"
	"mokren/devices/inclinometer"
	"mokren/devices/pressurepad"
	"mokren/store"
	"mokren/store/cluster"
)

var (
	pg      *cluster.Cluster // this package's own: one test kills it
	browser *rod.Browser
	// instrument streams as an inclinometer would, five times as fast as life.
	instrument *httptest.Server
	// algometers press five times as fast as life.
	algometers *httptest.Server
	// pads press a simulated tissue as the coach says, at the pace of life.
	pads *httptest.Server
)

func TestMain(m *testing.M) { os.Exit(run(m)) }

func run(m *testing.M) int {
	ctx := context.Background()
	dir, err := os.MkdirTemp("", "mokren-e2e-")
	if err != nil {
		log.Fatal(err)
	}
	defer os.RemoveAll(dir)
	if pg, err = cluster.Open(ctx, dir); err != nil {
		log.Fatal(err)
	}
	defer pg.Stop() //nolint:errcheck // the folder goes anyway
	if err := store.Migrate(ctx, pg.OwnerURL("mokren")); err != nil {
		log.Fatal(err)
	}
	st, err := store.Open(pg.AppURL("mokren"))
	if err != nil {
		log.Fatal(err)
	}
	if err := demo.Fill(ctx, st, time.Now()); err != nil {
		log.Fatal(err)
	}
	st.Close()
	instrument = httptest.NewServer(inclinometer.Handler(inclinometer.Options{
		Ranges: []float64{58, 66, 60, 64},
		Speed:  5,
	}))
	defer instrument.Close()
	algometers = httptest.NewServer(algometer.Handler(algometer.Options{Speed: 5}))
	defer algometers.Close()
	pads = httptest.NewServer(pressurepad.Handler(pressurepad.Options{}))
	defer pads.Close()
	path, ok := launcher.LookPath()
	if !ok {
		log.Fatal("Chromium is not installed: run `apt-get install chromium`")
	}
	l := launcher.New().
		Bin(path).
		Leakless(false).
		NoSandbox(os.Geteuid() == 0).
		Headless(true).
		UserDataDir(filepath.Join(dir, "chromium")).
		Set("disable-background-networking").
		Set("disable-component-update").
		Set("disable-sync").
		Set("no-first-run").
		Set("disable-gpu").
		Set("hide-scrollbars")
	defer l.Kill()
	browser = rod.New().ControlURL(l.MustLaunch()).MustConnect()
	defer browser.Close()
	return m.Run()
}

// server is the real program as a child process.
type server struct {
	t    testing.TB
	addr string
	cmd  *exec.Cmd
	// inclinometer is where the instrument is said to stream.
	inclinometer string
	// database it serves, the demo's when empty, or one at a URL; link is the one that a
	// first start prints.
	database, url, link string
	// bin is another version of the program; this one when empty.
	bin string
}

func startServer(t testing.TB) *server {
	t.Helper()
	s := &server{
		t:            t,
		addr:         "127.0.0.1:0",
		inclinometer: "ws" + strings.TrimPrefix(instrument.URL, "http") + "/",
	}
	s.start()
	t.Cleanup(s.kill)
	return s
}

func (s *server) start() {
	s.t.Helper()
	bin, err := filepath.Abs(cmp.Or(s.bin, "../bin/mokren"))
	require.NoError(s.t, err)
	s.cmd = exec.Command(bin, "serve", "--addr", s.addr, "--sign-ins-per-minute", "1000", "--inclinometer",
		s.inclinometer, "--algometer", "ws"+strings.TrimPrefix(algometers.URL, "http")+"/",
		"--pressure-pad", "ws"+strings.TrimPrefix(pads.URL, "http")+"/")
	// D10: with the app's address alone.
	s.cmd.Env = append(os.Environ(), "MOKREN_DATABASE_URL="+cmp.Or(s.url, pg.AppURL(cmp.Or(s.database, "mokren"))))
	out, err := s.cmd.StdoutPipe()
	require.NoError(s.t, err)
	s.cmd.Stderr = os.Stderr
	require.NoError(s.t, s.cmd.Start(), "run `make build` first")
	late := time.AfterFunc(time.Minute, func() { s.cmd.Process.Kill() }) //nolint:errcheck // it says no address then
	defer late.Stop()
	scan := bufio.NewScanner(out)
	for scan.Scan() {
		_, at, isAddress := strings.Cut(scan.Text(), "http://")
		at, secret, isLink := strings.Cut(strings.TrimSpace(at), "/join/")
		switch {
		case isLink:
			s.link = "/join/" + secret
		case isAddress:
			s.addr = at
		case strings.Contains(scan.Text(), "Ctrl-C"):
			go io.Copy(io.Discard, out) //nolint:errcheck // drained
			return
		}
	}
	s.t.Fatal("the server did not say where it is")
}

func (s *server) kill() {
	s.cmd.Process.Signal(syscall.SIGKILL) //nolint:errcheck // it may be gone
	s.cmd.Wait()                          //nolint:errcheck // killed
}

// wire is a TCP proxy that can be cut: switching a page offline misses a
// service worker's traffic, this misses nothing.
type wire struct {
	l   net.Listener
	mu  sync.Mutex
	cut bool
	all map[net.Conn]bool
}

func newWire(t testing.TB, to string) *wire {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	w := &wire{l: l, all: map[net.Conn]bool{}}
	t.Cleanup(func() { l.Close(); w.Cut(true) })
	go func() {
		for {
			a, err := l.Accept()
			if err != nil {
				return
			}
			w.mu.Lock()
			cut := w.cut
			w.mu.Unlock()
			b, err := net.Dial("tcp", to)
			if cut || err != nil {
				a.Close()
				if b != nil {
					b.Close()
				}
				continue
			}
			w.mu.Lock()
			w.all[a], w.all[b] = true, true
			w.mu.Unlock()
			pipe := func(x, y net.Conn) {
				io.Copy(x, y) //nolint:errcheck // ends with the connection
				x.Close()
				y.Close()
			}
			go pipe(a, b)
			go pipe(b, a)
		}
	}()
	return w
}

func (w *wire) Cut(cut bool) {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.cut = cut
	if cut {
		for c := range w.all {
			c.Close()
			delete(w.all, c)
		}
	}
}

// page is a tab with helpers that speak of what is on it.
type page struct {
	*rod.Page
	t    testing.TB
	base string
}

func openPage(t testing.TB, addr, path string) *page {
	t.Helper()
	// A tab that Chromium does not open is this test's failure, not every test's wait.
	life, end := context.WithCancel(context.Background())
	late := time.AfterFunc(time.Minute, end)
	ctx, err := browser.Context(life).Incognito()
	require.NoError(t, err)
	raw, err := ctx.Page(proto.TargetCreateTarget{})
	require.NoError(t, err)
	late.Stop()
	p := raw.Timeout(150 * time.Second).WithPanic(func(v any) { t.Helper(); t.Fatalf("%v\n%s", v, debug.Stack()) })
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
	pg := &page{p, t, "http://" + addr}
	p.MustNavigate(pg.base + path)
	return pg
}

func (p *page) signIn(l demo.Login) {
	p.t.Helper()
	p.MustElement(`input[name=email]`).MustInput(l.Email)
	p.MustElement(`input[name=password]`).MustInput(l.Password)
	p.MustElementR("button", "^Sign in$").MustClick()
	p.MustElementR("button", "Sign out")
}

func (p *page) press(keys ...input.Key) {
	p.t.Helper()
	require.NoError(p.t, p.Keyboard.Type(keys...))
}

// see waits for text somewhere in an element.
func (p *page) see(selector, pattern string) *rod.Element {
	p.t.Helper()
	e, err := p.Timeout(20*time.Second).ElementR(selector, pattern)
	require.NoError(p.t, err, "%s with %q is not on the page: %.600s", selector, pattern, p.text())
	return e.CancelTimeout()
}

func (p *page) text() string {
	if e, err := p.Element("body"); err == nil {
		s, _ := e.Text()
		return s
	}
	return ""
}

func (p *page) click(selector, pattern string) {
	p.t.Helper()
	p.see(selector, pattern).MustClick()
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
		p.MustElementX(`//*[@role="option"][starts-with(., "` + protocol + `")]`).MustClick()
	}
	for _, label := range []string{"Contact", "Client is"} {
		p.MustElementX(`(//*[@data-choices]//*[@role="radiogroup"][@aria-label="` + label + `"]//button)[1]`).
			MustClick()
	}
	p.click("button", "Begin the hold|Another hold")
}

// sent waits until the outbox is empty.
func (p *page) sent() {
	p.t.Helper()
	_, err := p.Timeout(30 * time.Second).Element(`[data-sent=true]`)
	require.NoError(p.t, err, "the outbox did not empty: %.300s", p.text())
}

func (p *page) shot(name string) {
	p.t.Helper()
	b, err := p.Screenshot(false, &proto.PageCaptureScreenshot{Format: proto.PageCaptureScreenshotFormatPng})
	require.NoError(p.t, err)
	require.NoError(p.t, os.WriteFile(name, b, 0o644))
}

func db(t testing.TB) *sqlx.DB {
	d, err := sqlx.Open("pgx", pg.AdminURL("mokren"))
	require.NoError(t, err)
	t.Cleanup(func() { d.Close() })
	return d
}

func demoClient(i int) string { return fmt.Sprintf("0190a000-0000-7000-8000-0000000001%02x", i) }

func clientPath(i int) string { return "/clients/" + demoClient(i) }

// pressed waits until the hold on screen has counted so many more seconds of
// pressure.
func pressed(p *page, seconds int) {
	p.t.Helper()
	const now = `Number(document.querySelector('[aria-label="Pressure time"]').getAttribute("aria-valuenow"))`
	from := p.MustEval(`() => ` + now).Int()
	p.MustWait(`(s) => `+now+` >= s`, from+seconds)
}
