package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/demo"
	"mokren/demo/crowd"
)

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
	events := float64(strings.Count(lines, "\n"))
	t.Logf("coach in the browser: %.1f µs per event, JSON in and out included",
		msPerCall(p, "coach", lines, 400)/events*1000)
	t.Logf("a whole hold replayed for one frame: %.2f ms", msPerHold(p))
	t.Logf("a touched place against every referral pattern, both sides: %.2f ms, JSON in and out included",
		msPerCall(p, "hurts", `{"view":"back","x":272,"y":165}`, 400))
	t.Logf("the whole atlas ranked: %.2f ms, JSON in and out included", msPerCall(p, "suspects", `{
		"pain": [{"region":"heel","side":"left","intensity":7},{"region":"achilles","side":"left","intensity":5}],
		"rom":  [{"movement":"ankle.dorsiflexion-knee-bent","side":"left","active_deg":9}],
		"loads":["running"]}`, 60))
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
	t.Logf("a plan of 14 points: %.0f ms, JSON in and out included", msPerCall(p, "plan", fourteenPoints(), 5))
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

// msPerCall asks the core so many times, once more before, and gives the mean.
func msPerCall(p *page, name, in string, times int) float64 {
	p.t.Helper()
	return p.MustEval(`(name, input, times) => {
		mokrenCore.calc(name, input);
		const from = performance.now();
		for (let i = 0; i < times; i++) mokrenCore.calc(name, input);
		return (performance.now() - from) / times;
	}`, name, in, times).Num()
}

// msPerHold replays a hold of three numbers at its 60th second.
func msPerHold(p *page) float64 {
	p.t.Helper()
	const id = "0190b000-0000-7000-8000-000000000001"
	var log []map[string]any
	for _, e := range []struct {
		at    int
		event string
		value any
	}{{0, "contact", nil}, {3000, "score", 6}, {23500, "score", 4}, {27000, "score", 6}} {
		m := map[string]any{"hold": id, "at_ms": e.at, "event": e.event}
		if e.value != nil {
			m["value"] = e.value
		}
		log = append(log, m)
	}
	raw, err := json.Marshal(log)
	require.NoError(p.t, err)
	return p.MustEval(`(begin, log, times) => {
		const start = JSON.stringify(JSON.parse(mokrenCore.begin(begin, "{}", "[]")).ok.start);
		mokrenCore.hold(start, log, 60000);
		const from = performance.now();
		for (let i = 0; i < times; i++) mokrenCore.hold(start, log, 60000);
		return (performance.now() - from) / times;
	}`, `{"t":0,"event":"start","protocol":"graded-stages","muscle":"soleus","side":"left"}`, string(raw), 300).Num()
}

// longCourse looks for tasks that keep the screen from answering while a client with
// 200 visits and 1,000 points is opened and gone through.
func longCourse(t *testing.T) {
	t.Helper()
	ctx := context.Background()
	s := startServer(t)
	size := crowd.Size{Clients: 1, Visits: 200, Holds: 5}
	made, err := crowd.Fill(ctx, s.asApp(t), s.on.AdminURL(s.name), size, time.Now())
	require.NoError(t, err)
	p := openPage(t, s.addr, "/")
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
	phase(p, "ready")
	p.press(input.Space)
	phase(p, "settle")
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
	// Noted in the page itself: asking it again and again would be slower than it is.
	p.MustEvalOnNewDocument(`new MutationObserver((_, seen) => {
		if (!document.querySelector("svg[data-view=back] path")) return;
		globalThis.bodyDrawnMS = performance.now();
		seen.disconnect();
	}).observe(document, { childList: true, subtree: true });`)
	var ready, serial float64
	for range 5 {
		p.MustReload()
		p.MustElement("svg[data-view=back] path")
		got := p.MustEval(`() => {
			const all = performance.getEntriesByType("resource");
			const took = (re) => Math.max(0, ...all.filter((e) => re.test(e.name)).map((e) => e.duration));
			return [bodyDrawnMS, took(/index-.*\.js/) + took(/api\/session$/) + took(/Visit-.*\.js/) +
				took(/wasm_exec/) + took(/core-.*wasm/) + took(/api\/visits\/[^/]*$/)];
		}`).Arr()
		ready += got[0].Num() / 5
		serial += got[1].Num() / 5
	}
	t.Logf("a visit from a warm cache: ready after %.0f ms; its pieces one after the other, without drawing: %.0f ms",
		ready, serial)
}
