package api_test

import (
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/demo"
)

// ofNobody are operations that touch no record: the body, the atlas as it is shipped,
// computing, the door, and the bench, which is no health data.
func ofNobody(op operation) bool {
	for _, part := range []string{
		"/api/figure", "/api/atlas", "/api/calc", "/api/session", "/api/instruments",
		"/api/bench",
	} {
		if strings.HasPrefix(op.path, part) {
			return true
		}
	}
	return strings.Contains(op.path, "{code}")
}

// Every operation that answers leaves a row with who it was, and with the client whose
// record it was where the address names one.
func TestEveryOperationLeavesItsRow(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	var all struct{ Items []api.Client }
	c.call("GET", "/api/clients", nil, &all)
	var course api.Course
	for _, of := range all.Items {
		if c.call("GET", "/api/clients/"+of.ID, nil, &course); len(course.Visits) > 3 {
			break
		}
	}
	clientID, visitID := course.Client.ID, course.Visits[0].ID
	db := adminDB(t)
	named, rows := 0, 0
	for _, op := range operations(t) {
		if ofNobody(op) || op.id == "sign-out" {
			continue
		}
		id := visitID
		if strings.HasPrefix(op.path, "/api/clients") {
			id = clientID
		}
		path := strings.NewReplacer("{id}", id, "{view}", "back", "{format}", "archive", "{what}", "note").
			Replace(op.path)
		path = parameter.ReplaceAllString(path, uuid.Nil.String())
		var body any
		if op.method == "PUT" || op.method == "POST" {
			body = `{}`
		}
		var before int64
		require.NoError(t, db.Get(&before, `select coalesce(max(id), 0) from audit`))
		query := "?from=2026-01-05&earlier=" + visitID + "&later=" + visitID
		if c.call(op.method, path+query, body, nil).StatusCode >= 300 {
			continue
		}
		var last []struct {
			Person string        `db:"person_id"`
			Client uuid.NullUUID `db:"client_id"`
		}
		require.NoError(t, db.Select(&last, `select person_id, client_id from audit where id > $1`, before))
		if !assert.NotEmpty(t, last, "%s left no row", op.id) {
			continue
		}
		rows++
		for _, row := range last {
			assert.Equal(t, me.ID, row.Person, op.id)
		}
		if op.id == "alike-clients" {
			continue // a search among all, for one who may not be there yet
		}
		if strings.HasPrefix(op.path, "/api/clients/{id}") || strings.HasPrefix(op.path, "/api/visits/{id}") {
			named++
			assert.Equal(
				t,
				clientID,
				last[len(last)-1].Client.UUID.String(),
				"%s does not say whose record it was",
				op.id,
			)
		}
	}
	c.call("POST", "/api/clients/"+clientID+"/restore", nil, nil) // the walk has put the client away
	assert.Greater(t, rows, 30, "so many answered")
	assert.Greater(t, named, 10, "so many of a client")
}
