package e2e

import (
	"testing"
)

// touchToChange lists, for each step of a visit, how long it takes from a touch to its change on
// screen: every group of choices once, and what saves a point.
func touchToChange(t *testing.T) {
	t.Helper()
	p := inesAt(t, "/")
	opened(p, "Touched", "Find", calf, spot{"soleus", "right"})
	mark(p, 181, 842)
	p.see("h2", "Soleus, left")
	listTouches(t, p, "Find")
	ms := p.MustEval(touched, `[...document.querySelectorAll("button")].filter((b) => b.textContent === "Chart this point")`,
		"[data-points]").Arr()
	t.Logf("from a touch to its change: a point charted, %.0f ms (limit 50)", ms[0].Get("ms").Num())
	for _, step := range []string{"Pain", "Measure", "Press", "Close", "Screen"} {
		stepTo(p, step)
		if step == "Press" {
			p.MustElement("[data-choices]")
		}
		p.MustWaitStable()
		listTouches(t, p, step)
	}
}

// listTouches touches the first free choice of every group on screen.
func listTouches(t *testing.T, p *page, step string) {
	t.Helper()
	ms := p.MustEval(touched, `[...document.querySelectorAll(".panel [role=radiogroup]")]
		.filter((g) => g.ariaLabel !== "Muscle under the finger").map((g) => [...g.querySelectorAll("[role=radio]")].find((r) => r.ariaChecked !== "true" && !r.disabled)).filter(Boolean)`, "").Arr()
	if len(ms) == 0 {
		return
	}
	worst := ms[len(ms)-1]
	if len(ms) < 3 { // which have no median
		t.Logf("from a touch to its change, %s: %.0f ms (limit 50) at most of %d: %s",
			step, worst.Get("ms").Num(), len(ms), worst.Get("name").Str())
		return
	}
	t.Logf("from a touch to its change, %s: %.0f ms (limit 16.7) at the median of %d, %.0f ms (limit 50) at most: %s",
		step, ms[len(ms)/2].Get("ms").Num(), len(ms), worst.Get("ms").Num(), worst.Get("name").Str())
}

// touched presses controls, one after the other, and gives the time until each is changed itself,
// or until something is there, and the next frame begins; sorted.
const touched = `async (controls, there) => {
	const frame = () => new Promise(requestAnimationFrame), out = [];
	for (const c of eval(controls)) {
		if (!c.isConnected) continue;
		const name = (c.closest("[role=radiogroup]")?.ariaLabel ?? c.textContent).slice(0, 40);
		const is = () => (there ? document.querySelector(there) : c.ariaChecked === "true" || !c.isConnected);
		const from = performance.now();
		await new Promise((done) => {
			const late = setTimeout(done, 3000);
			const seen = new MutationObserver(() => is() && (seen.disconnect(), clearTimeout(late), done()));
			seen.observe(document.body, { attributes: true, childList: true, subtree: true });
			c.click();
		});
		await frame();
		out.push({ ms: performance.now() - from, name });
		for (let i = 0; i < 12; i++) await frame();
		await frame();
	}
	return out.sort((a, b) => a.ms - b.ms);
}`
