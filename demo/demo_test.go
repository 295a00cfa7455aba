package demo_test

import (
	"context"
	"database/sql"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/visit"
	"mokren/demo"
	"mokren/store"
	"mokren/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestTheDemoIsMadeByTheCore(t *testing.T) {
	ctx := context.Background()
	st := storetest.Open(t)
	now := time.Date(2031, 3, 12, 6, 0, 0, 0, time.UTC)
	require.NoError(t, demo.Fill(ctx, st, now))
	require.NoError(t, demo.Fill(ctx, st, now), "filling twice is the same as once")
	require.NoError(t, demo.Fill(ctx, st, now.AddDate(0, 0, 1)), "the next day gets appointments of its own")

	raw, err := sqlx.Open("pgx", storetest.AdminURL())
	require.NoError(t, err)
	defer raw.Close()
	count := func(q string, args ...any) (n int) {
		require.NoError(t, raw.Get(&n, q, args...))
		return n
	}
	assert.Equal(t, 7, count(`select count(*) from person`))
	assert.Equal(t, 4, count(`select count(distinct person_id) from bench_result`), "a class of four")
	assert.Greater(t, count(`select count(*) from bench_result where outcome is not null`), 80)
	assert.Equal(t, 2, count(`select count(*) from bench_assignment`))
	assert.GreaterOrEqual(t, count(`select count(*) from client`), 4)
	var aside []string
	require.NoError(t, raw.Select(&aside, `select why from visit_event where verdict = 'aside'`))
	assert.Empty(t, aside)
	assert.Zero(t, count(`select count(*) from hold where status <> 'kept'`), "every log replays to what it claims")
	assert.Zero(t, count(`select count(*) from visit where opened_at > $1`, now), "no visit of the future has happened")
	assert.Equal(t, 6, count(`select count(*) from visit where starts_at >= $1 and starts_at < $2`,
		now.Truncate(24*time.Hour), now.Truncate(24*time.Hour).AddDate(0, 0, 1)), "today's list")
	assert.GreaterOrEqual(t, count(`select count(*) from visit where starts_at >= $1 and starts_at < $2`,
		now.Truncate(24*time.Hour).AddDate(0, 0, 1), now.Truncate(24*time.Hour).AddDate(0, 0, 2)), 6, "tomorrow's")
	assert.Zero(t, count(`select count(*) from visit a join visit b on a.therapist_id = b.therapist_id and a.id < b.id
		and a.status = 'booked' and b.status = 'booked' and a.starts_at > $1
		and a.starts_at < b.starts_at + b.minutes * interval '1 minute'
		and b.starts_at < a.starts_at + a.minutes * interval '1 minute'`, now), "nobody is in two places")
	assert.Positive(t, count(`select count(*) from visit where signed_at is not null`))
	assert.Positive(t, count(`select count(*) from visit where closed_at is not null and signed_at is null`))
	var fewest, most int
	require.NoError(t, raw.QueryRow(`select min(n), max(n) from (select count(*) as n from visit
		where closed_at is not null group by client_id) v`).Scan(&fewest, &most))
	assert.GreaterOrEqual(t, fewest, 3)
	assert.LessOrEqual(t, most, 6)
	assert.Positive(t, count(`select count(*) from hold where outcome = 'released' or outcome = 'reduced'`))
	assert.Positive(t, count(`select count(*) from hold where outcome = 'unchanged'`), "not everything goes well")

	who, err := st.SignIn(ctx, store.SignIn{Email: demo.Logins[1].Email, Password: demo.Logins[1].Password})
	require.NoError(t, err)
	require.NoError(t, st.As(ctx, who, store.Action{Verb: "read", Kind: "test"}, func(tx *store.Tx) error {
		looked, faults, err := tx.CheckVisits(ctx, now)
		assert.Greater(t, looked, 15)
		assert.Empty(t, faults, "tables are as their logs have them")
		return err
	}))
	require.NoError(t, st.As(ctx, who, store.Action{Verb: "read", Kind: "test"}, func(tx *store.Tx) error {
		signals := map[string]bool{}
		list, err := tx.Clients(ctx, "", sql.NullTime{}, false)
		require.NoError(t, err)
		for _, c := range list {
			visits, err := tx.VisitsOf(ctx, c.ID)
			require.NoError(t, err)
			var dated []visit.VisitContribution
			for i, v := range visits {
				log, err := tx.Events(ctx, v.ID)
				require.NoError(t, err)
				s := visit.Reduce(visit.Context{}, log)
				assert.Empty(t, s.Rejected)
				assert.Empty(t, s.Conflicts)
				for _, p := range s.Points {
					assert.NoError(t, uuid.Validate(string(p.Identity)))
				}
				dated = append(
					dated,
					visit.VisitContribution{Visit: v.ID.String(), Day: float64(i * 7), Points: s.Treated()},
				)
			}
			for _, p := range visit.Course(dated, 40).Points {
				if p.Number != nil {
					signals[string(p.Number.Signal)] = true
				}
			}
		}
		assert.True(t, signals["improving"], "some get better")
		assert.True(t, signals["plateau"], "one stands still")
		return nil
	}))
}
