package visit

import (
	"fmt"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
)

var sequenceEvent = kind{
	name:   "sequence-event",
	body:   func() Body { return new(SequenceHappened) },
	by:     rights.Role.Clinical,
	closed: takesNoHold,
}

// SequenceHappened is what happened in a step.
type SequenceHappened struct {
	Run UUID `json:"run"`
	// Step counts from 1.
	Step  int    `json:"step" minimum:"1" maximum:"120"`
	Event string `json:"event" enum:"begin,done,skip,stop,nerve-sign,pulse,unwell,skin-reaction,guard,client-stop"`
	// Seconds that it took, of what is done or stopped.
	Seconds *float64 `json:"seconds,omitempty" minimum:"0" maximum:"3600"`
}

// Check implements decode.Checker: what is over says how long it took.
func (b SequenceHappened) Check() *decode.Error {
	if over := b.Event == "done" || b.Event == "stop"; over && b.Seconds == nil {
		return &decode.Error{Path: "$.seconds", Given: "nothing", Allowed: "how long the step took"}
	}
	return nil
}

// admit asks again at each step's beginning: much may have come since the sequence began.
func (b *SequenceHappened) admit(j *Validator, e *Event) error {
	run, ok := j.runs[b.Run]
	if !ok {
		return refuse("$.body.run", string(b.Run), "a sequence that was begun in this visit")
	}
	if b.Step > len(run.steps) {
		return refuse("$.body.step", fmt.Sprint(b.Step), fmt.Sprintf("1 to %d", len(run.steps)))
	}
	if b.Event != "begin" {
		return nil
	}
	if why := j.stepRefused(j.knownTo(*e), run.steps[b.Step-1]); why != "" {
		return because(why)
	}
	return nil
}

// remember counts a sign where the hand was, as in a hold.
func (b *SequenceHappened) remember(j *Validator, e Event) {
	run, ok := j.runs[b.Run]
	if !ok || b.Step > len(run.steps) || !record.IsSign(b.Event) {
		return
	}
	j.signs = append(j.signs, Pressed{
		Spot: run.steps[b.Step-1].at(), Sign: b.Event, AtMS: e.At(), Hold: string(b.Run), From: j.ctx.stamp(e),
	})
}

// protects: a sign does, whenever it comes.
func (b *SequenceHappened) protects() bool { return record.IsSign(b.Event) }

// apply keeps what became of a step. The last word counts: a step that is begun again is open again,
// with the signs that it had. Two devices may end it both; the later one's seconds stand.
func (b *SequenceHappened) apply(r *reducer, e Event) error {
	for i := range r.state.Runs {
		run := &r.state.Runs[i]
		if run.Run != b.Run || b.Step > len(run.Steps) {
			continue
		}
		s := &run.Steps[b.Step-1]
		switch b.Event {
		case "begin":
			s.Outcome, s.BeganMS = "", e.At()
			run.At = b.Step
		case "done", "stop":
			s.Outcome, s.TookS = b.Event, *b.Seconds
		case "skip":
			s.Outcome = b.Event
		default:
			s.Signs = append(s.Signs, b.Event)
		}
		return nil
	}
	return &decode.Error{Path: "$.body.run", Given: string(b.Run), Allowed: "a sequence that was begun"}
}

// timeline tells the signs; the steps are told by their sequence.
func (b *SequenceHappened) timeline() string {
	if b.Event == "client-stop" || record.IsSign(b.Event) {
		return fmt.Sprintf("In step %d: %s", b.Step, b.Event)
	}
	return ""
}

// Run is a sequence as it went.
type Run struct {
	Run      UUID         `json:"run"`
	Sequence ids.Sequence `json:"sequence,omitempty"`
	Name     string       `json:"name"`
	Block    string       `json:"block,omitempty" enum:"warm-up,lengthen,close"`
	BeganMS  int64        `json:"began_ms"`
	Author   string       `json:"author"`
	// At is the step that was begun last, from 1; 0 before the first.
	At    int       `json:"at"`
	Steps []StepRun `json:"steps"`
}

// StepRun is a step with what became of it.
type StepRun struct {
	RunStep
	// Protocol of a step that is one: where a point of its muscle is charted on its side, the hold
	// screen runs it, with all rules of the protocol.
	Protocol ids.Protocol `json:"protocol,omitempty"`
	BeganMS  int64        `json:"began_ms,omitempty"`
	// Outcome is done, skip or stop; empty while it is open.
	Outcome string   `json:"outcome,omitempty" enum:"done,skip,stop"`
	TookS   float64  `json:"took_s,omitempty"`
	Signs   []string `json:"signs,omitempty"`
}

// StepUse is a step in which a hand worked: with what, when, how long.
type StepUse struct {
	Contact ids.Contact
	AtMS    int64
	Seconds float64
}

// HandUses are the steps that were done or stopped with a contact, for the load of the hand.
func (r Run) HandUses() []StepUse {
	var out []StepUse
	for _, s := range r.Steps {
		if s.Contact != "" && s.TookS > 0 {
			out = append(out, StepUse{s.Contact, s.BeganMS, s.TookS})
		}
	}
	return out
}

// Forgotten are steps that were done on one side only and are still open on the other; a side that
// was skipped, or ruled out when it was laid out, is not among them.
func (r Run) Forgotten() []StepRun {
	var out []StepRun
	for _, s := range r.Steps {
		if s.Outcome != "" || s.Side == ids.Midline {
			continue
		}
		for _, o := range r.Steps {
			if o.Technique == s.Technique && o.Where == s.Where && o.Side == s.Side.Other() && o.Outcome == "done" {
				out = append(out, s)
				break
			}
		}
	}
	return out
}
