package bridge

import (
	"fmt"
	"reflect"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/note"
	"mokren/core/points"
	"mokren/core/sequence"
	"mokren/core/visit"
)

// maxVisits are kept open: the one on screen, and the one that was left a moment ago.
const maxVisits = 2

// VisitLog is a visit as the page has it.
type VisitLog struct {
	Visit   visit.UUID         `json:"visit"`
	Context visit.Context      `json:"context"`
	Earlier []visit.FoundPoint `json:"earlier" doc:"points of earlier visits"`
	Events  []visit.Event      `json:"events" doc:"stored and unsent, in any order"`
	Shown   int64              `json:"shown,omitempty" doc:"the revision whose state the page has"`
}

// VisitAgain is a visit that was open in a core that is gone.
type VisitAgain struct {
	Revision int64    `json:"revision" doc:"by which the page asks about it"`
	Log      VisitLog `json:"log"`
}

// VisitState is the state of a visit and the revision by which it is asked about. Under a revision
// that was given before, nothing has changed that is asked about a visit.
type VisitState struct {
	Revision int64        `json:"revision"`
	State    *visit.State `json:"state,omitempty" doc:"absent where the page has it"`
}

// Of names the visit and the state that a question is about.
type Of struct {
	Visit    visit.UUID `json:"visit"`
	Revision int64      `json:"revision"`
}

func (o Of) about() Of { return o }

// openVisit is a visit that was opened; state is what log reduces to.
type openVisit struct {
	log      VisitLog
	revision int64
	state    visit.State
	// entries is what happened, once somebody has asked.
	entries []visit.TimelineEntry
}

// ofVisits are the questions about an open visit; each names the revision that it is about.
func ofVisits() []Question {
	return []Question{
		question("event-kinds", "The types of events of a visit", kinds),
		question("visit-state", "The state of a visit, kept for the questions about it", (*Bridge).visitState),
		question("visit-again", "A visit that another core had open, under the revision that it gave",
			(*Bridge).visitAgain),
		aboutVisit("visit-preview", "Why an event would be rejected if it were written now", (*openVisit).preview),
		aboutVisit("visit-undoable", "Which events their author may undo now", (*openVisit).undoable),
		aboutVisit("visit-ranking", "Muscles ranked by all findings of a visit", (*openVisit).ranking),
		aboutVisit("visit-work", "Every point judged, its protocol, and what to search", (*openVisit).work),
		aboutVisit("visit-trace", "Where a point may come from", (*openVisit).trace),
		aboutVisit("visit-plan", "The session as it stands at a moment", (*openVisit).plan),
		aboutVisit("visit-letter", "A referral letter, drafted from a visit", (*openVisit).letter),
		aboutVisit("visit-timeline", "What happened in a visit, in order", (*openVisit).timeline),
		aboutVisit("visit-note", "The text of the note", (*openVisit).note),
		aboutVisit("visit-aftercare", "The aftercare sheet", (*openVisit).aftercare),
		aboutVisit("visit-same-spot", "Which spot of earlier visits a place is", (*openVisit).sameSpot),
		aboutVisit("hold-offers", "What a hold at each point would begin with, in order", (*openVisit).holdOffers),
		aboutVisit("sequence-offers", "The sequences as they are laid out for this client now",
			(*openVisit).sequenceOffers),
		aboutVisit("hold-next", "What may come after a hold", (*openVisit).holdNext),
	}
}

// EventKinds are the types of events.
type EventKinds struct {
	Kinds []visit.Kind `json:"kinds"`
}

func kinds(*Bridge, *struct{}) (*EventKinds, error) { return &EventKinds{visit.Kinds()}, nil }

// visitState opens a visit, or opens it anew after a change. Every answer about an older
// revision is refused from then on.
func (d *Bridge) visitState(in *VisitLog) (*VisitState, error) {
	v := &openVisit{log: *in, state: visit.Reduce(in.Context, in.Events)}
	for _, before := range d.visits {
		if before.log.Visit == in.Visit && before.asks(v) {
			v.revision = before.revision
			d.keepOpen(v)
			if v.revision == in.Shown {
				return &VisitState{Revision: v.revision}, nil
			}
			return &VisitState{v.revision, &v.state}, nil
		}
	}
	d.revision++
	v.revision = d.revision
	d.keepOpen(v)
	return &VisitState{v.revision, &v.state}, nil
}

