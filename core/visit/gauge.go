package visit

import (
	"mokren/core/assess"
)

// flagGauges judges the readings before treatment, each beside its other side.
func (r *reducer) flagGauges() {
	list := make([]assess.Gauge, len(r.state.Gauges))
	for i, g := range r.state.Gauges {
		list[i] = g.before()
	}
	for i, flag := range assess.GaugeFlags(list) {
		r.state.Gauges[i].Flag = flag
	}
}
