package visit_test

import (
	"fmt"

	"mokren/core/rights"
	"mokren/core/visit"
)

func ExampleReduce() {
	event := func(seq int64, id, kind, body string) visit.Event {
		return visit.Event{
			ID: id, Author: "me", Device: "a tablet", Seq: seq, DeviceMS: seq,
			Schema: 1, Type: kind, Body: []byte(body),
		}
	}
	const second = "01900000-0000-7000-8000-000000000002"
	s := visit.Reduce(visit.Context{Roles: map[string]rights.Role{"me": rights.Therapist}}, []visit.Event{
		event(1, "01900000-0000-7000-8000-000000000001", "note-written", `{"text":"Sleeps badly."}`),
		event(2, second, "note-written", `{"text":"Sleeps well."}`),
		event(3, "01900000-0000-7000-8000-000000000003", "event-undone", `{"event":"`+second+`"}`),
	})
	fmt.Println(s.Note)
	// Output: Sleeps badly.
}
