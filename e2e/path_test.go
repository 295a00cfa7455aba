package e2e

import (
	"strconv"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// at is where a place of a view is on screen.
func (p *page) at(view string, x, y float64) proto.Point {
	p.t.Helper()
	pt := p.MustEval(`(view, x, y) => {
		const svg = document.querySelector("svg[data-view=" + view + "]");
		const at = new DOMPoint(x, y).matrixTransform(svg.getScreenCTM());
		return [at.x, at.y];
	}`, view, x, y).Arr()
	return proto.NewPoint(pt[0].Num(), pt[1].Num())
}

// turn brings a view of the body into the room, if it is not there.
func (p *page) turn(view string) {
	p.t.Helper()
	p.MustElement("svg[data-view] path")
	p.answered() // which views the work wants
	p.still()
	if p.MustHas("[data-views]:not([data-views~=" + view + "])") {
		p.tap(p.MustElement("[data-turn=" + view + "]"))
	}
	p.MustElement("svg[data-view=" + view + "] path")
}

// mark touches a place of the back view, given in view units.
func mark(p *page, x, y float64) {
	p.t.Helper()
	p.turn("back")
	p.still()
	require.NoError(p.t, p.Mouse.MoveTo(p.at("back", x, y)))
	p.Mouse.MustClick(proto.InputMouseButtonLeft)
}

// answered waits until the core owes no answer and what it answered is on screen.
func (p *page) answered() {
	p.t.Helper()
	p.MustEval(`async () => {
		do await new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
		while (globalThis.mokrenLink?.busy);
	}`)
}

// still waits until no body is on its way.
func (p *page) still() {
	p.t.Helper()
	p.MustEval(`async () => {
		const at = () => JSON.stringify([...document.querySelectorAll("svg[data-view]")].map((s) => {
			const m = s.getScreenCTM(); return [m.a, m.e, m.f].map((v) => v.toFixed(2)); }));
		let last = "", same = 0;
		while (same < 12) {
			await new Promise(requestAnimationFrame);
			const now = at();
			same = now === last ? same + 1 : 0;
			last = now;
		}
	}`)
}

// paint draws one stroke over a view, through places in view units.
func paint(p *page, view string, through [][2]float64) {
	p.t.Helper()
	p.turn(view)
	p.MustElement("svg[data-view=" + view + "][data-cells] path")
	for i, at := range through {
		require.NoError(p.t, p.Mouse.MoveTo(p.at(view, at[0], at[1])))
		if i == 0 {
			p.Mouse.MustDown(proto.InputMouseButtonLeft)
		}
	}
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
}

func chart(p *page, number int, familiar string) {
	p.t.Helper()
	p.MustElementX(`//*[@role="radiogroup"][starts-with(@aria-label, "Score at test pressure")]//button[text()="` +
		strconv.Itoa(number) + `"]`).MustClick()
	p.MustElementX(`//*[@role="radiogroup"][starts-with(@aria-label, "Is this the pain")]//button[text()="` +
		familiar + `"]`).MustClick()
	p.click("button", "Chart this point")
	p.see("h2", "Points of this visit")
}

// ownClient registers a client for one test, so that tests do not meet.
func ownClient(p *page, family string) (id string) {
	p.t.Helper()
	id = uuid.NewString()
	p.call("PUT", "/api/clients/"+id, map[string]any{
		"id": id, "given_name": "Test", "family_name": family, "height_cm": 170, "revision": 0,
	})
	return id
}

// newVisit begins a client's visit and waits until it is open.
func newVisit(p *page, client string) {
	p.t.Helper()
	p.MustNavigate(p.base + "/clients/" + client)
	p.click("button", "Begin a visit|Open today's visit|Go on with the visit")
	p.see("button", "Undo")
}

// visiting is a signed-in therapist in the open visit of a client of its own.
func visiting(t testing.TB, family string) (p *page, client string) {
	t.Helper()
	p = signedIn(t, startServer(t).addr, demo.Logins[0])
	client = ownClient(p, family)
	p.MustNavigate(p.base + "/visits/" + booked(p, client, time.Now()))
	p.see("button", "Undo")
	return p, client
}

// screened answers every open question of the screening with no, and records
// the consent to the visit.
func screened(p *page) {
	p.t.Helper()
	stepTo(p, "Screen")
	for _, g := range []string{"emergency", "refer-first", "avoid-here", "adapt"} {
		if p.MustElement(`[data-group="` + g + `"]`); p.MustHasX(`//*[@data-group="` + g +
			`"]//button[text()="No to the rest"]`) {
			rest := p.MustElementX(`//*[@data-group="` + g + `"]//button[text()="No to the rest"]`)
			rest.MustClick()
			rest.MustWait(`() => !this.isConnected`) // it goes when the core has answered
		}
	}
	p.see("p", "Asked and answered for today")
	if agreed := p.MustElementX(`//*[@data-consent]//button[text()="Agreed"]`); *agreed.MustAttribute("aria-checked") != "true" {
		agreed.MustClick()
	}
}

// part goes to one part of the measuring.
func part(p *page, name string) {
	p.t.Helper()
	stepTo(p, "Measure")
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="What to measure"]//button[text()="` + name + `"]`))
}

func stepTo(p *page, name string) {
	p.t.Helper()
	at := `//nav[@aria-label="Steps of the visit"]//a[starts-with(@aria-label, "` + name + `")]`
	p.tap(p.MustElementX(at))
	p.MustElementX(at + `[@aria-current="step"]`) // a touch before that belongs to the step before
	p.answered()                                  // cards still take their places until then
}

