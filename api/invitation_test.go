package api_test

import (
	"encoding/json"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/demo"
)

// An appointment for a client's own calendar: as a file, and by a code for whoever has it; one
// event, no name of the client and no word on health; a wrong code gives nothing.
func TestAnAppointmentGoesToTheClientsCalendar(t *testing.T) {
	c, _ := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	var v api.Visit
	var all clientList
	c.call("GET", "/api/clients", nil, &all)
	for _, of := range all.Items {
		var course api.Course
		c.call("GET", "/api/clients/"+of.ID+"?all=true", nil, &course)
		for _, x := range course.Visits {
			if x.ClosedAt == nil && x.OpenedAt == nil && x.Status == "booked" {
				v = x
			}
		}
	}
	require.NotEmpty(t, v.ID, "the demo has a visit that is booked")
	file := string(c.file("/api/visits/" + v.ID + "/date"))
	var link api.NewLink
	require.Equal(t, 200, c.call("POST", "/api/visits/"+v.ID+"/date-link", nil, &link).StatusCode)
	get := func(method, code string) (*http.Response, string) {
		req, err := http.NewRequest(method, c.base+"/date/"+code, http.NoBody)
		require.NoError(t, err)
		res, err := http.DefaultClient.Do(req) // nobody is signed in
		require.NoError(t, err)
		defer res.Body.Close()
		raw, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return res, string(raw)
	}
	res, phone := get("GET", link.Code)
	assert.Equal(t, 200, res.StatusCode)
	assert.Equal(t, "text/calendar; charset=utf-8; method=PUBLISH", res.Header.Get("Content-Type"))
	res, body := get("HEAD", link.Code)
	assert.Equal(t, 200, res.StatusCode)
	assert.Empty(t, body)
	for _, text := range []string{file, phone} {
		assert.Equal(t, 1, strings.Count(text, "BEGIN:VEVENT"))
		for _, line := range []string{"METHOD:PUBLISH\r\n", "LAST-MODIFIED:", "SUMMARY:Appointment\r\n", "UID:" +
			v.ID} {
			assert.Contains(t, text, line)
		}
		assert.NotContains(t, strings.ReplaceAll(text, "\r\n", ""), "\n", "lines end as the standard says")
		assert.NotContains(t, text, v.Name)
		for _, word := range []string{"massage", "treatment", "pain", "therap", "trigger"} {
			assert.NotContains(t, strings.ToLower(text), word)
		}
	}
	res, body = get("GET", "WRONGCODE")
	assert.Equal(t, 404, res.StatusCode)
	var p struct{ Detail string }
	require.NoError(t, json.Unmarshal([]byte(body), &p))
	assert.NotEmpty(t, p.Detail)
	require.Equal(t, 200, c.call("POST", "/api/visits/"+v.ID+"/date-link", nil, &link).StatusCode)
}
