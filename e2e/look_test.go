package e2e

import (
	"io"
	"io/fs"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// noViolations runs axe on what the page shows.
func noViolations(p *page, name string) {
	p.t.Helper()
	axe, err := os.ReadFile("../ui/node_modules/axe-core/axe.min.js")
	require.NoError(p.t, err)
	p.MustEval(`(src) => { (0, eval)(src); }`, string(axe))
	list := p.MustEval(`async () => {
		const { violations } = await axe.run(document, { resultTypes: ["violations"] });
		return violations.map((v) => v.id + ": " + v.nodes.map((n) => n.html.slice(0, 160)).join(" | "));
	}`).Arr()
	for _, v := range list {
		assert.Fail(p.t, "axe on "+name, v.Str())
	}
}

// withAxe is a tab into which axe may be put: by the test, not by the page.
func withAxe(t *testing.T, l demo.Login) *page {
	t.Helper()
	p := signedIn(t, startServer(t).addr, l)
	require.NoError(t, proto.PageSetBypassCSP{Enabled: true}.Call(p))
	return p
}

func TestNoAxeViolationsOutsideAVisit(t *testing.T) {
	t.Parallel()
	p := openPage(t, startServer(t).addr, "/")
	require.NoError(t, proto.PageSetBypassCSP{Enabled: true}.Call(p))
	p.MustReload()
	p.see("h1", "Mokren")
	noViolations(p, "sign-in")
	p.signIn(demo.Logins[1])
	p.see("a", "Marta")
	noViolations(p, "day")
	p.travel("/clients")
	p.see("td", "Jonah")
	noViolations(p, "clients")
	p.travel(clientPath(0))
	p.MustElement("svg[data-view=back] .mark")
	noViolations(p, "client")
	p.travel(clientPath(0) + "/progress")
	p.see("[data-point] button", "Upper trapezius")
	noViolations(p, "progress")
	p.travel("/week")
	p.tap(p.MustElement("[data-grid] [data-visit]"))
	p.MustElement("[data-appointment]")
	noViolations(p, "week")
	p.travel("/overview")
	p.see("[data-outcomes] h2", "What worked")
	noViolations(p, "overview")
	p.tap(p.MustElement("[data-unsigned] a"))
	p.see("[data-note] h3", "Plan")
	noViolations(p, "note")
}

func TestNoAxeViolationsInAVisit(t *testing.T) {
	t.Parallel()
	p := withAxe(t, demo.Logins[1])
	newVisit(p, demoClient(0))
	stepTo(p, "Screen")
	p.see("h2", "question")
	noViolations(p, "screen")
	screened(p)
	stepTo(p, "Measure")
	p.see("h2", "Range before")
	noViolations(p, "measure")
	for _, name := range []string{"Posture", "Squat and reach", "Photographs"} {
		part(p, name)
		noViolations(p, name)
	}
	stepTo(p, "Find")
	mark(p, 200, 165)
	p.see("h2", "Upper trapezius, left")
	noViolations(p, "find")
	chart(p, 6, "yes")
	stepTo(p, "Press")
	beginHold(p)
	phase(p, "ready")
	noViolations(p, "hold")
	p.press(input.Escape)
}

// A point is marked and charted without a pointer.
func TestChartByKeyboardAlone(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := openPage(t, s.addr, "/")
	p.MustElement(`input[name=email]`)
	p.press(input.Tab)
	p.MustElement(`input[name=email]`).MustFocus()
	p.MustInsertText(demo.Logins[0].Email)
	p.press(input.Tab)
	p.MustInsertText(demo.Logins[0].Password)
	p.press(input.Enter)
	p.see("a", "Marta")
	newVisit(p, ownClient(p, "Keyboard"))
	stepTo(p, "Find")
	p.turn("back")
	p.MustElement("svg[data-view=back]").MustFocus()
	// From the middle of the view down and out to the left calf: far, then near.
	aim := func(k input.Key, far, near int) {
		p.Keyboard.Press(input.ShiftLeft) //nolint:errcheck // a real key
		for range far {
			p.press(k)
		}
		p.Keyboard.Release(input.ShiftLeft) //nolint:errcheck // a real key
		for range near {
			p.press(k)
		}
	}
	aim(input.ArrowLeft, 2, 3)
	aim(input.ArrowDown, 13, 3)
	p.press(input.Enter)
	p.see("[data-before-hands] h2", "Before hands are on")
	p.MustElementX(`//button[text()="Asked on paper"]`).MustFocus()
	p.press(input.Enter)
	p.see("h2", "Gastrocnemius, medial head, left")
	p.see("[aria-live]", "calf, left")
	p.MustElementX(`//*[@role="radiogroup"][starts-with(@aria-label, "Score at test pressure")]//button[text()="5"]`).MustFocus()
	p.press(input.Space)
	p.MustElementX(`//button[text()="Chart this point"]`).MustFocus()
	p.press(input.Enter)
	p.see("h2", "Points of this visit")
	p.sent()
}

// A mark is dragged to where it belongs; undo takes that back.
func TestDragCorrectsAPlace(t *testing.T) {
	t.Parallel()
	p, client := visiting(t, "Drag")
	stepTo(p, "Find")
	mark(p, 186, 772)
	askLater(p)
	p.see("h2", "Gastrocnemius, medial head, left")
	chart(p, 4, "no")
	at := func() (y float64) {
		require.NoError(t, db(t).Get(&y,
			`select p.y from charted_point p join visit v on v.id = p.visit_id where v.client_id = $1`, client))
		return y
	}
	p.sent()
	assert.InDelta(t, 772, at(), 2)
	p.answered()
	p.still()
	box := p.MustElement("svg[data-view=back] .mark path").MustShape().Box()
	x, y := box.X+box.Width/2, box.Y+box.Height/2
	p.Mouse.MustMoveTo(x, y).MustDown(proto.InputMouseButtonLeft)
	p.Mouse.MustMoveTo(x, y+6).MustMoveTo(x, y+12).MustUp(proto.InputMouseButtonLeft)
	p.see("h2", "Gastrocnemius, medial head, left")
	// It is written when the core has said what lies there.
	require.Eventually(t, func() bool { return at() > 785 }, time.Minute, 50*time.Millisecond)
	p.click("button", "^Undo$")
	p.sent()
	assert.InDelta(t, 772, at(), 2)
}

// Who is not signed in sees the form before any script. What is typed and sent by then is kept, and goes off
// when the script is there: never into an address.
func TestTheFormComesWithThePage(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := openPage(t, s.addr, "/licences.txt")
	here := make(chan struct{})
	scripts := p.HijackRequests()
	scripts.MustAdd("*.js", func(h *rod.Hijack) {
		<-here
		h.ContinueRequest(&proto.FetchContinueRequest{})
	})
	go scripts.Run()
	defer scripts.MustStop()
	_, err := proto.PageNavigate{URL: p.base + "/"}.Call(p)
	require.NoError(t, err)
	p.MustElement(`input[name=email]`).MustInput(demo.Logins[0].Email)
	p.MustElement(`input[name=password]`).MustInput(demo.Logins[0].Password)
	p.press(input.Enter)
	p.MustElement(":root[data-sent]")
	assert.Equal(t, p.base+"/", p.MustInfo().URL)
	assert.Equal(t, demo.Logins[0].Email, p.MustElement(`input[name=email]`).MustProperty("value").Str())
	close(here)
	p.see("button", "Sign out")
	assert.Equal(t, p.base+"/", p.MustInfo().URL)
}

// Where the network goes away between the page and its scripts, the page says what it waits for, and goes
// on by itself.
func TestAPageWhoseScriptsDoNotComeWaits(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startServer(t).addr, demo.Logins[0])
	var back atomic.Bool
	scripts := p.HijackRequests()
	scripts.MustAdd("*.js", func(h *rod.Hijack) {
		if back.Load() || !strings.Contains(h.Request.URL().Path, "/frame-") {
			h.ContinueRequest(&proto.FetchContinueRequest{})
			return
		}
		h.Response.Fail(proto.NetworkErrorReasonInternetDisconnected)
	})
	go scripts.Run()
	defer scripts.MustStop()
	_, err := proto.PageNavigate{URL: p.base + "/"}.Call(p)
	require.NoError(t, err)
	p.see("[role=status]", "^Waiting for the network…$")
	back.Store(true)
	p.see("a", "Marta Olsen-Brandt")
	assert.NotContains(t, p.text(), "Waiting for the network")
}

