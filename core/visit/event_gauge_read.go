package visit

import (
	"fmt"
	"slices"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/wording"
)

var gaugeRead = kind{
	name: "gauge-read",
	body: func() Body { return new(GaugeRead) },
	by:   rights.Role.Clinical,
}

// GaugeRead is a toe-touch, lunge, straight-leg raise, or how the client
// breathes, before or after treatment.
type GaugeRead struct {
	assess.Gauge
	Moment string `json:"moment" enum:"before,after"`
}

// GaugePair is one gauge on one side, before and after.
type GaugePair struct {
	Gauge     string   `json:"gauge"`
	Side      ids.Side `json:"side"`
	Before    *float64 `json:"before,omitempty"`
	After     *float64 `json:"after,omitempty"`
	Kind      string   `json:"kind,omitempty" doc:"of breathing, before"`
	AfterKind string   `json:"after_kind,omitempty"`
	// Flag tells why the reading before is flagged; empty when it is not.
	Flag string `json:"flag,omitempty"`
}

// sets: before and after are two things, so that reading one does not replace the other.
func (b *GaugeRead) sets(Event) []thing {
	return []thing{{b.ID, "gauge:" + b.ID + ":" + string(b.Side) + ":" + b.Moment}}
}

// apply pairs the reading with that of the other moment; the latest of each counts.
func (b *GaugeRead) apply(r *reducer, _ Event) error {
	i := slices.IndexFunc(r.state.Gauges, func(g GaugePair) bool { return g.Gauge == b.ID && g.Side == b.Side })
	if i < 0 {
		i = len(r.state.Gauges)
		r.state.Gauges = append(r.state.Gauges, GaugePair{Gauge: b.ID, Side: b.Side})
	}
	g := &r.state.Gauges[i]
	if b.Moment == "after" {
		g.After, g.AfterKind = b.Value, b.Kind
		return nil
	}
	g.Before, g.Kind = b.Value, b.Kind
	return nil
}

// timeline names the measure and the moment; the value stands in the step itself.
func (b *GaugeRead) timeline() string {
	return fmt.Sprintf("Read: %s, %s", wording.Plain(b.ID), b.Moment)
}

// before gives what was read before treatment, as the core judges it.
func (g GaugePair) before() assess.Gauge {
	return assess.Gauge{ID: g.Gauge, Side: g.Side, Value: g.Before, Kind: g.Kind}
}
