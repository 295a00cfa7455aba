package visit

import (
	"cmp"
	"slices"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/record"
)

// Reduce computes the state of a visit from its events under today's rules: what
// was judged on arrival is replayed as it was judged, and what this device has
// not sent yet is judged as if it arrived now.
func Reduce(ctx Context, events []Event) State { return Today().Reduce(ctx, events) }

// Reduce is the package's Reduce under rules of one's own.
func (l Rules) Reduce(ctx Context, events []Event) State {
	j, judged := l.judged(ctx, events)
	return l.replay(ctx, j, judged)
}

// judged takes in what was judged on arrival, and judges what was not sent yet; the events
// come back with their verdicts, in the order of arrival. A verdict that is there is never
// asked again: rules change, and what was decided under the old ones stays decided.
func (l Rules) judged(ctx Context, events []Event) (*Validator, []Event) {
	j := l.Validator(ctx)
	out := make([]Event, 0, len(events))
	for _, e := range Arrived(preview(ctx, events)) {
		if e.Verdict == "" {
			e = j.Admit(e)
		} else {
			j.Replay(e)
		}
		out = append(out, e)
	}
	return j, out
}

// preview puts what was not sent yet on the server's clock, as far as this device knows it. The
// server does the same with its own clock when the event arrives, so the order can change a
// little then.
func preview(ctx Context, events []Event) []Event {
	out := slices.Clone(events)
	for i := range out {
		if out[i].Version == 0 && out[i].HappenedMS == 0 {
			out[i].HappenedMS = max(1, out[i].DeviceMS+ctx.ClockMS)
		}
	}
	return out
}

// reducer is a replay on its way.
type reducer struct {
	ctx   Context
	rules Rules
	// validator has seen the whole log: it knows what was taken back and what was rejected.
	validator *Validator
	state     State
	// setBy is the event that set a thing last, by its key; conflicts are found by it.
	setBy map[string]Event
	// painted is the pain drawing, by cell.
	painted map[string]paint
}

// replay computes the state from judged events.
func (l Rules) replay(ctx Context, j *Validator, judged []Event) State {
	return l.apply(ctx, j, judged).finished()
}

// apply lets judged events act. Points come before everything that names them, and a hold before
// its log, so that two devices whose clocks differ a little lose nothing.
func (l Rules) apply(ctx Context, j *Validator, judged []Event) *reducer {
	r := &reducer{ctx: ctx, rules: l, validator: j, setBy: map[string]Event{}, state: empty()}
	ordered := Order(judged)
	bodies := make([]Body, len(ordered))
	for i, e := range ordered {
		r.state.Version = max(r.state.Version, e.Version)
		if bodies[i] = r.read(e); bodies[i] != nil {
			r.late(e)
		}
	}
	for _, now := range []turn{first, then, last} {
		for i, e := range ordered {
			if bodies[i] != nil && byName[e.Type].acts == now {
				r.act(e, bodies[i])
			}
		}
	}
	return r
}

// empty has every list, so that a page need not ask whether one is there.
func empty() State {
	return State{
		Points: []Point{}, Holds: []Hold{}, Ranges: []Range{}, Answers: []GivenAnswer{},
		Cleared: []ScreeningCleared{}, Overrides: []BlockOverridden{}, Consents: []ConsentRecorded{},
		Tests: []TestDone{},
		Signs: []SignSeen{}, Loads: []ids.Load{}, Posture: []assess.Posture{}, Gauges: []GaugePair{},
		Searched: []MuscleSearched{}, Conflicts: []Conflict{}, Rejected: []RejectedEvent{}, Addenda: []DatedText{},
		Drafts: []DatedNote{}, Recheck: []ToRecheck{},
	}
}

// act lets an event act, and notes what it has set.
func (r *reducer) act(e Event, b Body) {
	if err := b.apply(r, e); err != nil {
		r.reject(e, err.Error())
		return
	}
	if b, ok := b.(setting); ok {
		for _, t := range b.sets(e) {
			r.sets(t.what, t.key, e)
		}
	}
}

// read decodes an event that acts; what was rejected is shown, and what was
// taken back is gone.
func (r *reducer) read(e Event) Body {
	if r.validator.gone(e.ID) {
		return nil
	}
	b, err := r.validator.bodyOf(e)
	switch {
	case err != nil && e.Verdict != Rejected:
		r.reject(e, err.Error())
		return nil
	case err != nil || e.Verdict == Rejected && !byName[e.Type].rejectedToo:
		r.reject(e, e.Why)
		return nil
	}
	return b
}

// reject shows an event that cannot stand. Nothing of it acts.
func (r *reducer) reject(e Event, why string) {
	r.state.Rejected = append(r.state.Rejected, RejectedEvent{e.ID, e.Type, why, e.Body})
}

// point finds a charted point. An event that names another one is rejected with its field.
func (r *reducer) point(id UUID) (*Point, error) {
	for i := range r.state.Points {
		if r.state.Points[i].Point == id {
			return &r.state.Points[i], nil
		}
	}
	return nil, noPoint(id)
}

// hold finds a hold of this visit.
func (r *reducer) hold(id UUID) (*Hold, error) {
	for i := range r.state.Holds {
		if r.state.Holds[i].ID == id {
			return &r.state.Holds[i], nil
		}
	}
	return nil, noHold(id)
}

// sets notes who set a thing last and finds conflicts: two devices that set the same thing, and
// neither had seen the other's. The later one shows. Whoever sets it again after seeing both
// ends the conflict; setting it twice on one device is none.
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

// finish computes what depends on the whole, in this order: the client's record at the end of
// the log, then points (which need it), then holds (which need the points' places), then
// changes of ranges, then what is to be looked at again.
func (r *reducer) finish() {
	k := r.validator.standing()
	r.state.Answers = r.validator.given(k)
	r.state.Consents = r.validator.agreed(k)
	r.state.Drawing = strokes(r.painted)
	r.state.Known = k.Given
	r.state.Screening = k.Screening
	r.state.ScreenAgain = k.Day.FeltUnwell() && len(r.state.Screening.Grave()) > 0
	r.state.Pressed = r.validator.ownSigns()
	r.state.PostureFlags = assess.Flags(r.state.Posture, r.ctx.Thresholds)
	r.flagGauges()
	for i := range r.state.Points {
		r.closePoint(k, &r.state.Points[i])
	}
	quiet := r.validator.quiet(k)
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
	r.state.Recheck = r.toRecheck()
	r.state.SecondSide = r.state.secondSide()
	r.state.OneSided = r.state.forgotten()
}

// closePoint tells what stands against a hold at a point now, what may be used there, and its
// highest limits. Closed is about the place and today; Blocked about the client's answers, and
// some of those a licensed person may override; NeedsConsent is what one question lifts.
func (r *reducer) closePoint(k record.Verdict, p *Point) {
	at := r.validator.spot(p.PointCharted)
	p.Where = at.Where
	h := r.ctx.height()
	p.Treated = k.Day.Times(at, h)
	p.Closed = cmp.Or(r.validator.shut(), k.Day.Closed(at, h), k.Day.Enough(at, h))
	if r.validator.closed != nil && p.Closed == "" {
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
			r.validator.contactRefused(at, c), r.state.Screening.Limits.TooHard(at.Where, c),
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
