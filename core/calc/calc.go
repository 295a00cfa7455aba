package calc

import (
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"strings"

	"mokren/core/decode"
	"mokren/core/stable"
)

// Calc is one named computation.
type Calc struct {
	Name    string
	Summary string
	Example string // a valid input
	Lines   bool   // JSON lines in and out instead of one document
	// In and Out are what goes in and comes out, for the API's description;
	// text where it is lines.
	In, Out reflect.Type
	run     func(gone Cancelled, raw []byte) ([]byte, error)
}

// List gives the computations in the order of their names; it is the one list that the
// API and the command line are made from.
func List() []Calc {
	list := slices.Concat(inBrowser(), others(), native())
	stable.Sort(list, func(a, b Calc) int { return strings.Compare(a.Name, b.Name) })
	return list
}

// Find looks a computation up.
func Find(name string) (Calc, bool) { return find(List(), name) }

// find goes through the list: it has some forty rows and is asked once for a computation.
func find(list []Calc, name string) (Calc, bool) {
	for _, c := range list {
		if c.Name == name {
			return c, true
		}
	}
	return Calc{}, false
}

// ForPages gives those that pages ask for.
func ForPages() []Calc { return inBrowser() }

// InBrowser computes for a page, which asks for some of them only.
func InBrowser(name string, raw []byte) ([]byte, error) { return runOf(inBrowser(), stays, name, raw) }

func stays() error { return nil }

// Run computes. The output ends with a newline.
func Run(name string, raw []byte) ([]byte, error) { return RunFor(stays, name, raw) }

// Cancelled says why nobody waits for the answer any more; nil while somebody does. A
// context's Err is one. It is not the context itself, which brings the clock along.
type Cancelled func() error

// RunFor computes for a caller who may leave: what takes long stops then.
func RunFor(gone Cancelled, name string, raw []byte) ([]byte, error) {
	return runOf(List(), gone, name, raw)
}

// runOf runs a computation by its name, or says which names there are.
func runOf(list []Calc, gone Cancelled, name string, raw []byte) ([]byte, error) {
	c, ok := find(list, name)
	if !ok {
		names := make([]string, len(list))
		for i := range list {
			names[i] = list[i].Name
		}
		return nil, &decode.Error{
			Path: "NAME", Given: fmt.Sprintf("%q", name),
			Allowed: "one of " + strings.Join(names, ", "),
		}
	}
	return c.run(gone, raw)
}

// document is a computation of one JSON document from another. Only what must know the
// types is made for each of them: a page loads the core.
func document[In, Out any](name, summary, example string, f func(In) (Out, error)) Calc {
	return Calc{
		Name: name, Summary: summary, Example: example, In: reflect.TypeFor[In](), Out: reflect.TypeFor[Out](),
		run: func(gone Cancelled, raw []byte) ([]byte, error) {
			return oneDocument(gone, raw, new(In), func(in any) (any, error) { return f(*in.(*In)) })
		},
	}
}

// oneDocument reads the input, computes and writes the answer.
func oneDocument(gone Cancelled, raw []byte, in any, f func(in any) (any, error)) ([]byte, error) {
	if err := decode.JSON(raw, in); err != nil {
		return nil, err
	}
	if err := gone(); err != nil {
		return nil, err
	}
	out, err := f(in)
	if err != nil {
		return nil, err
	}
	b, err := json.Marshal(out)
	return append(b, '\n'), err
}
