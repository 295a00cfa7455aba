package e2e

import (
	"io"
	"net/http"
	"net/http/httptest"
	"net/http/httputil"
	"net/url"
	"os"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
	"mokren/demo/crowd"
)

// TestBenchTwoCopies sets what two copies of the program serve behind a balancer beside what one does,
// by turns, and says how much of the machine that took: where one fills it, two serve no more.
func TestBenchTwoCopies(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" || os.Getenv("MOKREN_LONG") == "" {
		t.Skip("run by make bench-large")
	}
	d := emptyDatabase(t)
	size := crowd.Size{Clients: 100, Visits: 10}
	made, err := crowd.Fill(t.Context(), d.asApp(t), d.on.AdminURL(d.name), size, time.Now())
	require.NoError(t, err)
	copies := make([]*httputil.ReverseProxy, 2)
	for i := range copies {
		to, err := url.Parse("http://" + serving(t, d, released).addr)
		require.NoError(t, err)
		copies[i] = httputil.NewSingleHostReverseProxy(to)
	}
	var turn atomic.Int64
	behind := func(n int64) string {
		s := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			copies[turn.Add(1)%n].ServeHTTP(w, r)
		}))
		t.Cleanup(s.Close)
		return s.URL
	}
	bases := []string{behind(1), behind(2)}
	var served [2]int64
	var busy [2]float64
	for range 4 {
		for i, base := range bases {
			from, all := cpu(t)
			l := demo.Login{Email: made.Email, Password: made.Password}
			served[i] += readers(t, base, l, "/api/visits/"+made.Visit.String())
			to, allThen := cpu(t)
			busy[i] += (to - from) / (allThen - all) / 4
		}
	}
	t.Logf("two copies: %d answers in 12 s by one, with the machine %.0f %% busy; %d by two, %.0f %% busy; ratio %.2f "+
		"(limit at least 1.7)", served[0], busy[0]*100, served[1], busy[1]*100, float64(served[1])/float64(served[0]))
}

// readers ask for a path, sixteen side by side, for three seconds.
func readers(t *testing.T, base string, l demo.Login, path string) (answers int64) {
	t.Helper()
	c := session(t, base, l)
	end := time.Now().Add(3 * time.Second)
	var n atomic.Int64
	var all sync.WaitGroup
	for range 16 {
		all.Go(func() {
			for time.Now().Before(end) {
				res, err := c.Get(base + path)
				if !assert.NoError(t, err) || !assert.Equal(t, http.StatusOK, res.StatusCode) {
					return
				}
				io.Copy(io.Discard, res.Body) //nolint:errcheck // only the answers are counted
				res.Body.Close()
				n.Add(1)
			}
		})
	}
	all.Wait()
	return n.Load()
}

// cpu is how long the machine's processors have worked, and how long they have been there.
func cpu(t *testing.T) (busy, all float64) {
	t.Helper()
	raw, err := os.ReadFile("/proc/stat")
	require.NoError(t, err)
	line, _, _ := strings.Cut(string(raw), "\n")
	const idle, waiting = 3, 4
	for i, f := range strings.Fields(line)[1:] {
		v, err := strconv.ParseFloat(f, 64)
		require.NoError(t, err)
		all += v
		if i != idle && i != waiting {
			busy += v
		}
	}
	return busy, all
}
