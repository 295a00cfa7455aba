package store

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mokren/core/ids"
	"mokren/core/treat"
)

// handDays is how far a hand's load looks back: the week that ends today.
const handDays = 7

// HandUses are the holds and the pressing steps of sequences of the person who asks, in the week that ends now, but
// for those of one visit; and today's number. Nobody sees another's.
func (t *Tx) HandUses(ctx context.Context, now time.Time, but uuid.UUID) (uses []treat.HandUse, today int, err error) {
	err = t.tx.GetContext(ctx, &today, `select ($1 at time zone time_zone)::date - date '1970-01-01' from practice`, now)
	if err != nil {
		return nil, 0, found("reading the practice's day", err)
	}
	var rows []struct {
		Contact string  `db:"contact"`
		Seconds float64 `db:"seconds"`
		Day     int     `db:"day"`
	}
	err = t.tx.SelectContext(ctx, &rows, `select h.contact, sum(h.hand_ms)::float8 / 1000 as seconds,
			(h.started_at at time zone p.time_zone)::date - date '1970-01-01' as day
		from (select contact, hand_ms, started_at, visit_id, author_id from hold
				where status <> 'aside' and contact <> ''
			union all select contact, hand_ms, started_at, visit_id, author_id from step_use) h, practice p
		where h.author_id = $1 and h.started_at > $2 and h.visit_id <> $3
		group by 1, 3 order by 3, 1`, t.who.Person, now.AddDate(0, 0, -handDays-1), but)
	if err != nil {
		return nil, 0, found("reading a hand's load", err)
	}
	uses = []treat.HandUse{}
	for _, r := range rows {
		if r.Day > today-handDays {
			uses = append(uses, treat.HandUse{Contact: ids.Contact(r.Contact), Seconds: r.Seconds, Day: r.Day})
		}
	}
	return uses, today, nil
}
