package api_test

import (
	"cmp"
	"context"
	"encoding/json"
	"io"
	"net/http"
	"net/http/cookiejar"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/calc"
	"mokren/core/rights"
	"mokren/core/visit"
	"mokren/demo"
	"mokren/store"
	"mokren/store/storetest"
)

// operation is one of the API, as it describes itself.
type operation struct{ id, method, path string }

func operations(t *testing.T) []operation {
	t.Helper()
	raw, err := api.OpenAPI()
	require.NoError(t, err)
	var doc struct {
		Paths map[string]map[string]struct {
			ID string `json:"operationId"`
		} `json:"paths"`
	}
	require.NoError(t, json.Unmarshal(raw, &doc))
	var out []operation
	for path, methods := range doc.Paths {
		for method, op := range methods {
			out = append(out, operation{op.ID, strings.ToUpper(method), path})
		}
	}
	return out
}

// as gives a caller of the same server with a session of its own.
func (c *caller) as(l demo.Login) *caller {
	jar, _ := cookiejar.New(nil)
	other := &caller{c.t, c.base, &http.Client{Jar: jar}, nil}
	if l.Email != "" {
		other.signIn(l)
	}
	return other
}

// elsewhere makes a practice of its own with one therapist.
func elsewhere(t *testing.T) demo.Login {
	t.Helper()
	l := demo.Login{Name: "Far Away", Email: uuid.NewString()[:8] + "@elsewhere.example", Password: "other-words-5"}
	who := store.Principal{Practice: uuid.New(), Person: uuid.New(), Role: rights.Therapist}
	st := storetest.Open(t)
	require.NoError(t, st.As(context.Background(), who, store.Action{Verb: "write", Kind: "test"},
		func(tx *store.Tx) error {
			if err := tx.NewPractice(context.Background(), "Elsewhere", "Europe/Vienna"); err != nil {
				return err
			}
			return tx.NewPerson(context.Background(), who.Person, l.Name, rights.Therapist, l.Email, l.Password)
		}))
	return l
}

var parameter = regexp.MustCompile(`\{[a-z]+\}`)

// D7: every operation has a row, and every role gets what the row says: nobody,
// front desk, student, therapist, owner, and a therapist of another practice.
func TestD7EveryOperationByRole(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	visitID := aVisit(c)
	var day struct{ Items []api.Visit }
	c.call("GET", "/api/day", nil, &day)
	// A name that no other answer can hold by chance.
	item := slices.MaxFunc(day.Items, func(a, b api.Visit) int {
		return cmp.Compare(len(lastWord(a.Name)), len(lastWord(b.Name)))
	})
	clientID, family := item.Client, lastWord(item.Name)
	people := map[string]struct {
		role  rights.Role
		login demo.Login
	}{
		"owner":     {rights.Owner, demo.Logins[0]},
		"therapist": {rights.Therapist, demo.Logins[1]},
		"student":   {rights.Student, demo.Logins[2]},
		"desk":      {rights.FrontDesk, demo.Logins[3]},
		"nobody":    {rights.Nobody, demo.Login{}},
		"elsewhere": {rights.Therapist, elsewhere(t)},
	}
	described := map[string]bool{}
	ops := operations(t)
	for name, p := range people {
		who := c.as(p.login)
		for _, op := range ops {
			row := op.id
			if strings.HasPrefix(row, "calc-") {
				row = "calc"
			}
			described[row] = true
			require.Contains(t, rights.Operations(), row, "an operation without a row")
			if op.id == "sign-out" || op.id == "sign-in" {
				continue // everyone; it would end the walk
			}
			id := visitID
			if strings.HasPrefix(op.path, "/api/clients") {
				id = clientID
			}
			path := strings.ReplaceAll(op.path, "{id}", id)
			path = strings.ReplaceAll(path, "{code}", "BBBBBBBB")
			path = strings.ReplaceAll(path, "{view}", "back")
			path = parameter.ReplaceAllString(path, uuid.Nil.String())
			var body any
			if op.method == "PUT" || op.method == "POST" {
				body = `{}`
			}
			res := who.call(op.method, path, body, nil)
			text, err := io.ReadAll(res.Body)
			require.NoError(t, err)
			byCode := strings.Contains(op.path, "{code}")
			switch {
			case byCode:
				assert.Contains(t, []int{404, 422, 429}, res.StatusCode, "%s by %s: a wrong code", op.id, name)
			case p.role == rights.Nobody && !rights.MayCall(rights.Nobody, row):
				assert.Equal(t, 401, res.StatusCode, "%s by %s", op.id, name)
			case !rights.MayCall(p.role, row):
				assert.Equal(t, 403, res.StatusCode, "%s by %s", op.id, name)
			default:
				assert.NotContains(t, []int{401, 403, 500, 503}, res.StatusCode, "%s by %s: %s", op.id, name, text)
			}
			if name == "elsewhere" || name == "nobody" {
				assert.NotContains(t, string(text), family, "%s by %s", op.id, name)
			}
		}
	}
	c.call("POST", "/api/clients/"+clientID+"/restore", nil, nil) // the walk has put the client away
	for _, row := range rights.Operations() {
		assert.True(t, described[row], "a row without an operation: %s", row)
	}
}

