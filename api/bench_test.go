package api_test

import (
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/bench"
	"mokren/demo"
)

func learnt(t *testing.T, raw string) []bench.LearnerAction {
	t.Helper()
	var out []bench.LearnerAction
	require.NoError(t, json.Unmarshal([]byte(raw), &out))
	return out
}

// An exercise is kept once, and what it comes to is the server's; a student sees their own, the
// supervisor those of their students, the owner all, and nobody else's; and nothing of it is in the
// audit of health data.
func TestResultsOfTheBench(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	student, supervisor, other, desk := c.as(demo.Logins[2]), c.as(demo.Logins[1]), c.as(demo.Logins[4]),
		c.as(demo.Logins[3])
	var before int64
	db := adminDB(t)
	require.NoError(t, db.Get(&before, `select coalesce(max(id), 0) from audit`))
	in := api.PracticeIn{
		ID: uuid.NewString(), BeganAt: "2026-11-30T09:00:00+01:00", Coach: "speaks", Input: bench.ExerciseIn{
			Case: json.RawMessage(`"stiff-neck-desk"`), Seed: 5, Exercise: "reasoning", Actions: learnt(t, `[
			{"t":1,"action":"ask","what":"story"},
			{"t":9,"action":"name","answers":[{"is":"muscle","muscle":"upper-trapezius","side":"right","percent":80}]},
			{"t":11.5,"action":"finish"}]`),
		},
	}
	var kept, again api.PracticeResult
	require.Equal(t, 200, student.call("POST", "/api/bench/results", in, &kept).StatusCode)
	require.Equal(t, 200, student.call("POST", "/api/bench/results", in, &again).StatusCode)
	assert.Equal(t, kept, again)
	assert.Equal(t, "Stiff neck at the desk", kept.Title)
	assert.InDelta(t, 1, kept.Score["found"], 0)
	unfinished := in
	unfinished.ID, unfinished.Input.Actions = uuid.NewString(), in.Input.Actions[:2]
	assert.Equal(t, 422, student.call("POST", "/api/bench/results", unfinished, nil).StatusCode)

	has := func(who *caller, of string) bool {
		var p api.Practised
		require.Equal(t, 200, who.call("GET", "/api/bench/results"+of, nil, &p).StatusCode)
		for _, r := range p.Results {
			if r.ID == kept.ID {
				return true
			}
		}
		return false
	}
	whose := "?person=" + kept.Person
	assert.True(t, has(student, ""))
	assert.True(t, has(supervisor, whose))
	assert.True(t, has(c, whose))
	assert.False(t, has(other, whose), "another student sees nothing")
	assert.False(t, has(desk, whose))
	var review api.PracticeReview
	require.Equal(t, 200, supervisor.call("GET", "/api/bench/results/"+kept.ID, nil, &review).StatusCode)
	assert.Len(t, review.Input.Actions, 3)
	assert.NotNil(t, review.Outcome.Truth)
	assert.Equal(t, 404, other.call("GET", "/api/bench/results/"+kept.ID, nil, nil).StatusCode)

	var class api.Class
	require.Equal(t, 200, supervisor.call("GET", "/api/bench/class", nil, &class).StatusCode)
	assert.Len(t, class.Learners, 5, "four students and oneself")
	assert.NotEmpty(t, class.Spreads)
	assert.NotEmpty(t, class.Rules)
	assert.Equal(t, 403, student.call("GET", "/api/bench/class", nil, nil).StatusCode)
	res := supervisor.call("GET", "/api/bench/csv", nil, nil)
	raw, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(string(raw), "\ufeff"))).ReadAll()
	require.NoError(t, err)
	assert.Greater(t, len(rows), 100)

	var after int64
	require.NoError(t, db.Get(&after, `select count(*) from audit where id > $1 and (verb || kind) like '%bench%'`, before))
	assert.Zero(t, after, "nothing of the bench is in the audit")
	for _, path := range []string{"/api/practice/export/archive", "/api/practice/export/clients-csv", "/api/clients"} {
		raw := string(c.file(path))
		assert.NotEmpty(t, raw)
		for _, of := range []string{kept.ID, "stiff-neck-desk", "Stiff neck at the desk", "bench"} {
			assert.NotContains(t, raw, of, path)
		}
	}
}

