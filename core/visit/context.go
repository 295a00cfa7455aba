package visit

import (
	"mokren/core/assess"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/safety"
)

// Context is what a visit's log is read against: what the record says of the
// client, what other visits have left behind, and who is who. The server and
// the browser read with the same one.
type Context struct {
	// Carried are the answers of earlier visits, aged to this one.
	Carried []safety.Answer `json:"carried"`
	// Facts follow from the record itself (under age, by the birth date). No
	// answer takes them away.
	Facts []safety.Answer `json:"facts"`
	// Roles are those of the people of the practice.
	Roles map[string]rights.Role `json:"roles"`
	// Signs are those of the client's other visits of this day.
	Signs []Pressed `json:"signs"`
	// HeightCM is the client's; 0 is not known.
	HeightCM float64 `json:"height_cm,omitempty"`
	// Age in years on the day of the visit; 0 is not known.
	Age int `json:"age,omitempty"`
	// Thresholds are the practice's own, from where on a reading is flagged.
	Thresholds assess.Thresholds `json:"thresholds"`
	// Protocol is the practice's default; empty is graded-stages.
	Protocol ids.Protocol `json:"protocol,omitempty"`
	// ClockMS is what to add to this device's clock to get the server's; a
	// browser sets it for what it has not sent yet.
	ClockMS int64 `json:"clock_ms,omitempty"`
}

func (c Context) height() float64 {
	if c.HeightCM > 0 {
		return c.HeightCM
	}
	return body.DefaultHeightCM
}
