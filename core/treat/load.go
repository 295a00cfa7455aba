package treat

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/stable"
)

// DayLimitMinutes is how many thumb-minutes a day a hand is taken to bear; a
// working value.
const DayLimitMinutes = 20.0

const weekDays = 7

// strain is what a second of a contact costs a thumb, compared with the bare
// thumb pad: working values of experienced hands. Thenar and palm stand between
// their neighbours.
var strain = map[ids.Contact]float64{
	"thumb-pad":           1.0,
	"pincer":              0.9,
	"fingertips":          0.8,
	"thumb-over-thumb":    0.6,
	"braced-fingers":      0.6,
	"knuckle":             0.5,
	"pisiform-over-thumb": 0.35,
	"thenar-over-thumb":   0.35,
	"tool":                0.3,
	"palm":                0.2,
	"elbow":               0.15,
	"forearm":             0.1,
	"own-thigh":           0,
}

// HandUse is one hold of a hand: with what, how long, on which day (a number that
// grows by one a day).
type HandUse struct {
	Contact ids.Contact `json:"contact"`
	Seconds float64     `json:"seconds" minimum:"0" maximum:"86400"`
	Day     int         `json:"day"`
}

// DayLoad is what a hand bore on one day.
type DayLoad struct {
	Day     int     `json:"day"`
	Minutes float64 `json:"thumb_minutes"`
	// Over: more than the limit.
	Over bool `json:"over"`
}

// Load is the load of a hand by days, the first first, and over the seven days
// that end with the last.
type Load struct {
	Days []DayLoad `json:"days"`
	Week float64   `json:"week_thumb_minutes"`
	// Limit is the day's.
	Limit float64 `json:"limit_minutes"`
}

// LoadOf sums up what a hand did. The error names a contact that is none.
func LoadOf(holds []HandUse) (Load, error) {
	seconds := map[int]float64{}
	for i, h := range holds {
		f, ok := strain[h.Contact]
		if !ok {
			return Load{}, h.Contact.Check().Under(fmt.Sprintf("$.holds[%d].contact", i))
		}
		if h.Seconds < 0 {
			return Load{}, &decode.Error{
				Path: fmt.Sprintf("$.holds[%d].seconds", i), Given: fmt.Sprint(h.Seconds), Allowed: "a number from 0",
			}
		}
		seconds[h.Day] += f * h.Seconds
	}
	out := Load{Days: []DayLoad{}, Limit: DayLimitMinutes}
	for day, s := range seconds {
		out.Days = append(out.Days, DayLoad{day, minutes(s), s > DayLimitMinutes*60})
	}
	stable.Sort(out.Days, func(a, b DayLoad) int { return cmp.Compare(a.Day, b.Day) })
	week := 0.0
	for _, d := range out.Days {
		if d.Day > out.Days[len(out.Days)-1].Day-weekDays {
			week += seconds[d.Day]
		}
	}
	out.Week = minutes(week)
	return out, nil
}

func minutes(s float64) float64 { return math.Round(s/60*1000) / 1000 }

// gentler gives, of the contacts that suit a site, those that strain the hand
// less than one does, the least first.
func gentler(than ids.Contact, suit []ids.Contact) []ids.Contact {
	out := slices.DeleteFunc(slices.Clone(suit), func(c ids.Contact) bool { return strain[c] >= strain[than] })
	stable.Sort(out, func(a, b ids.Contact) int { return cmp.Compare(strain[a], strain[b]) })
	return out
}

// Sparing is what a hold would bring a hand to on its day.
type Sparing struct {
	After float64 `json:"after_thumb_minutes"`
	Limit float64 `json:"limit_minutes"`
	Over  bool    `json:"over"`
	// Instead is the contact that strains least of those that suit; empty where none
	// strains less.
	Instead ids.Contact `json:"instead,omitempty"`
}

// Spare tells whether a hold that is about to begin would pass the day's limit, and which
// contact spares the thumb more. The error names a contact that is none.
func Spare(holds []HandUse, next HandUse, suit []ids.Contact) (Sparing, error) {
	load, err := LoadOf(append(slices.Clone(holds), next))
	if err != nil {
		return Sparing{}, err
	}
	out := Sparing{Limit: load.Limit}
	for _, d := range load.Days {
		if d.Day == next.Day {
			out.After, out.Over = d.Minutes, d.Over
		}
	}
	if g := gentler(next.Contact, suit); out.Over && len(g) > 0 {
		out.Instead = g[0]
	}
	return out, nil
}
