package e2e

import (
	"math"
	"strconv"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// closeness is how close the back is shown; 1 is the whole.
func closeness(p *page) float64 {
	p.t.Helper()
	frames(p)
	k, err := strconv.ParseFloat(*p.MustElement("svg[data-view=back]").MustAttribute("data-zoom"), 64)
	require.NoError(p.t, err)
	return k
}

// pinch spreads two fingers around a place, from so far apart to so far.
func pinch(p *page, where proto.Point, from, to float64) {
	p.t.Helper()
	touch := func(kind proto.InputDispatchTouchEventType, apart float64) {
		fingers := []*proto.InputTouchPoint{}
		if kind != proto.InputDispatchTouchEventTypeTouchEnd {
			for i, side := range []float64{-0.5, 0.5} {
				id := float64(i)
				fingers = append(fingers, &proto.InputTouchPoint{X: where.X, Y: where.Y + side*apart, ID: &id})
			}
		}
		require.NoError(p.t, proto.InputDispatchTouchEvent{Type: kind, TouchPoints: fingers}.Call(p))
	}
	touch(proto.InputDispatchTouchEventTypeTouchStart, from)
	for i := range 5 {
		touch(proto.InputDispatchTouchEventTypeTouchMove, from+(to-from)*float64(i+1)/5)
	}
	touch(proto.InputDispatchTouchEventTypeTouchEnd, 0)
}

func TestCloseUp(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	for _, d := range [][2]int{{1280, 800}, {820, 1180}} {
		p := signedIn(t, s.addr, demo.Logins[0])
		p.MustSetViewport(d[0], d[1], 1, false)
		client := opened(p, "Close"+strconv.Itoa(d[0]), "Find")
		p.turn("back")
		require.InDelta(t, 1, closeness(p), 0)

		// Two fingers bring it closer, and chart nothing.
		pinch(p, p.at("back", 186, 772), 60, 180)
		k := closeness(p)
		assert.InDelta(t, 3, k, 0.3, "as far as the fingers spread")
		p.see("h2", "Touch the body")
		pinch(p, p.at("back", 186, 772), 60, 180)
		assert.Greater(t, closeness(p), k)

		// Where a point is charted, a fingertip covers no more than 15 mm of a calf, upright 20.
		mark(p, 186.3, 772.4)
		p.see("h2", "Gastrocnemius, medial head, left")
		p.still()
		mm := func() float64 {
			a, b := p.at("back", 186, 770), p.at("back", 186, 780)
			return 44 * 17 / math.Hypot(b.X-a.X, b.Y-a.Y)
		}
		assert.LessOrEqual(t, mm(), map[int]float64{1280: 15, 820: 20}[d[0]], "mm under 44 px")
		p.MustElement("svg[data-view=back]").MustFocus()
		for range 6 {
			p.press(input.Equal)
		}
		k = closeness(p)
		assert.InDelta(t, 14, k, 1e-9)

		// A touch lies where it was meant, within 2 mm; an arrow key nudges by 1 mm.
		aim := func() (x, y float64) {
			v := p.MustEval(`() => {
				const { e, f } = document.querySelector("svg[data-view=back] g[data-aim]").transform.baseVal[0].matrix;
				return [e, f];
			}`).Arr()
			return v[0].Num(), v[1].Num()
		}
		x, y := aim()
		assert.LessOrEqual(t, math.Hypot(x-186.3, y-772.4)*1.7, 2.0, "mm beside the aim")
		p.press(input.ArrowRight)
		frames(p)
		right, _ := aim()
		assert.InDelta(t, 1, (right-x)*1.7, 0.5, "mm to the right")

		p.press(input.Enter)
		p.still() // what is aimed at comes near, when the core has answered
		p.press(input.Digit0)
		assert.InDelta(t, 1, closeness(p), 0)
		chart(p, 5, "yes")
		p.sent()
		var kept []struct{ X, Y float64 }
		require.NoError(t, db(t).Select(&kept, `select (body->>'x')::float8 as x, (body->>'y')::float8 as y
			from visit_event where client_id = $1 and type = 'point-charted'`, client))
		require.Len(t, kept, 1)
		assert.LessOrEqual(t, math.Hypot(kept[0].X-right, kept[0].Y-772.4)*1.7, 2.0)
	}
}

// What is chosen comes near: a suspect, and a point of the visit.
func TestWhatIsChosenComesNear(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	for _, d := range [][2]int{{1280, 800}, {820, 1180}} {
		p := signedIn(t, s.addr, demo.Logins[0])
		p.MustSetViewport(d[0], d[1], 1, false)
		newVisit(p, ownClient(p, "Near"+strconv.Itoa(d[0])))
		paint(p, "back", [][2]float64{{176, 955}, {180, 968}, {186, 982}})
		stepTo(p, "Suspect")
		require.InDelta(t, 1, closeness(p), 0, "nothing is chosen")
		p.tap(p.MustElementX(`(//*[@aria-label="Suspects, likeliest first"]//button)[1]`))
		p.MustWait(`() => [...document.querySelectorAll("svg[data-view]")].some((s) => +s.dataset.zoom > 1.4)`)
		p.MustWait(`() => { const m = document.querySelector("svg[data-view] [data-muscle]");
			const b = m.getBoundingClientRect(), s = m.closest("svg[data-view]").getBoundingClientRect();
			return b.top >= s.top && b.bottom <= s.bottom && b.left >= s.left && b.right <= s.right }`)
		p.click("button", "Hide muscle")
		p.MustWait(`() => [...document.querySelectorAll("svg[data-view]")].every((s) => +s.dataset.zoom === 1)`)
	}
}

// Without a pain drawing no muscle is a suspect, and the step says what would
// tell most.
func TestNoStepIsAnEmptyRoom(t *testing.T) {
	t.Parallel()
	p, _ := visiting(t, "Empty")
	stepTo(p, "Suspect")
	p.see("h2", "Nothing found that speaks for a muscle yet")
	assert.Len(t, p.MustElements(`[aria-label="Most useful next"] li`), 3)
	for _, step := range []string{"Find", "Press", "Recheck", "Close"} {
		stepTo(p, step)
		p.MustElement("[data-next-up]")
		p.see("h3", "Most useful next")
	}
	p.click("button", "Go there")
	p.see("h2", "Where does it hurt")
	paint(p, "back", [][2]float64{{176, 955}, {180, 968}, {186, 982}})
	stepTo(p, "Press")
	p.tap(p.MustElementX(`(//*[@aria-label="Likeliest suspects"]//button)[1]`))
	p.MustElement("[data-sought]")
}
