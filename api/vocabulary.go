package api

import (
	"encoding/json"
	"reflect"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/bench"
	"mokren/core/body"
	"mokren/core/bridge"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/treat"
	"mokren/core/visit"
)

const schemasAt = "#/components/schemas/"

// describeVocabulary makes unions of the core's lists of words, so that the
// front end's types know every id, phase and advice; and a map of the event
// types to their bodies.
func describeVocabulary(r huma.Registry) {
	union(r, body.Views)
	union(r, ids.Sides())
	union(r, ids.Muscles())
	union(r, ids.Regions())
	union(r, ids.Movements())
	union(r, ids.Questions())
	union(r, ids.Protocols())
	union(r, ids.Contacts())
	union(r, ids.Positions())
	union(r, ids.Signs())
	union(r, ids.Loads())
	union(r, ids.Tests())
	union(r, treat.Phases())
	union(r, treat.Advices())
	union(r, treat.Kinds())
	union(r, treat.Outcomes())
	union(r, append(treat.EndReasons(), "")) // "" while a hold goes on
	union(r, progress.Signals())
	union(r, allRights())
	describeEvents(r)
	r.Schema(reflect.TypeFor[visit.Palpation](), true, "") // part of a point
	for _, q := range bridge.List() {
		r.Schema(q.In, true, "")
		r.Schema(q.Out, true, "")
	}
	r.RegisterTypeAlias(reflect.TypeFor[json.Number](), reflect.TypeFor[float64]())
	for _, q := range bench.DeskQuestions() {
		r.Schema(q.In, true, "")
		r.Schema(q.Out, true, "")
	}
}

// union describes a type of text by the words that it may be.
func union[T ~string](r huma.Registry, words []T) {
	t := reflect.TypeFor[T]()
	s := &huma.Schema{Type: "string"}
	for _, w := range words {
		s.Enum = append(s.Enum, string(w))
	}
	s.PrecomputeMessages()
	r.Map()[unionName(t)] = s
	r.RegisterTypeAlias(t, reflect.TypeFor[oneOf[T]]())
}

// oneOf stands for T in the description.
type oneOf[T any] string

// Schema implements huma.SchemaProvider.
func (oneOf[T]) Schema(huma.Registry) *huma.Schema {
	return &huma.Schema{Ref: schemasAt + unionName(reflect.TypeFor[T]())}
}

// unionName tells ids from the things that they name.
func unionName(t reflect.Type) string {
	switch {
	case t == reflect.TypeFor[treat.Kind]():
		return "HoldEventKind"
	case t.PkgPath() == reflect.TypeFor[ids.Side]().PkgPath() && t != reflect.TypeFor[ids.Side]():
		return t.Name() + "ID"
	}
	return t.Name()
}

// describeEvents describes the body of each event type.
func describeEvents(r huma.Registry) {
	types := visit.Types()
	s := &huma.Schema{
		Type: "object", Description: "the bodies of a visit's events, by type",
		Properties: map[string]*huma.Schema{},
	}
	for name, empty := range types {
		s.Properties[name] = r.Schema(reflect.TypeOf(empty).Elem(), true, "")
		s.Required = append(s.Required, name)
	}
	slices.Sort(s.Required)
	r.Map()["EventBodies"] = s
}

// SchemaName is the name of a type in the description.
func SchemaName(t reflect.Type) string { return schemaName(t, t.Name()) }
