package e2e

import (
	"encoding/json"
	"strconv"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// begunSequence begins a sequence from the plan of a charted calf.
func begunSequence(t *testing.T, family string) *page {
	t.Helper()
	p := signedIn(t, startStepped(t).addr, demo.Logins[0])
	opened(p, family, "Plan", calf)
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Part of the session"]//button[text()="Lengthening"]`))
	p.see(`[data-offer="calf-and-sole"] h3`, "for the points of this visit")
	p.click(`[data-offer="calf-and-sole"] button`, "^Begin$")
	p.MustElement(`main[data-run][data-at="0"]`)
	return p
}

// A sequence hands over by itself, is left and rejoined after a reload, and what was done on one
// side only is told of before closing.
func TestASequenceRunsByItself(t *testing.T) {
	t.Parallel()
	p := begunSequence(t, "Runs")
	p.press(input.Space)
	hold(p, `[data-at="1"]`)
	p.see(".side", "LEFT")
	p.see(".words h2", "Gliding strokes")
	hold(p, `[data-at="2"]`) // by itself, on the other side
	p.see(".side", "RIGHT")
	p.see(".next", "kneading")
	p.press(input.KeyJ)
	hold(p, `[data-at="3"]`)
	hold(p, `[data-at="4"]`)
	p.sent()
	p.MustReload()
	hold(p, `[data-at="4"]`)
	p.click("button", "Back to the visit")
	stepTo(p, "Close")
	p.see("[data-second-side]", "Kneading, upper calf, right")
	p.see("[data-note]", "2 of 18 steps")
	p.sent()
	var took []float64
	require.NoError(t, db(t).Select(&took, `select (body->>'seconds')::float8 from visit_event
		where visit_id = $1 and type = 'sequence-event' and body->>'event' = 'done' order by seq`, visitOf(p)))
	require.Len(t, took, 2)
	assert.InDelta(t, 30, took[0], 1)
	assert.InDelta(t, 45, took[1], 1)
}

// A practice copies a shipped sequence and changes it: what it keeps is offered in the plan, first
// for the points that lie there, and is run as it was changed.
func TestAPracticeHasItsOwnSequences(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startStepped(t).addr, demo.Logins[0])
	p.MustNavigate(p.base + "/sequences")
	p.click(`[data-sequence="Calf and sole"] button`, "Copy and change")
	p.MustElement("[data-editing] [data-step]")
	length := p.MustElement("[data-editing] [role=status]").MustText()
	steps := len(p.MustElements("[data-editing] [data-step]"))
	name := p.MustElementX(`//*[@data-editing]//input`)
	name.MustSelectAllText().MustInput("Calves " + t.Name())
	p.tap(p.MustElement(`[aria-label="Step 2 up"]`))
	p.see("[data-editing] [data-step]:first-child b", "^1. Kneading")
	p.tap(p.MustElement(`[data-editing] [data-step]:first-child [aria-label="More"]`))
	p.tap(p.MustElement(`[aria-label="Remove step 3"]`))
	p.MustWait(`(n) => document.querySelectorAll("[data-editing] [data-step]").length === n`, steps-1)
	p.MustWait(`(was) => document.querySelector("[data-editing] [role=status]").textContent !== was`, length)
	p.click("[data-editing] button", "^Save$")
	p.see("[data-own-sequences]", "Calves "+t.Name())

	opened(p, "Copied", "Plan", calf)
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Part of the session"]//button[text()="Lengthening"]`))
	p.see("[data-offer]:first-of-type h3, [data-offer] h3", "Calves")
	p.tap(p.MustElementX(`//*[@data-offer][contains(., "Calves ` + t.Name() + `")]//button[text()="Begin"]`))
	p.MustElement(`main[data-run][data-at="0"]`)
	p.press(input.Space)
	hold(p, `[data-at="1"]`)
	p.see(".words h2", "Kneading")
}

// A step that is a protocol is run by the hold screen at its charted point, and the sequence goes
// on behind it.
func TestAProtocolWithinASequenceIsAHold(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startStepped(t).addr, demo.Logins[0])
	opened(p, "Within", "Plan", spot{"semimembranosus", "left"})
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Part of the session"]//button[text()="Lengthening"]`))
	p.click(`[data-offer="hamstrings-and-adductors"] button`, "^Begin$")
	p.MustElement(`main[data-run][data-at="0"]`)
	p.press(input.Space)
	for range 40 {
		if p.MustHas(`main[data-phase]`) || p.MustHasR(".words h2", "^Contract") {
			break
		}
		p.MustEval(`() => globalThis.mokrenClock.pass(1200)`)
		p.press(input.Space)
		frames(p)
	}
	p.MustElement(`main[data-phase]`)
	p.see(".protocol", "[Cc]ontract")
	p.press(input.Escape)
	p.click("button", "Back to the visit|Back to the sequence")
	p.MustElement(`main[data-run]`)
	p.sent()
	var protocol string
	require.NoError(t, db(t).Get(&protocol, `select protocol from hold where visit_id = $1`, visitOf(p)))
	assert.Equal(t, "contract-relax", protocol)
}

// An unwell client stops it as it stops a hold; a point can be charted on the way.
func TestAnUnwellClientStopsTheSequence(t *testing.T) {
	t.Parallel()
	p := begunSequence(t, "Stops")
	p.press(input.Space)
	hold(p, `[data-at="1"]`)
	fits(p, "sequence")
	p.press(input.KeyP)
	p.see("h2", "Points of this visit")
	p.see("[data-left-sequence]", "Calf and sole was left at step 1 of 18")
	p.click("button", "Rejoin it")
	hold(p, `[data-at="1"]`)
	p.click("button", "^Unwell$")
	p.see("[role=alert] h2", "felt unwell")
	p.press(input.Space)
	p.see("[role=alert]", "Ask the screening again|felt unwell")
}

