package visit

import (
	"cmp"
	"fmt"
	"slices"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/strict"
	"mokren/core/treat"
)

// Reduce computes the state of a visit from its events, read against what
// earlier visits have left behind.
func Reduce(ctx Context, events []Event) State {
	r := reducer{
		ctx: ctx,
		state: State{
			Points: []Point{}, Holds: []Hold{}, Ranges: []Range{}, Answers: []ScreenedAnswer{},
			Cleared: []ScreeningCleared{}, Overrides: []BlockOverridden{}, Consents: []Consented{}, Tests: []Tested{},
			Signs: []SignSeen{}, Loads: []ids.Load{}, Posture: []assess.Posture{}, Gauges: []GaugePair{},
			Conflicts: []Conflict{}, Aside: []Aside{},
		},
		undone: map[string]bool{}, setBy: map[string]Event{},
	}
	ordered := Order(events)
	r.findUndone(ordered)
	for _, e := range ordered {
		r.state.Version = max(r.state.Version, e.Version)
		if r.undone[e.ID] {
			continue
		}
		b, err := e.Decode()
		if err == nil {
			err = r.apply(e, b)
		}
		if err != nil {
			r.state.Aside = append(r.state.Aside, Aside{e.ID, e.Type, err.Error(), e.Body})
		}
	}
	r.finish()
	return r.state
}

type reducer struct {
	ctx    Context
	state  State
	undone map[string]bool
	setBy  map[string]Event
	// painted is the pain drawing, by cell.
	painted map[string]paint
}

// findUndone walks back from the end, so that an undone undo does not count.
// A hold's log is a safety record: nothing in it is undone from outside.
func (r *reducer) findUndone(ordered []Event) {
	kind := map[string]string{}
	for _, e := range ordered {
		kind[e.ID] = e.Type
	}
	for _, e := range slices.Backward(ordered) {
		if e.Type != "event-undone" || r.undone[e.ID] {
			continue
		}
		if b, err := e.Decode(); err == nil {
			id := string(b.(*Undone).Event)
			switch kind[id] {
			case "hold-started", "hold-event", "hold-ended", "":
			default:
				r.undone[id] = true
			}
		}
	}
}

func (r *reducer) point(id UUID) (*Point, error) {
	for i := range r.state.Points {
		if r.state.Points[i].Point == id {
			return &r.state.Points[i], nil
		}
	}
	return nil, refuse("$.body.point", string(id), "a point charted in this visit")
}

func (r *reducer) hold(id UUID) (*Hold, error) {
	for i := range r.state.Holds {
		if r.state.Holds[i].ID == id {
			return &r.state.Holds[i], nil
		}
	}
	return nil, refuse("$.body.hold", string(id), "a hold started in this visit")
}

func refuse(path, given, allowed string) error {
	return &strict.Error{Path: path, Given: fmt.Sprintf("%q", given), Allowed: allowed}
}

func (r *reducer) apply(e Event, b any) error {
	switch b := b.(type) {
	case *Opened:
		if r.state.OpenedMS == 0 {
			r.state.OpenedMS = e.DeviceMS
		}
		r.state.Reason = b.Reason
	case *Charted:
		return r.chart(e, b)
	case *Moved:
		p, err := r.point(b.Point)
		if err != nil {
			return err
		}
		r.sets("place of a point", "point:"+string(b.Point)+":place", e)
		p.Figure, p.View, p.X, p.Y, p.Place = b.Figure, b.View, b.X, b.Y, b.Place
	case *Removed:
		if _, err := r.point(b.Point); err != nil {
			return err
		}
		for _, h := range r.state.Holds {
			if h.Point == b.Point {
				return refuse("$.body.point", string(b.Point),
					"a point without holds; what was pressed stays in the record")
			}
		}
		r.state.Points = slices.DeleteFunc(r.state.Points, func(p Point) bool { return p.Point == b.Point })
	case *Rechecked:
		p, err := r.point(b.Point)
		if err != nil {
			return err
		}
		r.sets("recheck of a point", "point:"+string(b.Point)+":recheck", e)
		p.AfterNPRS, p.AfterGrade = &b.NPRS, b.Grade
	case *HoldStarted:
		return r.startHold(e, b)
	case *HoldHappened:
		return r.holdEvent(b)
	case *HoldEnded:
		return r.endHold(b)
	case *Measured:
		r.measure(e, b)
	case *Screened:
		r.screened(e, b)
	case *ScreeningCleared:
		r.state.Cleared = append(r.state.Cleared, *b)
	case *BlockOverridden:
		return r.override(e, b)
	case *Consented:
		r.consent(e, b)
	case *Interviewed:
		r.sets("interview", "interview", e)
		r.state.Interview = b
	case *Tested:
		r.tested(e, b)
	case *SignSeen:
		r.sign(e, b)
	case *LoadsDeclared:
		r.sets("loads", "loads", e)
		r.state.Loads = b.Loads
	case *GaugeRead:
		r.readGauge(e, b)
	case *PostureRead:
		r.readPosture(e, b)
	case *Painted:
		r.paint(b)
	case *Noted:
		r.sets("note", "note", e)
		r.state.Note = b.Text
	case *Undone:
		if !r.undone[string(b.Event)] {
			return refuse("$.body.event", string(b.Event), "an event of this visit outside a hold's log")
		}
	case *Closed:
		r.state.ClosedMS = e.DeviceMS
	}
	return nil
}

