package bench

import (
	"encoding/json"
	"errors"
	"fmt"
	"strconv"
	"strings"

	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
)

// ExerciseIn is a case, a seed and what a learner did.
type ExerciseIn struct {
	Case     json.RawMessage `json:"case" doc:"the id of a shipped case, or {seed, level}"`
	Seed     int64           `json:"seed" minimum:"0" maximum:"9007199254740991"`
	Exercise string          `json:"exercise" enum:"landmarks,search,grading,asking,reasoning"`
	// Protocol by which is pressed, of grading; the case's own where it is left out.
	Protocol ids.Protocol    `json:"protocol,omitempty"`
	Actions  []LearnerAction `json:"actions" maxItems:"2000"`
}

// generated is a case that is made.
type generated struct {
	Seed  int64 `json:"seed" minimum:"0" maximum:"9007199254740991"`
	Level int   `json:"level" minimum:"1" maximum:"3"`
}

// caseOf gives a shipped case by its id, or makes one of a seed and a level.
func caseOf(raw json.RawMessage) (ClientCase, error) {
	var id string
	if json.Unmarshal(raw, &id) != nil {
		var g generated
		if err := decode.JSON(raw, &g); err != nil {
			var e *decode.Error
			if errors.As(err, &e) {
				return ClientCase{}, e.Under("$.case")
			}
			return ClientCase{}, err
		}
		return Generate(g.Seed, g.Level), nil
	}
	for _, x := range shipped() {
		if x.ID == id {
			return x, nil
		}
	}
	return ClientCase{}, &decode.Error{Path: "$.case", Given: strconv.Quote(id), Allowed: strings.Join(IDs(), ", ")}
}

// LearnerAction is one thing that a learner did; docs/bench.md says which fields each has.
type LearnerAction struct {
	T      json.Number `json:"t" doc:"seconds, at most three decimals"`
	Action string      `json:"action" enum:"touch,press,stroke,mark,ask,test,name,stop,finish"`
	// Where a touch is.
	View body.View `json:"view,omitempty"`
	X    *float64  `json:"x,omitempty" minimum:"-100" maximum:"1100"`
	Y    *float64  `json:"y,omitempty" minimum:"-100" maximum:"1100"`
	// A press and a stroke have a force, a stroke an end; what is marked has a muscle and the way of its
	// band from the horizontal, counter-clockwise as one looks.
	ForceN       *float64   `json:"force_n,omitempty" minimum:"0" maximum:"100"`
	ToX          *float64   `json:"to_x,omitempty" minimum:"-100" maximum:"1100"`
	ToY          *float64   `json:"to_y,omitempty" minimum:"-100" maximum:"1100"`
	Muscle       ids.Muscle `json:"muscle,omitempty"`
	DirectionDeg *int       `json:"direction_deg,omitempty" minimum:"0" maximum:"180"`
	// What is asked: a question of the screening in an open or a leading form, the story or the
	// drawing.
	Question ids.Question `json:"question,omitempty"`
	Form     string       `json:"form,omitempty" enum:"open,leading"`
	What     string       `json:"what,omitempty" enum:"story,drawing"`
	// A movement that is measured.
	Movement ids.Movement `json:"movement,omitempty"`
	Side     ids.Side     `json:"side,omitempty"`
	// What the learner takes it for.
	Answers []NamedCause `json:"answers,omitempty" maxItems:"3"`

	ms int64
}

// NamedCause is a muscle on a side, nothing, or to refer, with how sure the learner is.
type NamedCause struct {
	Is      string     `json:"is" enum:"muscle,nothing,refer"`
	Muscle  ids.Muscle `json:"muscle,omitempty"`
	Side    ids.Side   `json:"side,omitempty"`
	Percent int        `json:"percent" minimum:"0" maximum:"100"`
}

// Check implements decode.Checker: a muscle has a side, the other answers have neither.
func (a NamedCause) Check() *decode.Error {
	if (a.Is == "muscle") != (a.Muscle != "" && a.Side != "") {
		return &decode.Error{Path: "$.is", Given: a.Is, Allowed: "a muscle with its side, nothing, or refer"}
	}
	return nil
}

// ExerciseOut is what the client said and showed, and what it comes to.
type ExerciseOut struct {
	Client []ClientTold       `json:"client"`
	Score  map[string]float64 `json:"score" doc:"each 0 to 1"`
	Marks  []LearnerMark      `json:"marks"`
	// Truth is told when the exercise is finished.
	Truth *ClientTold `json:"truth,omitempty"`
}

// ClientTold is what the client says or shows at a time.
type ClientTold struct {
	T     float64      `json:"t"`
	Says  string       `json:"says,omitempty"`
	Shows *ClientShown `json:"shows,omitempty"`
	// Feels is what the finger meets, of a hundred: once for a press, along the way for a stroke.
	Feels []int `json:"feels,omitempty"`
}

