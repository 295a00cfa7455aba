package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
	"mokren/store"
)

// fetched is a file as the signed-in page downloads it.
func (p *page) fetched(path string) string {
	p.t.Helper()
	return p.MustEval(`async (path) => {
		const res = await fetch(path);
		if (!res.ok) return "";
		const bytes = new Uint8Array(await res.arrayBuffer());
		return Array.from(bytes, (b) => String.fromCharCode(b)).join("");
	}`, path).Str()
}

// anotherPractice is an empty one on the same database, with its owner's login.
func anotherPractice(t *testing.T) demo.Login {
	t.Helper()
	st := databaseOf(t).asApp(t)
	who := store.Principal{Practice: uuid.New(), Person: uuid.New(), Role: "owner"}
	l := demo.Login{Name: "Otta Vries", Email: uuid.NewString() + "@elsewhere.example", Password: "quiet-hands-7"}
	require.NoError(t, st.As(t.Context(), who, store.Action{Verb: "test", Kind: "test"}, func(tx *store.Tx) error {
		if err := tx.NewPractice(t.Context(), "Elsewhere", "Europe/Vienna"); err != nil {
			return err
		}
		return tx.NewPerson(t.Context(), who.Person, l.Name, "owner", l.Email, l.Password)
	}))
	return l
}

// A note is edited, signed when the visit is closed, and only added to from then on;
// it is printed; its client goes out as an archive and into another practice, where
// the signed note stands.
func TestANoteIsSignedPrintedAndTakenElsewhere(t *testing.T) {
	t.Parallel()
	p, client := visiting(t, "Signing-Otter")
	visit := strings.Split(strings.TrimPrefix(p.MustInfo().URL, p.base+"/visits/"), "?")[0]
	p.MustNavigate(p.base + "/visits/" + visit + "?step=close")
	p.see("[data-note=written]", "Nothing was measured, charted or pressed")
	assert.False(t, p.MustHasR("button", "Sign as"), "an open visit is not signed")
	p.click("button", "Edit the note")
	p.MustElementX(`//textarea[@id = //label[text()="Plan"]/@for]`).MustSelectAllText().MustInput("Again on Monday.")
	p.click("button", "Keep it")
	p.see("[data-note=edited]", "Again on Monday")
	p.click("button", "Close the visit")
	p.click("button", "Sign as Ines Calder")
	p.see("[data-note=signed]", "Signed by Ines Calder")
	assert.False(t, p.MustHasR("button", "Edit the note"))
	p.MustElementX(`//textarea[@id = //label[text()="Addendum"]/@for]`).MustInput("She called: all well.")
	p.click("button", "Add it")
	p.see("[data-addenda]", "all well")
	p.sent()

	p.MustEval(`() => {
		const kept = URL.createObjectURL;
		URL.createObjectURL = (file) => { window.saved = file; return kept(file); };
	}`)
	p.click("a", "Print the note")
	p.MustWait(`() => window.saved?.type === "application/pdf" && window.saved.size > 5000`)
	pdf := p.fetched("/api/visits/" + visit + "/print/note")
	assert.True(t, strings.HasPrefix(pdf, "%PDF-"))
	archive := p.fetched("/api/clients/" + client + "/export/archive")
	require.Contains(t, archive, "Again on Monday.")
	file := filepath.Join(t.TempDir(), "otter.json")
	require.NoError(t, os.WriteFile(file, []byte(archive), 0o600))

	other := openPage(t, strings.TrimPrefix(p.base, "http://"), "/")
	other.signIn(anotherPractice(t))
	other.MustNavigate(other.base + "/practice")
	other.see("h2", "Export and import")
	other.MustElement(`[data-records] input[type=file]`).MustSetFiles(file)
	other.see("[data-preview]", "brings 1 client, 1 visit")
	assert.False(t, other.MustHasR("a", "Signing-Otter"))
	other.click("button", "Import")
	other.see("[role=status]", "Imported: 1 client, 1 visit")
	other.MustNavigate(other.base + "/visits/" + visit + "?step=close")
	other.see("[data-note=signed]", "Signed by Ines Calder")
	other.see("[data-addenda]", "all well")
	other.MustNavigate(other.base + "/practice")
	other.click("button", "^Undo$")
	other.see("[data-records]", "undone")
	other.MustNavigate(other.base + "/clients")
	other.see("main", "Nobody|No client|Clients")
	assert.False(t, other.MustHasR("a", "Signing-Otter"))
}

// A series keeps its hour over the change of clocks; what stands against an
// appointment is said before it is booked.
func TestASeriesOverTheChangeOfClocks(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	p := signedIn(t, s.addr, demo.Logins[0])
	ownClient(p, "Clockwise-Heron")
	// The Monday before the last Sunday of next March.
	year := time.Now().Year() + 1
	change := time.Date(year, 3, 31, 12, 0, 0, 0, time.UTC)
	for change.Weekday() != time.Sunday {
		change = change.AddDate(0, 0, -1)
	}
	monday := change.AddDate(0, 0, -6).Format(time.DateOnly)
	p.MustNavigate(p.base + "/week/" + monday)
	p.see(".head small", "clocks go forward")
	p.MustElement(fmt.Sprintf(`[data-grid] [data-date="%s"]`, monday)).MustWaitVisible()
	p.typed("Client", "Test Clockwise-Heron")
	p.MustElementX(`//input[@id = //label[text()="Time"]/@for]`).MustSelectAllText().MustInput("09:30")
	p.chip("Repeat", "weekly")
	p.num("Times", "3")
	p.click("button", "Book the series")
	p.see("[role=status]", "Booked: 3 appointments")
	p.see("[data-grid] [data-visit]", "09:30")
	p.MustNavigate(p.base + "/week/" + change.AddDate(0, 0, 1).Format(time.DateOnly))
	e := p.see("[data-grid] [data-visit]", "Heron")
	assert.Contains(t, e.MustText(), "09:30", "the same hour after the change")
	var starts []time.Time
	require.NoError(t, db(t).Select(&starts, `select starts_at from visit v join client c
		on c.practice_id = v.practice_id and c.id = v.client_id where c.family_name = 'Clockwise-Heron' order by 1`))
	require.Len(t, starts, 3)
	assert.Equal(t, 7*24*time.Hour-time.Hour, starts[1].Sub(starts[0]), "the week with the change is an hour shorter")
	assert.Equal(t, 7*24*time.Hour, starts[2].Sub(starts[1]))

	// The same hour again: the therapist is taken.
	p.MustNavigate(p.base + "/week/" + monday)
	p.typed("Client", "Test Clockwise-Heron")
	p.MustElementX(`//input[@id = //label[text()="Time"]/@for]`).MustSelectAllText().MustInput("10:00")
	p.click("button", "^Book it$")
	p.see("[data-clashes]", "another appointment then")
	p.click("[data-grid] [data-visit]", "Heron")
	p.click("button", "Cancel this and the later ones")
	p.see("[data-appointment=cancelled]", "Cancelled")
	var left int
	require.NoError(t, db(t).Get(&left, `select count(*) from visit v join client c on c.practice_id = v.practice_id
		and c.id = v.client_id where c.family_name = 'Clockwise-Heron' and v.status = 'booked'`))
	assert.Zero(t, left)
	p.press(input.Escape)
}
