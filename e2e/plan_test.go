package e2e

import (
	"fmt"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/visit"
	"mokren/demo"
)

// touches counts what a finger does while a point is charted.
type touches struct {
	p *page
	n int
}

func (c *touches) button(xpath string) {
	c.p.t.Helper()
	c.p.tap(c.p.MustElementX(xpath))
	c.n++
}

func (c *touches) choice(group, value string) {
	c.p.t.Helper()
	c.button(`//*[@data-charting]//*[@role="radiogroup"][starts-with(@aria-label, "` + group + `")]//button[text()="` +
		value + `"]`)
}

// chartSite charts a point at a muscle's first usual place, from its guide on,
// and tells in how many touches.
func chartSite(p *page, muscle string, number int, grade, band, familiar string) int {
	p.t.Helper()
	c := &touches{p: p}
	c.button(`//*[@data-sought="` + muscle + `"]//button[@data-site][1]`)
	if muscle == "pectoralis-minor" { // the chest's own consent, once a visit; not of the charting
		p.click("[data-ask=chest] button", "no chaperone wanted")
	}
	p.MustElement(`[data-charting="` + muscle + `"]`)
	for _, group := range []string{"Score at test", "Tenderness", "Taut band", "Is this the pain", "Nodule"} {
		assert.False(p.t, p.MustHas(`[data-charting] [aria-label^="`+group+`"] [aria-checked=true]`), "%s is preset", group)
	}
	assert.NotContains(p.t, p.MustElement("[data-where-felt]").MustText(), "Usual here",
		"the usual pattern is hidden before the answer")
	c.choice("Score at test pressure", strconv.Itoa(number))
	c.choice("Tenderness", grade)
	c.choice("Taut band", band)
	c.choice("Is this the pain", familiar)
	c.button(`//*[@data-where-felt]//button[text()="Usual pattern"]`)
	p.see("[data-where-felt]", "Usual here")
	c.button(`//*[@data-charting]//button[text()="Chart this point"]`)
	p.see("[data-points] h2", "Points of this visit")
	return c.n
}

// seek chooses a muscle of the search.
func seek(p *page, muscle, side string) {
	p.t.Helper()
	p.tap(p.MustElement(`[data-search-item="` + muscle + `:` + side + `"] button`))
	p.MustElement(`[data-sought="` + muscle + `"]`)
}

// TestFromSuspectsToAPlan: five points on two sides charted from the suspects,
// related, planned for 45 minutes, reordered by keys, flowing anew when a hold
// has taken longer; the next visit takes up where it was left.
func TestFromSuspectsToAPlan(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	for _, d := range [][2]int{{1280, 800}, {820, 1180}} {
		t.Run(fmt.Sprintf("%d × %d", d[0], d[1]), func(t *testing.T) {
			t.Parallel()
			p := signedIn(t, s.addr, demo.Logins[0])
			p.MustSetViewport(d[0], d[1], 1, false)
			client := ownClient(p, "Plan"+strconv.Itoa(d[0]))
			record(p, client, booked(p, client, time.Now().AddDate(0, 0, -1)), // a first visit has its own limits
				said{"visit-opened", visit.VisitOpened{}})
			newVisit(p, client)
			planned(p, client)
		})
	}
}

func planned(p *page, client string) {
	t := p.t
	// Pain on both shoulders, in front.
	paint(p, "front", [][2]float64{{128, 205}, {130, 225}, {126, 245}})
	paint(p, "front", [][2]float64{{348, 205}, {350, 225}, {352, 245}})
	screened(p)
	stepTo(p, "Find")
	p.MustElement("[data-search]")
	five := []struct {
		muscle, side string
		number       int
	}{
		{"infraspinatus", "left", 8},
		{"infraspinatus", "right", 7},
		{"deltoid-anterior", "left", 6},
		{"biceps-brachii", "left", 5},
		{"pectoralis-minor", "right", 5},
	}
	for _, x := range five {
		seek(p, x.muscle, x.side)
		assert.LessOrEqual(t, chartSite(p, x.muscle, x.number, "2", "yes", "yes"), 7, "touches")
	}
	stepTo(p, "Plan")
	p.MustElement("[data-timeline]")
	// Relations are seen, with their reasons, on the list and on the body.
	p.see("[data-judged=deltoid-anterior]", "satellite")
	p.tap(p.MustElement("[data-judged=deltoid-anterior] button"))
	p.see("[data-judged=deltoid-anterior]", "referral of Infraspinatus, left, which is at least as tender")
	p.tap(p.MustElement("[data-judged=deltoid-anterior] button"))
	// 45 minutes with a long closing leave no room to spare.
	order := func() []string {
		var out []string
		for _, e := range p.MustElements("[data-step]") {
			out = append(out, *e.MustAttribute("data-step"))
		}
		return out
	}
	p.click("[data-plan] button", "Use this plan")
	p.MustElement("[data-accepted=true]")
	before := order()
	require.Len(t, before, 5)
	p.MustElement(`[data-step="` + before[4] + `"] button`).MustFocus()
	require.NoError(t, p.KeyActions().Press(input.AltLeft).Type(input.ArrowUp).Release(input.AltLeft).Do())
	p.MustWait(`(id) => document.querySelectorAll("[data-step]")[3].dataset.step === id`, before[4])
	assert.ElementsMatch(t, before, order())
	p.click("button", "Best order again")
	p.MustWait(`(id) => document.querySelectorAll("[data-step]")[4].dataset.step === id`, before[4])

	assert.Contains(t, p.MustElement("[data-plan]").MustText(), "5 points")
	reflown(p, before)
	p.sent()
	// The next visit takes up where this one was left.
	p.MustNavigate(p.base + "/visits/" + booked(p, client, time.Now().Add(time.Hour)))
	p.see("[data-last] h2", "Last time")
	text := p.MustElement("[data-last]").MustText()
	assert.Contains(t, text, "Left out")
	assert.Equal(t, 5, strings.Count(text, "Treat again"))
	p.click("[data-reaction] button", "better")
	p.see("[data-reaction] label", "Soreness") // it moves what is below it
	p.still()
	p.tap(p.MustElementX(`(//*[@data-last]//button[text()="Treat again"])[1]`))
	askLater(p)
	p.see("[data-charting]", "Same spot as before")
}

