package e2e

import (
	"os"
	"strconv"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// pick chooses from a list by its label, once the option is there.
func (p *page) pick(label, option string) {
	p.t.Helper()
	p.tap(p.MustElementX(listOf(label) + `/descendant-or-self::button`))
	p.tap(p.MustElementX(`//*[@role="option"][normalize-space()="` + option + `"]`))
}

// listOf is what opens a list: a button, or a field to type into with one.
func listOf(label string) string {
	return `//*[self::label or self::span][text()="` + label + `"]/following-sibling::*[1]`
}

// num types into a number field by its label.
func (p *page) num(label, value string) {
	p.t.Helper()
	p.MustElementX(`//label[text()="` + label +
		`"]/following-sibling::input`).MustSelectAllText().MustInput(value).MustBlur()
}

func inesAt(t *testing.T, path string) *page {
	t.Helper()
	p := signedIn(t, startServer(t).addr, demo.Logins[0])
	p.MustNavigate(p.base + path)
	return p
}

func TestAtlasFindsByNameAndByPain(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/atlas")
	p.see("h2", "Choose a muscle")
	p.MustElementX(`//label[text()="Name, Latin or common"]/following-sibling::input`).MustInput("infraspinatis")
	p.click("ul[aria-label=Muscles] button", "^Infraspinatus")
	p.see("h2", "Infraspinatus")
	p.MustElement(`svg[data-view=back] [data-mark="upper-inner"]`)
	p.pick("Beside it", "Supraspinatus")
	p.see("p", "rings")
	// By pain, by keyboard: the place from a list, the muscle with Enter.
	p.tap(p.MustElementX(`//button[text()="By pain"]`))
	p.pick("Place", "Anterior shoulder, right (front)")
	first := p.see(`ul[aria-label^="Muscles that usually"] button`, "Infraspinatus, right")
	first.MustFocus()
	p.press(input.Enter)
	p.see("h2", "Infraspinatus")
	p.see(`[aria-live]`, "Anterior shoulder, right")
	// Keep off: every structure of the view has a name that focus brings out.
	p.tap(p.MustElementX(`//button[text()="Keep off"]`))
	p.see(`ul[aria-label^="Structures"] button`, "Sciatic nerve").MustFocus()
	p.see("h2", "Sciatic nerve")
}

func TestThePracticesNotesAndSites(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/atlas/pectineus")
	p.see("h2", "Pectineus")
	p.MustElement("textarea").MustInput("Warm hands first.")
	p.click("button", "Keep the note")
	p.see("label", "last by Ines")
	p.click("button", "Add an own site")
	p.click("button", "Keep the site")
	p.see(".error", "needs a name")
	p.MustElementX(`//label[text()="Name of the site"]/following-sibling::input`).MustInput("Outer edge")
	p.click("button", "Keep the site")
	p.see("li", "Outer edge")
	p.MustElement(`svg[data-view=front] [aria-label="Outer edge"]`)
	p.click("button", "^Remove$")
	p.click("button", "Bring it back")
	p.see("li", "Outer edge")
	p.click("button", "Restore what was shipped")
	p.see("[role=alert]", "1 own site ")
	p.click("button", "^Restore$")
	p.see("label", "^Note$")
	var n int
	require.NoError(t, db(t).Get(&n,
		`select (select count(*) from atlas_note where muscle = 'pectineus') + (select count(*) from atlas_site
			where muscle = 'pectineus' and removed_at is null)`))
	assert.Zero(t, n)
}

// The guide goes step by step on the pedal (which is a key), to the end.
func TestGuideByPedal(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/guide/piriformis/right")
	p.MustElement(`main[data-step="0"]`)
	p.see("p.kind", "Landmark: PSIS")
	for n := 1; ; n++ {
		p.press(input.Space)
		p.MustElement(`main[data-step="` + strconv.Itoa(n) + `"]`)
		if b, _, _ := p.HasR("p.kind", "Confirm"); b {
			break
		}
		require.Less(t, n, 20)
	}
	p.see("p.keep", "Gluteus maximus before piriformis")
	p.press(input.ArrowLeft)
	p.see("p.kind", "Along the fibres")
	p.press(input.KeyS)
	p.see(".head span", "Toward the trochanter")
	p.MustElement(`main[data-step="0"]`)
}

func TestSpineFinder(t *testing.T) {
	t.Parallel()
	p := inesAt(t, "/spine")
	p.see("[data-level]", "L4")
	p.click("button", "Lower angle of the blade")
	p.see("[data-level]", "T7")
	p.see("[data-beside] td", "Transverse process of T8")
	p.click("button", "Count from T7")
	p.MustElement("svg[data-view=back]").MustFocus()
	p.press(input.ArrowDown, input.ArrowDown)
	p.see("[aria-live]", "T9 is 2 below T7")
	mark(p, 190, 263) // the lower angle itself
	p.see("[data-level]", "T7")
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="cm"]//button[text()="2"]`))
	p.click("button", "^Keep$")
	p.see("p", "Used for every distance")
	p.see("[data-beside] th", "4 cm")
}

