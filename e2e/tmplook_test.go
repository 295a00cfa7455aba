package e2e

import (
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"

	"mokren/demo"
)

func TestTmpLook(t *testing.T) {
	s := startServer(t)
	p := openPage(t, s.addr, "/")
	shot := func(n string) { p.still(); time.Sleep(500 * time.Millisecond); p.shot("/tmp/shots/" + n + ".png") }
	p.signIn(demo.Logins[0])
	p.see("a", "Jonah Petrak")
	p.MustElementX(`//li[contains(., 'Jonah Petrak')]//a[contains(@class, 'go')]`).MustClick()
	p.see("button", "Undo")
	stepTo(p, "Last")
	p.see("[data-last] h2", "Last time")
	shot("a-last")
	stepTo(p, "Pain")
	p.see("h2", "Where does it hurt")
	paint(p, "back", [][2]float64{{176, 955}, {180, 968}, {186, 982}})
	shot("b-pain")
	stepTo(p, "Measure")
	p.see("h2", "Range before")
	shot("c-measure")
	part(p, "Posture")
	shot("d-posture")
	opened(p, "Looked", "Press", calf, spot{"soleus", "left"}, spot{"upper-trapezius", "right"})
	p.MustElement("[data-point-id]")
	shot("e-press"); p.MustElementX(`(//*[@data-point-id])[2]//h2//button`).MustClick(); shot("e-press2")
	p.MustSetViewport(820, 1180, 1, false)
	shot("f-press-up")
	p.MustSetViewport(1280, 800, 1, false)
	stepTo(p, "Find")
	shot("g-find")
	p.MustNavigate(p.base + "/practice")
	time.Sleep(time.Second)
	shot("h-practice")
	p.MustNavigate(p.base + "/spine")
	time.Sleep(time.Second)
	shot("i-spine")
	p.MustNavigate(p.base + "/atlas")
	p.MustElementX(`//button[text()="muscles"]`).MustClick()
	time.Sleep(time.Second)
	shot("j-atlas")
	_ = input.Space
}
