package e2e

import (
	"strings"
	"sync"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"

	"mokren/demo"
)

// trialIDs is what the ids of the trial visit, of its client and its supervisor begin with.
const trialIDs = "00000000-0000-7000-8000-00000000a0"

// kept gives all that the page has stored: local storage and every row of every database.
const kept = `async () => {
	const rows = [JSON.stringify({...localStorage}), JSON.stringify({...sessionStorage})]
	for (const { name } of await indexedDB.databases()) {
		const db = await new Promise((done) => { const r = indexedDB.open(name); r.onsuccess = () => done(r.result) })
		for (const s of db.objectStoreNames) {
			const all = db.transaction(s).objectStore(s)
			for (const get of ["getAll", "getAllKeys"])
				rows.push(JSON.stringify(await new Promise((done) => { const r = all[get](); r.onsuccess = () => done(r.result) })))
		}
		db.close()
	}
	return rows.join("\n")
}`

// Who is new is offered a visit with an invented client: it runs to its end, and nothing of it
// is stored or sent.
func TestTheTrialVisitStaysInThePage(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startStepped(t).addr, demo.Logins[2])
	var mu sync.Mutex
	var sent []string
	go p.EachEvent(func(e *proto.NetworkRequestWillBeSent) {
		mu.Lock()
		defer mu.Unlock()
		sent = append(sent, e.Request.Method+" "+e.Request.URL+" "+e.Request.PostData)
	}, func(e *proto.NetworkWebSocketCreated) {
		mu.Lock()
		defer mu.Unlock()
		sent = append(sent, "WS "+e.URL)
	})()
	p.MustNavigate(p.base + "/")
	p.see("section, div", "Try a visit with an invented client")
	p.click("button", "Start a trial visit")
	p.see("[aria-label='Trial visit'] b", "Trial visit")
	screened(p)
	stepTo(p, "Find")
	p.click("button", "^right$")
	p.pick("Name", "Upper trapezius")
	p.click("[data-sought=upper-trapezius] [data-site]", ".")
	chart(p, 6, "yes")
	p.MustElement("[data-points]")
	stepTo(p, "Press")
	p.tap(p.MustElementX(`//*[@aria-label="Countersigned by"]//button`))
	beginHold(p)
	phase(p, "ready")
	p.press(input.Space)
	until(p, "settle-in")
	p.press(input.Digit6)
	phase(p, "stage")
	pressed(p, 6)
	p.press(input.Digit2)
	until(p, "release-slowly")
	p.press(input.Space)
	until(p, "done")
	p.click("button", "^Back to the visit$")
	stepTo(p, "Close")
	p.see("h2", "That was a visit")
	p.see("li", "Upper trapezius, right.*released")
	assert.NotContains(t, p.MustEval(kept).Str(), trialIDs, "stored")
	p.click("button", "Leave the trial visit")
	p.see("h1", "December|.")
	assert.NotContains(t, p.text(), "Try a visit with an invented client", "it is offered once")

	mu.Lock()
	defer mu.Unlock()
	assert.Contains(t, strings.Join(sent, "\n"), "/api/session", "requests are seen")
	for _, s := range sent {
		if strings.Contains(s, "/api/") {
			assert.NotContains(t, s, trialIDs)
		}
		if m := strings.Fields(s)[0]; m != "GET" && m != "WS" {
			assert.Contains(t, s, "/api/me/introduced", "the one thing that is written")
		}
	}
}
