package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/rights"
	"mokren/demo"
)

// screens of the devices that stand in a practice.
var devices = [][2]int{{360, 740}, {390, 844}, {820, 1180}, {1180, 820}, {1280, 800}, {1920, 1080}}

// cutOff lists what sticks out of the page or is cut off sideways by what
// scrolls around it.
const cutOff = `() => {
	const bad = [], w = innerWidth;
	if (document.documentElement.scrollWidth > w) bad.push("the page is " + document.documentElement.scrollWidth + " wide");
	const seen = "button, a, input:not([type=file]):not([type=range]), textarea, [role=radio], h1, h2, h3, p, li, td, figure";
	for (const e of document.querySelectorAll(seen)) {
		const r = e.getBoundingClientRect();
		if (r.width < 2 || e.closest(".away, [data-react-aria-prevent-focus]")) continue;
		const name = e.tagName.toLowerCase() + " " + (e.textContent || e.ariaLabel || "").slice(0, 30);
		if (r.right > w + 1 || r.left < -1) bad.push(name + " reaches " + Math.round(r.right));
		for (let q = e.parentElement; q; q = q.parentElement) {
			if (getComputedStyle(q).overflowX === "visible") continue;
			if (r.right > q.getBoundingClientRect().right + 1) bad.push(name + " is cut off");
			break;
		}
	}
	return bad.slice(0, 6);
}`

// tooLow lists controls that are lower than a finger needs: 44 px, and 56 px with a client on
// the table. A link within a line of text is as high as the line.
const tooLow = `() => {
	const bad = new Set();
	const inText = (e) => e.tagName === "A" && ["inline", "inline-block"].includes(getComputedStyle(e).display);
	for (const e of document.querySelectorAll("button, a[href], input:not([type=file]):not([type=range]), select, [role=option]")) {
		const r = e.getBoundingClientRect();
		if (r.width < 2 || r.height < 2 || e.closest(".away, [data-react-aria-prevent-focus], [hidden]")) continue;
		if (inText(e) || e.dataset.word || ["checkbox", "radio"].includes(e.type)) continue;
		const least = e.closest("[data-hands=true]") ? 56 : 44;
		if (r.height < least - 0.5)
			bad.add(e.tagName.toLowerCase() + " " + (e.textContent || e.ariaLabel || e.name || "").slice(0, 30) + " is " + Math.round(r.height) + " high");
	}
	return [...bad].slice(0, 12);
}`

// frames waits until what has changed is drawn.
func frames(p *page) {
	p.t.Helper()
	p.MustEval(`() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))`)
}

// fits looks at what the page shows on every device, and reads it.
func fits(p *page, name string) {
	p.t.Helper()
	readsPlainly(p, name)
	for _, d := range devices {
		var said []string
		// Rules that the browser takes in during a resize can miss it, so what is
		// found is looked at again after another; what stays is a fault.
		for try := 0; try == 0 || (len(said) > 0 && try < 4); try++ {
			if try > 0 {
				p.MustSetViewport(1280, 800, 1, false)
				frames(p)
			}
			p.MustSetViewport(d[0], d[1], 1, false)
			frames(p)
			said = nil
			for _, look := range []string{cutOff, tooLow} {
				for _, v := range p.MustEval(look).Arr() {
					said = append(said, v.Str())
				}
			}
		}
		assert.Empty(p.t, said, "%s at %d × %d", name, d[0], d[1])
	}
	p.MustSetViewport(1280, 800, 1, false)
}

func TestNothingIsCutOffBeforeSignIn(t *testing.T) {
	t.Parallel()
	p := openPage(t, startServer(t).addr, "/")
	p.see("h1", "Mokren")
	fits(p, "sign-in")
	for _, path := range []string{"/draw", "/hand", "/after", "/join/none"} {
		p.MustNavigate(p.base + path)
		p.see("h1,p,label", ".")
		fits(p, path)
	}
}

// room is a page outside of a visit, and what tells that it is there.
type room struct{ path, selector, text string }

// looked are the pages of the table of routes whose widths are looked at, by the test that
// does.
var looked = map[string]string{
	"/": "diary", "/week/:from?": "diary", "/clients": "diary", "/overview": "diary", "/practice": "diary",
	"/help": "diary", "/sequences": "diary", "/practice/audit": "diary", "/practice/people": "diary", "/own": "account",
	"/spine": "atlas", "/atlas/:muscle?": "atlas", "/guide/:muscle/:side": "atlas", "/clients/:id/:tab?": "atlas",
	"/bench/:tab?": "bench", "/bench/do/:exercise": "bench", "/bench/review/:id": "bench",
	"/visits/:id/*": "visit", "/visits/:id/hold/:hold": "visit",
	"/visits/:id/sequence/:run": "sequence", "/visits/:id/show": "visit",
	"/visits/:id/aftercare": "visit", "/visits/:id/photo/:photo": "by nobody: a photograph fits its room",
	"/draw/:code?": "door", "/hand/:code?": "door", "/after/:code?": "door", "/join/:code": "door",
}

