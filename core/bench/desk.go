package bench

import (
	"fmt"
	"reflect"

	"mokren/core/atlas"
	"mokren/core/decode"
	"mokren/core/ids"
)

// BenchOpen opens an exercise under a name of the caller's own; one that is open under it is dropped.
type BenchOpen struct {
	Session string `json:"session" maxLength:"60"`
	ExerciseIn
}

// BenchAct is what the learner does next.
type BenchAct struct {
	Session string        `json:"session" maxLength:"60"`
	Action  LearnerAction `json:"action"`
}

// BenchLook lets time pass.
type BenchLook struct {
	Session string `json:"session" maxLength:"60"`
	MS      int64  `json:"ms" minimum:"0"`
}

// BenchFeel asks what a finger on its way meets.
type BenchFeel struct {
	Session string `json:"session" maxLength:"60"`
	FingerAt
}

// BenchFelt is that, of a hundred.
type BenchFelt struct {
	Feels int `json:"feels"`
}

// BenchSession names what is open.
type BenchSession struct {
	Session string `json:"session" maxLength:"60"`
}

// BenchStep is what the client said and showed since the step before.
type BenchStep struct {
	Told []ClientTold `json:"told"`
	Done bool         `json:"done"`
}

// CaseSummary is what a learner sees of a shipped case before it is begun.
type CaseSummary struct {
	ID    string `json:"id"`
	Title string `json:"title"`
	Story string `json:"story" doc:"in the client's words"`
	Level int    `json:"level"`
	// Touching: there is something to press, so it can be searched for.
	Touching bool `json:"touching"`
}

// BenchCases lists the shipped cases.
type BenchCases struct {
	Cases []CaseSummary `json:"cases"`
}

// Summaries are the shipped cases without their truth.
func Summaries() []CaseSummary {
	out := make([]CaseSummary, 0, len(files))
	for _, c := range shipped() {
		out = append(out, CaseSummary{c.ID, c.Title, c.Story, c.Level, len(c.Truth.Points) > 0})
	}
	return out
}

// mostOpen: a page has one exercise open, or two while it goes from one to the next; those of a long day
// are not kept.
const mostOpen = 32

// Desk keeps the exercises of one page; the zero value is ready.
type Desk struct {
	open map[string]*onDesk
}

type onDesk struct {
	live *Live
	told int
}

// DeskQuestion is one thing that a page may ask a desk; the page's types are made from its own.
type DeskQuestion struct {
	Name, Summary string
	In, Out       reflect.Type
	answer        func(*Desk, []byte) (any, error)
}

// DeskQuestions lists them in the order of their names.
func DeskQuestions() []DeskQuestion {
	return []DeskQuestion{
		deskQuestion("act", "What the learner does next, and what the client says and shows of it", (*Desk).act),
		deskQuestion("cases", "The shipped cases, without their truth",
			func(*Desk, struct{}) (BenchCases, error) { return BenchCases{Summaries()}, nil }),
		deskQuestion("feel", "What a finger on its way meets; no action", (*Desk).feel),
		deskQuestion("look", "Time passes under a hand that stays", (*Desk).look),
		deskQuestion("open", "An exercise is opened, with what was done of it already", (*Desk).openAt),
		deskQuestion("out", "What an exercise has come to so far", (*Desk).out),
		deskQuestion("pressed", "The place at which the hold of a case is", (*Desk).pressed),
		deskQuestion("pressure", "How alike repeated presses are, and whose hand is heavier",
			func(_ *Desk, in BenchPressures) (BenchAlike, error) {
				return BenchAlike{SamePressure(in.First), SamePressure(in.Second), Heavier(in.First, in.Second)}, nil
			}),
		deskQuestion("run", "What a learner's actions with a simulated client come to",
			func(_ *Desk, in ExerciseIn) (ExerciseOut, error) { return Run(in) }),
	}
}

