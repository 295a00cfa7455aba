package store

import (
	"context"
	"errors"
	"fmt"

	"github.com/google/uuid"
)

// AtlasNote is what a practice wrote about a muscle.
type AtlasNote struct {
	Muscle   string `db:"muscle"`
	Text     string `db:"text"`
	Revision int64  `db:"revision"`
	By       string `db:"by_name"`
}

// AtlasSite is a practice's own site, placed on the muscle of a figure.
type AtlasSite struct {
	ID       uuid.UUID `db:"id"`
	Muscle   string    `db:"muscle"`
	Name     string    `db:"name"`
	Figure   string    `db:"figure"`
	Fibre    int       `db:"fibre"`
	AlongPct float64   `db:"along_pct"`
	AcrossMM float64   `db:"across_mm"`
	Note     string    `db:"note"`
}

// AtlasNotes lists every note of the practice.
func (t *Tx) AtlasNotes(ctx context.Context) ([]AtlasNote, error) {
	out := []AtlasNote{}
	err := t.tx.SelectContext(ctx, &out, `select n.muscle, n.text, n.revision, p.name as by_name
		from atlas_note n join person p on p.practice_id = n.practice_id and p.id = n.person_id order by n.muscle`)
	return out, found("listing the practice's notes", err)
}

// AtlasSites lists the practice's own sites that were not removed.
func (t *Tx) AtlasSites(ctx context.Context) ([]AtlasSite, error) {
	out := []AtlasSite{}
	err := t.tx.SelectContext(ctx, &out,
		`select id, muscle, name, figure, fibre, along_pct, across_mm, note from atlas_site where removed_at is null
			order by muscle, name, id`)
	return out, found("listing the practice's sites", err)
}

// PutAtlasNote writes a note; revision is the one that was read, 0 for none.
func (t *Tx) PutAtlasNote(ctx context.Context, n AtlasNote) error {
	r, err := t.tx.ExecContext(ctx, `insert into atlas_note (practice_id, muscle, text, person_id) select $1, $2, $3,
		$4 where $5 = 0
		on conflict (practice_id, muscle) do nothing`, t.who.Practice, n.Muscle, n.Text, t.who.Person, n.Revision)
	if err != nil {
		return fmt.Errorf("writing a note: %w", err)
	}
	if k, _ := r.RowsAffected(); k == 1 {
		return nil
	}
	r, err = t.tx.ExecContext(ctx,
		`update atlas_note set text = $3, person_id = $4, revision = revision + 1, updated_at = now()
			where muscle = $1 and revision = $2`,
		n.Muscle, n.Revision, n.Text, t.who.Person)
	if err != nil {
		return fmt.Errorf("changing a note: %w", err)
	}
	if k, err := r.RowsAffected(); err != nil || k == 0 {
		return errors.Join(err, ErrStale)
	}
	return nil
}

// PutAtlasSite places, changes or brings back an own site.
func (t *Tx) PutAtlasSite(ctx context.Context, s AtlasSite) error {
	_, err := t.tx.ExecContext(ctx, `insert into atlas_site (practice_id, id, muscle, name, figure, fibre,
		along_pct, across_mm, note, person_id)
		values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
		on conflict (practice_id, id) do update set name = excluded.name, figure = excluded.figure, fibre = excluded.fibre,
		along_pct = excluded.along_pct, across_mm = excluded.across_mm,
			note = excluded.note, person_id = excluded.person_id, updated_at = now(), removed_at = null
			where atlas_site.muscle = excluded.muscle`,
		t.who.Practice, s.ID, s.Muscle, s.Name, s.Figure, s.Fibre, s.AlongPct, s.AcrossMM, s.Note, t.who.Person)
	return found("placing a site", err)
}

// RemoveAtlasSite takes an own site away; PutAtlasSite brings it back.
func (t *Tx) RemoveAtlasSite(ctx context.Context, muscle string, id uuid.UUID) error {
	r, err := t.tx.ExecContext(ctx,
		`update atlas_site set removed_at = now() where id = $1 and muscle = $2 and removed_at is null`, id, muscle)
	if err != nil {
		return fmt.Errorf("removing a site: %w", err)
	}
	if k, err := r.RowsAffected(); err != nil || k == 0 {
		return errors.Join(err, ErrNotFound)
	}
	return nil
}

// RestoreAtlas brings a muscle back to what was shipped.
func (t *Tx) RestoreAtlas(ctx context.Context, muscle string) error {
	if _, err := t.tx.ExecContext(ctx, `delete from atlas_note where muscle = $1`, muscle); err != nil {
		return fmt.Errorf("removing a note: %w", err)
	}
	_, err := t.tx.ExecContext(ctx,
		`update atlas_site set removed_at = now() where muscle = $1 and removed_at is null`, muscle)
	return found("removing a muscle's sites", err)
}
