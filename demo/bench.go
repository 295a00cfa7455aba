package demo

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"slices"
	"time"

	"github.com/google/uuid"

	"mokren/core/atlas"
	"mokren/core/bench"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/treat"
	"mokren/store"
)

// learner is one of the class: how good they were at first and are now, of a hundred.
type learner struct {
	id        uuid.UUID
	from, now int
}

// class is of Tomas: two who improve, one who is steady, one who stays where they were.
var class = []learner{{lio, 35, 85}, {nuri, 55, 90}, {sanna, 70, 75}, {pavel, 40, 42}}

// weeks of practising, and the exercises of each week.
const weeks = 6

var ofWeek = []string{"landmarks", "search", "grading", "asking", "reasoning", "reasoning", "reasoning"}

// practised fills the bench with what the class did, unless it is there.
func practised(ctx context.Context, st *store.Store, now time.Time) error {
	for i, l := range class {
		who := store.Principal{Practice: practice, Person: l.id, Role: rights.Student}
		err := st.Simulated(ctx, who, func(tx *store.Tx) error {
			had, err := tx.BenchResults(ctx, uuid.NullUUID{UUID: l.id, Valid: true})
			if err != nil || len(had) > 0 {
				return err
			}
			d := rand.New(rand.NewPCG(uint64(i), 4))
			for week := range weeks {
				skill := l.from + (l.now-l.from)*week/(weeks-1)
				for n, exercise := range ofWeek {
					if d.IntN(15) == 0 && week > 0 {
						continue // nobody does everything each week
					}
					day := now.AddDate(0, 0, -7*(weeks-week)+n).Truncate(time.Hour)
					at := day.Add(time.Duration(d.IntN(50)) * time.Minute)
					if err := keep(ctx, tx, exercise, skill, at, d); err != nil {
						return err
					}
				}
			}
			return nil
		})
		if err != nil {
			return fmt.Errorf("the bench of the demo: %w", err)
		}
	}
	return set(ctx, st, now)
}

// set sets the class an assignment and an exam, unless there are some.
func set(ctx context.Context, st *store.Store, now time.Time) error {
	who := store.Principal{Practice: practice, Person: tomas, Role: rights.Therapist}
	return st.Simulated(ctx, who, func(tx *store.Tx) error {
		had, err := tx.BenchAssignments(ctx)
		if err != nil || len(had) > 0 {
			return err
		}
		for i, a := range []store.BenchAssignment{
			{Title: "Neck and shoulder, second week", Coach: "speaks", Items: json.RawMessage(
				`[{"exercise":"search","case":"stiff-neck-desk"},{"exercise":"grading","case":"stiff-neck-desk"},` +
					`{"exercise":"reasoning","case":"cannot-turn"}]`,
			)},
			{Title: "Before the first client", Coach: "exam", Exam: true, Items: json.RawMessage(
				`[{"exercise":"asking","level":2},{"exercise":"reasoning","level":2}]`,
			)},
		} {
			a.ID, a.MadeAt, a.DueOn, a.Seed = id(), now.AddDate(0, 0, i-4), now.AddDate(0, 0, 5+4*i), int64(7400+i)
			if err := tx.PutBenchAssignment(ctx, a); err != nil {
				return err
			}
		}
		return nil
	})
}

func keep(ctx context.Context, tx *store.Tx, exercise string, skill int, at time.Time, d *rand.Rand) error {
	cases := bench.Cases()
	c := cases[d.IntN(len(cases))]
	for exercise == "search" && len(c.Truth.Points) == 0 || exercise == "landmarks" && c.Level > 1 {
		c = cases[d.IntN(len(cases))]
	}
	in := bench.ExerciseIn{
		Case: json.RawMessage(`"` + c.ID + `"`), Seed: d.Int64N(1000), Exercise: exercise,
		Actions: []bench.LearnerAction{},
	}
	live, err := bench.Open(in)
	if err != nil {
		return err
	}
	p := &practising{live: live, in: &in, c: c, skill: skill, d: d}
	map[string]func(){
		"landmarks": p.landmarks, "search": p.search, "grading": p.grading, "asking": p.asking,
		"reasoning": p.reasoning,
	}[exercise]()
	p.act("finish", bench.LearnerAction{})
	if p.err != nil {
		return fmt.Errorf("%s of %s: %w", exercise, c.ID, p.err)
	}
	input, err := json.Marshal(in)
	if err != nil {
		return err
	}
	outcome, err := json.Marshal(live.Out())
	if err != nil {
		return err
	}
	return tx.KeepBenchResult(ctx, store.BenchResult{
		ID: id(), Began: at, Finished: sql.NullTime{Time: at.Add(6 * time.Minute), Valid: true}, Exercise: exercise,
		Level: c.Level, Input: input, Coach: []string{"speaks", "silent"}[d.IntN(2)],
		Outcome: (*json.RawMessage)(&outcome),
	})
}

// practising is a learner at one exercise.
type practising struct {
	live  *bench.Live
	in    *bench.ExerciseIn
	c     bench.ClientCase
	skill int
	d     *rand.Rand
	t     float64 // s
	err   error
}

