package e2e

import (
	"context"
	"fmt"
	"io"
	"io/fs"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/demo"
	"mokren/demo/crowd"
	"mokren/store"
)

// noViolations runs axe on what the page shows.
func noViolations(p *page, name string) {
	p.t.Helper()
	axe, err := os.ReadFile("../ui/node_modules/axe-core/axe.min.js")
	require.NoError(p.t, err)
	p.MustEval(`(src) => { (0, eval)(src); }`, string(axe))
	list := p.MustEval(`async () => (await axe.run(document, { resultTypes: ["violations"] })).violations.map((v) => v.id + ": " + v.nodes.map((n) => n.html.slice(0, 160)).join(" | "))`).Arr()
	for _, v := range list {
		assert.Fail(p.t, "axe on "+name, v.Str())
	}
}

func TestNoAxeViolations(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := openPage(t, s.addr, "/")
	require.NoError(t, proto.PageSetBypassCSP{Enabled: true}.Call(p)) // axe is injected by the test, not by the page
	p.MustReload()
	p.see("h1", "Mokren")
	noViolations(p, "sign-in")
	p.signIn(demo.Logins[1])
	p.see("a", "Marta")
	noViolations(p, "day")
	p.MustNavigate(p.base + "/clients")
	p.see("td", "Jonah")
	noViolations(p, "clients")
	p.MustNavigate(p.base + clientPath(0))
	p.MustElement("svg[data-view=back] .mark")
	noViolations(p, "client")
	p.MustNavigate(p.base + clientPath(0) + "/progress")
	p.see("[data-point] button", "Upper trapezius")
	noViolations(p, "progress")
	p.MustNavigate(p.base + "/week")
	p.MustElement("[data-grid] [data-visit]").MustClick()
	p.MustElement("[data-appointment]")
	noViolations(p, "week")
	p.MustNavigate(p.base + "/overview")
	p.see("[data-outcomes] h2", "What worked")
	noViolations(p, "overview")
	p.MustElement("[data-unsigned] a").MustClick()
	p.see("[data-note] h3", "Plan")
	noViolations(p, "note")
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
	p.MustElement(`main[data-phase=ready]`)
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
	p.MustElement("svg[data-view=back] path")
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
	p.see("h2", "Gastrocnemius, medial head, left")
	p.see("[aria-live]", "calf, left")
	p.MustElementX(`//*[@role="radiogroup"][starts-with(@aria-label, "Number at test pressure")]//button[text()="5"]`).MustFocus()
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
	p.see("h2", "Gastrocnemius, medial head, left")
	chart(p, 4, "no")
	at := func() (y float64) {
		require.NoError(t, db(t).Get(&y,
			`select p.y from charted_point p join visit v on v.id = p.visit_id where v.client_id = $1`, client))
		return y
	}
	p.sent()
	assert.InDelta(t, 772, at(), 2)
	p.still()
	box := p.MustElement("svg[data-view=back] .mark path").MustShape().Box()
	x, y := box.X+box.Width/2, box.Y+box.Height/2
	p.Mouse.MustMoveTo(x, y).MustDown(proto.InputMouseButtonLeft)
	p.Mouse.MustMoveTo(x, y+6).MustMoveTo(x, y+12).MustUp(proto.InputMouseButtonLeft)
	p.see("h2", "Gastrocnemius, medial head, left")
	p.sent()
	assert.Greater(t, at(), 785.0)
	p.click("button", "^Undo$")
	p.sent()
	assert.InDelta(t, 772, at(), 2)
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
	p.see("h2", "Gastrocnemius")
	p.click("button", "Chart this point")
	p.see("[data-points]", "Tender spot") // nothing was said, so nothing is claimed
}

