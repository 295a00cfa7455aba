package visit

import (
	"mokren/core/assess"
	"mokren/core/body"
)

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
	sum, n := map[body.RegionCover]float64{}, map[body.RegionCover]float64{}
	for _, s := range drawing {
		for _, id := range s.Cells {
			c, err := body.ParseCell(id)
			if err != nil {
				continue // checked when it was painted
			}
			set[c] = true
			if named, ok := body.RegionOf(c); ok {
				k := body.RegionCover{Region: named.Region, Side: named.Side}
				sum[k] += float64(s.Intensity)
				n[k]++
			}
		}
	}
	out := []assess.Pain{}
	for _, c := range set.Regions() {
		k := body.RegionCover{Region: c.Region, Side: c.Side}
		out = append(out, assess.Pain{Region: c.Region, Side: c.Side, Intensity: sum[k] / n[k] * max(0.2, c.Share)})
	}
	return out
}
