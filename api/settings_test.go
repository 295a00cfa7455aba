package api_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/demo"
)

// Every setting of the practice is kept, and shown to whoever signs in; only an
// owner sets them.
func TestSettingsAreKept(t *testing.T) {
	c := newCaller(t, api.Options{})
	was := c.signIn(demo.Logins[0])
	want := map[string]any{
		"copy_hours": 8, "idle_minutes": 10,
		"protocol": "pulses", "units": "imperial", "clock_hours": 12, "week_starts": 0,
		"rooms": []string{"One", "Two"},
	}
	require.Equal(t, 200, c.call("PUT", "/api/practice", want, nil).StatusCode)
	t.Cleanup(func() {
		c.signIn(demo.Logins[0])
		c.call("PUT", "/api/practice", map[string]any{
			"copy_hours": was.CopyHours, "idle_minutes": was.IdleMinutes,
			"protocol": was.Protocol, "units": was.Units, "clock_hours": was.ClockHours,
			"week_starts": was.WeekStarts, "rooms": was.Rooms,
		}, nil)
	})
	me := c.signIn(demo.Logins[1])
	assert.Equal(t, 8, me.CopyHours)
	assert.Equal(t, "pulses", string(me.Protocol))
	assert.Equal(t, "imperial", me.Units)
	assert.Equal(t, 12, me.ClockHours)
	assert.Equal(t, 0, me.WeekStarts)
	assert.Equal(t, []string{"One", "Two"}, me.Rooms)
	assert.Equal(t, 403, c.call("PUT", "/api/practice", want, nil).StatusCode)
	c.signIn(demo.Logins[0])
	want["units"] = "leagues"
	assert.Equal(t, 422, c.call("PUT", "/api/practice", want, nil).StatusCode)
}

// How the practice is named and reached stands on the sheet that a client takes home.
func TestTheLetterheadIsKeptAndLeavesWithTheSheet(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	var was, kept api.Letterhead
	require.Equal(t, 200, c.call("GET", "/api/practice/letterhead", nil, &was).StatusCode)
	want := api.Letterhead{
		Name: "Under the Alder", Address: "1 Sluice Road\nHollin", Telephone: "0155 0100 99", Hours: "Tuesdays",
		Logo: "ALDER",
	}
	require.Equal(t, 200, c.call("PUT", "/api/practice/letterhead", want, &kept).StatusCode)
	t.Cleanup(func() {
		c.signIn(demo.Logins[0])
		c.call("PUT", "/api/practice/letterhead", was, nil)
	})
	assert.Equal(t, want, kept)
	assert.Equal(t, 422, c.call("PUT", "/api/practice/letterhead", api.Letterhead{Name: "  "}, nil).StatusCode)
	assert.Equal(t, "Under the Alder", c.signIn(demo.Logins[1]).Practice)
	require.Equal(t, 200, c.call("GET", "/api/practice/letterhead", nil, &kept).StatusCode)
	assert.Equal(t, want, kept, "everyone who prints reads it")
	assert.Equal(t, 403, c.call("PUT", "/api/practice/letterhead", want, nil).StatusCode)
}
