package calc

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strings"

	"mokren/core/strict"
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
	run     func(gone Gone, raw []byte) ([]byte, error)
}

// List gives the computations in the order of their names.
func List() []Calc { return all }

// Find looks a computation up.
func Find(name string) (Calc, bool) {
	for _, c := range all {
		if c.Name == name {
			return c, true
		}
	}
	return Calc{}, false
}

// Run computes. The output ends with a newline.
func Run(name string, raw []byte) ([]byte, error) {
	return RunFor(func() error { return nil }, name, raw)
}

// Gone says why nobody waits for the answer any more; nil while somebody does. A
// context's Err is one. It is not the context itself, which brings the clock along.
type Gone func() error

// RunFor computes for a caller who may leave: what takes long stops then.
func RunFor(gone Gone, name string, raw []byte) ([]byte, error) {
	c, ok := Find(name)
	if !ok {
		names := make([]string, len(all))
		for i := range all {
			names[i] = all[i].Name
		}
		return nil, &strict.Error{
			Path: "NAME", Given: fmt.Sprintf("%q", name),
			Allowed: "one of " + strings.Join(names, ", "),
		}
	}
	return c.run(gone, raw)
}

// document is a computation of one JSON document from another.
func document[In, Out any](name, summary, example string, f func(In) (Out, error)) Calc {
	run := func(gone Gone, raw []byte) ([]byte, error) {
		var in In
		if err := strict.Decode(raw, &in); err != nil {
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
	return Calc{
		Name: name, Summary: summary, Example: example,
		In: reflect.TypeFor[In](), Out: reflect.TypeFor[Out](), run: run,
	}
}
