package bridge

import (
	"fmt"
	"slices"

	"mokren/core/calc"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
)

// maxHolds are open at once: one is on screen.
const maxHolds = 2

// HoldRequest is what a hold is asked for by; numbers and name are of a practice's own
// copy of a protocol.
type HoldRequest struct {
	Protocol ids.Protocol       `json:"protocol"`
	Muscle   ids.Muscle         `json:"muscle"`
	Side     ids.Side           `json:"side"`
	Variant  string             `json:"variant,omitempty" enum:"reciprocal,small,imagined"`
	Stations *int               `json:"stations,omitempty"`
	Places   *int               `json:"places,omitempty"`
	Moves    *int               `json:"moves,omitempty"`
	Numbers  map[string]float64 `json:"numbers,omitempty"`
	Name     string             `json:"name,omitempty"`
}

// HoldBegun asks what a hold would be: its plan, and its limits where it is pressed under
// what the screening allows.
type HoldBegun struct {
	Request HoldRequest       `json:"request"`
	Limits  safety.Adaptation `json:"limits"`
	Where   []safety.Place    `json:"where"`
}

// HoldStart is a hold that could begin, or why there is none.
type HoldStart struct {
	Start *treat.Start `json:"start,omitempty"`
	Why   string       `json:"why,omitempty"`
}

// HoldLog opens a live hold; its log may be in any order.
type HoldLog struct {
	Hold  visit.UUID           `json:"hold"`
	Start treat.Start          `json:"start"`
	Log   []visit.HoldHappened `json:"log"`
	AtMS  int64                `json:"at_ms" doc:"the moment to show, from the start"`
}

// HoldMoment asks for a live hold at a moment.
type HoldMoment struct {
	Hold visit.UUID `json:"hold"`
	AtMS int64      `json:"at_ms"`
}

// HoldAddition adds one event to a live hold and asks for it at a moment.
type HoldAddition struct {
	HoldMoment
	Event visit.HoldHappened `json:"event"`
}

// HoldView is a hold as it shows at a moment.
type HoldView struct {
	Line    treat.Line    `json:"line"`
	Summary treat.Summary `json:"summary"`
	Result  string        `json:"result" doc:"what it comes to, in words"`
	Moving  string        `json:"moving,omitempty" doc:"what moves, in words; absent where nothing does"`
	// DueMS is when the line changes next by itself; absent when it does not.
	DueMS *int64 `json:"due_ms,omitempty"`
	// LastMS is the time of the latest event, 0 without one.
	LastMS int64 `json:"last_ms"`
	Events int   `json:"events"`
	// Unattended: it is paused because nobody answered, not by a word of the therapist.
	Unattended bool `json:"unattended,omitempty"`
	// Over: nothing more happens. HandOn: a hand is on the client.
	Over   bool `json:"over,omitempty"`
	HandOn bool `json:"hand_on,omitempty"`
	// Pedal is what the one key within reach says now; Takes what else may be said, beside
	// the signs.
	Pedal treat.Kind   `json:"pedal,omitempty"`
	Takes []treat.Kind `json:"takes"`
}

// liveHold is a hold under way.
type liveHold struct {
	id    visit.UUID
	start treat.Start
	log   []treat.Event // in the order of arrival
	coach *treat.Coach  // has applied the log in the order of time
	// last is the coach's answer to the latest event that is not an instrument's.
	last treat.Line
	// lastMS is the greatest time in the log.
	lastMS int64
}

// ofHolds are the questions of a hold, from what may be chosen to what is shown at a moment.
func ofHolds() []Question {
	return []Question{
		question("protocols", "The protocols of pressing, in the order in which they are offered", protocols),
		question("hand-spare", "Whether a hold would strain the hand too much today", (*Bridge).spare),
		question("hold-start", "The plan and the limits of a hold at a place", (*Bridge).holdStart),
		question("hold-open", "Opens a live hold, or opens it anew with another log", (*Bridge).holdOpen),
		question("hold-add", "Adds an event to a live hold", (*Bridge).holdAdd),
		question("hold-look", "A live hold at a moment", (*Bridge).holdLook),
	}
}

// HandQuestion asks what a hold that is about to begin would bring a hand to.
type HandQuestion struct {
	Holds []treat.HandUse `json:"holds" doc:"what the hand has done, the week"`
	Next  treat.HandUse   `json:"next"`
	Suit  []ids.Contact   `json:"suit" doc:"contacts that may be used there"`
}

// spare is asked before a hold begins, while another contact can still be taken.
func (d *Bridge) spare(in *HandQuestion) (*treat.Sparing, error) {
	out, err := treat.Spare(in.Holds, in.Next, in.Suit)
	return &out, err
}

// ProtocolNames are the protocols.
type ProtocolNames struct {
	Protocols []treat.ProtocolName `json:"protocols"`
}

