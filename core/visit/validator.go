package visit

import (
	"fmt"
	"slices"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/treat"
)

// Rules is what new events are judged by, and the figure that old places are
// carried onto. A replay of judged events asks nothing else of it.
type Rules struct {
	Coach  string // version of the coach's rules
	Figure string // version of the figure
	// Site gives the ceilings of a place on a muscle, and where they come from.
	Site func(ids.Muscle, []safety.Place) (safety.Limits, string)
}

// Today are the rules of this program.
func Today() Rules { return Rules{treat.RulesVersion, body.Version, safety.Site} }

// The verdicts. Rejected: kept and shown, but counted nowhere.
const (
	Accepted = "accepted"
	Rejected = "aside"
)

// Validator judges a visit's events, strictly and once, in the order in which they
// arrive and by what was known then. What it has accepted stays accepted: what
// is learned later is a remark beside it (docs/decisions/13).
//
//	j := rules.Validator(ctx)
//	for _, e := range stored { j.Replay(e) }      // with the verdicts they were given
//	for _, e := range arriving { e = j.Admit(e) } // e.Verdict, e.Why
type Validator struct {
	// rules are today's; nothing that was judged before is judged by them.
	rules Rules
	ctx   Context
	// byID are the events seen so far, of which an id counts once.
	byID map[string]Event
	// of is the visit whose events they are, latestMS when the last of them happened.
	of       string
	latestMS int64
	bodies   map[string]Body     // read, by event
	undos    map[string][]string // event → what took it back
	// points as they lie after the events seen so far; a removed one is not among them.
	points map[UUID]*PointCharted
	// holds begun in this visit, with the log as far as it was seen.
	holds map[UUID]*begun
	// runs are the sequences that were begun.
	runs map[UUID]*begunRun
	// record is the client's, with what this visit has added; said are the answers and
	// agreements of this visit, by event, as they were written.
	record *record.Record
	said   map[string]any
	// signs of this visit's holds, with where the hand was.
	signs  []Pressed
	closed *Event // the first visit-closed
	signed *Event // the note-signed
	// counter is the note-countersigned.
	counter *Event
	// spots are those that were looked for.
	spots map[placed]Spot
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
	memo    memo
}

// Validator begins with an empty visit.
func (l Rules) Validator(ctx Context) *Validator {
	return &Validator{
		rules: l, ctx: ctx, byID: map[string]Event{}, bodies: map[string]Body{}, undos: map[string][]string{},
		points: map[UUID]*PointCharted{}, holds: map[UUID]*begun{}, runs: map[UUID]*begunRun{},
		record: record.New(ctx.Client, ctx.History),
		said:   map[string]any{}, signs: slices.Clone(ctx.Signs), spots: map[placed]Spot{},
	}
}

// Accept judges an event that arrives now, after all that were kept, and keeps
// it with its verdict. An event without a version is one that has not been
// sent: it is judged as if it arrived now, which is the browser's preview.
func (j *Validator) Admit(e Event) Event {
	e.Verdict, e.Why, e.HoldAtMS, e.Result = Accepted, "", nil, nil
	b, err := e.Decode()
	if err == nil {
		err = j.validate(&e, b)
	}
	if err != nil {
		e.Verdict, e.Why = Rejected, err.Error()
	}
	j.take(e, b)
	if e.Verdict == Accepted {
		e.Result = j.result(b)
	}
	return e
}

// Keep takes in an event that was judged before.
func (j *Validator) Replay(e Event) {
	b, err := e.Decode()
	if err != nil {
		b = nil
	}
	j.take(e, b)
}

// bodyOf gives the body of an event that was kept, read once; it is not to be
// changed.
func (j *Validator) bodyOf(e Event) (Body, error) {
	if b, ok := j.bodies[e.ID]; ok {
		return b, nil
	}
	return e.Decode()
}

// because is a refusal in words, not of a field.
type because string

func (b because) Error() string { return string(b) }

// words makes a reason an error, and no reason none.
func words(why string) error {
	if why == "" {
		return nil
	}
	return because(why)
}

// validate asks in a fixed order: the role, the closing, and what the kind itself asks. The
// first refusal is the reason that is stored.
func (j *Validator) validate(e *Event, b Body) error {
	role := j.ctx.Roles[e.Author]
	if !MayWrite(role, e.Type) {
		return because(fmt.Sprintf("This role may not write it: %s by %s.", e.Type, roleWords(role)))
	}
	if why := j.afterClosing(*e, b); why != "" {
		return because(why)
	}
	if b, ok := b.(admitted); ok {
		if err := b.admit(j, e); err != nil {
			return err
		}
	}
	if b, ok := b.(aboutPoint); ok && j.points[b.about()] == nil {
		return noPoint(b.about())
	}
	return nil
}

// roleWords names a role; who has none never was of the practice.
func roleWords(r rights.Role) string {
	if r == "" {
		return "someone who is not of the practice"
	}
	return string(r)
}

// noPoint names the field, for a page that sends an id of another visit.
func noPoint(id UUID) error {
	return refuse("$.body.point", string(id), "a point charted in this visit")
}

func noHold(id UUID) error { return refuse("$.body.hold", string(id), "a hold started in this visit") }

// refuse is a validation error of a body, with what was given in quotes.
func refuse(path, given, allowed string) error {
	return &decode.Error{Path: path, Given: fmt.Sprintf("%q", given), Allowed: allowed}
}

// placed refuses a place that is not on its muscle, or of a figure that never
// was. What was charted on an earlier figure, and waited to be sent, is carried.
func (j *Validator) placed(
	m ids.Muscle, side ids.Side, figure string, v body.View, p body.Point, f atlas.FibrePlace,
) error {
	muscle, err := atlas.Get(m)
	if err != nil {
		return err
	}
	if e := atlas.Pressable(m, "$.body.muscle"); e != nil {
		return e
	}
	if figure != j.rules.Figure {
		if _, ok := muscle.Carry(figure, f, side, j.ctx.height()); !ok {
			return refuse("$.body.figure", figure, j.rules.Figure)
		}
		return nil
	}
	if why := muscle.Carries(v, p, f, side, j.ctx.height()); why != "" {
		return &decode.Error{
			Path: "$.body.place", Given: fmt.Sprintf("%s %.0f, %.0f", v, p.X, p.Y), Allowed: why,
		}
	}
	return nil
}

// pressed reports whether a hold was ever begun at a point.
func (j *Validator) pressed(point UUID) bool {
	for _, h := range j.holds {
		if h.start.Point == point {
			return true
		}
	}
	return false
}

// keep lets a judged event change what is known.
func (j *Validator) take(e Event, b Body) {
	j.byID[e.ID] = e
	j.of, j.latestMS = e.Visit, max(j.latestMS, e.At())
	if b == nil {
		return
	}
	j.bodies[e.ID] = b
	if e.Verdict != Accepted && !byName[e.Type].rejectedToo {
		return
	}
	if b, ok := b.(placing); ok && b.place(j) {
		j.record.Add(record.Fact{Stamp: j.ctx.stamp(e), Placed: string(b.at())})
	}
	if b, ok := b.(remembered); ok {
		b.remember(j, e)
	}
	if e.Verdict == Accepted {
		j.record.Add(j.ctx.Facts(e, b)...)
	}
}

// undoSign takes back the last sign of a hold, but for one that has closed the place: that
// stays closed.
func (j *Validator) undoSign(h *begun) {
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
func (j *Validator) result(b Body) *treat.Summary {
	of, ok := b.(ofHold)
	if !ok {
		return nil
	}
	h, ok := j.holds[of.hold()]
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
	return h.memo.of(c, h.log), nil
}
