package exchange

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"

	goical "github.com/emersion/go-ical"
	"github.com/teambition/rrule-go"
)

// monthsAhead is how far what repeats is booked.
const monthsAhead = 12

// ReadCalendar reads appointments; a time without a zone is the practice's. What repeats is booked
// for a year from now; what is not understood is named.
func ReadCalendar(ctx context.Context, raw []byte, c Choices, now time.Time) ([]Appointment, Report) {
	var r Report
	raw, ok := textOf(raw, true, &r)
	if !ok {
		return nil, r
	}
	if !bytes.Contains(bytes.ToUpper(raw[:min(len(raw), 4096)]), []byte("BEGIN:VCALENDAR")) {
		r.problem("file", "", "This is no iCalendar file.")
		return nil, r
	}
	if begun := 1 + bytes.Count(raw, []byte("\nBEGIN:")); begun != bytes.Count(raw, []byte("\nEND:")) {
		r.problem("file", "", "The calendar is cut off: something that begins in it has no end.")
		return nil, r
	}
	if n := bytes.Count(raw, []byte("BEGIN:VEVENT")); n > MaxAppointments {
		r.problem("file", fmt.Sprint(n, " events"), fmt.Sprintf("At most %d events.", MaxAppointments))
		return nil, r
	}
	in := goical.NewDecoder(stoppable(ctx, raw))
	book := calendarBook{report: &r, choices: c, now: now, taken: map[string]int{}}
	for {
		cal, err := decoded(in)
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			r.problem("file", "", "The calendar cannot be read: "+err.Error())
			return nil, r
		}
		book.calendar(cal)
		if len(book.out) > MaxAppointments {
			r.problem("file", "", fmt.Sprintf("More than %d appointments.", MaxAppointments))
			return nil, r
		}
	}
	r.Visits = len(book.out)
	return book.out, r
}

// decoded reads a calendar. The library ends in a panic on some lines that are none.
func decoded(in *goical.Decoder) (cal *goical.Calendar, err error) {
	defer func() {
		if broken := recover(); broken != nil {
			err = errors.New("a line that is cut off")
		}
	}()
	return in.Decode()
}

// calendarBook gathers the appointments of a file.
type calendarBook struct {
	report  *Report
	choices Choices
	now     time.Time
	zones   map[string]*zoneRules
	// changed are the instances of what repeats that have an event of their own, by UID.
	changed map[string]map[time.Time]bool
	n       int
	rules   int // that were read of the file
	repeats int
	taken   map[string]int // where in out, by id
	out     []Appointment
}

func (b *calendarBook) calendar(cal *goical.Calendar) {
	b.zones, b.changed = map[string]*zoneRules{}, map[string]map[time.Time]bool{}
	for _, part := range cal.Children {
		if part.Name == goical.CompTimezone {
			name := textIn(part, goical.PropTimezoneID)
			b.zones[name] = readZone(part)
		}
	}
	for _, part := range cal.Children {
		if p := part.Props.Get(goical.PropRecurrenceID); part.Name == goical.CompEvent && p != nil {
			if at, err := b.instant(p); err == nil {
				uid := textIn(part, goical.PropUID)
				if b.changed[uid] == nil {
					b.changed[uid] = map[time.Time]bool{}
				}
				b.changed[uid][at.UTC()] = true
			}
		}
	}
	for _, part := range cal.Children {
		switch part.Name {
		case goical.CompTimezone:
		case goical.CompEvent:
			b.n++
			if !b.choices.left(b.report, b.n) && len(b.out) <= MaxAppointments {
				b.event(part)
			}
		default:
			b.report.leave(strings.ToLower(part.Name), textIn(part, goical.PropSummary))
		}
	}
}

// textIn reads a text; a comma that was not escaped, as it should have been, parts nothing.
func textIn(c *goical.Component, name string) string {
	p := c.Props.Get(name)
	if p == nil {
		return ""
	}
	parts, err := p.TextList()
	if err != nil {
		return ""
	}
	return strings.TrimSpace(strings.Join(parts, ","))
}

// instant reads a time in its own zone: UTC, a zone of the world, one that the file describes, or
// the practice's.
func (b *calendarBook) instant(p *goical.Prop) (time.Time, error) {
	local, zone, err := b.wall(p)
	if err != nil {
		return time.Time{}, err
	}
	return zone(local), nil
}

// errAllDay is an event of whole days.
var errAllDay = errors.New("a whole day")

