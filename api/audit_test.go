package api_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/demo"
	"mokren/store/storetest"
)

// Who read whose record, and who was refused, is found by client and day; only an
// owner looks; nobody changes it.
func TestTheAuditIsSearchedAndExported(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[3])
	var all clientList
	c.call("GET", "/api/clients", nil, &all)
	of := all.Items[2]
	require.Equal(t, 403, c.call("GET", "/api/clients/"+of.ID, nil, nil).StatusCode)
	require.Equal(t, 403, c.call("GET", "/api/audit", nil, nil).StatusCode)
	c.signIn(demo.Logins[1])
	require.Equal(t, 200, c.call("GET", "/api/clients/"+of.ID, nil, nil).StatusCode)
	c.signIn(demo.Logins[0])
	var got struct {
		Items []api.AuditLine `json:"items"`
	}
	require.Equal(t, 200, c.call("GET", "/api/audit?client="+of.ID, nil, &got).StatusCode)
	require.NotEmpty(t, got.Items)
	assert.Equal(t, demo.Logins[1].Name, got.Items[0].Person)
	assert.Equal(t, "read", got.Items[0].Verb)
	assert.Equal(t, of.GivenName+" "+of.FamilyName, got.Items[0].Name)
	for _, l := range got.Items {
		assert.Equal(t, of.ID, l.Client)
	}
	c.call("GET", "/api/audit", nil, &got)
	refused := false
	for _, l := range got.Items {
		refused = refused || l.Refused && l.Person == demo.Logins[3].Name
	}
	assert.True(t, refused, "what was refused is there too")
	first := got.Items[0].ID
	c.call("GET", fmt.Sprintf("/api/audit?before=%d", first), nil, &got)
	assert.Less(t, got.Items[0].ID, first)
	c.call("GET", "/api/audit?from=2001-01-01&to=2001-01-02", nil, &got)
	assert.Empty(t, got.Items)
	assert.Equal(t, 422, c.call("GET", "/api/audit?from=2001-02-31", nil, nil).StatusCode)
	file := string(c.file("/api/audit/csv?client=" + of.ID))
	assert.True(t, strings.HasPrefix(file, "\ufeffat [RFC 3339],person,verb"))
	assert.Contains(t, file, demo.Logins[1].Name+",read,client")

	raw, err := sqlx.Open("pgx", storetest.URL())
	require.NoError(t, err)
	defer raw.Close()
	for _, q := range []string{`delete from audit`, `update audit set verb = 'x'`} {
		_, err := raw.Exec(q)
		assert.ErrorContains(t, err, "permission denied")
	}
}
