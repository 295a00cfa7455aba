package visit

import (
	"cmp"
	"math"
	"slices"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/stable"
)

// Course follows points and ranges across visits, oldest first. age in years
// adapts the reference ranges; 0 is unknown.
func Course(visits []VisitContribution, age int) History {
	visits = slices.Clone(visits)
	stable.Sort(visits, func(a, b VisitContribution) int { return cmp.Compare(a.Day, b.Day) })
	c := course{point: map[UUID]*pointCourse{}, movement: map[movementSide]*rangeCourse{}}
	for _, v := range visits {
		c.addDay(v)
		for _, p := range v.Points {
			c.addPoint(v, p)
		}
		for _, r := range v.Ranges {
			c.addRange(v, r, age)
		}
	}
	return c.history()
}

// course is a history in the making. Lists keep the order in which things first appeared, and
// maps find them again.
type course struct {
	points []*pointCourse
	point  map[UUID]*pointCourse // by identity, which stays the same over visits
	// ranges of each movement and side, found again by movement.
	ranges   []*rangeCourse
	movement map[movementSide]*rangeCourse
	// scores are measures of the client's own, such as an activity.
	scores  []*scoreCourse
	treated []TreatedDay
	// worked are the points of all visits that tell what a protocol does: pressed by one
	// protocol alone, with a score before and after.
	worked []progress.TreatmentResult
}

type movementSide struct {
	movement ids.Movement
	side     ids.Side
}

// pointCourse is a point with its series: scores, grades 0 to 4, thresholds in kPa.
type pointCourse struct {
	PointHistory
	numbers, grades, ppt []progress.Reading
	worked               []progress.TreatmentResult
}

type rangeCourse struct {
	RangeHistory
	readings []progress.Reading
}

// addPoint adds one visit to a point's history. It is drawn where it was found last.
func (c *course) addPoint(v VisitContribution, p TreatedPoint) {
	h, ok := c.point[p.Identity]
	if !ok {
		h = &pointCourse{PointHistory: named(p.PointCharted)}
		c.point[p.Identity], c.points = h, append(c.points, h)
	}
	x, y := drawn(p.X), drawn(p.Y)
	h.View, h.X, h.Y = p.View, x, y
	h.Visits = append(h.Visits, PointVisit{
		Visit: v.Visit, Date: v.Date, Before: p.NPRS, After: p.AfterNPRS, Grade: p.Grade, AfterGrade: p.AfterGrade,
		SecondsS: p.SecondsS, Parts: p.Parts, Holds: p.Holds, Outcome: p.Outcome, Result: p.Result,
		Protocols: orNone(p.Protocols), PPT: p.PPT, Referral: orNone(p.Referral), Activity: p.Activity,
		View: p.View, X: x, Y: y,
	})
	if p.PPT != nil {
		h.ppt = append(h.ppt, progress.Reading{Day: v.Day, Value: *p.PPT})
	}
	if p.NPRS != nil && p.AfterNPRS != nil && len(p.Protocols) == 1 {
		t := progress.TreatmentResult{
			Protocol: p.Protocols[0],
			Before:   *p.NPRS,
			After:    *p.AfterNPRS,
			PressedS: p.SecondsS, Lengthened: p.Lengthened,
		}
		h.worked, c.worked = append(h.worked, t), append(c.worked, t)
	}
	if p.NPRS != nil {
		h.numbers = append(h.numbers, progress.Reading{Day: v.Day, Value: *p.NPRS})
	}
	if p.Grade != nil {
		h.grades = append(h.grades, progress.Reading{Day: v.Day, Value: float64(*p.Grade)})
	}
}

// drawn rounds a coordinate to what a drawing can show.
func drawn(at float64) float64 { return math.Round(at*100) / 100 }

// named begins a point's history with the names of its muscle and site.
func named(p PointCharted) PointHistory {
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

// addRange adds one visit to a movement's history. The reference range is of the client's age;
// a visit without a reading before treatment is listed and not judged.
func (c *course) addRange(v VisitContribution, r Range, age int) {
	key := movementSide{r.Movement, r.Side}
	h, ok := c.movement[key]
	if !ok {
		f := progress.Flag(r.Movement, 0, nil, age)
		h = &rangeCourse{RangeHistory: RangeHistory{
			Movement: r.Movement, Side: r.Side, Reference: f.Reference, FlagBelow: f.FlagBelow,
		}}
		c.movement[key], c.ranges = h, append(c.ranges, h)
	}
	h.Visits = append(h.Visits, RangeVisit{v.Visit, v.Date, r.Before, r.After, cmp.Or(r.AfterPain, r.BeforePain)})
	if r.Before != nil {
		h.readings = append(h.readings, progress.Reading{Day: v.Day, Value: *r.Before})
	}
}

// history judges the change of every series: since the first visit, and since the one before
// the last. The judgement weighs the least change that is more than measuring error
// (core/progress).
func (c *course) history() History {
	out := History{
		Points: []PointHistory{}, Ranges: []RangeHistory{}, Scores: c.scored(), Treated: orNone(c.treated),
		Worked: progress.WhatWorked(c.worked), Lengthening: progress.LengtheningAfter(c.worked),
	}
	for _, h := range c.points {
		h.Number = judge("nprs", h.numbers)
		h.Grade = judge("tenderness-grade", h.grades)
		if n := len(h.numbers); n >= 2 {
			h.Since = judge("nprs", h.numbers[n-2:])
		}
		h.PPT = judge("ppt-kpa", h.ppt)
		h.Worked = progress.WhatWorked(h.worked)
		out.Points = append(out.Points, h.PointHistory)
	}
	for _, h := range c.ranges {
		h.Change = judge("rom."+ids.Measure(h.Movement), h.readings)
		if n := len(h.readings); n >= 2 {
			h.Since = judge("rom."+ids.Measure(h.Movement), h.readings[n-2:])
		}
		out.Ranges = append(out.Ranges, h.RangeHistory)
	}
	stable.Sort(out.Ranges, func(a, b RangeHistory) int {
		return cmp.Or(cmp.Compare(a.Movement, b.Movement), cmp.Compare(a.Side, b.Side))
	})
	out.Summed = sumUp(out)
	return out
}

// orNone keeps a list of the API from being null.
func orNone[T any](list []T) []T {
	if list == nil {
		return []T{}
	}
	return list
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