// wall reads a time as clocks show it, and what makes an instant of such a time.
func (b *calendarBook) wall(p *goical.Prop) (time.Time, func(time.Time) time.Time, error) {
	const layout = "20060102T150405"
	value := strings.TrimSpace(p.Value)
	if p.ValueType() == goical.ValueDate || len(value) == len("20060102") {
		return time.Time{}, nil, errAllDay
	}
	if utc, ok := strings.CutSuffix(value, "Z"); ok {
		t, err := time.Parse(layout, utc)
		return t, func(t time.Time) time.Time { return t }, err
	}
	t, err := time.Parse(layout, value)
	if err != nil {
		return t, nil, fmt.Errorf("not a time: %w", err)
	}
	id := p.Params.Get(goical.PropTimezoneID)
	if id == "" {
		return t, inLocation(b.choices.zone()), nil
	}
	if l, err := time.LoadLocation(id); err == nil && id != "Local" {
		return t, inLocation(l), nil
	}
	if rules := b.zones[id]; rules != nil {
		return t, rules.instant, nil
	}
	return t, nil, fmt.Errorf("zone %q, which is not of this world's and not described in the file", id)
}

func inLocation(l *time.Location) func(time.Time) time.Time {
	return func(t time.Time) time.Time {
		return time.Date(t.Year(), t.Month(), t.Day(), t.Hour(), t.Minute(), t.Second(), 0, l)
	}
}

// event takes one event, or every one of what repeats.
func (b *calendarBook) event(e *goical.Component) {
	a := Appointment{
		Entry: b.n, Client: textIn(e, goical.PropSummary), Room: textIn(e, goical.PropLocation), Status: "booked",
	}
	uid := textIn(e, goical.PropUID)
	if strings.EqualFold(textIn(e, goical.PropStatus), "CANCELLED") {
		a.Status = "cancelled"
	}
	if p := e.Props.Get(goical.PropSequence); p != nil {
		if n, err := p.Int(); err == nil {
			a.Sequence = n
		}
	}
	start := e.Props.Get(goical.PropDateTimeStart)
	if start == nil {
		b.bad("DTSTART", "", "when it begins")
		return
	}
	local, zone, err := b.wall(start)
	if errors.Is(err, errAllDay) {
		b.report.leave("event of a whole day", b.named(a))
		return
	}
	if err != nil {
		b.bad("DTSTART", asWritten(start), "a time in a zone that is known: "+err.Error())
		return
	}
	if y := local.Year(); y < firstYear || y > lastYear {
		b.bad("DTSTART", asWritten(start), fmt.Sprintf("a time between %d and %d", firstYear, lastYear))
		return
	}
	a.Start = zone(local)
	if !b.length(e, &a) {
		return
	}
	if p := e.Props.Get(goical.PropRecurrenceID); p != nil {
		at, err := b.instant(p)
		if err != nil {
			b.bad("RECURRENCE-ID", asWritten(p), "a time")
			return
		}
		a.ID, a.Series = b.id(instanceOf(uid, at)), b.id(uid+" series")
		b.take(a)
		return
	}
	if e.Props.Get(goical.PropRecurrenceRule) == nil && e.Props.Get(goical.PropRecurrenceDates) == nil {
		a.ID = b.id(strings.TrimSuffix(uid, "@mokren"))
		b.take(a)
		return
	}
	b.repeated(e, uid, a, local, zone)
}

// id is the same for the same UID every time; without one it is made of what the event says.
func (b *calendarBook) id(uid string) string {
	if uid == "" {
		return string(newID())
	}
	return string(b.choices.known("event", uid))
}

func instanceOf(uid string, at time.Time) string { return uid + " " + at.UTC().Format(time.RFC3339) }

func (b *calendarBook) named(a Appointment) string {
	return fmt.Sprintf("%d, %s", b.n, cmp.Or(a.Client, "without a name"))
}

func (b *calendarBook) bad(field, given, text string) {
	b.report.add(Problem{Row: b.n, Field: field, Given: given, Text: text})
}

func asWritten(p *goical.Prop) string {
	if id := p.Params.Get(goical.PropTimezoneID); id != "" {
		return p.Value + " in " + id
	}
	return p.Value
}

// length is from its end, its duration, or an hour.
func (b *calendarBook) length(e *goical.Component, a *Appointment) bool {
	a.Minutes = 60
	if p := e.Props.Get(goical.PropDateTimeEnd); p != nil {
		end, err := b.instant(p)
		if err != nil {
			b.bad("DTEND", asWritten(p), "a time")
			return false
		}
		a.Minutes = int(end.Sub(a.Start).Minutes())
	} else if p := e.Props.Get(goical.PropDuration); p != nil {
		d, err := p.Duration()
		if err != nil {
			b.bad("DURATION", p.Value, "a duration, such as PT1H")
			return false
		}
		a.Minutes = int(d.Minutes())
	}
	if a.Minutes < 5 || a.Minutes > 480 {
		b.report.leave(fmt.Sprintf("event of %d minutes; an appointment has 5 to 480", a.Minutes), b.named(*a))
		return false
	}
	return true
}

