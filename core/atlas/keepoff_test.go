package atlas_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Within a keep-off radius every usual site has 4 / 5 / 6 at most and takes no elbow or
// tool; where the structure is grave, no knuckle and no pisiform. Each keeps a usual
// contact that may be used (handbook 2: site ceilings, structures to keep off).
func TestSitesWithinAKeepOff(t *testing.T) {
	inside := 0
	for _, m := range atlas.All() {
		for _, s := range m.Sites {
			place := s.Place(body.DefaultHeightCM)
			v, p := m.OnFigure(place, ids.Left, body.DefaultHeightCM)
			where := m.PressedThrough(place, ids.Left, v, p)
			usable := 0
			for _, c := range m.Contacts {
				if safety.ContactForbidden(m.ID, where, m.Contacts, c) == "" {
					usable++
				}
			}
			assert.Positive(t, usable, "%s %s: no usual contact is left of %v at %v", m.ID, s.ID, m.Contacts, where)
			if len(safety.Within(v, p, ids.Left, body.DefaultHeightCM)) == 0 {
				continue
			}
			inside++
			l, _ := safety.Site(m.ID, where)
			guarded := safety.Limits{Target: 4, Soft: 5, Hard: 6, CapMS: safety.MaxCapMS}
			assert.True(t, l.Within(guarded), "%s %s", m.ID, s.ID)
			for _, c := range []ids.Contact{"elbow", "tool"} {
				assert.NotEmpty(t, safety.ContactForbidden(m.ID, where, []ids.Contact{c}, c), "%s %s %s", m.ID, s.ID, c)
			}
		}
	}
	assert.Greater(t, inside, 40, "they are found at all")
	t.Logf("%d usual sites lie within a keep-off radius", inside)
}
