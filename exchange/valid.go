package exchange

import (
	"encoding/json"
	"errors"
	"reflect"

	"mokren/core/strict"
)

// valid holds a value to the limits of its shape, as if it had come as JSON.
func valid(v any) *strict.Error { return readInto(v, reflect.New(reflect.TypeOf(v)).Interface()) }

// readInto reads a value strictly into a shape.
func readInto(v, into any) *strict.Error {
	raw, err := json.Marshal(v)
	if err == nil {
		err = strict.Decode(raw, into)
	}
	var e *strict.Error
	switch {
	case err == nil:
		return nil
	case errors.As(err, &e):
		return e
	}
	return &strict.Error{Path: "$", Given: "something else", Allowed: err.Error()}
}
