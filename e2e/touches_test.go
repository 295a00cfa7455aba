package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// counted counts what a hand does on the screen.
type counted struct {
	*page
	n int
}

func (c *counted) touch(selector, pattern string) {
	c.t.Helper()
	c.n++
	c.click(selector, pattern)
}

func (c *counted) at(xpath string) {
	c.t.Helper()
	c.n++
	c.tap(c.MustElementX(xpath))
}

// body touches the body, which is one touch too.
func (c *counted) body(view string, x, y float64) {
	c.t.Helper()
	c.n++
	c.still()
	require.NoError(c.t, c.Mouse.MoveTo(c.page.at(view, x, y)))
	c.Mouse.MustClick(proto.InputMouseButtonLeft)
}

// atMost ends a count, and begins the next one.
func (c *counted) atMost(n int, what string) {
	c.t.Helper()
	assert.LessOrEqual(c.t, c.n, n, what)
	assert.Positive(c.t, c.n, what)
	c.t.Logf("%s: %d touches", what, c.n)
	c.n = 0
}

// What a therapist does most, counted: a new point, a hold from the chart, the next planned
// point, and a point that was there before.
func TestTouchesAreFew(t *testing.T) {
	t.Parallel()
	s := startStepped(t)
	p := signedIn(t, s.addr, demo.Logins[0])
	client := opened(p, "Touches", "Find", spot{"soleus", "right"})
	c := &counted{page: p}

	c.body("back", 196, 768)
	c.at(`//*[@data-charting]//*[@role="radiogroup"]//button[text()="6"]`)
	c.at(`//*[starts-with(@aria-label, "Tenderness")]//button[text()="2"]`)
	c.at(`//*[@aria-label="Taut band"]//button[text()="yes"]`)
	c.at(`//*[@aria-label="Is this the pain you came in with?"]//button[text()="yes"]`)
	c.touch("button", "^Usual pattern$")
	c.touch("button", "Chart this point")
	p.see("[data-points]", "Gastrocnemius")
	c.atMost(7, "a new point with its tenderness")

	c.touch("[data-main-action] button", "Begin the hold")
	phase(p, "ready")
	c.atMost(1, "a hold from the chart")
	p.press(input.Space)
	until(p, "settle-in")
	p.press(input.Digit5)
	phase(p, "stage")
	pressed(p, 6)
	p.press(input.KeyR)
	until(p, "flush")
	until(p, "done")
	first := p.MustInfo().URL

	p.MustElement("[data-next]:not([data-again])")
	c.n++
	p.tap(p.MustElement("[data-next]:not([data-again])"))
	p.MustWait(`(was) => location.href !== was && location.href.includes("/hold/")`, first)
	phase(p, "ready")
	c.atMost(1, "the next planned point")
	p.press(input.KeyR)
	p.MustNavigate(p.base + "/clients/" + client)
	p.sent()
}

// A returning client: the screening that was asked at the last visit, and a point of then.
func TestAReturningClientTakesFewTouches(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/")
	newVisit(p, demoClient(2))
	p.sent()
	stepTo(p, "Screen")
	c := &counted{page: p}
	const rest = "^No to the rest$|^As last time$"
	for p.MustHasR("button", rest) {
		c.n++
		one := p.see("button", rest)
		one.MustClick()
		one.MustWait(`() => !this.isConnected`) // it goes when the core has answered
	}
	if agreed := p.MustElementX(`//*[@data-consent]//button[text()="Agreed"]`); *agreed.MustAttribute("aria-checked") != "true" {
		c.at(`//*[@data-consent]//button[text()="Agreed"]`)
	}
	p.see("p", "Asked and answered for today")
	c.atMost(3, "a returning client's screening")

	stepTo(p, "Find")
	c.touch("button", "^Chart it again$")
	mayChart(p) // its area is asked for once a visit
	c.at(`//*[@data-charting]//*[@role="radiogroup"]//button[text()="5"]`)
	c.at(`//*[@aria-label="Is this the pain you came in with?"]//button[text()="yes"]`)
	c.touch("button", "^As before$|^Usual pattern$")
	c.touch("button", "Chart this point")
	p.MustElement("[data-points]")
	c.atMost(5, "a point that was there before")
	p.see("[aria-label='Points of earlier visits'] button", "Chart it again")
}

// Painting where a point is felt ends with its form: the next touch marks a place again.
func TestTheBodyIsTouchedAgainAfterPainting(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/")
	opened(p, t.Name(), "Find")
	mark(p, 196, 768)
	p.click("button", "^Draw it$")
	p.see("button[aria-pressed=true]", "^Draw it$")
	p.click("button", "Chart this point")
	p.MustElement("[data-points]")
	mark(p, 181, 842)
	p.see("h2", "Soleus, left")
}

// A muscle that is on no list is named, and its usual place opens the point that lies there.
func TestSearchNamesAnyMuscleAndOpensWhatIsThere(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/")
	opened(p, t.Name(), "Find", calf)
	p.pick("Name", "Soleus")
	p.see("[data-sought=soleus] h2", "Soleus, left")
	p.click("[data-sought=soleus] [data-site=lower-inner]", ".")
	p.see("[data-charting=soleus] button", "Chart this point")
	chart(p, 5, "yes")
	p.MustElement("[data-points]")
	p.pick("Name", "Soleus")
	p.click("[data-sought=soleus] [data-site=lower-inner]", ".")
	p.see("[data-charting=soleus] button", "Save changes")
}
