package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"
)

// Client is a person who is treated.
type Client struct {
	// ID is made on the device that registers, so that it can be done offline.
	ID         uuid.UUID `db:"id"`
	GivenName  string    `db:"given_name"`
	FamilyName string    `db:"family_name"`
	// BornOn decides what age asks of the screening.
	BornOn sql.NullTime `db:"born_on"`
	// BornWas is the birth date before a change that no licensed person has confirmed.
	BornWas sql.NullTime `db:"born_was"`
	// HeightCM turns the figure's units into cm; without it 170 is taken.
	HeightCM  sql.NullFloat64 `db:"height_cm"`
	Work      string          `db:"work"`
	Complaint string          `db:"complaint"`
	// Cautions are the practice's own words, shown at every visit.
	Cautions textList `db:"cautions"`
	// Hand is the dominant one: left, right, both, or empty.
	Hand  string `db:"dominant_hand"`
	Phone string `db:"phone"`
	Email string `db:"email"`
	// Emergency is whom to call; Guardian who consents for somebody under age.
	Emergency string `db:"emergency_contact"`
	Guardian  string `db:"guardian"`
	// Archived clients are kept and not treated.
	Archived sql.NullTime `db:"archived_at"`
	// LegalHold is why the record may not be erased.
	LegalHold string `db:"legal_hold"`
	// BornConfirmed: whoever writes says that the birth date is right.
	BornConfirmed bool `db:"-"`
	// Revision that the writer has seen; another one is a conflict.
	Revision int64 `db:"revision"`
	// LastVisit and Visits are read for lists only.
	LastVisit sql.NullTime `db:"last_visit"`
	Visits    int          `db:"visits"`
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

const clientColumns = `c.id, c.given_name, c.family_name, c.born_on, c.born_was, c.height_cm, c.work, c.complaint,
	to_json(c.cautions)::text as cautions, c.dominant_hand, c.phone, c.email, c.emergency_contact, c.guardian,
	c.archived_at, c.legal_hold, c.revision,
	(select max(v.starts_at) from visit v where v.client_id = c.id and v.opened_at is not null) as last_visit,
	(select count(*) from visit v where v.client_id = c.id and v.opened_at is not null) as visits`

// mostFound is how many a search gives: whoever is not among them types on.
const mostFound = 20

// Clients lists those whose name begins with the text, holds it or is like it, the
// likest first, or who were born on a day; archived ones only when asked for. An empty
// text lists all by name.
func (t *Tx) Clients(ctx context.Context, text string, born sql.NullTime, archived bool) ([]Client, error) {
	out := []Client{}
	from, order, args := `client c where (c.archived_at is not null) = $1`, `c.family_name, c.given_name, c.id`, []any{archived}
	switch {
	case born.Valid:
		from, args = from+` and c.born_on = $2`, append(args, born)
	case text != "":
		from = `(select client_id, max(likeness) as likeness from client_search($2, $1, $3) group by 1) s
			join client c on c.id = s.client_id`
		order, args = `s.likeness desc, `+order, append(args, text, mostFound)
	}
	err := t.tx.SelectContext(ctx, &out, `select `+clientColumns+` from `+from+` order by `+order+` limit 200`, args...)
	return out, found("listing clients", err)
}

// Everyone gives all clients, put away or not, by name.
func (t *Tx) Everyone(ctx context.Context) ([]Client, error) {
	out := []Client{}
	err := t.tx.SelectContext(ctx, &out,
		`select id, given_name, family_name, born_on from client order by family_name, given_name, id`)
	return out, found("listing everyone", err)
}

// Alike lists clients who may be the same person: a like name, more loosely
// when born on the same day.
func (t *Tx) Alike(ctx context.Context, c Client) ([]Client, error) {
	out := []Client{}
	err := t.tx.SelectContext(ctx, &out, `select `+clientColumns+` from client c
		where c.id <> $1 and (similarity(c.given_name || ' ' || c.family_name, $2) >= 0.55
			or c.born_on = $3 and similarity(c.given_name || ' ' || c.family_name, $2) >= 0.2)
		order by similarity(c.given_name || ' ' || c.family_name, $2) desc, c.id limit 5`, c.ID,
		c.GivenName+" "+c.FamilyName, c.BornOn)
	return out, found("looking for possible duplicates", err)
}

// ArchiveClient puts a client away, or brings one back.
func (t *Tx) ArchiveClient(ctx context.Context, id uuid.UUID, archived bool) error {
	t.touch(id)
	r, err := t.tx.ExecContext(ctx,
		`update client set archived_at = case when $2 then coalesce(archived_at, now()) end, revision = revision + 1
			where id = $1`, id, archived)
	if err != nil {
		return found("archiving a client", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNotFound)
	}
	return nil
}

// Client gives one.
func (t *Tx) Client(ctx context.Context, id uuid.UUID) (Client, error) {
	var c Client
	err := t.tx.GetContext(ctx, &c, `select `+clientColumns+` from client c where c.id = $1`, id)
	if err == nil {
		t.touch(id)
	}
	return c, found("reading a client", err)
}

// bornWas keeps the birth date before a change until a licensed person confirms it: by
// changing it, or by saying so. Going back to it confirms it too.
const bornWas = `born_was = case
		when $15 and (born_on is distinct from $5 or $16) or $5 = born_was then null
		when born_on is distinct from $5 then coalesce(born_was, born_on)
		else born_was end`

// PutClient makes a client, or changes one whose revision is the one read.
// Making the same client twice is the same as once; other content under the id,
// or an older revision, is a *Conflict with what is stored.
func (t *Tx) PutClient(ctx context.Context, c Client) error {
	t.touch(c.ID)
	cautions := append([]string{}, c.Cautions...)
	if c.Revision == 0 {
		return t.newClient(ctx, c, cautions)
	}
	r, err := t.tx.ExecContext(ctx, `update client set given_name = $3, family_name = $4, born_on = $5, height_cm = $6,
		work = $7, complaint = $8, cautions = $9, dominant_hand = $10, phone = $11, email = $12,
		emergency_contact = $13, guardian = $14, revision = revision + 1, `+bornWas+`
		where id = $1 and revision = $2`,
		c.ID, c.Revision, c.GivenName, c.FamilyName, c.BornOn, c.HeightCM, c.Work, c.Complaint, cautions, c.Hand,
		c.Phone, c.Email, c.Emergency, c.Guardian, t.who.Role.Licensed(), c.BornConfirmed)
	if err != nil {
		return found("changing a client", err)
	}
	if n, err := r.RowsAffected(); err != nil || n > 0 {
		return err
	}
	stored, err := t.Client(ctx, c.ID)
	if err != nil {
		return err
	}
	return &Conflict{stored}
}

// newClient adds one, but not under the id of a record that was erased: its links would come
// alive again.
func (t *Tx) newClient(ctx context.Context, c Client, cautions []string) error {
	if err := t.notErased(ctx, c.ID.String()); err != nil {
		return err
	}
	r, err := t.tx.ExecContext(ctx, `insert into client (practice_id, id, given_name, family_name, born_on, height_cm,
		work, complaint, cautions, dominant_hand, phone, email, emergency_contact, guardian)
		values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14) on conflict (practice_id, id) do nothing`,
		t.who.Practice, c.ID, c.GivenName, c.FamilyName, c.BornOn, c.HeightCM, c.Work, c.Complaint, cautions, c.Hand,
		c.Phone, c.Email, c.Emergency, c.Guardian)
	if err != nil {
		return found("registering a client", err)
	}
	if n, err := r.RowsAffected(); err != nil || n > 0 {
		return err
	}
	stored, err := t.Client(ctx, c.ID)
	if err != nil {
		return err
	}
	if !stored.same(c) {
		return &Conflict{stored}
	}
	return nil
}

// same compares what is typed of a client.
func (c Client) same(o Client) bool {
	return c.GivenName == o.GivenName && c.FamilyName == o.FamilyName && c.BornOn.Valid == o.BornOn.Valid &&
		c.BornOn.Time.Equal(o.BornOn.Time) && c.HeightCM == o.HeightCM && c.Work == o.Work &&
		c.Complaint == o.Complaint && slices.Equal(c.Cautions, o.Cautions) && c.Hand == o.Hand &&
		c.Phone == o.Phone && c.Email == o.Email && c.Emergency == o.Emergency && c.Guardian == o.Guardian
}

// WithClinical takes what is clinical from another.
func (c Client) WithClinical(o Client) Client {
	c.Complaint, c.Work, c.Cautions, c.HeightCM, c.Hand = o.Complaint, o.Work, o.Cautions, o.HeightCM, o.Hand
	return c
}

// Visit is one appointment and what became of it.
type Visit struct {
	ID       uuid.UUID `db:"id"`
	ClientID uuid.UUID `db:"client_id"`
	// Therapist that it is booked with; whoever opens it may be another.
	Therapist uuid.UUID `db:"therapist_id"`
	// StartsAt is an instant; what day it is the practice's time zone decides.
	StartsAt time.Time `db:"starts_at"`
	Minutes  int       `db:"minutes"`
	Reason   string    `db:"reason"`
	// Version counts the events of its log.
	Version int64 `db:"version"`
	// OpenedAt and ClosedAt are of the log, not of the appointment.
	OpenedAt   sql.NullTime `db:"opened_at"`
	ClosedAt   sql.NullTime `db:"closed_at"`
	GivenName  string       `db:"given_name"`
	FamilyName string       `db:"family_name"`
	By         string       `db:"therapist_name"`
	Room       string       `db:"room"`
	// Status is booked, cancelled or no-show.
	Status string `db:"status"`
	// Series joins appointments that were booked together.
	Series uuid.NullUUID `db:"series"`
	// SignedAt is when its note was signed.
	SignedAt sql.NullTime `db:"signed_at"`
	Revision int64        `db:"revision"`
	// tablesSum are the checksums of its tables, of a visit that is locked.
	tablesSum []byte
}

const visitColumns = `v.id, v.client_id, v.therapist_id, v.starts_at, v.minutes, v.reason, v.version, v.opened_at,
	v.closed_at, v.room, v.status, v.series, v.signed_at, v.revision,
	c.given_name, c.family_name, p.name as therapist_name
	from visit v join client c on c.practice_id = v.practice_id and c.id = v.client_id
	join person p on p.practice_id = v.practice_id and p.id = v.therapist_id`

// VisitsBetween lists visits that start in [from, to).
func (t *Tx) VisitsBetween(ctx context.Context, from, to time.Time) ([]Visit, error) {
	out := []Visit{}
	err := t.tx.SelectContext(ctx, &out,
		`select `+visitColumns+` where v.starts_at >= $1 and v.starts_at < $2 order by v.starts_at, v.id`, from, to)
	return out, found("listing the day", err)
}

// VisitsOf lists a client's visits, oldest first.
func (t *Tx) VisitsOf(ctx context.Context, client uuid.UUID) ([]Visit, error) {
	out := []Visit{}
	err := t.tx.SelectContext(ctx, &out, `select `+visitColumns+` where v.client_id = $1 order by v.starts_at, v.id`,
		client)
	return out, found("listing visits", err)
}

// lately is how many opened visits the course of a client shows at first,
// beside the first one: four months of weekly care.
const lately = 16

// VisitsLately lists a client's first opened visit, the latest ones, and those
// that were not opened, oldest first.
func (t *Tx) VisitsLately(ctx context.Context, client uuid.UUID) ([]Visit, error) {
	out := []Visit{}
	err := t.tx.SelectContext(ctx, &out, `select `+visitColumns+` where v.id in (
			(select id from visit where client_id = $1 and opened_at is not null order by starts_at desc limit $2)
			union (select id from visit where client_id = $1 and opened_at is not null order by starts_at limit 1)
			union (select id from visit where client_id = $1 and opened_at is null))
		order by v.starts_at, v.id`, client, lately)
	return out, found("listing a client's latest visits", err)
}

// Visit gives one.
func (t *Tx) Visit(ctx context.Context, id uuid.UUID) (Visit, error) {
	var v Visit
	err := t.tx.GetContext(ctx, &v, `select `+visitColumns+` where v.id = $1`, id)
	if err == nil {
		t.touch(v.ClientID)
	}
	return v, found("reading a visit", err)
}

// NewVisit books a visit; booking the same one twice is the same as once, and
// another one under its id is a *Conflict with the visit that is stored.
func (t *Tx) NewVisit(ctx context.Context, v Visit) error {
	t.touch(v.ClientID)
	r, err := t.tx.ExecContext(ctx, `insert into visit (practice_id, id, client_id, therapist_id, starts_at, minutes,
		reason)
		values ($1, $2, $3, $4, $5, $6, $7) on conflict (practice_id, id) do nothing`,
		t.who.Practice, v.ID, v.ClientID, v.Therapist, v.StartsAt, v.Minutes, v.Reason)
	if err != nil {
		return found("booking a visit", err)
	}
	if n, err := r.RowsAffected(); err != nil || n > 0 {
		return err
	}
	stored, err := t.Visit(ctx, v.ID)
	if err != nil {
		return err
	}
	// The reason is the log's to change once the visit was opened.
	sameReason := stored.OpenedAt.Valid || stored.Reason == v.Reason
	if stored.ClientID != v.ClientID || stored.Therapist != v.Therapist || !stored.StartsAt.Equal(v.StartsAt) ||
		stored.Minutes != v.Minutes || !sameReason {
		return &Conflict{stored}
	}
	return nil
}
