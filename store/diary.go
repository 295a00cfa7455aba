package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"
)

// Booking is an appointment as it is to be.
type Booking struct {
	ID        uuid.UUID
	Client    uuid.UUID
	Therapist uuid.UUID
	StartsAt  time.Time
	// Minutes that it takes, by which clashes are found.
	Minutes int
	Reason  string
	// Room is one of the practice's; empty where none is taken.
	Room string
	// Series is what a repeated appointment belongs to.
	Series uuid.NullUUID
}

func (b Booking) ends() time.Time { return b.StartsAt.Add(time.Duration(b.Minutes) * time.Minute) }

// Clash is something that stands against a booking.
type Clash struct {
	// Kind: therapist, room or client where two overlap; spacing where a site was
	// pressed less than 48 hours before.
	Kind string
	At   time.Time
	Text string
}

// Spacing is how long a site rests that was pressed (handbook: never the same
// site deep within 48 h).
const Spacing = 48 * time.Hour

// Clashes are what stands against some bookings, also against one another.
func (t *Tx) Clashes(ctx context.Context, list []Booking) ([]Clash, error) {
	out := []Clash{}
	for i, b := range list {
		var rows []struct {
			Therapist bool      `db:"therapist"`
			Client    bool      `db:"client"`
			Room      bool      `db:"room"`
			StartsAt  time.Time `db:"starts_at"`
			Name      string    `db:"name"`
		}
		err := t.tx.SelectContext(ctx, &rows, `select v.therapist_id = $1 as therapist, v.client_id = $2 as client,
				$3 <> '' and v.room = $3 as room, v.starts_at, c.given_name || ' ' || c.family_name as name
			from visit v join client c on c.practice_id = v.practice_id and c.id = v.client_id
			where v.status = 'booked' and v.id <> $4 and v.starts_at < $6
				and v.starts_at > $5::timestamptz - interval '8 hours'
				and v.starts_at + v.minutes * interval '1 minute' > $5
				and (v.therapist_id = $1 or v.client_id = $2 or $3 <> '' and v.room = $3)
			order by v.starts_at, v.id`, b.Therapist, b.Client, b.Room, b.ID, b.StartsAt, b.ends())
		if err != nil {
			return nil, found("looking for clashes", err)
		}
		for _, r := range rows {
			kind := "room"
			switch {
			case r.Client:
				kind = "client"
			case r.Therapist:
				kind = "therapist"
			}
			out = append(out, Clash{kind, b.StartsAt, clashWords(kind, r.Name, b.Room)})
		}
		for _, o := range list[:i] {
			if o.StartsAt.Before(b.ends()) && b.StartsAt.Before(o.ends()) {
				out = append(out, Clash{"client", b.StartsAt, "Two appointments of the series overlap."})
			}
		}
		close, err := t.tooClose(ctx, b, list[:i])
		if err != nil {
			return nil, err
		}
		if close != "" {
			out = append(out, Clash{"spacing", b.StartsAt, close})
		}
	}
	return out, nil
}

// clashWords says who or what is taken, for whoever books.
func clashWords(kind, name, room string) string {
	switch kind {
	case "client":
		return name + " has another appointment then."
	case "therapist":
		return "The therapist is with " + name + " then."
	}
	return fmt.Sprintf("%s is taken by %s then.", room, name)
}

// tooClose tells which sites were pressed less than 48 hours before, and whether
// another appointment of the same client is as near.
func (t *Tx) tooClose(ctx context.Context, b Booking, others []Booking) (string, error) {
	for _, o := range others {
		if gap := b.StartsAt.Sub(o.StartsAt); gap > -Spacing && gap < Spacing {
			return "Less than 48 hours from another of the series: no site is pressed deep in both.", nil
		}
	}
	var muscles string
	err := t.tx.GetContext(ctx, &muscles, `select coalesce(string_agg(distinct replace(p.muscle, '-', ' ') || ', ' || p.side,
			'; '), '') from charted_point p
		where p.client_id = $1 and p.visit_id <> $2 and p.treated_ms > 0
			and abs(extract(epoch from $3::timestamptz) * 1000 - p.treated_ms) < $4`,
		b.Client, b.ID, b.StartsAt, Spacing.Milliseconds())
	if err != nil {
		return "", found("looking for what was pressed lately", err)
	}
	if muscles != "" {
		return "Pressed less than 48 hours before: " + muscles + ". These sites rest.", nil
	}
	var near bool
	err = t.tx.GetContext(ctx, &near, `select exists (select from visit where client_id = $1 and id <> $2
		and status = 'booked' and starts_at > $3::timestamptz - interval '48 hours'
		and starts_at < $3::timestamptz + interval '48 hours')`, b.Client, b.ID, b.StartsAt)
	if near {
		return "Another appointment lies less than 48 hours away: no site is pressed deep in both.", err
	}
	return "", found("looking for near appointments", err)
}

