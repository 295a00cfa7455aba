package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// writer is one tab of one device: it sends its events in small batches, again
// and again until each has its receipt, as the outbox does.
type writer struct {
	http   *http.Client
	base   string
	visit  string
	events []map[string]any
	bad    map[string]bool
	got    map[string]string // receipt by event
	// ahead is how wrong the device's clock is.
	ahead time.Duration
}

func (w *writer) send(batch []map[string]any) error {
	raw, err := json.Marshal(map[string]any{"sent_ms": time.Now().Add(w.ahead).UnixMilli(), "events": batch})
	if err != nil {
		return err
	}
	res, err := w.http.Post(w.base+"/api/visits/"+w.visit+"/events", "application/json", bytes.NewReader(raw))
	if err != nil {
		return err
	}
	defer res.Body.Close()
	text, err := io.ReadAll(res.Body)
	if err != nil {
		return err
	}
	if res.StatusCode != http.StatusOK {
		return fmt.Errorf("%d: %s", res.StatusCode, text)
	}
	var a struct {
		Receipts []struct{ ID, Result, Reason string }
	}
	if err := json.Unmarshal(text, &a); err != nil {
		return err
	}
	for _, r := range a.Receipts {
		w.got[r.ID] = r.Result
		if r.Result == "refused" && r.Reason == "" {
			return fmt.Errorf("refused without a reason: %s", r.ID)
		}
	}
	return nil
}

// run sends everything; a batch without an answer is sent again.
func (w *writer) run(left *atomic.Int64, deadline time.Time) error {
	for len(w.events) > 0 {
		n := min(3, len(w.events))
		if err := w.send(w.events[:n]); err != nil {
			if time.Now().After(deadline) {
				return err
			}
			time.Sleep(50 * time.Millisecond)
			continue
		}
		w.events = w.events[n:]
		left.Add(-int64(n))
	}
	return nil
}

// session gives a client with a session.
func session(t *testing.T, base string, l demo.Login) *http.Client {
	t.Helper()
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	c := &http.Client{Jar: jar, Timeout: 20 * time.Second}
	body, err := json.Marshal(map[string]string{"email": l.Email, "password": l.Password})
	require.NoError(t, err)
	res, err := c.Post(base+"/api/session", "application/json", bytes.NewReader(body))
	require.NoError(t, err)
	defer res.Body.Close()
	require.Equal(t, http.StatusOK, res.StatusCode)
	return c
}

func put(t *testing.T, c *http.Client, address string, body map[string]any) {
	t.Helper()
	raw, err := json.Marshal(body)
	require.NoError(t, err)
	req, err := http.NewRequest(http.MethodPut, address, bytes.NewReader(raw))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	res, err := c.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	text, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, res.StatusCode, "%s", text)
}

// Thirty-two writers, two tabs on each of two devices in eight visits, refusals
// mixed in, while the program is killed three times and PostgreSQL once: every
// good event is stored once, every refused one has its reason, none is stuck
// behind another.
func TestThirtyTwoWritersUnderKills(t *testing.T) {
	t.Parallel()
	s := serving(t, mortalDatabase(t), released)
	base := "http://" + s.addr
	c := session(t, base, demo.Logins[1])
	var me string
	require.NoError(t, db(t).Get(&me, `select id::text from person where name = $1`, demo.Logins[1].Name))
	const each = 15
	var writers []*writer
	for range 8 {
		client, visit := uuid.NewString(), uuid.NewString()
		put(t, c, base+"/api/clients/"+client, map[string]any{
			"id": client, "given_name": "Many", "family_name": "Writers " + client[:6], "revision": 0,
		})
		put(t, c, base+"/api/visits/"+visit, map[string]any{
			"id": visit, "client": client, "starts_at": time.Now().Format(time.RFC3339),
		})
		for range 4 {
			w := &writer{http: c, base: base, visit: visit, bad: map[string]bool{}, got: map[string]string{}}
			device := uuid.NewString()
			for i := range each {
				e := map[string]any{
					"id":        uuid.NewString(),
					"client":    client,
					"visit":     visit,
					"author":    me,
					"device":    device,
					"seq":       i + 1,
					"device_ms": time.Now().UnixMilli(),
					"seen":      0,
					"schema":    1,
					"type":      "note-written",
					"body":      map[string]any{"text": fmt.Sprint(i)},
				}
				if i%5 == 2 {
					e["seen"] = -1 // refused for ever
					w.bad[e["id"].(string)] = true
				}
				w.events = append(w.events, e)
			}
			writers = append(writers, w)
		}
	}
	var left atomic.Int64
	left.Store(int64(len(writers) * each))
	var wg sync.WaitGroup
	deadline := time.Now().Add(2 * time.Minute)
	for _, w := range writers {
		wg.Go(func() { assert.NoError(t, w.run(&left, deadline)) })
	}
	// Each kill comes when a part of the work is done, whatever the speed.
	total := left.Load()
	for k := range int64(4) {
		for left.Load() > total*(4-k)/5 && time.Now().Before(deadline) {
			time.Sleep(5 * time.Millisecond)
		}
		if k == 2 {
			require.NoError(t, s.on.Kill())
			continue
		}
		s.kill()
		s.start()
	}
	wg.Wait()
	good := 0
	for _, w := range writers {
		for id, result := range w.got {
			if w.bad[id] {
				assert.Equal(t, "refused", result)
				continue
			}
			assert.Contains(t, []string{"stored", "stored-before"}, result)
			good++
		}
		assert.Len(t, w.got, each, "a receipt for every event")
	}
	var stored struct {
		N        int `db:"n"`
		Versions int `db:"versions"`
	}
	require.NoError(t, db(t).Get(&stored, `select count(*) as n, count(distinct (e.visit_id, e.version)) as versions
		from visit_event e join client c on c.id = e.client_id where c.given_name = 'Many'`))
	assert.Equal(t, good, stored.N)
	assert.Equal(t, good, stored.Versions)
	assert.Equal(t, len(writers)*each*4/5, good)
}
