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

// Simulated runs fn within the principal's practice and leaves no row in the audit: what is done on
// the practice bench is no health data. Nothing of a client may be read in it.
func (s *Store) Simulated(ctx context.Context, who Principal, fn func(*Tx) error) error {
	t, err := s.begin(ctx, who)
	if err != nil {
		return err
	}
	defer t.tx.Rollback() //nolint:errcheck // after a commit there is nothing to roll back
	if err := fn(t); err != nil {
		return err
	}
	if err := t.tx.Commit(); err != nil {
		return fmt.Errorf("committing: %w", err)
	}
	return nil
}

// BenchResult is what somebody did with a simulated client.
type BenchResult struct {
	ID       uuid.UUID        `db:"id"`
	Person   uuid.UUID        `db:"person_id"`
	Name     string           `db:"name"`
	Began    time.Time        `db:"began_at"`
	Finished sql.NullTime     `db:"finished_at"`
	Exercise string           `db:"exercise"`
	Level    int              `db:"level"`
	Input    json.RawMessage  `db:"input"`
	Coach    string           `db:"coach"`
	Outcome  *json.RawMessage `db:"outcome"`
	// Assignment and its item, where it was set.
	Assignment uuid.NullUUID `db:"assignment_id"`
	Item       sql.NullInt64 `db:"item"`
	// Open: an exam that is not closed yet, so that nothing may be told of it.
	Open bool `db:"open"`
}

const benchResults = `select r.id, r.person_id, p.name, r.began_at, r.finished_at, r.exercise, r.level, r.input, r.coach,
	r.outcome, r.assignment_id, r.item, coalesce(a.exam and a.closed_at is null, false) as open
	from bench_result r join person p on p.practice_id = r.practice_id and p.id = r.person_id
	left join bench_assignment a on a.practice_id = r.practice_id and a.id = r.assignment_id `

// BenchResults are those that who acts may see, of one person or of all, the oldest first; at most
// the last 5000.
func (t *Tx) BenchResults(ctx context.Context, of uuid.NullUUID) ([]BenchResult, error) {
	out := []BenchResult{}
	err := t.tx.SelectContext(ctx, &out, `select * from (`+benchResults+`where $1::uuid is null or r.person_id = $1
		order by r.began_at desc limit 5000) last order by began_at, id`, of)
	return out, found("reading results of the bench", err)
}

// BenchResult is one of them.
func (t *Tx) BenchResult(ctx context.Context, id uuid.UUID) (BenchResult, error) {
	var out BenchResult
	err := t.tx.GetContext(ctx, &out, benchResults+`where r.id = $1`, id)
	return out, found("reading a result of the bench", err)
}

// KeepBenchResult keeps one of who acts; sent twice it is kept once.
func (t *Tx) KeepBenchResult(ctx context.Context, r BenchResult) error {
	_, err := t.tx.ExecContext(ctx, `insert into bench_result (practice_id, id, person_id, began_at, finished_at, exercise,
		level, input, coach, outcome, assignment_id, item) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)
		on conflict do nothing`, t.who.Practice, r.ID, t.who.Person, r.Began, r.Finished, r.Exercise, r.Level, r.Input,
		r.Coach, r.Outcome, r.Assignment, r.Item)
	return found("keeping a result of the bench", err)
}

// Sitting gives the row of who acts in an exam and holds it, so that two pages cannot act at once.
func (t *Tx) Sitting(ctx context.Context, id uuid.UUID) (BenchResult, error) {
	if _, err := t.tx.ExecContext(ctx, `select from bench_result where id = $1 and person_id = $2 for update`, id,
		t.who.Person); err != nil {
		return BenchResult{}, found("holding an exam", err)
	}
	r, err := t.BenchResult(ctx, id)
	if err == nil && r.Person != t.who.Person {
		err = ErrNotFound
	}
	return r, err
}

// Sat gives what who acts did of an item of an exam.
func (t *Tx) Sat(ctx context.Context, assignment uuid.UUID, item int) (BenchResult, bool, error) {
	var out BenchResult
	err := t.tx.GetContext(ctx, &out, benchResults+`where r.assignment_id = $1 and r.item = $2 and r.person_id = $3`,
		assignment, item, t.who.Person)
	if errors.Is(err, sql.ErrNoRows) {
		return out, false, nil
	}
	return out, err == nil, found("reading an exam", err)
}

