package visit

import (
	"cmp"
	"slices"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/record"
	"mokren/core/rights"
)

// Reduce computes the state of a visit from its events under today's law: what
// was judged on arrival is replayed as it was judged, and what this device has
// not sent yet is judged as if it arrived now.
func Reduce(ctx Context, events []Event) State { return Today().Reduce(ctx, events) }

// Reduce is the package's Reduce under a law of one's own.
func (l Law) Reduce(ctx Context, events []Event) State {
	j := l.Judge(ctx)
	judged := make([]Event, 0, len(events))
	for _, e := range Arrived(preview(ctx, events)) {
		if e.Verdict == "" {
			e = j.Accept(e)
		} else {
			j.Keep(e)
		}
		judged = append(judged, e)
	}
	return l.replay(ctx, j, judged)
}

// preview puts what was not sent yet on the server's clock.
func preview(ctx Context, events []Event) []Event {
	out := slices.Clone(events)
	for i := range out {
		if out[i].Version == 0 && out[i].HappenedMS == 0 {
			out[i].HappenedMS = max(1, out[i].DeviceMS+ctx.ClockMS)
		}
	}
	return out
}

type reducer struct {
	ctx   Context
	law   Law
	judge *Judge
	state State
	setBy map[string]Event
	// painted is the pain drawing, by cell.
	painted map[string]paint
}

// replay computes the state from judged events. Points come before everything
// that names them, and a hold before its log, so that two devices whose clocks
// differ a little lose nothing.
func (l Law) replay(ctx Context, j *Judge, judged []Event) State {
	r := reducer{ctx: ctx, law: l, judge: j, setBy: map[string]Event{}, state: empty()}
	ordered := Order(judged)
	bodies := make([]any, len(ordered))
	for i, e := range ordered {
		r.state.Version = max(r.state.Version, e.Version)
		if bodies[i] = r.read(e); bodies[i] != nil {
			r.late(e, bodies[i])
		}
	}
	for _, pass := range []func(any) bool{isCharting, isOther, isHoldLog} {
		for i, e := range ordered {
			if bodies[i] == nil || !pass(bodies[i]) {
				continue
			}
			if err := r.apply(e, bodies[i]); err != nil {
				r.aside(e, err.Error())
			}
		}
	}
	r.finish()
	return r.state
}

func empty() State {
	return State{
		Points: []Point{}, Holds: []Hold{}, Ranges: []Range{}, Answers: []Given{},
		Cleared: []ScreeningCleared{}, Overrides: []BlockOverridden{}, Consents: []Consented{}, Tests: []Tested{},
		Signs: []SignSeen{}, Loads: []ids.Load{}, Posture: []assess.Posture{}, Gauges: []GaugePair{},
		Searched: []MuscleSearched{}, Conflicts: []Conflict{}, Aside: []SetAsideEvent{}, Addenda: []DatedText{},
		Drafts: []DatedNote{},
	}
}

// read decodes an event that acts; what was set aside is shown, and what was
// taken back is gone.
func (r *reducer) read(e Event) any {
	if r.judge.gone(e.ID) {
		return nil
	}
	b, err := r.judge.bodyOf(e)
	_, begins := b.(*HoldStarted)
	switch {
	case err != nil && e.Verdict != Aside:
		r.aside(e, err.Error())
		return nil
	case err != nil || e.Verdict == Aside && !begins:
		r.aside(e, e.Why)
		return nil
	}
	return b
}

func (r *reducer) aside(e Event, why string) {
	r.state.Aside = append(r.state.Aside, SetAsideEvent{e.ID, e.Type, why, e.Body})
}

func isCharting(b any) bool {
	_, ok := b.(*Charted)
	return ok
}

func isHoldLog(b any) bool {
	switch b.(type) {
	case *HoldHappened, *HoldEnded, *Countersigned:
		return true
	}
	return false
}

func isOther(b any) bool { return !isCharting(b) && !isHoldLog(b) }

func (r *reducer) point(id UUID) (*Point, error) {
	for i := range r.state.Points {
		if r.state.Points[i].Point == id {
			return &r.state.Points[i], nil
		}
	}
	return nil, noPoint(id)
}

func (r *reducer) hold(id UUID) (*Hold, error) {
	for i := range r.state.Holds {
		if r.state.Holds[i].ID == id {
			return &r.state.Holds[i], nil
		}
	}
	return nil, noHold(id)
}

// apply lets an event act: on the points and what is pressed there, on what is
// found, or on the visit as a whole.
func (r *reducer) apply(e Event, b any) error {
	switch b := b.(type) {
	case *Charted:
		own := *b // the judge has read the same body
		return r.chart(e, &own)
	case *Moved:
		return r.move(e, b)
	case *Removed:
		r.state.Points = slices.DeleteFunc(r.state.Points, func(p Point) bool { return p.Point == b.Point })
	case *Rechecked:
		return r.recheck(e, b)
	case *HoldStarted:
		r.startHold(e, b)
	case *HoldHappened:
		return r.holdEvent(e, b)
	case *HoldEnded:
		return r.endHold(e, b)
	case *Countersigned:
		return r.countersign(e, b)
	}
	r.find(e, b)
	r.record(e, b)
	return r.work(e, b)
}

// find takes what was measured, tested, seen or painted.
func (r *reducer) find(e Event, b any) {
	switch b := b.(type) {
	case *Measured:
		r.measure(e, b)
	case *Tested:
		r.tested(e, b)
	case *SignSeen:
		r.sign(e, b)
	case *GaugeRead:
		r.readGauge(e, b)
	case *PostureRead:
		r.readPosture(e, b)
	case *Painted:
		r.paint(b)
	}
}