// Wrong input on the forms: the field says what is wrong, and what was typed
// stays; two quick submits store once.
func TestForms(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := openPage(t, s.addr, "/")
	p.MustElement(`input[name=email]`).MustInput("ines")
	p.click("button", "^Sign in$")
	p.see(".error", "e-mail address")
	p.see(".error", "Your password")
	assert.Equal(t, "ines", p.MustElement(`input[name=email]`).MustProperty("value").Str())
	p.MustElement(`input[name=email]`).MustInput("@alder-room.example")
	p.MustElement(`input[name=password]`).MustInput("wrong")
	p.click("button", "^Sign in$")
	p.see("[role=alert]", "do not match")
	p.MustElement(`input[name=password]`).MustSelectAllText().MustInput(demo.Logins[0].Password)
	p.click("button", "^Sign in$")
	p.see("button", "Sign out")

	p.MustNavigate(p.base + "/clients")
	p.MustElement(`input[name=given_name]`).MustInput("Perpetua")
	p.day("Born", "28022099")
	p.click("button", "^Register$")
	p.see("[role=alert]", "family_name")
	p.MustElement(`input[name=family_name]`).MustInput("Doublesend")
	p.click("button", "^Register$")
	p.see("[role=alert]", "born_on")
	assert.Equal(t, "Perpetua", p.MustElement(`input[name=given_name]`).MustProperty("value").Str())
	p.day("Born", "28021980")
	p.MustEval(`() => { const f = document.querySelector("form"); f.requestSubmit(); f.requestSubmit(); }`)
	p.see("h1", "Perpetua Doublesend")
	var n int
	require.NoError(t, db(t).Get(&n, `select count(*) from client where family_name = 'Doublesend'`))
	assert.Equal(t, 1, n)

	p.click("button", "Begin a visit")
	p.see("button", "Undo")
	stepTo(p, "Find")
	mark(p, 186, 772)
	askLater(p)
	p.see("h2", "Gastrocnemius")
	p.click("button", "Chart this point")
	p.see("[data-points]", "Tender spot") // nothing was said, so nothing is claimed
}

