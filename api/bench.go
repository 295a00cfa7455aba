package api

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/bench"
	"mokren/core/decode"
	"mokren/exchange"
	"mokren/store"
)

// PracticeIn is an exercise that was done; what it comes to the server computes itself.
type PracticeIn struct {
	ID      string `json:"id" format:"uuid" doc:"sent twice, it is kept once"`
	BeganAt string `json:"began_at" format:"date-time"`
	Coach   string `json:"coach" enum:"speaks,silent"`
	// Assignment that it was done for, with the number of its item from 0.
	Assignment string           `json:"assignment,omitempty" format:"uuid"`
	Item       *int             `json:"item,omitempty" minimum:"0" maximum:"50"`
	Input      bench.ExerciseIn `json:"input"`
}

// PracticeResult is an exercise that was done. Of an exam that is not closed it says only that it was
// sat.
type PracticeResult struct {
	ID         string             `json:"id"`
	Person     string             `json:"person"`
	Name       string             `json:"name"`
	BeganAt    string             `json:"began_at" format:"date-time"`
	Exercise   string             `json:"exercise"`
	Level      int                `json:"level"`
	Title      string             `json:"title" doc:"of the case"`
	Coach      string             `json:"coach" enum:"speaks,silent,exam"`
	Assignment string             `json:"assignment,omitempty"`
	Item       *int               `json:"item,omitempty"`
	Finished   bool               `json:"finished"`
	Mean       *float64           `json:"mean,omitempty" doc:"0 to 1, of all components"`
	Score      map[string]float64 `json:"score,omitempty"`
	Rules      []string           `json:"rules,omitempty" doc:"of its marks, each once"`
}

// ExerciseTrend is one exercise over time.
type ExerciseTrend struct {
	Exercise string   `json:"exercise"`
	N        int      `json:"n"`
	Last     float64  `json:"last"`
	Trend    *float64 `json:"trend,omitempty" doc:"mean of the last three less that of the first three"`
}

// Practised is what somebody has practised: every result, how each exercise goes, how far their
// confidence can be relied on, and what is next.
type Practised struct {
	Results    []PracticeResult `json:"results"`
	Trends     []ExerciseTrend  `json:"trends"`
	Calibrated bench.Calibrated `json:"calibrated"`
	Next       bench.Upcoming   `json:"next"`
}

// PracticeReview is one result with all that was done, to be replayed.
type PracticeReview struct {
	PracticeResult
	Input   bench.ExerciseIn  `json:"input"`
	Outcome bench.ExerciseOut `json:"outcome"`
}

// LearnerSummary is one of a teacher's learners.
type LearnerSummary struct {
	ID      string          `json:"id"`
	Name    string          `json:"name"`
	Results int             `json:"results"`
	LastAt  string          `json:"last_at,omitempty" format:"date-time"`
	Trends  []ExerciseTrend `json:"trends"`
}

// Spread is one component of an exercise's score over a class.
type Spread struct {
	Exercise string  `json:"exercise"`
	Key      string  `json:"key"`
	N        int     `json:"n"`
	Least    float64 `json:"least"`
	Median   float64 `json:"median"`
	Most     float64 `json:"most"`
}

// RuleCount is how often a rule was marked.
type RuleCount struct {
	Rule string `json:"rule"`
	N    int    `json:"n"`
}

// Class is what a teacher sees of those whom they supervise.
type Class struct {
	Learners []LearnerSummary `json:"learners"`
	Results  []PracticeResult `json:"results"`
	Spreads  []Spread         `json:"spreads"`
	Rules    []RuleCount      `json:"rules" doc:"the commonest marks"`
}

