package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/ids"
)

func TestGaugeFlagsAtTheirBoundaries(t *testing.T) {
	for _, c := range []struct {
		gauge        string
		value, other float64
		want         bool
	}{
		{"weight-bearing-lunge", 35, 35, false},
		{"weight-bearing-lunge", 34.9, 34.9, true},
		{"weight-bearing-lunge", 36, 41, true},
		{"weight-bearing-lunge", 36, 40.9, false},
		{"weight-bearing-lunge", 41, 36, false}, // the other side is the short one
		{"straight-leg-raise", 68, 68, false},
		{"straight-leg-raise", 67.9, 67.9, true},
		{"straight-leg-raise", 70, 80, true},
		{"toe-touch", 40, 0, false},
	} {
		got := gaugeFlag(Gauge{ID: c.gauge, Side: ids.Left, Value: &c.value}, &c.other)
		assert.Equal(t, c.want, got != "", "%s %v beside %v: %s", c.gauge, c.value, c.other, got)
	}
	assert.NotEmpty(t, gaugeFlag(Gauge{ID: "breathing", Side: ids.Midline, Kind: "apical"}, nil))
	assert.Empty(t, gaugeFlag(Gauge{ID: "breathing", Side: ids.Midline, Kind: "diaphragmatic"}, nil))
}

func TestGaugesAreCheckedByField(t *testing.T) {
	for _, c := range []struct {
		g     Gauge
		field string
	}{
		{Gauge{ID: "toe-touch", Side: ids.Midline, Value: f(12)}, ""},
		{Gauge{ID: "toe-touch", Side: ids.Midline, Value: f(-8)}, ""},
		{Gauge{ID: "toe-touch", Side: ids.Left, Value: f(12)}, "$.side"},
		{Gauge{ID: "weight-bearing-lunge", Side: ids.Midline, Value: f(12)}, "$.side"},
		{Gauge{ID: "weight-bearing-lunge", Side: ids.Left}, "$.value"},
		{Gauge{ID: "weight-bearing-lunge", Side: ids.Left, Value: f(71)}, "$.value"},
		{Gauge{ID: "breathing", Side: ids.Midline}, "$.kind"},
		{Gauge{ID: "breathing", Side: ids.Midline, Kind: "apical", Value: f(1)}, "$.kind"},
		{Gauge{ID: "high-jump", Side: ids.Midline}, "$.gauge"},
	} {
		e := c.g.Check()
		if c.field == "" {
			assert.Nil(t, e)
			continue
		}
		require.NotNil(t, e, "%+v", c.g)
		assert.Equal(t, c.field, e.Path)
	}
}

// A gauge and the test that it measures are one finding, not two.
func TestAGaugeIsNoSecondTest(t *testing.T) {
	short := Findings{Gauges: []Gauge{{ID: "straight-leg-raise", Side: ids.Left, Value: f(50)}}}
	tested := Findings{Tests: []TestResult{{"straight-leg-raise", ids.Left, "positive"}}}
	both := Findings{Gauges: short.Gauges, Tests: tested.Tests}
	assert.Equal(t, Rank(tested, nil).Suspects, Rank(short, nil).Suspects)
	assert.Equal(t, Rank(tested, nil).Suspects, Rank(both, nil).Suspects)
	contradicted := both
	contradicted.Tests = []TestResult{{"straight-leg-raise", ids.Left, "negative"}}
	assert.Equal(t, Rank(Findings{Tests: contradicted.Tests}, nil).Suspects, Rank(contradicted, nil).Suspects,
		"what was answered by hand counts")
}

func TestThresholdsStayWithinTheirBounds(t *testing.T) {
	for _, d := range DefaultThresholds() {
		assert.Nil(t, CheckThreshold(d.ID, d.Value))
		assert.Nil(t, CheckThreshold(d.ID, d.Min))
		assert.Nil(t, CheckThreshold(d.ID, d.Max))
		assert.NotNil(t, CheckThreshold(d.ID, d.Min-0.01))
		assert.NotNil(t, CheckThreshold(d.ID, d.Max+0.01))
		assert.NotEmpty(t, d.Source)
	}
	assert.NotNil(t, CheckThreshold("shoe-size", 3))
	assert.NotNil(t, Thresholds{"shoulder-height": 99}.Check())
}

// Every sign has a place on the figure, within its outline, and no two places
// of a view lie under one fingertip.
func TestSignSpotsCanBeTouched(t *testing.T) {
	spots := SignSpots()
	seen := map[ids.Sign]bool{}
	for i, a := range spots {
		seen[a.Sign] = true
		_, on := body.RegionOf(body.CellAt(a.View, body.Point{X: a.X, Y: a.Y}))
		assert.True(t, on, "%s %s lies on the figure", a.Name, a.Side)
		for _, b := range spots[i+1:] {
			if a.View == b.View {
				d := body.Point{X: a.X, Y: a.Y}.Distance(body.Point{X: b.X, Y: b.Y})
				assert.GreaterOrEqual(t, d, 24.0, "%s %s and %s %s", a.Name, a.Side, b.Name, b.Side)
			}
		}
		if a.Side != ids.Midline {
			r, _ := body.RegionOf(body.CellAt(a.View, body.Point{X: a.X, Y: a.Y}))
			assert.Contains(t, []ids.Side{a.Side, ids.Midline}, r.Side, "%s lies on its own side", a.Name)
		}
	}
	for _, id := range ids.Signs() {
		assert.True(t, seen[id], "%s", id)
	}
}
