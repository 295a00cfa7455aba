package e2e

import (
	"bufio"
	"cmp"
	"io"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// The programs under test: the one that is released, and the one whose page's clock
// is stepped (see clock_test.go).
const (
	released = "../bin/mokren"
	stepped  = "../bin/mokren-stepped"
)

// server is the real program as a child process.
type server struct {
	t    testing.TB
	addr string
	cmd  *exec.Cmd
	database
	// inclinometer is where the instrument is said to stream.
	inclinometer string
	// url is another database than database; link is the one that a first start prints.
	url, link string
	bin       string
}

// startServer serves a copy of the demo by the released program, in real time.
func startServer(t testing.TB) *server { return serving(t, demoDatabase(t), released) }

// startStepped serves a copy of the demo by the program whose clock is stepped.
func startStepped(t testing.TB) *server { return serving(t, demoDatabase(t), stepped) }

// serving serves a test's database.
func serving(t testing.TB, d database, bin string) *server {
	t.Helper()
	s := &server{
		t:            t,
		addr:         "127.0.0.1:0",
		database:     d,
		inclinometer: "ws" + strings.TrimPrefix(instrument.URL, "http") + "/",
		bin:          bin,
	}
	databases.Store(t.Name(), d)
	s.start()
	t.Cleanup(s.kill)
	return s
}

func (s *server) start() {
	s.t.Helper()
	bin, err := filepath.Abs(cmp.Or(s.bin, released))
	require.NoError(s.t, err)
	s.cmd = exec.Command(bin, "serve", "--addr", s.addr, "--sign-ins-per-minute", "1000", "--inclinometer",
		s.inclinometer, "--algometer", "ws"+strings.TrimPrefix(algometers.URL, "http")+"/",
		"--pressure-pad", "ws"+strings.TrimPrefix(pads.URL, "http")+"/")
	// D10: with the app's address alone.
	s.cmd.Env = append(os.Environ(), "MOKREN_DATABASE_URL="+s.at())
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

// at is the address of what it serves.
func (s *server) at() string {
	if s.url != "" {
		return s.url
	}
	return s.on.AppURL(s.name)
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
