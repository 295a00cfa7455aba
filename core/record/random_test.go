package record_test

import (
	"flag"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/record/recordtest"
	"mokren/core/safety"
)

const (
	minute = int64(60_000)
	day    = int64(86_400_000)
)

// person is somebody of a history; a client answers by the hand of who takes it in.
type person struct {
	name     string
	licensed bool
}

// history is a random life of a client's record: visits in any order, devices that send
// late and whose clocks are off, people who join and leave, and holds that are tried.
type history struct {
	*rand.Rand
	recordtest.Model
	record   *record.Record
	now      int64
	versions map[string]int64
	seq      map[string]int64
	said     map[string]int64 // by device: it never goes back
	people   []person
	n        int
	gone     map[string]bool // events that were taken back
	past     record.Past
}

func newHistory(seed uint64) *history {
	r := rand.New(rand.NewPCG(seed, 25))
	h := &history{
		Rand: r, now: 1_800_000_000_000 + r.Int64N(day), versions: map[string]int64{}, seq: map[string]int64{},
		said: map[string]int64{}, gone: map[string]bool{},
		people: []person{{"holt", true}, {"brand", true}, {"lund", false}},
	}
	h.Client.Born = [][]string{nil, {"1980-02-29"}, {"2015-06-01"}, {"1980-02-29", "2015-06-01"}}[r.IntN(4)]
	h.record = record.New(h.Client, nil)
	return h
}

// stamp is of what a device says now, or said a while ago and sends now.
func (h *history) stamp() record.Stamp {
	p := h.people[h.IntN(len(h.people))]
	device := []string{"a", "b", "c"}[h.IntN(3)]
	visit := []string{"v1", "v2", "v3"}[h.IntN(3)]
	ago := []int64{0, 0, 0, minute, 3 * minute, 20 * minute, day, 100 * day}[h.IntN(8)]
	h.n++
	h.now += []int64{1, 1000, 40_000, 4 * minute, 60 * minute, day}[h.IntN(6)]
	h.seq[device]++
	said := max(h.now-ago, h.said[device])
	if h.IntN(3) > 0 {
		h.said[device] = said
	}
	return record.Stamp{
		Event: fmt.Sprint(h.n), Visit: visit, Author: p.name, Licensed: p.licensed, Device: device,
		Seq: h.seq[device], SaidMS: said, ArrivedMS: h.now, Version: h.versions[visit] + 1,
		Seen: h.Int64N(h.versions[visit] + 1),
	}
}

func (h *history) add(f record.Fact) {
	h.versions[f.Visit] = f.Version
	h.Facts = append(h.Facts, f)
	h.record.Add(f)
}

var (
	asked = []ids.Question{
		"fever", "recent-clot", "clot-breathless", "swollen-joint", "acute-muscle-tear", "recent-surgery",
		"anticoagulant", "varicose-veins", "open-skin", "first-visit", "minor", "pregnancy",
	}
	spots = []record.Spot{
		{Muscle: "soleus", Side: ids.Left, Where: []safety.Place{{Region: "lower-calf", Side: ids.Left}}},
		{Muscle: "soleus", Side: ids.Right, Where: []safety.Place{{Region: "lower-calf", Side: ids.Right}}},
		{Muscle: "splenius-capitis", Side: ids.Left, Where: []safety.Place{{Region: "posterior-neck", Side: ids.Left}}},
		{Muscle: "gluteus-maximus", Side: ids.Left, Where: []safety.Place{{Region: "buttock", Side: ids.Left}}},
	}
)

func pick[T any](h *history, list ...T) T { return list[h.IntN(len(list))] }

func (h *history) answer(q ids.Question) *record.Said {
	return &record.Said{
		Answer: safety.Answer{
			Question: q, Answer: pick(h, "yes", "no", "no", "unknown"), Side: pick[ids.Side](h, "", "left", "right"),
			Regions: pick(h, nil, []ids.Region{"lower-calf"}, []ids.Region{"lower-calf", "buttock"}),
			By:      pick(h, "", "", "therapist", "client"),
		},
		Corrects:   h.IntN(2) == 0,
		HappenedOn: pick(h, "", "", "2027-01-14", "2026-11-01"),
	}
}