// TestWholePath: sign in, open a client, mark a point on the calf, chart it, a
// hold by keyboard with 6 4 6 2, recheck, and find it all again.
func TestWholePath(t *testing.T) {
	t.Parallel() // most of it is waiting
	s := startServer(t)
	p := signedIn(t, s.addr, demo.Logins[0])
	newVisit(p, demoClient(1))
	screened(p)
	stepTo(p, "Measure")
	in := p.MustElement(`[data-movement="ankle.dorsiflexion-knee-straight"] input`)
	in.MustSelectAllText().MustInput("4").MustBlur()
	stepTo(p, "Find")
	mark(p, 196, 768)
	p.see("h2", "Gastrocnemius, medial head, left")
	chart(p, 6, "yes")
	stepTo(p, "Press")
	beginHold(p)
	phase(p, "ready")
	p.press(input.Space)
	until(p, "settle-in")
	for _, next := range []input.Key{input.Digit4, 0} {
		p.press(input.Digit6)
		phase(p, "stage")
		pressed(p, 6) // slower than a sudden fall
		if next != 0 {
			p.press(next)
			until(p, "breathe-and-deepen")
		}
	}
	p.press(input.Digit2)
	until(p, "release-slowly")
	p.press(input.Space)
	until(p, "flush")
	until(p, "done")
	p.press(input.Space)
	p.see("p", "Released")
	stepTo(p, "Recheck")
	p.tap(p.MustElementX(`//section[@data-recheck="gastrocnemius-medial"]//button[text()="2"]`))
	in = p.MustElement(`[data-movement="ankle.dorsiflexion-knee-straight"] input`)
	in.MustSelectAllText().MustInput("11").MustBlur()
	p.see("p", `\+7° clearly`)
	stepTo(p, "Close")
	p.click("button", "Close the visit")
	p.see("b", "closed")
	p.sent()

	p.click("a", "See progress")
	card := p.MustElement(`[data-point="gastrocnemius-medial"] svg`)
	label := *card.MustAttribute("aria-label")
	assert.Regexp(t, `\d{4}-\d\d-\d\d 6, after 2$`, label)
	p.see(`[data-point="gastrocnemius-medial"] [data-visited]`, `s in 4 parts, graded stages, released, 6 → 2$`)
	assert.Regexp(t, `4°, after 11°$`,
		*p.MustElement(`[data-movement="ankle.dorsiflexion-knee-straight"] svg`).MustAttribute("aria-label"))

	var row struct {
		Outcome  string  `db:"outcome"`
		Status   string  `db:"status"`
		Parts    int     `db:"parts"`
		Pressure int64   `db:"pressure_ms"`
		NPRS     float64 `db:"nprs"`
		After    float64 `db:"after_nprs"`
		Deg      float64 `db:"after_deg"`
		Identity int     `db:"same"`
	}
	require.NoError(t, db(t).Get(&row, `select h.outcome, h.status, h.parts, h.pressure_ms, p.nprs, p.after_nprs, r.after_deg,
			(select count(*) from charted_point q where q.identity = p.identity) as same
		from hold h join charted_point p on p.id = h.point_id and p.visit_id = h.visit_id
		join range_reading r on r.visit_id = h.visit_id and r.movement = 'ankle.dorsiflexion-knee-straight' and r.side = 'left'
		join visit v on v.id = h.visit_id where p.muscle = 'gastrocnemius-medial' order by v.closed_at desc limit 1`))
	assert.Equal(t, "released", row.Outcome)
	assert.Equal(t, "kept", row.Status)
	assert.Equal(t, 4, row.Parts)
	assert.InDelta(t, 6, row.NPRS, 0)
	assert.InDelta(t, 2, row.After, 0)
	assert.InDelta(t, 11, row.Deg, 0)
	assert.Greater(t, row.Pressure, int64(24_000))
	assert.Greater(t, row.Identity, 1, "the same spot as in earlier visits")
}

// What the progress screen says in words: signs, units, verdicts.
func TestProgressInWords(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := signedIn(t, s.addr, demo.Logins[0])
	// A client whom no other test touches.
	p.MustNavigate(p.base + "/clients/" + demoClient(3) + "/progress")
	p.see(`[data-point="quadratus-lumborum"] .change`, `^Number −6: clearly better`)
	p.see(`[data-movement="lumbar.flexion"] .change`, `^Change \+16°: clearly better`)
	p.see(`[data-movement="lumbar.lateral-flexion"] .change`, `^Left \+5°: no clear change`)
	p.see("[data-summary]", `^Since the first visit: 2 of 2 points clearly better`)
	// The body follows the visits: play goes from the first to the last.
	first := p.MustElement("[data-date]").MustAttribute("data-date")
	p.tap(p.MustElement(`button[aria-label^="Play"]`))
	p.MustWait(`(last) => document.querySelector("[data-date]").dataset.date !== last`, *first)
	p.MustWait(`(last) => document.querySelector("[data-date]").dataset.date === last`, *first)
	// A point that is chosen shows where it was felt.
	p.click(`[data-point="quadratus-lumborum"] button`, ".")
	p.see(`[data-point="quadratus-lumborum"][data-selected="true"]`, ".")
	p.see("[data-compare] tbody td", "clearly better")
}