// GoOnSitting keeps what was done so far, and the outcome once it is finished.
func (t *Tx) GoOnSitting(ctx context.Context, r BenchResult) error {
	_, err := t.tx.ExecContext(ctx, `update bench_result set input = $2, outcome = $3, finished_at = $4
		where id = $1 and finished_at is null`, r.ID, r.Input, r.Outcome, r.Finished)
	return found("keeping an exam", err)
}

// BenchAssignment is what a teacher has set.
type BenchAssignment struct {
	ID     uuid.UUID       `db:"id"`
	MadeBy uuid.UUID       `db:"made_by"`
	By     string          `db:"by"`
	MadeAt time.Time       `db:"made_at"`
	Title  string          `db:"title"`
	Items  json.RawMessage `db:"items"`
	Coach  string          `db:"coach"`
	DueOn  time.Time       `db:"due_on"`
	Exam   bool            `db:"exam"`
	Seed   int64           `db:"seed"`
	Closed sql.NullTime    `db:"closed_at"`
}

const benchAssignments = `select a.id, a.made_by, p.name as by, a.made_at, a.title, a.items, a.coach, a.due_on, a.exam,
	a.seed, a.closed_at from bench_assignment a
	join person p on p.practice_id = a.practice_id and p.id = a.made_by `

// BenchAssignments are those of the practice, the newest first.
func (t *Tx) BenchAssignments(ctx context.Context) ([]BenchAssignment, error) {
	out := []BenchAssignment{}
	err := t.tx.SelectContext(ctx, &out, benchAssignments+`order by a.made_at desc, a.id limit 200`)
	return out, found("reading assignments", err)
}

// BenchAssignment is one of them.
func (t *Tx) BenchAssignment(ctx context.Context, id uuid.UUID) (BenchAssignment, error) {
	var out BenchAssignment
	err := t.tx.GetContext(ctx, &out, benchAssignments+`where a.id = $1`, id)
	return out, found("reading an assignment", err)
}

// PutBenchAssignment sets one; it is never changed afterwards, only closed.
func (t *Tx) PutBenchAssignment(ctx context.Context, a BenchAssignment) error {
	_, err := t.tx.ExecContext(ctx, `insert into bench_assignment (practice_id, id, made_by, made_at, title, items, coach,
		due_on, exam, seed) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) on conflict do nothing`, t.who.Practice, a.ID,
		t.who.Person, a.MadeAt, a.Title, a.Items, a.Coach, a.DueOn, a.Exam, a.Seed)
	return found("setting an assignment", err)
}

// CloseBenchAssignment ends one; from then on results tell their truth.
func (t *Tx) CloseBenchAssignment(ctx context.Context, id uuid.UUID, at time.Time) error {
	_, err := t.tx.ExecContext(ctx, `update bench_assignment set closed_at = $2 where id = $1 and closed_at is null`, id,
		at)
	return found("closing an assignment", err)
}

// Learner is somebody whose results who acts may see.
type Learner struct {
	ID   uuid.UUID `db:"id"`
	Name string    `db:"name"`
	Role string    `db:"role"`
}

// Learners are the members whose results who acts may see.
func (t *Tx) Learners(ctx context.Context) ([]Learner, error) {
	out := []Learner{}
	err := t.tx.SelectContext(ctx, &out, `select id, name, role from person where left_at is null and not elsewhere
		and (id = $1 or supervisor_id = $1 or $2 = 'owner') order by name, id`, t.who.Person, string(t.who.Role))
	return out, found("reading learners", err)
}

// KeepPairs keeps pairs of values of two visits, without whose they are.
func (t *Tx) KeepPairs(ctx context.Context, first, second Visit, pairs json.RawMessage, at time.Time) error {
	_, err := t.tx.ExecContext(ctx, `insert into bench_pairs (practice_id, id, made_at, first_person, second_person,
		first_visit, second_visit, pairs) values ($1, $2, $3, $4, $5, $6, $7, $8)`, t.who.Practice,
		uuid.Must(uuid.NewV7()), at, first.Therapist, second.Therapist, first.ID, second.ID, pairs)
	return found("keeping pairs", err)
}