func (s *server) registerBench(a huma.API) {
	huma.Register(a, op("bench-results", http.MethodGet, "/api/bench/results",
		"What somebody has practised, and what is next", 401, 404, 422), s.benchResults)
	huma.Register(a, op("keep-bench-result", http.MethodPost, "/api/bench/results", "Keep an exercise that was done",
		401, 404, 422), s.keepBenchResult)
	huma.Register(a, op("bench-result", http.MethodGet, "/api/bench/results/{id}", "One exercise, to be replayed",
		401, 404, 409), s.benchResult)
	huma.Register(a, op("bench-class", http.MethodGet, "/api/bench/class",
		"What a teacher sees of those whom they supervise", 401), s.benchClass)
	huma.Register(a, op("bench-file", http.MethodGet, "/api/bench/csv", "Results of a class as CSV, a row each", 401),
		s.benchFile)
	s.registerExams(a)
}

// simulated runs fn as who is signed in, without a row in the audit: the bench is no health data.
func simulated[T any](ctx context.Context, s *server, fn func(*store.Tx) (T, error)) (*oneOut[T], error) {
	var out T
	who, err := s.principal(ctx)
	if err != nil {
		return nil, err
	}
	err = s.store.Simulated(ctx, who, func(tx *store.Tx) error {
		out, err = fn(tx)
		return err
	})
	return &oneOut[T]{out}, problem(err)
}

// whoseResults is whose are asked for; without it one's own.
type whoseResults struct {
	Person string `query:"person" format:"uuid"`
}

func (s *server) benchResults(ctx context.Context, in *whoseResults) (*oneOut[Practised], error) {
	return simulated(ctx, s, func(tx *store.Tx) (Practised, error) {
		of := tx.Who().Person
		if in.Person != "" {
			of = uuid.MustParse(in.Person)
		}
		list, err := tx.BenchResults(ctx, uuid.NullUUID{UUID: of, Valid: true})
		if err != nil {
			return Practised{}, err
		}
		return s.practised(list)
	})
}

// practised sums results up, the oldest first.
func (s *server) practised(list []store.BenchResult) (Practised, error) {
	out := Practised{Results: []PracticeResult{}}
	var said []bench.Claim
	var past []bench.Past
	for _, r := range list {
		shown, of, err := resultOut(r)
		if err != nil {
			return out, err
		}
		out.Results = append(out.Results, shown)
		if shown.Mean != nil {
			past = append(past, bench.Past{
				Exercise: r.Exercise, Level: r.Level, Day: r.Began.Unix() / 86400, Mean: *shown.Mean,
			})
			said = append(said, of.Statements...)
		}
	}
	out.Trends = trends(out.Results)
	out.Calibrated = bench.Calibrate(said)
	out.Next = bench.Next(past, s.now().Unix()/86400)
	return out, nil
}

// resultOut shows a result; of an open exam nothing that it came to.
func resultOut(r store.BenchResult) (PracticeResult, bench.ExerciseOut, error) {
	out := PracticeResult{
		ID: r.ID.String(), Person: r.Person.String(), Name: r.Name, BeganAt: r.Began.UTC().Format(time.RFC3339),
		Exercise: r.Exercise, Level: r.Level, Coach: r.Coach, Finished: r.Finished.Valid, Title: "Exam",
	}
	if r.Assignment.Valid {
		out.Assignment, out.Item = r.Assignment.UUID.String(), new(int(r.Item.Int64))
	}
	var of bench.ExerciseOut
	if r.Open || r.Outcome == nil {
		return out, of, nil
	}
	var in bench.ExerciseIn
	if err := errors.Join(json.Unmarshal(*r.Outcome, &of), json.Unmarshal(r.Input, &in)); err != nil {
		return out, of, fmt.Errorf("reading a result of the bench: %w", err)
	}
	out.Title = titleOf(in)
	out.Mean, out.Score = new(bench.Mean(of.Score)), of.Score
	for _, m := range of.Marks {
		if !slices.Contains(out.Rules, m.Rule) {
			out.Rules = append(out.Rules, m.Rule)
		}
	}
	return out, of, nil
}

// titleOf names a case: the shipped one, or that it was made.
func titleOf(in bench.ExerciseIn) string {
	if c, err := bench.CaseOf(in); err == nil {
		return c.Title
	}
	return "A case that is not shipped any more"
}