// A client is found with a typing error and by birth date, a second record of
// the same person is pointed out, and archiving is taken back.
func TestFindingAndArchivingClients(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/clients")
	find := func(text string) {
		p.MustElementX(`//label[text()="Find by name or birth date"]/following-sibling::input`).MustSelectAllText().MustInput(text)
	}
	find("lindquist")
	p.see("td", "Adaeze Lindqvist")
	p.MustElement(`input[name=given_name]`).MustInput("Adaese")
	p.MustElement(`input[name=family_name]`).MustInput("Lindqvist")
	p.see("[role=status]", "Already here")
	id := ownClient(p, "Archived")
	p.MustNavigate(p.base + "/clients/" + id)
	p.click("button", "^Edit$")
	p.click("button", "Archive this client")
	p.see("[role=status]", "Archived")
	p.MustNavigate(p.base + "/clients")
	p.see("td", "Jonah")
	assert.False(t, p.MustHasR("td", "Test Archived"))
	p.tap(p.MustElementX(`//button[text()="archived"]`))
	p.click("td a", "Test Archived")
	p.click("button", "Bring back")
	p.see("button", "Begin a visit")
}

// The day's first load, and the core, both as they go over the wire.
func TestWeight(t *testing.T) {
	s := startServer(t)
	p := openPage(t, s.addr, "/")
	p.signIn(demo.Logins[0])
	first := p.MustEval(`() => performance.getEntriesByType("resource")
		.filter((e) => e.name.endsWith(".js")).reduce((sum, e) => sum + e.encodedBodySize, 0)`).Int()
	t.Logf("first load: %d kB of scripts, compressed", first/1000)
	assert.Positive(t, first)
	assert.LessOrEqual(t, first, 300_000)
	all, core, bench := int64(0), int64(0), int64(0)
	require.NoError(t, filepath.WalkDir("../api/web/dist/assets", func(path string, d fs.DirEntry, err error) error {
		ext := filepath.Ext(path)
		if err != nil || d.IsDir() || ext != ".js" && ext != ".wasm" {
			return err
		}
		n := sent(t, "http://"+s.addr+"/assets/"+d.Name())
		switch {
		case ext == ".js":
			all += n
		case strings.HasPrefix(d.Name(), "bench-"):
			bench += n
		default:
			core += n
		}
		return nil
	}))
	t.Logf("all scripts %d kB, core %d kB, bench %d kB, compressed", all/1000, core/1000, bench/1000)
	assert.LessOrEqual(t, all, int64(450_000), "compiled screens are larger by an eighth")
	assert.LessOrEqual(t, core, int64(1_220_000))
	assert.LessOrEqual(t, bench, int64(900_000))
	assert.Positive(t, core)
	assert.Positive(t, bench)

	// Day and visit load nothing of the bench; the bench loads its module.
	loaded := func(of string) int {
		return p.MustEval(`(of) => performance.getEntriesByType("resource")
			.filter((e) => new RegExp("/assets/(" + of + ")").test(e.name)).length`, of).Int()
	}
	opened(p, "Light", "Find", calf)
	p.MustElement("svg[data-view] path")
	assert.Zero(t, loaded("bench-|Bench"))
	p.travel("/bench")
	p.see("[data-cases]", "Begin")
	assert.Positive(t, loaded("bench-"))
}

// sent is how many bytes an asset takes over the wire.
func sent(t *testing.T, url string) int64 {
	req, err := http.NewRequest("GET", url, nil)
	require.NoError(t, err)
	req.Header.Set("Accept-Encoding", "br")
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	assert.Equal(t, "br", res.Header.Get("Content-Encoding"), url)
	assert.Contains(t, res.Header.Get("Cache-Control"), "immutable")
	n, err := io.Copy(io.Discard, res.Body)
	require.NoError(t, err)
	return n
}
