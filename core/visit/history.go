package visit

import (
	"cmp"
	"slices"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/treat"
)

// Treated is a point with what its holds came to. Holds set aside count nowhere.
type Treated struct {
	FoundPoint
	SecondsS float64       // pressure over all holds of the visit, s
	Parts    int           // over all holds
	Holds    int           // that count
	Outcome  treat.Outcome // of the last one; empty without any
}

// Treated gives a visit's points with what their holds came to.
func (s State) Treated() []Treated {
	out := make([]Treated, len(s.Points))
	for i, p := range s.Points {
		t := Treated{FoundPoint: p.FoundPoint}
		for _, h := range s.Holds {
			if h.Point == p.Point && h.Status != SetAside {
				t.Holds++
				t.SecondsS += h.Summary.PressureS
				t.Parts += h.Summary.Count()
				t.Outcome = h.Summary.Outcome
			}
		}
		out[i] = t
	}
	return out
}

// Dated is what one visit adds to a client's course, with the day it belongs to.
type Dated struct {
	Visit  string
	Day    float64 // days from any fixed day
	Date   string  // the practice's local date, YYYY-MM-DD
	Points []Treated
	Ranges []Range
}

// PointVisit is one point at one visit.
type PointVisit struct {
	Visit      string        `json:"visit"`
	Date       string        `json:"date"`
	Before     *float64      `json:"before,omitempty" doc:"NPRS when found"`
	After      *float64      `json:"after,omitempty" doc:"NPRS at the recheck"`
	Grade      *int          `json:"grade,omitempty"`
	AfterGrade *int          `json:"after_grade,omitempty"`
	SecondsS   float64       `json:"seconds" doc:"pressure over all holds of the visit, s"`
	Parts      int           `json:"parts" doc:"over all holds"`
	Holds      int           `json:"holds"`
	Outcome    treat.Outcome `json:"outcome,omitempty"`
}

// PointHistory follows one point identity over visits.
type PointHistory struct {
	Identity UUID             `json:"identity"`
	Muscle   ids.Muscle       `json:"muscle"`
	Name     string           `json:"name"`
	Site     string           `json:"site,omitempty"`
	Side     ids.Side         `json:"side"`
	View     body.View        `json:"view"`
	X        float64          `json:"x"`
	Y        float64          `json:"y"`
	Visits   []PointVisit     `json:"visits"`
	Number   *progress.Change `json:"number,omitempty" doc:"NPRS when found, first visit against last, with the signal"`
	Grade    *progress.Change `json:"grade_change,omitempty"`
	Since    *progress.Change `json:"since_last,omitempty" doc:"NPRS when found, last visit against the one before"`
}

// RangeVisit is one movement at one visit.
type RangeVisit struct {
	Visit  string   `json:"visit"`
	Date   string   `json:"date"`
	Before *float64 `json:"before,omitempty"`
	After  *float64 `json:"after,omitempty"`
}

// RangeHistory follows one movement on one side over visits.
type RangeHistory struct {
	Movement  ids.Movement     `json:"movement"`
	Side      ids.Side         `json:"side"`
	Reference float64          `json:"reference"`
	FlagBelow float64          `json:"flag_below"`
	Visits    []RangeVisit     `json:"visits"`
	Change    *progress.Change `json:"change,omitempty" doc:"before-value, first visit against last"`
}

// History is a client's course.
type History struct {
	Points []PointHistory `json:"points"`
	Ranges []RangeHistory `json:"ranges"`
}

// Course follows points and ranges across visits, oldest first. age in years
// adapts the reference ranges; 0 is unknown.
func Course(visits []Dated, age int) History {
	visits = slices.Clone(visits)
	slices.SortStableFunc(visits, func(a, b Dated) int { return cmp.Compare(a.Day, b.Day) })
	c := course{point: map[UUID]*pointCourse{}, movement: map[movementSide]*rangeCourse{}}
	for _, v := range visits {
		for _, p := range v.Points {
			c.addPoint(v, p)
		}
		for _, r := range v.Ranges {
			c.addRange(v, r, age)
		}
	}
	return c.history()
}

// course is a history in the making.
type course struct {
	points   []*pointCourse
	point    map[UUID]*pointCourse
	ranges   []*rangeCourse
	movement map[movementSide]*rangeCourse
}

