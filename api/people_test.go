package api_test

import (
	"net/http"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/rights"
	"mokren/demo"
	"mokren/store"
	"mokren/store/storetest"
)

// a practice of its own, as its owner.
func ownPractice(t *testing.T, o api.Options) (*caller, demo.Login) {
	t.Helper()
	c, st := newCallerWithStore(t, o)
	l := demo.Login{Email: uuid.NewString()[:8] + "@own.example", Password: "river-and-stone"}
	who := store.Principal{Practice: uuid.New(), Person: uuid.New(), Role: rights.Owner}
	require.NoError(t, st.As(t.Context(), who, store.Action{Verb: "write", Kind: "test"}, func(tx *store.Tx) error {
		if err := tx.NewPractice(t.Context(), "Own room", "Europe/Vienna"); err != nil {
			return err
		}
		return tx.NewPerson(t.Context(), who.Person, "Runa Holt", rights.Owner, l.Email, l.Password)
	}))
	owner := c.again()
	owner.signIn(l)
	return owner, l
}

// invite gives who was invited and the API's path of the link.
func (c *caller) invite(name string, role rights.Role, email string) (id, path string) {
	c.t.Helper()
	var link api.OneTimeLink
	res := c.call("POST", "/api/people", map[string]any{"name": name, "role": role, "email": email}, &link)
	require.Equal(c.t, 200, res.StatusCode)
	return link.Person, "/api" + link.Path
}

func (c *caller) join(path, password string) *http.Response {
	return c.call("POST", path, map[string]string{"password": password}, nil)
}

func newEmail() string { return uuid.NewString()[:8] + "@joins.example" }

func signInStatus(c *caller, email, password, code string) int {
	body := map[string]string{"email": email, "password": password}
	if code != "" {
		body["code"] = code
	}
	return c.again().call("POST", "/api/session", body, nil).StatusCode
}

func TestALinkLetsSomeoneJoinOnce(t *testing.T) {
	c, _ := ownPractice(t, api.Options{})
	email := newEmail()
	_, path := c.invite("Ilo Brandt", rights.Therapist, email)
	guest := c.again()
	var whom api.TicketOut
	require.Equal(t, 200, guest.call("GET", path, nil, &whom).StatusCode)
	assert.Equal(t, api.TicketOut{Kind: "join", Practice: "Own room", Name: "Ilo Brandt", Email: email}, whom)
	for password, why := range map[string]string{
		"short":           "at least 10 characters",
		"password1234":    "tried first",
		"1234567890":      "tried first",
		"aaaaaaaaaaaaaa1": "tried first",
		"Brandt-123456":   "your own name",
		"IloBrandt1-2026": "your own name",
	} {
		var p problem
		assert.Equal(
			t,
			422,
			guest.call("POST", path, map[string]string{"password": password}, &p).StatusCode,
			password,
		)
		assert.Equal(t, "body.password", p.Errors[0].Location)
		assert.Contains(t, p.Errors[0].Message, why, password)
	}
	require.Equal(t, 200, guest.join(path, "slow-green-hills").StatusCode)
	var me api.Me
	guest.call("GET", "/api/session", nil, &me)
	assert.Equal(t, "Ilo Brandt", me.Name, "signed in with it")
	assert.Equal(t, 404, c.again().join(path, "slow-green-hills").StatusCode, "a second time")
	assert.Equal(t, 200, signInStatus(c, email, "slow-green-hills", ""))
	// Two links for one e-mail: who comes second is told.
	late := newEmail()
	_, one := c.invite("First", rights.Student, late)
	_, two := c.invite("Second", rights.Student, late)
	require.Equal(t, 200, c.again().join(one, "slow-green-hills").StatusCode)
	assert.Equal(t, 409, c.again().join(two, "slow-green-hills").StatusCode)
	var p problem
	res := c.call("POST", "/api/people", map[string]any{"name": "X", "role": "student", "email": email}, &p)
	assert.Equal(t, 422, res.StatusCode, "an e-mail that is taken")
	assert.Equal(t, "body.email", p.Errors[0].Location)
}

