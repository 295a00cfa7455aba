package api_test

import (
	"fmt"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/demo"
	"mokren/store"
	"mokren/store/backup"
	"mokren/store/storetest"
)

// freshBackup is what a backup of now says when it is opened: SQL in plain text.
func freshBackup(t *testing.T) string {
	t.Helper()
	on := backup.Server{URL: storetest.AdminURL(), Bin: storetest.Bin()}
	path, err := backup.Write(t.Context(), on, t.TempDir(), "seven quiet owls", time.Now())
	require.NoError(t, err)
	dump, err := backup.Open(path, "seven quiet owls")
	require.NoError(t, err)
	defer dump.Close()
	show := exec.Command(filepath.Join(storetest.Bin(), "pg_restore"), "--file=-")
	show.Stdin = dump
	text, err := show.Output()
	require.NoError(t, err)
	require.Greater(t, len(text), 100_000)
	return string(text)
}

// everywhere gives the tables that have a row with all the texts in it, whatever the
// columns.
func everywhere(t *testing.T, texts ...string) []string {
	t.Helper()
	db := adminDB(t)
	var tables, out []string
	require.NoError(t, db.Select(&tables, `select table_name from information_schema.tables
		where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`))
	require.Greater(t, len(tables), 20)
	for _, table := range tables {
		var n int
		require.NoError(t, db.Get(&n, fmt.Sprintf(`select count(*) from %q r
			where (select bool_and(r::text ilike '%%' || x || '%%') from unnest($1::text[]) x)`, table), texts))
		if n > 0 {
			out = append(out, table)
		}
	}
	return out
}

func TestAnErasedRecordIsGone(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	all := struct{ Items []api.Client }{}
	c.call("GET", "/api/clients", nil, &all)
	archive := c.file("/api/clients/" + all.Items[0].ID + "/export/archive")
	there := c.elsewhere(st)
	there.takeIn("archive", all.Items[0].FamilyName+".json", archive, true)
	there.call("GET", "/api/clients", nil, &all)
	require.Len(t, all.Items, 1)
	of := all.Items[0]
	// A text of its own, so that the demo's copies of the same words do not count.
	of.FamilyName, of.Complaint = "Zwyntholm-Orrabee", "zwynt under the blade"
	put := map[string]any{
		"id": of.ID, "given_name": of.GivenName, "family_name": of.FamilyName, "complaint": of.Complaint,
		"revision": of.Revision, "phone": "+99 555 zwynt",
	}
	require.Equal(t, 200, there.call("PUT", "/api/clients/"+of.ID, put, nil).StatusCode)
	there.call("GET", "/api/clients?q=zwynt", nil, nil)
	var course api.Course
	there.call("GET", "/api/clients/"+of.ID, nil, &course)
	visit := course.Visits[len(course.Visits)-1].ID
	there.call("POST", "/api/visits/"+visit+"/links", map[string]string{"purpose": "drawing"}, nil)
	require.Equal(t, []string{"client", "client_name", "client_word"}, everywhere(t, "zwynt"))
	require.Contains(t, freshBackup(t), "Zwyntholm")
	// The practice where it came from has the same ids.
	var here string
	require.NoError(t, adminDB(t).Get(&here, `select practice_id from client where family_name = $1`, of.FamilyName))
	require.Subset(t, everywhere(t, of.ID, here), []string{"charted_point", "client", "hold", "visit", "visit_event"})

	word := map[string]string{"reason": "asked for it in writing", "name": of.GivenName + " " + of.FamilyName}
	wrong := map[string]string{"reason": "a slip of the hand", "name": "Someone Else"}
	assert.Equal(t, 422, there.call("POST", "/api/clients/"+of.ID+"/erase", wrong, nil).StatusCode)
	hold := map[string]string{"reason": "a claim is open until 2030"}
	require.Equal(t, 204, there.call("PUT", "/api/clients/"+of.ID+"/law-hold", hold, nil).StatusCode)
	var p problem
	assert.Equal(t, 409, there.call("POST", "/api/clients/"+of.ID+"/erase", word, &p).StatusCode)
	assert.Contains(t, p.Detail, "a claim is open until 2030")
	require.NotEmpty(t, everywhere(t, "zwynt"), "held by law")
	hold["reason"] = ""
	require.Equal(t, 204, there.call("PUT", "/api/clients/"+of.ID+"/law-hold", hold, nil).StatusCode)
	require.Equal(t, 204, there.call("POST", "/api/clients/"+of.ID+"/erase", word, nil).StatusCode)

	assert.Empty(t, everywhere(t, "zwynt"))
	assert.NotContains(t, strings.ToLower(freshBackup(t)), "zwynt")
	assert.ElementsMatch(t, []string{"audit", "erasure"}, everywhere(t, of.ID, here), "the tombstone, and who did what")
	for _, v := range course.Visits {
		assert.Subset(t, []string{"audit"}, everywhere(t, v.ID, here))
	}
	assert.Empty(t, everywhere(t, strings.TrimSpace(all.Items[0].FamilyName)+".json"), "a file by the client's name")
	assert.Equal(t, 404, there.call("GET", "/api/clients/"+of.ID, nil, nil).StatusCode)
	var gone struct{ Items []api.ErasureResult }
	there.call("GET", "/api/erasures", nil, &gone)
	require.Len(t, gone.Items, 1)
	assert.Equal(t, "asked for it in writing", gone.Items[0].Reason)
	assert.Equal(t, len(course.Visits), gone.Items[0].Visits)
	assert.Positive(t, gone.Items[0].Events)

	// The id does not come back, by hand or by a file.
	put["revision"] = 0
	assert.Equal(t, 410, there.call("PUT", "/api/clients/"+of.ID, put, nil).StatusCode)
	assert.Equal(t, 410, there.call("POST", "/api/imports?kind=archive&file=again.json&take=true", string(archive),
		nil).StatusCode)
	assert.Equal(t, 404, there.call("GET", "/api/clients/"+of.ID, nil, nil).StatusCode)
	assert.ElementsMatch(t, []string{"audit", "erasure"}, everywhere(t, of.ID, here))
}

// Not even a program that goes round the API erases as anyone but an owner.
func TestOnlyAnOwnerErases(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	me := c.signIn(demo.Logins[1])
	var all struct{ Items []api.Client }
	c.call("GET", "/api/clients", nil, &all)
	assert.Equal(t, 403, c.call("POST", "/api/clients/"+all.Items[0].ID+"/erase",
		map[string]string{"reason": "because", "name": "x"}, nil).StatusCode)
	who, err := st.SignIn(t.Context(), store.SignIn{Email: demo.Logins[1].Email, Password: demo.Logins[1].Password})
	require.NoError(t, err)
	require.Equal(t, me.ID, who.Person.String())
	err = st.As(t.Context(), who, store.Action{Verb: "erase", Kind: "client"}, func(tx *store.Tx) error {
		return tx.Erase(t.Context(), uuid.MustParse(all.Items[0].ID), "because")
	})
	assert.ErrorContains(t, err, "only an owner erases")
}
