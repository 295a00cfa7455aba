package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// A student's hold names who countersigns it, and that person does; the front
// desk sees contacts only.
func TestRolesOnScreen(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := signedIn(t, s.addr, demo.Logins[2])
	client := opened(p, t.Name(), "Press", calf)
	address := p.MustInfo().URL
	p.see("[role=status]", "who countersigns")
	p.tap(p.MustElementX(`//*[@aria-label="Countersigned by"]//button[text()="Tomas Vey"]`))
	beginHold(p)
	phase(p, "ready")
	p.press(input.Space)
	p.press(input.Escape)
	p.click("button", "Back to the visit")
	p.see("[data-remark]", "Not countersigned yet")
	assert.False(t, p.MustHasR("button", "Countersign this hold"), "nobody signs for themselves")
	stepTo(p, "Close")
	p.click("button", "Close the visit")
	p.click("button", "Sign as Lio Marek")
	p.see("[data-note=signed] b", "Signed by Lio Marek")
	p.see("[data-note=signed] b", "waits for a countersignature")
	assert.False(t, p.MustHasR("button", "Countersign as"), "nor a note")
	p.sent()

	v := signedIn(t, s.addr, demo.Logins[1])
	v.MustNavigate(address)
	stepTo(v, "Press")
	v.click("button", "Countersign this hold")
	v.MustWait(`() => !document.querySelector("[data-remark]")`)
	v.sent()
	var by string
	require.NoError(t, db(t).Get(&by, `select p.name from visit_event e join person p on p.id = e.author_id
		where e.client_id = $1 and e.type = 'hold-countersigned' and e.verdict = 'accepted'`, client))
	assert.Equal(t, "Tomas Vey", by)
	v.MustNavigate(v.base + "/overview")
	v.tap(v.MustElementX(`//*[@data-unsigned]//li[contains(., "to countersign")]//a[contains(., "` + t.Name() + `")]`))
	v.click("button", "Countersign as Tomas Vey")
	v.see("[data-note=signed] b", "countersigned by Tomas Vey")
	v.sent()
	v.MustNavigate(v.base + "/overview")
	v.see("h1", "To do")
	assert.NotContains(t, v.MustElement("[data-unsigned]").MustText(), t.Name(), "it waits no more")

	d := signedIn(t, s.addr, demo.Logins[3])
	d.MustNavigate(d.base + "/")
	d.see("span.who", "Marta Olsen-Brandt")
	assert.False(t, d.MustHasR("a", "Start|Continue|View|Atlas"))
	d.click("a", "^Clients$")
	d.click("td button", "Marta Olsen-Brandt")
	d.see("h2", "Marta Olsen-Brandt")
	assert.False(t, d.MustHasR("label", "Complaint"))
	d.MustNavigate(address)
	d.see("[role=alert]", "Your role does not allow this")
}

// After "unwell" the site is closed, and the screening is asked again: the same
// answers can be given anew, and another place may then be pressed.
func TestAfterUnwellTheScreeningIsAskedAgain(t *testing.T) {
	t.Parallel() // most of it is waiting
	p := inesAt(t, "/")
	opened(p, t.Name(), "Press", calf)
	beginHold(p)
	phase(p, "ready")
	p.press(input.Space, input.KeyU)
	p.click("button", "Back to the visit")
	p.see("b", "Closed for today")
	p.see("[role=alert]", "ask the screening again")
	stepTo(p, "Screen")
	p.see("h2", "questions to ask")
	screened(p)
	p.MustWait(`() => !document.body.innerText.includes("ask the screening again")`)
	stepTo(p, "Press")
	p.see("b", "Closed for today")
}

// What the record refuses is shown with its reason, holds up nothing, and is let
// go by hand.
func TestARefusedEntryIsShownWithItsReason(t *testing.T) {
	t.Parallel() // most of it is waiting
	p, client := visiting(t, t.Name())
	p.sent()
	p.MustEval(`async (client) => {
		const me = await (await fetch("/api/session")).json();
		const visit = location.pathname.split("/")[2];
		const event = { id: crypto.randomUUID(), client, visit, author: me.id, device: crypto.randomUUID(), seq: 1,
			device_ms: Date.now(), seen: -1, schema: 1, type: "note-written", body: { text: "x" } };
		await new Promise((done) => { const r = indexedDB.open("mokren"); r.onsuccess = () => {
			const t = r.result.transaction("outbox", "readwrite");
			t.objectStore("outbox").put({ id: event.id, visit, author: me.id, event });
			t.oncomplete = () => { r.result.close(); done(); }; }; });
	}`, client)
	p.MustReload()
	p.see("[role=status]", "1 refused")
	stepTo(p, "Close")
	p.MustElement("textarea").MustInput("Goes in all the same").MustBlur()
	p.sent()
	p.click("button", "^Why$")
	p.see("[role=dialog] li", `note written: \$\.seen`)
	p.click("button", "^Discard$")
	p.MustWait(`() => !document.body.innerText.includes("refused")`)
	var n int
	require.NoError(t, db(t).Get(&n, `select count(*) from visit_event where client_id = $1
		and type = 'note-written'`, client))
	assert.Equal(t, 1, n)
}

// A hold that would be set aside does not begin: the reason is shown where one
// chooses, and another choice lets it begin.
func TestAHoldThatWouldBeSetAsideDoesNotBegin(t *testing.T) {
	t.Parallel() // most of it is waiting
	p := inesAt(t, "/")
	opened(p, t.Name(), "Screen", calf)
	p.tap(p.MustElementX(`//*[@data-group="adapt"]//button[@aria-expanded="false"]`))
	p.tap(p.MustElementX(`//*[@data-question="anticoagulant"]//button[text()="yes"]`))
	p.see("[data-outcome]", "slack or broad")
	stepTo(p, "Press")
	p.MustElementX(`//*[@aria-label="Muscle on"]//button[text()="slack"][@aria-checked="true"]`) // as offered
	p.tap(p.MustElementX(`//*[@aria-label="Muscle on"]//button[text()="stretch"]`))
	beginHold(p)
	p.see("[role=alert]", "Only with the muscle in slack or with a broad contact")
	p.tap(p.MustElementX(`//*[@aria-label="Muscle on"]//button[text()="slack"]`))
	p.click("button", "Begin the hold")
	phase(p, "ready")
}