// repetition is what repeats by the clock of its event.
type repetition struct {
	set    rrule.Set
	weekly bool // our own series say the same
	cut    bool // it goes on after the time for which it is booked
	past   int  // that were before it was looked at
}

// comeCloser begins a weekly series near today, as if those before had been gone through.
func (b *calendarBook) comeCloser(o *rrule.ROption, r *repetition) {
	const week = 7 * 24 * time.Hour
	every := week * time.Duration(max(1, o.Interval))
	n := int(b.now.Add(-week).Sub(o.Dtstart) / every)
	if n <= 0 || o.Count > 0 && n >= o.Count {
		return
	}
	o.Dtstart = o.Dtstart.Add(time.Duration(n) * every)
	o.Count = max(0, o.Count-n)
	r.past = n
}

// rule reads how an event repeats; false where that cannot be read, which is told.
func (b *calendarBook) rule(
	e *goical.Component, local, last time.Time, zone func(time.Time) time.Time,
) (*repetition, bool) {
	r := &repetition{}
	first := local
	if p := e.Props.Get(goical.PropRecurrenceRule); p != nil {
		option, err := rrule.StrToROption(p.Value)
		if err == nil {
			option.Dtstart = local
			if r.weekly = ours(*option, local); r.weekly {
				b.comeCloser(option, r)
				first = option.Dtstart
			} else if b.rules++; option.Freq > rrule.DAILY || b.rules > maxRules {
				err = fmt.Errorf("daily at the most, and at most %d rules that are not weekly", maxRules)
			}
		}
		if err == nil {
			option.Until = b.until(p.Value, option.Until, zone)
			if end := last.AddDate(0, 0, 2); option.Until.IsZero() || option.Until.After(end) {
				option.Until = end // so that a rule that never comes true has an end
				r.cut = option.Count == 0
			}
			var rule *rrule.RRule
			if rule, err = rrule.NewRRule(*option); err == nil {
				r.set.RRule(rule)
			}
		}
		if err != nil {
			b.bad("RRULE", p.Value, "a rule of repetition: "+err.Error())
			return nil, false
		}
	}
	r.set.DTStart(first)
	for _, p := range e.Props[goical.PropRecurrenceDates] {
		b.dates(p, func(t time.Time) { r.set.RDate(t) })
	}
	for _, p := range e.Props[goical.PropExceptionDates] {
		b.dates(p, func(t time.Time) { r.set.ExDate(t) })
	}
	return r, true
}

// repeated books what repeats, from now on and for a year.
func (b *calendarBook) repeated(
	e *goical.Component, uid string, a Appointment, local time.Time, zone func(time.Time) time.Time,
) {
	last := b.now.AddDate(0, monthsAhead, 0)
	r, ok := b.rule(e, local, last, zone)
	if !ok {
		return
	}
	a.Series = b.id(uid + " series")
	past := r.past
	for next := r.set.Iterator(); ; b.repeats++ {
		if b.repeats > maxRepeats {
			b.bad("RRULE", "", fmt.Sprintf("The file has more than %d repetitions.", maxRepeats))
			return
		}
		t, more := next()
		at := zone(t)
		if !more || at.After(last) {
			if more || r.cut {
				b.report.leave(fmt.Sprintf("what a series has after %d months", monthsAhead), b.named(a))
			}
			break
		}
		switch {
		case at.Before(b.now):
			past++
		case !b.changed[uid][at.UTC()]: // else it has an event of its own
			a.Start, a.ID = at, b.id(instanceOf(uid, at))
			b.take(a)
		}
	}
	if past > 0 {
		b.report.leave("what a series had before today", b.named(a))
	}
	if !r.weekly {
		b.report.leave("repetition that is no series here, booked one by one", b.named(a))
	}
}

// So many repetitions, and rules of them, are gone through of one file.
const (
	maxRepeats = 200_000
	maxRules   = 100
)

// ours tells whether our own series say the same: every so many weeks, on the day of the first.
func ours(o rrule.ROption, local time.Time) bool {
	const mostWeeks = 12
	day := (int(local.Weekday()) + 6) % 7 // Monday is 0
	same := len(o.Byweekday) == 0 || len(o.Byweekday) == 1 && o.Byweekday[0].Day() == day && o.Byweekday[0].N() == 0
	return o.Freq == rrule.WEEKLY && o.Interval <= mostWeeks && same && len(o.Bymonth)+len(o.Bysetpos)+
		len(o.Byweekno)+len(o.Byhour)+len(o.Bymonthday)+len(o.Byyearday)+len(o.Byminute)+len(o.Bysecond) == 0
}

