package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/ids"
	"mokren/store"
)

// PracticeSettings are the practice's own.
type PracticeSettings struct {
	CopyHours   int `json:"copy_hours" minimum:"0" maximum:"168" doc:"how long a device may keep copies of visits; 0: none"`
	IdleMinutes int `json:"idle_minutes" minimum:"0" maximum:"240" doc:"a device left so long signs itself out; 0: never"`
	// Protocol is what a point is treated by where nothing speaks for another.
	Protocol ids.Protocol `json:"protocol"`
	// How things are written; the record stays metric.
	Units      string   `json:"units" enum:"metric,imperial"`
	ClockHours int      `json:"clock_hours" enum:"12,24"`
	WeekStarts int      `json:"week_starts" enum:"0,1,6" doc:"0 Sunday, 1 Monday, 6 Saturday"`
	Rooms      []string `json:"rooms,omitempty" maxItems:"20"`
	Emergency  string   `json:"emergency_number,omitempty" maxLength:"30" doc:"called for urgent medical care"`
}

func (s *server) registerSettings(a huma.API) {
	huma.Register(a, op("put-practice-settings", http.MethodPut, "/api/practice", "Keep the practice's settings",
		401, 403, 422), s.putSettings)
}

func (s *server) putSettings(
	ctx context.Context, in *struct{ Body PracticeSettings },
) (*oneOut[PracticeSettings], error) {
	who, err := s.principal(ctx)
	if err != nil {
		return nil, err
	}
	what := action("write", "practice", who.Practice.String())
	return one(ctx, s, what, func(tx *store.Tx) (PracticeSettings, error) {
		if err := tx.PutSettings(ctx, in.Body.stored()); err != nil {
			return PracticeSettings{}, err
		}
		saved, err := tx.Settings(ctx)
		return settingsOut(saved), err
	})
}

func (p PracticeSettings) stored() store.Settings {
	return store.Settings{
		CopyHours: p.CopyHours, IdleMinutes: p.IdleMinutes, Protocol: p.Protocol,
		Units: p.Units, ClockHours: p.ClockHours,
		WeekStarts: p.WeekStarts,
		Rooms:      p.Rooms, Emergency: p.Emergency,
	}
}

func settingsOut(s store.Settings) PracticeSettings {
	return PracticeSettings{
		CopyHours: s.CopyHours, IdleMinutes: s.IdleMinutes, Protocol: s.Protocol,
		Units: s.Units, ClockHours: s.ClockHours,
		WeekStarts: s.WeekStarts,
		Rooms:      append([]string{}, s.Rooms...), Emergency: s.Emergency,
	}
}
