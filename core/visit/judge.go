package visit

import (
	"cmp"
	"fmt"
	"slices"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/strict"
	"mokren/core/treat"
)

// Law is what new events are judged by, and the figure that old places are
// carried onto. A replay of judged events asks nothing else of it.
type Law struct {
	Rules  string // version of the coach's rules
	Figure string // version of the figure
	// Site gives the ceilings of a place on a muscle, and where they come from.
	Site func(ids.Muscle, []safety.Place) (safety.Limits, string)
}

// Today is the law of this program.
func Today() Law { return Law{treat.RulesVersion, body.Version, safety.Site} }

// The verdicts. Aside: kept and shown, but counted nowhere.
const (
	Accepted = "accepted"
	Aside    = "aside"
)

// Judge judges a visit's events, strictly and once, in the order in which they
// arrive and by what was known then. What it has accepted stays accepted: what
// is learned later is a remark beside it (docs/decisions/13).
//
//	j := law.Judge(ctx)
//	for _, e := range stored { j.Keep(e) }      // with the verdicts they were given
//	for _, e := range arriving { e = j.Accept(e) } // e.Verdict, e.Why
type Judge struct {
	law    Law
	ctx    Context
	byID   map[string]Event
	bodies map[string]any      // read, by event
	undos  map[string][]string // event → what took it back
	points map[UUID]*Charted
	holds  map[UUID]*begun
	// record is the client's, with what this visit has added; said are the answers and
	// agreements of this visit, by event, as they were written.
	record *record.Record
	said   map[string]any
	signs  []Pressed
	closed *Event // the first visit-closed
	signed *Event // the note-signed
	// counter is the note-countersigned.
	counter *Event
}

// begun is a hold that was started, accepted or not.
type begun struct {
	start   HoldStarted
	event   Event
	spot    Spot
	log     []treat.Event // in the order of arrival
	ended   *Event        // the first hold-ended
	undoing []int         // indices into signs, to take a mistaken one back
	counted *bool         // whether it was a treatment, of the log so far
}

// Judge begins with an empty visit.
func (l Law) Judge(ctx Context) *Judge {
	return &Judge{
		law: l, ctx: ctx, byID: map[string]Event{}, bodies: map[string]any{}, undos: map[string][]string{},
		points: map[UUID]*Charted{}, holds: map[UUID]*begun{}, record: record.New(ctx.Client, ctx.History),
		said: map[string]any{}, signs: slices.Clone(ctx.Signs),
	}
}

// Accept judges an event that arrives now, after all that were kept, and keeps
// it with its verdict. An event without a version is one that has not been
// sent: it is judged as if it arrived now, which is the browser's preview.
func (j *Judge) Accept(e Event) Event {
	e.Verdict, e.Why, e.HoldAtMS, e.Result = Accepted, "", nil, nil
	b, err := e.Decode()
	if err == nil {
		err = j.judge(&e, b)
	}
	if err != nil {
		e.Verdict, e.Why = Aside, err.Error()
	}
	j.keep(e, b)
	if e.Verdict == Accepted {
		e.Result = j.result(b)
	}
	return e
}

// Keep takes in an event that was judged before.
func (j *Judge) Keep(e Event) {
	b, err := e.Decode()
	if err != nil {
		b = nil
	}
	j.keep(e, b)
}

// bodyOf gives the body of an event that was kept, read once; it is not to be
// changed.
func (j *Judge) bodyOf(e Event) (any, error) {
	if b, ok := j.bodies[e.ID]; ok {
		return b, nil
	}
	return e.Decode()
}

// because is a refusal in words, not of a field.
type because string

func (b because) Error() string { return string(b) }

func words(why string) error {
	if why == "" {
		return nil
	}
	return because(why)
}

func (j *Judge) judge(e *Event, b any) error {
	role := j.ctx.Roles[e.Author]
	if !rights.MayWrite(role, e.Type) {
		return because(fmt.Sprintf("This role may not write it: %s by %s.", e.Type, roleWords(role)))
	}
	if why := cmp.Or(j.afterClosing(*e, b), j.aboutNote(b)); why != "" {
		return because(why)
	}
	switch b := b.(type) {
	case *Charted, *Moved, *Removed, *Painted:
		return j.charting(*e, b)
	case *HoldStarted:
		return j.startHold(*e, b)
	case *HoldHappened:
		return j.holdEvent(e, b)
	case *HoldEnded:
		if _, ok := j.holds[b.Hold]; !ok {
			return noHold(b.Hold)
		}
	case *Countersigned:
		return j.countersign(*e, b)
	case *Undone:
		return j.undo(*e, b)
	case *PlanMade:
		return j.planned(b)
	case *ScreeningCleared:
		return j.clearable(*e, b)
	case *BlockOverridden:
		if !j.ctx.licensed(e.Author) {
			return because("A licensed member of this practice overrides a block.")
		}
	}
	return j.names(b)
}