// reflown presses one point and lets more time pass than was planned.
func reflown(p *page, order []string) {
	p.t.Helper()
	p.tap(p.MustElementX(`//button[contains(., "Recheck, warm-up")]`))
	p.num("Closing (min)", "15")
	p.MustWait(`() => document.querySelector("[data-plan]").innerText.includes("of 45 minutes")`)
	p.click("[data-plan] button", "Begin pressing")
	at := p.MustElement(`[data-point-id="` + order[0] + `"]`)
	for _, group := range []string{"Contact", "Client is"} {
		p.tap(at.MustElementX(`.//*[@role="radiogroup"][@aria-label="` + group + `"]//button`))
	}
	p.tap(at.MustElementX(`.//button[text()="Begin the hold"]`))
	phase(p, "ready")
	p.press(input.Space)
	until(p, "settle-in")
	p.press(input.Escape)
	phase(p, "stopped")
	p.press(input.Space)
	p.MustElement(`nav[aria-label="Steps of the visit"]`)
	// The clock goes on: what was planned, and the better half of the session more.
	p.MustEval(`() => Object.defineProperty(performance, "timeOrigin", { value: performance.timeOrigin + 22 * 60e3 })`)
	stepTo(p, "Plan")
	says := p.MustElement("[data-plan] [role=status]").MustText()
	assert.Regexp(p.t, `^\d+(\.5)? minutes left: drop .+\.$`, says)
}

// TestEverythingOfASessionWorksWithTheServerGone: search, charting, judgement,
// trace, plan and protocol while nothing answers; all of it is in the record
// when it does again.
func TestEverythingOfASessionWorksWithTheServerGone(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := installed(t, s.addr, demo.Logins[0])
	client := ownClient(p, "Offline plan")
	newVisit(p, client)
	p.MustWait(`() => !!navigator.serviceWorker.controller`)
	paint(p, "back", [][2]float64{{176, 955}, {180, 968}, {186, 982}})
	screened(p)
	p.sent()
	s.kill()
	stepTo(p, "Find")
	seek(p, "tibialis-posterior", "left")
	p.click("[data-sought] button", "Nothing found")
	p.see(`[data-search-item="tibialis-posterior:left"]`, "nothing found")
	seek(p, "soleus", "left")
	chartSite(p, "soleus", 6, "2", "yes", "yes")
	stepTo(p, "Plan")
	p.tap(p.MustElement("[data-judged=soleus] button"))
	p.see("[data-judged=soleus]", "Trigger point: a taut band, a hypersensitive spot and referred pain")
	p.tap(p.MustElementX(`//button[contains(., "Possible source")]`))
	assert.NotEmpty(t, p.MustElements("[data-candidate]"))
	p.tap(p.MustElementX(`//button[contains(., "Change this")]`))
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Activity"]//button[text()="latent"]`))
	p.MustElementX(`//label[text()="Because"]/following-sibling::input`).MustInput("Only under hard pressure.")
	p.click("button", "Keep this judgement")
	p.see("[data-judged=soleus] button", "Latent")
	p.click("[data-plan] button", "Use this plan")
	p.MustElement("[data-accepted=true]")
	s.start()
	p.sent()
	var types []string
	require.NoError(t, db(t).Select(&types, `select distinct type from visit_event e join visit v on v.id = e.visit_id
		where v.client_id = $1 and e.verdict = 'accepted'`, client))
	for _, kind := range []string{"muscle-searched", "point-charted", "judgement-made", "plan-made"} {
		assert.Contains(t, types, kind)
	}
}

// TestAPressureThresholdWithTheAlgometer: three trials on one side, stopped by a
// key, the rest between them kept, and the spread said.
func TestAPressureThresholdWithTheAlgometer(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/")
	client := opened(p, "Threshold", "Find", calf)
	p.tap(p.MustElement("[data-points] button"))
	const chosen = `[role=radiogroup][aria-label^="Score at test pressure"] [aria-checked=true]`
	score := p.MustElement(chosen).MustText()
	p.tap(p.MustElementX(`//button[starts-with(., "Pressure threshold")]`))
	p.click("[data-threshold] button", "With the algometer")
	for n := range 3 {
		p.MustElementX(`//*[@data-algometer]//small[contains(., "trial ` + strconv.Itoa(n+1) + ` of 3")]`)
		p.MustWait(`() => parseInt(document.querySelector("[data-algometer] .big").textContent) > 150
			&& !document.querySelector("[data-algometer] button").disabled`)
		p.press(input.Space)
		if n < 2 {
			p.see("[data-algometer]", "Rest .* s before the next trial|Set the tip")
		}
		if n == 0 {
			// In the rest the client still has a key in hand: it says nothing, of the chart neither.
			p.press(input.Digit9)
			assert.Equal(t, score, p.MustElement(chosen).MustText())
		}
	}
	p.see("[data-threshold]", "Three trials are kept")
	p.sent()
	var trials int
	require.NoError(t, db(t).Get(&trials, `select jsonb_array_length(e.body->'trials_kpa') from visit_event e
		join visit v on v.id = e.visit_id where v.client_id = $1 and e.type = 'threshold-measured'
		order by e.version desc limit 1`, client))
	assert.Equal(t, 3, trials)
}
