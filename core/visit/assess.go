package visit

import (
	"fmt"
	"slices"

	"mokren/core/assess"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/strict"
)

type (
	// Tested is a test done; unclear takes an earlier answer back.
	Tested struct {
		Test   ids.Test `json:"test"`
		Side   ids.Side `json:"side"`
		Result string   `json:"result" enum:"positive,negative,unclear"`
	}
	// SignSeen is a sign in the squat or toe-touch.
	SignSeen struct {
		Sign    ids.Sign `json:"sign"`
		Side    ids.Side `json:"side"`
		Present bool     `json:"present"`
	}
	// LoadsDeclared are the work and sport loads.
	LoadsDeclared struct {
		Loads []ids.Load `json:"loads" maxItems:"50"`
	}
	// Interviewed is the client's story, in their words and numbers.
	Interviewed struct {
		Complaint  string     `json:"complaint,omitempty" maxLength:"2000"`
		Now        *float64   `json:"now,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
		Worst      *float64   `json:"worst,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
		Best       *float64   `json:"best,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
		Since      string     `json:"since,omitempty" maxLength:"300"`
		Pattern    string     `json:"pattern,omitempty" maxLength:"500" doc:"over the day"`
		Eases      string     `json:"eases,omitempty" maxLength:"500"`
		Worsens    string     `json:"worsens,omitempty" maxLength:"500"`
		Medication string     `json:"medication,omitempty" maxLength:"1000"`
		Treatment  string     `json:"earlier_treatment,omitempty" maxLength:"1000" doc:"what was done about it before, and what it brought"`
		Activities []Activity `json:"activities,omitempty" maxItems:"3"`
	}
	// Told is the story as the client tells it on an own device, with the loads.
	Told struct {
		Interviewed
		Loads []ids.Load `json:"loads,omitempty" maxItems:"50"`
	}
	// Activity that the client wants back, 0 cannot to 10 as before (the
	// patient-specific functional scale, Stratford et al. 1995).
	Activity struct {
		Name  string `json:"name" maxLength:"200"`
		Score int    `json:"score" minimum:"0" maximum:"10"`
	}
	// PostureRead is a caliper-inclinometer reading.
	PostureRead struct{ assess.Posture }
)

// Check implements strict.Checker: a side that a test can have.
func (t Tested) Check() *strict.Error {
	if t.Side == ids.Midline {
		return &strict.Error{Path: "$.side", Given: `"midline"`, Allowed: "one of left, right"}
	}
	return nil
}

// Check implements strict.Checker: best is not above worst.
func (i Interviewed) Check() *strict.Error {
	if i.Best != nil && i.Worst != nil && *i.Best > *i.Worst {
		return &strict.Error{
			Path: "$.best", Given: fmt.Sprint(*i.Best),
			Allowed: fmt.Sprintf("at most the worst, %v", *i.Worst),
		}
	}
	return nil
}

func (r *reducer) tested(e Event, b *Tested) {
	r.sets("result of a test", "test:"+string(b.Test)+":"+string(b.Side), e)
	r.state.Tests = slices.DeleteFunc(r.state.Tests,
		func(t Tested) bool { return t.Test == b.Test && t.Side == b.Side })
	r.state.Tests = append(r.state.Tests, *b)
}

func (r *reducer) sign(e Event, b *SignSeen) {
	r.sets("sign", "sign:"+string(b.Sign)+":"+string(b.Side), e)
	r.state.Signs = slices.DeleteFunc(r.state.Signs,
		func(s SignSeen) bool { return s.Sign == b.Sign && s.Side == b.Side })
	if b.Present {
		r.state.Signs = append(r.state.Signs, *b)
	}
}

func (r *reducer) readPosture(e Event, b *PostureRead) {
	r.sets("posture reading", "posture:"+string(b.Measure)+":"+string(b.Side), e)
	r.state.Posture = slices.DeleteFunc(r.state.Posture,
		func(p assess.Posture) bool { return p.Measure == b.Measure && p.Side == b.Side })
	r.state.Posture = append(r.state.Posture, b.Posture)
}

// Findings gathers what the visit knows for the suspects. earlier are the
// client's points of earlier visits, startsMS the visit's appointment, Unix ms.
func (s State) Findings(ctx Context, earlier []FoundPoint, startsMS int64) assess.Findings {
	f := assess.Findings{
		Pain: painOf(s.Drawing), Loads: s.Loads, Posture: s.Posture, Thresholds: ctx.Thresholds,
	}
	for _, p := range earlier {
		ago := max(0, float64(startsMS-p.ChartedMS)/msPerDay)
		f.Earlier = append(f.Earlier, assess.EarlierPoint{Muscle: p.Muscle, Side: p.Side, DaysAgo: ago})
	}
	for _, g := range s.Gauges {
		if g.Before != nil || g.Kind != "" {
			f.Gauges = append(f.Gauges, g.before())
		}
	}
	for _, r := range s.Ranges {
		if r.Before != nil || r.Passive != nil {
			f.ROM = append(f.ROM, assess.ROM{
				Movement: r.Movement, Side: r.Side, Active: r.Before, Passive: r.Passive,
				Pain: r.BeforePain, Felt: r.Felt, FeltAt: r.FeltAt, EndFeel: r.EndFeel,
			})
		}
	}
	for _, t := range s.Tests {
		f.Tests = append(f.Tests, assess.TestResult(t))
	}
	for _, x := range s.Signs {
		f.Signs = append(f.Signs, assess.SquatSign{Sign: x.Sign, Side: x.Side})
	}
	f.Age = ctx.Age
	f.Screening = s.Known
	return f
}

const msPerDay = 24 * 3_600_000

// PainCM2 is the area of the visit's pain drawing; 0 where nothing is drawn.
func (s State) PainCM2(ctx Context) float64 {
	set := body.CellSet{}
	for _, stroke := range s.Drawing {
		for _, id := range stroke.Cells {
			if c, err := body.ParseCell(id); err == nil {
				set[c] = true
			}
		}
	}
	return set.AreaCM2(ctx.height())
}

// painOf reads a drawing region by region: as strong as it was painted, and
// less where only a part of the region is.
func painOf(drawing []Stroke) []assess.Pain {
	set := body.CellSet{}
	sum, n := map[body.Covered]float64{}, map[body.Covered]float64{}
	for _, s := range drawing {
		for _, id := range s.Cells {
			c, err := body.ParseCell(id)
			if err != nil {
				continue // checked when it was painted
			}
			set[c] = true
			if named, ok := body.RegionOf(c); ok {
				k := body.Covered{Region: named.Region, Side: named.Side}
				sum[k] += float64(s.Intensity)
				n[k]++
			}
		}
	}
	out := []assess.Pain{}
	for _, c := range set.Regions() {
		k := body.Covered{Region: c.Region, Side: c.Side}
		out = append(out, assess.Pain{Region: c.Region, Side: c.Side, Intensity: sum[k] / n[k] * max(0.2, c.Share)})
	}
	return out
}
