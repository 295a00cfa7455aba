package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"regexp"
	"strconv"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// TestBenchRoom prints the memory of the server when it has started, and after a while of 32 writers
// among whom people sign in and pages are made.
func TestBenchRoom(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" {
		t.Skip("run by make bench")
	}
	s := startServer(t)
	t.Logf("memory of the server: %d MB after its start (limit 150)", memory(t, s, "VmRSS"))
	p := signedIn(t, s.addr, demo.Logins[0])
	var me struct{ ID string }
	require.NoError(t, json.Unmarshal(p.call(http.MethodGet, "/api/session", nil), &me))
	var all sync.WaitGroup
	end := time.Now().Add(8 * time.Second)
	var mu sync.Mutex
	sent := 0
	for i := range 32 {
		client := ownClient(p, fmt.Sprintf("Room %d", i))
		visit := booked(p, client, time.Now())
		all.Go(func() {
			for seq := 1; time.Now().Before(end); seq++ {
				writeNote(p, me.ID, visit, client, seq)
				mu.Lock()
				sent++
				mu.Unlock()
			}
		})
	}
	for range 4 {
		all.Go(func() {
			for time.Now().Before(end) {
				post(p, "/api/session", map[string]string{"email": demo.Logins[1].Email, "password": "not this one"})
				req, err := http.NewRequest(http.MethodGet, p.base+"/api/practice/print/blank", nil)
				assert.NoError(t, err)
				req.AddCookie(p.cookie())
				if res, err := http.DefaultClient.Do(req); assert.NoError(t, err) {
					res.Body.Close()
				}
			}
		})
	}
	all.Wait()
	t.Logf("memory of the server with 32 writers (%d events), sign-ins and pages: %d MB at the most (limit 400)",
		sent, memory(t, s, "VmHWM"))
}

// writeNote writes an event of a visit, as a device of its own does.
func writeNote(p *page, author, visit, client string, seq int) {
	e := map[string]any{
		"id": uuid.Must(uuid.NewV7()).String(), "client": client, "visit": visit, "author": author, "device": visit,
		"seq": seq, "device_ms": time.Now().UnixMilli(), "seen": 0, "schema": 1, "type": "note-written",
		"body": map[string]string{"text": fmt.Sprintf("Line %d.", seq)},
	}
	post(p, "/api/visits/"+visit+"/events", map[string]any{"sent_ms": time.Now().UnixMilli(), "events": []any{e}})
}

// post sends a body and reads the answer, whatever it is.
func post(p *page, path string, body any) {
	raw, err := json.Marshal(body)
	assert.NoError(p.t, err)
	req, err := http.NewRequest(http.MethodPost, p.base+path, bytes.NewReader(raw))
	assert.NoError(p.t, err)
	req.Header.Set("Content-Type", "application/json")
	req.AddCookie(p.cookie())
	res, err := http.DefaultClient.Do(req)
	if assert.NoError(p.t, err) {
		res.Body.Close()
	}
}

// memory is a figure of the server's process, in MB.
func memory(t *testing.T, s *server, figure string) int {
	t.Helper()
	raw, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", s.cmd.Process.Pid))
	require.NoError(t, err)
	kb := regexp.MustCompile(figure + `:\s+(\d+) kB`).FindSubmatch(raw)
	require.Len(t, kb, 2)
	n, err := strconv.Atoi(string(kb[1]))
	require.NoError(t, err)
	return n / 1024
}
