package e2e

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/demo"
)

// begin chooses an exercise and a shipped case of it on the bench.
func begin(p *page, exercise, title string) {
	p.t.Helper()
	p.travel("/bench")
	p.click("[data-cases] [role=radio]", "^"+exercise+"$")
	if title == "" {
		p.click("[data-cases] button", "^Begin$")
		return
	}
	p.tap(p.MustElement(`button[aria-label="Begin: ` + title + `"]`))
}

// touchBody touches a place of a view.
func (p *page) touchBody(view string, x, y float64) {
	p.t.Helper()
	p.still()
	require.NoError(p.t, p.Mouse.MoveTo(p.at(view, x, y)))
	p.Mouse.MustClick(proto.InputMouseButtonLeft)
}

// A learner does each of the six exercises once: from landmarks to a whole visit on the ordinary
// screens; each ends with its review.
func TestALearnerDoesEachExercise(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startServer(t).addr, demo.Logins[2])
	p.MustNavigate(p.base + "/bench")
	p.see("[data-next]", "Practise this")
	p.lookAt("bench-list")

	begin(p, "Landmarks", "")
	for i := range 6 {
		p.see("[data-asked] h2", fmt.Sprintf("landmark %d of 6", i+1))
		p.answered()
		p.still() // it may lie on another view
		of := ids.Landmark(*p.MustElement("[data-asked]").MustAttribute("data-asked"))
		view := body.View(*p.MustElement("svg[data-view]").MustAttribute("data-view"))
		at, err := body.FindLandmark(view, of, sideNamed(p.MustElement("[data-asked]").MustText()))
		require.NoError(t, err)
		p.touchBody(string(view), at.X, at.Y)
	}
	p.see("h2", "All were touched")
	p.click("button", "^Finish$")
	p.see("[data-review=landmarks] [data-score]", "How near")
	assert.Equal(t, "100", p.MustElementX(`//*[@data-score]//*[span[.="Found"]]/b`).MustText())

	begin(p, "Search", "Stiff neck at the desk")
	p.MustElement("[data-felt]")
	searchThrough(p)
	p.lookAt("bench-search")
	p.click("[role=radio]", "^Mark$")
	p.touchBody("back", 279, 157.7)
	p.click("[role=radiogroup] button", "Upper trapezius, right")
	p.click("button", "This is it")
	p.see("button", "^Marked$")
	p.click("button", "^Finish$")
	p.see("[data-review=search] [data-truth]", "Upper trapezius, right")
	p.lookAt("bench-review-search")

	begin(p, "Asking", "Back pain with a numb seat")
	p.tap(p.MustElementX(`//*[@data-question="saddle-numbness"]//button[.="Open"]`))
	p.see("[data-says]", "“Yes.”")
	p.lookAt("bench-asking")
	p.tap(p.MustElementX(`//*[@data-question="fever"]//button[.="Leading"]`))
	p.see("body", "2 asked, 1 of them leading")
	p.click("button", "^Finish$")
	p.see("[data-review=asking]", "A red flag found")
	p.see("[data-review=asking]", "A leading question")

	begin(p, "Reasoning", "Stiff neck at the desk")
	p.click("button", "Story, 60 s")
	p.see("[data-says]", "two screens")
	p.click("button", "Drawing, 60 s")
	p.see("body", "temple, right [456]")
	p.pick("A range, 45 s", "Neck side-bend")
	p.click("button", "Measure left")
	p.see("[data-readings]", "Neck side-bend, left")
	p.click("[data-naming] button", "^Refer$")
	p.lookAt("bench-reasoning")
	p.click("[data-naming] button", "Say so")
	p.click("button", "^Finish$")
	p.see("[data-review=reasoning] [data-engine]", "Upper trapezius, right")
	p.see("[data-review=reasoning]", "Would have told them apart best")
	p.lookAt("bench-review-reasoning")

	begin(p, "Graded pressure", "Stiff neck at the desk")
	p.see("[aria-label='Simulated client']", "The point is charted")
	beginBy(p, "Hold to release")
	holdSimulated(p)
	p.lookAt("bench-hold")
	p.click("aside button", "Finish and review")
	p.see("[data-review=grading] [data-score]", "Below the ceilings")
	p.MustElement("[data-force-line]")
	p.lookAt("bench-review-grading")

	wholeVisit(p)
}

