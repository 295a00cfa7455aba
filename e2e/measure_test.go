package e2e

import (
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// touchSpot touches a sign's lozenge on the figure.
func (p *page) touchSpot(spot string) {
	p.t.Helper()
	e := p.MustElement(`[data-spot="` + spot + `"]`)
	at := e.MustEval(`() => { const b = this.getBoundingClientRect(); return [b.x + b.width / 2, b.y + b.height / 2]; }`).Arr()
	require.NoError(p.t, p.Mouse.MoveTo(proto.NewPoint(at[0].Num(), at[1].Num())))
	p.Mouse.MustClick(proto.InputMouseButtonLeft)
	p.MustElement(`[data-spot="` + spot + `"][data-seen="true"]`)
}

// Hands free: each reading is named, and taken when it lies steady; the same
// instrument reads a slope. An instrument that does not answer is said to.
func TestTheInclinometerTakesWhenSteady(t *testing.T) {
	t.Parallel()
	p, client := visiting(t, "Inclinometer")
	stepTo(p, "Measure")
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Joint"]//button[text()="Neck"]`))
	p.MustElement(`[data-movement="cervical.lateral-flexion"]`)
	p.click("[data-by-instrument] button", "Auto-record when steady")
	p.see("[data-instrument]", "°")
	// Every movement of the neck that is shown, in the order of the screen.
	p.see("[data-by-instrument] [role=status]", "All readings taken")
	var n int
	p.sent()
	require.NoError(t, db(t).Get(&n,
		`select count(*) from range_reading where client_id = $1 and before_deg between 57 and 67`, client))
	assert.Equal(t, 6, n, "flexion, extension, two side-bends, two turns")

	part(p, "Posture")
	p.click(`[data-measure="shoulder-height"] > button`, ".")
	p.click("button", "Auto-record when steady")
	p.see("[data-posture] li", "right high")
	p.see("button", "Auto-record when steady") // one reading is enough
	// On the body: a touch on a line opens its measure, on its side.
	p.turn("back")
	blade := p.MustElement(`[data-posture-line="scapula-distance:right"] circle:last-of-type`)
	box := blade.MustShape().Box()
	p.Mouse.MustMoveTo(box.X+box.Width/2, box.Y+box.Height/2)
	p.Mouse.MustClick(proto.InputMouseButtonLeft)
	p.MustElement(`[data-measure="scapula-distance"][data-open="true"]`)
	p.MustElement(`[data-posture-line="scapula-distance:right"][data-chosen="true"]`)
	p.MustElementX(`//*[@aria-label="Side read"]//button[text()="right"][@aria-checked="true"]`)
	// All that is left, one after the other, without a touch.
	p.click("button", "Take all in order when steady")
	p.see("[data-posture] [role=status]", "All readings taken")
	p.sent()
	require.NoError(t, db(t).Get(&n, `select count(distinct (body->>'measure') || coalesce(body->>'side', ''))
		from visit_event where client_id = $1 and type = 'posture-read' and verdict = 'accepted'`, client))
	assert.Equal(t, 11, n, "three slopes of the body, and four measures on each side")
	// At the next visit they stand in grey beside today's.
	p.MustNavigate(p.base + "/visits/" + booked(p, client, time.Now().Add(time.Hour)))
	part(p, "Posture")
	p.see(`[data-measure="shoulder-height"]`, "last time .*right high")
	p.turn("back")
	p.MustElement(`[data-posture-before] [data-drawn="shoulder-height"]`)

	s := &server{t: t, addr: "127.0.0.1:0", inclinometer: "ws://127.0.0.1:1/", database: databaseOf(t)}
	s.start()
	t.Cleanup(s.kill)
	p = signedIn(t, s.addr, demo.Logins[0])
	newVisit(p, ownClient(p, "Switched-Off"))
	stepTo(p, "Measure")
	p.click("button", "Auto-record when steady")
	p.see("[role=alert]", "does not answer")
}

// While a range is read its limb is drawn as it is measured: at zero, then at what was read;
// a distance has no drawing.
func TestAMeasuredLimbTurnsWithItsAngle(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/")
	opened(p, "Turning", "Measure")
	joint := func(name string) {
		p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Joint"]//button[text()="` + name + `"]`))
	}
	joint("Knee")
	right := p.MustElementX(`(//*[@data-movement="knee.flexion"]//input)[2]`)
	right.MustFocus()
	p.MustElement(`[data-pose="knee.flexion"][data-deg="0"]`)
	p.see("[data-how] h2", "Knee flexion, right")
	p.see("[data-how] p", "Face down. Hold still: the thigh.")
	right.MustInput("120").MustBlur()
	p.MustElement(`[data-pose="knee.flexion"][data-deg="120"]`)
	p.answered() // what is measured moves the joints that can be chosen
	joint("Jaw")
	p.MustElement(`[data-movement="jaw.opening"] input`).MustFocus()
	p.see("[data-how] p", "a distance, not an angle")
}

// Signs are touched on the figure, on their side, and speak for their muscles;
// the toe-touch ones are posture readings; the measures beside them are flagged.
func TestSignsAndGauges(t *testing.T) {
	t.Parallel()
	p, client := visiting(t, "Signs")
	part(p, "Squat and reach")
	p.touchSpot("squat-heels-lift:left")
	p.touchSpot("side-curve:right")
	p.MustElementX(`//*[@data-sign="squat-heels-lift"]//button[text()="left"][@aria-pressed="true"]`)
	p.MustElementX(`//*[@data-sign="squat-heels-lift"]//button[text()="right"][@aria-pressed="false"]`)
	p.MustElementX(`//*[@data-sign="lumbar-curve"]//button`).MustFocus()
	p.press(input.Space)
	p.MustElement(`[data-spot="lumbar-curve:midline"][data-seen="true"]`)
	field := func(gauge string, i int, v string) {
		t.Helper()
		p.MustElements(`[data-gauge="` + gauge + `"] input`)[i].MustSelectAllText().MustInput(v).MustBlur()
	}
	field("weight-bearing-lunge", 0, "30")
	p.see(`[data-gauge="weight-bearing-lunge"]`, "left: 30°, flagged below 35°")
	field("toe-touch", 0, "14")
	p.tap(p.MustElementX(`//*[@data-gauge="breathing"]//button[text()="chest first"]`))
	p.see(`[data-gauge="breathing"]`, "high in the chest")
	p.tap(p.MustElementX(`//*[@data-gauge="first-rib-rise"]//*[@aria-label="First rib, left"]//button[text()="stays"]`))
	stepTo(p, "Suspect")
	p.tap(p.MustElement(`[data-suspect="soleus:left"] button`))
	p.see(`[data-suspect="soleus:left"] td`, "heels lift")
	stepTo(p, "Recheck")
	p.MustElement(`[data-gauges="after"] [data-gauge="weight-bearing-lunge"] input`).MustSelectAllText().MustInput("37").MustBlur()
	p.see(`[data-gauges="after"] [data-gauge="weight-bearing-lunge"]`, "30° → 37°")
	stepTo(p, "Close")
	p.see("li", "Weight-bearing lunge, left: 30° → 37°")
	p.sent()
	var sides []string
	require.NoError(t, db(t).Select(&sides,
		`select body->>'side' from visit_event where client_id = $1 and type = 'sign-seen'`, client))
	assert.Equal(t, []string{"left"}, sides)
}

// The practice's own weights and thresholds: set, judged anew at once, kept,
// reset; what lies out of bounds is not taken.
func TestOwnWeightsAndThresholds(t *testing.T) {
	p, _ := visiting(t, "Own-Values")
	part(p, "Posture")
	p.click(`[data-measure="shoulder-height"] > button`, ".")
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Which side is high or forward"]//button[text()="right"]`))
	p.num("Slope (°)", "4")
	p.click("button", "Keep the reading")
	p.see("[data-posture] li", "flagged from 3°")
	set := func(list, row string, i int, v string) {
		t.Helper()
		p.MustElements(`[data-tuned="` + list + `"] [data-row="` + row +
			`"] input`)[i].MustSelectAllText().MustInput(v).MustBlur()
	}
	p.tap(p.MustElement(`[data-tuned="thresholds"] h3 button`))
	set("thresholds", "shoulder-height", 0, "5")
	p.see("[data-posture] li", "noted, flagged from 5° .set by this practice.")
	p.MustReload()
	p.see("[data-posture] li", "set by this practice")
	p.tap(p.MustElement(`[data-tuned="thresholds"] h3 button`))
	p.MustElement(`[data-tuned="thresholds"] [data-row="shoulder-height"] button:last-of-type`)
	p.click(`[data-tuned="thresholds"] button`, "Reset")
	p.see("[data-posture] li", "flagged from 3° .working default.")

	stepTo(p, "Suspect")
	confidence := func() string { return p.MustElement(`[data-suspect="upper-trapezius:right"] .num`).MustText() }
	before := confidence()
	p.tap(p.MustElement(`[data-tuned="weights"] h3 button`))
	set("weights", "posture", 0, "30")
	p.see(`[data-tuned="weights"] button`, "Reset")
	p.MustWait(`(was) => document.querySelector('[data-suspect="upper-trapezius:right"] .num').innerText !== was`,
		before)
	assert.NotEqual(t, before, confidence())
	p.click(`[data-tuned="weights"] button`, "Reset")
	p.MustWait(`(was) => document.querySelector('[data-suspect="upper-trapezius:right"] .num').innerText === was`,
		before)
}

// askLater puts off what is asked before hands are on.
func askLater(p *page) {
	p.t.Helper()
	p.see("[data-before-hands] h2", "Before hands are on")
	p.click("[data-before-hands] button", "Looking again")
}

// Nobody charts a place before consent to it and the first two groups of the screening.
func TestAskedBeforeHandsAreOn(t *testing.T) {
	t.Parallel()
	p, _ := visiting(t, "Before")
	stepTo(p, "Find")
	mark(p, 190, 490)
	p.see("[data-before-hands] [data-ask=buttock]", "a consent of its own")
	assert.False(t, p.MustHasR("button", "Chart this point"))
	p.click("[data-ask=visit] button", "^The client agrees$")
	p.click("[data-ask=buttock] button", "no chaperone wanted")
	for _, g := range []string{"emergency", "refer-first"} {
		p.tap(p.MustElementX(`//*[@data-group="` + g + `"]//button[text()="No to the rest"]`))
	}
	p.see("h2", "Gluteus")
	p.see("button", "Chart this point")
	assert.False(t, p.MustHasR("[role=note]", "Hands were on before"))
}

// No hold without consent; a sensitive area has its own; what was agreed to
// can be taken back.
func TestConsentBeforeAHold(t *testing.T) {
	t.Parallel()
	p, client := visiting(t, "Consent")
	stepTo(p, "Screen")
	for _, g := range []string{"emergency", "refer-first", "avoid-here", "adapt"} {
		rest := p.MustElementX(`//*[@data-group="` + g + `"]//button[text()="No to the rest"]`)
		rest.MustClick()
		rest.MustWait("() => !this.isConnected")
	}
	p.see("p", "Asked and answered for today")
	stepTo(p, "Find")
	mark(p, 190, 490)
	askLater(p)
	p.see("h2", "Gluteus")
	chart(p, 6, "yes")
	p.see("[role=note]", "Hands were on before consent and screening were asked for: Looking again")
	stepTo(p, "Press")
	p.see("[data-ask=visit]", "No consent to today's treatment")
	assert.False(t, p.MustHasR("button", "Begin the hold"))
	p.click("button", "^The client agrees$")
	p.see("[data-ask=buttock]", "consent of its own")
	assert.False(t, p.MustHasR("button", "Begin the hold"))
	p.click("button", "no chaperone wanted")
	p.see("button", "Begin the hold")
	stepTo(p, "Screen")
	p.see("[data-consent]", "Buttock")
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Consent: Buttock"]//button[text()="No"]`))
	stepTo(p, "Press")
	p.see("[data-ask=buttock]", "consent of its own")
	p.sent()
	p.MustNavigate(p.base + "/clients/" + client)
	p.see("[data-consents]", "Buttock: not agreed")
}