// asks says whether every question about a visit has the answer that it had: its state, what it is
// read against, and what happened in it are the same. So it is when the server confirms an event.
func (v *openVisit) asks(now *openVisit) bool {
	was, is := v.state, now.state
	was.Version, is.Version = 0, 0 // how far the log is stored; no answer has it
	return len(v.log.Events) == len(now.log.Events) && reflect.DeepEqual(v.log.Context, now.log.Context) &&
		reflect.DeepEqual(v.log.Earlier, now.log.Earlier) && reflect.DeepEqual(was, is) &&
		reflect.DeepEqual(v.happened(), now.happened())
}

func (v *openVisit) happened() []visit.TimelineEntry {
	if v.entries == nil {
		v.entries = visit.Timeline(v.log.Context, v.log.Events)
	}
	return v.entries
}

// visitAgain opens a visit at a revision that the page knows; none that is given later is lower.
func (d *Bridge) visitAgain(in *VisitAgain) (*VisitState, error) {
	d.revision = max(d.revision, in.Revision)
	v := &openVisit{log: in.Log, revision: in.Revision, state: visit.Reduce(in.Log.Context, in.Log.Events)}
	d.keepOpen(v)
	return &VisitState{v.revision, &v.state}, nil
}

func (d *Bridge) keepOpen(v *openVisit) {
	d.visits = keep(d.visits, v, maxVisits, func(o *openVisit) bool { return o.log.Visit == v.log.Visit })
}

// keep puts one before a list in the place of the one it replaces, and drops the oldest
// beyond a number.
func keep[T any](list []T, one T, most int, same func(T) bool) []T {
	out := []T{one}
	for _, o := range list {
		if !same(o) && len(out) < most {
			out = append(out, o)
		}
	}
	return out
}

// at gives an open visit at the revision that is asked about.
func (d *Bridge) at(of Of) (*openVisit, error) {
	for _, v := range d.visits {
		if v.log.Visit != of.Visit {
			continue
		}
		if v.revision == of.Revision {
			return v, nil
		}
		return nil, &decode.Error{
			Path: "$.revision", Given: fmt.Sprint(of.Revision), Allowed: fmt.Sprint(v.revision),
		}
	}
	return nil, &decode.Error{Path: "$.visit", Given: fmt.Sprintf("%q", of.Visit), Allowed: "an open visit"}
}

// Draft is an event that is not written yet.
type Draft struct {
	Of
	Event visit.Event `json:"event"`
}

// Refusal is why an event would be rejected; empty when it would not.
type Refusal struct {
	Why string `json:"why"`
}

// preview asks what the server would say, before anything is written.
func (v *openVisit) preview(in *Draft) (*Refusal, error) {
	return &Refusal{visit.Preview(v.log.Context, v.log.Events, in.Event)}, nil
}

// Undoing asks which of some events may be undone at a moment.
type Undoing struct {
	Of
	Events []string `json:"events"`
	NowMS  int64    `json:"now_ms"`
}

// EventIDs are events by id.
type EventIDs struct {
	Events []string `json:"events"`
}

// undoable judges the log once for all events asked about.
func (v *openVisit) undoable(in *Undoing) (*EventIDs, error) {
	return &EventIDs{visit.Undoable(v.log.Context, v.log.Events, in.Events, in.NowMS)}, nil
}

// Weighing asks for the ranking under weights of the practice.
type Weighing struct {
	Of
	Weights  assess.Weights `json:"weights"`
	StartsMS int64          `json:"starts_ms" doc:"when the visit was booked for, Unix ms"`
}

// ranking weighs all findings of the visit with the practice's weights.
func (v *openVisit) ranking(in *Weighing) (*assess.Ranking, error) {
	return new(assess.Rank(v.state.Findings(v.log.Context, v.log.Earlier, in.StartsMS), in.Weights)), nil
}

// WithSuspects asks beside the muscles that are suspected.
type WithSuspects struct {
	Of
	Suspects []assess.Suspect `json:"suspects"`
}

// work judges every point beside the others.
func (v *openVisit) work(in *WithSuspects) (*visit.Working, error) {
	return new(v.state.Work(v.log.Context, v.log.Earlier, in.Suspects)), nil
}

// PointQuestion asks about a point, beside the muscles that are suspected.
type PointQuestion struct {
	WithSuspects
	Point visit.UUID `json:"point"`
}

// Sources are the points that a point may come from, the likeliest first.
type Sources struct {
	Points []points.Candidate `json:"points"`
}

