package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/safety"
	"mokren/core/visit"
	"mokren/store"
	"mokren/store/storetest"
)

// writer writes a visit of its own, one event at a time, as a device does in a hold.
type writer struct {
	c             *longCare
	client, visit uuid.UUID
	hold          visit.UUID
	device        string
	seq, version  int64
	began         time.Time
}

// newWriter is in a visit with a hold that has begun.
func (c *longCare) newWriter() *writer {
	w := &writer{c: c, client: uuid.New(), visit: uuid.New(), device: uuid.NewString(), began: time.Now()}
	c.as(func(tx *store.Tx) error {
		who := store.Client{ID: w.client, GivenName: "Ada", FamilyName: "Write"}
		if err := tx.PutClient(c.t.Context(), who); err != nil {
			return err
		}
		return tx.NewVisit(c.t.Context(), store.Visit{
			ID: w.visit, ClientID: w.client, Therapist: c.who.Person, StartsAt: w.began.Add(-time.Minute), Minutes: 60,
		})
	})
	p := c.spots[0]
	p.Point = visit.UUID(uuid.NewString())
	p.Identity = p.Point
	events := []visit.Event{
		w.event("visit-opened", visit.VisitOpened{}), w.event("screening-answered", allAnsweredNo()),
		w.event("consent-recorded", visit.ConsentRecorded{Area: "visit", Given: true}), w.event("point-charted", p),
	}
	pressed := c.press(w.event, p)
	began, err := pressed[0].Decode()
	require.NoError(c.t, err)
	w.hold = began.(*visit.HoldStarted).Hold
	w.send(append(events, pressed[:2]...)...)
	return w
}

func (w *writer) event(kind string, body any) visit.Event {
	raw, err := json.Marshal(body)
	require.NoError(w.c.t, err)
	w.seq++
	// A minute ago, so that the hold is old enough for what is said in it: a time beyond its age would be
	// cut to it, and sorted before what came earlier.
	at := time.Now().Add(-time.Minute)
	return visit.Event{
		ID: uuid.Must(uuid.NewV7()).String(), Client: w.client.String(), Visit: w.visit.String(),
		Author: w.c.who.Person.String(), Device: w.device, Seq: w.seq, DeviceMS: at.UnixMilli(),
		Seen: w.version, Schema: 1, Type: kind, Body: raw,
	}
}

// word is a number that the client says, at so many ms of the hold.
func (w *writer) word(at int64) visit.Event {
	n := strconv.Itoa(3 + int(w.seq%4))
	return w.event("hold-event", visit.HoldHappened{Hold: w.hold, AtMS: at, Event: "score", Value: json.RawMessage(n)})
}

// send sends a batch and says that all of it was stored.
func (w *writer) send(events ...visit.Event) {
	w.c.t.Helper()
	raw, err := json.Marshal(api.EventBatch{SentMS: time.Now().UnixMilli(), Since: w.version, Events: events})
	require.NoError(w.c.t, err)
	// Not by the caller of other tests, which holds each answer against the API's description.
	to := w.c.base + "/api/visits/" + w.visit.String() + "/events"
	res, err := w.c.http.Post(to, "application/json", bytes.NewReader(raw))
	require.NoError(w.c.t, err)
	defer res.Body.Close()
	require.Equal(w.c.t, http.StatusOK, res.StatusCode)
	var got api.EventAnswer
	require.NoError(w.c.t, json.NewDecoder(res.Body).Decode(&got))
	for _, r := range got.Receipts {
		require.Equal(w.c.t, "stored", r.Result, r.Reason)
	}
	w.version = got.Version
}

// TestBenchWriting sets an event of a long visit beside one of its first minute, and writers beside
// pgbench with their own inserts.
func TestBenchWriting(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" {
		t.Skip("make bench runs it")
	}
	c := newLongCare(t)
	early, late := c.newWriter(), c.newWriter()
	for at := int64(1000); late.seq < 2000; {
		var batch []visit.Event
		for range 200 {
			at++
			batch = append(batch, late.word(at))
		}
		late.send(batch...)
	}
	c.analyze()
	const rounds = 100
	var first, thousandth []float64
	for i := range int64(rounds) {
		for _, x := range []struct {
			w  *writer
			ms *[]float64
		}{{early, &first}, {late, &thousandth}} {
			began := time.Now()
			x.w.send(x.w.word(10_000 + i))
			*x.ms = append(*x.ms, time.Since(began).Seconds()*1000)
		}
	}
	a, b := middle(first), middle(thousandth)
	fmt.Printf("an event of the first minute %.1f ms, after 2,000: %.1f ms, ratio %.2f (limit 1.5)\n", a, b, b/a)
	for _, writers := range []int{1, 8, 32} {
		c.besideInserts(writers)
	}
}

func middle(v []float64) float64 {
	slices.Sort(v)
	return v[len(v)/2]
}

