package visit

import (
	"slices"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
)

// Context is what a visit's log is read against: what the record says of the
// client, what other visits have left behind, and who is who. The server and
// the browser read with the same one.
type Context struct {
	record.Client
	// History is the client's safety record but for this visit's own facts, in the order
	// of arrival.
	History []record.Fact `json:"history"`
	// Roles are those of the people of the practice, of those who left too.
	Roles map[string]rights.Role `json:"roles"`
	// Gone have no membership now: they left, or came in by an import. What they did
	// stands; nothing new rests on them.
	Gone []string `json:"gone,omitempty"`
	// Signs are those of the client's other visits, Treated what was pressed there, of
	// these days.
	Signs   []Pressed          `json:"signs"`
	Treated []record.Treatment `json:"treated"`
	// Visit is this one.
	Visit string `json:"visit,omitempty"`
	// NowMS is the server's clock when this was read.
	NowMS int64 `json:"now_ms,omitempty"`
	// Cancelled: the visit was. Archived: the client is.
	Cancelled bool `json:"cancelled,omitempty"`
	Archived  bool `json:"archived,omitempty"`
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

func (c Context) height() float64 { return c.Height() }

// licensed reports whether a person holds a licensed membership now.
func (c Context) licensed(person string) bool {
	return c.Roles[person].Licensed() && !slices.Contains(c.Gone, person)
}
