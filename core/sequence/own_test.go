package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/sequence"
)

// own is a copy of a shipped sequence, with a change.
func own(change func(*sequence.OwnSequence)) sequence.OwnSequence {
	s, _ := sequence.Get("calf-and-sole")
	o := sequence.OwnSequence{Name: "Calves, our way", Block: s.Block, From: s.ID}
	o.Steps = append([]sequence.TechniqueStep{}, s.Steps...)
	o.Sides = s.Sides
	change(&o)
	return o
}

// A copy is as good as what it was copied from; what is out of bounds is refused by its field.
func TestAnOwnSequenceStaysWithinTheBounds(t *testing.T) {
	for _, s := range sequence.Known() {
		o := sequence.OwnSequence{Name: s.Name, Block: s.Block, Sequence: s.Sequence}
		require.Nil(t, o.Check(), "%s", s.ID)
	}
	many := make([]sequence.TechniqueStep, sequence.MostSteps+1)
	for want, change := range map[string]func(*sequence.OwnSequence){
		"$.name":                func(o *sequence.OwnSequence) { o.Name = "  " },
		"$.block":               func(o *sequence.OwnSequence) { o.Block = "hold" },
		"$.sides":               func(o *sequence.OwnSequence) { o.Sides = "both" },
		"$.steps":               func(o *sequence.OwnSequence) { o.Steps = many },
		"$.steps[1].technique":  func(o *sequence.OwnSequence) { o.Steps[1].Technique = "hammering" },
		"$.steps[0].where":      func(o *sequence.OwnSequence) { o.Steps[0].Where = "moon" },
		"$.steps[2].importance": func(o *sequence.OwnSequence) { o.Steps[2].Importance = 9 },
		"$.steps[0].position":   func(o *sequence.OwnSequence) { o.Steps[0].Position = "upside-down" },
		"$.steps[0].dose.repetitions": func(o *sequence.OwnSequence) {
			o.Steps[0].Dose = &sequence.Dose{Repetitions: new(90)}
		},
	} {
		e := own(change).Check()
		if assert.NotNil(t, e, want) {
			assert.Equal(t, want, e.Path)
		}
	}
}

// Where it works is where its steps are, so that it is offered for points that lie there.
func TestAnOwnSequenceKnowsWhereItWorks(t *testing.T) {
	o := own(func(*sequence.OwnSequence) {})
	assert.Contains(t, o.Sequence.Regions(), ids.Region("upper-calf"))
	assert.NotContains(t, o.Sequence.Regions(), ids.Region("posterior-neck"))
}
