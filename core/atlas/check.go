package atlas

import (
	"fmt"
	"slices"
	"strings"

	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
)

// refuse names the field of a file, what stands there, and what may.
func refuse(path, given, allowed string) error {
	return &decode.Error{Path: path, Given: given, Allowed: allowed}
}

// check holds what a single file can tell about itself. It runs in the tests only: what ships
// has passed it.
func (m *Muscle) check() error {
	if err := m.checkParts(); err != nil {
		return err
	}
	if err := m.checkSites(); err != nil {
		return err
	}
	if err := m.checkMeasures(); err != nil {
		return err
	}
	if err := m.checkPressing(); err != nil {
		return err
	}
	if m.Kind != "contact" {
		if len(m.Actions) == 0 {
			return refuse("$.actions", "none", "at least one action of a muscle")
		}
		if len(m.Restricts) == 0 {
			return refuse("$.restricts", "none", "at least one movement that a short muscle limits")
		}
	}
	for _, l := range []struct {
		path string
		list []Motion
	}{
		{"$.actions", m.Actions},
		{"$.restricts", m.Restricts},
		{"$.tension", motions(m.Tension)},
		{"$.slack", motions(m.Slack)},
	} {
		for i, a := range l.list {
			if sided(a.Movement) != (a.Toward != "") {
				return refuse(fmt.Sprintf("%s[%d].toward", l.path, i), fmt.Sprintf("%q for %s", a.Toward, a.Movement),
					"own or other for side-bends and turns of the spine, nothing else")
			}
		}
	}
	return m.checkPositions()
}

// checkPressing: what is pressed says where and with what, what is not says neither.
func (m *Muscle) checkPressing() error {
	pressed := m.IsPressed()
	for _, l := range []struct {
		path string
		is   bool
	}{
		{"$.sites", len(m.Sites) > 0},
		{"$.mistaken_for", len(m.MistakenFor) > 0},
		{"$.contacts", len(m.Contacts) > 0},
		{"$.near", len(m.Near) > 0 || pressed},
		{"$.strum", m.Strum != ""},
		{"$.trace", m.Trace != ""},
		{"$.draping", m.Draping != ""},
		{"$.usual_protocol", m.Usual != nil},
	} {
		switch {
		case pressed && !l.is:
			return refuse(l.path, "nothing", "at least one of what is pressed")
		case !pressed && l.is:
			return refuse(l.path, "something", "nothing of a muscle that is never pressed")
		}
	}
	return nil
}

// checkParts: every anchor lies on the figure, and the tendons leave a belly. The left side is
// enough, for the right one is its mirror image.
func (m *Muscle) checkParts() error {
	for i, part := range m.Parts {
		path := fmt.Sprintf("$.parts[%d]", i)
		v := viewOf(part.View, ids.Left)
		figure := body.Draw(v)
		for name, list := range map[string][]Anchor{
			".origin": part.Origin, ".insertion": part.Insertion,
			".first_edge": part.First, ".last_edge": part.Last,
		} {
			for j, a := range list {
				p, err := a.point(v, ids.Left)
				if err != nil {
					return refuse(fmt.Sprintf("%s%s[%d]", path, name, j), string(a.Landmark),
						"a landmark that this view shows")
				}
				if !figure.Contains(p) {
					return refuse(fmt.Sprintf("%s%s[%d]", path, name, j), fmt.Sprint(p), "a place on the figure")
				}
			}
		}
		if part.Tendon[0] < 0 || part.Tendon[1] < 0 || part.Tendon[0]+part.Tendon[1] > 90 {
			return refuse(path+".tendon_pct", fmt.Sprint(part.Tendon), "two shares that leave a tenth for the belly")
		}
	}
	return nil
}

// checkSites: every site lies in its part and on its own side of the figure, has an id of its
// own, and a pattern where the file is a muscle's.
func (m *Muscle) checkSites() error {
	seen := map[string]bool{}
	for i, s := range m.Sites {
		path := fmt.Sprintf("$.sites[%d]", i)
		if s.Fibre >= len(m.Parts) {
			return refuse(path+".fibre", fmt.Sprint(s.Fibre), fmt.Sprintf("0 to %d", len(m.Parts)-1))
		}
		if seen[s.ID] {
			return refuse(path+".id", s.ID, "an id of its own")
		}
		seen[s.ID] = true
		if _, at := m.OnFigure(s.Place(body.DefaultHeightCM), ids.Left, body.DefaultHeightCM); !m.holds(s, at) {
			return refuse(path+".across_mm", fmt.Sprint(s.AcrossMM), "a place within the part")
		}
		if (m.Kind == "muscle") != (len(s.Essential) > 0) {
			return refuse(path+".essential", fmt.Sprintf("%d regions", len(s.Essential)),
				"at least one for a muscle, none for a contact")
		}
		for _, r := range s.Spillover {
			if slices.Contains(s.Essential, r) {
				return refuse(path+".spillover", string(r), "a region that is not essential already")
			}
		}
		for _, side := range []ids.Side{ids.Left, ids.Right} {
			v, p := m.OnFigure(s.Place(body.DefaultHeightCM), side, body.DefaultHeightCM)
			figure := body.Draw(v)
			if !figure.Contains(p) || v.SideAt(p) != side {
				return refuse(path, fmt.Sprintf("%s %s %v", v, side, p), "a place on the figure, on its side")
			}
		}
	}
	return nil
}

