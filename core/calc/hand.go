package calc

import (
	"mokren/core/device"
	"mokren/core/treat"
)

// LoadIn is what a hand did.
type LoadIn struct {
	Holds []treat.HandUse `json:"holds" maxItems:"100000"`
}

// Load sums up what a hand bore, by day and over the week.
func Load(in LoadIn) (treat.Load, error) { return treat.LoadOf(in.Holds) }

const resistanceExample = `{"samples":[{"depth_mm":0,"force_n":0},{"depth_mm":1,"force_n":0.4},
{"depth_mm":2,"force_n":0.8},{"depth_mm":3,"force_n":1.2},{"depth_mm":4,"force_n":1.6},{"depth_mm":5,"force_n":2},
{"depth_mm":6,"force_n":2.4},{"depth_mm":7,"force_n":2.8},{"depth_mm":8,"force_n":3.2},{"depth_mm":9,"force_n":3.6},
{"depth_mm":10,"force_n":4},{"depth_mm":11,"force_n":6},{"depth_mm":12,"force_n":8},{"depth_mm":13,"force_n":10},
{"depth_mm":14,"force_n":12},{"depth_mm":15,"force_n":14},{"depth_mm":16,"force_n":16},{"depth_mm":17,"force_n":18},
{"depth_mm":18,"force_n":20},{"depth_mm":19,"force_n":22}]}`

// ResistanceIn is one press of a pressure pad.
type ResistanceIn struct {
	Samples []device.DepthForce `json:"samples" minItems:"20" maxItems:"20000"`
}

// FirstResistance finds where tissue first resists.
func FirstResistance(in ResistanceIn) (device.Resistance, error) {
	return device.FirstResistance(in.Samples)
}

// ProtocolsOut are the protocols that ship.
type ProtocolsOut struct {
	Schools []treat.ProtocolNumbers `json:"schools"`
}

// Protocols lists the protocols with what of them may be tuned.
func Protocols(struct{}) (ProtocolsOut, error) { return ProtocolsOut{treat.AllNumbers()}, nil }

// PadIn is a press under way; at_n is the force that the last number was given at.
type PadIn struct {
	Samples []device.PadSample `json:"samples" maxItems:"20000"`
	AtN     float64            `json:"at_n,omitempty" minimum:"0" maximum:"1000"`
}

// Pad judges a press under way.
func Pad(in PadIn) (device.PadReading, error) { return device.ReadPad(in.Samples, in.AtN), nil }
