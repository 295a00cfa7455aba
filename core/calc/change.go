package calc

import (
	"fmt"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/progress"
)

// ChangeIn asks about a pair or a series.
type ChangeIn struct {
	Measure ids.Measure        `json:"measure"`
	Before  *float64           `json:"before,omitempty"`
	After   *float64           `json:"after,omitempty"`
	Series  []progress.Reading `json:"series,omitempty" maxItems:"100000"`
}

// Change judges whether a change is meaningful.
func Change(in ChangeIn) (progress.Change, error) {
	if in.Series != nil {
		if in.Before != nil || in.After != nil {
			return progress.Change{}, &decode.Error{
				Path: "$.series", Given: "a series and a pair",
				Allowed: "before and after, or series",
			}
		}
		return progress.Series(in.Measure, in.Series)
	}
	for _, f := range []struct {
		path string
		v    *float64
	}{{"$.before", in.Before}, {"$.after", in.After}} {
		if f.v == nil {
			return progress.Change{}, &decode.Error{
				Path: f.path, Given: "nothing",
				Allowed: "a number (or give series)",
			}
		}
	}
	return progress.Pair(in.Measure, *in.Before, *in.After)
}

// RangeIn is one reading; without degrees it only asks for the reference.
type RangeIn struct {
	Movement  ids.Movement `json:"movement"`
	ActiveDeg *float64     `json:"active_deg,omitempty" minimum:"-90" maximum:"360"`
	OtherDeg  *float64     `json:"other_side_deg,omitempty" minimum:"-90" maximum:"360"`
	Age       int          `json:"age,omitempty" minimum:"0" maximum:"130" doc:"years; 0 or absent is unknown"`
}

// Range flags a short reading, with the reference and the reason.
func Range(in RangeIn) (progress.RangeFlag, error) {
	if _, ok := progress.Reference(in.Movement, in.Age); !ok {
		return progress.RangeFlag{}, &decode.Error{
			Path: "$.movement", Given: fmt.Sprintf("%q", in.Movement),
			Allowed: "a movement with a reference range",
		}
	}
	if in.ActiveDeg == nil {
		f := progress.Flag(in.Movement, 360, nil, in.Age)
		return f, nil
	}
	return progress.Flag(in.Movement, *in.ActiveDeg, in.OtherDeg, in.Age), nil
}