// besideInserts has so many writers write and pgbench send the same inserts, by turns, because a disk is
// not as fast at one moment as at another; and then writes at half of that load, to see the slowest.
func (c *longCare) besideInserts(n int) {
	const rounds, turn = 3, 2 * time.Second
	writers := make([]*writer, n)
	for i := range writers {
		writers[i] = c.newWriter()
	}
	scripts := c.insertScripts(n)
	c.analyze()
	var perSecond, inserts float64
	for range rounds {
		perSecond += float64(len(c.write(writers, turn, 0))) / turn.Seconds() / rounds
		inserts += c.pgbenchInserts(scripts, turn) / rounds
	}
	half := c.write(writers, turn, time.Duration(float64(n)/perSecond*2*float64(time.Second)))
	slices.Sort(half)
	fmt.Printf("%d writers: %.0f events a second, pgbench with the same inserts %.0f, ratio %.2f (limit at least "+
		"0.4); p99 at half of it %.0f ms (limit 50)\n", n, perSecond, inserts, perSecond/inserts,
		half[len(half)*99/100])
}

// write lets writers write side by side, each an event in every pace, and gives how long each took.
func (c *longCare) write(writers []*writer, lasts, pace time.Duration) (ms []float64) {
	var mu sync.Mutex
	var all sync.WaitGroup
	end := time.Now().Add(lasts)
	for i, w := range writers {
		all.Go(func() {
			// Those who write at a pace do not write all at once.
			next := time.Now().Add(pace * time.Duration(i) / time.Duration(len(writers)))
			time.Sleep(time.Until(next))
			for time.Now().Before(end) {
				began := time.Now()
				w.send(w.word(time.Since(w.began).Milliseconds()))
				took := time.Since(began).Seconds() * 1000
				mu.Lock()
				ms = append(ms, took)
				mu.Unlock()
				if next = next.Add(pace); pace > 0 {
					time.Sleep(time.Until(next))
				}
			}
		})
	}
	all.Wait()
	return ms
}

// insertScripts are the inserts of an event for pgbench, each in a visit of its own: the statements that
// write, as the program sends them, and nothing that it reads.
func (c *longCare) insertScripts(clients int) []string {
	c.t.Helper()
	scripts := make([]string, clients)
	for i := range scripts {
		w := c.newWriter()
		w.send(w.word(2000))
		c.sent.kept = nil
		c.sent.keep.Store(true)
		w.send(w.word(3000))
		c.sent.keep.Store(false)
		scripts[i] = filepath.Join(c.t.TempDir(), "insert.sql")
		require.NoError(c.t, os.WriteFile(scripts[i], []byte(c.insertScript()), 0o600))
	}
	return scripts
}

// pgbenchInserts is how often in a second pgbench runs scripts, all side by side.
func (c *longCare) pgbenchInserts(scripts []string, lasts time.Duration) (perSecond float64) {
	c.t.Helper()
	var mu sync.Mutex
	var all sync.WaitGroup
	for _, script := range scripts {
		all.Go(func() {
			out, err := exec.Command("pgbench", "--no-vacuum", "--time", strconv.Itoa(int(lasts.Seconds())),
				"--file", script, storetest.URL()).CombinedOutput()
			tps := regexp.MustCompile(`tps = ([\d.]+)`).FindSubmatch(out)
			mu.Lock()
			defer mu.Unlock()
			if !assert.NoError(c.t, err, string(out)) || !assert.Len(c.t, tps, 2, string(out)) {
				return
			}
			one, err := strconv.ParseFloat(string(tps[1]), 64)
			assert.NoError(c.t, err)
			perSecond += one
		})
	}
	all.Wait()
	return perSecond
}

// What is another with each insert: the id of an event, its version and its number on the device.
var (
	eventID   = regexp.MustCompile(`("id": ?")[0-9a-f-]{36}`)
	eventNext = regexp.MustCompile(`("(?:version|seq)": ?)\d+`)
	eventJSON = regexp.MustCompile(`null::visit_event, ('[^\n]*')\)`)
)

// insertScript is what was kept of what writes, with another event each time.
func (c *longCare) insertScript() string {
	c.sent.kept = slices.DeleteFunc(c.sent.kept, func(q pgx.TraceQueryStartData) bool {
		sql := strings.TrimSpace(q.SQL)
		return !strings.HasPrefix(sql, "insert") && !strings.HasPrefix(sql, "update") &&
			!strings.Contains(sql, "delete from") && !strings.Contains(sql, "set_config('mokren.practice'")
	})
	script := eventJSON.ReplaceAllStringFunc(c.script(), func(s string) string {
		s = eventID.ReplaceAllString(s, "$1' || gen_random_uuid() || '")
		s = eventNext.ReplaceAllString(s, "$1' || :v || '")
		return eventJSON.ReplaceAllString(s, "null::visit_event, ($1)::jsonb)")
	})
	return "\\set v random(100000, 2000000000)\nbegin;\n" + script + "commit;\n"
}

// allAnsweredNo is a screening with nothing in it.
func allAnsweredNo() (asked visit.ScreeningAnswered) {
	for _, q := range safety.Questions() {
		asked.Answers = append(asked.Answers, visit.ScreenedAnswer{Question: q.ID, Answer: "no"})
	}
	return asked
}