// A page that is added to the table of routes is looked at here too.
func TestEveryRouteIsLookedAt(t *testing.T) {
	raw, err := os.ReadFile("../ui/src/routes.json")
	require.NoError(t, err)
	var routes []struct {
		Path  string `json:"path"`
		Right string `json:"right"`
		Frame string `json:"frame"`
	}
	require.NoError(t, json.Unmarshal(raw, &routes))
	for _, r := range routes {
		assert.NotEmpty(t, looked[r.Path], r.Path)
		if r.Frame != "client" {
			assert.Contains(t, rights.Operations(), r.Right, r.Path)
		}
	}
	assert.Len(t, looked, len(routes))
}

func TestNothingIsCutOffInTheDiary(t *testing.T) {
	t.Parallel()
	roomsFit(t,
		room{"/", "a", "Marta"},
		room{"/clients", "a", "Jonah"},
		room{"/week", "[data-grid] b", "."},
		room{"/overview", "[data-outcomes] h2", "What worked"},
		room{"/help", "h1", "Help"},
		room{"/sequences", "h2", "Shipped"},
		room{"/practice", "h1", "Alder"},
		room{"/practice/audit", "[data-audit] td", "."},
		room{"/practice/people", "h1", "."},
	)
}

func TestNothingIsCutOffInAtlasAndProgress(t *testing.T) {
	t.Parallel()
	roomsFit(t,
		room{"/spine", "h2", "Landmarks"},
		room{"/atlas/infraspinatus", "h2", "Infraspinatus"},
		room{"/guide/soleus/left", "h1", "Soleus"},
		room{clientPath(1), "h2", "Points followed"},
		room{clientPath(1) + "/progress", "[data-point] button", "Soleus"},
	)
}

func TestNothingIsCutOffOnTheBench(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startServer(t).addr, demo.Logins[1])
	var result string
	require.NoError(t, db(t).Get(&result, `select id from bench_result where exercise = 'grading' limit 1`))
	p.MustNavigate(p.base + "/bench")
	for _, r := range []room{
		{"/bench", "[data-cases]", "Stiff neck"},
		{"/bench/progress", "[data-trends] h2", "Over time"},
		{"/bench/together", "h2", "Same pressure"},
		{"/bench/class", "[data-learners] td", "Nuri"},
		{"/bench/review/" + result, "[data-score]", "In the band"},
		{"/bench/do/landmarks?level=1", "[data-asked]", "Touch landmark"},
		{"/bench/do/search?case=stiff-neck-desk", "[data-says]", "client"},
		{"/bench/do/asking?case=warm-calf", "[data-questions]", "Fever"},
		{"/bench/do/reasoning?case=warm-calf", "[data-naming]", "What it is"},
		{"/bench/do/grading?case=warm-calf", "h2", "The client"},
	} {
		p.travel(r.path)
		p.see(r.selector, r.text)
		fits(p, r.path)
	}
}

func roomsFit(t *testing.T, rooms ...room) {
	t.Helper()
	p := signedIn(t, startServer(t).addr, demo.Logins[0])
	p.MustNavigate(p.base + rooms[0].path)
	for _, r := range rooms {
		p.travel(r.path)
		p.see(r.selector, r.text)
		fits(p, r.path)
	}
}

func TestNothingIsCutOffBeforeHandsAreOn(t *testing.T) {
	t.Parallel()
	p, _ := visiting(t, "Wide")
	fits(p, "pain")
	stepTo(p, "Screen")
	fits(p, "screen")
	screened(p)
	stepTo(p, "Measure")
	for _, of := range []string{"Range", "Posture", "Squat and reach", "Photographs"} {
		part(p, of)
		fits(p, of)
	}
	stepTo(p, "Suspect")
	fits(p, "suspect")
	stepTo(p, "Find")
	mark(p, 181, 842)
	p.see("h2", "Soleus, left")
	fits(p, "find")
}

func TestNothingIsCutOffOnceAPointIsCharted(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startServer(t).addr, demo.Logins[0])
	opened(p, "Wide", "Recheck", calf)
	fits(p, "Recheck")
	for _, step := range []string{"Close", "Press"} {
		stepTo(p, step)
		fits(p, step)
	}
	visit := strings.Split(p.MustInfo().URL, "?")[0]
	beginHold(p)
	phase(p, "ready")
	p.press(input.Space)
	fits(p, "hold")
	p.press(input.Escape)
	p.MustNavigate(fmt.Sprint(visit, "/show"))
	p.see("h1", "What we found")
	p.see("[data-found]", "Gastrocnemius.*6 of 10 when pressed")
	fits(p, "show")
	p.MustNavigate(fmt.Sprint(visit, "/aftercare"))
	p.see("button", "Print")
	fits(p, "aftercare")
}
