package e2e

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

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
	shot := func(name string) { time.Sleep(400 * time.Millisecond); p.shot(filepath.Join(dir, name+".png")) }
	p.see("h1", "Mokren")
	p.MustElement("svg[data-view=back] path")
	shot("sign-in")
	p.signIn(demo.Logins[0])
	p.see("a", "Marta")
	shot("day")
	p.MustNavigate(p.base + "/clients")
	p.see("td", "Jonah")
	shot("clients")
	p.MustNavigate(p.base + clientPath(0))
	p.MustElement("svg[data-view=back] .mark")
	shot("client")
	p.MustNavigate(p.base + clientPath(1) + "/progress")
	p.see("h3", "Soleus")
	shot("progress")
	p.MustElement(`[data-movement="ankle.dorsiflexion-knee-straight"]`).MustScrollIntoView()
	shot("progress-range")
	p.MustNavigate(p.base + "/")
	p.see("a", "Jonah Petrak")
	p.MustElementX(`//li[contains(., 'Jonah Petrak')]//a[contains(@class, 'go')]`).MustClick()
	p.see("h2", "Range before")
	p.see("button", "Undo")
	for label, v := range map[string]string{"ankle.dorsiflexion-knee-straight": "6", "ankle.dorsiflexion-knee-bent": "14"} {
		in := p.MustElement(`[data-movement="` + label + `"] input`)
		in.MustSelectAllText().MustInput(v).MustBlur()
	}
	p.MustElement(`[data-movement="ankle.dorsiflexion-knee-straight"]`).MustScrollIntoView()
	shot("measure")
	p.click("a", "^Find$")
	mark(p, 181, 842)
	p.see("h2", "Soleus, left")
	p.MustElementX(`//button[text()="heel"]`).MustClick()
	shot("find")
	chart(p, 6, "yes")
	p.click("a", "^Press$")
	shot("press")
	p.click("button", "Begin the hold")
	p.MustElement(`main[data-phase=ready]`)
	p.press(input.Space)
	time.Sleep(1500 * time.Millisecond)
	p.press(input.Digit6)
	time.Sleep(6 * time.Second)
	p.press(input.Digit5)
	time.Sleep(2 * time.Second)
	shot("hold")
	p.press(input.Digit8)
	shot("hold-ease")
	p.press(input.Escape)
}