// step lets one thing happen.
func (h *history) step() {
	at := h.stamp()
	f := record.Fact{Stamp: at}
	switch h.IntN(14) {
	case 0, 1, 2:
		f.Answer = h.answer(pick(h, asked...))
	case 3: // everything that stops a treatment is answered no, by one event
		for _, q := range safety.Questions() {
			if q.Grave() {
				f.Answer = &record.Said{Answer: safety.Answer{Question: q.ID, Answer: "no"}}
				h.add(f)
			}
		}
		return
	case 4, 5:
		f.Clearance = &record.Clearance{
			Question: pick(h, asked...), Side: pick[ids.Side](h, "", "", "left"),
			Basis: pick[record.Basis](h, "", "clinician", "resolved", "mistaken"),
		}
	case 6, 7:
		f.Consent = &record.Consent{
			Area: pick(h, safety.WholeVisit, safety.WholeVisit, "buttock"), Given: h.IntN(4) > 0,
			By: pick(h, "", "guardian", "guardian"),
		}
	case 8:
		f.Override = &record.Override{
			Point: pick(h, "p1", "p2"), Questions: pick(h, nil, []ids.Question{"varicose-veins", "open-skin"}),
		}
	case 9:
		f.Placed = pick(h, "p1", "p2")
	case 10:
		if len(h.Facts) == 0 {
			return
		}
		// An undo is of its own visit, and of what was not taken back already.
		if target := h.Facts[h.IntN(len(h.Facts))]; !h.gone[target.Event] {
			h.gone[target.Event] = true
			delete(h.gone, target.Undo)
			f.Undo, f.Visit, f.Version = target.Event, target.Visit, h.versions[target.Visit]+1
		}
	case 11:
		f.Opened = true
	case 12:
		h.Day.Signs = append(h.Day.Signs, record.PressedPlace{
			Spot: pick(h, spots...), Sign: pick(h, "nerve-sign", "nerve-sign", "pulse", "unwell", "skin-reaction"),
			AtMS: at.SaidMS,
		})
		return
	case 13: // somebody leaves, or comes back
		i := h.IntN(len(h.people))
		h.people[i].licensed = !h.people[i].licensed
		return
	}
	h.add(f)
}

// try asks both for a hold, and keeps one that begins.
func (h *history) try(t *testing.T, seed uint64) record.Reason {
	at, spot, point := h.stamp(), pick(h, spots...), pick(h, "p1", "p2")
	arriving := at
	arriving.Version = 0
	got := h.record.At(record.Query{Stamp: arriving}).Judge(h.Day).Refusal(spot, point)
	want := h.Admission(at, spot, point)
	require.Equal(t, string(want), string(got.Reason), "seed %d, %d facts: %s", seed, len(h.Facts), got.Text)
	// What a visit reads of the others comes to the same, with what was replaced left out.
	horizon := pick(h, at.SaidMS, at.SaidMS-day, at.SaidMS-30*day)
	// and so it does when the past is gone on with.
	var others []record.Fact
	others, h.past = h.past.Others(h.Client, h.Facts, at.Visit, horizon)
	pruned := record.New(h.Client, others)
	for _, f := range h.Facts {
		if f.Visit == at.Visit {
			pruned.Add(f)
		}
	}
	less := pruned.At(record.Query{Stamp: arriving}).Judge(h.Day).Refusal(spot, point)
	require.Equal(t, string(want), string(less.Reason), "seed %d, pruned", seed)
	if want == "" {
		h.add(record.Fact{Stamp: at, Held: true})
		for range 1 + h.IntN(2) { // or twice, in a visit that is not told of
			h.Day.Treated = append(h.Day.Treated, record.Treatment{Spot: spot, AtMS: at.SaidMS})
		}
	}
	return want
}

var histories = flag.Uint64("histories", 500, "random histories that are compared with the model")

// Every admission and its reason are those of the reference model.
func TestTheRecordIsItsModel(t *testing.T) {
	seen := map[record.Reason]int{}
	for seed := range *histories {
		h := newHistory(seed)
		for step := range 60 {
			if h.step(); step > 10 && step%4 == 0 {
				seen[h.try(t, seed)]++
			}
		}
	}
	t.Log(seen)
	for _, r := range []record.Reason{
		"", record.Closed, record.NoTreatment, record.NotAsked, record.TwiceAlready, record.Blocked, record.NoConsent,
		record.NotByGuardian,
	} {
		require.NotZero(t, seen[r], "the histories never come to %q", r)
	}
}