func protocols(*Bridge, *struct{}) (*ProtocolNames, error) { return &ProtocolNames{treat.Names()}, nil }

// holdStart resolves plan and limits as the server would, and lowers them as the screening
// asks.
func (d *Bridge) holdStart(in *HoldBegun) (*HoldStart, error) {
	r := in.Request
	start, err := calc.Resolve(calc.CoachStartLine{
		T: "0", Event: "start", Protocol: r.Protocol, Muscle: r.Muscle, Side: r.Side, Variant: r.Variant,
		Stations: r.Stations, Places: r.Places, Moves: r.Moves, Numbers: r.Numbers, Name: r.Name,
	}, in.Where)
	if err == nil {
		start, err = start.Adapt(in.Limits, in.Where)
	}
	if err != nil {
		return &HoldStart{Why: err.Error()}, nil
	}
	return &HoldStart{Start: &start}, nil
}

// holdOpen replays a log. A late event or an undo opens the hold anew, so that it is always
// what a replay gives.
func (d *Bridge) holdOpen(in *HoldLog) (*HoldView, error) {
	h := &liveHold{id: in.Hold, start: in.Start}
	for _, b := range in.Log {
		e, err := h.read(b)
		if err != nil {
			return nil, err
		}
		h.log = append(h.log, e)
	}
	if err := h.rebuild(); err != nil {
		return nil, err
	}
	d.holds = keep(d.holds, h, maxHolds, func(o *liveHold) bool { return o.id == in.Hold })
	return h.view(in.AtMS), nil
}

// holdAdd lets one event act on the live coach, at the cost of one step and not of a replay.
func (d *Bridge) holdAdd(in *HoldAddition) (*HoldView, error) {
	h, err := d.hold(in.Hold)
	if err != nil {
		return nil, err
	}
	e, err := h.read(in.Event)
	if err != nil {
		return nil, err
	}
	h.log = append(h.log, e)
	if e.At < h.lastMS { // what a pad says arrives late
		if err := h.rebuild(); err != nil {
			return nil, err
		}
	} else {
		h.apply(e)
	}
	return h.view(in.AtMS), nil
}

// holdLook shows the hold at a moment and keeps nothing.
func (d *Bridge) holdLook(in *HoldMoment) (*HoldView, error) {
	h, err := d.hold(in.Hold)
	if err != nil {
		return nil, err
	}
	return h.view(in.AtMS), nil
}

// hold finds one that is open. A page that asks about another was closed, and opens it again.
func (d *Bridge) hold(id visit.UUID) (*liveHold, error) {
	i := slices.IndexFunc(d.holds, func(h *liveHold) bool { return h.id == id })
	if i < 0 {
		return nil, &decode.Error{Path: "$.hold", Given: fmt.Sprintf("%q", id), Allowed: "an open hold"}
	}
	return d.holds[i], nil
}

// read takes an event as the log has it, on the scale that the hold was begun with.
func (h *liveHold) read(b visit.HoldHappened) (treat.Event, error) {
	e, err := treat.ParseEvent(b.AtMS, b.Event, b.Value, h.start.Scale)
	e.Source = b.Source
	return e, err
}

// rebuild applies the whole log to a new coach, in the order of time.
func (h *liveHold) rebuild() error {
	c, err := treat.Replayer(h.start)
	if err != nil {
		return err
	}
	h.coach, h.last, h.lastMS = c, treat.Line{}, 0
	for _, e := range treat.SortLate(h.log) {
		h.apply(e)
	}
	return nil
}

// apply keeps the last line that a person caused: what an instrument says comes many times a
// second.
func (h *liveHold) apply(e treat.Event) {
	l := h.coach.Apply(e)
	h.lastMS = max(h.lastMS, e.At)
	if e.Kind != treat.KindPressure { // an instrument's word is no answer to show
		h.last = l
	}
}

// view is the line at a moment, with what may be said now.
func (h *liveHold) view(ms int64) *HoldView {
	line := h.coach.At(ms)
	sum := h.coach.Summary()
	out := &HoldView{
		Line: line, Summary: sum, Result: sum.Result(), Moving: h.start.Moving(), LastMS: h.lastMS, Events: len(h.log),
		Over: line.Phase.Over(), HandOn: line.Phase.HandOn(), Pedal: line.Phase.Pedal(), Takes: h.start.Takes(line),
	}
	// What the last event answered (an ignored one, say) stays visible.
	if h.last.Ignored {
		out.Line.Ignored, out.Line.Reason = true, h.last.Reason
	}
	if due, ok := h.coach.Due(ms); ok {
		out.DueMS = &due
	}
	if n := len(h.log); out.Line.Phase == treat.PhasePaused {
		out.Unattended = n == 0 || h.log[n-1].Kind != treat.KindPause
	}
	return out
}
