package visit

// The bodies of the events that frame a visit. The others stand with what they
// do: points, holds, screening, consent, what is found.
type (
	// Opened begins the visit.
	Opened struct {
		Reason string `json:"reason,omitempty" maxLength:"500"`
	}
	// Addendum is what is added to a visit after it was closed.
	Addendum struct {
		Text string `json:"text" maxLength:"20000"`
	}
	// Noted is the therapist's free note on the visit.
	Noted struct {
		Text string `json:"text" maxLength:"20000"`
	}
	// Undone takes an earlier event of the visit back.
	Undone struct {
		Event UUID `json:"event"`
	}
	// Closed ends the visit.
	Closed struct{}
)
