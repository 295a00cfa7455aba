package e2e

import (
	"encoding/json"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/treat"
	"mokren/demo"
)

// A hold is played in real time by the released program, and stepped from one due
// timer to the next by the test build (ui/src/testing/steppedClock.ts), whose page has
// mokrenClock. The helpers here do either, by what the page has.

// longestHold is more than any hold lasts, its flush included.
const longestHold = 5 * time.Minute

// until waits for the coach's advice.
func until(p *page, advice string) {
	p.t.Helper()
	hold(p, `[data-advice~="`+advice+`"]`)
}

// phase waits for a phase of the hold.
func phase(p *page, name string) {
	p.t.Helper()
	hold(p, `[data-phase="`+name+`"]`)
}

// hold waits until the hold's screen has some attributes.
func hold(p *page, attributes string) {
	p.t.Helper()
	shown := "main" + attributes
	if !p.inRealTime {
		p.MustEval(`(shown, most) => globalThis.mokrenClock?.until(shown, most)`, shown, longestHold.Milliseconds())
	}
	_, err := p.Element(shown)
	require.NoError(p.t, err, "the hold does not come to %s: %.300s", attributes, p.text())
}

// pressed waits until the hold on screen has counted so many more seconds of
// pressure.
func pressed(p *page, seconds int) {
	p.t.Helper()
	const now = `Number(document.querySelector('[aria-label="Pressure time"]').getAttribute("aria-valuenow"))`
	from := p.MustEval(`() => ` + now).Int()
	if !p.inRealTime {
		p.MustEval(`(ms) => globalThis.mokrenClock?.pass(ms)`, seconds*1000)
	}
	p.MustWait(`(s) => `+now+` >= s`, from+seconds)
}

// A ramp of more than a minute is played in steps: what the log has is what it would
// have in real time, and the server's own replay agrees with the page.
func TestASteppedHoldIsTheHoldOfItsSeconds(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startStepped(t).addr, demo.Logins[0])
	client := opened(p, "Stepped", "Press", calf)
	beginBy(p, "Slow ramp")
	phase(p, "ready")
	p.press(input.Space)
	until(p, "ask-score")
	p.press(input.Digit4)
	hold(p, `[data-phase="ramp"]:not([data-advice~="ask-score"])`)
	for range 8 {
		hold(p, `:is([data-advice~="ask-score"], [data-advice~="release-slowly"])`)
		if p.MustHas(`main[data-advice~="release-slowly"]`) {
			break
		}
		p.press(input.Digit4)
		hold(p, `:not([data-advice~="ask-score"])`)
	}
	until(p, "release-slowly")
	p.press(input.KeyR)
	until(p, "done")
	p.click("button", "Back to the visit")
	p.sent()

	var kept struct {
		Pressure int64  `db:"pressure_ms"`
		Status   string `db:"status"`
		Claimed  int64  `db:"claimed"`
		Clock    string `db:"clock"`
		Log      []byte `db:"log"`
	}
	require.NoError(t, db(t).Get(&kept, `select h.pressure_ms, h.status,
		(select (body->>'pressure_ms')::bigint from visit_event e where e.visit_id = h.visit_id and type = 'hold-ended') as claimed,
		(select string_agg(distinct clock, '') from visit_event e where e.visit_id = h.visit_id) as clock,
		(select jsonb_agg(body order by version) from visit_event e where e.visit_id = h.visit_id and type = 'hold-event') as log
		from hold h where h.client_id = $1`, client))
	assert.Equal(t, "kept", kept.Status)
	assert.Equal(t, kept.Claimed, kept.Pressure, "the server's replay comes to what the page had said")
	assert.Empty(t, kept.Clock, "nobody's clock was off")
	assert.GreaterOrEqual(t, kept.Pressure, int64(60_000), "a ramp lasts 60 s and more")
	// This protocol asks for a number 15 s after contact and after each answer.
	var log []struct {
		AtMS  int64      `json:"at_ms"`
		Event treat.Kind `json:"event"`
	}
	require.NoError(t, json.Unmarshal(kept.Log, &log))
	for i, e := range log {
		if e.Event == treat.KindScore { // the last answer before it, or contact
			assert.GreaterOrEqual(t, e.AtMS-log[i-1].AtMS, int64(15_000),
				"no number before it is asked for: %s", kept.Log)
		}
	}
}

// What is released has no clock that a page could drive.
func TestTheReleasedPageHasNoClockToDrive(t *testing.T) {
	t.Parallel()
	p := openPage(t, startServer(t).addr, "/")
	p.see("h1", "Mokren")
	assert.Equal(t, "undefined", p.MustEval(`() => typeof globalThis.mokrenClock`).Str())
	p.MustEval(`() => sessionStorage.setItem("mokren.stepped", "3600000")`)
	p.signIn(demo.Logins[0])
	ahead := p.MustEval(`async () => {
		const me = await (await fetch("/api/session", { headers: { "Mokren-Stepped": "3600000" } })).json();
		return me.now_ms - Date.now();
	}`).Num()
	assert.InDelta(t, 0, ahead, 60_000, "the released server does not heed the test build's header")
}
