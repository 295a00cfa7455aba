package visit

import (
	"cmp"
	"container/heap"

	"mokren/core/stable"
)

// At is when an event happened: by its device's clock, corrected on arrival.
func (e Event) At() int64 {
	if e.HappenedMS > 0 {
		return e.HappenedMS
	}
	return e.DeviceMS
}

// byTime orders the first events of several devices.
func byTime(a, b Event) int {
	return cmp.Or(cmp.Compare(a.At(), b.At()), cmp.Compare(a.ID, b.ID))
}

// bySeq orders the events of one device.
func bySeq(a, b Event) int {
	return cmp.Or(cmp.Compare(a.Seq, b.Seq), cmp.Compare(a.ID, b.ID))
}

// Order sorts a visit's events: per device by sequence, between devices by
// corrected time, ties by id. Duplicates (same id) are dropped. n log n, also
// with a device for every event.
func Order(events []Event) []Event {
	byDevice := map[string][]Event{}
	seen := make(map[string]bool, len(events))
	for _, e := range events {
		if !seen[e.ID] {
			seen[e.ID] = true
			byDevice[e.Device] = append(byDevice[e.Device], e)
		}
	}
	h := make(heads, 0, len(byDevice))
	for _, l := range byDevice {
		stable.Sort(l, bySeq)
		h = append(h, l)
	}
	heap.Init(&h)
	out := make([]Event, 0, len(seen))
	for len(h) > 0 {
		out = append(out, h[0][0])
		if h[0] = h[0][1:]; len(h[0]) == 0 {
			heap.Pop(&h)
			continue
		}
		heap.Fix(&h, 0)
	}
	return out
}

// heads is a heap of what is left of each device's events, by the first.
type heads [][]Event

func (h heads) Len() int           { return len(h) }
func (h heads) Less(i, j int) bool { return byTime(h[i][0], h[j][0]) < 0 }
func (h heads) Swap(i, j int)      { h[i], h[j] = h[j], h[i] }
func (h *heads) Push(x any)        { *h = append(*h, x.([]Event)) }

// Pop implements heap.Interface.
func (h *heads) Pop() any {
	last := len(*h) - 1
	l := (*h)[last]
	*h = (*h)[:last]
	return l
}

// Arrived puts events in the order in which they arrived: stored ones by their
// version, then what a device has not sent yet, in Order.
func Arrived(events []Event) []Event {
	var stored, unsent []Event
	seen := map[string]bool{}
	for _, e := range events {
		switch {
		case seen[e.ID]:
		case e.Version > 0:
			stored = append(stored, e)
		default:
			unsent = append(unsent, e)
		}
		seen[e.ID] = true
	}
	stable.Sort(stored, func(a, b Event) int { return cmp.Compare(a.Version, b.Version) })
	return append(stored, Order(unsent)...)
}
