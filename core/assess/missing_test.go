package assess

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
)

func TestWhatWouldTellMost(t *testing.T) {
	names := func(f Findings) []string {
		var out []string
		for _, m := range Rank(f, nil).Missing {
			out = append(out, m.Evidence)
		}
		return out
	}
	assert.Equal(t, []string{"referral", "restricted-pull", "length-test"}, names(Findings{}))
	pain := Findings{Pain: []Pain{{"heel", ids.Left, 6, ""}}}
	assert.Equal(t, []string{"restricted-pull", "length-test", "posture"}, names(pain))
	own := Rank(pain, Weights{"posture": {Plus: 9, Minus: 1}}).Missing
	assert.Equal(t, "posture", own[0].Evidence, "a practice's own weights decide")
}

// Nothing is a suspect that no finding raised, and no test is offered, or
// compared, for the sake of a muscle that nothing speaks for.
func TestOnlyWhatIsRaisedIsCompared(t *testing.T) {
	none := Rank(Findings{}, nil)
	for _, s := range none.Suspects {
		assert.False(t, s.Raised, "%s", s.Muscle)
	}
	assert.Empty(t, none.Next)
	all := 200
	r := Rank(Findings{Pain: []Pain{{"heel", ids.Left, 6, ""}}, Top: &all}, nil)
	raised := map[string]bool{}
	for _, s := range r.Suspects {
		if s.Raised {
			raised[s.Name] = true
		}
	}
	require.NotEmpty(t, r.Next)
	for _, n := range r.Next {
		if _, other, found := strings.Cut(n.Text, "helps tell "); found {
			for _, name := range strings.Split(other, " from ") {
				assert.True(t, raised[name], "%s: nothing speaks for %s", n.Text, name)
			}
		}
	}
}
