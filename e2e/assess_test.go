package e2e

import (
	"bytes"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// From the story to a ranked suspect: pain, posture, range and a test, each of
// which re-ranks at once and reaches the record.
func TestFromTheStoryToASuspect(t *testing.T) {
	t.Parallel()
	p, client := visiting(t, "Story")
	stepTo(p, "Pain")
	p.turn("sole-left")
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Brush"]//button[text()="broad"]`))
	paint(p, "sole-left", [][2]float64{{200, 870}, {280, 870}, {240, 930}})
	p.click("button", "Add an activity")
	p.MustElementX(`//label[text()="Activity they want to return to 1"]/following-sibling::input`).MustInput("Running")
	choose := func(group, value string) {
		t.Helper()
		e := p.MustElementX(`//*[@role="radiogroup"][starts-with(@aria-label, "` + group + `")]//button[text()="` +
			value + `"]`)
		e.MustFocus()
		p.press(input.Space) // by key
	}
	choose("At its worst", "4")
	choose("At its best", "6")
	p.see("[role=alert]", "above the worst")
	p.MustElementX(`//button[text()="Save history"][@disabled]`)
	p.tap(p.MustElementX(`//*[@role="radiogroup"][starts-with(@aria-label, "At its best")]//button[text()="1"]`))
	p.click("button", "Save history")
	p.see("button", "^Kept$")
	// What is typed and not kept by hand is kept on going to another step.
	p.MustElementX(`//label[text()="Medication"]/following-sibling::input`).MustInput("None")
	stepTo(p, "Screen")
	stepTo(p, "Pain")
	p.see("button", "^Kept$")
	p.MustWait(`() => [...document.querySelectorAll("[data-story] label")]
		.find((l) => l.textContent.startsWith("Medication")).nextElementSibling.value === "None"`)
	p.tap(p.MustElementX(`//button[text()="running"]`))
	screened(p)

	stepTo(p, "Measure")
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Joint"]//button[text()="Ankle"]`))
	p.MustElement(`[data-movement="ankle.eversion"]`)
	in := p.MustElement(`[data-movement="ankle.dorsiflexion-knee-bent"] input`)
	in.MustSelectAllText().MustInput("8").MustBlur()
	part(p, "Posture")
	p.click(`[data-measure="pelvis-height"] > button`, ".")
	p.click("button", "Keep the reading")
	p.see("[role=alert]", "Give the slope")
	p.num("Distance (cm)", "30")
	p.num("Height difference (cm)", "2")
	p.click("button", "Keep the reading")
	p.see("[role=alert]", "Which side")
	choose("Which side is high", "left")
	p.click("button", "Keep the reading")
	p.see("[data-posture] li", "3.8°, left high")

	stepTo(p, "Suspect")
	p.see("h2", "No muscle above 80 % yet")
	p.pick("Any other test", "Calf length, knee bent")
	choose("Left", "positive")
	p.pick("Any other test", "Resisted ankle plantarflexion")
	choose("Left", "positive")
	p.see("h2", "1 muscle over 80 %")
	p.MustElement(`[data-suspect="soleus:left"]`)
	p.sent()
	p.MustReload()
	p.see("h2", "1 muscle over 80 %")
	p.tap(p.MustElementX(`//*[@aria-label="Order"]//button[text()="by region"]`))
	p.see("h3", "Leg and foot")
	p.tap(p.MustElement(`[data-suspect="soleus:left"] button`))
	p.see(`[data-suspect="soleus:left"] td`, "Short: ankle dorsiflexion knee bent")
	p.see(`[data-suspect="soleus:left"] .cautions`, "clot|vein|swollen")
	p.click("button", "Go to palpation")
	p.MustElement(`nav a[aria-current=step][aria-label^=Find]`)
	p.MustElement(`svg[data-view=back] [data-muscle]`)
	p.MustElement(`[data-sought="soleus"] [data-site]`).MustClick() // one touch, and it can be charted
	p.see("h2", "Soleus, left")
	p.see("button", "Chart this point")
	stepTo(p, "Suspect")
	var n int
	require.NoError(t, db(t).Get(&n,
		`select count(*) from visit_event where client_id = $1
			and type in ('interview-noted', 'test-done', 'posture-read', 'loads-declared', 'range-measured', 'drawing-painted')`, client))
	assert.Equal(t, 8, n)

	p.click("a", "Show the client")
	p.see("p", "Your left side of the pelvis stands higher, by 3.8")
	p.see("h2", "Foot up, knee bent")
}

// A photograph is taken in, marked by keys, measured; a wrong file is refused
// with the reason; an earlier date lies beside it; removing is taken back.
func TestPhotographs(t *testing.T) {
	t.Parallel()
	p, _ := visiting(t, "Photo")
	part(p, "Photographs")
	dir := t.TempDir()
	text := filepath.Join(dir, "holiday.jpg")
	require.NoError(t, os.WriteFile(text, []byte("this is only text, whatever it is called"), 0o600))
	p.MustElement(`[data-view=front] input[type=file]`).MustSetFiles(text)
	p.see("[data-photos] [role=alert]", "not a JPEG or PNG")
	img := image.NewGray(image.Rect(0, 0, 400, 600))
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, img))
	good := filepath.Join(dir, "front.png")
	require.NoError(t, os.WriteFile(good, b.Bytes(), 0o600))
	p.MustElement(`[data-view=front] input[type=file]`).MustSetFiles(good)
	p.tap(p.MustElement(`[data-photos] img`))
	p.see("h1", "Front")
	p.see("[data-angles]", "Mark both acromions")
	p.pick("Add a landmark", "Acromion left")
	p.pick("Add a landmark", "Acromion right")
	p.see("[data-angles] dt", "Shoulder height")
	p.MustElement(`[data-point="acromion-left"]`).MustFocus()
	for range 14 { // 80 px apart: 14 px up is about 10 degrees
		p.press(input.ArrowUp)
	}
	p.see("[data-angles] dd", `^9.9° left high$`)
	p.tap(p.MustElement("[data-offsets] h3 button"))
	p.see("[data-offsets] dd", "cm left$") // both stand to the client's left of the plumb
	p.click("button", "Remove the picture")
	p.click("button", "Bring the picture back")
	p.see("button", "Remove the picture")

	// The demo's client has earlier visits: their readings and photographs lie beside.
	newVisit(p, demoClient(0))
	stepTo(p, "Measure")
	p.MustElement(`[data-movement="cervical.rotation"] line.ghost`)
	part(p, "Photographs")
	p.click("[data-photos] a", "earlier")
	p.see("[data-angles] dt", "Shoulder height")
	p.tap(p.MustElementX(`//button[text()="swiped"]`))
	p.MustElement("clipPath[id^=cut]")
}