// trace ranks where a stubborn point may come from.
func (v *openVisit) trace(in *PointQuestion) (*Sources, error) {
	list, err := v.state.Trace(v.log.Context, v.log.Earlier, in.Suspects, in.Point)
	return &Sources{list}, err
}

// Planning asks for the session; without a plan of the page's own the accepted one counts.
type Planning struct {
	Of
	Wanted *visit.PlanMade `json:"wanted,omitempty" doc:"a plan that is tried and not accepted yet"`
	NowMS  int64           `json:"now_ms"`
}

// plan is the session from a moment on, for a plan that is accepted or one that is tried.
func (v *openVisit) plan(in *Planning) (*visit.PlanState, error) {
	work := v.state.Work(v.log.Context, v.log.Earlier, nil)
	out, err := v.state.Planning(v.log.Context, v.log.Earlier, work, in.Wanted, in.NowMS)
	return &out, err
}

// NoteQuestion asks for the note in the time of the practice.
type NoteQuestion struct {
	Of
	OffsetMin int `json:"offset_min" doc:"how far the practice's clock is ahead of UTC"`
}

// note writes the note in the time of the practice.
func (v *openVisit) note(in *NoteQuestion) (*visit.NoteText, error) {
	return new(note.Write(note.Visit{
		State: v.state, Context: v.log.Context, Earlier: v.log.Earlier, OffsetMin: in.OffsetMin,
	})), nil
}

// letter drafts a referral letter.
func (v *openVisit) letter(in *NoteQuestion) (*note.LetterDraft, error) {
	return new(note.Letter(note.Visit{
		State: v.state, Context: v.log.Context, Earlier: v.log.Earlier, OffsetMin: in.OffsetMin,
	})), nil
}

// Timeline is what happened in a visit.
type Timeline struct {
	Entries []visit.TimelineEntry `json:"entries"`
}

// timeline tells the log in words, taken back or not.
func (v *openVisit) timeline(*Of) (*Timeline, error) {
	return &Timeline{v.happened()}, nil
}

// aftercare is made from the visit and from what earlier ones know of its spots.
func (v *openVisit) aftercare(*Of) (*visit.Aftercare, error) {
	return new(v.state.Aftercare(v.log.Earlier)), nil
}

// PlaceQuestion is a place on a muscle's fibres.
type PlaceQuestion struct {
	Of
	Muscle ids.Muscle       `json:"muscle"`
	Side   ids.Side         `json:"side"`
	Place  atlas.FibrePlace `json:"place"`
}

// Spot is a spot of earlier visits; empty where there is none.
type Spot struct {
	Identity visit.UUID `json:"identity"`
}

// sameSpot says which earlier spot a place is, before it is charted.
func (v *openVisit) sameSpot(in *PlaceQuestion) (*Spot, error) {
	return &Spot{visit.SameSpotAs(v.log.Earlier, in.Muscle, in.Side, in.Place, v.log.Context.Height())}, nil
}

// HoldQuestion asks about a hold of a visit.
type HoldQuestion struct {
	Of
	Hold visit.UUID `json:"hold"`
}

// holdNext is what may come after a hold that has ended.
func (v *openVisit) holdNext(in *HoldQuestion) (*visit.NextAfter, error) {
	return new(v.state.NextAfter(v.log.Context, v.log.Earlier, in.Hold)), nil
}

// Moment asks about the visit at a time.
type Moment struct {
	Of
	NowMS int64 `json:"now_ms"`
}

// Offers are the points in the order in which they are pressed.
type Offers struct {
	Offers []visit.Offer `json:"offers"`
}

// Sides asks for sequences that begin on a side, within so many minutes.
type Sides struct {
	Of
	Side    ids.Side `json:"side,omitempty" enum:"left,right"`
	Minutes *float64 `json:"minutes,omitempty" minimum:"0" maximum:"180"`
	// Own are the practice's own sequences by their ids.
	Own map[string]sequence.OwnSequence `json:"own,omitempty"`
}

// SequenceOffers are the practice's own sequences and all shipped ones.
type SequenceOffers struct {
	Offers []visit.SequenceOffer `json:"offers"`
}

func (v *openVisit) sequenceOffers(in *Sides) (*SequenceOffers, error) {
	return &SequenceOffers{v.state.SequenceOffers(in.Side, in.Minutes, in.Own)}, nil
}

// holdOffers is what a hold at each point would begin with.
func (v *openVisit) holdOffers(in *Moment) (*Offers, error) {
	list, err := v.state.Offers(v.log.Context, v.log.Earlier, in.NowMS)
	return &Offers{list}, err
}