func sideNamed(text string) ids.Side {
	switch {
	case strings.Contains(text, "left"):
		return ids.Left
	case strings.Contains(text, "right"):
		return ids.Right
	}
	return ids.Midline
}

// searchThrough presses and strokes about the band, and feels the other side.
func searchThrough(p *page) {
	p.t.Helper()
	p.still()
	finger := func(from, to [2]float64) {
		require.NoError(p.t, p.Mouse.MoveTo(p.at("back", from[0], from[1])))
		require.NoError(p.t, p.Mouse.Down(proto.InputMouseButtonLeft, 1))
		for i := range 12 {
			k := float64(i+1) / 12
			require.NoError(p.t, p.Mouse.MoveTo(p.at("back", from[0]+k*(to[0]-from[0]), from[1]+k*(to[1]-from[1]))))
		}
		p.MustElement(`[data-felt]:not([data-felt=""])`)
		require.NoError(p.t, p.Mouse.Up(proto.InputMouseButtonLeft, 1))
	}
	finger([2]float64{272, 165}, [2]float64{286, 150})
	finger([2]float64{279, 157.7}, [2]float64{279, 157.7})
	p.see("[data-says]", "“[1-9]”")
}

// holdSimulated presses by keys, asks for numbers, and lets go.
func holdSimulated(p *page) {
	p.t.Helper()
	p.see("aside", "Press slowly")
	p.MustElement("aside input[type=range]").MustFocus()
	for n := range 16 {
		p.press(input.ArrowRight)
		if n%3 == 2 { // a hand that rises at once makes the client guard
			time.Sleep(500 * time.Millisecond)
		}
	}
	p.see("aside label", "16 N")
	p.MustElement("[data-phase=settle]")
	p.click("aside button", "Ask for a number")
	p.MustElement("[data-phase=stage]")
	p.MustElement(`aside[data-says="4"], aside[data-says="3"], aside[data-says="5"]`)
}

// wholeVisit goes through the steps of an ordinary visit with a simulated client.
func wholeVisit(p *page) {
	p.t.Helper()
	begin(p, "A whole visit", "Stiff neck at the desk")
	p.click("button", "Let the client draw")
	p.MustElement(`[data-cells]:not([data-cells="0"])`)
	stepTo(p, "Screen")
	p.click("[aria-label='Simulated client'] button", "Ask the client")
	p.tap(p.MustElementX(`//*[@data-question="fever"]//button[.="Open"]`))
	p.see("[aria-label='Simulated client']", "“No.”")
	p.lookAt("bench-visit-screen")
	screened(p)
	stepTo(p, "Measure")
	p.pick("A range, 45 s", "Neck side-bend")
	p.click("button", "Measure left")
	p.see("[data-readings]", "Neck side-bend, left")
	stepTo(p, "Find")
	p.touchBody("back", 279, 157.7)
	p.click("[aria-label='Simulated client'] button", "Press where the body was touched")
	p.see("[aria-label='Simulated client']", "“[1-9]”")
	p.lookAt("bench-visit-find")
	stepTo(p, "Close")
	p.click("[data-naming] button", "Nothing to press")
	p.click("[data-naming] button", "Say so")
	p.click("button", "Finish and review")
	p.see("[data-review=visit] [data-score]", "Reasoning: found")
	p.see("[data-review=visit] [data-truth]", "Upper trapezius")
}

// listening keeps the text of every answer that the page gets.
func listening(p *page) {
	p.t.Helper()
	p.MustEvalOnNewDocument(`(() => {
		window.answers = [];
		const ask = window.fetch;
		window.fetch = async (...of) => {
			const a = await ask(...of);
			if (String(of[0].url ?? of[0]).includes("/api/")) a.clone().text().then((t) => window.answers.push(t), () => {});
			return a;
		};
	})()`)
}

