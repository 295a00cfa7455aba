package visit

import (
	"strings"

	"mokren/core/ids"
	"mokren/core/progress"
)

// ScoreHistory follows one of the client's own scores over visits.
type ScoreHistory struct {
	Measure ids.Measure      `json:"measure" doc:"nprs, pain-area-cm2, psfs-mean or psfs-item"`
	Name    string           `json:"name"`
	Unit    string           `json:"unit"`
	Visits  []ScoreVisit     `json:"visits"`
	Change  *progress.Change `json:"change,omitempty" doc:"first visit against last"`
	Since   *progress.Change `json:"since_last,omitempty"`
}

// ScoreVisit is one score at one visit.
type ScoreVisit struct {
	Visit string  `json:"visit"`
	Date  string  `json:"date"`
	Value float64 `json:"value"`
}

type scoreCourse struct {
	ScoreHistory
	readings []progress.Reading
}

// addDay takes what a visit says of the client as a whole.
func (c *course) addDay(v VisitContribution) {
	day := TreatedDay{Visit: v.Visit, Date: v.Date}
	for _, p := range v.Points {
		day.Holds += p.Holds
		day.SecondsS += p.SecondsS
	}
	if day.Holds > 0 {
		c.treated = append(c.treated, day)
	}
	if v.PainNow != nil {
		c.score(v, "nprs", "Pain now", "of 10", *v.PainNow)
	}
	if v.PainCM2 != nil {
		c.score(v, "pain-area-cm2", "Pain area", "cm²", *v.PainCM2)
	}
	sum := 0.0
	for _, a := range v.Activities {
		sum += float64(a.Score)
		c.score(v, "psfs-item", a.Name, "of 10", float64(a.Score))
	}
	if n := len(v.Activities); n > 1 {
		c.score(v, "psfs-mean", "What they want back, mean", "of 10", sum/float64(n))
	}
}

// score adds a reading to the course of a measure, by its name where the client's own words
// name it.
func (c *course) score(v VisitContribution, m ids.Measure, name, unit string, value float64) {
	var of *scoreCourse
	for _, s := range c.scores {
		if s.Measure == m && strings.EqualFold(strings.TrimSpace(s.Name), strings.TrimSpace(name)) {
			of = s
		}
	}
	if of == nil {
		of = &scoreCourse{ScoreHistory: ScoreHistory{Measure: m, Name: name, Unit: unit}}
		c.scores = append(c.scores, of)
	}
	of.Visits = append(of.Visits, ScoreVisit{v.Visit, v.Date, value})
	of.readings = append(of.readings, progress.Reading{Day: v.Day, Value: value})
}

// scored judges each measure since its first reading and since the one before the last.
func (c *course) scored() []ScoreHistory {
	out := make([]ScoreHistory, len(c.scores))
	for i, s := range c.scores {
		s.Change = judge(s.Measure, s.readings)
		if n := len(s.readings); n >= 2 {
			s.Since = judge(s.Measure, s.readings[n-2:])
		}
		out[i] = s.ScoreHistory
	}
	return out
}
