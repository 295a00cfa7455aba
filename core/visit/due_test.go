package visit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/ids"
	"mokren/core/visit"
)

func leftAs(muscle ids.Muscle, before, after float64) (p visit.FoundPoint) {
	p.Muscle, p.Side, p.NPRS = muscle, ids.Left, &before
	if after >= 0 {
		p.AfterNPRS = &after
	}
	return p
}

func TestWhatIsDueAgain(t *testing.T) {
	deg := func(d float64) *float64 { return &d }
	due := visit.DueAgain([]visit.FoundPoint{
		leftAs("soleus", 8, 2), // calm at the end
		leftAs("infraspinatus", 6, 2.5),
		leftAs("upper-trapezius", 4, -1), // not asked again
		leftAs("levator-scapulae", 2, -1),
		{},
	}, []visit.Range{
		{Movement: "cervical.rotation", Side: ids.Left, Before: deg(50), After: deg(80)}, // as usual at the end
		{Movement: "cervical.rotation", Side: ids.Right, Before: deg(60)},
		{Movement: "cervical.lateral-flexion", Side: ids.Left},
	}, 0)
	assert.Equal(t, []visit.Recheck{
		{Muscle: "upper-trapezius", Name: "Upper trapezius", Side: ids.Left, Value: 4},
		{Muscle: "infraspinatus", Name: "Infraspinatus", Side: ids.Left, Value: 2.5},
		{Movement: "cervical.rotation", Side: ids.Right, Value: 60},
	}, due)
	assert.NotNil(t, visit.DueAgain(nil, nil, 0))
}