// A client is found with a typing error and by birth date, a second record of
// the same person is pointed out, and archiving is taken back.
func TestFindingAndArchivingClients(t *testing.T) {
	t.Parallel()
	p := signedIn(t, "/clients")
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
	p.MustElementX(`//button[text()="archived"]`).MustClick()
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
	all, core := int64(0), int64(0)
	require.NoError(t, filepath.WalkDir("../api/web/dist/assets", func(path string, d fs.DirEntry, err error) error {
		ext := filepath.Ext(path)
		if err != nil || d.IsDir() || ext != ".js" && ext != ".wasm" {
			return err
		}
		n := sent(t, "http://"+s.addr+"/assets/"+d.Name())
		if ext == ".wasm" {
			core += n
		} else {
			all += n
		}
		return nil
	}))
	t.Logf("all scripts %d kB, core %d kB, compressed", all/1000, core/1000)
	assert.LessOrEqual(t, all, int64(400_000))
	assert.LessOrEqual(t, core, int64(1_300_000))
	assert.Positive(t, core)
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

// TestBenchBrowser prints the coach's time per event in the browser.
func TestBenchBrowser(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" {
		t.Skip("run by make bench")
	}
	p, _ := visiting(t, "Bench")
	lines := `{"t":0,"event":"start","protocol":"graded-stages"}
{"t":0,"event":"contact"}
{"t":3,"event":"score","value":6}
{"t":14,"event":"score","value":5}
{"t":23,"event":"score","value":4}
{"t":27,"event":"score","value":6}
{"t":47,"event":"score","value":3}
{"t":51,"event":"score","value":6}
{"t":71,"event":"score","value":2}
{"t":74,"event":"release"}`
	us := p.MustEval(`(log) => { const n = 400; mokrenCore.calc("coach", log); const t = performance.now(); for (let i = 0; i < n; i++) mokrenCore.calc("coach", log); return ((performance.now() - t) / n / 9) * 1000; }`, lines).Num()
	t.Logf("coach in the browser: %.1f µs per event, JSON in and out included", us)
	hold := p.MustEval(`(start, log) => { const s = JSON.parse(mokrenCore.begin(start, "{}", "[]")).ok.start; const j = JSON.stringify(s); const n = 300; mokrenCore.hold(j, log, 60000); const t = performance.now(); for (let i = 0; i < n; i++) mokrenCore.hold(j, log, 60000); return (performance.now() - t) / n; }`,
		`{"t":0,"event":"start","protocol":"graded-stages","muscle":"soleus","side":"left"}`,
		`[{"hold":"0190b000-0000-7000-8000-000000000001","at_ms":0,"event":"contact"},{"hold":"0190b000-0000-7000-8000-000000000001","at_ms":3000,"event":"score","value":6},{"hold":"0190b000-0000-7000-8000-000000000001","at_ms":23500,"event":"score","value":4},{"hold":"0190b000-0000-7000-8000-000000000001","at_ms":27000,"event":"score","value":6}]`).Num()
	t.Logf("a whole hold replayed for one frame: %.2f ms", hold)
	hurts := p.MustEval(`() => { const q = '{"view":"back","x":272,"y":165}'; const n = 400; mokrenCore.calc("hurts", q); const t = performance.now(); for (let i = 0; i < n; i++) mokrenCore.calc("hurts", q); return (performance.now() - t) / n; }`).Num()
	t.Logf("a touched place against every referral pattern, both sides: %.2f ms, JSON in and out included", hurts)
	rank := p.MustEval(`() => { const q = '{"pain":[{"region":"heel","side":"left","intensity":7},{"region":"achilles","side":"left","intensity":5}],"rom":[{"movement":"ankle.dorsiflexion-knee-bent","side":"left","active_deg":9}],"loads":["running"]}'; const n = 60; mokrenCore.calc("suspects", q); const t = performance.now(); for (let i = 0; i < n; i++) mokrenCore.calc("suspects", q); return (performance.now() - t) / n; }`).Num()
	t.Logf("the whole atlas ranked: %.2f ms, JSON in and out included", rank)
	judged := p.MustEval(`(list) => {
		const took = [];
		for (let i = 0; i < 300; i++) {
			const from = performance.now();
			mokrenCore.calc("judge", list);
			took.push(performance.now() - from);
		}
		const median = (l) => l.sort((a, b) => a - b)[l.length / 2];
		return [median(took.slice(0, 20)), median(took.slice(100))];
	}`, twentyPoints()).Arr()
	t.Logf("20 points judged beside one another: %.2f ms at the median of 200 when warm, %.2f ms of the first 20, "+
		"JSON in and out included", judged[1].Num(), judged[0].Num())
	planned := p.MustEval(`(list) => { const n = 5; mokrenCore.calc("plan", list); const t = performance.now(); for (let i = 0; i < n; i++) mokrenCore.calc("plan", list); return (performance.now() - t) / n; }`, fourteenPoints()).Num()
	t.Logf("a plan of 14 points: %.0f ms, JSON in and out included", planned)
	stepTo(p, "Find")
	p.MustElement("svg[data-view=back] path")
	zoomFrames(t, p, "at a step of the visit")
	p.MustNavigate(p.base + "/atlas")
	p.MustElementX(`//button[text()="muscles"]`).MustClick()
	p.MustElement("svg[data-view=back] [data-muscle]")
	zoomFrames(t, p, "with all muscles")
	visitReady(t, p)
	adviceAfterAKey(t)
	longCourse(t)
}

// longCourse looks for tasks that keep the screen from answering while a client with
// 200 visits and 1,000 points is opened and gone through.
func longCourse(t *testing.T) {
	t.Helper()
	ctx := context.Background()
	st, err := store.Open(pg.AppURL("mokren"))
	require.NoError(t, err)
	defer st.Close()
	made, err := crowd.Fill(ctx, st, pg.AdminURL("mokren"), crowd.Size{Clients: 1, Visits: 200, Holds: 5}, time.Now())
	require.NoError(t, err)
	p := openPage(t, startServer(t).addr, "/")
	p.MustEvalOnNewDocument(`globalThis.longTasks = [];
		new PerformanceObserver((l) => longTasks.push(...l.getEntries().map((e) => Math.round(e.duration))))
			.observe({ type: "longtask", buffered: true });`)
	p.signIn(demo.Login{Email: made.Email, Password: made.Password})
	p.MustNavigate(p.base + "/clients/" + made.Client.String() + "/progress")
	p.MustElement("[data-point]")
	p.click("button", "Show all")
	p.see("p", "200 visits")
	p.MustElement("[role=slider], input[type=range]").MustFocus()
	for range 20 {
		p.press(input.ArrowLeft)
		frames(p)
	}
	t.Logf("200 visits, 1,000 points on the progress screen: tasks over 50 ms took %v ms (limit 100)",
		p.MustEval(`() => longTasks`).String())
}

