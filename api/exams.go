package api

import (
	"context"
	"crypto/rand"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"math/big"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/bench"
	"mokren/core/decode"
	"mokren/store"
)

// AssignmentItem is one exercise of an assignment: with a shipped case, or with one made of a level.
type AssignmentItem struct {
	Exercise string `json:"exercise" enum:"landmarks,search,grading,asking,reasoning,visit"`
	Case     string `json:"case,omitempty" maxLength:"60" doc:"a shipped case; an exam has none"`
	Level    int    `json:"level,omitempty" minimum:"1" maximum:"3" doc:"of a case that is made"`
}

// AssignmentIn is what a teacher sets.
type AssignmentIn struct {
	ID    string           `json:"id" format:"uuid" doc:"sent twice, it is set once"`
	Title string           `json:"title" minLength:"1" maxLength:"120"`
	Items []AssignmentItem `json:"items" minItems:"1" maxItems:"12"`
	Coach string           `json:"coach" enum:"speaks,silent,exam" doc:"exam: cases are made, and the server runs them"`
	DueOn string           `json:"due_on" format:"date"`
}

// Assignment is one that was set. Its seed is not in it.
type Assignment struct {
	ID     string           `json:"id"`
	By     string           `json:"by"`
	MadeAt string           `json:"made_at" format:"date-time"`
	Title  string           `json:"title"`
	Items  []AssignmentItem `json:"items"`
	Coach  string           `json:"coach" enum:"speaks,silent,exam"`
	DueOn  string           `json:"due_on" format:"date"`
	Closed bool             `json:"closed"`
	Own    bool             `json:"own" doc:"set by who asks"`
}

// Sitting is an item of an exam that somebody sits: what the client said since, and whether it is
// finished. What it came to is told when the exam is closed.
type Sitting struct {
	ID       string             `json:"id"`
	Exercise string             `json:"exercise"`
	Told     []bench.ClientTold `json:"told"`
	Done     bool               `json:"done"`
	// ElapsedMS since it was begun: an exam that is opened again goes on from there.
	ElapsedMS int64 `json:"elapsed_ms"`
	Feels     *int  `json:"feels,omitempty" doc:"of a hundred, where that was asked"`
}

// SittingIn is what the learner does next, and until when time has passed.
type SittingIn struct {
	Actions []bench.LearnerAction `json:"actions" maxItems:"100"`
	LookMS  int64                 `json:"look_ms,omitempty" minimum:"0" maximum:"86400000"`
	// Feel asks what a finger on its way meets.
	Feel *bench.FingerAt `json:"feel,omitempty"`
}

func (s *server) registerExams(a huma.API) {
	huma.Register(a, op("bench-assignments", http.MethodGet, "/api/bench/assignments", "Assignments and exams", 401),
		s.benchAssignments)
	huma.Register(a, op("put-bench-assignment", http.MethodPost, "/api/bench/assignments",
		"Set an assignment or an exam",
		401, 403, 422), s.putBenchAssignment)
	huma.Register(a, op("close-bench-assignment", http.MethodPost, "/api/bench/assignments/{id}/close",
		"Close an assignment: results tell their truth", 401, 403, 404), s.closeBenchAssignment)
	huma.Register(a, op("sit-exam", http.MethodPost, "/api/bench/assignments/{id}/items/{item}/sit",
		"Begin an item of an exam, or go on with it", 401, 404, 409), s.sitExam)
	huma.Register(a, op("act-in-exam", http.MethodPost, "/api/bench/sittings/{id}", "What is done in an exam next",
		401, 404, 409, 422), s.actInExam)
}

func assignmentOut(a store.BenchAssignment, me uuid.UUID) (Assignment, error) {
	out := Assignment{
		ID: a.ID.String(), By: a.By, MadeAt: a.MadeAt.UTC().Format(time.RFC3339), Title: a.Title, Coach: a.Coach,
		DueOn: a.DueOn.Format(time.DateOnly), Closed: a.Closed.Valid, Own: a.MadeBy == me,
	}
	return out, json.Unmarshal(a.Items, &out.Items)
}

func (s *server) benchAssignments(ctx context.Context, _ *struct{}) (*oneOut[Items[Assignment]], error) {
	return simulated(ctx, s, func(tx *store.Tx) (Items[Assignment], error) {
		out := Items[Assignment]{[]Assignment{}}
		list, err := tx.BenchAssignments(ctx)
		for _, a := range list {
			shown, e := assignmentOut(a, tx.Who().Person)
			err = errors.Join(err, e)
			out.Items = append(out.Items, shown)
		}
		return out, err
	})
}