// A teacher sets an exam, two learners sit it, and neither seed nor truth is in any answer of the
// server before it is closed; then both are.
func TestAnExamTellsNothingBeforeItIsClosed(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[1])
	exam := api.AssignmentIn{
		ID: uuid.NewString(), Title: "Spring", Coach: "exam", DueOn: "2026-12-24",
		Items: []api.AssignmentItem{{Exercise: "reasoning", Level: 2}, {Exercise: "grading", Level: 1}},
	}
	var set api.Assignment
	require.Equal(t, 200, c.call("POST", "/api/bench/assignments", exam, &set).StatusCode)
	bad := exam
	bad.ID, bad.Items = uuid.NewString(), []api.AssignmentItem{{Exercise: "search", Case: "stiff-neck-desk"}}
	assert.Equal(t, 422, c.call("POST", "/api/bench/assignments", bad, nil).StatusCode, "an exam has made cases")
	bad.Coach, bad.Items[0].Case = "speaks", "nobody"
	assert.Equal(t, 422, c.call("POST", "/api/bench/assignments", bad, nil).StatusCode)
	assert.Equal(t, 403, c.as(demo.Logins[2]).call("POST", "/api/bench/assignments", exam, nil).StatusCode)

	var seed int64
	require.NoError(t, adminDB(t).Get(&seed, `select seed from bench_assignment where id = $1`, exam.ID))
	c1 := bench.Generate(seed, 2)
	secrets := []string{fmt.Sprint(seed), c1.ID}
	if len(c1.Truth.Points) > 0 {
		secrets = append(secrets, fmt.Sprintf(`"along_pct":%g`, c1.Truth.Points[0].AlongPct))
	}
	secrets = append(secrets, `"truth"`, `"seed"`, `"score"`)
	quiet := func(who *caller, method, path string, body, into any) int {
		t.Helper()
		res := who.call(method, path, body, nil)
		raw, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		for _, s := range secrets {
			if strings.Contains(path, "assignments") || strings.Contains(path, "sittings") || s == secrets[0] ||
				s == c1.ID {
				assert.NotContains(t, string(raw), s, "%s %s", method, path)
			}
		}
		if into != nil {
			require.NoError(t, json.Unmarshal(raw, into), string(raw))
		}
		return res.StatusCode
	}
	var ids []string
	var told []string
	for _, l := range []demo.Login{demo.Logins[2], demo.Logins[4]} {
		who := c.as(l)
		require.Equal(t, 200, quiet(who, "GET", "/api/bench/assignments", nil, nil))
		var s api.Sitting
		sit := "/api/bench/assignments/" + exam.ID + "/items/0/sit"
		require.Equal(t, 200, quiet(who, "POST", sit, nil, &s))
		ids = append(ids, s.ID)
		act := "/api/bench/sittings/" + s.ID
		require.Equal(t, 200, quiet(who, "POST", act, api.SittingIn{Actions: learnt(t, `[
			{"t":2,"action":"ask","what":"story"},{"t":3,"action":"ask","what":"drawing"}]`)}, &s))
		require.Len(t, s.Told, 2)
		told = append(told, s.Told[0].Says)
		assert.Equal(t, 422, quiet(who, "POST", act, api.SittingIn{Actions: learnt(t, `[{"t":1,"action":"finish"}]`)}, nil))
		require.Equal(t, 200, quiet(who, "POST", sit, nil, &s), "it goes on where it was")
		assert.Len(t, s.Told, 2)
		require.Equal(t, 200, quiet(who, "POST", act, api.SittingIn{Actions: learnt(t, `[
			{"t":9,"action":"name","answers":[{"is":"nothing","percent":40}]},{"t":10,"action":"finish"}]`)}, &s))
		assert.True(t, s.Done)
		assert.Equal(t, 409, quiet(who, "POST", act, api.SittingIn{Actions: learnt(t, `[{"t":11,"action":"finish"}]`)}, nil))
		assert.Equal(t, 409, quiet(who, "GET", "/api/bench/results/"+s.ID, nil, nil))
		require.Equal(t, 200, quiet(who, "GET", "/api/bench/results", nil, nil))
	}
	assert.Equal(t, told[0], told[1], "both have the same client")
	assert.Equal(t, 404, c.as(demo.Logins[4]).call("POST", "/api/bench/sittings/"+ids[0], api.SittingIn{
		Actions: learnt(t, `[{"t":99,"action":"finish"}]`),
	}, nil).StatusCode, "nobody acts for another")
	require.Equal(t, 200, quiet(c, "GET", "/api/bench/class", nil, nil))

	require.Equal(t, 200, c.call("POST", "/api/bench/assignments/"+exam.ID+"/close", nil, &set).StatusCode)
	assert.True(t, set.Closed)
	var review api.PracticeReview
	require.Equal(t, 200, c.as(demo.Logins[2]).call("GET", "/api/bench/results/"+ids[0], nil, &review).StatusCode)
	assert.Contains(t, string(review.Input.Case), fmt.Sprint(seed))
	assert.NotNil(t, review.Outcome.Truth)
	assert.Equal(t, 409, c.as(demo.Logins[2]).call("POST", "/api/bench/assignments/"+exam.ID+"/items/1/sit", nil, nil).
		StatusCode, "a closed one is not begun")
}

