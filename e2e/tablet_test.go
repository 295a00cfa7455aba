package e2e

import (
	"context"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/rights"
	"mokren/demo"
	"mokren/store"
)

// elsewhere makes another practice with one therapist.
func elsewhere(t *testing.T, s *server) demo.Login {
	t.Helper()
	l := demo.Login{Name: "Far Away", Email: uuid.NewString()[:8] + "@elsewhere.example", Password: "other-words-5"}
	who := store.Principal{Practice: uuid.New(), Person: uuid.New(), Role: rights.Therapist}
	ctx, st := context.Background(), s.asApp(t)
	require.NoError(t, st.As(ctx, who, store.Action{Verb: "write", Kind: "test"}, func(tx *store.Tx) error {
		if err := tx.NewPractice(ctx, "Elsewhere", "Europe/Vienna"); err != nil {
			return err
		}
		return tx.NewPerson(ctx, who.Person, l.Name, rights.Therapist, l.Email, l.Password)
	}))
	return l
}

// D2: on a shared tablet the visit of one practice does not open for another,
// neither with the server's "no" nor without any answer.
func TestD2AnotherPracticesVisitDoesNotOpenOnASharedTablet(t *testing.T) {
	t.Parallel() // most of it is waiting
	s := startServer(t)
	w := newWire(t, s.addr)
	stranger := elsewhere(t, s)
	p := signedIn(t, w.l.Addr().String(), demo.Logins[0])
	client := ownClient(p, t.Name())
	newVisit(p, client)
	p.see("h1", "Test")
	p.sent()
	address := p.MustInfo().URL
	copies := func() int {
		return p.MustEval(`() => new Promise((done) => { const r = indexedDB.open("mokren"); r.onsuccess = () => {
			const d = r.result, q = d.transaction("copies").objectStore("copies").count();
			q.onsuccess = () => { d.close(); done(q.result); }; }; })`).Int()
	}
	assert.Equal(t, 1, copies(), "kept for opening it without a connection")

	// Its own person opens it without a connection.
	p.click("a", "^Day$")
	w.Cut(true)
	p.travel(address)
	p.see("nav[aria-label='Steps of the visit']", "Screen")
	w.Cut(false)

	p.MustNavigate(p.base + "/")
	p.click("button", "Sign out")
	p.MustElement(`input[name=email]`)
	p.signIn(stranger)
	assert.Zero(t, copies(), "gone with the sign-out")
	p.MustNavigate(address)
	p.see("[role=alert]", "no such record")
	assert.NotContains(t, p.text(), "Test "+t.Name())
	w.Cut(true)
	p.click("button", "Try again")
	p.see("[role=alert]", "No connection")
	assert.NotContains(t, p.text(), t.Name())
}

// Two tabs of one device: one sends for both, and each sees what the other
// wrote, at once and without a connection too.
func TestTwoTabsSendOnceAndListen(t *testing.T) {
	t.Parallel()
	s := startServer(t)
	w := newWire(t, s.addr)
	a := signedIn(t, w.l.Addr().String(), demo.Logins[0])
	client := ownClient(a, t.Name())
	newVisit(a, client)
	a.see("h1", "Test")
	a.sent()
	second := a.Browser().MustPage(a.MustInfo().URL).Timeout(120 * time.Second)
	b := &page{Page: second, t: t, base: a.base, session: a.session}
	b.MustSetViewport(1280, 800, 1, false)
	b.see("h1", "Test")
	w.Cut(true)
	note := func(p *page, text string) {
		p.MustActivate()
		stepTo(p, "Close")
		p.MustElement("textarea").MustSelectAllText().MustInput(text).MustBlur()
	}
	note(a, "first")
	note(b, "second")
	w.Cut(false)
	b.sent()
	a.MustActivate()
	a.sent()
	var texts []string
	require.NoError(t, db(t).Select(&texts, `select body->>'text' from visit_event where client_id = $1
		and type = 'note-written' order by version`, client))
	assert.ElementsMatch(t, []string{"first", "second"}, texts, "each once")
	stepTo(a, "Pain")
	stepTo(a, "Close")
	assert.Equal(t, "second", a.MustElement("textarea").MustText(), "the other tab's word arrived")
}
