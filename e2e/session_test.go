package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/atlas"
	"mokren/demo"
	"mokren/devices/clientpad"
)

// beginAt begins a hold at a point by a protocol, everything else as suggested.
func beginAt(p *page, at spot, protocol string) {
	p.t.Helper()
	m, err := atlas.Get(at.muscle)
	require.NoError(p.t, err)
	card := fmt.Sprintf(`//section[@data-point-id][.//h2[contains(., %q) and contains(., %q)]]`, m.Name, at.side)
	begin := card + `//button[text()="Begin the hold"]`
	// Who comes back from a hold without a network gets the visit as it is kept; the step is drawn when
	// the core has said what may begin.
	p.MustElementX(begin)
	p.answered()
	field := p.MustElementX(card + `//button[contains(@class, "field")]`)
	if !strings.HasPrefix(field.MustText(), protocol) {
		field.MustClick()
		p.tap(p.MustElementX(`//*[@role="option"][starts-with(., "` + protocol + `")]`))
		p.MustWait(`() => !document.querySelector('[role="listbox"]')`)
		p.answered()
	}
	p.tap(p.MustElementX(begin).MustWaitVisible())
	phase(p, "ready")
}

// A session of four points by four protocols: with the client's pad, with the
// pressure pad, broken off by a nerve sign, and one that does not let go and is
// traced back; the network is gone for its second half, the page is read anew in
// the middle of a hold, and at the end a bookmark opens without a server. All of
// it is stored once, and what the server replays is what the browser had said.
func TestASessionOfFourProtocols(t *testing.T) {
	t.Parallel()
	s := startStepped(t)
	w := newWire(t, s.addr)
	p := installed(t, w.l.Addr().String(), demo.Logins[0])
	p.inRealTime = true // as the pads are
	spots := []spot{calf, {"soleus", "left"}, {"gastrocnemius-medial", "right"}, {"soleus", "right"}}
	opened(p, "Session", "Plan", spots...)
	p.click("[data-plan] button", "Use this plan")
	p.MustElement("[data-accepted=true]")
	p.click("[data-plan] button", "Begin pressing")

	beginAt(p, spots[0], "Pulses")
	pad := clientpad.New("http://"+s.addr, paired(p))
	go pad.Run(t.Context())
	p.press(input.Space)
	phase(p, "rest")
	pad.Say(3)
	hold(p, `[data-phase=press][data-rep="2"][data-advice~="sink-slightly"]`)
	p.press(input.KeyR)
	until(p, "flush")
	p.click("button", "Back to the visit")

	beginAt(p, spots[1], "Short repeats")
	p.click("button", "^Pressure pad$")
	phase(p, "rest")
	p.press(input.Digit4)
	hold(p, `[data-phase=press][data-rep="2"]`)
	p.press(input.KeyR)
	until(p, "flush")
	p.sent()
	p.MustWait(`() => !!navigator.serviceWorker.controller`) // else a reload without the network shows nothing
	w.Cut(true)
	p.click("button", "Back to the visit")

	p.inRealTime = false
	beginAt(p, spots[2], "Graded stages")
	p.press(input.Space)
	until(p, "settle-in")
	p.press(input.Digit5)
	phase(p, "stage")
	p.press(input.KeyN)
	phase(p, "moved-off")
	p.press(input.Space)
	phase(p, "settle")
	p.MustReload()
	phase(p, "settle")
	p.press(input.KeyR)
	until(p, "flush")
	p.click("button", "Back to the visit")

	beginAt(p, spots[3], "Brief holds")
	p.press(input.Space)
	for range 3 {
		p.press(input.Digit6)
	}
	until(p, "release-slowly")
	p.press(input.KeyR)
	until(p, "return-lighter")
	p.press(input.Space)
	p.press(input.Digit4)
	phase(p, "stage")
	until(p, "release-slowly")
	p.press(input.KeyR)
	until(p, "trace-back")
	bookmark := p.MustInfo().URL
	s.kill()
	p.MustNavigate("about:blank")
	p.MustNavigate(strings.Split(bookmark, "/hold/")[0] + "?step=press")
	p.see("p", "brief holds")
	s.start()
	w.Cut(false)
	p.sent()
	sessionIsWhole(t, visitOf(p))
}

// sessionIsWhole: four holds, each event once, and no result that differs from
// what the device had claimed.
func sessionIsWhole(t *testing.T, visit string) {
	t.Helper()
	var stored struct {
		Holds     int    `db:"holds"`
		Protocols string `db:"protocols"`
		Events    int    `db:"events"`
		Distinct  int    `db:"different"`
		Ended     int    `db:"ended"`
		Agreed    int    `db:"agreed"`
	}
	require.NoError(t, db(t).Get(&stored, `select
		(select count(*) from hold where visit_id = $1 and status = 'kept') as holds,
		(select string_agg(distinct body->'start'->>'protocol', ' ' order by body->'start'->>'protocol')
			from visit_event where visit_id = $1 and type = 'hold-started') as protocols,
		(select count(*) from visit_event where visit_id = $1 and type like 'hold-%') as events,
		(select count(distinct (device_id, seq)) from visit_event where visit_id = $1 and type like 'hold-%') as different,
		(select count(*) from visit_event where visit_id = $1 and type = 'hold-ended') as ended,
		(select count(*) from visit_event where visit_id = $1 and type = 'hold-ended'
			and body->>'outcome' = result->>'outcome'
			and (body->>'parts')::int = jsonb_array_length(result->'parts')) as agreed`, visit))
	assert.Equal(t, 4, stored.Holds)
	assert.Equal(t, "brief-holds graded-stages pulses short-repeats", stored.Protocols)
	assert.Equal(t, stored.Events, stored.Distinct, "nothing is stored twice")
	assert.Equal(t, 4, stored.Ended)
	assert.Equal(t, 4, stored.Agreed, "the server's replay comes to what the browser had said")
}

// A hold is begun by the protocol that was chosen a moment before, also when the screen has not heard of
// it yet.
func TestAHoldBeginsByWhatWasJustChosen(t *testing.T) {
	t.Parallel()
	p := pressing(t, startStepped(t), "Just chosen")
	for _, label := range []string{"Contact", "Client is"} {
		p.tap(p.MustElementX(`(//*[@data-choices]//*[@role="radiogroup"][@aria-label="` + label + `"]//button)[1]`))
	}
	p.tap(p.MustElementX(`//*[@data-point-id]//button[contains(@class, "field")]`))
	p.see("[role=option]", "^Brief holds")
	p.MustEval(`() => {
		const named = (list, name) => [...document.querySelectorAll(list)].find((e) => e.textContent.startsWith(name));
		const begin = named("[data-point-id] button", "Begin the hold");
		named("[role=option]", "Brief holds").click();
		begin.click();
	}`)
	phase(p, "ready")
	p.see("main", "Brief holds · target")
}