// A teacher sets an exam on screen, two learners sit it, and neither seed nor truth is in any answer of
// the server before it is closed; then they see how it went, and the teacher the class.
func TestTwoLearnersSitAnExam(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	teacher := signedIn(t, s.addr, demo.Logins[1])
	teacher.MustNavigate(teacher.base + "/bench/class")
	teacher.see("[data-learners] td", "Lio Marek")
	teacher.lookAt("bench-class")
	form := teacher.MustElement("[data-set-form]")
	form.MustScrollIntoView()
	teacher.write("Title", "Winter exam")
	for _, e := range []string{"Search", "Asking"} {
		teacher.tap(teacher.MustElementX(`//*[@data-set-form]//*[@aria-label="Exercises"]//button[.="` + e + `"]`))
	}
	teacher.chip("The coach", "Exam")
	teacher.click("[data-set-form] button", "Set it")
	teacher.see("[data-set='Winter exam']", "0 of")
	var exam struct {
		ID   string `db:"id"`
		Seed int64  `db:"seed"`
	}
	require.NoError(t, db(t).Get(&exam, `select id, seed from bench_assignment where title = 'Winter exam'`))

	for _, l := range []demo.Login{demo.Logins[2], demo.Logins[4]} {
		p := signedIn(t, s.addr, l)
		listening(p)
		p.MustNavigate(p.base + "/bench")
		p.tap(p.MustElement(`button[aria-label="Begin: Winter exam, Asking"]`))
		p.see("h1", "Asking, exam")
		p.tap(p.MustElementX(`//*[@data-question="fever"]//button[.="Open"]`))
		p.see("[data-question=fever]", "No|Yes|not sure")
		p.click("button", "^Finish$")
		p.MustElementX(`//*[@data-assignment="` + exam.ID + `"]//*[.="sat"]`)
		said := p.MustEval(`() => window.answers.join("\n")`).Str()
		assert.Contains(t, said, exam.ID, "the answers were heard")
		assert.NotContains(t, said, fmt.Sprint(exam.Seed))
		for _, of := range strings.Split(said, "\n") {
			if strings.Contains(of, `"told"`) || strings.Contains(of, exam.ID) && !strings.Contains(of, `"results"`) {
				assert.NotContains(t, of, `"truth"`)
				assert.NotContains(t, of, `"seed"`)
			}
		}
	}

	teacher.MustReload()
	teacher.see("[data-set='Winter exam']", "2 of")
	teacher.tap(teacher.MustElement(`button[aria-label="Close: Winter exam"]`))
	teacher.click("[data-set='Winter exam'] button", "Close for good")
	teacher.see("[data-set='Winter exam']", "closed")
	p := signedIn(t, s.addr, demo.Logins[2])
	p.MustNavigate(p.base + "/bench/progress")
	p.see("[data-trends]", "Asking: A new client")
	p.lookAt("bench-progress")
	p.tap(p.MustElementX(`//a[contains(., "Asking: A new client")]`))
	p.see("[data-review=asking] [data-truth]", "To be treated|To be referred|Nothing to press")
}

// Two presses alike, and whose hand is heavier; two visits by one person are refused by name.
func TestTogetherOnTheBench(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startServer(t).addr, demo.Logins[0])
	p.MustNavigate(p.base + "/bench/together")
	press := p.MustElement("[data-same-pressure] button[type=button]:last-of-type")
	press.MustScrollIntoView()
	for i := range 5 {
		p.see("[data-same-pressure]", fmt.Sprintf("Press and let go: %d of 5", i+1))
		p.MustElementX(`//button[starts-with(., "Press and let go")]`).MustHover()
		require.NoError(t, p.Mouse.Down(proto.InputMouseButtonLeft, 1))
		time.Sleep(120 * time.Millisecond)
		require.NoError(t, p.Mouse.Up(proto.InputMouseButtonLeft, 1))
	}
	p.see("[data-alike]", "N on the average, varying by")
	p.pick("Who was examined", "Marta Olsen-Brandt")
	p.tap(p.MustElementX(listOf("First examination")))
	p.tap(p.MustElementX(`(//*[@role="option"])[2]`))
	p.tap(p.MustElementX(listOf("Second examination")))
	p.tap(p.MustElementX(`(//*[@role="option"])[2]`))
	p.click("[data-agreement] button", "^Compare$")
	p.see("[data-agreement] [role=alert]", "somebody else")
	db(t).MustExec(`update visit set therapist_id = (select id from person where name = 'Tomas Vey')
		where client_id = $1 and starts_at = (select starts_at from visit where client_id = $1 order by starts_at offset 1 limit 1)`,
		demoClient(0))
	p.click("[data-agreement] button", "^Compare$")
	p.see("[data-agreed]", "Both found|No point of")
	p.lookAt("bench-together")
}