// Painting by mouse and by keys, undo, redo, the other side, an earlier
// drawing beside it, and all of it in the record.
func TestPainDrawing(t *testing.T) {
	t.Parallel()
	p, client := visiting(t, "Drawing")
	stepTo(p, "Pain")
	cells := func(want string) {
		t.Helper()
		_, err := p.Element(`svg[data-view=back][data-cells="` + want + `"]`)
		require.NoError(t, err, "not %s cells: %v", want,
			*p.MustElement("svg[data-view=back]").MustAttribute("data-cells"))
	}
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Brush"]//button[text()="fine"]`))
	paint(p, "back", [][2]float64{{200, 400}})
	cells("1")
	p.click("button", "Also on the other side")
	cells("2")
	p.tap(p.MustElement(`button[aria-label="Undo the last stroke"]`))
	cells("1")
	p.tap(p.MustElement(`button[aria-label="Redo the stroke"]`))
	cells("2")
	// By keys: Space paints, Enter keeps the brush down.
	p.MustElement("svg[data-view=back]").MustFocus()
	p.press(input.Space)
	cells("3")
	p.press(input.ArrowDown, input.Enter, input.ArrowDown, input.ArrowDown)
	cells("6")
	p.see("[aria-live]", "spine")
	p.see("h2", `cm² painted`)
	p.sent()
	var n int
	require.NoError(t, db(t).Get(&n,
		`select jsonb_array_length(strokes->0->'cells') from pain_drawing d join visit v on v.id = d.visit_id where v.client_id = $1`, client))
	assert.Equal(t, 6, n)

	// A client with earlier drawings: both laid over each other, in words.
	newVisit(p, demoClient(3))
	stepTo(p, "Pain")
	paint(p, "back", [][2]float64{{150, 480}, {150, 500}})
	p.see("h2", `cm² painted`) // what it says of the places moves what is below it
	p.still()
	p.tap(p.MustElementX(`//*[@role="radiogroup"][@aria-label="Lay over an earlier drawing"]//button[2]`))
	p.see("[data-compare] dd", `→`)
	p.see("[data-compare]", "Overlap")
}

// The client draws on an own, narrow device that knows no name; the therapist
// takes it in.
func TestTheClientDrawsOnAnOwnDevice(t *testing.T) {
	t.Parallel()
	p, _ := visiting(t, "Own-Device")
	stepTo(p, "Pain")
	p.click("button", "Create code")
	code := p.MustElement("[data-code]").MustText()

	phone := openPage(t, strings.TrimPrefix(p.base, "http://"), "/draw")
	phone.MustSetViewport(390, 844, 1, true)
	phone.MustElement("input[name=code]").MustInput("abc")
	phone.click("button", "Go on")
	phone.see(".error", "eight")
	phone.MustElement("input[name=code]").MustSelectAllText().MustInput(code)
	phone.click("button", "Go on")
	phone.see("h1", "Where does it hurt")
	assert.NotContains(t, phone.text(), "Own-Device")
	phone.tap(phone.MustElementX(`//*[@role="radiogroup"][@aria-label="Seen from"]//button[text()="Back"]`))
	paint(phone, "back", [][2]float64{{200, 400}, {210, 420}})
	// Closed by mistake: what was painted is still there.
	phone.MustReload()
	phone.see("h1", "Where does it hurt")
	phone.MustWait(`() => Number(document.querySelector("svg[data-view=back]")?.dataset.cells) > 5`)
	wide := phone.MustEval(`() => document.documentElement.scrollWidth`).Int()
	assert.LessOrEqual(t, wide, 390, "no sideways scrolling")
	if dir := os.Getenv("MOKREN_SHOTS_DIR"); dir != "" {
		phone.shot(dir + "/own-device.png")
	}
	phone.click("button", "Hand it in")
	phone.see("[role=status]", "Your therapist has it")
	assert.Zero(t, phone.MustEval(`() => localStorage.length`).Int(), "nothing stays on the device")

	p.see(`[role=status]`, "The client has drawn")
	p.click("button", "Accept")
	p.see("h2", `cm² painted`)
	p.sent()

	// Handed in again after it was taken: a new one, left out and brought back.
	paint(phone, "back", [][2]float64{{180, 500}, {190, 520}})
	phone.click("button", "Next: History")
	phone.MustElement("textarea").MustInput("Since the move")
	phone.click("button", "Hand it in")
	phone.see("[role=status]", "Your therapist has it")
	p.see("[data-entry=drawing]", "The client has drawn")
	p.see("[data-entry=story]", "Since the move")
	p.tap(p.MustElementX(`//*[@data-entry="story"]//button[text()="Skip"]`))
	p.see("[role=status]", "Left out: The client has told the story")
	p.click("button", "Bring it back")
	p.tap(p.MustElementX(`//*[@data-entry="story"]//button[text()="Accept"]`))
	p.MustWait(`() => document.querySelector("[data-story] textarea").value === "Since the move"`)
	phone.MustNavigate(phone.base + "/draw/BBBBBBBB")
	phone.see("[role=alert]", "not known")
}

func TestNoAxeViolationsInAtlasAndDrawing(t *testing.T) {
	t.Parallel()
	p := withAxe(t, demo.Logins[0])
	for path, h := range map[string]string{
		"/atlas/levator-scapulae?with=upper-trapezius": "Levator scapulae",
		"/spine": "Landmarks", "/guide/soleus/left": "Soleus, left",
	} {
		p.MustNavigate(p.base + path)
		p.see("h1, h2", h)
		p.MustElement("svg[data-view] path")
		noViolations(p, path)
	}
	newVisit(p, demoClient(0))
	stepTo(p, "Pain")
	p.MustElement("svg[data-view=back][data-cells] path")
	noViolations(p, "pain")
	p.MustNavigate(p.base + "/draw")
	p.see("h1", "Your code")
	noViolations(p, "code")
}