// Two visits of one client by two people are compared; what was not agreed to, or came too soon
// behind the other, is refused, and the pairs go with their visit.
func TestTwoVisitsAreCompared(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	_ = me
	var found struct {
		First  string `db:"first"`
		Second string `db:"second"`
		Same   string `db:"same"`
	}
	db := adminDB(t)
	require.NoError(t, db.Get(&found, `select a.id as first, b.id as second, s.id as same from visit a
		join visit b on b.client_id = a.client_id and b.id <> a.id
		join visit s on s.client_id = a.client_id and s.id <> a.id and s.therapist_id = a.therapist_id and s.id <> b.id
		where a.version > 20 and b.version > 20 and (select count(*) from charted_point p where p.visit_id = a.id)
			between 1 and 8 and (select count(*) from charted_point p where p.visit_id = b.id) between 1 and 8
		limit 1`))
	path := "/api/visits/" + found.First + "/agreement"
	assert.Equal(t, 422, c.call("POST", path, map[string]any{"visit": found.First}, nil).StatusCode)
	assert.Equal(t, 422, c.call("POST", path, map[string]any{"visit": found.Same}, nil).StatusCode,
		"by the same person")
	var tomas string
	require.NoError(t, db.Get(&tomas, `select p.id from person p join visit v on v.practice_id = p.practice_id
		where v.id = $1 and p.id <> v.therapist_id and p.role = 'therapist' limit 1`, found.First))
	db.MustExec(`update visit set therapist_id = $2 where id = $1`, found.Second, tomas)
	var out struct {
		Measures map[string]json.RawMessage `json:"measures"`
		Matching map[string]any             `json:"matching"`
	}
	require.Equal(t, 200, c.call("POST", path, map[string]any{"visit": found.Second}, &out).StatusCode)
	assert.NotEmpty(t, out.Matching)
	var pairs int
	require.NoError(t, db.Get(&pairs, `select count(*) from bench_pairs where first_visit = $1`, found.First))
	assert.Equal(t, 1, pairs)
	var columns []string
	require.NoError(t, db.Select(&columns, `select column_name from information_schema.columns
		where table_name in ('bench_pairs', 'bench_result', 'bench_assignment')`))
	assert.NotContains(t, columns, "client_id")
	for _, name := range columns {
		assert.NotContains(t, name, "client", "no column leads to a client")
	}
}
