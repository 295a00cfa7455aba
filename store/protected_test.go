package store_test

import (
	"errors"
	"reflect"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/record"
	"mokren/core/visit"
	"mokren/store"
	"mokren/store/storetest"
)

// A safety record that is gone on with says what one says that is read whole, whatever came in between:
// an event of this copy of the program or of another, one that a file brings with an earlier time, a
// transaction that failed, an author whose role has changed. What is taken back is tried on the past itself
// (core/record/random_test.go).
func TestASafetyRecordIsGoneOnWith(t *testing.T) {
	p := newPractice(t, "protected@x.example")
	send := func(events ...visit.Event) {
		t.Helper()
		p.as(t, func(tx *store.Tx) error { _, err := tx.Append(ctx, p.visit, batch(events...)); return err })
	}
	first := p.visit
	send(p.screened(), p.consent("visit"))
	p.visitAt(t, time.Now().AddDate(0, 0, 7))
	history := func(st *store.Store) (out []record.Fact) {
		require.NoError(t, st.As(ctx, p.who, store.Action{Verb: "read", Kind: "test"}, func(tx *store.Tx) error {
			vc, err := contextOf(tx, p.visit)
			out = vc.History
			return err
		}))
		return out
	}
	facts := 0
	same := func(what string, more int) {
		t.Helper()
		got := history(p.st)
		// Not Equal and Len, which would write out a hundred facts.
		assert.True(t, reflect.DeepEqual(history(storetest.Open(t)), got), what)
		assert.Equal(t, facts+more, len(got), what)
		facts = len(got)
	}
	same("at first", len(history(p.st)))

	of := func(v uuid.UUID, e visit.Event) visit.Event { e.Visit = v.String(); return e }
	append1 := func(st *store.Store, fail error) error {
		return st.As(ctx, p.who, store.Action{Verb: "write", Kind: "test"}, func(tx *store.Tx) error {
			got, err := tx.Append(ctx, first, batch(of(first, p.consent("visit"))))
			if err != nil {
				return err
			}
			require.Equal(t, store.Stored, got.Receipts[0].Result, got.Receipts[0].Reason)
			if _, err := contextOf(tx, p.visit); err != nil {
				return err
			}
			return fail
		})
	}
	require.NoError(t, append1(p.st, nil))
	same("written here", 1)
	require.NoError(t, append1(storetest.Open(t), nil))
	same("written by another copy", 1)
	failure := errors.New("the line is gone")
	require.ErrorIs(t, append1(p.st, failure), failure)
	same("not written", 0)
	require.NoError(t, append1(p.st, nil))
	same("written after what failed", 1)
	admin(t).MustExec(`insert into visit_event select (jsonb_populate_record(e, jsonb_build_object(
			'id', gen_random_uuid(), 'version', version + 100, 'seq', seq + 100,
			'received_at', received_at - interval '1 hour'))).*
		from visit_event e where client_id = $1 and type = 'consent-recorded' order by version desc limit 1`, p.client)
	same("with an earlier time, as a file brings it", 1)
	admin(t).MustExec(`update person set role = 'student' where id = $1`, p.who.Person)
	require.True(t, history(p.st)[0].Author == p.who.Person.String() && !history(p.st)[0].Licensed)
	same("by one whose role has changed", 0)
}
