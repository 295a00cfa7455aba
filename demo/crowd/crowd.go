// Package crowd fills a database with a large invented practice: some visits are made
// as every visit is, through the core and the log, and copied many times over by the
// database itself. For benches, for looking at plans, for sizing a server.
package crowd

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
	_ "github.com/jackc/pgx/v5/stdlib" // the "pgx" driver
	"github.com/jmoiron/sqlx"

	"mokren/core/rights"
	"mokren/store"
)

// Size of a practice.
type Size struct {
	Clients int
	// Visits of each client, a week apart.
	Visits int
	// Holds of each visit, each at a point of its own; 0 is one.
	Holds int
}

// Counts is what there is now.
type Counts struct {
	Who             store.Principal
	Email, Password string
	// First is a client, and the latest visit of theirs.
	Client, Visit uuid.UUID
}

// password of the owner: an invented practice.
const password = "crowded-green-yard"

// Fill makes a practice of a size. adminURL is a role that sees every row.
func Fill(ctx context.Context, st *store.Store, adminURL string, size Size, now time.Time) (Counts, error) {
	m := Counts{
		Who:   store.Principal{Practice: uuid.New(), Person: uuid.New(), Role: rights.Owner},
		Email: uuid.NewString()[:8] + "@crowd.example", Password: password,
	}
	templates, err := template(ctx, st, m, size, now)
	if err != nil {
		return m, err
	}
	db, err := sqlx.ConnectContext(ctx, "pgx", adminURL)
	if err != nil {
		return m, err
	}
	defer db.Close()
	tx, err := db.BeginTxx(ctx, nil)
	if err != nil {
		return m, err
	}
	defer tx.Rollback() //nolint:errcheck // after a commit there is nothing to roll back
	c := copying{ctx, tx, m.Who.Practice, size, templates}
	for _, step := range []func() error{c.people, c.pairs, c.visits, c.due, c.rest, c.audit} {
		if err := step(); err != nil {
			return m, fmt.Errorf("filling the practice: %w", err)
		}
	}
	err = tx.QueryRowContext(ctx, `select client, visit from pair order by client, starts_at desc limit 1`).
		Scan(&m.Client, &m.Visit)
	if err != nil {
		return m, err
	}
	if err := tx.Commit(); err != nil {
		return m, err
	}
	_, err = db.ExecContext(ctx, `analyze`)
	return m, err
}

// copying multiplies the template visits.
type copying struct {
	ctx       context.Context
	tx        *sqlx.Tx
	practice  uuid.UUID
	size      Size
	templates []uuid.UUID
}

func (c copying) exec(query string, args ...any) error {
	_, err := c.tx.ExecContext(c.ctx, query, args...)
	return err
}

// people get names of invented syllables.
func (c copying) people() error {
	return c.exec(`insert into client (practice_id, id, given_name, family_name, born_on, height_cm)
		select $1, gen_random_uuid(),
			(array['Ada','Bren','Cyra','Dorn','Elka','Fenn','Gita','Hale','Ilo','Juna','Kest','Lorn'])[1 + n % 12],
			initcap((array['al','bre','cor','dun','es','fal','gor','hul','is','jor'])[1 + n / 12 % 10]
				|| (array['ban','cot','dell','fen','gard','holt','kin','lund','mer','nis'])[1 + n / 120 % 10]
				|| (array['en','er','ow','ick','ath','um','il','ost'])[1 + n / 1200 % 8]),
			date '1950-01-01' + n * 7 % 20000, 150 + n % 50
		from generate_series(0, $2::int - 1) n`, c.practice, c.size.Clients)
}

// pairs says which visit is a copy of which. A hundred clients come every week until
// the next hundred do, so that a day has as many visits in a large practice as in a
// small one: what is larger is the past.
func (c copying) pairs() error {
	return c.exec(`create temp table pair on commit drop as
		select gen_random_uuid() as visit, c.id as client, ($3::uuid[])[1 + (c.n + k) % cardinality($3::uuid[])] as template,
			t.starts_at - (c.n / 100 * $2 + k) * interval '7 days' - c.n % 10 * interval '40 minutes'
				- c.n % 5 * interval '1 day' as starts_at
		from (select id, row_number() over (order by id) - 1 as n from client where practice_id = $1) c
		cross join generate_series(0, $2::int - 1) k
		join visit t on t.practice_id = $1 and t.id = ($3::uuid[])[1]
		where not exists (select from visit v where v.practice_id = $1 and v.client_id = c.id)`,
		c.practice, c.size.Visits, c.templates)
}

func (c copying) visits() error {
	// Rows are consistent by how they are made; checking each would take most of the
	// time.
	if err := c.exec(`set local session_replication_role = replica`); err != nil {
		return err
	}
	return c.copy("visit", map[string]string{
		"id": "p.visit", "client_id": "p.client", "starts_at": "p.starts_at",
		"opened_at": "o.opened_at + (p.starts_at - o.starts_at)",
		"closed_at": "o.closed_at + (p.starts_at - o.starts_at)",
		"next_from": "(o.next_from + (p.starts_at - o.starts_at))::date",
		"next_to":   "(o.next_to + (p.starts_at - o.starts_at))::date",
	}, "o.id = p.template")
}

// due is what a trigger writes where rows are written one by one.
func (c copying) due() error {
	return c.exec(`insert into client_due select practice_id, client_id, id, starts_at, next_from, next_to from (
			select distinct on (client_id) * from visit where practice_id = $1 and closed_at is not null
			order by client_id, starts_at desc, id desc) l
		where next_from is not null on conflict do nothing`, c.practice)
}

func (c copying) rest() error {
	for _, table := range []string{
		"visit_event", "charted_point", "hold", "range_reading", "screening", "consent", "suspicion", "pain_drawing",
	} {
		as := map[string]string{
			"client_id": "p.client", "visit_id": "p.visit", "starts_at": "p.starts_at",
			"started_at": "o.started_at + (p.starts_at - t.starts_at)",
		}
		if table == "visit_event" {
			as["id"], as["device_id"] = "gen_random_uuid()", "p.visit"
		}
		if err := c.copy(table, as, "o.visit_id = p.template"); err != nil {
			return err
		}
	}
	return nil
}

// copy copies the rows of a table for every pair, with some columns made anew.
func (c copying) copy(table string, as map[string]string, on string) error {
	var columns []string
	err := c.tx.SelectContext(c.ctx, &columns, `select column_name::text from information_schema.columns
		where table_schema = 'public' and table_name = $1 order by ordinal_position`, table)
	if err != nil {
		return err
	}
	values := make([]string, len(columns))
	for i, name := range columns {
		values[i] = "o." + name
		if v, ok := as[name]; ok {
			values[i] = v
		}
	}
	return c.exec(
		fmt.Sprintf(`insert into %[1]s (%[2]s) select %[3]s from pair p join %[1]s o on o.practice_id = $1 and %[4]s
		join visit t on t.practice_id = $1 and t.id = p.template`,
			table, strings.Join(columns, ", "), strings.Join(values, ", "), on),
		c.practice,
	)
}

// audit has three lines for each visit.
func (c copying) audit() error {
	return c.exec(`insert into audit (practice_id, at, person_id, verb, kind, subject, client_id)
		select $1, p.starts_at + n * interval '20 minutes', t.therapist_id, 'read', 'visit', p.visit::text, p.client
		from pair p join visit t on t.practice_id = $1 and t.id = p.template cross join generate_series(0, 2) n`,
		c.practice)
}
