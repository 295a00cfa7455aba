package store

import "context"

// Settings of a practice.
type Settings struct {
	// CopyHours is how long a tablet may keep a copy of a visit; 0 is not at all.
	CopyHours int `db:"copy_hours"`
}

// Settings gives the practice's.
func (t *Tx) Settings(ctx context.Context) (Settings, error) {
	var s Settings
	err := t.tx.GetContext(ctx, &s, `select copy_hours from practice`)
	return s, found("reading the practice's settings", err)
}

// PutSettings keeps the practice's.
func (t *Tx) PutSettings(ctx context.Context, s Settings) error {
	_, err := t.tx.ExecContext(ctx, `update practice set copy_hours = $1`, s.CopyHours)
	return found("keeping the practice's settings", err)
}
