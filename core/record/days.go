package record

import (
	"math"
	"strconv"
)

const dayMS = 24 * 3_600_000

// day is the practice's day of a time, counted from 1 January 1970.
func (c Client) day(ms int64) int64 {
	return int64(math.Floor(float64(ms+int64(c.OffsetMin)*60_000) / dayMS))
}

// date reads YYYY-MM-DD.
func date(s string) (year, month, day int, ok bool) {
	if len(s) != len("2006-01-02") || s[4] != '-' || s[7] != '-' {
		return 0, 0, 0, false
	}
	var errs [3]error
	year, errs[0] = strconv.Atoi(s[:4])
	month, errs[1] = strconv.Atoi(s[5:7])
	day, errs[2] = strconv.Atoi(s[8:])
	return year, month, day, errs == [3]error{} && year > 0 && month >= 1 && month <= 12 && day >= 1 && day <= 31
}

// IsDate reports whether a text is a day as this package reads one.
func IsDate(s string) bool { _, _, _, ok := date(s); return ok }

// dayOf counts the days from 1 January 1970 to a date of the Gregorian calendar; a day
// that its month does not have is one of the next. March begins the year, so that the
// leap day ends it.
func dayOf(year, month, day int) int64 {
	if month <= 2 {
		year, month = year-1, month+12
	}
	y := int64(year)
	return 365*y + floor(y, 4) - floor(y, 100) + floor(y, 400) + int64(153*(month-3)+2)/5 + int64(day) - 719_469
}

func floor(n, by int64) int64 { return int64(math.Floor(float64(n) / float64(by))) }

// daysSince counts the days from a date to a time; nil without one.
func (s *State) daysSince(on string, ms int64) *float64 {
	y, m, d, ok := date(on)
	if !ok {
		return nil
	}
	days := float64(s.client.day(ms) - dayOf(y, m, d))
	return &days
}

// termWeeks is how long a pregnancy lasts, counted as the due day is.
const termWeeks = 40

// weeks is how far a pregnancy is; nil without a due day.
func (s *State) weeks(k KnownAnswer, ms int64) *float64 {
	left := s.daysSince(k.DueOn, ms)
	if left == nil {
		return nil
	}
	w := termWeeks + *left/7
	return &w
}

// ofAge is when nobody has to consent for a client.
const ofAge = 18

// minor reports whether the client is under age by any birth date that may be right;
// known is false without one.
func (s *State) minor() (minor, known bool) {
	for _, b := range s.client.Born {
		y, m, d, ok := date(b)
		if !ok {
			continue
		}
		known = true
		minor = minor || s.client.day(s.q.SaidMS) < dayOf(y+ofAge, m, d)
	}
	return minor, known
}
