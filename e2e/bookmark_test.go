package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// storesNothing has the browser's database refuse what waits to be sent.
const storesNothing = `() => {
	const put = IDBObjectStore.prototype.put;
	IDBObjectStore.prototype.put = function (...of) {
		if (this.name === "outbox") throw new DOMException("full", "QuotaExceededError");
		return put.apply(this, of);
	};
}`

// A bookmark opens without the server: the shell and the core come from the
// device, the visit from its sealed copy; a hold is run from contact to release,
// and all of it is in the record when the server is back.
func TestABookmarkOpensWithTheServerGone(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := installed(t, s.addr, demo.Logins[0])
	opened(p, "Bookmark", "Press", calf)
	p.sent()
	p.MustWait(`() => !!navigator.serviceWorker.controller`)
	p.MustEval(`async () => { await navigator.serviceWorker.ready }`)
	bookmark := p.MustInfo().URL
	s.kill()

	p.MustNavigate("about:blank")
	p.MustNavigate(bookmark)
	_, err := p.ElementR("h2", "Gastrocnemius, medial head, left")
	require.NoError(t, err, "the bookmark opens: %.300s", p.text())
	beginHold(p)
	phase(p, "ready")
	p.press(input.Space)
	until(p, "settle-in")
	p.MustEval(storesNothing)
	p.press(input.Digit6)
	phase(p, "stage")
	p.MustReload() // in the middle of the hold, before the database has the number
	phase(p, "stage")
	p.press(input.Space)
	until(p, "flush")
	p.click("button", "Back to the visit")
	p.see("p", "graded stages")

	s.start()
	p.sent()
	var events int
	require.NoError(t, db(t).Get(&events, `select count(*) from visit_event where type like 'hold-%'
		and visit_id = $1`, visitOf(p)))
	require.Equal(t, 5, events, "begun, contact, number, release, ended: each once")
}
