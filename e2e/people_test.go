package e2e

import (
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/proto"
	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// startEmpty serves a database in which there is no practice yet.
func startEmpty(t *testing.T) *server {
	t.Helper()
	s := serving(t, emptyDatabase(t), released)
	require.NotEmpty(t, s.link, "the first start prints a link")
	return s
}

func choosePassword(p *page, words string) {
	p.MustElement("input[name=new-password]").MustInput(words)
	p.MustElement("input[name=again]").MustInput(words)
}

// From an empty database to a practice with two people, without a line of
// configuration: by the links alone.
func TestFirstStartAndASecondPerson(t *testing.T) {
	t.Parallel()
	s := startEmpty(t)
	owner := openPage(t, s.addr, s.link)
	require.NoError(t, proto.PageSetBypassCSP{Enabled: true}.Call(owner))
	owner.MustReload()
	owner.see("button", "^Begin$")
	noViolations(owner, "set-up")
	fits(owner, "set-up")
	owner.MustElement("input[name=practice]").MustInput("The Quiet Yard")
	owner.MustElement("input[name=name]").MustInput("Runa Holt")
	owner.MustElement("input[name=email]").MustInput("runa@quiet-yard.example")
	choosePassword(owner, "short")
	owner.click("button", "^Begin$")
	owner.see(".error", "at least 10 characters")
	owner.MustElement("input[name=new-password]").MustSelectAllText().MustInput("slow-green-hills")
	owner.MustElement("input[name=again]").MustSelectAllText().MustInput("slow-green-hills")
	owner.click("button", "^Begin$")
	owner.see("[data-person] h2", "Runa Holt")
	again := openPage(t, s.addr, s.link)
	again.see("p", "used already")

	owner.click("button", "Invite")
	owner.MustElement("input[name=name]").MustInput("Pia Lind")
	owner.MustElement("input[name=email]").MustInput("pia@quiet-yard.example")
	owner.chip("Role", "Student")
	owner.pick("Supervised by", "Runa Holt")
	owner.click("button", "Create link")
	link := owner.MustElement("[data-link] .link").MustText()
	noViolations(owner, "people")
	fits(owner, "people")
	_, path, ok := strings.Cut(link, s.addr)
	require.True(t, ok, link)
	guest := openPage(t, s.addr, path)
	guest.see("p", "Pia Lind, The Quiet Yard asks you to join")
	choosePassword(guest, "quick-brown-rivers")
	guest.click("button", "^Join$")
	guest.see("a", "Pia Lind")
	owner.MustReload()
	owner.see("[data-person='Pia Lind'] span", "Student · pia@quiet-yard.example · supervised by Runa Holt")
}

// A second factor is switched on, asked for at the door, and another device is signed
// out from here.
func TestSecondFactorAndDevices(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	l := elsewhere(t, s)
	p := openPage(t, s.addr, "/own")
	require.NoError(t, proto.PageSetBypassCSP{Enabled: true}.Call(p))
	p.MustReload()
	p.signIn(l)
	p.MustNavigate(p.base + "/own")
	p.MustElement("[data-factor=off] input[name=password]").MustInput(l.Password)
	p.click("[data-factor=off] button", "Switch it on")
	secret := p.MustElement("[data-factor] code").MustText()
	code, err := totp.GenerateCode(secret, time.Now())
	require.NoError(t, err)
	noViolations(p, "account")
	p.MustElement("[data-factor] input[name=code]").MustInput(code)
	p.click("[data-factor] button", "It is on")
	p.MustElement("[data-factor=on]")
	fits(p, "account")

	other := openPage(t, s.addr, "/")
	other.MustElement("input[name=email]").MustInput(l.Email)
	other.MustElement("input[name=password]").MustInput(l.Password)
	other.click("button", "^Sign in$")
	field := other.MustElement("input[name=code]")
	next, err := totp.GenerateCode(secret, time.Now().Add(30*time.Second)) // a device whose clock is ahead
	require.NoError(t, err)
	field.MustInput(next)
	other.click("button", "^Sign in$")
	other.see("button", "Sign out")
	p.MustReload()
	p.click("[data-devices] button", "Sign it out")
	p.MustWait(`() => !document.querySelector("[data-devices]").innerText.includes("Sign it out")`)
	other.MustReload()
	other.see("button", "^Sign in$")
}

// Left alone a device locks itself; who signs in again is where they were.
func TestADeviceLeftAloneLocksItself(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := signedIn(t, s.addr, demo.Logins[1])
	p.MustNavigate(p.base + clientPath(0))
	p.see("h1", "Marta")
	p.MustEval(`() => localStorage.setItem("mokren-touched", String(Date.now() - 31 * 60_000))`)
	p.see("button", "^Sign in$")
	assert.Contains(t, p.MustInfo().URL, clientPath(0))
	p.signIn(demo.Logins[1])
	p.see("h1", "Marta")
}

// The rooms that the way through a visit does not pass.
func TestNoAxeViolationsInTheOtherRooms(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := openPage(t, s.addr, "/draw")
	require.NoError(t, proto.PageSetBypassCSP{Enabled: true}.Call(p))
	p.MustReload()
	for _, own := range []string{"/draw", "/hand", "/after"} {
		p.MustNavigate(p.base + own)
		p.MustElement("h1, label, input")
		noViolations(p, own)
	}
	p.MustNavigate(p.base + "/")
	p.signIn(demo.Logins[0])
	for path, shown := range map[string]string{
		"/practice":                 "[data-rooms]",
		"/practice/audit":           "[data-audit] td",
		"/practice/people":          "[data-person]",
		"/atlas/soleus":             "svg[data-view] .muscle, svg[data-view] path",
		"/spine":                    "h1, h2",
		"/guide/soleus/left":        "h1, h2",
		clientPath(0) + "/progress": "[data-point]",
	} {
		if strings.HasPrefix(shown, "h1") { // any page has them, so it is loaded anew
			p.MustNavigate(p.base + path)
		} else {
			p.travel(path)
		}
		p.MustElement(shown)
		noViolations(p, path)
	}
}