// charting judges what is marked on the body.
func (j *Judge) charting(e Event, b any) error {
	switch b := b.(type) {
	case *Charted:
		return j.chart(e, b)
	case *Moved:
		p, ok := j.points[b.Point]
		if !ok {
			return noPoint(b.Point)
		}
		return j.placed(p.Muscle, p.Side, b.Figure, b.View, body.Point{X: b.X, Y: b.Y}, b.Place)
	case *Removed:
		if _, ok := j.points[b.Point]; !ok {
			return noPoint(b.Point)
		}
		if j.pressed(b.Point) {
			return refuse("$.body.point", string(b.Point),
				"a point without holds; what was pressed stays in the record")
		}
	case *Painted:
		if e := b.OnFigure(j.law.Figure); e != nil {
			return e.Under("$.body")
		}
	}
	return nil
}

// countersign: whoever stands for a student's hold is a licensed member now.
func (j *Judge) countersign(e Event, b *Countersigned) error {
	if h, ok := j.holds[b.Hold]; !ok || h.event.Verdict != Accepted {
		return noHold(b.Hold)
	}
	if !j.ctx.licensed(e.Author) {
		return because("A licensed member of this practice countersigns.")
	}
	return nil
}

// names refuses an event about a point that is not charted.
func (j *Judge) names(b any) error {
	id, about := pointOfWork(b)
	switch b := b.(type) {
	case *Rechecked:
		id, about = b.Point, true
	case *BlockOverridden:
		id, about = b.Point, true
	}
	if about && j.points[id] == nil {
		return noPoint(id)
	}
	return nil
}

// planned: a plan is of this visit's points.
func (j *Judge) planned(b *PlanMade) error {
	for _, id := range slices.Concat(b.Order, b.Must, b.Dropped) {
		if j.points[id] == nil {
			return noPoint(id)
		}
	}
	return nil
}

func roleWords(r rights.Role) string {
	if r == "" {
		return "someone who is not of the practice"
	}
	return string(r)
}

func noPoint(id UUID) error {
	return refuse("$.body.point", string(id), "a point charted in this visit")
}

func noHold(id UUID) error { return refuse("$.body.hold", string(id), "a hold started in this visit") }

func refuse(path, given, allowed string) error {
	return &strict.Error{Path: path, Given: fmt.Sprintf("%q", given), Allowed: allowed}
}

// aboutNote: a note is signed once, when the visit is closed and no finding can
// change under it; from then on only addenda are written.
func (j *Judge) aboutNote(b any) string {
	switch b.(type) {
	case *NoteSigned, *NoteDrafted:
		if j.signed != nil {
			return "The note is signed; write an addendum instead."
		}
	}
	switch b.(type) {
	case *NoteSigned:
		if j.closed == nil {
			return "A note is signed when its visit is closed."
		}
	case *NoteCountersigned:
		if j.signed == nil || j.ctx.Roles[j.signed.Author] != rights.Student || j.counter != nil {
			return "A student's signed note is countersigned, once."
		}
	}
	return ""
}

func (j *Judge) chart(e Event, b *Charted) error {
	p, there := j.points[b.Point]
	switch {
	case e.Type == "point-charted" && there:
		return refuse("$.body.point", string(b.Point), "an id that no point of this visit has")
	case e.Type == "point-corrected" && !there:
		return noPoint(b.Point)
	case there && (b.Muscle != p.Muscle || b.Side != p.Side) && j.pressed(b.Point):
		// The muscle decides the ceilings of a hold, so it cannot change under one.
		return refuse("$.body.muscle", string(b.Muscle),
			"the muscle and side that were pressed; chart a new point instead")
	}
	if there && b.Figure == p.Figure && b.View == p.View && b.X == p.X && b.Y == p.Y && b.Place == p.Place &&
		b.Muscle == p.Muscle && b.Side == p.Side {
		return nil // a correction of what was felt leaves an older figure's place be
	}
	return j.placed(b.Muscle, b.Side, b.Figure, b.View, body.Point{X: b.X, Y: b.Y}, b.Place)
}

// placed refuses a place that is not on its muscle, or of a figure that never
// was. What was charted on an earlier figure, and waited to be sent, is carried.
func (j *Judge) placed(
	m ids.Muscle, side ids.Side, figure string, v body.View, p body.Point, f atlas.FibrePlace,
) error {
	muscle, err := atlas.Get(m)
	if err != nil {
		return err
	}
	if figure != j.law.Figure {
		if _, ok := muscle.Carry(figure, f, side, j.ctx.height()); !ok {
			return refuse("$.body.figure", figure, j.law.Figure)
		}
		return nil
	}
	if why := muscle.Carries(v, p, f, side, j.ctx.height()); why != "" {
		return &strict.Error{
			Path: "$.body.place", Given: fmt.Sprintf("%s %.0f, %.0f", v, p.X, p.Y), Allowed: why,
		}
	}
	return nil
}

