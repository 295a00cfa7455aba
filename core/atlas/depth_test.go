package atlas_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/solid"
)

// site is a usual site as it is pressed.
type site struct {
	m     *atlas.Muscle
	id    string
	line  solid.Pressure
	where []safety.Place
	near  []safety.Close
}

// everySite presses every usual site on a side.
func everySite(t *testing.T, side ids.Side) []site {
	t.Helper()
	var out []site
	for _, m := range atlas.All() {
		for _, s := range m.Sites {
			f := s.Place(body.DefaultHeightCM)
			v, p := m.OnFigure(f, side, body.DefaultHeightCM)
			l, ok := m.Pressed(f, side, v, p)
			require.True(t, ok, "%s %s lies beside the body", m.ID, s.ID)
			out = append(out, site{
				m, s.ID, l, m.PressedThrough(f, side, v, p), safety.Near(l, body.DefaultHeightCM, safety.ReachMM("")),
			})
		}
	}
	return out
}

func (s site) in(tier safety.Tier) bool {
	return slices.ContainsFunc(s.near, func(c safety.Close) bool { return c.Inside() && c.Tier == tier })
}

// Over all sites and contacts: within a danger stretch there are ceilings and no hard
// contact, within a caution stretch it is named and takes neither elbow nor tool; and
// a usual contact is left (handbook 4, "Depth").
func TestEverySiteKeepsOff(t *testing.T) {
	danger, caution := 0, 0
	guarded := safety.Limits{Target: 4, Soft: 5, Hard: 6, CapMS: safety.MaxCapMS}
	for _, side := range []ids.Side{ids.Left, ids.Right} {
		for _, s := range everySite(t, side) {
			usable := slices.ContainsFunc(s.m.Contacts, func(c ids.Contact) bool {
				return safety.ContactForbidden(s.m.ID, s.where, s.m.Contacts, c) == ""
			})
			assert.True(t, usable, "%s %s: no usual contact is left of %v at %v", s.m.ID, s.id, s.m.Contacts, s.where)
			refused := []ids.Contact{}
			switch {
			case s.in(safety.Danger):
				danger++
				refused = ids.List[ids.Contact]("elbow tool knuckle pisiform-over-thumb")
				l, _ := safety.Site(s.m.ID, s.where)
				assert.True(t, l.Within(guarded), "%s %s: %v", s.m.ID, s.id, l)
			case s.in(safety.Caution):
				caution++
				refused = ids.List[ids.Contact]("elbow tool")
			}
			for _, c := range refused {
				why := safety.ContactForbidden(s.m.ID, s.where, []ids.Contact{c}, c)
				assert.NotEmpty(t, why, "%s %s %s", s.m.ID, s.id, c)
			}
			g, err := s.m.Palpate(side, s.id, body.DefaultHeightCM, 0)
			require.NoError(t, err)
			for _, c := range s.near {
				if c.Inside() {
					assert.True(t, slices.ContainsFunc(g.Near, func(n atlas.NearBy) bool {
						return n.Structure == c.Structure.ID && n.Inside
					}), "%s %s: the guide does not name %s", s.m.ID, s.id, c.Structure.ID)
				}
			}
		}
	}
	assert.Greater(t, danger, 60)
	assert.Greater(t, caution, 40)
	t.Logf("both sides: %d sites within a danger stretch, %d within a caution stretch only", danger, caution)
}

// The way off gains room, or says that there is none; it is a step of 1 to 2 cm on the
// skin of the same part.
func TestTheWayOffMovesOff(t *testing.T) {
	stay := 0
	for _, s := range everySite(t, ids.Left) {
		if !s.in(safety.Danger) && !s.in(safety.Caution) {
			continue
		}
		reach := safety.ReachMM("")
		off := safety.Off(s.line, body.DefaultHeightCM, reach)
		if off.Stay {
			assert.Equal(t, safety.StayOff, off.Text)
			stay++
			continue
		}
		assert.Regexp(t, `^Move [a-z ]{2,}\.$`, off.Text, "%s %s", s.m.ID, s.id)
		step := s.line.From.At.Distance(off.To.At) * solid.MMPerUnit
		assert.InDelta(t, 15, step, 7, "%s %s", s.m.ID, s.id)
		there := solid.Pressure{From: off.To, Depth: s.line.Depth}
		assert.Greater(t, room(there), room(s.line), "%s %s: %s", s.m.ID, s.id, off.Text)
	}
	assert.Less(t, stay, 12, "few places leave no way")
}