func (r *reducer) chart(e Event, b *Charted) error {
	p, err := r.point(b.Point)
	if e.Type == "point-charted" {
		if err == nil {
			return refuse("$.body.point", string(b.Point), "an id that no point of this visit has")
		}
		if b.Identity == "" {
			b.Identity = b.Point
		}
		r.state.Points = append(r.state.Points, Point{Charted: *b, ChartedMS: e.DeviceMS})
		return nil
	}
	if err != nil {
		return err
	}
	// The muscle decides the ceilings of a hold, so it cannot change under one.
	if b.Muscle != p.Muscle || b.Side != p.Side {
		for _, h := range r.state.Holds {
			if h.Point == b.Point {
				return refuse("$.body.muscle", string(b.Muscle),
					"the muscle and side that were pressed; chart a new point instead")
			}
		}
	}
	r.sets("chart of a point", "point:"+string(b.Point)+":chart", e)
	if b.Identity == "" {
		b.Identity = p.Identity
	}
	p.Charted = *b
	return nil
}

func (r *reducer) startHold(e Event, b *HoldStarted) error {
	if _, err := r.hold(b.Hold); err == nil {
		return refuse("$.body.hold", string(b.Hold), "an id that no hold of this visit has")
	}
	p, err := r.point(b.Point)
	if err != nil {
		return err
	}
	h := Hold{
		ID: b.Hold, Point: b.Point, StartedMS: e.DeviceMS, Start: b.Start, Contact: b.Contact,
		Position:  b.Position,
		MuscleSet: b.MuscleSet, Log: []HoldHappened{}, Status: Live,
	}
	switch {
	case b.Start.Muscle != p.Muscle || b.Start.Side != p.Side:
		h.Status, h.Why = SetAside, "The hold names another muscle or side than its point."
	case b.Start.Rules != treat.RulesVersion:
		h.Status, h.Why = SetAside, "Recorded under rules "+b.Start.Rules+", which this version cannot replay."
	}
	if h.Status != SetAside {
		s := r.screening()
		_, consent := r.consentMissing(*p, s)
		if beforeConsentRule(e) {
			consent = ""
		}
		if why := cmp.Or(r.refusal(*p, s), consent, withinScreening(b.Start, s)); why != "" {
			h.Status, h.Why = SetAside, why
		}
	}
	for i := range r.state.Holds {
		if o := &r.state.Holds[i]; o.Point == b.Point && o.Status != SetAside && closesSite(o.replay()) &&
			h.Status != SetAside {
			h.Status, h.Why = SetAside, "This site was closed for today by an earlier hold."
		}
	}
	r.state.Holds = append(r.state.Holds, h)
	return nil
}

// closesSite: a stop closes the site for today, unless it was only the client
// who asked for it; then a fresh decision may be made together.
func closesSite(s treat.Summary) bool {
	return s.SiteClosed || (s.Outcome == treat.Stopped && !slices.Contains(s.Signs, string(treat.KindClientStop)))
}