// Three readings and their mean, before; the close-out asks for as many again.
func TestTheMeanOfThreeReadings(t *testing.T) {
	t.Parallel()
	p, client := visiting(t, "Trials")
	for _, at := range []struct {
		step   string
		reads  []string
		mean   string
		inText string
	}{
		{"Measure", []string{"60", "64", "65"}, "63", "Passive, pain"},
		{"Recheck", []string{"70", "71", "73"}, "71.3", "The mean of 3 readings"},
	} {
		stepTo(p, at.step)
		p.see(`[data-movement="cervical.rotation"] h3 > button`, at.inText)
		if at.step == "Measure" {
			p.tap(p.MustElement(`[data-movement="cervical.rotation"] h3 > button`))
		}
		for i, v := range at.reads {
			p.MustElements(`[data-movement="cervical.rotation"] .three input`)[i].MustSelectAllText().MustInput(v).MustBlur()
		}
		p.MustWait(`(want) => document.querySelector('[data-movement="cervical.rotation"] .entry input').value === want`, at.mean)
		// Passing through the mean's own field does not round it away.
		in := p.MustElement(`[data-movement="cervical.rotation"] .entry input`)
		in.MustFocus()
		in.MustBlur()
	}
	p.see(`[data-movement="cervical.rotation"] .flag`, `\+8°`)
	// Where it pulls is said by a touch on the body.
	stepTo(p, "Measure")
	p.see("h2", "Range before")
	p.tap(p.MustElement(`[data-movement="cervical.rotation"] h3 > button`))
	p.tap(p.MustElementX(`//*[@data-movement="cervical.rotation"]//*[@aria-label="Felt, left"]//button[text()="pull"]`))
	p.click("button", "Show where it is felt")
	mark(p, 300, 175)
	p.see("button", "^top of shoulder$")
	p.sent()
	var kept []string
	require.NoError(t, db(t).Select(&kept,
		`select body->>'trials' from visit_event where client_id = $1 and type = 'range-measured'
			and body->>'moment' = 'after' order by version desc limit 1`, client))
	assert.Equal(t, []string{"[70, 71, 73]"}, kept)
	require.NoError(t, db(t).Select(&kept,
		`select (body->>'trials') || (body->>'felt_region') || (body->>'tool') from visit_event where client_id = $1
			and type = 'range-measured' order by version desc limit 1`, client))
	assert.Equal(t, []string{"[60, 64, 65]top-of-shoulderinclinometer"}, kept, "the rest of the reading stays")
}
