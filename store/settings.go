package store

import (
	"context"

	"mokren/core/ids"
)

// Letterhead is how a practice is named and reached, on everything that leaves it.
type Letterhead struct {
	Name      string `db:"name"`
	Address   string `db:"address"` // on lines of its own
	Telephone string `db:"telephone"`
	Hours     string `db:"opening_hours"`
	Logo      string `db:"logo_text"` // printed large; empty is the name
}

// Letterhead gives the practice's.
func (t *Tx) Letterhead(ctx context.Context) (Letterhead, error) {
	var l Letterhead
	err := t.tx.GetContext(ctx, &l, `select name, address, telephone, opening_hours, logo_text from practice`)
	return l, found("reading how the practice is reached", err)
}

// PutLetterhead keeps the practice's.
func (t *Tx) PutLetterhead(ctx context.Context, l Letterhead) error {
	_, err := t.tx.ExecContext(ctx, `update practice set name = $1, address = $2, telephone = $3, opening_hours = $4,
		logo_text = $5`, l.Name, l.Address, l.Telephone, l.Hours, l.Logo)
	return found("keeping how the practice is reached", err)
}

// Settings of a practice.
type Settings struct {
	// CopyHours is how long a tablet may keep a copy of a visit; 0 is not at all.
	CopyHours int `db:"copy_hours"`
	// IdleMinutes is how long a device may lie idle before it signs itself out; 0 is
	// never.
	IdleMinutes int `db:"idle_minutes"`
	// Protocol is what a point is treated by where nothing speaks for another.
	Protocol ids.Protocol `db:"protocol"`
	// Units (metric, imperial), ClockHours (12, 24) and WeekStarts (0 Sunday, 1 Monday,
	// 6 Saturday) are how things are written; the record stays metric.
	Units      string   `db:"units"`
	ClockHours int      `db:"clock_hours"`
	WeekStarts int      `db:"week_starts"`
	Rooms      textList `db:"rooms"`
	// Emergency is the number that is called for urgent medical care.
	Emergency string `db:"emergency_number"`
}

// Settings gives the practice's.
func (t *Tx) Settings(ctx context.Context) (Settings, error) {
	var s Settings
	err := t.tx.GetContext(ctx, &s, `select copy_hours, idle_minutes, protocol, units, clock_hours, week_starts, emergency_number,
		to_json(rooms)::text as rooms from practice`)
	return s, found("reading the practice's settings", err)
}

// PutSettings keeps the practice's.
func (t *Tx) PutSettings(ctx context.Context, s Settings) error {
	_, err := t.tx.ExecContext(ctx, `update practice set copy_hours = $1, protocol = $2, units = $3,
		clock_hours = $4, week_starts = $5, rooms = $6, idle_minutes = $7,
		emergency_number = coalesce(nullif($8, ''), emergency_number)`, s.CopyHours, s.Protocol, s.Units,
		s.ClockHours, s.WeekStarts, append([]string{}, s.Rooms...), s.IdleMinutes, s.Emergency)
	return found("keeping the practice's settings", err)
}
