package exchange

import (
	"encoding/json"
	"time"

	"mokren/core/visit"
)

// Measure is one value of a visit that comes from elsewhere.
type Measure struct {
	Movement, Side, Moment string // of a range; without a movement it is the pain now
	Value                  float64
}

// ReadWords makes a visit of values from elsewhere: opened, measured and closed by
// whoever takes it in, so that every value stands in a log like any other.
func ReadWords(v ArchiveVisit, author visit.UUID, list []Measure) ArchiveVisit {
	v.Therapist = author
	v.Events = nil
	device := newID()
	at := v.Starts().UnixMilli()
	add := func(kind string, body any) {
		raw, err := json.Marshal(body)
		if err != nil {
			return // bodies of our own always marshal
		}
		n := int64(len(v.Events) + 1)
		v.Events = append(v.Events, visit.Event{
			ID: string(newID()), Client: string(v.Client), Visit: string(v.ID), Author: string(author),
			Device: string(device), Seq: n, DeviceMS: at + n*1000, HappenedMS: at + n*1000, Schema: visit.SchemaVersion,
			Type: kind, Body: raw,
		})
	}
	add("visit-opened", map[string]any{"reason": v.Reason})
	for _, m := range list {
		if m.Movement == "" {
			add("interview-noted", map[string]any{"now": m.Value})
			continue
		}
		add("range-measured", map[string]any{
			"movement": m.Movement, "side": m.Side, "moment": m.Moment, "active_deg": m.Value,
		})
	}
	add("visit-closed", struct{}{})
	return v
}

// OnDay is a visit at noon of a day by a practice's clock.
func OnDay(client visit.UUID, day time.Time, zone *time.Location) ArchiveVisit {
	noon := time.Date(day.Year(), day.Month(), day.Day(), 12, 0, 0, 0, zone)
	return ArchiveVisit{
		ID: newID(), Client: client, StartsAt: noon.UTC().Format(time.RFC3339Nano), Minutes: 60, Reason: "Taken in",
	}
}