// room is the least clearance of a line, from the list of what is near it.
func room(l solid.Pressure) float64 {
	least := math.Inf(1)
	for _, c := range safety.Near(l, body.DefaultHeightCM, safety.ReachMM("")) {
		if c.Tier != safety.Note {
			least = min(least, c.GapMM-c.FloorMM)
		}
	}
	return least
}

// One place, seen in front and from the side, has the same structures near.
func TestNearIsTheSameFromEverySide(t *testing.T) {
	compared := 0
	for _, c := range body.Cells(body.LeftSide) {
		p := c.Cell.Center()
		s, ok := solid.Touch(body.LeftSide, p, ids.Left)
		if !ok {
			continue
		}
		for _, v := range []body.View{body.Front, body.Back} {
			q, near, shown := s.At.In(v)
			if !shown || !near {
				continue
			}
			again, ok := solid.Touch(v, q, ids.Left)
			if !ok || again.At.Distance(s.At) > 1 { // another part lies before it there
				continue
			}
			compared++
			a, b := names(solid.Press(s)), names(solid.Press(again))
			assert.Equal(t, a, b, "%v of the left view, %v of the %s", p, q, v)
		}
	}
	assert.Greater(t, compared, 500)
}

// names of what a line comes too near, with half a millimetre to spare.
func names(l solid.Pressure) map[ids.Structure]bool {
	out := map[ids.Structure]bool{}
	for _, c := range safety.Near(l, body.DefaultHeightCM, safety.ReachMM("")) {
		if c.GapMM < c.FloorMM-2.5 {
			out[c.Structure.ID] = true
		}
	}
	return out
}

// What views show of a structure is one path: where two views show it, its heights
// agree.
func TestProjectionsBelongToOnePath(t *testing.T) {
	heights := func(v body.View, id ids.Structure) (low, high float64, shown bool) {
		low, high = math.Inf(1), math.Inf(-1)
		for _, s := range safety.Shapes(v) {
			if s.Structure != id || s.Side == ids.Right {
				continue
			}
			for _, p := range s.Line {
				y := v.Authored(p).Y
				low, high, shown = min(low, y), max(high, y), true
			}
		}
		return low, high, shown
	}
	for _, st := range safety.Structures() {
		lowF, highF, front := heights(body.Front, st.ID)
		lowB, highB, back := heights(body.Back, st.ID)
		assert.Equal(t, front, back, "%s: in front and behind", st.ID)
		if !front { // of the right side only
			continue
		}
		assert.InDelta(t, lowF, lowB, 1e-6, "%s", st.ID)
		assert.InDelta(t, highF, highB, 1e-6, "%s", st.ID)
		if lowS, highS, side := heights(body.LeftSide, st.ID); side {
			const swung = 10 // the arm of the side view is turned
			assert.InDelta(t, lowF, lowS, swung, "%s", st.ID)
			assert.InDelta(t, highF, highS, swung, "%s", st.ID)
		}
	}
}