// record takes what was asked, agreed and written.
func (r *reducer) record(e Event, b any) {
	s := &r.state
	switch b := b.(type) {
	case *Opened:
		s.OpenedMS = cmp.Or(s.OpenedMS, e.At())
		s.Reason = b.Reason
	case *Closed:
		s.ClosedMS, s.NotTreated = e.At(), b.Advised
	case *Screened:
		r.screened(e, b)
	case *ScreeningCleared:
		s.Cleared = append(s.Cleared, *b)
	case *BlockOverridden:
		s.Overrides = append(s.Overrides, *b)
	case *Consented:
		r.sets("consent for the "+string(b.Area), "consent:"+string(b.Area), e)
	case *Interviewed:
		r.sets("interview", "interview", e)
		s.Interview = b
	case *LoadsDeclared:
		r.sets("loads", "loads", e)
		s.Loads = b.Loads
	case *Noted:
		r.sets("note", "note", e)
		s.Note = b.Text
	case *NoteDrafted:
		r.sets("text of the note", "note-text", e)
		s.Drafts = append(s.Drafts, DatedNote{e.At(), e.Author, b.NoteText})
	case *NoteSigned:
		s.Signed = &SignedNote{
			DatedNote: DatedNote{e.At(), e.Author, b.NoteText}, Name: b.Name,
			ByStudent: r.ctx.Roles[e.Author] == rights.Student,
		}
	case *NoteCountersigned:
		if s.Signed != nil { // a log from elsewhere may say anything
			s.Signed.Counter = &CounterSigned{e.At(), e.Author, b.Name}
		}
	case *Incident:
		s.Incidents = append(s.Incidents, DatedIncident{e.At(), e.Author, *b})
	case *Addendum:
		s.Addenda = append(s.Addenda, DatedText{e.At(), e.Author, b.Text})
	}
}

func (r *reducer) move(e Event, b *Moved) error {
	p, err := r.point(b.Point)
	if err != nil {
		return err
	}
	r.sets("place of a point", "point:"+string(b.Point)+":place", e)
	p.Figure, p.View, p.X, p.Y, p.Place = b.Figure, b.View, b.X, b.Y, b.Place
	p.carry(r.ctx.height(), r.law.Figure)
	return nil
}

func (r *reducer) recheck(e Event, b *Rechecked) error {
	p, err := r.point(b.Point)
	if err != nil {
		return err
	}
	r.sets("recheck of a point", "point:"+string(b.Point)+":recheck", e)
	p.AfterNPRS, p.AfterGrade = &b.NPRS, b.Grade
	return nil
}

// chart sets a point. The muscle of a pressed point is what was judged, so a
// correction that came too late for it was set aside.
func (r *reducer) chart(e Event, b *Charted) error {
	p, err := r.point(b.Point)
	if e.Type == "point-charted" {
		if err == nil {
			return refuse("$.body.point", string(b.Point), "an id that no point of this visit has")
		}
		if b.Identity == "" {
			b.Identity = b.Point
		}
		b.carry(r.ctx.height(), r.law.Figure)
		r.state.Points = append(r.state.Points, Point{FoundPoint: FoundPoint{Charted: *b, ChartedMS: e.At()}})
		return nil
	}
	if err != nil {
		return err
	}
	r.sets("chart of a point", "point:"+string(b.Point)+":chart", e)
	if b.Identity == "" {
		b.Identity = p.Identity
	}
	b.carry(r.ctx.height(), r.law.Figure)
	p.Charted = *b
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
	k := r.judge.standing()
	r.state.Answers = r.judge.given(k)
	r.state.Consents = r.judge.agreed(k)
	r.state.Drawing = strokes(r.painted)
	r.state.Known = k.Given
	r.state.Screening = k.Screening
	r.state.ScreenAgain = k.Day.FeltUnwell() && len(r.state.Screening.Grave()) > 0
	r.state.Pressed = r.judge.ownSigns()
	r.state.PostureFlags = assess.Flags(r.state.Posture, r.ctx.Thresholds)
	r.flagGauges()
	for i := range r.state.Points {
		r.closePoint(k, &r.state.Points[i])
	}
	quiet := r.judge.quiet(k)
	for i := range r.state.Holds {
		r.weigh(&r.state.Holds[i], k, quiet)
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

// closePoint tells what stands against a hold at a point now, what may be used
// there, and its highest limits.
func (r *reducer) closePoint(k record.Judged, p *Point) {
	at := p.spot(r.ctx.height(), r.law.Figure)
	p.Where = at.Where
	h := r.ctx.height()
	p.Treated = k.Day.Times(at, h)
	p.Closed = cmp.Or(r.judge.shut(), k.Day.Closed(at, h), k.Day.Enough(at, h))
	if r.judge.closed != nil && p.Closed == "" {
		p.Closed = "The visit is closed."
	}
	if no := k.But(record.Closed, record.TwiceAlready).Refusal(at, string(p.Point)); no.Reason != "" {
		if p.NeedsConsent, p.Blocked = no.Area, no.Text; no.Reason == record.Blocked {
			p.Overridable = k.Overridable(at)
		}
	}
	m, err := atlas.Get(p.Muscle)
	if err != nil {
		return
	}
	p.Contacts = []Choice{}
	for _, c := range m.Contacts {
		p.Contacts = append(p.Contacts, Choice{ID: string(c), Why: cmp.Or(
			r.judge.contactRefused(at, c), r.state.Screening.Limits.TooHard(at.Where, c),
		)})
	}
	p.Positions = []Choice{}
	for _, x := range m.Positions {
		why := ""
		if slices.Contains(r.state.Screening.Limits.AvoidPositions, x) {
			why = "Not in this position today: the screening forbids it."
		}
		p.Positions = append(p.Positions, Choice{ID: string(x), Why: why})
	}
}
