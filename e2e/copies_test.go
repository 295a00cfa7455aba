package e2e

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/visit"
	"mokren/demo"
	"mokren/demo/crowd"
)

// recorder is a device that records visit after visit, over whichever copy answers. It
// remembers what was acknowledged.
type recorder struct {
	http    *http.Client
	bases   []string
	author  uuid.UUID
	client  string // the one who is treated; clients are all
	clients []string
	// ahead is how wrong its clock is.
	ahead time.Duration
	acked map[string]visit.Event
	sent  int
	// refused counts what did not go through at once.
	refused *atomic.Int64
}

// send tries until a batch has its receipts: at one copy, then at the other.
func (r *recorder) send(batch []visit.Event, deadline time.Time) error {
	list := make([]map[string]any, len(batch))
	for i, e := range batch {
		raw, err := json.Marshal(e)
		if err != nil {
			return err
		}
		if err := json.Unmarshal(raw, &list[i]); err != nil {
			return err
		}
		delete(list[i], "version")
	}
	for try := r.sent; ; try++ {
		w := &writer{http: r.http, base: r.bases[try%len(r.bases)], visit: batch[0].Visit, got: map[string]string{}}
		w.ahead = r.ahead
		err := w.send(list)
		if err == nil && len(w.got) == len(batch) {
			r.sent++
			return r.take(batch, w.got)
		}
		if r.refused != nil {
			r.refused.Add(1)
		}
		if time.Now().After(deadline) {
			return fmt.Errorf("not taken in time: %w", err)
		}
		time.Sleep(20 * time.Millisecond)
	}
}

func (r *recorder) take(batch []visit.Event, got map[string]string) error {
	for _, e := range batch {
		if !strings.HasPrefix(got[e.ID], "stored") {
			return fmt.Errorf("%s %s: %s", e.Type, e.ID, got[e.ID])
		}
		r.acked[e.ID] = e
	}
	return nil
}

// put writes until a copy takes it.
func (r *recorder) put(path string, body map[string]any, deadline time.Time) error {
	for try := 0; ; try++ {
		err := putOnce(r.http, r.bases[try%len(r.bases)]+path, body)
		if err == nil || time.Now().After(deadline) {
			return err
		}
		time.Sleep(20 * time.Millisecond)
	}
}

// register makes the client who is treated next: twice a day at one place is enough.
func (r *recorder) register(deadline time.Time) error {
	r.client = uuid.NewString()
	r.clients = append(r.clients, r.client)
	return r.put("/api/clients/"+r.client, map[string]any{
		"id": r.client, "given_name": "Copied", "family_name": "Client " + r.client[:6], "revision": 0,
	}, deadline)
}

// visit records one of four holds in batches of three; now and then an old batch is sent
// again after a newer one.
func (r *recorder) visit(k int, deadline time.Time) error {
	of := crowd.Of{
		Visit: uuid.New(), Client: uuid.MustParse(r.client), Author: r.author,
		At: time.Now().Add(r.ahead - time.Hour),
	}
	body := map[string]any{
		"id": of.Visit, "client": r.client, "starts_at": time.Now().Add(-time.Hour).Format(time.RFC3339Nano),
	}
	if err := r.put("/api/visits/"+of.Visit.String(), body, deadline); err != nil {
		return err
	}
	events, err := crowd.Log(of, k, 4, map[ids.Muscle]visit.UUID{})
	if err != nil {
		return err
	}
	var before []visit.Event
	for batch := range slices.Chunk(events, 3) {
		if err := r.send(batch, deadline); err != nil {
			return err
		}
		if before != nil && r.sent%4 == 0 {
			if err := r.send(before, deadline); err != nil {
				return err
			}
		}
		before = batch
	}
	return nil
}

// record goes on from visit to visit until it has been long enough.
func (r *recorder) record(enough context.Context, t *testing.T, deadline time.Time) {
	for k := 0; enough.Err() == nil; k++ {
		if k%2 == 0 && !assert.NoError(t, r.register(deadline)) {
			return
		}
		if !assert.NoError(t, r.visit(0, deadline)) { // of a kind that asks everything
			return
		}
	}
}

