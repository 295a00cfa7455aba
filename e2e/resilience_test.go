package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// holdTo opens a client's visit, charts a point on the calf and holds until
// the first number is in; what comes next is up to the test.
func holdTo(p *page) (client string) {
	p.t.Helper()
	client = opened(p, p.t.Name(), "Press", calf)
	beginHold(p)
	phase(p, "ready")
	p.press(input.Space)
	until(p, "settle-in")
	p.press(input.Digit6)
	phase(p, "stage")
	p.sent()
	return client
}

// finish ends the hold after a calm number and goes back to the visit.
func finish(p *page) {
	p.t.Helper()
	pressed(p, 6)
	p.press(input.Digit2)
	until(p, "release-slowly")
	p.press(input.Space)
	until(p, "flush")
}

type storedHold struct {
	N        int    `db:"n"`
	Events   int    `db:"events"`
	Distinct int    `db:"distinct_events"`
	Outcome  string `db:"outcome"`
	Status   string `db:"status"`
}

func stored(t *testing.T, client string) storedHold {
	t.Helper()
	var h storedHold
	require.NoError(t, db(t).Get(&h, `select count(*) as n, min(h.outcome) as outcome, min(h.status) as status,
		(select count(*) from visit_event e
			where e.visit_id = min(h.visit_id::text)::uuid and e.type like 'hold-%') as events,
		(select count(distinct (e.body->>'at_ms', e.body->>'event', e.type)) from visit_event e
			where e.visit_id = min(h.visit_id::text)::uuid and e.type like 'hold-%') as distinct_events
		from hold h join visit v on v.id = h.visit_id where v.client_id = $1 and v.starts_at > now() - interval '1 day'`, client))
	return h
}

// wantWhole: started, contact, 6, 2, release, ended: six events, each once.
func wantWhole(t *testing.T, h storedHold) {
	t.Helper()
	assert.Equal(t, 1, h.N, "the hold is stored once")
	assert.Equal(t, 6, h.Events, "the log is complete")
	assert.Equal(t, h.Events, h.Distinct, "nothing is stored twice")
	assert.Equal(t, "released", h.Outcome)
	assert.Equal(t, "kept", h.Status, "the server's replay agrees")
}

func TestNetworkCutInTheMiddleOfAHold(t *testing.T) {
	t.Parallel() // most of it is waiting
	s := startServer(t)
	w := newWire(t, s.addr)
	p := signedIn(t, w.l.Addr().String(), demo.Logins[0])
	client := holdTo(p)
	w.Cut(true)
	finish(p)
	p.see("[role=status]", "Offline")
	p.click("button", "Back to the visit")
	p.see("p", "Released")
	assert.Equal(t, "unchanged", stored(t, client).Outcome, "the server cannot know yet")
	kept := p.MustEval(`async () => {
		const done = (r) => new Promise((ok, no) => { r.onsuccess = () => ok(r.result); r.onerror = no; });
		const db = await done(indexedDB.open("mokren"));
		const rows = await done(db.transaction("outbox").objectStore("outbox").getAll());
		db.close();
		return JSON.stringify([rows, { ...localStorage }]);
	}`).Str()
	assert.Contains(t, kept, `"sealed"`, "what waits is there")
	for _, written := range []string{`at_ms`, `"hold-event"}`, `type\":\"hold-event`, `"type":"hold-event"`} {
		assert.NotContains(t, kept, written, "and of no use to whoever reads the device")
	}
	w.Cut(false)
	p.sent()
	wantWhole(t, stored(t, client))
}

func TestServerKilledInTheMiddleOfAHold(t *testing.T) {
	t.Parallel() // most of it is waiting
	s := startServer(t)
	p := signedIn(t, s.addr, demo.Logins[0])
	client := holdTo(p)
	s.kill()
	finish(p)
	p.see("[role=status]", "Offline")
	s.start()
	p.click("button", "Back to the visit")
	p.see("p", "Released")
	p.sent()
	wantWhole(t, stored(t, client))
}

func TestPostgreSQLRestartedUnderTheApp(t *testing.T) {
	t.Parallel()
	s := serving(t, mortalDatabase(t), released)
	p := signedIn(t, s.addr, demo.Logins[0])
	client := holdTo(p)
	require.NoError(t, s.on.Kill())
	finish(p)
	require.NoError(t, s.on.Kill()) // and once more: the page of the visit is asked for in the outage
	p.click("button", "Back to the visit")
	p.see("p", "Released")
	p.sent()
	wantWhole(t, stored(t, client))
	p.MustNavigate(p.base + "/")
	p.see("a", "Marta Olsen-Brandt")
}

// A tablet that dies in a hold: the page is loaded anew and the hold is there,
// to be gone on with.
func TestReloadInTheMiddleOfAHold(t *testing.T) {
	t.Parallel() // most of it is waiting
	s := startServer(t)
	p := signedIn(t, s.addr, demo.Logins[0])
	client := holdTo(p)
	p.MustReload()
	p.MustElement(`main[data-stage="1"]`)
	finish(p)
	p.click("button", "Back to the visit")
	p.see("p", "Released")
	p.sent()
	wantWhole(t, stored(t, client))
}