func deskQuestion[In, Out any](name, summary string, answer func(*Desk, In) (Out, error)) DeskQuestion {
	return DeskQuestion{
		Name: name, Summary: summary, In: reflect.TypeFor[In](), Out: reflect.TypeFor[Out](),
		answer: func(d *Desk, raw []byte) (any, error) {
			var in In
			if err := decode.JSON(raw, &in); err != nil {
				return nil, err
			}
			return answer(d, in)
		},
	}
}

// Answer answers a page; an error is a *decode.Error that names the field.
func (d *Desk) Answer(name string, raw []byte) (any, error) {
	for _, q := range DeskQuestions() {
		if q.Name == name {
			return q.answer(d, raw)
		}
	}
	return nil, &decode.Error{Path: "$.name", Given: fmt.Sprintf("%q", name), Allowed: "a question of the bench"}
}

func (d *Desk) openAt(in BenchOpen) (BenchStep, error) {
	live, err := Open(in.ExerciseIn)
	if err != nil {
		return BenchStep{}, err
	}
	if len(d.open) >= mostOpen || d.open == nil {
		d.open = map[string]*onDesk{}
	}
	s := &onDesk{live: live}
	d.open[in.Session] = s
	return s.step(), nil
}

// step is what is new.
func (s *onDesk) step() BenchStep {
	told := s.live.Told(s.told)
	s.told += len(told)
	return BenchStep{Told: told, Done: s.live.Done()}
}

func (d *Desk) at(session string) (*onDesk, error) {
	if s := d.open[session]; s != nil {
		return s, nil
	}
	return nil, &decode.Error{Path: "$.session", Given: session, Allowed: "one that is open"}
}

func (d *Desk) act(in BenchAct) (BenchStep, error) {
	s, err := d.at(in.Session)
	if err != nil {
		return BenchStep{}, err
	}
	if err := s.live.Act(in.Action); err != nil {
		return BenchStep{}, err
	}
	return s.step(), nil
}

func (d *Desk) look(in BenchLook) (BenchStep, error) {
	s, err := d.at(in.Session)
	if err != nil {
		return BenchStep{}, err
	}
	s.live.Look(in.MS)
	return s.step(), nil
}

func (d *Desk) out(in BenchSession) (ExerciseOut, error) {
	s, err := d.at(in.Session)
	if err != nil {
		return ExerciseOut{}, err
	}
	return s.live.Out(), nil
}

func (d *Desk) feel(in BenchFeel) (BenchFelt, error) {
	s, err := d.at(in.Session)
	if err != nil {
		return BenchFelt{}, err
	}
	n, _ := s.live.Feel(in.FingerAt)
	return BenchFelt{n}, nil
}

// BenchPlace is a place under the hand, as it would have been charted before a hold.
type BenchPlace struct {
	Muscle   ids.Muscle       `json:"muscle"`
	Side     ids.Side         `json:"side"`
	Place    atlas.FibrePlace `json:"place"`
	Grade    int              `json:"grade"`
	Familiar bool             `json:"familiar"`
	Story    string           `json:"story"`
}

// pressed is the place at which the hold of a case is, for a page that charts it beforehand.
func (d *Desk) pressed(in ExerciseIn) (BenchPlace, error) {
	c, err := caseOf(in.Case)
	if err != nil {
		return BenchPlace{}, err
	}
	p := c.underHand()
	return BenchPlace{
		Muscle: p.Muscle, Side: p.Side, Grade: p.Tenderness, Familiar: p.Familiar, Story: c.Story,
		Place: atlas.FibrePlace{Fibre: p.Fibre, AlongPct: p.AlongPct, AcrossMM: p.AcrossMM},
	}, nil
}

// BenchPressures are repeated presses of two people to one aim, in newtons.
type BenchPressures struct {
	First  []float64 `json:"first" maxItems:"20"`
	Second []float64 `json:"second" maxItems:"20"`
}

// BenchAlike says how alike they are, and whose hand is heavier.
type BenchAlike struct {
	First   Pressed `json:"first"`
	Second  Pressed `json:"second"`
	Heavier string  `json:"heavier"`
}