// until is the end of a rule by the clock of its event: it is written in UTC.
func (b *calendarBook) until(rule string, until time.Time, zone func(time.Time) time.Time) time.Time {
	if until.IsZero() {
		return until
	}
	for part := range strings.SplitSeq(strings.ToUpper(rule), ";") {
		value, is := strings.CutPrefix(part, "UNTIL=")
		switch {
		case !is:
		case len(value) == len("20060102"):
			return until.Add(24*time.Hour - time.Second) // that day too
		case strings.HasSuffix(value, "Z"):
			return until.Add(zone(until).Sub(until) * -1)
		}
	}
	return until
}

// dates reads a list of times by the clock of their event.
func (b *calendarBook) dates(p goical.Prop, each func(time.Time)) {
	for value := range strings.SplitSeq(p.Value, ",") {
		one := p
		one.Value = value
		if local, _, err := b.wall(&one); err == nil {
			each(local)
			continue
		}
		b.report.leave("date of a repetition that is no time", fmt.Sprintf("%d, %s", b.n, value))
	}
}

// take adds an appointment; of two with one UID the one that was changed more often counts, and
// the one behind.
func (b *calendarBook) take(a Appointment) {
	if at, twice := b.taken[a.ID]; twice {
		b.report.leave("event whose UID is there twice", b.named(a))
		if a.Sequence >= b.out[at].Sequence {
			b.out[at] = a
		}
		return
	}
	b.taken[a.ID] = len(b.out)
	zone := b.choices.zone()
	b.out = append(b.out, a)
	b.report.show("%s, %s, %d min", a.Start.In(zone).Format("2 January 2006 15:04"), a.Client, a.Minutes)
}

// zoneRules are a zone as a file describes it: when its clocks were set to what.
type zoneRules struct {
	onsets []onset
}

// onset is one time at which clocks were set.
type onset struct {
	at       time.Time     // by the clock before it
	from, to time.Duration // ahead of UTC, before and after
}

// mostOnsets are kept of one rule of a zone: every half year for longer than calendars reach.
const mostOnsets = 1000

func readZone(c *goical.Component) *zoneRules {
	z := &zoneRules{}
	for _, part := range c.Children {
		start := part.Props.Get(goical.PropDateTimeStart)
		if start == nil {
			continue
		}
		first, err := time.Parse("20060102T150405", strings.TrimSuffix(start.Value, "Z"))
		from, fine := offset(part, goical.PropTimezoneOffsetFrom)
		to, too := offset(part, goical.PropTimezoneOffsetTo)
		if err != nil || !fine || !too {
			continue
		}
		add := func(at time.Time) { z.onsets = append(z.onsets, onset{at, from, to}) }
		add(first)
		if p := part.Props.Get(goical.PropRecurrenceRule); p != nil {
			again(p.Value, first, from, add)
		}
		for _, p := range part.Props[goical.PropRecurrenceDates] {
			for value := range strings.SplitSeq(p.Value, ",") {
				if t, err := time.Parse("20060102T150405", value); err == nil {
					add(t)
				}
			}
		}
	}
	if len(z.onsets) == 0 {
		return nil
	}
	slices.SortFunc(z.onsets, func(a, b onset) int { return a.at.Compare(b.at) })
	return z
}

// again gives the onsets of a rule.
func again(rule string, first time.Time, from time.Duration, add func(time.Time)) {
	option, err := rrule.StrToROption(rule)
	if err != nil {
		return
	}
	// Some programs begin a zone in 1601; no calendar does.
	option.Dtstart = first.AddDate(max(0, firstYear-first.Year()), 0, 0)
	if !option.Until.IsZero() {
		option.Until = option.Until.Add(from)
	}
	r, err := rrule.NewRRule(*option)
	if err != nil {
		return
	}
	next := r.Iterator()
	for range mostOnsets {
		at, more := next()
		if !more || at.Year() > lastYear {
			return
		}
		add(at)
	}
}

// Calendars are read within these years.
const firstYear, lastYear = 1970, 2100

// offset reads ±HHMM or ±HHMMSS.
func offset(c *goical.Component, name string) (time.Duration, bool) {
	s := ""
	if p := c.Props.Get(name); p != nil {
		s = strings.TrimSpace(p.Value)
	}
	if len(s) != 5 && len(s) != 7 || s[0] != '+' && s[0] != '-' {
		return 0, false
	}
	n, err := strconv.Atoi(s[1:])
	if err != nil {
		return 0, false
	}
	if len(s) == 5 {
		n *= 100
	}
	d := time.Duration(n/10000)*time.Hour + time.Duration(n/100%100)*time.Minute + time.Duration(n%100)*time.Second
	if s[0] == '-' {
		d = -d
	}
	return d, true
}

// instant is a time of this zone's clocks: ahead by what the last change before it set. An hour
// that is there twice is the first of both: changes are told by the clock before them.
func (z *zoneRules) instant(local time.Time) time.Time {
	ahead := z.onsets[0].from
	for _, o := range z.onsets {
		if o.at.After(local) {
			break
		}
		ahead = o.to
	}
	return local.Add(-ahead)
}
