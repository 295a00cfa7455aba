package crowd

import (
	"context"
	"fmt"
	"strings"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"
)

// apart are tables that a practice's copy does not have: logins are by e-mail, sessions and devices by token.
var apart = map[string]bool{"login": true, "session": true, "device": true}

// Copy makes as many copies of a practice as are wanted beside it, row by row, under other ids of the
// practice: everything else is known by its practice too. Nobody signs in to a copy.
func Copy(ctx context.Context, adminURL string, practice uuid.UUID, copies int) error {
	db, err := sqlx.ConnectContext(ctx, "pgx", adminURL)
	if err != nil {
		return err
	}
	defer db.Close()
	tx, err := db.BeginTxx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback() //nolint:errcheck // after a commit there is nothing to roll back
	c := copying{ctx: ctx, tx: tx, practice: practice}
	if err := c.exec(`create temp table other on commit drop as
		select gen_random_uuid() as id from generate_series(1, $1)`, copies); err != nil {
		return err
	}
	if err := c.exec(`set local session_replication_role = replica`); err != nil {
		return err
	}
	var tables []struct{ Table, Columns string }
	err = tx.SelectContext(ctx, &tables, `select c.table_name::text as table,
			string_agg(quote_ident(c.column_name), ', ' order by c.ordinal_position)
				filter (where c.column_name <> case when c.table_name = 'practice' then 'id' else 'practice_id' end
					and c.is_identity = 'NO' and c.is_generated = 'NEVER'
					and coalesce(c.column_default, '') not like 'nextval%') as columns
		from information_schema.columns c join information_schema.tables t using (table_schema, table_name)
		where c.table_schema = 'public' and t.table_type = 'BASE TABLE'
		group by c.table_name having bool_or(c.column_name = 'practice_id') or c.table_name = 'practice' order by c.table_name`)
	if err != nil {
		return err
	}
	for _, t := range tables {
		if apart[t.Table] {
			continue
		}
		id := "practice_id"
		if t.Table == "practice" {
			id = "id"
		}
		if err := c.exec(fmt.Sprintf(`insert into %[1]s (%[2]s, %[3]s) select other.id, %[4]s from %[1]s o
			cross join other where o.%[2]s = $1`, t.Table, id, t.Columns, "o."+strings.ReplaceAll(t.Columns, ", ", ", o.")),
			practice); err != nil {
			return fmt.Errorf("copying %s: %w", t.Table, err)
		}
	}
	if err := tx.Commit(); err != nil {
		return err
	}
	_, err = db.ExecContext(ctx, `analyze`)
	return err
}