// From "Start session" the pedal alone leads through the warm-up into the first hold, and behind it
// to the recheck where no lengthening is for the place.
func TestASessionRunsByThePedal(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startStepped(t).addr, demo.Logins[0])
	opened(p, "Session", "Plan", spot{"infraspinatus", "left"})
	p.click("[data-plan] button", "Use this plan")
	p.click("[data-plan] button", "^Start session: shoulder girdle$")
	// From here on only the pedal.
	throughBlock(p)
	p.press(input.Space)
	hold(p, `[data-phase="ready"]`)
	p.press(input.Space)
	until(p, "settle-in")
	p.press(input.Space)
	until(p, "done")
	p.press(input.Space)
	p.see("h2", "Recheck")
	p.sent()
	var done int
	require.NoError(t, db(t).Get(&done, `select count(*) from visit_event where visit_id = $1
		and type = 'sequence-event' and body->>'event' = 'done'`, visitOf(p)))
	assert.Greater(t, done, 10, "the warm-up is in the record")
}

// A whole session of a returning client, from its start to the closing sheet, by the pedal and the
// client's pad. The screen is touched twice: to start the session, and for the score at the recheck.
func TestAWholeSessionByPedalAndPad(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := signedIn(t, s.addr, demo.Logins[0])
	opened(p, "Whole", "Plan", spot{"infraspinatus", "left"})
	p.click("[data-plan] button", "Use this plan")
	p.sent()
	var link struct{ Code string }
	require.NoError(t, json.Unmarshal(p.call("POST", "/api/visits/"+visitOf(p)+"/hand", nil), &link))
	phone := openPage(t, s.addr, "/hand")
	phone.MustSetViewport(390, 844, 1, true)
	phone.MustElement(`input[name=code]`).MustInput(link.Code)
	phone.click("button", "Go on")
	phone.MustElement(`main[data-there=true]`)
	say := func(n string) { phone.MustElement(`[data-step="` + n + `"]`).MustClick() }
	blockByPedal := func() {
		p.MustElement(`main[data-run][data-at="0"]`)
		p.press(input.Space)
		for n := 1; p.MustHas(`main[data-run]:not([data-over])`); n++ {
			p.MustElement(`main[data-run][data-at="` + strconv.Itoa(n) + `"], main[data-over]`)
			time.Sleep(1100 * time.Millisecond) // sooner, a press is of the step before
			p.press(input.Space)
			frames(p)
		}
	}

	p.click("[data-plan] button", "^Start session: shoulder girdle$") // the first touch
	blockByPedal()
	p.press(input.Space)
	phase(p, "ready")
	p.press(input.Space)
	until(p, "settle-in")
	say("6")
	phase(p, "stage")
	pressed(p, 6)
	say("2")
	until(p, "release-slowly")
	p.press(input.Space)
	until(p, "done")
	p.press(input.Space)
	p.see("h2", "Recheck")
	p.MustElementX(`//*[@data-recheck]//button[text()="2"]`).MustClick() // the second touch
	p.MustElement("[data-main-action]")
	p.MustWait(`() => !mokrenLink.busy`) // what comes next is the core's answer to the score
	frames(p)
	p.press(input.PageDown)
	blockByPedal() // the quiet end
	p.press(input.Space)
	p.see("h2", "What was done")
	p.see("[data-note]", "Shoulder girdle: [0-9]+ of [0-9]+ steps")
	p.see("[data-note]", "Ten quiet minutes")
	p.sent()
}

// The server dies in the middle of a sequence: it goes on by itself, and when the server is back
// all of it is in the record, each step once; another device goes on where it is.
func TestServerKilledInTheMiddleOfASequence(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := signedIn(t, s.addr, demo.Logins[0])
	opened(p, "Killed", "Plan", calf)
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Part of the session"]//button[text()="Lengthening"]`))
	p.click(`[data-offer="calf-and-sole"] button`, "^Begin$")
	p.MustElement(`main[data-run][data-at="0"]`)
	p.press(input.Space)
	p.MustElement(`main[data-at="1"]`)
	p.sent()
	s.kill()
	for _, n := range []string{"2", "3", "4"} {
		time.Sleep(1100 * time.Millisecond) // sooner, a press is of the step before
		p.press(input.Space)
		p.MustElement(`main[data-at="` + n + `"]`)
	}
	p.see("[role=status]", "Offline")
	s.start()
	p.sent()
	var done, distinct int
	require.NoError(t, db(t).Get(&done, `select count(*) from visit_event where visit_id = $1
		and type = 'sequence-event' and verdict = 'accepted'`, visitOf(p)))
	require.NoError(t, db(t).Get(&distinct, `select count(distinct (body->>'step', body->>'event')) from visit_event
		where visit_id = $1 and type = 'sequence-event'`, visitOf(p)))
	assert.Equal(t, 7, done, "begun 1 to 4, done 1 to 3")
	assert.Equal(t, done, distinct, "each once")

	other := signedIn(t, s.addr, demo.Logins[0])
	other.MustNavigate(p.MustInfo().URL)
	other.MustElement(`main[data-at="4"]`)
	time.Sleep(1100 * time.Millisecond)
	other.press(input.Space)
	other.MustElement(`main[data-at="5"]`)
	other.sent()
	p.MustElement(`main[data-at="5"]`) // and the first one follows
}

// throughBlock treads through a sequence, each step a little after it began.
func throughBlock(p *page) {
	p.t.Helper()
	p.MustElement(`main[data-run][data-at="0"]`)
	for p.MustHas(`main[data-run]:not([data-over])`) {
		p.MustEval(`() => globalThis.mokrenClock.pass(1200)`)
		p.press(input.Space)
		frames(p)
	}
}
