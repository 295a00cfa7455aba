package agreement

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/stable"
)

// Chart is one charted point: where it lies, and what was found.
type Chart struct {
	Muscle ids.Muscle `json:"muscle"`
	Side   ids.Side   `json:"side"`
	// A usual place of the muscle, or a place of a view.
	Site string    `json:"site,omitempty" maxLength:"40"`
	View body.View `json:"view,omitempty"`
	X    *float64  `json:"x,omitempty" minimum:"0" maximum:"1000"`
	Y    *float64  `json:"y,omitempty" minimum:"0" maximum:"1000"`
	NPRS *float64  `json:"nprs,omitempty" minimum:"0" maximum:"10"`
	PPT  *float64  `json:"ppt_kpa,omitempty" minimum:"0" maximum:"5000"`

	Band     string `json:"taut_band,omitempty" enum:"yes,no,unsure"`
	Familiar string `json:"familiar,omitempty" enum:"yes,partly,no,unknown"`
	Grade    *int   `json:"grade,omitempty" minimum:"0" maximum:"4"`
}

// Check implements decode.Checker: the place is said in one way, and whole.
func (c Chart) Check() *decode.Error {
	if e := atlas.Pressable(c.Muscle, "$.muscle"); e != nil {
		return e
	}
	m, err := atlas.Get(c.Muscle)
	if err != nil {
		return nil // the id's own check says so
	}
	switch placed := c.View != "" && c.X != nil && c.Y != nil; {
	case placed && c.Site == "":
		return nil
	case placed, c.Site == "" && (c.View != "" || c.X != nil || c.Y != nil):
		return &decode.Error{Path: "$.view", Given: "a part of a place", Allowed: "view with x and y, or a site"}
	case c.Site == "":
		return nil // the muscle's first usual place
	}
	if _, ok := m.Site(c.Site); !ok {
		return &decode.Error{Path: "$.site", Given: `"` + c.Site + `"`, Allowed: "a usual place of the muscle"}
	}
	return nil
}

// at is where the point lies on the figure.
func (c Chart) at(heightCM float64) (body.View, body.Point) {
	if c.View != "" {
		return c.View, body.Point{X: *c.X, Y: *c.Y}
	}
	m, err := atlas.Get(c.Muscle)
	if err != nil || len(m.Sites) == 0 {
		return "", body.Point{}
	}
	site := m.Sites[0]
	for _, s := range m.Sites {
		if s.ID == c.Site {
			site = s
		}
	}
	return m.OnFigure(site.Place(heightCM), c.Side, heightCM)
}

// Matching is what two free charts have in common.
type Matching struct {
	Both       int     `json:"both"`
	FirstOnly  int     `json:"first_only"`
	SecondOnly int     `json:"second_only"`
	Positive   float64 `json:"positive_agreement" doc:"2 × both ÷ (2 × both + first only + second only); 0 where nothing was found"`
	SameMuscle int     `json:"same_muscle"`
	// DistancesMM along the skin, of the matched, the nearest first.
	DistancesMM []float64 `json:"distances_mm"`
	Text        string    `json:"text" doc:"what it means"`

	pairs [][2]int
}

// mostMM is as far as two people's finger may be apart on one point.
const mostMM = 40

// far is more than all distances together: a match within mostMM is always better than none.
const far = 1e6

// Match matches two charts one to one: the same side, at most 40 mm apart, the most matches, and of
// those the least distance in all.
func Match(first, second []Chart, heightCM float64) Matching {
	n := max(len(first), len(second))
	cost := make([][]float64, n)
	for i := range n {
		cost[i] = make([]float64, n)
		for j := range n {
			cost[i][j] = far
			if i < len(first) && j < len(second) {
				if d := apart(first[i], second[j], heightCM); d <= mostMM {
					cost[i][j] = d
				}
			}
		}
	}
	out := Matching{DistancesMM: []float64{}}
	for i, j := range assign(cost) {
		if cost[i][j] >= far {
			continue
		}
		out.Both++
		out.pairs = append(out.pairs, [2]int{i, j})
		out.DistancesMM = append(out.DistancesMM, math.Round(cost[i][j]*10)/10)
		if first[i].Muscle == second[j].Muscle {
			out.SameMuscle++
		}
	}
	stable.Sort(out.DistancesMM, cmp.Compare)
	out.FirstOnly, out.SecondOnly = len(first)-out.Both, len(second)-out.Both
	if all := 2*out.Both + out.FirstOnly + out.SecondOnly; all > 0 {
		out.Positive = 2 * float64(out.Both) / float64(all)
	}
	out.Text = out.words(len(first), len(second))
	return out
}

// words say what a matching means.
func (m Matching) words(first, second int) string {
	if m.Both == 0 {
		return fmt.Sprintf("No point of the %d and the %d lies within %d mm of another: the two found different ones.",
			first, second, mostMM)
	}
	return fmt.Sprintf("Both found %d of the first's %d and the second's %d points, on %d of them the same "+
		"muscle, at a "+
		"median of %.0f mm.", m.Both, first, second, m.SameMuscle, m.DistancesMM[len(m.DistancesMM)/2])
}

// apart is how far two points lie from each other in mm; points of two sides or views do not meet.
func apart(a, b Chart, heightCM float64) float64 {
	if a.Side != b.Side {
		return far
	}
	va, pa := a.at(heightCM)
	vb, pb := b.at(heightCM)
	if va != vb {
		return far
	}
	return pa.Distance(pb) * va.CMPerUnit(heightCM) * 10
}

// assign is the assignment of least cost (Kuhn and Munkres, with potentials): the column of each row.
//
// Rows are taken in one by one. For each, the cheapest way to a free column is looked for over the
// columns that are taken already; u and v are prices of rows and columns that keep every reduced
// cost at 0 or above, so the way can be found as a shortest path. n is at most 60.
func assign(cost [][]float64) []int {
	n := len(cost)
	u, v := make([]float64, n+1), make([]float64, n+1)
	row := make([]int, n+1) // of each column, from 1; 0 is none
	for i := 1; i <= n; i++ {
		row[0] = i
		least, from := slices.Repeat([]float64{math.Inf(1)}, n+1), make([]int, n+1)
		used := make([]bool, n+1)
		at := 0
		for row[at] != 0 {
			used[at] = true
			r, delta, next := row[at], math.Inf(1), 0
			for j := 1; j <= n; j++ {
				if used[j] {
					continue
				}
				if c := cost[r-1][j-1] - u[r] - v[j]; c < least[j] {
					least[j], from[j] = c, at
				}
				if least[j] < delta {
					delta, next = least[j], j
				}
			}
			for j := range n + 1 {
				if used[j] {
					u[row[j]] += delta
					v[j] -= delta
				} else {
					least[j] -= delta
				}
			}
			at = next
		}
		for at != 0 {
			row[at] = row[from[at]]
			at = from[at]
		}
	}
	out := make([]int, n)
	for j := 1; j <= n; j++ {
		out[row[j]-1] = j - 1
	}
	return out
}
