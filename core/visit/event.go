package visit

import (
	"encoding/json"
	"fmt"

	"mokren/core/decode"
	"mokren/core/treat"
)

// SchemaVersion of the envelope and the bodies.
const SchemaVersion = 1

// Event is the envelope of everything that happens in a visit.
type Event struct {
	ID string `json:"id" doc:"UUIDv7, made on the device"`
	// Client and Visit must be those of the address that it was sent to.
	Client string `json:"client"`
	Visit  string `json:"visit"`
	Author string `json:"author" doc:"person who did it"`
	// Device counts its own events in Seq, which never goes back: order within a device is
	// certain.
	Device   string `json:"device"`
	Seq      int64  `json:"seq" minimum:"1" maximum:"9007199254740991" doc:"sequence on that device, rising"`
	DeviceMS int64  `json:"device_ms" minimum:"0" maximum:"253402300799999" doc:"device time, Unix milliseconds"`
	// ReceivedMS and Version are 0 before the event was received.
	ReceivedMS int64 `json:"received_ms,omitempty" minimum:"0" doc:"server time, Unix milliseconds"`
	Seen       int64 `json:"seen" minimum:"0" maximum:"9007199254740991" doc:"the version that the writer had seen"`
	Version    int64 `json:"version,omitempty" minimum:"0" doc:"place in the order of arrival"`
	// Schema is of the body; an older body is read as it was meant.
	Schema int `json:"schema" minimum:"1" maximum:"1000000"`
	// Type names the kind, Body is what that kind says.
	Type string          `json:"type" maxLength:"60"`
	Body json.RawMessage `json:"body"`

	// What the server adds when it judges the event, once.
	HappenedMS int64          `json:"happened_ms,omitempty" minimum:"0" doc:"device time corrected on arrival, Unix ms"`
	Clock      string         `json:"clock,omitempty" enum:"ahead,behind,long" doc:"how the device's clock was off"`
	HoldAtMS   *int64         `json:"hold_at_ms,omitempty" doc:"at_ms of a hold's event, where it could not be so late"`
	Verdict    string         `json:"verdict,omitempty" enum:"accepted,aside" doc:"empty before it was received"`
	Why        string         `json:"why,omitempty" doc:"why it was rejected"`
	Result     *treat.Summary `json:"result,omitempty" doc:"what an ended hold came to, as of this event"`
}

// Check implements decode.Checker: the envelope's ids.
func (e Event) Check() *decode.Error {
	for _, f := range []struct{ name, id string }{
		{"id", e.ID}, {"client", e.Client}, {"visit", e.Visit}, {"author", e.Author}, {"device", e.Device},
	} {
		if UUID(f.id).Check() != nil {
			return &decode.Error{Path: "$." + f.name, Given: fmt.Sprintf("%q", f.id), Allowed: "a UUID in lower case"}
		}
	}
	return nil
}
