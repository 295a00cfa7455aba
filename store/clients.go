package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"
)

// ErrStale: someone else changed the row since it was read.
var ErrStale = errors.New("changed by someone else meanwhile")

// Client is a person who is treated.
type Client struct {
	ID         uuid.UUID       `db:"id"`
	GivenName  string          `db:"given_name"`
	FamilyName string          `db:"family_name"`
	BornOn     sql.NullTime    `db:"born_on"`
	HeightCM   sql.NullFloat64 `db:"height_cm"`
	Work       string          `db:"work"`
	Complaint  string          `db:"complaint"`
	Cautions   textList        `db:"cautions"`
	Revision   int64           `db:"revision"`
	LastVisit  sql.NullTime    `db:"last_visit"`
	Visits     int             `db:"visits"`
}

// textList reads a text[] that the query gives as JSON; database/sql has no
// arrays of its own.
type textList []string

// Scan implements sql.Scanner.
func (l *textList) Scan(v any) error {
	s, ok := v.(string)
	if !ok {
		return fmt.Errorf("a list of texts came as %T", v)
	}
	return json.Unmarshal([]byte(s), (*[]string)(l))
}

const clientColumns = `c.id, c.given_name, c.family_name, c.born_on, c.height_cm, c.work, c.complaint, to_json(c.cautions)::text as cautions, c.revision,
	(select max(v.starts_at) from visit v where v.client_id = c.id and v.opened_at is not null) as last_visit,
	(select count(*) from visit v where v.client_id = c.id and v.opened_at is not null) as visits`

// Clients lists by name those whose name holds the text.
func (t *Tx) Clients(ctx context.Context, text string) ([]Client, error) {
	out := []Client{}
	err := t.tx.SelectContext(ctx, &out, `select `+clientColumns+` from client c
		where $1 = '' or c.given_name || ' ' || c.family_name ilike '%' || replace(replace(replace($1, '\', '\\'), '%', '\%'), '_', '\_') || '%'
		order by c.family_name, c.given_name, c.id limit 200`, text)
	return out, found("listing clients", err)
}

// Client gives one.
func (t *Tx) Client(ctx context.Context, id uuid.UUID) (Client, error) {
	var c Client
	err := t.tx.GetContext(ctx, &c, `select `+clientColumns+` from client c where c.id = $1`, id)
	return c, found("reading a client", err)
}

// PutClient makes a client, or changes one whose revision is the one read.
// Making the same client twice is the same as once.
func (t *Tx) PutClient(ctx context.Context, c Client) error {
	if c.Revision == 0 {
		_, err := t.tx.ExecContext(ctx, `insert into client (practice_id, id, given_name, family_name, born_on, height_cm, work, complaint, cautions)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9) on conflict (practice_id, id) do nothing`,
			t.who.Practice, c.ID, c.GivenName, c.FamilyName, c.BornOn, c.HeightCM, c.Work, c.Complaint, append([]string{}, c.Cautions...))
		return found("registering a client", err)
	}
	r, err := t.tx.ExecContext(ctx, `update client set given_name = $3, family_name = $4, born_on = $5, height_cm = $6, work = $7, complaint = $8, cautions = $9, revision = revision + 1
		where id = $1 and revision = $2`,
		c.ID, c.Revision, c.GivenName, c.FamilyName, c.BornOn, c.HeightCM, c.Work, c.Complaint, append([]string{}, c.Cautions...))
	if err != nil {
		return found("changing a client", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrStale)
	}
	return nil
}

// Visit is one appointment and what became of it.
type Visit struct {
	ID         uuid.UUID    `db:"id"`
	ClientID   uuid.UUID    `db:"client_id"`
	Therapist  uuid.UUID    `db:"therapist_id"`
	StartsAt   time.Time    `db:"starts_at"`
	Minutes    int          `db:"minutes"`
	Reason     string       `db:"reason"`
	Version    int64        `db:"version"`
	OpenedAt   sql.NullTime `db:"opened_at"`
	ClosedAt   sql.NullTime `db:"closed_at"`
	GivenName  string       `db:"given_name"`
	FamilyName string       `db:"family_name"`
	By         string       `db:"therapist_name"`
}

const visitColumns = `v.id, v.client_id, v.therapist_id, v.starts_at, v.minutes, v.reason, v.version, v.opened_at, v.closed_at,
	c.given_name, c.family_name, p.name as therapist_name
	from visit v join client c on c.practice_id = v.practice_id and c.id = v.client_id join person p on p.practice_id = v.practice_id and p.id = v.therapist_id`

// VisitsBetween lists visits that start in [from, to).
func (t *Tx) VisitsBetween(ctx context.Context, from, to time.Time) ([]Visit, error) {
	out := []Visit{}
	err := t.tx.SelectContext(ctx, &out, `select `+visitColumns+` where v.starts_at >= $1 and v.starts_at < $2 order by v.starts_at, v.id`, from, to)
	return out, found("listing the day", err)
}

// VisitsOf lists a client's visits, oldest first.
func (t *Tx) VisitsOf(ctx context.Context, client uuid.UUID) ([]Visit, error) {
	out := []Visit{}
	err := t.tx.SelectContext(ctx, &out, `select `+visitColumns+` where v.client_id = $1 order by v.starts_at, v.id`, client)
	return out, found("listing visits", err)
}

// Visit gives one.
func (t *Tx) Visit(ctx context.Context, id uuid.UUID) (Visit, error) {
	var v Visit
	err := t.tx.GetContext(ctx, &v, `select `+visitColumns+` where v.id = $1`, id)
	return v, found("reading a visit", err)
}

// NewVisit books a visit; booking the same one twice is the same as once.
func (t *Tx) NewVisit(ctx context.Context, v Visit) error {
	_, err := t.tx.ExecContext(ctx, `insert into visit (practice_id, id, client_id, therapist_id, starts_at, minutes, reason)
		values ($1, $2, $3, $4, $5, $6, $7) on conflict (practice_id, id) do nothing`,
		t.who.Practice, v.ID, v.ClientID, v.Therapist, v.StartsAt, v.Minutes, v.Reason)
	return found("booking a visit", err)
}
