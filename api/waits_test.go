package api_test

import (
	"context"
	"fmt"
	"io"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/rights"
	"mokren/core/visit"
	"mokren/demo"
)

// joined is a new member of the practice, signed in.
func (c *caller) joined(name string, role rights.Role) (*caller, api.Me) {
	c.t.Helper()
	email := newEmail()
	_, path := c.invite(name, role, email)
	require.Less(c.t, c.again().join(path, "river-and-stone").StatusCode, 300)
	one := c.again()
	return one, one.signIn(demo.Login{Email: email, Password: "river-and-stone"})
}

func (c *caller) waits() api.PracticeView {
	c.t.Helper()
	var out api.PracticeView
	require.Equal(c.t, 200, c.call("GET", "/api/practice/view", nil, &out).StatusCode)
	return out
}

// A note waits for its name; a student's waits on for the second one.
func TestAStudentsNoteWaitsForTheSecondName(t *testing.T) {
	owner, login := ownPractice(t, api.Options{})
	me := owner.signIn(login)
	student, learner := owner.joined("Sam Quill", rights.Student)
	path, event := student.sendable(learner)
	note := func(kind, name string) map[string]any {
		e := event(kind, map[string]any{"name": name})
		if kind == "note-signed" {
			e["body"] = visit.NoteSigned{NoteText: visit.NoteText{Subjective: "Ache"}, Name: name}
		}
		if kind == "note-countersigned" {
			e["author"], e["device"] = me.ID, uuid.NewString()
		}
		return e
	}
	require.Equal(t, 200, student.send(path, event("visit-opened", map[string]any{})).StatusCode)
	assert.Empty(t, owner.waits().Unsigned, "a visit that is open has time")
	require.Equal(t, 200, student.send(path, event("visit-closed", map[string]any{})).StatusCode)
	require.Len(t, owner.waits().Unsigned, 1)
	assert.False(t, owner.waits().Unsigned[0].Awaits)
	require.Equal(t, 200, student.send(path, note("note-signed", "Sam Quill")).StatusCode)
	require.Len(t, owner.waits().Unsigned, 1)
	assert.True(t, owner.waits().Unsigned[0].Awaits)
	require.Equal(t, 200, owner.send(path, note("note-countersigned", "Runa Holt")).StatusCode)
	assert.Empty(t, owner.waits().Unsigned)
}

// A licence that ends is said to an owner, and to whose it is.
func TestWhoIsToldThatALicenceEnds(t *testing.T) {
	owner, _ := ownPractice(t, api.Options{})
	one, ada := owner.joined("Ada Quill", rights.Therapist)
	other, _ := owner.joined("Bo Reed", rights.Therapist)
	for _, k := range []struct {
		days          int
		said, expired bool
	}{{-1, true, true}, {1, true, false}, {58, true, false}, {62, false, false}} {
		until := time.Now().UTC().AddDate(0, 0, k.days).Format(time.DateOnly)
		body := map[string]any{"name": ada.Name, "role": "therapist", "licence": "State 7", "licence_until": until}
		require.Less(t, owner.call("PUT", "/api/people/"+ada.ID, body, nil).StatusCode, 300)
		var want []api.EndingLicence
		if k.said {
			want = []api.EndingLicence{{Name: "Ada Quill", Licence: "State 7", Until: until, Expired: k.expired}}
		}
		assert.ElementsMatch(t, want, owner.waits().Licences, "%d days", k.days)
		assert.ElementsMatch(t, want, one.waits().Licences, "%d days", k.days)
		assert.Empty(t, other.waits().Licences)
	}
}

// A disk that is full is said as such; nothing of the batch is stored, and the same
// batch goes through when there is room.
func TestAFullDiskIsSaidAndNothingIsLost(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, event := c.sendable(c.signIn(demo.Logins[0]))
	of := strings.TrimPrefix(path, "/api/visits/")
	batch := []any{event("visit-opened", map[string]any{}), event("note-written", map[string]any{"text": "kept"})}
	db := adminDB(t)
	db.MustExec(fmt.Sprintf(`create function full_disk() returns trigger language plpgsql as $$ begin
		if new.visit_id = '%s' then raise 'no space left on device' using errcode = 'disk_full'; end if;
		return new; end $$`, of))
	db.MustExec(`create trigger full_disk before insert on visit_event for each row execute function full_disk()`)
	stored := func() (n int) {
		require.NoError(t, db.Get(&n, `select count(*) from visit_event where visit_id = $1`, of))
		return n
	}
	res := c.send(path, batch...)
	said, err := io.ReadAll(res.Body)
	db.MustExec(`drop function full_disk() cascade`)
	require.NoError(t, err)
	assert.Equal(t, 503, res.StatusCode)
	assert.Contains(t, string(said), "disk is full")
	assert.Zero(t, stored())
	assert.Equal(t, 200, c.send(path, batch...).StatusCode)
	assert.Equal(t, 2, stored())
}

// Whoever goes away while the rights are looked up is let go without a word, and
// without a panic.
func TestACallerWhoGoesAway(t *testing.T) {
	c := newLongCare(t)
	ctx, goAway := context.WithCancel(t.Context())
	gone := false
	c.sent.done = func(sql string) {
		if strings.Contains(sql, "from session where token") { // the rights are read next
			gone = true
			goAway()
		}
	}
	req := httptest.NewRequest("GET", c.base+"/api/day", nil).WithContext(ctx)
	for _, cookie := range c.http.Jar.Cookies(req.URL) {
		req.AddCookie(cookie)
	}
	res := httptest.NewRecorder()
	c.h.ServeHTTP(res, req)
	require.True(t, gone, "the rights were about to be looked up")
	assert.Less(t, res.Code, 500, res.Body.String())
	assert.Empty(t, res.Body.String())
}