// D7: no type of event reaches another practice's visit, and each role writes
// what its row says.
func TestD7EveryEventTypeByRoleOverHTTP(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, event := c.sendable(c.signIn(demo.Logins[0]))
	stranger := c.as(elsewhere(t))
	student, desk := c.as(demo.Logins[2]), c.as(demo.Logins[3])
	var me api.Me
	student.call("GET", "/api/session", nil, &me)
	for kind := range visit.Types() {
		assert.Equal(t, 404, stranger.send(path, event(kind, map[string]any{})).StatusCode, kind)
		assert.Equal(t, 403, desk.send(path, event(kind, map[string]any{})).StatusCode, kind)
		e := event(kind, map[string]any{})
		e["author"] = me.ID
		var a api.EventAnswer
		require.Equal(t, 200, student.call("POST", path+"/events", map[string]any{"events": []any{e}}, &a).StatusCode)
		if !visit.MayWrite(rights.Student, kind) {
			assert.Equal(t, "aside", a.Receipts[0].Result, kind)
		}
	}
}

// The front desk sees and writes contacts, and nothing clinical.
func TestD7TheFrontDeskSeesNothingClinical(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	desk := c.as(demo.Logins[3])
	id := uuid.NewString()
	put := map[string]any{
		"id": id, "given_name": "Clara", "family_name": "Clinical", "revision": 0, "complaint": "neck",
		"cautions": []string{"x"},
		"phone":    "1",
	}
	require.Equal(t, 200, c.call("PUT", "/api/clients/"+id, put, nil).StatusCode)
	var list struct{ Items []api.Client }
	require.Equal(t, 200, desk.call("GET", "/api/clients?q=Clinical", nil, &list).StatusCode)
	require.Len(t, list.Items, 1)
	assert.Empty(t, list.Items[0].Complaint)
	assert.Empty(t, list.Items[0].Cautions)
	assert.Equal(t, "1", list.Items[0].Phone)
	change := map[string]any{"id": id, "given_name": "Clara", "family_name": "Clinical", "revision": 1, "phone": "2"}
	require.Equal(t, 200, desk.call("PUT", "/api/clients/"+id, change, nil).StatusCode)
	require.Equal(t, 200, c.call("GET", "/api/clients?q=Clinical", nil, &list).StatusCode)
	assert.Equal(t, "neck", list.Items[0].Complaint, "what it does not see it does not wipe out")
	assert.Equal(t, "2", list.Items[0].Phone)
	var day struct{ Items []api.Visit }
	require.Equal(t, 200, desk.call("GET", "/api/day", nil, &day).StatusCode)
	for _, v := range day.Items {
		assert.Empty(t, v.Reason)
	}
}

// A change of role takes hold at once, in the middle of a session.
func TestD7ARoleIsReadAnew(t *testing.T) {
	c := newCaller(t, api.Options{})
	tomas := c.as(demo.Logins[1])
	require.Equal(t, 200, tomas.call("GET", "/api/evidence", nil, nil).StatusCode)
	raw := adminDB(t)
	refusals := func() (n int) {
		require.NoError(t, raw.Get(&n, `select count(*) from audit where outcome = 'refused' and kind = 'weights'`))
		return n
	}
	before := refusals()
	set := func(role string) {
		_, err := raw.Exec(`update person set role = $1 where name = $2`, role, demo.Logins[1].Name)
		require.NoError(t, err)
	}
	set("front-desk")
	defer set("therapist")
	assert.Equal(t, 403, tomas.call("GET", "/api/evidence", nil, nil).StatusCode)
	assert.Equal(t, before+1, refusals(), "D13: what was refused is in the audit")
}

func adminDB(t *testing.T) *sqlx.DB {
	t.Helper()
	raw, err := sqlx.Open("pgx", storetest.AdminURL())
	require.NoError(t, err)
	t.Cleanup(func() { raw.Close() })
	return raw
}

// D8: the core computes over HTTP for who has signed in or holds a code, within
// bounds, and stops when the caller leaves.
func TestD8CalcNeedsASignInOrACodeAndIsBounded(t *testing.T) {
	c := newCaller(t, api.Options{})
	const question = `{"measure":"nprs","before":7,"after":4}`
	nobody := c.as(demo.Login{})
	assert.Equal(t, 401, nobody.call("POST", "/api/calc/change", question, nil).StatusCode)
	path, _ := c.sendable(c.signIn(demo.Logins[0]))
	assert.Equal(t, 200, c.call("POST", "/api/calc/change", question, nil).StatusCode)
	var link api.NewLink
	require.Equal(t, 200, c.call("POST", path+"/link", nil, &link).StatusCode)
	nobody.head = map[string]string{"Mokren-Code": link.Code}
	assert.Equal(t, 200, nobody.call("POST", "/api/calc/change", question, nil).StatusCode)
	nobody.head = map[string]string{"Mokren-Code": "BBBBBBBB"}
	assert.Equal(t, 404, nobody.call("POST", "/api/calc/change", question, nil).StatusCode)

	lines := `{"t":0,"event":"start","protocol":"graded-stages"}` + "\n" +
		strings.Repeat(`{"t":1,"event":"tick"}`+"\n", 20_000)
	var p problem
	assert.Equal(t, 422, c.call("POST", "/api/calc/coach", lines, &p).StatusCode)
	assert.Contains(t, p.Errors[0].Location, "line 20001")
	assert.Equal(t, 413, c.call("POST", "/api/calc/change", strings.Repeat(" ", 3<<20), nil).StatusCode)

	gone, cancel := context.WithCancel(context.Background())
	cancel()
	_, err := calc.RunFor(gone.Err, "coach", []byte(lines[:200_000]+"\n"))
	assert.Error(t, err)
	_, err = calc.RunFor(gone.Err, "change", []byte(question))
	assert.ErrorIs(t, err, context.Canceled)
}

