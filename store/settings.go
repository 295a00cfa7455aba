package store

import (
	"context"

	"mokren/core/ids"
)

// Settings of a practice.
type Settings struct {
	// CopyHours is how long a tablet may keep a copy of a visit; 0 is not at all.
	CopyHours int `db:"copy_hours"`
	// Protocol is the school that a point gets where nothing speaks for another.
	Protocol ids.Protocol `db:"protocol"`
}

// Settings gives the practice's.
func (t *Tx) Settings(ctx context.Context) (Settings, error) {
	var s Settings
	err := t.tx.GetContext(ctx, &s, `select copy_hours, protocol from practice`)
	return s, found("reading the practice's settings", err)
}

// PutSettings keeps the practice's.
func (t *Tx) PutSettings(ctx context.Context, s Settings) error {
	_, err := t.tx.ExecContext(ctx, `update practice set copy_hours = $1, protocol = $2`, s.CopyHours, s.Protocol)
	return found("keeping the practice's settings", err)
}