func putOnce(c *http.Client, address string, body map[string]any) error {
	raw, err := json.Marshal(body)
	if err != nil {
		return err
	}
	req, err := http.NewRequest(http.MethodPut, address, strings.NewReader(string(raw)))
	if err != nil {
		return err
	}
	req.Header.Set("Content-Type", "application/json")
	res, err := c.Do(req)
	if err != nil {
		return err
	}
	defer res.Body.Close()
	if res.StatusCode != http.StatusOK {
		return fmt.Errorf("status %d", res.StatusCode)
	}
	return nil
}

// Thirty-two clients are treated over two copies of the program, by devices whose
// clocks are hours off, while one copy is killed three times and PostgreSQL once: what
// was acknowledged is in the record once, as it was sent, and every hold counts.
func TestHoldsOverTwoCopiesUnderKills(t *testing.T) {
	t.Parallel()
	d := mortalDatabase(t)
	size := crowd.Size{Clients: 1, Visits: 1}
	made, err := crowd.Fill(t.Context(), d.asApp(t), d.on.AdminURL(d.name), size, time.Now())
	require.NoError(t, err)
	// Before an upgrade: the version that runs until then, beside this one.
	first, second := serving(t, d, cmp.Or(os.Getenv("MOKREN_OTHER_BIN"), released)), serving(t, d, released)
	bases := []string{"http://" + first.addr, "http://" + second.addr}
	c := session(t, bases[0], demo.Login{Email: made.Email, Password: made.Password})
	for _, base := range bases[1:] { // the same session is good for both
		res, err := c.Get(base + "/api/session")
		require.NoError(t, err)
		res.Body.Close()
		require.Equal(t, http.StatusOK, res.StatusCode)
	}
	lasts := 8 * time.Second
	if os.Getenv("MOKREN_LONG") != "" {
		lasts = time.Minute
	}
	ctx, cancel := context.WithTimeout(t.Context(), lasts)
	defer cancel()
	deadline := time.Now().Add(lasts + 90*time.Second)
	var recorders []*recorder
	var wg sync.WaitGroup
	for i := range 32 {
		r := &recorder{
			http: c, bases: bases, author: made.Who.Person,
			acked: map[string]visit.Event{}, sent: i,
			ahead: time.Duration(i-16) * 20 * time.Minute,
		}
		recorders = append(recorders, r)
		wg.Go(func() { r.record(ctx, t, deadline) })
	}
	for k := range 4 {
		time.Sleep(lasts / 6)
		if k == 2 {
			require.NoError(t, d.on.Kill())
			continue
		}
		first.kill()
		first.start()
	}
	wg.Wait()
	same(t, d.on.AdminURL(d.name), recorders)
}

// same sets what devices remember beside what the record has.
func same(t *testing.T, database string, recorders []*recorder) {
	t.Helper()
	record, err := sqlx.Open("pgx", database)
	require.NoError(t, err)
	defer record.Close()
	events, holds := 0, 0
	for _, r := range recorders {
		var rows []struct {
			ID      string `db:"id"`
			Type    string `db:"type"`
			Body    []byte `db:"body"`
			Verdict string `db:"verdict"`
			Why     string `db:"why"`
		}
		require.NoError(t, record.Select(&rows, `select id, type, body, verdict, why from visit_event where client_id = any ($1)`,
			r.clients))
		require.Equal(t, len(r.acked), len(rows), "rows of the record")
		for _, row := range rows {
			sent, ok := r.acked[row.ID]
			require.True(t, ok, "nobody sent %s", row.ID)
			assert.JSONEq(t, string(sent.Body), string(row.Body))
			assert.Equal(t, "accepted", row.Verdict, "%s: %s", row.Type, row.Why)
			if row.Type == "hold-ended" {
				holds++
			}
		}
		events += len(rows)
	}
	var kept int
	require.NoError(t, record.Get(&kept, `select count(*) from hold h join client c on c.id = h.client_id
		where c.given_name = 'Copied' and h.status = 'kept'`))
	assert.Equal(t, holds, kept, "every hold that ended counts")
	assert.Greater(t, holds, len(recorders), "and there were many")
	t.Logf("%d events of %d holds, each there once", events, holds)
}