// Book books appointments, all or none.
func (t *Tx) Book(ctx context.Context, list []Booking) error {
	for _, b := range list {
		t.touch(b.Client)
		_, err := t.tx.ExecContext(ctx, `insert into visit (practice_id, id, client_id, therapist_id, starts_at, minutes,
			reason, room, series) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)
			on conflict (practice_id, id) do nothing`, t.who.Practice, b.ID, b.Client, b.Therapist, b.StartsAt, b.Minutes,
			b.Reason, b.Room, b.Series)
		if err != nil {
			return found("booking an appointment", err)
		}
	}
	return nil
}

// ErrBegun is an appointment that was begun already.
var ErrBegun = errors.New("the visit has begun")

// Rebook moves an appointment whose revision is the one read, or says what became
// of it. What was begun stays where it is.
func (t *Tx) Rebook(ctx context.Context, b Booking, status string, revision int64) error {
	v, err := t.Visit(ctx, b.ID)
	if err != nil {
		return err
	}
	if v.OpenedAt.Valid {
		return ErrBegun
	}
	r, err := t.tx.ExecContext(ctx, `update visit set therapist_id = $2, starts_at = $3, minutes = $4, room = $5,
		status = $6, reason = $7, revision = revision + 1 where id = $1 and revision = $8`, b.ID, b.Therapist, b.StartsAt,
		b.Minutes, b.Room, status, b.Reason, revision)
	if err != nil {
		return found("changing an appointment", err)
	}
	if n, err := r.RowsAffected(); err != nil || n > 0 {
		return err
	}
	return &Conflict{v}
}

// CancelSeries takes what is left of a series out of the diary.
func (t *Tx) CancelSeries(ctx context.Context, series uuid.UUID, from time.Time) (int64, error) {
	r, err := t.tx.ExecContext(ctx, `update visit set status = 'cancelled', revision = revision + 1
		where series = $1 and starts_at >= $2 and opened_at is null and status = 'booked'`, series, from)
	if err != nil {
		return 0, found("cancelling a series", err)
	}
	return r.RowsAffected()
}

// Waiting is a client who waits for an appointment.
type Waiting struct {
	ID     uuid.UUID `db:"id"`
	Client uuid.UUID `db:"client_id"`
	Name   string    `db:"name"`
	// Minutes that an appointment would take.
	Minutes int    `db:"minutes"`
	Note    string `db:"note"`
	// Since when; the list is in that order.
	Since time.Time `db:"since"`
}

// WaitingList lists who waits, the longest first.
func (t *Tx) WaitingList(ctx context.Context) ([]Waiting, error) {
	out := []Waiting{}
	err := t.tx.SelectContext(ctx, &out, `select w.id, w.client_id, c.given_name || ' ' || c.family_name as name, w.minutes,
			w.note, w.since from waiting w join client c on c.practice_id = w.practice_id and c.id = w.client_id
		where w.done_at is null order by w.since, w.id limit 200`)
	return out, found("reading the waiting list", err)
}

// PutWaiting puts a client on the list; the same one again changes it.
func (t *Tx) PutWaiting(ctx context.Context, w Waiting, done bool) error {
	t.touch(w.Client)
	_, err := t.tx.ExecContext(ctx, `insert into waiting (practice_id, id, client_id, minutes, note, done_at)
		values ($1, $2, $3, $4, $5, case when $6 then now() end)
		on conflict (practice_id, id) do update set minutes = excluded.minutes, note = excluded.note,
			done_at = excluded.done_at where waiting.client_id = excluded.client_id`,
		t.who.Practice, w.ID, w.Client, w.Minutes, w.Note, done)
	return found("changing the waiting list", err)
}

// NextVisitProposal is when a client is to come again, by the latest closed visit.
type NextVisitProposal struct {
	From *time.Time `db:"next_from"`
	To   *time.Time `db:"next_to"`
}

// ProposedNext reads it; empty without a closed visit.
func (t *Tx) ProposedNext(ctx context.Context, client uuid.UUID) (NextVisitProposal, error) {
	var p []NextVisitProposal
	err := t.tx.SelectContext(ctx, &p, `select next_from, next_to from visit
		where client_id = $1 and closed_at is not null order by starts_at desc, id desc limit 1`, client)
	if err != nil || len(p) == 0 {
		return NextVisitProposal{}, found("reading the proposed next visit", err)
	}
	return p[0], nil
}