func trends(list []PracticeResult) []ExerciseTrend {
	means := map[string][]float64{}
	for _, r := range list {
		if r.Mean != nil {
			means[r.Exercise] = append(means[r.Exercise], *r.Mean)
		}
	}
	out := []ExerciseTrend{}
	for _, e := range bench.Exercises() {
		if m := means[e]; len(m) > 0 {
			t := ExerciseTrend{Exercise: e, N: len(m), Last: m[len(m)-1]}
			if by, ok := bench.Trend(m); ok {
				t.Trend = &by
			}
			out = append(out, t)
		}
	}
	return out
}

func (s *server) keepBenchResult(ctx context.Context, in *struct{ Body PracticeIn }) (*oneOut[PracticeResult], error) {
	b := in.Body
	began, err := time.Parse(time.RFC3339, b.BeganAt)
	if err != nil {
		return nil, invalid("body.began_at", b.BeganAt, "a time with its zone")
	}
	row, err := finishedRow(b.Input)
	if err != nil {
		return nil, err
	}
	row.ID, row.Began, row.Coach = uuid.MustParse(b.ID), began, b.Coach
	row.Finished = sql.NullTime{Time: s.now(), Valid: true}
	if b.Assignment != "" && b.Item != nil {
		row.Assignment = uuid.NullUUID{UUID: uuid.MustParse(b.Assignment), Valid: true}
		row.Item = sql.NullInt64{Int64: int64(*b.Item), Valid: true}
	}
	return simulated(ctx, s, func(tx *store.Tx) (PracticeResult, error) {
		if row.Assignment.Valid {
			if a, err := tx.BenchAssignment(ctx, row.Assignment.UUID); err != nil || a.Exam {
				return PracticeResult{}, errors.Join(err, notPractice(a))
			}
		}
		if err := tx.KeepBenchResult(ctx, row); err != nil {
			return PracticeResult{}, err
		}
		kept, err := tx.BenchResult(ctx, row.ID)
		if err != nil {
			return PracticeResult{}, err
		}
		shown, _, err := resultOut(kept)
		return shown, err
	})
}

func notPractice(a store.BenchAssignment) error {
	if a.Exam {
		return invalid("body.assignment", a.ID.String(), "an assignment that is no exam")
	}
	return nil
}

// finishedRow runs an exercise from its beginning to its end: what is kept is what the rules make of it.
func finishedRow(in bench.ExerciseIn) (store.BenchResult, error) {
	out, err := bench.Run(in)
	var e *decode.Error
	switch {
	case errors.As(err, &e):
		return store.BenchResult{}, invalid("body.input"+strings.TrimPrefix(e.Path, "$"), e.Given, e.Allowed)
	case err != nil:
		return store.BenchResult{}, err
	case out.Truth == nil:
		return store.BenchResult{}, invalid("body.input.actions", "not finished", "finish, at the end")
	}
	c, err := bench.CaseOf(in)
	if err != nil {
		return store.BenchResult{}, err
	}
	input, err := json.Marshal(in)
	if err != nil {
		return store.BenchResult{}, err
	}
	raw, err := json.Marshal(out)
	return store.BenchResult{
		Exercise: in.Exercise, Level: c.Level, Input: input, Outcome: (*json.RawMessage)(&raw),
	}, err
}

func (s *server) benchResult(ctx context.Context, in *ByID) (*oneOut[PracticeReview], error) {
	return simulated(ctx, s, func(tx *store.Tx) (PracticeReview, error) {
		r, err := tx.BenchResult(ctx, in.uuid())
		if err != nil {
			return PracticeReview{}, err
		}
		if r.Open || r.Outcome == nil {
			return PracticeReview{}, huma.Error409Conflict("This exam is not closed yet; then it can be reviewed.")
		}
		out := PracticeReview{}
		if out.PracticeResult, out.Outcome, err = resultOut(r); err != nil {
			return out, err
		}
		return out, json.Unmarshal(r.Input, &out.Input)
	})
}