// checkMeasures: words have a slot for their measure, and its landmark is shown where the site
// is; else the words could not be worked out.
func (m *Muscle) checkMeasures() error {
	check := func(path, text string, x *Measure, site string) error {
		if (x != nil) != strings.Contains(text, slot) {
			return refuse(path+".measure", fmt.Sprintf("%q", text), "a measure where the words have "+slot+" only")
		}
		if x == nil {
			return nil
		}
		s, ok := m.Site(site)
		if !ok {
			return refuse(path+".measure.to", site, "a site of the muscle")
		}
		v, _ := m.OnFigure(s.Place(body.DefaultHeightCM), ids.Left, body.DefaultHeightCM)
		if _, err := body.FindLandmark(v, x.From, ids.Left); err != nil {
			return refuse(path+".measure.from", string(x.From), "a landmark that the site's view shows")
		}
		return nil
	}
	for i, s := range m.Sites {
		if err := check(fmt.Sprintf("$.sites[%d]", i), s.Name, s.Measure, s.ID); err != nil {
			return err
		}
	}
	for i, st := range m.Find {
		to := ""
		if st.Measure != nil {
			to = st.Measure.To
		}
		if err := check(fmt.Sprintf("$.find[%d]", i), st.Text, st.Measure, to); err != nil {
			return err
		}
	}
	return nil
}

// holds reports whether a site lies in its part.
func (m *Muscle) holds(s Site, at body.Point) bool {
	sheet := m.Parts[s.Fibre].sheet(ids.Left)
	_, _, off := sheet.near(at)
	return off*sheet.view.CMPerUnit(body.DefaultHeightCM) < 0.1
}

// checkPositions: what lengthens must not be what the muscle does, what
// slackens must not be the opposite, and each says so of at least one action.
func (m *Muscle) checkPositions() error {
	if m.Kind == "contact" {
		return nil
	}
	lengthens, shortens := false, false
	for i, p := range m.Tension {
		if slices.Contains(m.Actions, p.motion()) {
			return refuse(fmt.Sprintf("$.tension[%d]", i), string(p.Movement),
				"a movement that lengthens the muscle, not one of its actions")
		}
		lengthens = lengthens || slices.ContainsFunc(m.Actions, func(a Motion) bool { return opposed(a, p.motion()) })
	}
	for i, p := range m.Slack {
		if slices.ContainsFunc(m.Actions, func(a Motion) bool { return opposed(a, p.motion()) }) {
			return refuse(fmt.Sprintf("$.slack[%d]", i), string(p.Movement),
				"a movement that shortens the muscle, not the opposite of an action")
		}
		shortens = shortens || slices.Contains(m.Actions, p.motion())
	}
	switch {
	case !lengthens:
		return refuse("$.tension", fmt.Sprint(motions(m.Tension)), "the opposite of at least one action")
	case !shortens:
		return refuse("$.slack", fmt.Sprint(motions(m.Slack)), "at least one action")
	case !slices.ContainsFunc(m.Actions, func(a Motion) bool { return a.Movement == m.Confirm.Movement }):
		return refuse("$.confirm.movement", string(m.Confirm.Movement), "one of the muscle's actions")
	}
	return nil
}

// together holds what only all the files can tell: who is mistaken for whom
// knows it of each other, nothing refers to itself or to a missing file, and
// the order of easing has no circle.
func together(all map[ids.Muscle]*Muscle) error {
	list := make([]ids.Muscle, 0, len(all))
	for id := range all {
		list = append(list, id)
	}
	slices.Sort(list)
	wrong := func(m *Muscle, path, given, allowed string) error {
		return fmt.Errorf("atlas: data/%s.json: %w", m.ID, refuse(path, given, allowed))
	}
	for _, id := range list {
		m := all[id]
		for i, n := range m.MistakenFor {
			o := all[n.Muscle]
			if o == nil || o == m || !slices.ContainsFunc(o.MistakenFor,
				func(b Neighbour) bool { return b.Muscle == m.ID }) {
				return wrong(m, fmt.Sprintf("$.mistaken_for[%d].muscle", i), string(n.Muscle),
					"another muscle whose file names this one too")
			}
		}
		for i, e := range m.EaseFirst {
			if all[e] == nil || e == m.ID {
				return wrong(m, fmt.Sprintf("$.ease_first[%d]", i), string(e), "another muscle of the atlas")
			}
			if circle(all, e, m.ID, map[ids.Muscle]bool{}) {
				return wrong(m, fmt.Sprintf("$.ease_first[%d]", i), string(e),
					"a muscle that does not itself wait for this one")
			}
		}
		if c := m.Corrections; c != nil {
			for field, l := range map[string][]ids.Muscle{
				"synergists":     c.Synergists,
				"not_synergists": c.NotSynergists, "antagonists": c.Antagonists, "not_antagonists": c.NotAntagonists,
			} {
				for i, o := range l {
					if all[o] == nil || o == m.ID {
						return wrong(m, fmt.Sprintf("$.corrections.%s[%d]", field, i), string(o),
							"another muscle of the atlas")
					}
				}
			}
		}
	}
	return nil
}

// circle tells whether easing from leads back to to, over any number of muscles. seen keeps it
// from running round a circle that is not this one.
func circle(all map[ids.Muscle]*Muscle, from, to ids.Muscle, seen map[ids.Muscle]bool) bool {
	if from == to {
		return true
	}
	if seen[from] || all[from] == nil {
		return false
	}
	seen[from] = true
	return slices.ContainsFunc(all[from].EaseFirst, func(e ids.Muscle) bool { return circle(all, e, to, seen) })
}