// D10: what the session table holds opens no door.
func TestD10SessionTokensAreHashed(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	res := c.call("POST", "/api/session", map[string]string{
		"email":    demo.Logins[0].Email,
		"password": demo.Logins[0].Password,
	}, nil)
	token := res.Cookies()[0].Value
	raw := adminDB(t)
	var stored [][]byte
	require.NoError(t, raw.Select(&stored, `select token from session`))
	require.NotEmpty(t, stored)
	for _, b := range stored {
		assert.NotContains(t, string(b), token)
		assert.Len(t, b, 32)
	}
}

// D13: sign-out and wrong codes leave a trace.
func TestD13SignOutAndWrongCodesLeaveATrace(t *testing.T) {
	c := newCaller(t, api.Options{})
	raw := adminDB(t)
	count := func(q string) (n int) {
		require.NoError(t, raw.Get(&n, q))
		return n
	}
	codes := count(`select count(*) from door where what = 'code'`)
	c.call("GET", "/api/pad/BBBBBBBB", nil, nil)
	assert.Equal(t, codes+1, count(`select count(*) from door where what = 'code'`))
	outs := count(`select count(*) from audit where verb = 'sign-out'`)
	c.signIn(demo.Logins[0])
	require.Equal(t, 204, c.call("DELETE", "/api/session", nil, nil).StatusCode)
	assert.Equal(t, outs+1, count(`select count(*) from audit where verb = 'sign-out'`))
	c.signIn(demo.Logins[0])
	visitID := aVisit(c)
	before := count(`select count(*) from audit where kind = 'visit' and client_id is not null`)
	require.Equal(t, 200, c.call("GET", "/api/visits/"+visitID, nil, nil).StatusCode)
	assert.Equal(t, before+1, count(`select count(*) from audit where kind = 'visit' and client_id is not null`),
		"named")
}

// D11: entries per code are capped, codes end with the visit, and photographs
// come in one at a time.
func TestD11EntriesAndCodesAreBounded(t *testing.T) {
	c := newCaller(t, api.Options{Now: time.Now})
	me := c.signIn(demo.Logins[0])
	path, event := c.sendable(me)
	var link api.NewLink
	require.Equal(t, 200, c.call("POST", path+"/link", nil, &link).StatusCode)
	phone := c.as(demo.Login{})
	put := func() int {
		return phone.call("PUT", "/api/pad/"+link.Code+"/answers/"+uuid.NewString(),
			`{"answers":[{"question":"fever","answer":"no"}],"by":"therapist"}`, nil).StatusCode
	}
	for range 30 {
		require.Equal(t, 204, put())
	}
	assert.Equal(t, 429, put())
	var waiting struct{ Items []api.Submission }
	require.Equal(t, 200, c.call("GET", path+"/entries", nil, &waiting).StatusCode)
	assert.Equal(t, "client", waiting.Items[0].Answers.By, "a client does not speak as the therapist")
	require.Equal(t, 200, c.send(path, event("visit-closed", map[string]any{})).StatusCode)
	assert.Equal(t, 404, phone.call("GET", "/api/pad/"+link.Code, nil, nil).StatusCode, "the visit is closed")
}

// A session brings what its role may do, as the tables of the core give it.
func TestASessionBringsItsRights(t *testing.T) {
	c := newCaller(t, api.Options{})
	for i, role := range []rights.Role{rights.Owner, rights.Therapist, rights.Student, rights.FrontDesk} {
		var me api.Me
		require.Equal(t, 200, c.as(demo.Logins[i]).call("GET", "/api/session", nil, &me).StatusCode)
		require.Equal(t, role, me.Role)
		assert.Equal(t, role == rights.Student, me.Supervised)
		has := map[string]bool{}
		for _, r := range me.Rights {
			has[string(r)] = true
		}
		for _, o := range rights.Operations() {
			assert.Equal(t, rights.MayCall(role, o), has[o], "%s: %s", role, o)
		}
		for _, k := range visit.Kinds() {
			assert.Equal(t, visit.MayWrite(role, k.Type), has[k.Type], "%s: %s", role, k.Type)
		}
	}
}