// seeds are below what a number of JSON holds exactly.
var seeds = big.NewInt(1 << 53)

func (s *server) putBenchAssignment(ctx context.Context, in *struct{ Body AssignmentIn }) (*oneOut[Assignment], error) {
	b := in.Body
	due, err := time.Parse(time.DateOnly, b.DueOn)
	if err != nil {
		return nil, invalid("body.due_on", b.DueOn, "a day of the calendar, YYYY-MM-DD")
	}
	exam := b.Coach == "exam"
	for i, x := range b.Items {
		_, known := bench.Find(x.Case)
		switch at := fmt.Sprintf("body.items[%d].case", i); {
		case (x.Case == "") == (x.Level == 0):
			return nil, invalid(at, x.Case, "a shipped case, or a level")
		case exam && x.Case != "":
			return nil, invalid(at, x.Case, "none: an exam has cases that are made")
		case x.Case != "" && !known:
			return nil, invalid(at, x.Case, strings.Join(bench.IDs(), ", "))
		}
	}
	seed, err := rand.Int(rand.Reader, seeds)
	if err != nil {
		return nil, err
	}
	items, err := json.Marshal(b.Items)
	if err != nil {
		return nil, err
	}
	id := uuid.MustParse(b.ID)
	return simulated(ctx, s, func(tx *store.Tx) (Assignment, error) {
		if err := tx.PutBenchAssignment(ctx, store.BenchAssignment{
			ID: id, MadeAt: s.now(), Title: b.Title, Items: items, Coach: b.Coach, DueOn: due, Exam: exam,
			Seed: seed.Int64(),
		}); err != nil {
			return Assignment{}, err
		}
		a, err := tx.BenchAssignment(ctx, id)
		if err != nil {
			return Assignment{}, err
		}
		return assignmentOut(a, tx.Who().Person)
	})
}

func (s *server) closeBenchAssignment(ctx context.Context, in *ByID) (*oneOut[Assignment], error) {
	return simulated(ctx, s, func(tx *store.Tx) (Assignment, error) {
		if err := tx.CloseBenchAssignment(ctx, in.uuid(), s.now()); err != nil {
			return Assignment{}, err
		}
		a, err := tx.BenchAssignment(ctx, in.uuid())
		if err != nil {
			return Assignment{}, err
		}
		return assignmentOut(a, tx.Who().Person)
	})
}

// ByItem is an item of an assignment.
type ByItem struct {
	ByID
	Item int `path:"item" minimum:"0" maximum:"50"`
}

func (s *server) sitExam(ctx context.Context, in *ByItem) (*oneOut[Sitting], error) {
	return simulated(ctx, s, func(tx *store.Tx) (Sitting, error) {
		a, err := tx.BenchAssignment(ctx, in.uuid())
		if err != nil {
			return Sitting{}, err
		}
		var items []AssignmentItem
		if err := json.Unmarshal(a.Items, &items); err != nil {
			return Sitting{}, err
		}
		switch {
		case !a.Exam || in.Item >= len(items):
			return Sitting{}, store.ErrNotFound
		case a.Closed.Valid:
			return Sitting{}, huma.Error409Conflict("This exam is closed.")
		}
		r, sat, err := tx.Sat(ctx, a.ID, in.Item)
		if err != nil {
			return Sitting{}, err
		}
		if !sat {
			if r, err = s.beginSitting(ctx, tx, a, items[in.Item], in.Item); err != nil {
				return Sitting{}, err
			}
		}
		if r, err = tx.Sitting(ctx, r.ID); err != nil {
			return Sitting{}, err
		}
		live, err := s.sittings.at(r)
		if err != nil {
			return Sitting{}, err
		}
		return Sitting{
			ID: r.ID.String(), Exercise: r.Exercise, Told: live.Told(0), Done: r.Finished.Valid,
			ElapsedMS: s.now().Sub(r.Began).Milliseconds(),
		}, nil
	})
}