// ClientShown is what is seen.
type ClientShown struct {
	// A landmark that is to be touched.
	Landmark ids.Landmark `json:"landmark,omitempty"`
	Side     ids.Side     `json:"side,omitempty"`
	View     body.View    `json:"view,omitempty"`
	// A reading.
	Movement ids.Movement `json:"movement,omitempty"`
	Deg      *float64     `json:"deg,omitempty"`
	// Regions of the drawing, and of the truth the case with the engine's own list.
	Pain   []PainOf    `json:"pain,omitempty"`
	Case   *ClientCase `json:"case,omitempty"`
	Engine []Suspected `json:"engine,omitempty"`
}

// PainOf is one painted region.
type PainOf struct {
	Region    ids.Region `json:"region"`
	Side      ids.Side   `json:"side"`
	Intensity int        `json:"intensity"`
}

// Suspected is a row of the engine's list.
type Suspected struct {
	Muscle  ids.Muscle `json:"muscle"`
	Side    ids.Side   `json:"side"`
	Percent int        `json:"percent"`
}

// LearnerMark is something that counts, with its rule.
type LearnerMark struct {
	T    float64 `json:"t"`
	Rule string  `json:"rule"`
	Text string  `json:"text"`
}

// session is an exercise under way.
type session struct {
	c    ClientCase
	in   ExerciseIn
	out  ExerciseOut
	at   int64 // of the action that is looked at
	done bool
}

// Run gives what a learner's actions come to; an error names the field.
func Run(in ExerciseIn) (ExerciseOut, error) {
	c, err := caseOf(in.Case)
	if err != nil {
		return ExerciseOut{}, err
	}
	s := &session{c: c, in: in, out: ExerciseOut{
		Client: []ClientTold{}, Score: map[string]float64{},
		Marks: []LearnerMark{},
	}}
	if e := s.times(); e != nil {
		return ExerciseOut{}, e
	}
	exercise := map[string]func(*session) exercise{
		"landmarks": landmarks, "search": search, "grading": grading, "asking": asking, "reasoning": reasoning,
	}[in.Exercise](s)
	for i := range in.Actions {
		a := &in.Actions[i]
		s.at = a.ms
		if s.done {
			return ExerciseOut{}, at(i, ".action", a.Action, "nothing after finish")
		}
		if a.Action == "finish" {
			s.done = true
			continue
		}
		if e := exercise.act(a); e != nil {
			return ExerciseOut{}, at(i, e.Path, e.Given, e.Allowed)
		}
	}
	exercise.score(s.out.Score)
	if s.done {
		s.out.Truth = &ClientTold{T: seconds(s.at), Shows: exercise.truth()}
	}
	return s.out, nil
}

// exercise is what each of them does with an action, and what it comes to.
type exercise interface {
	act(a *LearnerAction) *decode.Error
	score(into map[string]float64)
	truth() *ClientShown
}

func at(i int, field, given, allowed string) *decode.Error {
	return &decode.Error{Path: fmt.Sprintf("$.actions[%d]%s", i, field), Given: given, Allowed: allowed}
}

// times reads the times, which never go back.
func (s *session) times() *decode.Error {
	last := int64(0)
	for i := range s.in.Actions {
		a := &s.in.Actions[i]
		whole, part, _ := strings.Cut(a.T.String(), ".")
		ms, err := strconv.ParseInt(whole+(part + "000")[:3], 10, 64)
		const longest = 24 * 3_600_000
		if err != nil || len(part) > 3 || ms < 0 || ms > longest {
			return at(i, ".t", a.T.String(), "seconds of a day, at most three decimals")
		}
		if ms < last {
			return at(i, ".t", a.T.String(), "a time that does not go back")
		}
		last, a.ms = ms, ms
	}
	return nil
}

func seconds(ms int64) float64 { return float64(ms) / 1000 }

func (s *session) says(words string) {
	s.out.Client = append(s.out.Client, ClientTold{T: seconds(s.at), Says: words})
}

func (s *session) shows(what ClientShown) {
	s.out.Client = append(s.out.Client, ClientTold{T: seconds(s.at), Shows: &what})
}

func (s *session) mark(rule, text string) {
	s.out.Marks = append(s.out.Marks, LearnerMark{seconds(s.at), rule, text})
}

// share is a score of so many thousandths, within 0 and 1.
func share(thousandths int64) float64 { return float64(max(0, min(1000, thousandths))) / 1000 }

// falling is full up to a good value and nothing from a bad one on.
func falling(v, good, bad int64) float64 { return share(1000 * (bad - v) / (bad - good)) }