// pressed reports whether a hold was ever begun at a point.
func (j *Judge) pressed(point UUID) bool {
	for _, h := range j.holds {
		if h.start.Point == point {
			return true
		}
	}
	return false
}

// keep lets a judged event change what is known.
func (j *Judge) keep(e Event, b any) {
	j.byID[e.ID] = e
	if b != nil {
		j.bodies[e.ID] = b
	}
	if h, ok := b.(*HoldStarted); ok {
		j.begin(e, h)
		return
	}
	if e.Verdict != Accepted {
		return
	}
	if j.place(b) {
		j.record.Add(record.Fact{Stamp: j.ctx.stamp(e), Placed: string(pointOf(b))})
	}
	switch b := b.(type) {
	case *HoldHappened:
		j.happened(e, b)
	case *HoldEnded:
		if h, ok := j.holds[b.Hold]; ok && h.ended == nil {
			h.ended = &e
		}
	case *Closed:
		if j.closed == nil {
			j.closed = &e
		}
	case *NoteSigned:
		j.signed = &e
	case *NoteCountersigned:
		j.counter = &e
	case *Undone:
		j.takeBack(e, b)
	case *Screened, *Consented:
		j.said[e.ID] = b
	}
	j.record.Add(j.ctx.Facts(e, b)...)
}

// place lets charting act, and reports whether a point lies elsewhere than before.
func (j *Judge) place(b any) bool {
	switch b := b.(type) {
	case *Charted:
		p, there := j.points[b.Point]
		c := *b
		j.points[b.Point] = &c
		return there && (p.Muscle != c.Muscle || p.Side != c.Side || p.Place != c.Place)
	case *Moved:
		p, ok := j.points[b.Point]
		if ok {
			p.Figure, p.View, p.X, p.Y, p.Place = b.Figure, b.View, b.X, b.Y, b.Place
		}
		return ok
	case *Removed:
		delete(j.points, b.Point)
		return true
	}
	return false
}

func (j *Judge) begin(e Event, b *HoldStarted) {
	if _, twice := j.holds[b.Hold]; twice {
		return
	}
	h := &begun{start: *b, event: e}
	if p, ok := j.points[b.Point]; ok {
		h.spot = p.spot(j.ctx.height(), j.law.Figure)
	}
	j.holds[b.Hold] = h
	if e.Verdict == Accepted {
		j.record.Add(j.ctx.Facts(e, b)...)
	}
}

// happened counts a sign where the hand was, whatever the hold is worth. A
// hold's own undo takes back a sign that closed nothing; what has closed stays.
func (j *Judge) happened(e Event, b *HoldHappened) {
	h, ok := j.holds[b.Hold]
	if !ok {
		return
	}
	at := b.AtMS
	if e.HoldAtMS != nil {
		at = *e.HoldAtMS
	}
	if ev, err := treat.ParseEvent(at, b.Event, b.Value, h.start.Start.Scale); err == nil {
		ev.Source = sourceOf(e, b)
		h.log, h.counted = append(h.log, ev), nil
	}
	switch {
	case record.IsSign(b.Event):
		j.signs = append(j.signs, Pressed{
			Spot: h.spot, Sign: b.Event, AtMS: h.event.At() + at, Hold: string(b.Hold), From: j.ctx.stamp(e),
		})
		h.undoing = append(h.undoing, len(j.signs)-1)
	case b.Event == string(treat.KindUndo):
		j.undoSign(h)
	case b.Event != string(treat.KindTick) && b.Event != string(treat.KindPressure):
		h.undoing = append(h.undoing, -1)
	}
}

func (j *Judge) undoSign(h *begun) {
	last := len(h.undoing) - 1
	if last < 0 {
		return
	}
	i := h.undoing[last]
	h.undoing = h.undoing[:last]
	if i < 0 || j.signs[i].Sign == "" {
		return
	}
	nth := 0
	for _, s := range j.signs[:i+1] {
		if s.Sign == j.signs[i].Sign && s.Same(j.signs[i].Spot, j.ctx.height()) {
			nth++
		}
	}
	if !record.ClosesAt(j.signs[i].Sign, nth) {
		j.signs[i].Sign = ""
	}
}

// result is what a hold comes to, kept with its ending and with what came in
// after it, for a program that cannot replay its rules any more.
func (j *Judge) result(b any) *treat.Summary {
	var id UUID
	switch b := b.(type) {
	case *HoldEnded:
		id = b.Hold
	case *HoldHappened:
		id = b.Hold
	}
	h, ok := j.holds[id]
	if !ok || h.ended == nil {
		return nil
	}
	s, err := h.replay()
	if err != nil {
		return nil
	}
	return &s
}

// replay runs the hold's log as far as it goes.
func (h *begun) replay() (treat.Summary, error) {
	c, err := treat.Replayer(h.start.Start)
	if err != nil {
		return treat.Summary{}, err
	}
	for _, e := range treat.SortLate(h.log) {
		c.Apply(e)
	}
	return c.Summary(), nil
}
