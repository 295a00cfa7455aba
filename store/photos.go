package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"
)

// Photo is a posture photograph without its pixels.
type Photo struct {
	ID       uuid.UUID `db:"id"`
	Client   uuid.UUID `db:"client_id"`
	Visit    uuid.UUID `db:"visit_id"`
	View     string    `db:"view"`
	Width    int       `db:"width"`
	Height   int       `db:"height"`
	Marks    []byte    `db:"marks"` // JSON: what was marked
	Revision int64     `db:"revision"`
	At       time.Time `db:"starts_at"` // of its visit
}

const photoColumns = `p.id, p.client_id, p.visit_id, p.view, p.width, p.height, p.marks, p.revision, v.starts_at
	from photo p join visit v on v.practice_id = p.practice_id and v.id = p.visit_id`

// PutPhoto keeps a photograph; the same one again is the same as once, and
// brings a removed one back. Another one under its id is a *Conflict with the
// Photo that is stored.
func (t *Tx) PutPhoto(ctx context.Context, p Photo, jpeg, thumb []byte) error {
	t.touch(p.Client)
	r, err := t.tx.ExecContext(ctx, `insert into photo (practice_id, id, client_id, visit_id, view, width, height, jpeg,
		thumb, person_id)
		values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
		on conflict (practice_id, id) do update set removed_at = null
		where photo.visit_id = excluded.visit_id and photo.view = excluded.view and photo.jpeg = excluded.jpeg`,
		t.who.Practice, p.ID, p.Client, p.Visit, p.View, p.Width, p.Height, jpeg, thumb, t.who.Person)
	if err != nil {
		return found("keeping a photograph", err)
	}
	if n, err := r.RowsAffected(); err != nil || n > 0 {
		return err
	}
	stored, err := t.Photo(ctx, p.ID)
	if err != nil {
		return err
	}
	return &Conflict{stored}
}

// Photos lists a client's photographs, the latest visit first.
func (t *Tx) Photos(ctx context.Context, client uuid.UUID) ([]Photo, error) {
	out := []Photo{}
	err := t.tx.SelectContext(ctx, &out,
		`select `+photoColumns+` where p.client_id = $1 and p.removed_at is null
			order by v.starts_at desc, p.view, p.added_at`, client)
	return out, found("listing photographs", err)
}

// Photo gives one, removed or not.
func (t *Tx) Photo(ctx context.Context, id uuid.UUID) (Photo, error) {
	var p Photo
	err := t.tx.GetContext(ctx, &p, `select `+photoColumns+` where p.id = $1`, id)
	if err == nil {
		t.touch(p.Client)
	}
	return p, found("reading a photograph", err)
}

// PhotoPixels gives the picture, or its thumbnail.
func (t *Tx) PhotoPixels(ctx context.Context, id uuid.UUID, small bool) ([]byte, error) {
	if _, err := t.Photo(ctx, id); err != nil {
		return nil, err
	}
	var b []byte
	err := t.tx.GetContext(ctx, &b, `select case when $2 then thumb else jpeg end from photo where id = $1`, id, small)
	return b, found("reading a photograph", err)
}

// MarkPhoto keeps what was marked on a photograph whose revision is the one read.
func (t *Tx) MarkPhoto(ctx context.Context, id uuid.UUID, marks []byte, revision int64) error {
	r, err := t.tx.ExecContext(ctx,
		`update photo set marks = $2, revision = revision + 1 where id = $1 and revision = $3`, id, marks, revision)
	if err != nil {
		return found("marking a photograph", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrStale)
	}
	return nil
}

// RemovePhoto takes a photograph away, or brings it back.
func (t *Tx) RemovePhoto(ctx context.Context, id uuid.UUID, gone bool) error {
	r, err := t.tx.ExecContext(ctx, `update photo set removed_at = case when $2 then now() end where id = $1`, id, gone)
	if err != nil {
		return found("removing a photograph", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNotFound)
	}
	return nil
}
