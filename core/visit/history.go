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

// Dated is one visit's state with the day it belongs to.
type Dated struct {
	Visit string
	Day   float64 // days from any fixed day
	Date  string  // the practice's local date, YYYY-MM-DD
	State State
}

// PointVisit is one point at one visit.
type PointVisit struct {
	Visit      string        `json:"visit"`
	Date       string        `json:"date"`
	Before     *float64      `json:"before,omitempty" doc:"NPRS when found"`
	After      *float64      `json:"after,omitempty" doc:"NPRS at the recheck"`
	Grade      int           `json:"grade"`
	AfterGrade *int          `json:"after_grade,omitempty"`
	SecondsS   float64       `json:"seconds" doc:"pressure over all holds of the visit, s"`
	Stages     int           `json:"stages"`
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
// adapts the reference ranges; 0 is unknown. Holds set aside count nowhere.
func Course(visits []Dated, age int) History {
	visits = slices.Clone(visits)
	slices.SortStableFunc(visits, func(a, b Dated) int { return cmp.Compare(a.Day, b.Day) })
	h := History{Points: []PointHistory{}, Ranges: []RangeHistory{}}
	numbers, grades, ranges := map[UUID][]progress.Reading{}, map[UUID][]progress.Reading{},
		map[string][]progress.Reading{}
	for _, v := range visits {
		for _, p := range v.State.Points {
			i := slices.IndexFunc(h.Points, func(x PointHistory) bool { return x.Identity == p.Identity })
			if i < 0 {
				i = len(h.Points)
				ph := PointHistory{Identity: p.Identity, Muscle: p.Muscle, Name: string(p.Muscle), Side: p.Side}
				if m, err := atlas.Get(p.Muscle); err == nil {
					ph.Name = m.Name
					if s, ok := m.Site(p.Site); ok && p.Site != "" {
						ph.Site = s.Name
					}
				}
				h.Points = append(h.Points, ph)
			}
			ph := &h.Points[i]
			ph.View, ph.X, ph.Y = p.View, p.X, p.Y
			ph.Visits = append(ph.Visits, pointVisit(v, p))
			if p.NPRS != nil {
				numbers[p.Identity] = append(numbers[p.Identity], progress.Reading{Day: v.Day, Value: *p.NPRS})
			}
			grades[p.Identity] = append(grades[p.Identity], progress.Reading{Day: v.Day, Value: float64(p.Grade)})
		}
		for _, r := range v.State.Ranges {
			key := string(r.Movement) + string(r.Side)
			i := slices.IndexFunc(h.Ranges, func(x RangeHistory) bool {
				return x.Movement == r.Movement &&
					x.Side == r.Side
			})
			if i < 0 {
				i = len(h.Ranges)
				f := progress.Flag(r.Movement, 0, nil, age)
				h.Ranges = append(h.Ranges, RangeHistory{
					Movement: r.Movement, Side: r.Side, Reference: f.Reference,
					FlagBelow: f.FlagBelow,
				})
			}
			h.Ranges[i].Visits = append(h.Ranges[i].Visits, RangeVisit{v.Visit, v.Date, r.Before, r.After})
			if r.Before != nil {
				ranges[key] = append(ranges[key], progress.Reading{Day: v.Day, Value: *r.Before})
			}
		}
	}
	for i := range h.Points {
		p := &h.Points[i]
		p.Number = judge("nprs", numbers[p.Identity])
		p.Grade = judge("tenderness-grade", grades[p.Identity])
		if n := numbers[p.Identity]; len(n) >= 2 {
			p.Since = judge("nprs", n[len(n)-2:])
		}
	}
	for i := range h.Ranges {
		r := &h.Ranges[i]
		r.Change = judge("rom."+ids.Measure(r.Movement), ranges[string(r.Movement)+string(r.Side)])
	}
	slices.SortStableFunc(h.Ranges, func(a, b RangeHistory) int {
		return cmp.Or(cmp.Compare(a.Movement, b.Movement), cmp.Compare(a.Side, b.Side))
	})
	return h
}

func pointVisit(v Dated, p Point) PointVisit {
	pv := PointVisit{
		Visit: v.Visit, Date: v.Date, Before: p.NPRS, After: p.AfterNPRS, Grade: p.Grade,
		AfterGrade: p.AfterGrade,
	}
	for _, x := range v.State.Holds {
		if x.Point == p.Point && x.Status != SetAside {
			pv.Holds++
			pv.SecondsS += x.Summary.PressureS
			pv.Stages += len(x.Summary.Stages)
			pv.Outcome = x.Summary.Outcome
		}
	}
	return pv
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
func SameSpotAs(earlier []Point, muscle ids.Muscle, side ids.Side, place atlas.FibrePlace, heightCM float64) UUID {
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
