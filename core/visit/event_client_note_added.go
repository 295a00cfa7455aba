package visit

import (
	"strings"

	"mokren/core/decode"
	"mokren/core/rights"
)

var clientNoteAdded = kind{
	name: "client-note-added",
	body: func() Body { return new(ClientNoteAdded) },
	by:   rights.Role.Clinical,
}

// ClientNoteAdded is something the client said during the visit, in their words.
type ClientNoteAdded struct {
	Text string `json:"text" maxLength:"1000"`
	// Step is the step of the visit that was on screen.
	Step string `json:"step,omitempty" enum:"last,draw,screen,measure,suspect,find,plan,press,recheck,close"`
}

// Check implements decode.Checker: something was said.
func (b ClientNoteAdded) Check() *decode.Error {
	if strings.TrimSpace(b.Text) == "" {
		return &decode.Error{Path: "$.text", Given: `""`, Allowed: "what the client said"}
	}
	return nil
}

// apply adds: what was said at two devices stands side by side.
func (b *ClientNoteAdded) apply(r *reducer, e Event) error {
	r.state.ClientNotes = append(r.state.ClientNotes, ClientNote{AtMS: e.At(), Author: e.Author, ClientNoteAdded: *b})
	return nil
}

func (b *ClientNoteAdded) timeline() string { return "The client: “" + b.Text + "”" }

// ClientNote is what the client said, with when and by whom it was written.
type ClientNote struct {
	AtMS   int64  `json:"at_ms"`
	Author string `json:"author"`
	ClientNoteAdded
}