// beginSitting makes the case of an item: everybody who sits it has the same one.
func (s *server) beginSitting(
	ctx context.Context, tx *store.Tx, a store.BenchAssignment, x AssignmentItem, item int,
) (store.BenchResult, error) {
	const apart = 1_000_003 // items of one exam have seeds of their own
	seed := (a.Seed + int64(item)*apart) % seeds.Int64()
	of := json.RawMessage(fmt.Sprintf(`{"seed":%d,"level":%d}`, seed, x.Level))
	input, err := json.Marshal(bench.ExerciseIn{
		Case: of, Seed: seed, Exercise: x.Exercise, Actions: []bench.LearnerAction{},
	})
	if err != nil {
		return store.BenchResult{}, err
	}
	r := store.BenchResult{
		ID: uuid.Must(uuid.NewV7()), Began: s.now(), Exercise: x.Exercise, Level: x.Level, Input: input, Coach: "exam",
		Assignment: uuid.NullUUID{UUID: a.ID, Valid: true}, Item: sql.NullInt64{Int64: int64(item), Valid: true},
	}
	if err := tx.KeepBenchResult(ctx, r); err != nil {
		return r, err
	}
	r, _, err = tx.Sat(ctx, a.ID, item)
	return r, err
}

func (s *server) actInExam(ctx context.Context, in *struct {
	ByID
	Body SittingIn
},
) (*oneOut[Sitting], error) {
	return simulated(ctx, s, func(tx *store.Tx) (Sitting, error) {
		r, err := tx.Sitting(ctx, in.uuid())
		if err != nil {
			return Sitting{}, err
		}
		if !r.Open || r.Finished.Valid {
			return Sitting{}, huma.Error409Conflict("This exercise is finished, or the exam is closed.")
		}
		live, err := s.sittings.at(r)
		if err != nil {
			return Sitting{}, err
		}
		before := len(live.Told(0))
		if err := s.goOn(ctx, tx, r, live, in.Body); err != nil {
			s.sittings.drop(r.ID)
			return Sitting{}, err
		}
		out := Sitting{
			ID: r.ID.String(), Exercise: r.Exercise, Told: live.Told(before), Done: live.Done(),
			ElapsedMS: s.now().Sub(r.Began).Milliseconds(),
		}
		if in.Body.Feel != nil {
			if n, ok := live.Feel(*in.Body.Feel); ok {
				out.Feels = &n
			}
		}
		return out, nil
	})
}

// goOn lives through some actions and keeps them, and at the end what they came to.
func (s *server) goOn(ctx context.Context, tx *store.Tx, r store.BenchResult, live *bench.Live, b SittingIn) error {
	var input bench.ExerciseIn
	if err := json.Unmarshal(r.Input, &input); err != nil {
		return err
	}
	for i, a := range b.Actions {
		var e *decode.Error
		if err := live.Act(a); errors.As(err, &e) {
			_, field, _ := strings.Cut(e.Path, "]")
			return invalid(fmt.Sprintf("body.actions[%d]%s", i, field), e.Given, e.Allowed)
		}
		input.Actions = append(input.Actions, a)
	}
	live.Look(b.LookMS)
	if len(b.Actions) == 0 {
		return nil
	}
	var err error
	if r.Input, err = json.Marshal(input); err != nil {
		return err
	}
	if live.Done() {
		raw, err := json.Marshal(live.Out())
		if err != nil {
			return err
		}
		r.Outcome, r.Finished = (*json.RawMessage)(&raw), sql.NullTime{Time: s.now(), Valid: true}
		defer s.sittings.drop(r.ID)
	}
	return tx.GoOnSitting(ctx, r)
}

// sittings are the exams that this copy of the program runs. One that it does not have, or that went
// on at another copy, is lived through again from its actions.
type sittings struct {
	mu   sync.Mutex
	live map[uuid.UUID]*bench.Live
}

// mostSittings are kept at once; above it all are lived through again.
const mostSittings = 500

func (s *sittings) at(r store.BenchResult) (*bench.Live, error) {
	var input bench.ExerciseIn
	if err := json.Unmarshal(r.Input, &input); err != nil {
		return nil, fmt.Errorf("reading an exam: %w", err)
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if l := s.live[r.ID]; l != nil && l.Actions() == len(input.Actions) {
		return l, nil
	}
	l, err := bench.Open(input)
	if err != nil {
		return nil, fmt.Errorf("going on with an exam: %w", err)
	}
	if s.live == nil || len(s.live) >= mostSittings {
		s.live = map[uuid.UUID]*bench.Live{}
	}
	s.live[r.ID] = l
	return l, nil
}

func (s *sittings) drop(id uuid.UUID) {
	s.mu.Lock()
	defer s.mu.Unlock()
	delete(s.live, id)
}
