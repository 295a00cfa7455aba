package device

import "math"

// Tissue is a simulated muscle with a nodule in it: soft until a knee, then
// stiff; tender, less so while it is pressed suitably and more when overpressed.
// It lets the whole flow of a hold run without hardware. The numbers are a
// plausible calf, not a measurement.
type Tissue struct {
	// SoftN, StiffN are the slopes before and beyond the knee, N/mm.
	SoftN, StiffN float64
	KneeMM        float64
	// Nodule adds stiffness around its depth, N.
	NoduleMM, NoduleN float64
	// Tender is the number (NPRS) at TenderN of force.
	Tender, TenderN float64
}

// Calf is a tissue to begin with.
func Calf() Tissue {
	return Tissue{SoftN: 0.5, StiffN: 2.2, KneeMM: 10, NoduleMM: 14, NoduleN: 2, Tender: 6, TenderN: 22}
}

// Rates of change of tenderness (NPRS per second): letting go under a suitable
// pressure, and answering to too much.
const (
	letsGo     = 0.05
	answers    = 0.12
	suitable   = 3.0 // a number from here on is pressure that does something
	overMuch   = 7.5
	leastTend  = 1.0
	mostTend   = 9.5
	noduleWide = 2.0 // mm
)

// Force is what the tissue answers at a depth, N.
func (t Tissue) Force(mm float64) float64 {
	d := (mm - t.NoduleMM) / noduleWide
	return t.SoftN*mm + (t.StiffN-t.SoftN)*math.Max(0, mm-t.KneeMM) + t.NoduleN*math.Exp(-d*d)
}

// Depth is where the tissue answers with a force, mm.
func (t Tissue) Depth(n float64) float64 {
	low, high := 0.0, 60.0
	for range 40 {
		mid := (low + high) / 2
		if t.Force(mid) < n {
			low = mid
		} else {
			high = mid
		}
	}
	return (low + high) / 2
}

// Number is what a client feels at a force, 0 to 10.
func (t Tissue) Number(n float64) float64 {
	return math.Max(0, math.Min(10, t.Tender*n/t.TenderN))
}

// After is the tissue after some seconds at a force.
func (t Tissue) After(s, n float64) Tissue {
	switch felt := t.Number(n); {
	case felt >= overMuch:
		t.Tender = math.Min(mostTend, t.Tender+answers*s)
	case felt >= suitable:
		t.Tender = math.Max(leastTend, t.Tender-letsGo*s)
	}
	return t
}
