package atlas

import (
	"cmp"
	"slices"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/stable"
)

// Work is what somebody looks at the body for.
type Work struct {
	// Aim is where a finger or the keys have just been; the body does not turn away from it.
	Aim body.View
	// Muscle is looked for or treated, at one of its usual places where Site names one.
	Muscle ids.Muscle
	Side   ids.Side
	Site   string
	// Points are the views of the points of the visit, one entry a point.
	Points []body.View
	// Painted counts the cells of a pain drawing in each view.
	Painted map[body.View]int
	// Anywhere: the next touch may lie in front or behind.
	Anywhere bool
}

// speck is the share of a drawing below which a view is not turned to: a line that runs over the
// edge of the figure is no work of its own.
const speck = 0.05

// MainViews are the views that fill the pane, one, or two where the work lies in both; the
// others are looked at by turning to them. What is aimed at comes before the muscle that is
// looked for, that before the points, and those before the drawing.
func MainViews(w Work) []body.View {
	if w.Aim != "" {
		return []body.View{w.Aim}
	}
	if m, err := Get(w.Muscle); err == nil {
		return []body.View{m.homeView(w.Side, w.Site)}
	}
	if w.Anywhere {
		return []body.View{body.Front, body.Back}
	}
	weight := map[body.View]int{}
	for _, v := range w.Points {
		weight[v]++
	}
	least := 1.0
	if len(weight) == 0 {
		all := 0
		for _, n := range w.Painted {
			all += n
		}
		weight, least = w.Painted, max(1, speck*float64(all))
	}
	return heaviest(weight, least)
}

// homeView is where a usual place of the muscle lies, or most of them do; the first counts
// where two views have as many.
func (m *Muscle) homeView(side ids.Side, site string) body.View {
	count := map[body.View]int{}
	first, most := body.View(""), body.View("")
	for i := range m.Sites {
		s := &m.Sites[i]
		v, _ := m.OnFigure(s.Place(body.DefaultHeightCM), side, body.DefaultHeightCM)
		if s.ID == site {
			return v
		}
		first = cmp.Or(first, v)
		count[v]++
		if most == "" || count[v] > count[most] {
			most = v
		}
	}
	if most == "" {
		v, _ := m.OnFigure(FibrePlace{AlongPct: 50}, side, body.DefaultHeightCM)
		return v
	}
	if count[first] == count[most] {
		return first
	}
	return most
}

// heaviest are the two views with most on them, in the order in which people look. Where nothing
// is, the next touch may lie in front or behind.
func heaviest(weight map[body.View]int, least float64) []body.View {
	found := slices.DeleteFunc(slices.Clone(body.Views), func(v body.View) bool {
		return float64(weight[v]) < least
	})
	if len(found) == 0 {
		return []body.View{body.Front, body.Back}
	}
	// The sort keeps the order of body.Views among equals.
	stable.Sort(found, func(a, b body.View) int { return cmp.Compare(weight[b], weight[a]) })
	found = found[:min(2, len(found))]
	stable.Sort(found, func(a, b body.View) int {
		return cmp.Compare(slices.Index(body.Views, a), slices.Index(body.Views, b))
	})
	return found
}
