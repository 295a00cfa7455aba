package e2e

import (
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// planShots takes up last time's points of a client with three in one shoulder,
// charts what hangs together with them, and plans.
func planShots(p *page, shot func(string)) {
	newVisit(p, demoClient(2))
	p.sent()
	screened(p)
	for i := range 3 {
		stepTo(p, "Last")
		p.tap(p.MustElementX(`//button[text()="Treat again"]`))
		mayChart(p)
		p.press([]input.Key{input.Digit7, input.Digit5, input.Digit6}[i])
		p.press(input.KeyB, input.KeyG, input.KeyG, input.KeyG, input.KeyF, input.KeyU, input.KeyS)
		p.MustElement("[data-points]")
	}
	p.turn("front")
	p.still()
	require.NoError(p.t, p.Mouse.MoveTo(p.at("front", 128, 232)))
	p.Mouse.MustClick(proto.InputMouseButtonLeft)
	mayChart(p)
	p.press(input.Digit4, input.KeyB, input.KeyG, input.KeyG, input.KeyG, input.KeyF, input.KeyN, input.KeyS)
	p.MustElement("[data-points]")
	stepTo(p, "Plan")
	p.click("[data-plan] button", "Use this plan")
	p.MustElement("[data-accepted=true]")
	shot("plan")
}

// mayChart agrees to what is asked before hands are on, where something is.
func mayChart(p *page) {
	p.t.Helper()
	for p.MustElement("[data-charting], [data-before-hands]"); p.MustHas("[data-before-hands]"); {
		p.click("[data-ask] button", "no chaperone wanted")
		p.still()
	}
	p.MustElement("[data-charting]")
}

// padShots presses once more, by pulses, with both pads; then the sheet to take
// home.
func padShots(p *page, s *server, dir string, shot func(string)) {
	p.see("h1", "Soleus")
	p.click("button", "Back to the visit")
	beginBy(p, "Pulses")
	phase(p, "ready")
	code := paired(p)
	phone := openPage(p.t, s.addr, "/hand/"+code)
	phone.MustSetViewport(390, 844, 1, true)
	phone.MustElement(`main[data-there=true]`)
	p.click("button", "^Pressure pad$")
	phase(p, "rest")
	phone.tap(phone.MustElement(`[data-step="5"]`))
	phase(p, "press")
	time.Sleep(3 * time.Second)
	shot("hold-pads")
	phone.MustClose()
}

// benchShots looks at the practice bench: a class, and a search.
func benchShots(p *page, shot func(string)) {
	p.MustNavigate(p.base + "/bench/class")
	p.see("[data-learners] td", "Lio Marek")
	shot("bench-class")
	p.MustNavigate(p.base + "/bench/do/search?case=stiff-neck-desk")
	p.MustElement("[data-felt]")
	searchThrough(p)
	shot("bench-search")
}

// recordShots looks at progress, the diary, what waits, a note and a printed page.
func recordShots(p *page, dir string, shot func(string)) {
	p.MustNavigate(p.base + clientPath(0) + "/progress")
	p.MustElement("[data-point]")
	p.tap(p.MustElementX(`(//li[@data-point]//button)[2]`))
	p.MustElement("[role=slider], input[type=range]").MustFocus()
	p.press(input.ArrowLeft, input.ArrowLeft)
	shot("progress")
	p.MustNavigate(p.base + "/week")
	p.MustElement("[data-grid] [data-visit]")
	shot("week")
	p.MustNavigate(p.base + "/overview")
	p.MustElement("[data-outcomes]")
	shot("overview")
	p.tap(p.MustElement("[data-unsigned] a"))
	p.see("[data-note] h3", "Plan")
	p.MustElement("[data-note]").MustScrollIntoView()
	shot("note")
	pdf := filepath.Join(p.t.TempDir(), "progress.pdf")
	raw := p.fetched("/api/clients/" + demoClient(0) + "/print/progress")
	bytes := make([]byte, 0, len(raw))
	for _, r := range raw {
		bytes = append(bytes, byte(r))
	}
	require.NoError(p.t, os.WriteFile(pdf, bytes, 0o600))
	out := exec.Command("pdftoppm", "-r", "96", "-png", "-singlefile", pdf, filepath.Join(dir, "paper"))
	require.NoError(p.t, out.Run())
}

// TestScreenshots makes the pictures of docs/screenshots from the demo data.
func TestScreenshots(t *testing.T) {
	if os.Getenv("MOKREN_SHOTS") == "" {
		t.Skip("run by make screenshots")
	}
	dir := os.Getenv("MOKREN_SHOTS_DIR")
	if dir == "" {
		dir = "../docs/screenshots"
	}
	require.NoError(t, os.MkdirAll(dir, 0o755))
	s := startServer(t)
	p := openPage(t, s.addr, "/")
	shot := func(name string) {
		p.still()
		time.Sleep(400 * time.Millisecond)
		p.shot(filepath.Join(dir, name+".png"))
	}
	p.signIn(demo.Logins[0])
	p.see("a", "Marta")
	shot("day")
	p.MustNavigate(p.base + clientPath(0))
	p.MustElement("svg[data-view=back] .mark")
	shot("client")
	recordShots(p, dir, shot)
	benchShots(p, shot)
	p.MustNavigate(p.base + "/")
	p.see("a", "Jonah Petrak")
	p.tap(p.MustElementX(`//li[contains(., 'Jonah Petrak')]//a[contains(@class, 'go')]`))
	p.see("button", "Undo")
	stepTo(p, "Last")
	p.see("[data-last] h2", "Last time")
	stepTo(p, "Pain")
	p.see("h2", "Where does it hurt")
	paint(p, "back", [][2]float64{{176, 955}, {180, 968}, {186, 982}})
	p.tap(p.MustElementX(`//*[@role="radiogroup"][starts-with(@aria-label, "How it feels")]//button[text()="Numbness / tingling"]`))
	paint(p, "back", [][2]float64{{186, 770}, {184, 800}, {183, 830}})
	p.tap(p.MustElementX(`//*[@role="radiogroup"][starts-with(@aria-label, "Lay over")]//button[2]`))
	p.MustElement("[data-compare]")
	p.tap(p.MustElementX(`//*[@role="radiogroup"][starts-with(@aria-label, "Number now")]//button[text()="2"]`))
	p.tap(p.MustElementX(`//*[@role="radiogroup"][starts-with(@aria-label, "At its worst")]//button[text()="4"]`))
	p.MustElementX(`//label[starts-with(text(), "Pattern over the day")]/following-sibling::input`).MustInput("First steps only")
	p.click("button", "Save history")
	stepTo(p, "Screen")
	p.see("h2", "question")
	p.tap(p.MustElementX(`//*[@data-group="refer-first"]//button[text()="No to the rest"]`))
	p.tap(p.MustElementX(`//*[@data-group="avoid-here"]//button[@aria-expanded="false"]`))
	p.tap(p.MustElementX(`//*[@data-question="open-skin"]//button[text()="yes"]`))
	mark(p, 299, 780)
	p.see("[data-outcome=avoid-here]", "Open skin")
	shot("screen")
	p.tap(p.MustElementX(`//*[@data-question="open-skin"]//button[text()="no"]`))
	screened(p)
	stepTo(p, "Measure")
	p.see("h2", "Range before")
	for label, v := range map[string]string{
		"ankle.dorsiflexion-knee-straight": "6",
		"ankle.dorsiflexion-knee-bent":     "14",
	} {
		in := p.MustElement(`[data-movement="` + label + `"] input`)
		in.MustSelectAllText().MustInput(v).MustBlur()
	}
	part(p, "Posture")
	p.click(`[data-measure="shoulder-height"] > button`, ".")
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Which side is high or forward"]//button[text()="right"]`))
	p.num("Distance (cm)", "36")
	p.num("Height difference (cm)", "2.4")
	p.click("button", "Keep the reading")
	p.see("[data-posture] li", "flagged")
	part(p, "Squat and reach")
	for _, s := range []string{"squat-heels-lift:left", "squat-knees-in:left", "side-curve:right"} {
		p.touchSpot(s)
	}
	p.MustNavigate(strings.Split(p.MustInfo().URL, "?")[0] + "/show")
	p.see("h1", "What we found")
	p.MustElement("svg[data-view=back] path")
	p.click("a", "Back to the visit")
	p.see("button", "Undo")
	stepTo(p, "Suspect")
	p.see("h2", "Next best test")
	p.tap(p.MustElementX(`(//*[@aria-label="Suspects, likeliest first"]//button)[1]`))
	shot("suspects")
	p.click("button", "Hide muscle")
	stepTo(p, "Find")
	time.Sleep(600 * time.Millisecond)
	mark(p, 181, 842)
	p.see("h2", "Soleus, left")
	p.tap(p.MustElementX(`//button[text()="Usual pattern"]`))
	p.still()
	shot("find")
	chart(p, 6, "yes")
	p.click("a", "^Press$")
	p.tap(p.MustElementX(`(//*[@data-choices]//*[@role="radiogroup"][@aria-label="Contact"]//button)[1]`))
	beginHold(p)
	phase(p, "ready")
	p.press(input.Space)
	time.Sleep(1500 * time.Millisecond)
	p.press(input.Digit6)
	time.Sleep(6 * time.Second)
	p.press(input.Digit5)
	time.Sleep(2 * time.Second)
	shot("hold")
	p.press(input.KeyR)
	padShots(p, s, dir, shot)
	p.MustNavigate(strings.Split(p.MustInfo().URL, "/hold/")[0] + "?step=recheck")
	p.see("h2", "Recheck")
	shot("recheck")

	planShots(p, shot)
	p.MustNavigate(p.base + "/atlas/infraspinatus?side=right&with=supraspinatus")
	p.see("h2", "Infraspinatus")
	p.tap(p.MustElementX(`//button[text()="bones"]`))
	shot("atlas")
	newVisit(p, demoClient(1))
	p.sent()
	screened(p)
	stepTo(p, "Measure")
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Joint"]//button[text()="Knee"]`))
	in := p.MustElementX(`(//*[@data-movement="knee.flexion"]//input)[1]`)
	in.MustSelectAllText().MustInput("118").MustBlur()
	p.MustElement(`[data-pose="knee.flexion"][data-deg="118"]`)
	shot("measure")
	stepTo(p, "Plan")
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Part of the session"]//button[text()="Lengthening"]`))
	p.click(`[data-offer="calf-and-sole"] button`, "^Begin$")
	p.MustElement(`main[data-run][data-at="0"]`)
	p.press(input.Space)
	p.MustElement(`main[data-at="1"]`)
	time.Sleep(7 * time.Second)
	shot("sequence")
}