func TestALinkIsOverAfterItsTime(t *testing.T) {
	clock := time.Now().Add(-8 * 24 * time.Hour)
	c, _ := ownPractice(t, api.Options{Now: func() time.Time { return clock }})
	_, path := c.invite("Late Guest", rights.Student, newEmail())
	assert.Equal(t, 404, c.again().join(path, "slow-green-hills").StatusCode)
}

func TestAnOwnersLinkGivesANewPassword(t *testing.T) {
	c, _ := ownPractice(t, api.Options{})
	email := newEmail()
	id, path := c.invite("Ilo Brandt", rights.Therapist, email)
	guest := c.again()
	require.Equal(t, 200, guest.join(path, "slow-green-hills").StatusCode)
	var link api.OneTimeLink
	require.Equal(t, 200, c.call("POST", "/api/people/"+id+"/reset", nil, &link).StatusCode)
	require.Equal(t, 200, c.again().join("/api"+link.Path, "quick-brown-rivers").StatusCode)
	assert.Equal(t, 401, guest.call("GET", "/api/session", nil, nil).StatusCode, "other sessions end")
	assert.Equal(t, 401, signInStatus(c, email, "slow-green-hills", ""))
	assert.Equal(t, 200, signInStatus(c, email, "quick-brown-rivers", ""))
}

func TestWhoLeavesHandsOver(t *testing.T) {
	c, _ := ownPractice(t, api.Options{})
	var me api.Me
	c.call("GET", "/api/session", nil, &me)
	email := newEmail()
	id, path := c.invite("Ilo Brandt", rights.Therapist, email)
	guest := c.again()
	require.Equal(t, 200, guest.join(path, "slow-green-hills").StatusCode)
	student, _ := c.invite("Pia Student", rights.Student, newEmail())
	put := map[string]any{"name": "Pia Student", "role": "student", "supervisor": id}
	require.Equal(t, 204, c.call("PUT", "/api/people/"+student, put, nil).StatusCode)
	client := uuid.NewString()
	guest.call("PUT", "/api/clients/"+client, map[string]any{
		"id": client, "given_name": "Ada", "family_name": "Quill", "revision": 0,
	}, nil)
	tomorrow := time.Now().AddDate(0, 0, 3)
	var booked api.BookingResult
	res := guest.call("POST", "/api/bookings", map[string]any{
		"id": uuid.NewString(), "client": client, "therapist": id, "date": tomorrow.Format(time.DateOnly),
		"time": "10:00", "minutes": 60,
	}, &booked)
	require.Equal(t, 200, res.StatusCode)
	require.Len(t, booked.Visits, 1)

	assert.Equal(t, 409, c.call("POST", "/api/people/"+me.ID+"/leave", map[string]string{"to": id}, nil).StatusCode,
		"the last owner")
	assert.Equal(t, 404, c.call("POST", "/api/people/"+id+"/leave", map[string]string{"to": student}, nil).StatusCode,
		"a student takes nothing over")
	var over api.HandedOver
	require.Equal(
		t,
		200,
		c.call("POST", "/api/people/"+id+"/leave", map[string]string{"to": me.ID}, &over).StatusCode,
	)
	assert.Equal(t, 1, over.Visits)
	assert.Equal(t, 401, guest.call("GET", "/api/session", nil, nil).StatusCode)
	assert.Equal(t, 401, signInStatus(c, email, "slow-green-hills", ""))
	var people struct{ Items []api.Colleague }
	c.call("GET", "/api/people", nil, &people)
	byID := map[string]api.Colleague{}
	for _, p := range people.Items {
		byID[p.ID] = p
	}
	assert.NotEmpty(t, byID[id].LeftAt)
	assert.Equal(t, me.ID, byID[student].Supervisor)
	var diary api.Diary
	c.call("GET", "/api/diary?from="+tomorrow.Format(time.DateOnly)+"&days=1", nil, &diary)
	require.Len(t, diary.Visits, 1)
	assert.Equal(t, me.ID, diary.Visits[0].TherapistID)
}

