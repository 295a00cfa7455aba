package visit_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/visit"
)

// Order keeps each device's sequence and takes the earliest of what is left of
// each, whatever order the events come in.
func TestOrderIsTheEarliestOfEachDevicesNext(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var events []visit.Event
		for i := range rapid.IntRange(0, 40).Draw(t, "n") {
			events = append(events, visit.Event{
				ID: uid(i), Device: rapid.SampledFrom([]string{"a", "b", "c"}).Draw(t, "device"), Seq: int64(i + 1),
				DeviceMS: rapid.Int64Range(0, 9).Draw(t, "ms"),
			})
		}
		mixed := rapid.Permutation(append(events, events...)).Draw(t, "mixed")
		got := visit.Order(mixed)
		require.Len(t, got, len(events))
		left := map[string][]visit.Event{}
		for _, e := range events {
			left[e.Device] = append(left[e.Device], e)
		}
		for _, e := range got {
			require.Equal(t, left[e.Device][0].ID, e.ID, "in its device's sequence")
			for _, l := range left {
				if len(l) > 0 {
					require.False(
						t,
						l[0].At() < e.At() || l[0].At() == e.At() && l[0].ID < e.ID,
						"an earlier one was left",
					)
				}
			}
			left[e.Device] = left[e.Device][1:]
		}
	})
}

// D11: ordering was quadratic in devices; a device for every event is the worst
// case. Compare the two sizes of one run: ten times the events, little more
// than ten times the time.
func BenchmarkOrder(b *testing.B) {
	for _, n := range []int{1000, 10_000} {
		events := make([]visit.Event, n)
		for i := range events {
			events[i] = visit.Event{ID: uid(i), Device: fmt.Sprint(i), Seq: 1, DeviceMS: int64(i * 7919 % n)}
		}
		b.Run(fmt.Sprintf("%d devices", n), func(b *testing.B) {
			for b.Loop() {
				visit.Order(events)
			}
		})
	}
}

// A visit as long as they get, replayed at every touch: twelve holds of twenty
// events each, judged before and still unsent.
func BenchmarkReduce(b *testing.B) {
	l := &log{}
	l.agree("a")
	for h := range 12 {
		l.add("a", "point-charted", 0, charted(500+h, "soleus"))
		l.add("a", "hold-started", 0, started(600+h, 500+h, "soleus"))
		for i := range 20 {
			l.add("a", "hold-event", 0, happened(600+h, int64(i)*1000, "score", 6))
		}
	}
	stored := judged(visit.Today(), asked(), l.events)
	for name, events := range map[string][]visit.Event{"stored": stored, "unsent": l.events} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				visit.Reduce(asked(), events)
			}
		})
	}
}

// An event of a hold taken in by a visit that goes on: in its first minute and after 2,000 others.
func BenchmarkAdmit(b *testing.B) {
	for _, before := range []int{20, 2000} {
		l := &log{}
		l.agree("a")
		l.add("a", "point-charted", 0, charted(500, "soleus"))
		l.add("a", "hold-started", 0, started(600, 500, "soleus"))
		for i := range before {
			l.add("a", "hold-event", 0, happened(600, int64(i), "score", 3+i%4))
		}
		kept := judged(visit.Today(), asked(), l.events)
		l.add("a", "hold-event", 0, happened(600, 10_000, "score", 5))
		next := l.events[len(l.events)-1]
		b.Run(fmt.Sprintf("after %d", before), func(b *testing.B) {
			o := visit.Today().Ongoing(asked(), kept)
			s := o.State()
			for b.Loop() {
				next.ID, next.Version = uid(1_000_000+int(next.Seq)), next.Version+1
				next.Seq++
				o.Admit(next)
				s = o.State()
				s.LeftOff()
			}
		})
	}
}
