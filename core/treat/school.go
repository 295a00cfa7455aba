package treat

import (
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/strict"
)

// OwnSchool is a practice's own copy of a protocol: a name and the numbers that
// it sets, each within its bracket.
type OwnSchool struct {
	Protocol ids.Protocol       `json:"protocol"`
	Name     string             `json:"name" minLength:"1" maxLength:"60"`
	Numbers  map[string]float64 `json:"numbers"`
}

// Check implements strict.Checker.
func (o OwnSchool) Check() *strict.Error {
	p, ok := Find(o.Protocol)
	if !ok {
		return o.Protocol.Check().Under("$.protocol")
	}
	if _, err := p.Tuned(o.Numbers); err != nil {
		return err.(*strict.Error)
	}
	return nil
}

// School is a protocol as a practice sees it when it tunes or chooses one.
type School struct {
	Protocol ids.Protocol  `json:"protocol"`
	Name     string        `json:"name"`
	What     string        `json:"what"`
	Limits   safety.Limits `json:"limits"`
	// Numbers are the defaults by name: seconds where it ends in _s, else a count.
	Numbers map[string]float64 `json:"numbers"`
	Tunable []Bracket          `json:"tunable"`
}

// Schools lists every protocol with what of it may be tuned.
func Schools() []School {
	out := make([]School, len(protocols))
	for i, p := range protocols {
		s := School{p.ID, p.Name, p.What, p.Limits, map[string]float64{}, append([]Bracket{}, p.Tunable...)}
		for _, b := range p.Tunable {
			s.Numbers[b.Number] = p.Plan.Number(b.Number)
		}
		out[i] = s
	}
	return out
}

// Named is a protocol with its name.
type Named struct {
	Protocol ids.Protocol `json:"protocol"`
	Name     string       `json:"name"`
}

// Names lists every protocol by name, in the order in which they are offered.
func Names() []Named {
	out := make([]Named, len(protocols))
	for i, p := range protocols {
		out[i] = Named{p.ID, p.Name}
	}
	return out
}
