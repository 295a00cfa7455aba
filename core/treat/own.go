package treat

import (
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
)

// OwnProtocol is a practice's own copy of a protocol: a name and the numbers that
// it sets, each within its bounds.
type OwnProtocol struct {
	Protocol ids.Protocol       `json:"protocol"`
	Name     string             `json:"name" minLength:"1" maxLength:"60"`
	Numbers  map[string]float64 `json:"numbers"`
}

// Check implements decode.Checker.
func (o OwnProtocol) Check() *decode.Error {
	p, ok := Find(o.Protocol)
	if !ok {
		return o.Protocol.Check().Under("$.protocol")
	}
	if _, err := p.Tuned(o.Numbers); err != nil {
		return err.(*decode.Error)
	}
	return nil
}

// ProtocolNumbers is a protocol as a practice sees it when it tunes or chooses one.
type ProtocolNumbers struct {
	Protocol ids.Protocol  `json:"protocol"`
	Name     string        `json:"name"`
	What     string        `json:"what"`
	Limits   safety.Limits `json:"limits"`
	// Numbers are the defaults by name: seconds where it ends in _s, else a count.
	Numbers map[string]float64 `json:"numbers"`
	Tunable []Bounds           `json:"tunable"`
}

// AllNumbers lists every protocol with what of it may be tuned.
func AllNumbers() []ProtocolNumbers {
	out := make([]ProtocolNumbers, len(protocols))
	for i, p := range protocols {
		s := ProtocolNumbers{p.ID, p.Name, p.What, p.Limits, map[string]float64{}, append([]Bounds{}, p.Tunable...)}
		for _, b := range p.Tunable {
			s.Numbers[b.Number] = p.Plan.Number(b.Number)
		}
		out[i] = s
	}
	return out
}

// ProtocolName is a protocol with its name.
type ProtocolName struct {
	Protocol ids.Protocol `json:"protocol"`
	Name     string       `json:"name"`
}

// Names lists every protocol by name, in the order in which they are offered.
func Names() []ProtocolName {
	out := make([]ProtocolName, len(protocols))
	for i, p := range protocols {
		out[i] = ProtocolName{p.ID, p.Name}
	}
	return out
}