func (r *reducer) holdEvent(b *HoldHappened) error {
	h, err := r.hold(b.Hold)
	if err != nil {
		return err
	}
	ev, err := treat.ParseEvent(b.AtMS, b.Event, b.Value, h.Start.Scale)
	if err != nil {
		if se, ok := err.(*strict.Error); ok {
			return se.Under("$.body")
		}
		return err
	}
	h.Log = append(h.Log, *b)
	h.events = append(h.events, ev)
	return nil
}

// replay runs the hold's log, late events sorted in by their time.
func (h *Hold) replay() treat.Summary {
	c := treat.NewCoach(h.Start)
	for _, e := range treat.SortLate(h.events) {
		c.Apply(e)
	}
	return c.Summary()
}

func (r *reducer) endHold(b *HoldEnded) error {
	h, err := r.hold(b.Hold)
	if err != nil {
		return err
	}
	if h.Status == SetAside {
		return nil
	}
	sum := h.replay()
	h.Status = Kept
	if ms := int64(sum.PressureS*1000 + 0.5); sum.Outcome != b.Outcome || ms != b.PressureMS ||
		len(sum.Stages) != b.Stages {
		h.Status = SetAside
		h.Why = fmt.Sprintf("The log replays to %s, %d stages, %.1f s; claimed were %s, %d stages, %.1f s.",
			sum.Outcome, len(sum.Stages), sum.PressureS, b.Outcome, b.Stages, float64(b.PressureMS)/1000)
	}
	return nil
}

func (r *reducer) measure(e Event, b *Measured) {
	r.sets("reading of "+string(b.Movement), "range:"+string(b.Movement)+":"+string(b.Side)+":"+b.Moment, e)
	i := slices.IndexFunc(r.state.Ranges, func(x Range) bool { return x.Movement == b.Movement && x.Side == b.Side })
	if i < 0 {
		i = len(r.state.Ranges)
		r.state.Ranges = append(r.state.Ranges, Range{Movement: b.Movement, Side: b.Side})
	}
	x := &r.state.Ranges[i]
	if b.Moment == "after" {
		x.After, x.AfterTrials, x.AfterPain = b.active(), b.Trials, b.Pain
		return
	}
	x.Before, x.Trials, x.BeforePain, x.Passive = b.active(), b.Trials, b.Pain, b.Passive
	x.Felt, x.FeltAt, x.EndFeel, x.Tool = b.Felt, b.FeltAt, b.EndFeel, b.Tool
}

// sets notes who set a thing last and finds conflicts.
func (r *reducer) sets(what, key string, e Event) {
	last, before := r.setBy[key]
	r.setBy[key] = e
	unseen := func(a, b Event) bool { return a.Version == 0 || b.Seen < a.Version }
	if before && last.Device != e.Device && unseen(last, e) && unseen(e, last) {
		r.state.Conflicts = append(r.state.Conflicts,
			Conflict{key, e.ID, last.ID, "Two devices set the " + what + " without seeing each other."})
		return
	}
	r.state.Conflicts = slices.DeleteFunc(r.state.Conflicts, func(c Conflict) bool { return c.Key == key })
}

// finish computes what depends on the whole.
func (r *reducer) finish() {
	r.state.Drawing = strokes(r.painted)
	r.state.Screening = r.screening()
	r.state.PostureFlags = assess.Flags(r.state.Posture, r.ctx.Thresholds)
	r.flagGauges()
	for i := range r.state.Points {
		p := &r.state.Points[i]
		if p.Blocked = r.refusal(*p, r.state.Screening); p.Blocked == "" {
			p.NeedsConsent, p.Blocked = r.consentMissing(*p, r.state.Screening)
		}
	}
	for i := range r.state.Holds {
		h := &r.state.Holds[i]
		h.Summary = h.replay()
		if p, err := r.point(h.Point); err == nil && h.Status != SetAside && closesSite(h.Summary) {
			p.Closed = "Closed for today: the last hold was stopped."
		}
	}
	for i := range r.state.Ranges {
		x := &r.state.Ranges[i]
		if x.Before != nil && x.After != nil {
			if c, err := progress.Pair("rom."+ids.Measure(x.Movement), *x.Before, *x.After); err == nil {
				x.Change = &c
			}
		}
	}
}