// Textbook places: what a thumb there has to know of.
func TestTextbookPlaces(t *testing.T) {
	for _, c := range []struct {
		name string
		view body.View
		x, y float64
		near ids.Structure
		tier safety.Tier
	}{
		{"inner side of the upper arm", "front", 112, 310, "brachial-artery", safety.Danger},
		{"inner side of the upper arm", "front", 112, 310, "median-nerve", safety.Danger},
		{"inner side of the upper arm, from behind", "back", 119, 328, "ulnar-nerve", safety.Danger},
		{"behind the inner elbow", "back", 137, 384, "ulnar-nerve", safety.Danger},
		{"front of the elbow", "front", 145, 386, "median-nerve", safety.Danger},
		{"front of the elbow", "front", 145, 388, "brachial-artery", safety.Danger},
		{"spiral groove", "back", 134, 292, "radial-nerve", safety.Danger},
		{"hollow of the knee", "back", 57, 715, "popliteal-vessels", safety.Danger},
		{"hollow of the knee", "back", 57, 715, "tibial-nerve", safety.Danger},
		{"neck of the fibula", "left", -6, 748, "common-fibular-nerve", safety.Danger},
		{"groin", "front", 44, 495, "femoral-vessels-and-nerve", safety.Danger},
		{"groin, outward of the pulse", "front", 53, 500, "femoral-nerve", safety.Danger},
		{"middle of the buttock", "back", 58, 508, "sciatic-nerve", safety.Caution},
		{"back of the thigh", "back", 56, 600, "sciatic-nerve", safety.Caution},
		{"over the last ribs", "back", 34, 362, "kidney", safety.Danger},
		{"armpit", "front", 97, 256, "axillary-vessels", safety.Danger},
		{"side of the neck", "left", -4, 150, "brachial-plexus", safety.Danger},
		{"front of the neck", "front", 18, 131, "carotid-sinus", safety.Danger},
		{"before the ear", "left", 0, 84, "parotid-gland", safety.Danger},
		{"inner edge of the shin", "front", 37, 840, "great-saphenous-vein", safety.Caution},
		{"below the asis", "front", 71, 472, "lateral-femoral-cutaneous-nerve", safety.Caution},
		{"skull edge", "back", 13, 93, "greater-occipital-nerve", safety.Caution},
		{"middle of the sole", "sole-left", -40, 600, "plantar-nerves", safety.Danger},
		{"above the pubic bone", "front", 0, 486, "bladder", safety.Danger},
	} {
		p := c.view.Place(body.Point{X: c.x, Y: c.y}, ids.Left)
		s, ok := solid.Touch(c.view, p, ids.Left)
		require.True(t, ok, c.name)
		list := safety.Within(solid.Press(s), body.DefaultHeightCM)
		i := slices.IndexFunc(list, func(x safety.Close) bool { return x.Structure.ID == c.near })
		if assert.GreaterOrEqual(t, i, 0, "%s: %s", c.name, c.near) {
			assert.Equal(t, c.tier, list[i].Tier, "%s: %s", c.name, c.near)
		}
	}
	// And what lies behind bone or far below is not near.
	for _, c := range []struct {
		view body.View
		x, y float64
		far  ids.Structure
	}{
		{"back", 40, 165, "brachial-plexus"},
		{"front", 58, 713, "popliteal-vessels"},
		{"front", 54, 830, "tibial-nerve"},
		{"back", 57, 240, "axillary-plexus"},
		{"front", 92, 600, "femoral-vessels-and-nerve"},
		{"left", 5, 600, "sciatic-nerve"},
	} {
		s, ok := solid.Touch(c.view, c.view.Place(body.Point{X: c.x, Y: c.y}, ids.Left), ids.Left)
		require.True(t, ok)
		near := slices.ContainsFunc(safety.Within(solid.Press(s), body.DefaultHeightCM), func(x safety.Close) bool {
			return x.Structure.ID == c.far
		})
		assert.False(t, near, "%s at %v %v", c.far, c.x, c.y)
	}
}

// Inside no more than the line allows: subscapularis is reached through the armpit, and
// a touch on the chest offers what lies there.
func TestTheChestOffersNoSubscapularis(t *testing.T) {
	for _, at := range [][2]float64{{64, 240}, {70, 230}} {
		for _, c := range atlas.Under(body.Front, body.Front.Place(body.Point{X: at[0], Y: at[1]}, ids.Left), 170) {
			assert.NotEqual(t, ids.Muscle("subscapularis"), c.Muscle, "%v", at)
		}
	}
	m, err := atlas.Get("subscapularis")
	require.NoError(t, err)
	for _, id := range []string{"outer-border", "deep"} {
		assert.Equal(t, ids.Region("axilla"), m.PressedAt(id, ids.Left)[0].Region)
	}
}
