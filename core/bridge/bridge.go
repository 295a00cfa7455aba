package bridge

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strings"

	"mokren/core/calc"
	"mokren/core/decode"
	"mokren/core/stable"
)

// Question is one thing that a page may ask.
type Question struct {
	Name    string
	Summary string
	// In and Out are the types of the question and of its answer; the page's are made from
	// them.
	In, Out reflect.Type
	// Pure: the answer depends on the input alone.
	Pure   bool
	answer func(*Bridge, []byte) (any, error)
}

// Bridge answers a page's questions. The zero value is not ready; see New.
type Bridge struct {
	questions map[string]Question
	// visits are those last opened, by id; at most maxVisits, the oldest is dropped first.
	visits []*openVisit
	// holds are the live holds by id, each until it is opened anew or maxHolds are open.
	holds []*liveHold
	// revision counts the states given; it never repeats.
	revision int64
}

// New gives a door with nothing open.
func New() *Bridge {
	d := &Bridge{questions: map[string]Question{}}
	for _, q := range questions() {
		d.questions[q.Name] = q
	}
	return d
}

// List gives every question, in the order of their names.
func List() []Question {
	list := questions()
	stable.Sort(list, func(a, b Question) int { return strings.Compare(a.Name, b.Name) })
	return list
}

// questions are those about visits and holds, and the computations that pages ask for by name.
func questions() []Question {
	list := append(ofVisits(), ofHolds()...)
	for _, c := range calc.ForPages() {
		list = append(list, Question{Name: c.Name, Summary: c.Summary, In: c.In, Out: c.Out, Pure: true})
	}
	return list
}

// Answer answers a question. An error is a *decode.Error that names the field.
func (d *Bridge) Answer(name string, raw []byte) (any, error) {
	q, ok := d.questions[name]
	switch {
	case !ok:
		return nil, &decode.Error{Path: "$.name", Given: fmt.Sprintf("%q", name), Allowed: "a question of the door"}
	case q.Pure:
		b, err := calc.InBrowser(name, raw)
		return json.RawMessage(b), err
	}
	return q.answer(d, raw)
}

// question makes one from a function from one pointer to another. Pointers share their
// code, so that a page loads it once and not for every question. Input from the page is
// its own and was typed by generated types, so it is read without further checks; what it
// contains is judged by the packages that are asked.
func question[In, Out any](name, summary string, answer func(*Bridge, In) (Out, error)) Question {
	of := reflect.TypeFor[In]().Elem()
	return Question{
		Name: name, Summary: summary, In: of, Out: reflect.TypeFor[Out]().Elem(),
		answer: func(d *Bridge, raw []byte) (any, error) {
			in := reflect.New(of).Interface()
			if err := json.Unmarshal(raw, in); err != nil {
				return nil, err
			}
			return answer(d, in.(In))
		},
	}
}

// aboutVisit makes a question about an open visit at the revision that is shown.
func aboutVisit[In interface{ about() Of }, Out any](
	name, summary string, answer func(*openVisit, In) (Out, error),
) Question {
	return question(name, summary, func(d *Bridge, in In) (out Out, err error) {
		v, err := d.at(in.about())
		if err != nil {
			return out, err
		}
		return answer(v, in)
	})
}