type movementSide struct {
	movement ids.Movement
	side     ids.Side
}

type pointCourse struct {
	PointHistory
	numbers, grades []progress.Reading
}

type rangeCourse struct {
	RangeHistory
	readings []progress.Reading
}

func (c *course) addPoint(v Dated, p Treated) {
	h, ok := c.point[p.Identity]
	if !ok {
		h = &pointCourse{PointHistory: named(p.Charted)}
		c.point[p.Identity], c.points = h, append(c.points, h)
	}
	h.View, h.X, h.Y = p.View, p.X, p.Y
	h.Visits = append(h.Visits, PointVisit{
		Visit: v.Visit, Date: v.Date, Before: p.NPRS, After: p.AfterNPRS, Grade: p.Grade, AfterGrade: p.AfterGrade,
		SecondsS: p.SecondsS, Parts: p.Parts, Holds: p.Holds, Outcome: p.Outcome,
	})
	if p.NPRS != nil {
		h.numbers = append(h.numbers, progress.Reading{Day: v.Day, Value: *p.NPRS})
	}
	if p.Grade != nil {
		h.grades = append(h.grades, progress.Reading{Day: v.Day, Value: float64(*p.Grade)})
	}
}

// named begins a point's history with the names of its muscle and site.
func named(p Charted) PointHistory {
	h := PointHistory{Identity: p.Identity, Muscle: p.Muscle, Name: string(p.Muscle), Side: p.Side}
	m, err := atlas.Get(p.Muscle)
	if err != nil {
		return h
	}
	h.Name = m.Name
	if s, ok := m.Site(p.Site); ok && p.Site != "" {
		h.Site = s.Name
	}
	return h
}

func (c *course) addRange(v Dated, r Range, age int) {
	key := movementSide{r.Movement, r.Side}
	h, ok := c.movement[key]
	if !ok {
		f := progress.Flag(r.Movement, 0, nil, age)
		h = &rangeCourse{RangeHistory: RangeHistory{
			Movement: r.Movement, Side: r.Side, Reference: f.Reference, FlagBelow: f.FlagBelow,
		}}
		c.movement[key], c.ranges = h, append(c.ranges, h)
	}
	h.Visits = append(h.Visits, RangeVisit{v.Visit, v.Date, r.Before, r.After})
	if r.Before != nil {
		h.readings = append(h.readings, progress.Reading{Day: v.Day, Value: *r.Before})
	}
}

// history judges the change of every series.
func (c *course) history() History {
	out := History{Points: []PointHistory{}, Ranges: []RangeHistory{}}
	for _, h := range c.points {
		h.Number = judge("nprs", h.numbers)
		h.Grade = judge("tenderness-grade", h.grades)
		if n := len(h.numbers); n >= 2 {
			h.Since = judge("nprs", h.numbers[n-2:])
		}
		out.Points = append(out.Points, h.PointHistory)
	}
	for _, h := range c.ranges {
		h.Change = judge("rom."+ids.Measure(h.Movement), h.readings)
		out.Ranges = append(out.Ranges, h.RangeHistory)
	}
	slices.SortStableFunc(out.Ranges, func(a, b RangeHistory) int {
		return cmp.Or(cmp.Compare(a.Movement, b.Movement), cmp.Compare(a.Side, b.Side))
	})
	return out
}

// judge needs at least two readings to speak of change.
func judge(m ids.Measure, s []progress.Reading) *progress.Change {
	if len(s) < 2 {
		return nil
	}
	c, err := progress.Series(m, s)
	if err != nil {
		return nil
	}
	return &c
}

// SameSpotAs finds the identity among earlier points that a new place belongs
// to, the latest visit first; "" when it is a new spot.
func SameSpotAs(earlier []FoundPoint, muscle ids.Muscle, side ids.Side, place atlas.FibrePlace, heightCM float64) UUID {
	m, err := atlas.Get(muscle)
	if err != nil {
		return ""
	}
	for _, p := range earlier {
		if p.Muscle == muscle && p.Side == side && m.SameSpot(p.Place, place, side, heightCM) {
			return p.Identity
		}
	}
	return ""
}
