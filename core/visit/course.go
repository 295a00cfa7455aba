package visit

import (
	"cmp"
	"math"
	"slices"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/order"
	"mokren/core/progress"
)

// Course follows points and ranges across visits, oldest first. age in years
// adapts the reference ranges; 0 is unknown.
func Course(visits []Dated, age int) History {
	visits = slices.Clone(visits)
	order.By(visits, func(a, b Dated) int { return cmp.Compare(a.Day, b.Day) })
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

// course is a history in the making.
type course struct {
	points   []*pointCourse
	point    map[UUID]*pointCourse
	ranges   []*rangeCourse
	movement map[movementSide]*rangeCourse
	scores   []*scoreCourse
	treated  []TreatedDay
	worked   []progress.Treated
}

type movementSide struct {
	movement ids.Movement
	side     ids.Side
}

type pointCourse struct {
	PointHistory
	numbers, grades, ppt []progress.Reading
	worked               []progress.Treated
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
	x, y := drawn(p.X), drawn(p.Y)
	h.View, h.X, h.Y = p.View, x, y
	h.Visits = append(h.Visits, PointVisit{
		Visit: v.Visit, Date: v.Date, Before: p.NPRS, After: p.AfterNPRS, Grade: p.Grade, AfterGrade: p.AfterGrade,
		SecondsS: p.SecondsS, Parts: p.Parts, Holds: p.Holds, Outcome: p.Outcome,
		Protocols: orNone(p.Protocols), PPT: p.PPT, Referral: orNone(p.Referral), Activity: p.Activity,
		View: p.View, X: x, Y: y,
	})
	if p.PPT != nil {
		h.ppt = append(h.ppt, progress.Reading{Day: v.Day, Value: *p.PPT})
	}
	if p.NPRS != nil && p.AfterNPRS != nil && len(p.Protocols) == 1 {
		t := progress.Treated{Protocol: p.Protocols[0], Before: *p.NPRS, After: *p.AfterNPRS, PressedS: p.SecondsS}
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
	h.Visits = append(h.Visits, RangeVisit{v.Visit, v.Date, r.Before, r.After, cmp.Or(r.AfterPain, r.BeforePain)})
	if r.Before != nil {
		h.readings = append(h.readings, progress.Reading{Day: v.Day, Value: *r.Before})
	}
}

// history judges the change of every series.
func (c *course) history() History {
	out := History{
		Points: []PointHistory{}, Ranges: []RangeHistory{}, Scores: c.scored(), Treated: orNone(c.treated),
		Worked: progress.WhatWorked(c.worked),
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
	order.By(out.Ranges, func(a, b RangeHistory) int {
		return cmp.Or(cmp.Compare(a.Movement, b.Movement), cmp.Compare(a.Side, b.Side))
	})
	out.Summed = sumUp(out)
	return out
}

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
