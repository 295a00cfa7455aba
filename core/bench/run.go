package bench

import (
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/treat"
)

// ExerciseIn is a case, a seed and what a learner did.
type ExerciseIn struct {
	Case     json.RawMessage `json:"case" doc:"the id of a shipped case, or {seed, level}"`
	Seed     int64           `json:"seed" minimum:"0" maximum:"9007199254740991"`
	Exercise string          `json:"exercise" enum:"landmarks,search,grading,asking,reasoning,visit"`
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
	if c, ok := Find(id); ok {
		return c, nil
	}
	return ClientCase{}, &decode.Error{Path: "$.case", Given: strconv.Quote(id), Allowed: strings.Join(IDs(), ", ")}
}

// LearnerAction is one thing that a learner did; docs/bench.md says which fields each has.
type LearnerAction struct {
	T      json.Number `json:"t" doc:"seconds, at most three decimals"`
	Action string      `json:"action" enum:"touch,press,stroke,mark,ask,test,name,hold,sign,move,stop,finish"`
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
	What     string       `json:"what,omitempty" enum:"story,drawing,landmarks"`
	// A movement that is measured, or a test that is done.
	Movement ids.Movement `json:"movement,omitempty"`
	Test     ids.Test     `json:"test,omitempty"`
	Side     ids.Side     `json:"side,omitempty"`
	// Protocol of a hold that is begun in a visit.
	Protocol ids.Protocol `json:"protocol,omitempty"`
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
	// Statements are what was named with a confidence, and whether it is so; told with the truth.
	Statements []Claim `json:"statements,omitempty"`
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
	// A landmark that is to be touched, or the spinous level so many below it, or a muscle's usual place.
	Landmark ids.Landmark `json:"landmark,omitempty"`
	Down     int          `json:"down,omitempty"`
	Muscle   ids.Muscle   `json:"muscle,omitempty"`
	Site     string       `json:"site,omitempty"`
	Side     ids.Side     `json:"side,omitempty"`
	View     body.View    `json:"view,omitempty"`
	// The middle of the region that is to be searched.
	X *float64 `json:"x,omitempty"`
	Y *float64 `json:"y,omitempty"`
	// A reading.
	Movement ids.Movement `json:"movement,omitempty"`
	Deg      *float64     `json:"deg,omitempty"`
	// A test, and what came of it.
	Test   ids.Test `json:"test,omitempty"`
	Result string   `json:"result,omitempty" enum:"positive,negative"`
	// Regions of the drawing, and of the truth the case with the engine's own list.
	Pain   []PainOf    `json:"pain,omitempty"`
	Case   *ClientCase `json:"case,omitempty"`
	Engine []Suspected `json:"engine,omitempty"`
	// Separates is the finding that would have told the candidates apart best.
	Separates string `json:"separates,omitempty"`
	// Twitch: the muscle jumped under the finger.
	Twitch bool `json:"twitch,omitempty"`
	// Structure whose sign the client feels.
	Structure ids.Structure `json:"structure,omitempty"`
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

// session is what every exercise has: the case and what was told of it so far.
type session struct {
	c    ClientCase
	in   ExerciseIn
	out  ExerciseOut
	at   int64 // ms, of the action that is looked at
	done bool
}

// Live is an exercise under way, told each action when it happens.
type Live struct {
	s *session
	e exercise
	n int
}

var exercises = map[string]func(*session) exercise{
	"landmarks": landmarks, "search": search, "grading": grading, "asking": asking, "reasoning": reasoning,
	"visit": wholeVisit,
}

// Open begins an exercise and lives through the actions that there are already; an error names the
// field.
func Open(in ExerciseIn) (*Live, error) {
	c, err := caseOf(in.Case)
	if err != nil {
		return nil, err
	}
	s := &session{c: c, in: in, out: ExerciseOut{Client: []ClientTold{}, Marks: []LearnerMark{}}}
	l := &Live{s: s, e: exercises[in.Exercise](s)}
	for _, a := range in.Actions {
		if err := l.Act(a); err != nil {
			return nil, err
		}
	}
	return l, nil
}

// Act tells what the learner does next. What is refused has changed nothing, but that its time has
// come.
func (l *Live) Act(a LearnerAction) error {
	s := l.s
	ms, e := s.time(a)
	switch {
	case e != nil:
	case s.done:
		e = &decode.Error{Path: ".action", Given: a.Action, Allowed: "nothing after finish"}
	default:
		if a.Action == "finish" { // the last flush is lived through
			l.Look(ms)
		}
		s.at, a.ms = ms, ms
		if s.done = a.Action == "finish"; !s.done {
			e = l.e.act(&a)
		}
	}
	if e != nil {
		return at(l.n, e.Path, e.Given, e.Allowed)
	}
	l.n++
	return nil
}

// Look lets time pass until then without an action: under a hand that stays, a client may cry out. A
// time that has passed already changes nothing.
func (l *Live) Look(ms int64) {
	if w, ok := l.e.(interface{ wait(ms int64) }); ok && ms > l.s.at && !l.s.done {
		w.wait(ms)
	}
}

// Out is what it has come to so far, with the truth when it is finished. Asked again it is the same.
func (l *Live) Out() ExerciseOut {
	s := l.s
	marks := slices.Clone(s.out.Marks)
	out := ExerciseOut{Client: slices.Clone(s.out.Client), Score: map[string]float64{}}
	l.e.score(out.Score)
	out.Marks, s.out.Marks = s.out.Marks, marks
	if s.done {
		out.Truth = &ClientTold{T: seconds(s.at), Shows: l.e.truth()}
		out.Statements = l.said()
	}
	return out
}

// said are the statements of a reasoning, its own or a visit's.
func (l *Live) said() []Claim {
	r, ok := l.e.(*inference)
	if w, is := l.e.(*whole); is {
		r, ok = w.part("reasoning").(*inference)
	}
	if !ok || !r.named {
		return nil
	}
	var out []Claim
	for _, s := range r.statements() {
		out = append(out, Claim{s.percent, s.isSo})
	}
	return out
}

// Told is what the client said and showed from the nth on.
func (l *Live) Told(from int) []ClientTold {
	return slices.Clone(l.s.out.Client[min(from, len(l.s.out.Client)):])
}

// Done tells that it is finished.
func (l *Live) Done() bool { return l.s.done }

// Run gives what a learner's actions come to; an error names the field.
func Run(in ExerciseIn) (ExerciseOut, error) {
	l, err := Open(in)
	if err != nil {
		return ExerciseOut{}, err
	}
	return l.Out(), nil
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

// time reads the time of an action in ms; it never goes back.
func (s *session) time(a LearnerAction) (int64, *decode.Error) {
	whole, part, _ := strings.Cut(a.T.String(), ".")
	ms, err := strconv.ParseInt(whole+(part + "000")[:3], 10, 64)
	const longest = 24 * 3_600_000
	if err != nil || len(part) > 3 || ms < 0 || ms > longest {
		return 0, &decode.Error{Path: ".t", Given: a.T.String(), Allowed: "seconds of a day, at most three decimals"}
	}
	if ms < s.at {
		return 0, &decode.Error{Path: ".t", Given: a.T.String(), Allowed: "a time that does not go back"}
	}
	return ms, nil
}

func seconds(ms int64) float64 { return float64(ms) / 1000 }

// quiet tells that the story was told already: in a visit all exercises have one client.
func (s *session) quiet() bool { return s.in.Exercise == "visit" }

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

// Coach is what the coach of the last hold says now, and what the hold came to; false where there is
// none.
func (l *Live) Coach() (treat.Line, treat.Summary, bool) {
	h, ok := l.e.(*hold)
	if w, is := l.e.(*whole); is && len(w.holds) > 0 {
		h, ok = w.holds[len(w.holds)-1], true
	}
	if !ok || h.coach == nil {
		return treat.Line{}, treat.Summary{}, false
	}
	return h.line(), h.coach.Summary(), true
}

// Actions is how many were done.
func (l *Live) Actions() int { return l.n }

// CaseOf is the case of an exercise.
func CaseOf(in ExerciseIn) (ClientCase, error) { return caseOf(in.Case) }

// Find gives a shipped case by its id.
func Find(id string) (ClientCase, bool) {
	for _, c := range shipped() {
		if c.ID == id {
			return c, true
		}
	}
	return ClientCase{}, false
}

// Exercises names them in the order of the work.
func Exercises() []string { return slices.Clone(order) }

// FingerAt is a place under a finger that moves, and how hard it presses.
type FingerAt struct {
	View   body.View `json:"view"`
	X      float64   `json:"x" minimum:"-100" maximum:"1100"`
	Y      float64   `json:"y" minimum:"-100" maximum:"1100"`
	ForceN float64   `json:"force_n" minimum:"0" maximum:"100"`
}

// Feel is what a finger on its way meets, of a hundred; it is no action, so that it can be asked in
// every frame. False where the exercise has nothing to feel.
func (l *Live) Feel(f FingerAt) (int, bool) {
	s, ok := l.e.(*searching)
	if w, is := l.e.(*whole); is {
		s, ok = w.part("search").(*searching)
	}
	if !ok || l.s.done {
		return 0, false
	}
	return int(s.feel(f.View, body.Point{X: f.X, Y: f.Y}, int64(f.ForceN*10))), true
}
