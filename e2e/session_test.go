package e2e

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/demo"
	"mokren/devices/clientpad"
)

// chartOn charts a point at a muscle's first usual place by touching it there.
func chartOn(p *page, muscle ids.Muscle, side ids.Side) {
	p.t.Helper()
	stepTo(p, "Find")
	m, err := atlas.Get(muscle)
	require.NoError(p.t, err)
	const heightCM = 170
	_, at := m.OnFigure(m.Sites[0].Place(heightCM), side, heightCM)
	mark(p, at.X, at.Y)
	p.see("h2", fmt.Sprintf("%s, %s", m.Name, side))
	chart(p, 6, "yes")
}

// beginAt begins a hold at a point by a protocol, everything else as suggested.
func beginAt(p *page, muscle ids.Muscle, side ids.Side, protocol string) {
	p.t.Helper()
	m, err := atlas.Get(muscle)
	require.NoError(p.t, err)
	card := fmt.Sprintf(`//section[@data-point-id][.//h2[contains(., %q) and contains(., %q)]]`, m.Name, side)
	field := p.MustElementX(card + `//button[contains(@class, "field")]`)
	if !strings.HasPrefix(field.MustText(), protocol) {
		field.MustClick()
		p.MustElementX(`//*[@role="option"][starts-with(., "` + protocol + `")]`).MustClick()
		p.MustWait(`() => !document.querySelector('[role="listbox"]')`)
	}
	if suggested := card + `//button[starts-with(., "As suggested:")]`; p.MustHasX(suggested) {
		p.MustElementX(suggested).MustClick()
	}
	p.MustElementX(card + `//button[text()="Begin the hold"]`).MustClick()
	p.MustElement(`main[data-phase=ready]`)
}

// A session of four points by four protocols: with the client's pad, with the
// pressure pad, broken off by a nerve sign, and one that does not let go and is
// traced back; the network is gone for its second half, the page is read anew in
// the middle of a hold, and at the end a bookmark opens without a server. All of
// it is stored once, and what the server replays is what the browser had said.
func TestASessionOfFourProtocols(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	w := newWire(t, s.addr)
	p := openPage(t, w.l.Addr().String(), "/")
	p.Page = p.Page.CancelTimeout().Timeout(6 * time.Minute)
	p.signIn(demo.Logins[0])
	newVisit(p, ownClient(p, "Session"))
	screened(p)
	calf := []struct {
		muscle ids.Muscle
		side   ids.Side
	}{
		{"gastrocnemius-medial", "left"}, {"soleus", "left"}, {"gastrocnemius-medial", "right"}, {"soleus", "right"},
	}
	for _, c := range calf {
		chartOn(p, c.muscle, c.side)
	}
	stepTo(p, "Plan")
	p.click("[data-plan] button", "Take this plan")
	p.MustElement("[data-accepted=true]")
	p.click("[data-plan] button", "Begin pressing")

	beginAt(p, calf[0].muscle, calf[0].side, "Pulses")
	pad := clientpad.New("http://"+s.addr, paired(p))
	go pad.Run(t.Context())
	p.press(input.Space)
	p.MustElement(`main[data-phase=rest]`)
	pad.Say(3)
	p.MustElement(`main[data-phase=press][data-rep="2"][data-advice~="sink-slightly"]`)
	p.press(input.KeyR)
	until(p, "flush")
	p.click("button", "Back to the visit")

	beginAt(p, calf[1].muscle, calf[1].side, "Short repeats")
	p.click("button", "^Pressure pad$")
	p.MustElement(`main[data-phase=rest]`)
	p.press(input.Digit4)
	p.MustElement(`main[data-phase=press][data-rep="2"]`)
	p.press(input.KeyR)
	until(p, "flush")
	p.sent()
	w.Cut(true)
	p.click("button", "Back to the visit")

	beginAt(p, calf[2].muscle, calf[2].side, "Graded stages")
	p.press(input.Space)
	until(p, "settle-in")
	p.press(input.Digit5)
	p.MustElement(`main[data-phase=stage]`)
	p.press(input.KeyN)
	p.MustElement(`main[data-phase=moved-off]`)
	p.press(input.Space)
	p.MustElement(`main[data-phase=settle]`)
	p.MustReload()
	p.MustElement(`main[data-phase=settle]`)
	p.press(input.KeyR)
	until(p, "flush")
	p.click("button", "Back to the visit")

	beginAt(p, calf[3].muscle, calf[3].side, "Brief holds")
	p.press(input.Space)
	for range 3 {
		p.press(input.Digit6)
	}
	until(p, "release-slowly")
	p.press(input.KeyR)
	until(p, "return-lighter")
	p.press(input.Space)
	p.press(input.Digit4)
	p.MustElement(`main[data-phase=stage]`)
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