func TestALicenceThatEndsIsSaid(t *testing.T) {
	now := time.Date(2026, 6, 1, 12, 0, 0, 0, time.UTC)
	c, _ := ownPractice(t, api.Options{Now: func() time.Time { return now }})
	id, _ := c.invite("Ilo Brandt", rights.Therapist, newEmail())
	for until, want := range map[string][2]bool{
		"2026-05-31": {true, false}, "2026-06-01": {false, true}, "2026-07-30": {false, true},
		"2026-07-31": {false, false},
	} {
		put := map[string]any{
			"name":          "Ilo Brandt",
			"role":          "therapist",
			"licence":       "LMT 4711",
			"licence_until": until,
		}
		require.Equal(t, 204, c.call("PUT", "/api/people/"+id, put, nil).StatusCode)
		var people struct{ Items []api.Colleague }
		c.call("GET", "/api/people", nil, &people)
		for _, p := range people.Items {
			if p.ID == id {
				assert.Equal(t, want, [2]bool{p.Expired, p.Soon}, until)
			}
		}
	}
	var p problem
	put := map[string]any{"name": "Ilo", "role": "therapist", "licence_until": "2026-02-30"}
	assert.Equal(t, 422, c.call("PUT", "/api/people/"+id, put, &p).StatusCode)
	assert.Equal(t, "body.licence_until", p.Errors[0].Location)
}

func TestASecondFactorIsAskedForAndTakenOnce(t *testing.T) {
	c, l := ownPractice(t, api.Options{})
	var made api.NewSecondFactor
	mine := map[string]string{"password": l.Password}
	notMine := map[string]string{"password": "nope"}
	require.Equal(t, 422, c.call("POST", "/api/me/second-factor", notMine, nil).StatusCode)
	require.Equal(t, 200, c.call("POST", "/api/me/second-factor", mine, &made).StatusCode)
	assert.Equal(t, 200, signInStatus(c, l.Email, l.Password, ""), "not on before a code came back")
	wrong := map[string]string{"code": "000000"}
	assert.Equal(t, 422, c.call("PUT", "/api/me/second-factor", wrong, nil).StatusCode)
	code := func(at time.Time) string {
		s, err := totp.GenerateCode(made.Secret, at)
		require.NoError(t, err)
		return s
	}
	now := time.Now()
	on := map[string]string{"code": code(now)}
	require.Equal(t, 200, c.call("PUT", "/api/me/second-factor", on, nil).StatusCode)
	var p problem
	c.again().call("POST", "/api/session", map[string]string{"email": l.Email, "password": l.Password}, &p)
	assert.Equal(t, "body.code", p.Errors[0].Location, "the right password asks for the code")
	p = problem{}
	c.again().call("POST", "/api/session", map[string]string{"email": l.Email, "password": "wrong-wrong"}, &p)
	assert.Empty(t, p.Errors, "a wrong one says nothing of it")
	assert.Equal(t, 401, signInStatus(c, l.Email, l.Password, code(now)), "it was used up by switching it on")
	next := code(now.Add(30 * time.Second))
	assert.Equal(t, 200, signInStatus(c, l.Email, l.Password, next))
	assert.Equal(t, 401, signInStatus(c, l.Email, l.Password, next), "the same code again")
	assert.Equal(t, 401, signInStatus(c, l.Email, l.Password, code(now.Add(-5*time.Minute))), "an old code")
	assert.Equal(
		t,
		422,
		c.call("POST", "/api/me/second-factor/off", map[string]string{"password": "nope"}, nil).StatusCode,
	)
	off := map[string]string{"password": l.Password}
	require.Equal(t, 200, c.call("POST", "/api/me/second-factor/off", off, nil).StatusCode)
	assert.Equal(t, 200, signInStatus(c, l.Email, l.Password, ""))
}

func TestALoginClosesAfterTenWrongPasswordsWhereverTheyComeFrom(t *testing.T) {
	c, l := ownPractice(t, api.Options{})
	for range 9 {
		require.Equal(t, 401, signInStatus(c, l.Email, "wrong-words-here", ""))
	}
	require.Equal(
		t,
		200,
		signInStatus(c, l.Email, l.Password, ""),
		"nine do not close it, and a right one begins anew",
	)
	for range 10 {
		require.Equal(t, 401, signInStatus(c, l.Email, "wrong-words-here", ""))
	}
	assert.Equal(t, 429, signInStatus(c, l.Email, l.Password, ""))
}