func (s *server) benchClass(ctx context.Context, _ *struct{}) (*oneOut[Class], error) {
	return simulated(ctx, s, func(tx *store.Tx) (Class, error) { return classOf(ctx, tx) })
}

func classOf(ctx context.Context, tx *store.Tx) (Class, error) {
	out := Class{Learners: []LearnerSummary{}, Results: []PracticeResult{}, Spreads: []Spread{}, Rules: []RuleCount{}}
	people, err := tx.Learners(ctx)
	if err != nil {
		return out, err
	}
	list, err := tx.BenchResults(ctx, uuid.NullUUID{})
	if err != nil {
		return out, err
	}
	of := map[string][]PracticeResult{}
	for _, r := range list {
		shown, _, err := resultOut(r)
		if err != nil {
			return out, err
		}
		of[shown.Person] = append(of[shown.Person], shown)
		out.Results = append(out.Results, shown)
	}
	for _, p := range people {
		mine := of[p.ID.String()]
		l := LearnerSummary{ID: p.ID.String(), Name: p.Name, Results: len(mine), Trends: trends(mine)}
		if len(mine) > 0 {
			l.LastAt = mine[len(mine)-1].BeganAt
		}
		out.Learners = append(out.Learners, l)
	}
	out.Spreads, out.Rules = spreads(out.Results), rules(out.Results)
	return out, nil
}

func spreads(list []PracticeResult) []Spread {
	values := map[[2]string][]float64{}
	for _, r := range list {
		for k, v := range r.Score {
			at := [2]string{r.Exercise, k}
			values[at] = append(values[at], v)
		}
	}
	out := []Spread{}
	for at, v := range values {
		slices.Sort(v)
		out = append(out, Spread{
			Exercise: at[0], Key: at[1], N: len(v), Least: v[0], Median: (v[(len(v)-1)/2] + v[len(v)/2]) / 2,
			Most: v[len(v)-1],
		})
	}
	rank := bench.Exercises()
	slices.SortFunc(out, func(a, b Spread) int {
		if d := slices.Index(rank, a.Exercise) - slices.Index(rank, b.Exercise); d != 0 {
			return d
		}
		return strings.Compare(a.Key, b.Key)
	})
	return out
}

// commonest is how many rules a class is shown.
const commonest = 8

func rules(list []PracticeResult) []RuleCount {
	n := map[string]int{}
	for _, r := range list {
		for _, rule := range r.Rules {
			n[rule]++
		}
	}
	out := []RuleCount{}
	for _, rule := range slices.Sorted(maps.Keys(n)) {
		out = append(out, RuleCount{rule, n[rule]})
	}
	slices.SortStableFunc(out, func(a, b RuleCount) int { return b.N - a.N })
	return out[:min(commonest, len(out))]
}

func (s *server) benchFile(ctx context.Context, _ *struct{}) (*fileOut, error) {
	out, err := simulated(ctx, s, func(tx *store.Tx) (*fileOut, error) {
		class, err := classOf(ctx, tx)
		if err != nil {
			return nil, err
		}
		var rows [][]string
		for _, r := range class.Results {
			if r.Mean == nil {
				continue
			}
			for _, k := range slices.Sorted(maps.Keys(r.Score)) {
				rows = append(rows, []string{
					r.Name, r.BeganAt, r.Exercise, strconv.Itoa(r.Level), r.Title, r.Coach, r.Assignment, k,
					strconv.FormatFloat(r.Score[k], 'f', 3, 64), strconv.FormatFloat(*r.Mean, 'f', 3, 64),
				})
			}
		}
		raw, err := exchange.Table([]string{
			"learner", "began_at [RFC 3339]", "exercise", "level", "case", "coach", "assignment", "component",
			"score [0-1]", "mean [0-1]",
		}, rows)
		return fileOf("bench.csv", csvKind, raw), err
	})
	if err != nil {
		return nil, err
	}
	return out.Body, nil
}