// adviceAfterAKey measures from a key in a hold to the changed advice on screen:
// slipping off and being back, twenty times each.
func adviceAfterAKey(t *testing.T) {
	t.Helper()
	p := pressing(t, startServer(t), "Advice")
	beginHold(p)
	p.MustElement(`main[data-phase=ready]`)
	p.press(input.Space)
	p.MustElement(`main[data-phase=settle]`)
	ms := p.MustEval(`async () => {
		const main = document.querySelector("main");
		const frame = () => new Promise(requestAnimationFrame);
		const says = (key) => new Promise((done) => {
			const from = performance.now();
			const seen = new MutationObserver(async () => { seen.disconnect(); await frame(); done(performance.now() - from); });
			seen.observe(main, { attributes: true, attributeFilter: ["data-phase"] });
			document.body.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true }));
		});
		const out = [];
		for (let i = 0; i < 20; i++) {
			out.push(await says("o"));
			out.push(await says(" "));
		}
		return out.sort((a, b) => a - b);
	}`).Arr()
	t.Logf("from a key to changed advice on screen: %.0f ms at the median, %.0f ms at the most, of %d",
		ms[len(ms)/2].Num(), ms[len(ms)-1].Num(), len(ms))
}

// twentyPoints are active, on both sides, with what the client answered.
func twentyPoints() string {
	var list []string
	for i, m := range ids.Muscles()[:20] {
		list = append(list, fmt.Sprintf(`{"id":"%d","muscle":"%s","side":"%s","taut_band":"yes","grade":2,"nprs":6,
			"familiar":"yes","referral":[{"region":"anterior-shoulder","side":"left"}]}`, i, m, []string{"left", "right"}[i%2]))
	}
	return `{"points":[` + strings.Join(list, ",") + `],"painful_actions":[{"movement":"shoulder.external-rotation","side":"left"}]}`
}

// fourteenPoints leave the plan all of its choice.
func fourteenPoints() string {
	var list []string
	for i, m := range ids.Muscles()[10:24] {
		list = append(list, fmt.Sprintf(`{"id":"%d","muscle":"%s","side":"%s","activity":"%s","role":"primary",
			"protocol":"slack-hold"}`, i, m, []string{"left", "right"}[i%2], []string{"active", "latent"}[i%3/2]))
	}
	return `{"minutes":75,"points":[` + strings.Join(list, ",") + `]}`
}

// zoomFrames comes closer and goes back by the wheel, a step every other frame,
// never past the closest; then waits for what is drawn when it has come to rest.
func zoomFrames(t *testing.T, p *page, where string) {
	t.Helper()
	ms := p.MustEval(`async () => {
		const svg = document.querySelector("svg[data-view=back]"), r = svg.getBoundingClientRect();
		const frame = () => new Promise(requestAnimationFrame);
		const step = (d) => svg.dispatchEvent(new WheelEvent("wheel", { deltaY: d, bubbles: true, cancelable: true,
			clientX: r.left + r.width / 2, clientY: r.top + r.height / 3 }));
		const frames = async (n, each) => {
			const out = [];
			for (let i = 0; i < n; i++) {
				const from = await frame();
				each(i);
				out.push((await frame()) - from);
			}
			return out.sort((a, b) => a - b);
		};
		await frames(10, () => step(-28));
		await frames(20, () => {});
		const steps = await frames(60, (i) => step(i < 30 ? -16 : 16));
		const rest = await frames(20, () => {});
		return [steps[30], steps.at(-1), rest.at(-1)];
	}`).Arr()
	t.Logf("a zoom step %s: %.1f ms to the next frame at the median, %.1f ms at the most; drawn at rest in %.1f ms",
		where, ms[0].Num(), ms[1].Num(), ms[2].Num())
}

// visitReady loads an open visit anew and holds how long it took against what
// the same pieces take one after the other, as the page used to ask for them.
func visitReady(t *testing.T, p *page) {
	t.Helper()
	newVisit(p, demoClient(1))
	p.sent()
	var ready, serial float64
	for range 5 {
		p.MustReload()
		p.MustElement("svg[data-view=back] path")
		got := p.MustEval(`() => {
			const all = performance.getEntriesByType("resource");
			const took = (re) => Math.max(0, ...all.filter((e) => re.test(e.name)).map((e) => e.duration));
			const svg = performance.now();
			return [svg, took(/index-.*\.js/) + took(/api\/session$/) + took(/Visit-.*\.js/) +
				took(/wasm_exec/) + took(/core-.*wasm/) + took(/api\/visits\/[^/]*$/)];
		}`).Arr()
		ready += got[0].Num() / 5
		serial += got[1].Num() / 5
	}
	t.Logf("a visit from a warm cache: ready after %.0f ms; its pieces one after the other, without drawing: %.0f ms",
		ready, serial)
}