// Of sixty wrong passwords at once no more are looked at than of sixty one after another.
func TestSixtyWrongPasswordsAtOnceCountAsSixty(t *testing.T) {
	c, l := ownPractice(t, api.Options{})
	var wrong, closed, other atomic.Int64
	var all sync.WaitGroup
	for range 60 {
		all.Go(func() {
			switch signInStatus(c, l.Email, "wrong-words-here", "") {
			case 401:
				wrong.Add(1)
			case 429:
				closed.Add(1)
			default:
				other.Add(1) // 503: the queue was full
			}
		})
	}
	all.Wait()
	assert.LessOrEqual(t, wrong.Load(), int64(10), "passwords that were looked at")
	assert.EqualValues(t, 60, wrong.Load()+closed.Load()+other.Load())
	assert.Equal(t, 429, signInStatus(c, l.Email, l.Password, ""), "and the login is closed")
}

func TestOwnPasswordAndDevices(t *testing.T) {
	c, l := ownPractice(t, api.Options{})
	other := c.as(l)
	var devices struct{ Items []api.OwnDevice }
	c.call("GET", "/api/me/devices", nil, &devices)
	require.Len(t, devices.Items, 2)
	this := 0
	for _, d := range devices.Items {
		if d.This {
			this++
			continue
		}
		require.Equal(t, 204, c.call("DELETE", "/api/me/devices/"+d.ID, nil, nil).StatusCode)
	}
	assert.Equal(t, 1, this)
	assert.Equal(t, 401, other.call("GET", "/api/session", nil, nil).StatusCode, "signed out from afar")
	other = c.as(l)
	var p problem
	change := map[string]string{"now": "not-this-one", "new": "seven-quiet-owls"}
	assert.Equal(t, 422, c.call("PUT", "/api/me/password", change, &p).StatusCode)
	assert.Equal(t, "body.now", p.Errors[0].Location)
	change["now"] = l.Password
	require.Equal(t, 204, c.call("PUT", "/api/me/password", change, nil).StatusCode)
	assert.Equal(t, 200, c.call("GET", "/api/session", nil, nil).StatusCode, "here it goes on")
	assert.Equal(t, 401, other.call("GET", "/api/session", nil, nil).StatusCode, "elsewhere it ends")
	assert.Equal(t, 200, signInStatus(c, l.Email, "seven-quiet-owls", ""))
}

// The limit by address counts over all copies on one database.
func TestALimitIsSharedByCopies(t *testing.T) {
	first := newCaller(t, api.Options{SharedLimits: true, SignInsPerMinute: 6})
	second := newCaller(t, api.Options{SharedLimits: true, SignInsPerMinute: 6})
	limited := 0
	for i := range 20 {
		c := []*caller{first, second}[i%2]
		body := map[string]string{"email": "nobody@x.example", "password": "wrong-words-here"}
		if c.call("POST", "/api/session", body, nil).StatusCode == 429 {
			limited++
		}
	}
	// A minute may end while it counts: then six more come through.
	assert.GreaterOrEqual(t, limited, 8)
}

func TestSetUpNeedsTheServersOwnLink(t *testing.T) {
	c := newCaller(t, api.Options{})
	body := map[string]string{
		"practice": "Taken over", "time_zone": "Europe/Vienna", "name": "A Stranger", "email": newEmail(),
		"password": "open-sesame-now",
	}
	assert.Equal(t, 404, c.call("POST", "/api/set-up/"+strings.Repeat("A", 32), body, nil).StatusCode)
	_, err := storetest.Open(t).NewSetUpTicket(t.Context())
	assert.ErrorContains(t, err, "there is a practice already")
}

// Who is new is offered the trial visit until it was begun or declined.
func TestTheTrialVisitIsOfferedOnce(t *testing.T) {
	c := newCaller(t, api.Options{})
	assert.True(t, c.signIn(demo.Logins[0]).Introduced, "who was here before knows the program")
	student := c.as(demo.Logins[2])
	var me api.Me
	require.Equal(t, 200, student.call("GET", "/api/session", nil, &me).StatusCode)
	assert.False(t, me.Introduced)
	for range 2 {
		require.Equal(t, 200, student.call("PUT", "/api/me/introduced", nil, &me).StatusCode)
		assert.True(t, me.Introduced)
	}
	desk := c.as(demo.Logins[3])
	assert.Equal(t, 403, desk.call("PUT", "/api/me/introduced", nil, nil).StatusCode, "the desk opens no visit")
}
