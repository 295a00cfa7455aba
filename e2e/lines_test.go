package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/demo"
)

// drawnSizes lists what is drawn too thick or too large for a hand's breadth of screen, and too
// small to read, in the views of the body that fill the pane: strokes and letters as they stand
// on screen, whatever the view is scaled by. And it says how much of its pane each body takes.
const drawnSizes = `() => {
	const bad = new Set(), share = [];
	for (const svg of document.querySelectorAll("figure > svg[data-view]")) {
		if (!svg.checkVisibility()) continue; // kept for when one turns back to it
		const pane = svg.getBoundingClientRect();
		const view = svg.dataset.view;
		for (const e of svg.querySelectorAll("path, line, polyline, circle, text")) {
			const css = getComputedStyle(e), m = e.getScreenCTM();
			if (!m || css.display === "none") continue;
			const scale = Math.hypot(m.a, m.b);
			if (e.tagName === "text") {
				const px = parseFloat(css.fontSize) * scale;
				if (px < 9 || px > 26) bad.add(view + ": letters of " + px.toFixed(1) + " px: " + e.textContent);
				continue;
			}
			// How wide a structure to keep off is, and what is painted, is drawn to scale.
			if (css.stroke === "none" || parseFloat(css.opacity) < 0.4 || e.closest("[data-to-scale]")) continue;
			const wide = parseFloat(css.strokeWidth) * (css.vectorEffect === "non-scaling-stroke" ? 1 : scale);
			if (wide > 6) bad.add(view + ": a line of " + wide.toFixed(1) + " px, " + e.outerHTML.slice(0, 80));
		}
		const skin = svg.querySelector("[data-skin]").getBoundingClientRect();
		const w = Math.min(skin.right, pane.right) - Math.max(skin.left, pane.left);
		const h = Math.min(skin.bottom, pane.bottom) - Math.max(skin.top, pane.top);
		share.push(view + " " + Math.max(w / pane.width, h / pane.height).toFixed(3));
	}
	return [[...bad].slice(0, 4), share];
}`

// Lines, marks and letters have one size in every pane, at every width and after every kind of
// arrival, at the first paint too; and the body fills at least 85 % of its pane.
func TestLinesHaveOneSizeAndTheBodyFillsItsPane(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startServer(t).addr, demo.Logins[0])
	opened(p, "Lines", "Find", calf, spot{"infraspinatus", "right"})
	address, _, _ := strings.Cut(p.MustInfo().URL, "?")
	steps := map[string]string{
		"draw": "Pain", "screen": "Screen", "measure": "Measure", "suspect": "Suspect", "find": "Find", "plan": "Plan",
		"press": "Press", "recheck": "Recheck", "close": "Close",
	}
	look := func(how string, d [2]int) {
		t.Helper()
		p.MustElement("figure > svg[data-view]")
		p.MustWait(`() => document.querySelectorAll("figure > svg[data-view] [data-skin]").length > 0`)
		frames(p)
		got := p.MustEval(drawnSizes).Arr()
		for _, v := range got[0].Arr() {
			assert.Fail(t, "drawn out of size", "%s at %d × %d: %s", how, d[0], d[1], v.Str())
		}
		for _, v := range got[1].Arr() {
			var view string
			var share float64
			fmt.Sscan(v.Str(), &view, &share) //nolint:errcheck // a share that is missing is 0
			if d[0] >= 820 {
				assert.GreaterOrEqual(t, share, 0.85, "%s at %d × %d: %s", how, d[0], d[1], view)
			}
		}
	}
	for i, d := range devices {
		p.MustSetViewport(d[0], d[1], 1, false)
		for step, name := range steps {
			if step == "measure" {
				continue // how a movement is measured stands in the place of the body
			}
			if i%2 == 0 { // a telephone, a tablet upright, a screen: opened by the address
				p.MustNavigate(address + "?step=" + step)
				look(step+", by its address", d)
				stepTo(p, "Measure")
			}
			stepTo(p, name)
			look(step+", from another step", d)
		}
	}
}
