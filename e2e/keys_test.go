package e2e

import (
	"strconv"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// on puts the focus where the tab key or, inside a group of chips, an arrow
// would: what cannot take the focus fails.
func (p *page) on(xpath string, keys ...input.Key) {
	p.t.Helper()
	e := p.MustElementX(xpath)
	e.MustFocus()
	require.True(p.t, e.MustEval(`() => document.activeElement === this`).Bool(), "%s takes no focus", xpath)
	p.press(keys...)
}

// write types into a field by its label.
func (p *page) write(label, value string) {
	p.t.Helper()
	p.on(`//label[text()="` + label + `"]/following-sibling::*[self::input or self::textarea]`)
	p.MustInsertText(value)
}

// typed finds an option of a list by typing its name.
func (p *page) typed(label, option string) {
	p.t.Helper()
	p.MustElementX(listOf(label) + `//input`).MustSelectAllText()
	p.MustInsertText(option)
	p.MustElementX(`//*[@role="option"][normalize-space()="` + option + `"]`)
	p.press(input.ArrowDown, input.Enter)
}

// day types a date into the parts of a field, day first.
func (p *page) day(label, digits string) {
	p.t.Helper()
	p.MustElementX(listOf(label) + `//*[@role="spinbutton"]`).MustFocus()
	for _, d := range digits {
		p.press(input.Key(d))
	}
}

func (p *page) chip(group, value string) {
	p.t.Helper()
	p.on(`//*[@role="radiogroup"][starts-with(@aria-label, "`+group+`")]//button[text()="`+value+`"]`, input.Space)
}

func button(text string) string { return `//button[normalize-space()="` + text + `"]` }

func step(name string) string {
	return `//nav[@aria-label="Steps of the visit"]//a[starts-with(@aria-label, "` + name + `")]`
}

// A new client from registration through the own device, screening, posture,
// range and tests to the suspects, without a pointer.
func TestANewClientByKeyboardAlone(t *testing.T) {
	t.Parallel()
	p := openPage(t, startServer(t).addr, "/")
	p.write("E-mail", demo.Logins[0].Email)
	p.write("Password", demo.Logins[0].Password)
	p.press(input.Enter)
	p.on(`//a[text()="Clients"]`, input.Enter)
	p.write("Given name", "Wilma")
	p.write("Family name", "Onlykeys")
	p.press(input.Enter)
	p.see("h1", "Wilma Onlykeys")
	p.on(button("Begin a visit"), input.Enter)
	p.see("button", "Undo")

	p.on(step("Pain"), input.Enter)
	p.on(button("Create code"), input.Enter)
	code := p.MustElement("[data-code]").MustText()
	phone := openPage(t, strings.TrimPrefix(p.base, "http://"), "/draw")
	phone.MustSetViewport(390, 844, 1, true)
	phone.write("Code from your therapist", code)
	phone.press(input.Enter)
	phone.see("h1", "Where does it hurt")
	phone.chip("Seen from", "Left sole")
	phone.MustElement("svg[data-view=sole-left][data-cells]")
	phone.on(`//*[name()="svg"][@data-view="sole-left"]`)
	for range 60 { // down to the heel, and no further
		phone.press(input.ArrowDown)
	}
	phone.see(".place", "heel, left")
	phone.press(input.ArrowUp, input.Enter)
	for range 2 { // a patch, row by row
		phone.press(input.ArrowLeft, input.ArrowLeft, input.ArrowUp, input.ArrowRight, input.ArrowRight,
			input.ArrowRight, input.ArrowUp)
	}
	phone.on(button("Next: History"), input.Enter)
	phone.write("What brings you here, in your own words?", "Heel in the morning")
	phone.chip("At its worst", "7")
	phone.on(`//*[@aria-label="Work and sport"]//button[text()="running"]`, input.Space)
	phone.on(button("Next: Health"), input.Enter)
	phone.see("h1", "anything we must know")
	for i := range phone.MustElements("[data-health]") {
		phone.on(`//*[@data-health="`+strconv.Itoa(i)+`"]//button[text()="No to the rest"]`, input.Space)
	}
	phone.see("p", "All answered")
	phone.on(button("Hand it in"), input.Enter)
	phone.see("[role=status]", "Your therapist has it")
	for _, kind := range []string{"drawing", "story", "answers"} {
		p.on(`//*[@data-entry="`+kind+`"]`+button("Accept"), input.Enter)
		p.MustWait(`(kind) => !document.querySelector('[data-entry="' + kind + '"]')`, kind)
	}
	p.see("h2", `cm² painted`)
	p.see("button", "^Kept$")
	p.see("textarea", "Heel in the morning")
	p.chip("At its worst", "5")
	p.on(button("Save history"), input.Enter)
	p.see("button", "^Kept$")

	p.on(step("Screen"), input.Enter)
	p.see("p", "Asked and answered for today") // confirmed from the own device
	p.chip("The client agrees", "Agreed")

	p.on(step("Measure"), input.Enter)
	p.chip("Joint", "Ankle")
	p.on(`//*[@data-movement="ankle.dorsiflexion-knee-bent"]//input`)
	p.MustInsertText("8")
	p.press(input.Enter)
	p.see(`[data-movement="ankle.dorsiflexion-knee-bent"] .flag`, "8°")
	p.chip("What to measure", "Posture")
	p.on(`//*[@data-measure="pelvis-height"]/button`, input.Enter)
	p.write("Distance (cm)", "30")
	p.write("Height difference (cm)", "2")
	p.press(input.Tab)
	p.chip("Which side is high", "left")
	p.on(button("Keep the reading"), input.Enter)
	p.see("[data-posture] li", "3.8°, left high")

	p.on(step("Suspect"), input.Enter)
	for _, test := range []string{"Calf length, knee bent", "Resisted ankle plantarflexion"} {
		p.typed("Any other test", test)
		p.chip("Left", "positive")
	}
	p.see("h2", "over 80 %")
	p.MustElement(`[data-suspect="soleus:left"]`)
	p.sent()
}
