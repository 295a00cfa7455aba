package paper

import (
	"math"
	"strconv"
	"strings"

	"mokren/core/visit"
	"mokren/core/wording"
)

// Tables are the points and ranges of a visit with what became of them.
func Tables(s visit.State) (points []PointRow, ranges []RangeRow) {
	of := func(v *float64, unit string) string {
		if v == nil {
			return "–"
		}
		return strconv.FormatFloat(math.Round(*v*10)/10, 'f', -1, 64) + unit
	}
	for i, p := range s.Points {
		row := PointRow{
			Number: i + 1, Name: wording.Muscle(p.Muscle, p.Side, p.Site),
			Before: of(p.NPRS, ""), After: of(p.AfterNPRS, ""),
		}
		for _, h := range s.Holds {
			if h.Point == p.Point && h.Status != visit.HoldRejected {
				done := sentence(wording.Plain(h.Start.Protocol)) + ": " + h.Result
				row.Results = strings.TrimPrefix(row.Results+"; "+done, "; ")
			}
		}
		points = append(points, row)
	}
	for _, r := range s.Ranges {
		unit := "°"
		if r.Movement == "jaw.opening" {
			unit = " mm"
		}
		row := RangeRow{
			Name:   sentence(wording.OnSide(wording.Movement(r.Movement), r.Side)),
			Before: of(r.Before, unit), After: of(r.After, unit),
		}
		if r.Change != nil {
			row.Change = r.Change.Text
		}
		ranges = append(ranges, row)
	}
	return points, ranges
}

// sentence begins with a capital; ids are ASCII.
func sentence(s string) string { return strings.ToUpper(s[:1]) + s[1:] }
