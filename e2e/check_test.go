package e2e

import (
	"os"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The command holds every visit of every practice against its log, and ends with an error that names
// the visit when a row was changed beside it.
func TestVisitsAreCheckedAgainstTheirLogs(t *testing.T) {
	t.Parallel()
	d := demoDatabase(t)
	check := func() (string, error) {
		cmd := exec.Command(released, "check")
		cmd.Env = append(os.Environ(), "MOKREN_DATABASE_URL="+d.on.AppURL(d.name),
			"MOKREN_ADMIN_URL="+d.on.AdminURL(d.name))
		out, err := cmd.CombinedOutput()
		return string(out), err
	}
	out, err := check()
	require.NoError(t, err, out)
	assert.Regexp(t, `Visits: [1-9]\d; practices: 1. All are as their logs have them.`, out)

	var visit string
	require.NoError(t, d.asAdmin(t).Get(&visit, `update hold set pressure_ms = pressure_ms + 1
		where id = (select min(id::text)::uuid from hold) returning visit_id`))
	out, err = check()
	require.Error(t, err)
	assert.Contains(t, out, "visit "+visit+": hold not as its log has it")
	assert.Contains(t, out, "1 of ")
}
