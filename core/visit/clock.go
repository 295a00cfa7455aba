package visit

import "maps"

// A device's clock may be off. What it says is kept as it was said; beside it
// goes when the event happened by the server's clock, from the difference seen
// on arrival. No date makes anything valid: see Validator.

// clockTolerance: differences below this are the network's (working value).
const clockTolerance = 2000

// longestAway: a device that does not say what its clock showed when it sent is believed
// so far back and no further.
const longestAway = 12 * 3_600_000

// Arrival is what the server knows when a batch of one visit arrives.
type Arrival struct {
	// NowMS is the server's clock, SentMS what the device's clock said when it
	// sent the batch (0: not told), both in Unix ms.
	NowMS, SentMS int64
}

// Heard is when each device of a visit was last heard of.
type Heard map[string]int64

// HeardIn reads it from a visit's events.
func HeardIn(log []Event) Heard {
	h := Heard{}
	for _, e := range log {
		h.take(e)
	}
	return h
}

func (h Heard) take(e Event) { h[e.Device] = max(h[e.Device], e.At()) }

// Receive stamps a batch with when its events arrived and happened. A device's events never go
// back before its own, which heard knows.
func (a Arrival) Receive(heard Heard, batch []Event) []Event {
	last := maps.Clone(heard)
	if last == nil {
		last = Heard{}
	}
	offset := a.offset(batch)
	floor := int64(0)
	if a.SentMS == 0 {
		floor = a.NowMS - longestAway
	}
	out := make([]Event, len(batch))
	for i, e := range batch {
		e.ReceivedMS, e.Clock = a.NowMS, ""
		shift := int64(0)
		if abs(offset[e.Device]) > clockTolerance {
			shift = offset[e.Device]
		}
		at := min(a.NowMS, max(floor, last[e.Device], e.DeviceMS+shift))
		switch {
		case at < e.DeviceMS-clockTolerance:
			e.Clock = ClockAhead
		case at > e.DeviceMS+clockTolerance:
			e.Clock = ClockBehind
		}
		e.HappenedMS = max(1, at)
		last[e.Device] = at
		out[i] = e
	}
	return out
}

// offset is what to add to each device's clock: what it said when it sent, or,
// when it did not say, no more than its latest event is ahead, or its earliest longer
// ago than one is believed.
func (a Arrival) offset(batch []Event) map[string]int64 {
	first, latest := map[string]int64{}, map[string]int64{}
	for _, e := range batch {
		if f, ok := first[e.Device]; !ok || e.DeviceMS < f {
			first[e.Device] = e.DeviceMS
		}
		latest[e.Device] = max(latest[e.Device], e.DeviceMS)
	}
	out := map[string]int64{}
	for d, l := range latest {
		switch {
		case a.SentMS > 0:
			out[d] = a.NowMS - a.SentMS
		case l > a.NowMS, first[d] < a.NowMS-longestAway:
			out[d] = a.NowMS - l
		}
	}
	return out
}

// How a device's clock was off.
const (
	ClockAhead  = "ahead"
	ClockBehind = "behind"
	// ClockLong: a hold's log that is longer than the time since it began.
	ClockLong = "long"
)

func abs(n int64) int64 { return max(n, -n) }
