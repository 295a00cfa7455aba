package e2e

import (
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
	"mokren/devices/clientpad"
)

// pressing is a signed-in therapist before a charted calf.
func pressing(t *testing.T, s *server, family string) *page {
	t.Helper()
	p := signedIn(t, s.addr, demo.Logins[0])
	opened(p, family, "Press", calf)
	return p
}

// paired makes a code for the client's pad.
func paired(p *page) (code string) {
	p.t.Helper()
	p.click("button", "Client's pad")
	p.click("button", "Create code")
	code = strings.ReplaceAll(p.MustElement("[data-code]").MustText(), " ", "")
	p.click("button", "Done")
	return code
}

// A hold in which the therapist touches only contact and letting go: the client
// says the numbers on a phone. The phone knows the practice's name and no more,
// and when it is gone the therapist sees it within three seconds.
func TestAHoldWithTheClientsPad(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := pressing(t, s, "Pad")
	beginHold(p)
	phase(p, "ready")
	code := paired(p)

	phone := openPage(t, s.addr, "/hand")
	phone.MustSetViewport(390, 844, 1, true)
	phone.MustElement(`input[name=code]`).MustInput(code)
	phone.click("button", "Go on")
	phone.MustElement(`main[data-there=true]`)
	assert.NotContains(t, phone.text(), "Gastrocnemius")
	p.MustElement(`[data-pad=there]`)

	p.press(input.Space)
	until(p, "settle-in")
	say := func(n string) { phone.MustElement(`[data-step="` + n + `"]`).MustClick() }
	say("6")
	phase(p, "stage")
	pressed(p, 6)
	say("2")
	until(p, "release-slowly")
	phone.MustClose()
	_, err := p.Element(`[data-pad=lost]`)
	require.NoError(t, err, "the loss is seen")
	p.press(input.Space)
	until(p, "flush")
	p.click("button", "Back to the visit")
	p.see("p", "Released")
	p.sent()

	var log struct {
		Devices int `db:"devices"`
		Scores  int `db:"scores"`
	}
	require.NoError(t, db(t).Get(&log, `select count(distinct device_id) as devices, count(*) filter
			(where body->>'event' = 'score') as scores from visit_event where type = 'hold-event'
			and visit_id = $1`, visitOf(p)))
	assert.Equal(t, 2, log.Devices, "the client's own source")
	assert.Equal(t, 2, log.Scores)
}

// With the pressure pad and the client's pad nothing is touched from beginning to
// end: contact and letting go are seen by force, the numbers come by themselves.
func TestAHoldWithoutATouch(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := pressing(t, s, "Untouched")
	beginBy(p, "Short repeats")
	phase(p, "ready")
	code := paired(p)
	client := clientpad.New("http://"+s.addr, code)
	place := func() float64 { return p.see("button", "^Pressure pad$").MustShape().Box().X }
	was := place()
	go client.Run(t.Context())
	p.MustElement(`[data-pad=there]`)
	assert.InDelta(t, was, place(), 0.5, "no key moves from under a finger when the client's pad connects")
	p.click("button", "^Pressure pad$")
	p.MustElement(`[data-pressure-pad][aria-pressed=true]`)

	// From here on nobody touches anything.
	_, err := p.Element(`main[data-phase=press]`)
	require.NoError(t, err, "contact is seen by force")
	p.MustElement(`[data-force]`)
	for _, n := range []float64{5, 4, 2} {
		phase(p, "rest")
		client.Say(n)
		_, err := p.Element(`main:not([data-phase=rest])`)
		require.NoError(t, err)
	}
	_, err = p.Element(`main[data-phase=flush]`)
	require.NoError(t, err, "calm after the third press")
	p.see(".say", "Only 2 in the last press")
	until(p, "done")
	p.MustElement("[data-between]")
	p.press(input.Space)
	p.see("p", "short repeats")
	p.sent()
	var pressures int
	require.NoError(t, db(t).Get(&pressures, `select count(*) from visit_event where type = 'hold-event'
		and visit_id = $1 and body->>'event' = 'pressure'`, visitOf(p)))
	assert.Positive(t, pressures, "the force is in the log")
}

// visitOf is the visit whose page is open.
func visitOf(p *page) string {
	parts := strings.Split(p.MustInfo().URL, "/visits/")
	return strings.FieldsFunc(parts[1], func(r rune) bool { return r == '/' || r == '?' })[0]
}
