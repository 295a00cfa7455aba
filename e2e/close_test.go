package e2e

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// The end of a visit: what waits on the second side, the next visit booked by two touches, a
// letter signed and printed, and the sheet on the client's phone with the practice's telephone.
func TestAVisitIsClosedWithAllThatFollows(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/")
	opened(p, "Closing", "Press", spot{"soleus", "left"}, spot{"soleus", "right"})
	beginHold(p)
	phase(p, "ready")
	p.press(input.Space)
	phase(p, "settle")
	p.press(input.KeyR)
	until(p, "flush")
	p.click("button", "Back to the visit")
	stepTo(p, "Close")
	p.see("[data-second-side]", "Soleus, (left|right)")

	c := &counted{page: p}
	c.at(`(//*[@data-book-next]//*[@role="radiogroup"]//button)[1]`)
	c.touch("button", "^Book it$")
	p.see("[data-book-next] [role=status]", "Booked")
	c.atMost(2, "the next visit")
	var n int
	require.NoError(t, db(t).Get(&n, `select count(*) from visit v join visit w on w.client_id = v.client_id
		where v.id = $1 and w.starts_at > now() + interval '1 day'`, visitOf(p)))
	assert.Equal(t, 1, n)

	p.tap(p.MustElementX(`//*[@data-letter]//button[contains(., "Write a referral letter")]`))
	p.MustElementX(`//label[starts-with(., "To (name")]/following-sibling::textarea`).MustInput("Dr. Ilo Brandt\n2 Mill Lane")
	p.click("[data-letter] button", "^Sign the letter$")
	p.see("[data-letter] b", "Referral letter to Dr. Ilo Brandt, signed by Ines Calder")
	p.sent()
	pdf := p.call("GET", "/api/visits/"+visitOf(p)+"/print/letter", nil)
	assert.True(t, strings.HasPrefix(string(pdf), "%PDF-"))

	p.click("[data-after] button", "To the client's phone")
	code := strings.ReplaceAll(p.MustElement("[data-code]").MustText(), " ", "")
	p.MustNavigate(p.base + "/after/" + code)
	p.see("h2", "Not usual: call us, 0155 0100 10")
	p.see("[data-letterhead]", "3 Mill Lane")
	assert.NotContains(t, p.text(), "Closing", "it names no client")
}

// A no-show says so on the day, to everyone, and is taken back there.
func TestANoShowIsTakenBackOnTheDay(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/")
	client := ownClient(p, "Missed")
	// At an hour at which the demo has nobody: taken back, it meets no other visit.
	zone, err := time.LoadLocation("Europe/Vienna")
	require.NoError(t, err)
	y, m, d := time.Now().In(zone).Date()
	id := booked(p, client, time.Date(y, m, d, 20, 0, 0, 0, zone))
	status := func(want string) {
		t.Helper()
		p.MustNavigate(p.base + "/")
		p.see(fmt.Sprintf("[data-day-visit=%q]", want), "Missed")
	}
	status("booked")
	p.MustNavigate(p.base + "/week")
	p.tap(p.MustElement(`[data-visit="` + id + `"]`))
	p.click("[data-appointment] button", "^No-show$")
	p.MustElement(`[data-visit="` + id + `"][data-status=no-show]`)
	p.see(`[data-visit="`+id+`"]`, "no-show")
	status("no-show")
	p.click(`[data-day-visit="no-show"] button`, "Restore")
	p.see(`[data-day-visit="booked"]`, "Missed")
	status("booked")
}

// A protocol that moves says on the hold what moves, and ends without seconds that were not
// pressed.
func TestAMovingHoldSaysWhatMoves(t *testing.T) {
	t.Parallel()
	s := startStepped(t)
	p := signedIn(t, s.addr, demo.Logins[0])
	opened(p, "Moving", "Press", spot{"upper-trapezius", "left"})
	beginBy(p, "Contract")
	phase(p, "ready")
	p.see(".moving", "Lengthen: head bent away.* The client pushes back: shoulder blade elevation")
	p.press(input.Space)
	hold(p, `[data-phase="push"]`)
	p.press(input.Escape)
	p.see(".ask", "^Stopped$")
}