// act does one thing some seconds later; the first error stands.
func (p *practising) act(what string, a bench.LearnerAction) {
	if p.err != nil {
		return
	}
	a.Action = what
	p.t++
	a.T = json.Number(fmt.Sprintf("%.1f", p.t))
	p.err = p.live.Act(a)
	p.in.Actions = append(p.in.Actions, a)
}

// well tells whether it goes well this time.
func (p *practising) well() bool { return p.d.IntN(100) < p.skill }

// off is how far a hand is off, in units of the view.
func (p *practising) off() float64 { return p.d.NormFloat64() * float64(110-p.skill) / 5 }

func (p *practising) landmarks() {
	for range 6 {
		told := p.live.Told(0)
		asked := told[len(told)-1].Shows
		at, err := body.FindLandmark(asked.View, asked.Landmark, asked.Side)
		if err != nil {
			p.err = err
			return
		}
		p.t += 3 + float64((100-p.skill)/8)
		p.act("touch", bench.LearnerAction{View: asked.View, X: new(at.X + p.off()/2), Y: new(at.Y + p.off()/2)})
	}
}

func (p *practising) asking() {
	list := append(slices.Clone(p.c.Yes), "fever", "anticoagulant", "night-pain", "recent-fall")
	for _, q := range list {
		form := "open"
		if !p.well() {
			form = "leading"
		}
		if p.well() || p.well() {
			p.t += 12
			a := bench.LearnerAction{Question: q, Form: form}
			before := p.err
			if p.act("ask", a); p.err != nil && before == nil {
				p.err, p.in.Actions = nil, p.in.Actions[:len(p.in.Actions)-1] // not a question of the screening
			}
		}
	}
}

func (p *practising) reasoning() {
	p.act("ask", bench.LearnerAction{What: "story"})
	p.act("ask", bench.LearnerAction{What: "drawing"})
	for _, r := range p.c.Truth.Ranges {
		p.act("test", bench.LearnerAction{Movement: r.Movement, Side: r.Side})
	}
	answers := []bench.NamedCause{{
		Is: "muscle", Muscle: "upper-trapezius", Side: ids.Left, Percent: 80 + p.d.IntN(8),
	}}
	if p.well() {
		answers[0] = bench.NamedCause{Is: p.c.Best, Percent: 80 + p.d.IntN(8)}
		if p.c.Best == "treat" {
			of := p.c.Truth.Points[0]
			answers[0] = bench.NamedCause{Is: "muscle", Muscle: of.Muscle, Side: of.Side, Percent: 80 + p.d.IntN(8)}
		}
	}
	answers = append(answers, bench.NamedCause{Is: "muscle", Muscle: "soleus", Side: ids.Right, Percent: 10 +
		p.d.IntN(15)})
	p.t += 40
	p.act("name", bench.LearnerAction{Answers: answers})
}

func (p *practising) search() {
	of := p.c.Truth.Points[0]
	m, err := atlas.Get(of.Muscle)
	if err != nil {
		p.err = err
		return
	}
	place := atlas.FibrePlace{Fibre: of.Fibre, AlongPct: of.AlongPct, AcrossMM: of.AcrossMM}
	v, at := m.OnFigure(place, of.Side, body.DefaultHeightCM)
	_, there := m.OnFigure(place, of.Side.Other(), body.DefaultHeightCM)
	force := 12.0
	if !p.well() {
		force = 37
	}
	for range 8 {
		x, y := at.X+2*p.off(), at.Y+2*p.off()
		p.t += 2
		p.act("stroke", bench.LearnerAction{
			View: v, X: &x, Y: &y, ToX: new(x + 12), ToY: new(y + 3),
			ForceN: new(12.0),
		})
		p.act("press", bench.LearnerAction{View: v, X: &x, Y: &y, ForceN: &force})
	}
	if p.well() {
		p.act("press", bench.LearnerAction{View: v, X: &there.X, Y: &there.Y, ForceN: new(12.0)})
	}
	muscle := of.Muscle
	if !p.well() {
		muscle = "trapezius-middle"
		if _, err := atlas.Get(muscle); err != nil {
			muscle = "upper-trapezius"
		}
	}
	p.act("mark", bench.LearnerAction{
		View: v, X: new(at.X + p.off()), Y: new(at.Y + p.off()), Muscle: muscle, Side: of.Side,
		DirectionDeg: new(p.d.IntN(180)),
	})
}

// grading presses up, asks, and comes off when it is told to, the sooner the better the learner is.
func (p *practising) grading() {
	coming := []treat.Advice{treat.ReleaseSlowly, treat.MoveOff, treat.Stop, treat.Done, treat.Flush}
	force, asked := 0.0, 0.0
	for range 90 {
		line, _, ok := p.live.Coach()
		if !ok || p.err != nil {
			return
		}
		off := len(line.Advice) > 0 && slices.Contains(coming, line.Advice[0])
		switch {
		case off && force <= 0:
			p.t += 20
			return
		case off && p.well():
			force = max(0, force-4)
		case !off && force < 17+float64((100-p.skill)/9):
			force += 2
		}
		p.act("press", bench.LearnerAction{ForceN: new(force)})
		if force > 12 && p.t-asked > float64(6+(100-p.skill)/5) {
			p.act("ask", bench.LearnerAction{})
			asked = p.t
		}
	}
	p.act("stop", bench.LearnerAction{})
}
