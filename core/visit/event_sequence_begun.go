package visit

import (
	"fmt"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/sequence"
)

var sequenceBegun = kind{
	name:   "sequence-begun",
	body:   func() Body { return new(SequenceBegun) },
	by:     rights.Role.Clinical,
	closed: takesNoHold,
}

// SequenceBegun carries the steps as they were laid out for this client, so that another
// device runs the same ones.
type SequenceBegun struct {
	Run UUID `json:"run"`
	// Sequence is the shipped one; absent where the steps are somebody's own.
	Sequence ids.Sequence `json:"sequence,omitempty"`
	Name     string       `json:"name" maxLength:"120"`
	// Block is the part of the session that it fills; what follows it depends on that.
	Block string    `json:"block,omitempty" enum:"warm-up,lengthen,close"`
	Steps []RunStep `json:"steps" minItems:"1" maxItems:"120"`
}

// RunStep is one step on one side.
type RunStep struct {
	Technique ids.Technique `json:"technique"`
	Where     string        `json:"where" maxLength:"80"`
	Side      ids.Side      `json:"side"`
	Position  ids.Position  `json:"position,omitempty"`
	Contact   ids.Contact   `json:"contact,omitempty"`
	Dose      sequence.Dose `json:"dose"`
	Seconds   float64       `json:"seconds" minimum:"0" maximum:"1200"`
	Text      string        `json:"text,omitempty" maxLength:"1000"`
	Point     UUID          `json:"point,omitempty"`
}

// Check implements decode.Checker: technique, place, contact and dose are what the table allows.
func (s RunStep) Check() *decode.Error {
	dose := s.Dose
	return sequence.TechniqueStep{Technique: s.Technique, Where: s.Where, Contact: s.Contact, Dose: &dose}.Check()
}

// at is where the hand is in a step.
func (s RunStep) at() Spot {
	muscle, place, where := sequence.PlaceOf(s.Where, s.Side)
	return Spot{Muscle: muscle, Side: s.Side, Place: place, Where: where}
}

// admit asks of every step: none that presses stands on a closed or blocked place, lacks a
// consent or takes a refused contact.
func (b *SequenceBegun) admit(j *Validator, e *Event) error {
	if _, twice := j.runs[b.Run]; twice {
		return refuse("$.body.run", string(b.Run), "an id that no sequence of this visit has")
	}
	if why := j.shut(); why != "" {
		return because(why)
	}
	k := j.knownTo(*e)
	for i, s := range b.Steps {
		if why := j.stepRefused(k, s); why != "" {
			return refuse(fmt.Sprintf("$.body.steps[%d]", i), string(s.Technique)+" at "+s.Where, why)
		}
	}
	return nil
}

// A technique is looked up by its id: an id that is not known was refused by its own check before.

// stepRefused tells why a step may not be done, or "". What presses passes what a hold passes; what
// does not still waits for the screening and the consent to the visit.
func (j *Validator) stepRefused(k record.Verdict, s RunStep) string {
	at := s.at()
	t, _ := sequence.Find(s.Technique)
	if t.Presses == "none" {
		at.Muscle, at.Where = "", nil
		return k.But(record.Closed, record.TwiceAlready).Refusal(at, "").Text
	}
	if t.Presses == "light" {
		k = k.But(record.TwiceAlready)
	}
	if no := k.Refusal(at, string(s.Point)); no.Reason != "" {
		return no.Text
	}
	if why := k.Screening.Limits.TooHard(at.Where, s.Contact); why != "" || t.Presses == "light" || at.Muscle == "" {
		return why
	}
	return j.contactRefused(at, s.Contact)
}

// remember keeps the steps, which later events name by their number.
func (b *SequenceBegun) remember(j *Validator, e Event) {
	if _, twice := j.runs[b.Run]; !twice {
		j.runs[b.Run] = &begunRun{steps: b.Steps, event: e}
	}
}

// begunRun is a sequence that was begun.
type begunRun struct {
	steps []RunStep
	event Event
}

// apply shows a run with its steps open. The run of an event that was rejected is never shown: what
// was not allowed to begin has no steps.
func (b *SequenceBegun) apply(r *reducer, e Event) error {
	run := Run{
		Run: b.Run, Sequence: b.Sequence, Name: b.Name, Block: b.Block,
		BeganMS: e.At(), Author: e.Author, Steps: []StepRun{},
	}
	for _, s := range b.Steps {
		t, _ := sequence.Find(s.Technique)
		run.Steps = append(run.Steps, StepRun{RunStep: s, Protocol: t.Protocol})
	}
	r.state.Runs = append(r.state.Runs, run)
	return nil
}

func (b *SequenceBegun) timeline() string { return "Sequence begun: " + b.Name }
