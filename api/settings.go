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

// Letterhead is how the practice is named and reached: on aftercare sheets, prints and letters.
type Letterhead struct {
	Name      string `json:"name" minLength:"1" maxLength:"120" pattern:"\\S"`
	Address   string `json:"address,omitempty" maxLength:"400" doc:"on lines of its own"`
	Telephone string `json:"telephone,omitempty" maxLength:"40"`
	Hours     string `json:"opening_hours,omitempty" maxLength:"200"`
	Logo      string `json:"logo_text,omitempty" maxLength:"60" doc:"printed large; absent is the name"`
}

func (s *server) registerSettings(a huma.API) {
	huma.Register(a, op("letterhead", http.MethodGet, "/api/practice/letterhead",
		"How the practice is named and reached", 401), s.getLetterhead)
	huma.Register(a, op("put-letterhead", http.MethodPut, "/api/practice/letterhead",
		"Keep how the practice is named and reached", 401, 403, 422), s.putLetterhead)
	huma.Register(a, op("put-practice-settings", http.MethodPut, "/api/practice", "Keep the practice's settings",
		401, 403, 422), s.putSettings)
}

func (s *server) getLetterhead(ctx context.Context, _ *struct{}) (*oneOut[Letterhead], error) {
	return one(ctx, s, action("read", "practice", ""), func(tx *store.Tx) (Letterhead, error) {
		l, err := tx.Letterhead(ctx)
		return Letterhead(l), err
	})
}

func (s *server) putLetterhead(ctx context.Context, in *struct{ Body Letterhead }) (*oneOut[Letterhead], error) {
	who, err := s.principal(ctx)
	if err != nil {
		return nil, err
	}
	what := action("write", "practice", who.Practice.String())
	return one(ctx, s, what, func(tx *store.Tx) (Letterhead, error) {
		if err := tx.PutLetterhead(ctx, store.Letterhead(in.Body)); err != nil {
			return Letterhead{}, err
		}
		l, err := tx.Letterhead(ctx)
		return Letterhead(l), err
	})
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
